"""What drives share that are set by how long their whole travel takes."""

from collections.abc import Iterator
from typing import ClassVar

from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.subjects.motion.calibration import TIMES, Column, Measure
from bridle.core.subjects.motion.drives.interface import DriveCard, Told, Wanted

PULLS = "A rail that is not level, a load that pulls to one side or a supply that sinks shows like this."
NEEDED = Formula("seconds * travel / sweep", "so long the whole travel would take at the pace of the move")


class Timed(DriveCard):
    """It runs at one pace, which is known by the time of its whole travel."""

    TOLD: ClassVar[Told] = "setting"
    MINDS: ClassVar[tuple[str, ...]] = ("peak_a",)
    RUNS_ON: ClassVar[bool] = True
    EASES: ClassVar[bool] = False
    POINTS: ClassVar[int | None] = 2

    def run_s(self, wanted: Wanted) -> float:
        """How long its whole travel takes as it will be set."""
        raise NotImplementedError

    def goes(self, wanted: Wanted) -> float | None:
        """The part of its travel that it does in the time of the move; None where nothing is asked of it."""
        return wanted.travel * wanted.seconds / self.run_s(wanted) if wanted.sweep else None

    def working(self, wanted: Wanted) -> Iterator[Figure]:
        """The run time that the move needs."""
        if not wanted.sweep:
            return
        terms = (
            term("seconds", "time of the move", wanted.seconds, "s"),
            term("travel", "whole travel", wanted.travel, wanted.unit),
            term("sweep", "the move sweeps", abs(wanted.sweep), wanted.unit),
        )
        needed = run_needed(wanted)
        yield figure(f"drive.{wanted.axis}.run", "whole travel, as needed", needed, "s", NEEDED, *terms)


def run_needed(wanted: Wanted) -> float:
    """How long the whole travel would take at the pace of the move."""
    return wanted.seconds * wanted.travel / abs(wanted.sweep)


def run_measure(key: str, label: str, place: str) -> Measure:
    """Timing a whole travel."""
    how = ("Set it, start the clock, stop it at the other end of the whole travel.", "The load as it will be.")
    return Measure(
        key, f"whole travel, {label}", place, "s", (Column("took", "s"),), how, 2, TIMES, PULLS, strict=False
    )
