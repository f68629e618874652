"""Lamps: their pulse on the mains, and what colour comes of them and daylight together."""

import math

from bridle.core.figure import Formula

DAYLIGHT_K = 5500.0
MAINS = Formula("half_cycles / (2 * mains)", "a whole number of half cycles, the nearest to what is set")
MIXED = Formula("2 / (1 / lamp + 1 / day)", "both equally bright: the mean of their reciprocals")


def steady_s(exposure_s: float, mains_hz: int) -> tuple[int, float]:
    """The whole number of half cycles nearest to an exposure, one at least, and how long they take in seconds."""
    count = max(1, round(exposure_s * 2 * mains_hz))
    return count, count / (2 * mains_hz)


def pulses(exposure_s: float, mains_hz: int) -> bool:
    """Whether an exposure takes in other parts of the lamps' pulse each time.

    Marks are told by their names: 1/100 s is really 1/102, and what is within three percent counts as meant. Of long
    exposures a part of a pulse more or less is not seen.
    """
    count, steady = steady_s(exposure_s, mains_hz)
    return count <= LONG_IN_PULSES and abs(math.log(exposure_s / steady)) > 0.03


LONG_IN_PULSES = 30


def mixed_k(lamp_k: float, day_k: float = DAYLIGHT_K) -> float:
    """The colour temperature of lamp and daylight, equally bright."""
    return 2 / (1 / lamp_k + 1 / day_k)
