"""Which layers of a print call a frame, and which choice makes a clip of a wanted length."""

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
    """The layers nearest to equal heights, counted down from the last; each layer once, `z` in mm, rising."""
    last = min(len(z), last or len(z))
    first = min(first, last)
    chosen, at, layer = [last], z[last - 1], last
    while chosen[-1] > first:
        at -= step
        while layer > first and z[layer - 1] > at + SAME_MM:
            layer -= 1
        above = min(layer + 1, last)
        nearest = above if above < chosen[-1] and z[above - 1] - at < at - z[layer - 1] else layer
        if nearest >= chosen[-1] or z[layer - 1] > at + SAME_MM:
            break
        chosen.append(nearest)
    return chosen[::-1]


def nth_for(layers: int, frames: Fraction) -> int:
    """Every how many layers so many frames come of it, at most; at least 1."""
    return max(1, ceil(Fraction(layers) / max(Fraction(1), frames)))


def varied(z: Sequence[float]) -> bool:
    """Whether the layers differ in thickness, beyond the first."""
    steps = [b - a for a, b in pairwise(z[1:])]
    return bool(steps) and max(steps) - min(steps) > 2 * SAME_MM
