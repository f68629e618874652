"""An interval that changes over the shoot: segments, blended geometrically over frames centred on each boundary.

With segments of length `L_i` and interval `T_i` each holds `n_i` frames, the nearest whole number to `L_i / T_i`
and at least one. Over the `B` frames centred on a boundary the interval goes from `T_a` to `T_b` in equal ratios:
`T_k = T_a · (T_b / T_a)^((j + ½) / B)` for the `j`-th of them. The shoot lasts `Σ T_k`.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

import numpy as np
from numpy.typing import NDArray

from bridle.core.figure import Formula
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.numbers.rounding import nearest

Segments = Sequence[tuple[Fraction, Fraction]]
MS = 1000

FRAMES = Formula("max(1, round(length / interval))", "the whole frames that lie nearest to the segment's length")


@dataclass(frozen=True)
class Pace:
    """When each frame is taken: `starts_ms[k]` for frame `k` and, last, the end of the shoot. Shape (frames + 1,).

    `boundaries` are the first frames of the segments after the first; `blends` the frames that each is blended over.
    """

    starts_ms: NDArray[np.int64]
    boundaries: tuple[int, ...]
    blends: tuple[int, ...]

    @property
    def frames(self) -> int:
        """How many frames there are."""
        return len(self.starts_ms) - 1

    @property
    def length_s(self) -> Fraction:
        """From the first frame to the end of the last one's slot."""
        return Fraction(int(self.starts_ms[-1]), MS)

    def intervals_s(self) -> Floats:
        """The slot of every frame in seconds, shape (frames,)."""
        return np.diff(self.starts_ms) / MS


def counts(segments: Segments) -> list[int]:
    """The whole frames of each segment (length and interval in seconds)."""
    return [max(1, nearest(length / interval)) for length, interval in segments]


def pace(segments: Segments, blend: int) -> Pace:
    """The frames of at least one segment, to the millisecond. Overlong blends end at the middle of an inner segment,
    and at the ends of the shoot."""
    frames = counts(segments)
    slots = np.repeat([float(interval) for _, interval in segments], frames)
    boundaries = [int(edge) for edge in np.cumsum(frames)[:-1]]
    blends = []
    for number, edge in enumerate(boundaries):
        over = min(blend, *(_room(frames, side) for side in (number, number + 1)))
        before, after = (float(segments[side][1]) for side in (number, number + 1))
        place = (np.arange(over) + 0.5) / max(over, 1)
        # Of an odd number the one in the middle is the first after the boundary.
        slots[edge - over // 2 : edge - over // 2 + over] = before * (after / before) ** place
        blends.append(over)
    starts = np.concatenate([[0], np.cumsum(np.maximum(1, np.round(slots * MS)))]).astype(np.int64)
    return Pace(starts, tuple(boundaries), tuple(blends))


def _room(frames: list[int], segment: int) -> int:
    """Frames over which a boundary of a segment may be blended: twice half of an inner one, twice all of an outer."""
    outer = segment in (0, len(frames) - 1)
    return frames[segment] * 2 if outer else frames[segment]
