"""A stepper on a toothed belt."""

import math
from typing import ClassVar, Literal

from bridle.core.figure import Formula, Term, term
from bridle.core.subjects.motion import steppers
from bridle.core.subjects.motion.drives.interface import CardField
from bridle.core.subjects.motion.drives.stepper import MOTOR, Pulling, Whole
from bridle.core.subjects.strength import mounting
from bridle.core.values import Positive


class Belt(Pulling):
    """One turn of the pulley moves the belt by its teeth."""

    NAME: ClassVar[str] = "stepper on a belt"
    SHELF: ClassVar[str] = "stepper on a belt"
    FIELDS: ClassVar[tuple[CardField, ...]] = (
        CardField("pitch_mm", "belt pitch", "mm"),
        CardField("teeth", "pulley teeth"),
        *MOTOR,
    )
    HIDES: ClassVar[str] = "That hides a belt that slips, or a loose grub screw on the pulley."
    kind: Literal["belt"] = "belt"
    pitch_mm: Positive = 2.0
    teeth: Whole = 20

    def base_steps(self) -> float:
        """Steps a millimetre."""
        return steppers.belt_steps(self.full_steps, self.microsteps, self.pitch_mm, self.teeth)

    def gearing(self) -> tuple[Formula, tuple[Term, ...]]:
        """The pulley."""
        return steppers.BELT, (term("pitch", "belt pitch", self.pitch_mm, "mm"), term("teeth", "teeth", self.teeth, ""))

    def pull_radius(self) -> tuple[float, Formula, tuple[Term, ...]]:
        """That of the pulley."""
        parts = term("pitch", "belt pitch", self.pitch_mm, "mm"), term("teeth", "pulley teeth", self.teeth, "")
        return self.pitch_mm * self.teeth / math.tau, mounting.BELT_RADIUS, parts
