"""Which layers of a print call a frame, and which choice makes a clip of a wanted length."""

from bisect import bisect_left
from collections.abc import Sequence
from fractions import Fraction
from itertools import pairwise
from math import ceil

# Heights that differ by less are one height.
SAME_MM = 0.004


def every_nth(count: int, nth: int, first: int = 1, last: int | None = None) -> list[int]:
    """Layers (from 1) with (last − i) mod nth = 0: ⌈layers / nth⌉ of them, and the last is always one."""
    last = min(count, last or count)
    return list(range(last, min(first, last) - 1, -nth))[::-1]


def equal_heights(z: Sequence[float], step: float, first: int = 1, last: int | None = None) -> list[int]:
    """The layers nearest to equal heights, counted down from the last; each layer once, `z` in mm, rising.

    A height whose nearest layer is a frame already calls none.
    """
    last = min(len(z), last or len(z))
    first = min(first, last)
    part = z[first - 1 : last]
    count = min(int((part[-1] - part[0]) / step + 0.5), len(part) * 1000)
    wanted = [part[-1] - n * step for n in range(count + 1)]
    return sorted({first + _nearest(part, height) for height in wanted} | {last})


def _nearest(z: Sequence[float], height: float) -> int:
    at = min(bisect_left(z, height), len(z) - 1)
    return at - 1 if at and height - z[at - 1] <= z[at] - height else at


def nth_for(layers: int, frames: Fraction) -> int:
    """Every how many layers so many frames come of it, at most; at least 1."""
    return max(1, ceil(Fraction(layers) / max(Fraction(1), frames)))


def varied(z: Sequence[float]) -> bool:
    """Whether the layers differ in thickness, beyond the first."""
    steps = [b - a for a, b in pairwise(z[1:])]
    return bool(steps) and max(steps) - min(steps) > 2 * SAME_MM
