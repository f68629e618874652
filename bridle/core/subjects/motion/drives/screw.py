"""A stepper on a lead screw."""

import math
from typing import ClassVar, Literal

from bridle.core.figure import Formula, Term, term
from bridle.core.subjects.motion import steppers
from bridle.core.subjects.motion.drives.interface import CardField
from bridle.core.subjects.motion.drives.stepper import MOTOR, Efficiency, Pulling
from bridle.core.subjects.strength import mounting
from bridle.core.values import Positive


class Screw(Pulling):
    """One turn of the screw moves the nut by its lead."""

    NAME: ClassVar[str] = "stepper on a screw"
    SHELF: ClassVar[str] = "stepper on a screw"
    FIELDS: ClassVar[tuple[CardField, ...]] = (CardField("lead_mm", "lead", "mm"), *MOTOR)
    HIDES: ClassVar[str] = "That hides a coupling that slips, or a nut with play."
    kind: Literal["screw"] = "screw"
    lead_mm: Positive = 8.0
    efficiency: Efficiency = 0.4

    def base_steps(self) -> float:
        """Steps a millimetre."""
        return steppers.screw_steps(self.full_steps, self.microsteps, self.lead_mm)

    def gearing(self) -> tuple[Formula, tuple[Term, ...]]:
        """The lead."""
        return steppers.SCREW, (term("lead", "lead of the screw", self.lead_mm, "mm"),)

    def pull_radius(self) -> tuple[float, Formula, tuple[Term, ...]]:
        """The screw's lead over two pi."""
        return self.lead_mm / math.tau, mounting.SCREW_RADIUS, (term("lead", "lead", self.lead_mm, "mm"),)
