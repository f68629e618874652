"""Drives that are set by how long their whole travel takes: a switch of speeds, or a dial without units."""

from collections.abc import Sequence
from itertools import pairwise

from bridle.core.figure import Formula

NEEDED = Formula("seconds * travel / sweep", "so long the whole travel would take at the pace of the move")
BECOMES = Formula("travel * seconds / run", "the part of its travel that it does in the time of the move")
DIAL = Formula(
    "low + (needed - run_low) / (run_high - run_low) * (high - low)", "between the two calibrated positions around it"
)


def run_needed(seconds: float, travel: float, sweep: float) -> float:
    """How long the whole travel would take at the pace of a sweep in a time."""
    return seconds * travel / sweep


def nearest_run(needed: float, runs: Sequence[float]) -> int:
    """The place of the run time whose pace comes nearest."""
    return min(range(len(runs)), key=lambda i: abs(1 / runs[i] - 1 / needed))


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
