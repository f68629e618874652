"""A home-made drive with a switch of speeds, and a table of run times for its whole travel."""

from collections.abc import Iterator, Sequence
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.subjects.motion.calibration import Measure
from bridle.core.subjects.motion.drives.interface import CardField, CardTable, Wanted
from bridle.core.subjects.motion.drives.timed import Timed, run_measure, run_needed
from bridle.core.values import Name, Positive, Section

BECOMES = Formula("travel * seconds / run", "the part of its travel that it does in the time of the move")


class SwitchCode(Section):
    """A position of the speed switch, and how long the whole travel takes there, in seconds."""

    code: Name
    run_s: Positive


def nearest_run(needed: float, runs: Sequence[float]) -> int:
    """The place of the run time whose pace comes nearest."""
    return min(range(len(runs)), key=lambda i: abs(1 / runs[i] - 1 / needed))


class SteppedSpeed(Timed):
    """The nearest of its codes is taken, and what that does to the sweep is told."""

    NAME: ClassVar[str] = "switch of speeds"
    SHELF: ClassVar[str] = "switch of speeds"
    TABLES: ClassVar[tuple[CardTable, ...]] = (
        CardTable("codes", "switch position", (CardField("code", "switch"), CardField("run_s", "whole travel", "s"))),
    )
    STOPS: ClassVar[bool] = False
    kind: Literal["stepped"] = "stepped"
    codes: Annotated[tuple[SwitchCode, ...], Field(min_length=1, max_length=64)] = (
        SwitchCode(code="1", run_s=600),
        SwitchCode(code="2", run_s=1200),
        SwitchCode(code="3", run_s=2400),
        SwitchCode(code="4", run_s=4800),
    )

    def _chosen(self, wanted: Wanted) -> SwitchCode:
        return self.codes[nearest_run(run_needed(wanted), [code.run_s for code in self.codes])]

    def run_s(self, wanted: Wanted) -> float:
        """That of the nearest code."""
        return self._chosen(wanted).run_s

    def times_s(self, wanted: Wanted) -> list[float]:
        """At each of its codes."""
        return [code.run_s * abs(wanted.sweep) / wanted.travel for code in self.codes] if wanted.sweep else []

    def words(self, wanted: Wanted) -> str | None:
        """The code to switch to."""
        if not wanted.sweep:
            return None
        chosen = self._chosen(wanted)
        return f"switch to {chosen.code}; the whole travel takes {chosen.run_s / 60:.4g} min there"

    def working(self, wanted: Wanted) -> Iterator[Figure]:
        """The run time needed, and how far the nearest one goes."""
        yield from super().working(wanted)
        does = self.goes(wanted)
        if does is None:
            return
        terms = (
            term("travel", "whole travel", wanted.travel, wanted.unit),
            term("seconds", "time of the move", wanted.seconds, "s"),
            term("run", "whole travel at that switch", self.run_s(wanted), "s"),
        )
        yield figure(f"drive.{wanted.axis}.does", f"{wanted.axis} goes", does, wanted.unit, BECOMES, *terms)

    def measures(self, unit: str) -> list[Measure]:
        """The run time of each code."""
        return [
            run_measure(f"run.{i}", f"switch {code.code}", f"drive.codes.{i}.run_s")
            for i, code in enumerate(self.codes)
        ]
