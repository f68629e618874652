"""When a curve over the clock passes a height: rising, setting, the ends of the twilights."""

from collections.abc import Callable, Sequence
from typing import NamedTuple, TypeAlias

import numpy as np
from numpy.typing import NDArray

from bridle.core.subjects.numbers.arrays import Floats

EVERY_S = 960.0
# Halving sixteen minutes so often leaves less than a tenth of a second.
HALVINGS = 14
Heights: TypeAlias = "Callable[[Floats], Floats]"


class Crossing(NamedTuple):
    """A moment (Unix seconds) at which a curve passes a height, upwards or downwards."""

    at_s: float
    up: bool
    height: float


def crossings(over: Heights, start_s: float, end_s: float, heights: Sequence[float] = (0.0,)) -> tuple[Crossing, ...]:
    """When a curve passes each of some heights between two moments, to a tenth of a second; in the order of time.

    `over` gives its height at moments that rise. Looked at every quarter of an hour, and where it turns about at the
    turn itself, so that something that only just looks over the edge is not missed.
    """
    if end_s <= start_s:
        return ()
    at, y = _looked_at(over, np.linspace(start_s, end_s, max(3, int((end_s - start_s) / EVERY_S) + 2)))
    levels = np.asarray(heights)
    above = y > levels[:, None]
    level, found = np.nonzero(above[:, 1:] != above[:, :-1])
    if not len(found):
        return ()
    up = above[level, found + 1]
    # Between two moments a curve only rises or only falls: so the moments asked for below rise too.
    order = np.lexsort((np.where(up, levels[level], -levels[level]), found))
    return _halved(over, at[found[order]], at[found[order] + 1], levels[level[order]], up[order])


def _halved(over: Heights, low: Floats, high: Floats, height: Floats, up: NDArray[np.bool_]) -> tuple[Crossing, ...]:
    """The crossings that lie one each between two moments."""
    for _ in range(HALVINGS):
        middle = (low + high) / 2
        passed = (over(middle) > height) == up
        low, high = np.where(passed, low, middle), np.where(passed, middle, high)
    at = (low + high) / 2
    return tuple(map(Crossing, at.tolist(), up.tolist(), height.tolist()))


def _looked_at(over: Heights, at: Floats) -> tuple[Floats, Floats]:
    """The moments and the heights there, with those at which the curve turns about (by a parabola through three)."""
    y = over(at)
    before, here, after = y[:-2], y[1:-1], y[2:]
    turns = np.flatnonzero((here - before) * (after - here) < 0)
    if not len(turns):
        return at, y
    bend = before[turns] - 2 * here[turns] + after[turns]
    tops = at[turns + 1] + (at[1] - at[0]) * (before[turns] - after[turns]) / (2 * bend)
    all_at = np.concatenate((at, tops))
    order = np.argsort(all_at, kind="stable")
    return all_at[order], np.concatenate((y, over(tops)))[order]
