"""A stepper that turns something through a gear."""

from typing import ClassVar, Literal

from bridle.core.figure import Formula, Term, term
from bridle.core.subjects.motion import steppers
from bridle.core.subjects.motion.drives.interface import CardField
from bridle.core.subjects.motion.drives.stepper import MOTOR, Stepper
from bridle.core.values import Positive


class Gear(Stepper):
    """One turn of the table takes the gear's ratio of motor turns."""

    NAME: ClassVar[str] = "stepper on a gear"
    SHELF: ClassVar[str] = "stepper on a gear"
    FIELDS: ClassVar[tuple[CardField, ...]] = (CardField("ratio", "gear ratio"), *MOTOR)
    HIDES: ClassVar[str] = "That hides a loose grub screw, or play between the gears."
    kind: Literal["gear"] = "gear"
    ratio: Positive = 9.0

    def base_steps(self) -> float:
        """Steps a degree."""
        return steppers.gear_steps(self.full_steps, self.microsteps, self.ratio)

    def gearing(self) -> tuple[Formula, tuple[Term, ...]]:
        """The ratio."""
        return steppers.GEAR, (term("ratio", "gear ratio", self.ratio, ""),)
