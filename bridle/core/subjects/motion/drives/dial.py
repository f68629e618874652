"""A dial without units: some positions are calibrated, the rest lies between them."""

from collections.abc import Iterator, Sequence
from itertools import pairwise
from typing import Annotated, ClassVar, Literal

from pydantic import Field, model_validator

from bridle.core.figure import Figure, Formula, Term, figure, term
from bridle.core.subjects.motion.calibration import Measure
from bridle.core.subjects.motion.drives.interface import CardField, CardTable, Wanted
from bridle.core.subjects.motion.drives.timed import Timed, run_measure, run_needed
from bridle.core.values import Positive, Section

DIAL = Formula(
    "low + (needed - run_low) / (run_high - run_low) * (high - low)", "between the two calibrated positions around it"
)


def dial_for(needed: float, points: Sequence[tuple[float, float]]) -> tuple[int, float] | None:
    """The calibrated pair (by its first place) around a run time, and the dial between; None outside of all."""
    for i, ((low, run_low), (high, run_high)) in enumerate(pairwise(points)):
        if min(run_low, run_high) - 1e-9 <= needed <= max(run_low, run_high) + 1e-9:
            share = (needed - run_low) / (run_high - run_low) if run_high != run_low else 0.0
            return i, low + share * (high - low)
    return None


def dial_doubt(points: Sequence[tuple[float, float]]) -> float:
    """How far a dial may be off between calibrated positions, in its own units.

    Each inner point left out in turn and read from its neighbours: the worst miss; a twentieth of the dial where
    there is no inner point.
    """
    misses = []
    for i in range(1, len(points) - 1):
        found = dial_for(points[i][1], [points[i - 1], points[i + 1]])
        misses.append(abs(found[1] - points[i][0]) if found else 0.0)
    return max(misses, default=abs(points[-1][0] - points[0][0]) / 20)


def dial_terms(points: Sequence[tuple[float, float]], at: int, what: str, needed: float) -> tuple[Term, ...]:
    """The terms of `DIAL` between the calibrated position `at` and the next one, for a time in seconds."""
    (low, run_low), (high, run_high) = points[at], points[at + 1]
    return (
        term("low", "calibrated below", low, ""),
        term("high", "calibrated above", high, ""),
        term("run_low", f"{what} at {low:g}", run_low, "s"),
        term("run_high", f"{what} at {high:g}", run_high, "s"),
        term("needed", f"{what}, as needed", needed, "s"),
    )


def rising(dials: list[float]) -> None:
    """Refuse calibrated positions that fall, or that are there twice."""
    if sorted(set(dials)) != dials:
        raise ValueError("calibrated dial positions rise from one to the next")


class DialPoint(Section):
    """A calibrated position of a dial: how long the whole travel takes there, in seconds."""

    dial: Annotated[float, Field(ge=-1000, le=1000, allow_inf_nan=False)]
    run_s: Positive


class Dial(Timed):
    """It stops for each frame; some controllers move first, then shoot, and others the other way round."""

    NAME: ClassVar[str] = "dial"
    SHELF: ClassVar[str] = "dial without units"
    FIELDS: ClassVar[tuple[CardField, ...]] = (CardField("moves_first", "moves first, then shoots", tick=True),)
    TABLES: ClassVar[tuple[CardTable, ...]] = (
        CardTable(
            "points", "dial position", (CardField("dial", "dial at"), CardField("run_s", "whole travel", "s")), 2
        ),
    )
    MINDS: ClassVar[tuple[str, ...]] = ("settle_s", "peak_a")
    kind: Literal["dial"] = "dial"
    points: Annotated[tuple[DialPoint, ...], Field(min_length=2, max_length=40)] = (
        DialPoint(dial=0, run_s=300),
        DialPoint(dial=10, run_s=3600),
    )
    moves_first: bool = True

    @model_validator(mode="after")
    def _rising(self) -> "Dial":
        rising([point.dial for point in self.points])
        return self

    def _pairs(self) -> list[tuple[float, float]]:
        return [(point.dial, point.run_s) for point in self.points]

    def _end(self, wanted: Wanted) -> tuple[float, float]:
        """The calibrated position whose pace comes nearest, where the move asks for none between."""
        needed = run_needed(wanted)
        return min(self._pairs(), key=lambda point: abs(1 / point[1] - 1 / needed))

    def run_s(self, wanted: Wanted) -> float:
        """As needed, where the dial has it; else that of its nearer end."""
        needed = run_needed(wanted)
        return needed if dial_for(needed, self._pairs()) else self._end(wanted)[1]

    def times_s(self, wanted: Wanted) -> list[float]:
        """At each calibrated position; in between it takes any time."""
        return [point.run_s * abs(wanted.sweep) / wanted.travel for point in self.points] if wanted.sweep else []

    def words(self, wanted: Wanted) -> str | None:
        """The dial with its doubt, and a check to make after ten frames."""
        if not wanted.sweep:
            return None
        found = dial_for(run_needed(wanted), self._pairs())
        if found is None:
            return f"dial at {self._end(wanted)[0]:g}, the end of what is calibrated"
        doubt, ten = dial_doubt(self._pairs()), wanted.per_frame * 10
        first = "it moves first, then shoots" if self.moves_first else "it shoots first, then moves"
        return f"dial at {found[1]:.1f} ± {doubt:.1f}; after ten frames it should stand {ten:.3g} further; {first}"

    def working(self, wanted: Wanted) -> Iterator[Figure]:
        """The run time needed, and the dial for it."""
        yield from super().working(wanted)
        found = dial_for(run_needed(wanted), self._pairs()) if wanted.sweep else None
        if found is None:
            return
        terms = dial_terms(self._pairs(), found[0], "whole travel", run_needed(wanted))
        yield figure(f"drive.{wanted.axis}.dial", "dial", found[1], "", DIAL, *terms)

    def measures(self, unit: str) -> list[Measure]:
        """The run time at each calibrated position."""
        return [
            run_measure(f"run.{i}", f"dial at {point.dial:g}", f"drive.points.{i}.run_s")
            for i, point in enumerate(self.points)
        ]
