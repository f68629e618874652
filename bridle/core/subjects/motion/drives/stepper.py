"""What all stepper drives share: the motor's steps, its torques, and a correction found by measuring."""

from collections.abc import Iterator
from typing import Annotated, ClassVar

from pydantic import Field

from bridle.core.figure import Figure, Formula, Term, figure, term
from bridle.core.subjects.motion import steppers
from bridle.core.subjects.motion.calibration import Column, Measure, instruments
from bridle.core.subjects.motion.drives.interface import CardField, DriveCard, Told, Wanted, backlash, settling
from bridle.core.values import SMALLEST

Whole = Annotated[int, Field(ge=1, le=100_000)]
Torque = Annotated[float, Field(ge=0, le=1e6, allow_inf_nan=False)]
Efficiency = Annotated[float, Field(ge=SMALLEST, le=1, allow_inf_nan=False)]
MOTOR = (
    CardField("full_steps", "full steps a turn"),
    CardField("microsteps", "microsteps"),
    CardField("correction", "correction, measured"),
    CardField("torque_nmm", "torque at speed", "N·mm", "not known"),
    CardField("detent_nmm", "holds unpowered", "N·mm", "not known"),
    CardField("efficiency", "efficiency"),
)


class Stepper(DriveCard):
    """The motor's steps, and its torques in N·mm (none: not known).

    `correction` is what calibration found: measured steps per unit over computed ones.
    """

    # What a scatter may hide that the readings do not explain.
    HIDES: ClassVar[str]
    TOLD: ClassVar[Told] = "program"
    full_steps: Whole = 200
    microsteps: Whole = 16
    torque_nmm: Torque | None = None
    detent_nmm: Torque | None = None
    efficiency: Efficiency = 0.9
    correction: Annotated[float, Field(ge=0.1, le=10, allow_inf_nan=False)] = 1.0

    def gearing(self) -> tuple[Formula, tuple[Term, ...]]:
        """The rule of its steps, and the terms beside those of the motor."""
        raise NotImplementedError

    def steps(self) -> float | None:
        """Corrected steps a millimetre or a degree."""
        base = self.base_steps()
        return None if base is None else base * self.correction

    def steps_known(self) -> float:
        """The same, where a stepper is sure to be there."""
        steps = self.steps()
        assert steps is not None
        return steps

    def words(self, wanted: Wanted) -> str:
        """A controller is told the positions; a person sets nothing."""
        per_frame = wanted.per_frame * self.steps_known()
        return f"{per_frame:.4g} steps a frame at cruise; each position rounded from its own target"

    def working(self, wanted: Wanted) -> Iterator[Figure]:
        """Steps per unit, one step, and steps a frame."""
        key, steps = f"drive.{wanted.axis}", self.steps_known()
        yield from self._resolution(key, wanted.unit)
        pace = term("pace", "pace at cruise", wanted.per_frame, f"{wanted.unit}/frame")
        each = term("steps", "steps per unit", steps, f"steps/{wanted.unit}")
        label = "steps a frame at cruise"
        yield figure(f"{key}.per_frame", label, wanted.per_frame * steps, "", steppers.PER_FRAME, pace, each)

    def card_figures(self, unit: str) -> Iterator[Figure]:
        """Steps per unit, and the way of one step."""
        return self._resolution("card", unit)

    def _resolution(self, key: str, unit: str) -> Iterator[Figure]:
        rule, more = self.gearing()
        shared = (
            term("full", "full steps a turn", self.full_steps, ""),
            term("micro", "microsteps", self.microsteps, ""),
            term("correction", "correction, from measuring", self.correction, ""),
        )
        steps, per = self.steps_known(), f"steps/{unit}"
        yield figure(f"{key}.steps", "steps per unit", steps, per, rule, *shared, *more)
        each = term("steps", "steps per unit", steps, per)
        yield figure(f"{key}.resolution", "one step", 1 / steps, unit, steppers.RESOLUTION, each)

    def measures(self, unit: str) -> list[Measure]:
        """Steps per unit, backlash, settling."""
        travel = Measure("travel", "steps per unit", "drive.correction", "", (
            Column("commanded", unit), Column("measured", unit),
        ), (
            "Take up the play: always approach from the same side.",
            "Command a travel and measure what it did, as long a one as you can read.",
            "Repeat, at two lengths or more: that tells a play from a wrong scale.",
        ), read_with=instruments(unit), hides=self.HIDES)  # fmt: skip
        return [travel, backlash(unit), settling()]


class Pulling(Stepper):
    """A stepper that pulls along a rail."""

    def pull_radius(self) -> tuple[float, Formula, tuple[Term, ...]]:
        """The radius at which it pulls in mm, with its rule and terms."""
        raise NotImplementedError
