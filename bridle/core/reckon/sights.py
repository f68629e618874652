"""When each mark is in the picture."""

from dataclasses import dataclass

import numpy as np

from bridle.core.plan.document import Plan
from bridle.core.plan.marks import Mark
from bridle.core.plan.rounds import Stations
from bridle.core.reckon.picture import kept
from bridle.core.reckon.poses import see_mark
from bridle.core.reckon.timeline import Timeline
from bridle.core.subjects.optics.projecting import Poses, Seen

MOST_RUNS = 24


@dataclass(frozen=True)
class Sight:
    """A mark's frames in the picture, as runs of first and last (0-based), with their clock times."""

    index: int
    name: str
    cue: bool
    runs: tuple[tuple[int, ...], ...]
    clocks: tuple[tuple[float, ...], ...]


def runs_of(mask: np.ndarray) -> tuple[tuple[int, int], ...]:
    """First and last index of each run of true values."""
    if not mask.any():
        return ()
    edges = np.flatnonzero(np.diff(np.concatenate(([0], mask.astype(np.int8), [0]))))
    pairs = edges.reshape(-1, 2)
    return tuple((int(first), int(last) - 1) for first, last in pairs[:MOST_RUNS])


def in_picture(plan: Plan, at: Poses, seen: Seen, margin: float = 0.0) -> np.ndarray:
    """At which frames a point lies in the kept picture, or within a margin around it (in shares of the width)."""
    frame = kept(plan)
    half_w, half_h = frame.width_mm * (0.5 + margin), frame.height_mm / 2 + frame.width_mm * margin
    # Against its distance rather than divided by it: behind the lens there is nothing to divide.
    wide, high = half_w / at.lens, half_h / at.lens
    inside = (np.abs(seen.right) <= wide * seen.ahead) & (np.abs(seen.up) <= high * seen.ahead)
    return inside & seen.in_front


def sights(plan: Plan, at: Poses, times: Timeline) -> tuple[Sight, ...]:
    """Every mark's time in the picture; of stations each counts, so there the marks are left out."""
    if isinstance(plan.move.visits, Stations):
        return ()
    return tuple(_sight(plan, number, mark, at, times) for number, mark in enumerate(plan.move.marks))


def _sight(plan: Plan, number: int, mark: Mark, at: Poses, times: Timeline) -> Sight:
    runs = runs_of(in_picture(plan, at, see_mark(plan, at, mark)))
    clocks = tuple((times.unix_s(first), times.unix_s(last)) for first, last in runs)
    return Sight(number, mark.name, mark.cue or mark.form == "person", runs, clocks)
