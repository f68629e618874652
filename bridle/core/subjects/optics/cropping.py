"""What is kept of a picture: shapes, levelling, reserves, crops."""

import math

from bridle.core.figure import Formula

LEVELLED = Formula(
    "min(height / (width * sin(radians(turn)) + height * cos(radians(turn))),"
    " width / (width * cos(radians(turn)) + height * sin(radians(turn))))",
    "the largest picture of the same shape within the turned one",
)
HEADROOM = Formula("kept / delivered", "pixels that are kept over pixels that are delivered")


def levelled_share(width: float, height: float, turn_deg: float) -> float:
    """The share of each side that is left: `min(h/(w·sin α + h·cos α), w/(w·cos α + h·sin α))`."""
    s, c = math.sin(math.radians(abs(turn_deg))), math.cos(math.radians(turn_deg))
    return min(height / (width * s + height * c), width / (width * c + height * s))


def shaped(width: float, height: float, across: float, upright: float) -> tuple[float, float]:
    """The largest part of a picture with the shape `across : upright`."""
    return min(width, height * across / upright), min(height, width * upright / across)


def even(side: float) -> int:
    """A side in whole pixels, even: encoders want that; 2 at least."""
    return max(2, 2 * math.floor(side / 2 + 1e-9))
