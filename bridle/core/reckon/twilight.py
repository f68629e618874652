"""How dark it is over a stretch of the clock: day, the three twilights, night."""

import itertools
from functools import lru_cache
from typing import Literal, NamedTuple

import numpy as np

from bridle.core.subjects.light import sky
from bridle.core.subjects.light.crossings import crossings
from bridle.core.subjects.numbers.arrays import Floats

Dark = Literal["day", "civil", "nautical", "astronomical", "night"]
# The sun's true altitude at which each ends, from above: its upper edge on the horizon through the air, then its
# centre.
ENDS: tuple[tuple[float, Dark], ...] = (
    (-0.833, "day"), (-6.0, "civil"), (-12.0, "nautical"), (-18.0, "astronomical"),
)  # fmt: skip


class Band(NamedTuple):
    """A stretch of the clock (Unix seconds) that is as dark throughout."""

    dark: Dark
    from_s: float
    to_s: float


@lru_cache(maxsize=32)
def bands(latitude: float, longitude: float, start_s: float, end_s: float) -> tuple[Band, ...]:
    """The stretches between two moments, one after another without a gap."""

    def risen(at: Floats) -> Floats:
        return sky.altitude("sun", latitude, longitude, at)

    passed = crossings(risen, start_s, end_s, [height for height, _ in ENDS])
    cuts = sorted({start_s, end_s, *(one.at_s for one in passed)})
    middles = np.array([(low + high) / 2 for low, high in itertools.pairwise(cuts)])
    if not len(middles):
        return ()
    heights = sky.sun(latitude, longitude, middles)[1]
    return tuple(
        Band(dark_of(float(height)), low, high) for height, low, high in zip(heights, cuts, cuts[1:], strict=False)
    )


def dark_of(sun_deg: float) -> Dark:
    """How dark it is with the sun at an altitude."""
    return next((dark for height, dark in ENDS if sun_deg > height), "night")
