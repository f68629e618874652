"""What is kept of a picture: shapes, levelling, reserves, crops."""

import math

from bridle.core.figure import Formula

LEVELLED = Formula(
    "min(height / (width * sin(radians(turn)) + height * cos(radians(turn))),"
    " width / (width * cos(radians(turn)) + height * sin(radians(turn))))",
    "the largest picture of the same shape within the turned one",
)
LEVELLED_IN_SHAPE = Formula(
    "min(height / (across * sin(radians(turn)) + upright * cos(radians(turn))),"
    " width / (across * cos(radians(turn)) + upright * sin(radians(turn)))) / min(height / upright, width / across)",
    "the largest picture of the clip's shape within the turned one, over that in the level one",
)
HEADROOM = Formula("kept / delivered", "pixels that are kept over pixels that are delivered")


def largest(width: float, height: float, across: float, upright: float, turn_deg: float = 0.0) -> tuple[float, float]:
    """The largest rectangle of the shape `across : upright` within a picture that is turned.

    It lies within while its corners do: `W·cos α + H·sin α ≤ w` and `W·sin α + H·cos α ≤ h`.
    """
    s, c = math.sin(math.radians(abs(turn_deg))), math.cos(math.radians(turn_deg))
    size = min(width / (across * c + upright * s), height / (across * s + upright * c))
    return across * size, upright * size


def even(side: float) -> int:
    """A side in whole pixels, even: encoders want that; 2 at least."""
    return max(2, 2 * math.floor(side / 2 + 1e-9))
