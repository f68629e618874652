"""One cycle of a shoot-move-shoot: how long a step takes, what has to fit, the shortest interval.

All times in seconds; distances, speeds and accelerations in the unit of the axis.
"""

import math
from collections.abc import Sequence
from fractions import Fraction

import numpy as np

from bridle.core.figure import Formula
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.numbers.rounding import ceil_to

FINEST_S = Fraction(1, 1000)
STEP_SHORT = Formula("2 * sqrt(distance / acceleration)", "up and down again without reaching top speed")
STEP_STEADY = Formula("distance / speed", "at its top speed; how it speeds up is not known")
STEP_LONG = Formula("distance / speed + speed / acceleration", "constant acceleration to top speed and down again")
NEED_OVERLAP = Formula(
    "wake + lag + exposures + gaps + max(processing + write, move + settle)", "storing overlaps moving and settling"
)
NEED_IN_TURN = Formula(
    "wake + lag + exposures + gaps + processing + write + move + settle", "storing first, then moving"
)
NEED_FLOWING = Formula(
    "wake + lag + exposures + gaps + processing + write", "the axes never stop, nothing waits for them"
)
NEED_ROUND = Formula(
    "wake + visits * (lag + exposures + gaps) + between",
    "every place of the round in turn; from each to the next, and back, storing and moving as they overlap",
)
EXPOSURES = Formula("exposure * bracket * positions", "every exposure of the bracket, at every focus position")
BRACKET = Formula(
    "(2**(step * count) - 1) / (2**step - 1) / 2**(step * (count - 1) / 2)", "a geometric series around the middle"
)
BRACKET_EVEN = Formula("count", "all exposures of the bracket alike")
GAPS = Formula(
    "positions * (count - 1) * gap + (positions - 1) * refocus + dark",
    "between the exposures of a bracket, between focus positions, and the dark frames that noise reduction takes there",
)
GAPS_STORING = Formula(
    "positions * (count - 1) * gap + (positions - 1) * max(refocus, storing) + dark",
    "between the exposures of a bracket; between focus positions, where the camera merges, and writes if it has no "
    "buffer, while the focus moves; and the dark frames that noise reduction takes there",
)
PROCESSING = Formula("dark + merge", "the dark frame after the last exposure, and merging in the camera")
SHORTEST = Formula(
    "up_to(max(need / (1 - margin), need + least), step)",
    "what is needed and the margin on top, up to the step that can be dialled",
)
SPARE = Formula("interval - need - margin", "what is left of the interval beside the margin")
STILL = Formula("interval - move - margin", "the still time some controllers ask for; settling is part of it")
MARGIN = Formula("max(share * interval, least)", "a share of the interval, never less than the least margin")
EXPOSURE_SHARE = Formula("exposures / interval", "exposure over interval: low is staccato, high is flowing")
# Motion that is exposed for less than this share of the interval falls into single pictures.
STACCATO_BELOW = 0.25


def step_time(distance: float, speed: float, acceleration: float) -> float:
    """Time to move a distance from rest to rest with a top speed and an acceleration (all positive, or infinite)."""
    if distance <= 0:
        return 0.0
    if math.isinf(acceleration):
        return distance / speed
    if distance <= speed * speed / acceleration:
        return 2 * math.sqrt(distance / acceleration)
    return distance / speed + speed / acceleration


def step_formula(distance: float, speed: float, acceleration: float) -> Formula:
    """The rule that `step_time` used."""
    if math.isinf(acceleration):
        return STEP_STEADY
    return STEP_SHORT if distance <= speed * speed / acceleration else STEP_LONG


def round_need(
    exposures: float, store: float, travels: Sequence[float], *, wake: float, each: float, write_while_moving: bool
) -> tuple[float, float]:
    """What a cycle with several places needs, and what of it lies between the exposures.

    `travels` are moving and settling from each place to the next, the last one back to the first; `each` is what
    every place takes besides its exposures.
    """
    between = sum(max(store, travel) if write_while_moving else store + travel for travel in travels)
    return wake + len(travels) * (each + exposures) + between, between


def bracket_formula(count: int) -> Formula:
    """The sum of so many exposures of a bracket's own, written out."""
    total = " + ".join(f"t{i}" for i in range(1, count + 1))
    return Formula(f"({total}) / exposure", "all exposures of the bracket, each as the camera calls it")


def longest_formula(count: int) -> Formula:
    """The longest of so many exposures of a bracket's own."""
    each = ", ".join(f"t{i}" for i in range(1, count + 1))
    return Formula(f"max({each})" if count > 1 else each, "the longest exposure of the bracket")


def step_times(distances: Floats, speed: float, acceleration: float) -> Floats:
    """`step_time` for an array of distances (not negative), of the same shape."""
    if math.isinf(acceleration):
        return distances / speed
    short = distances <= speed * speed / acceleration
    return np.where(short, 2 * np.sqrt(distances / acceleration), distances / speed + speed / acceleration) * (
        distances > 0
    )


def shortest_interval(need: float, margin: float, least_margin: float, step: Fraction) -> Fraction:
    """The shortest interval that holds the need and the margin, up to the step; to the millisecond where it is 0."""
    return ceil_to(max(need / (1 - margin), need + least_margin), step or FINEST_S)
