"""What the sun gives to a panel under a clear sky: an estimate, good to some per cent of a month's sum."""

import numpy as np

from bridle.core.figure import Formula
from bridle.core.subjects.numbers.arrays import Floats

# Ground between grass and gravel gives back so much.
ALBEDO = 0.2
SOLAR_CONSTANT_W_M2 = 1366.1
TEST_W_M2 = 1000.0
# Below this height the sun's beam is not told from the sky around it.
LOW_DEG = 3.0
YIELD = Formula(
    "watts * light / 1000 * usable * panels",
    "a clear sky by Haurwitz (1945), split into beam and sky by Erbs (1982), on a tilted plane by Liu and Jordan",
)


def level_w_m2(altitude_deg: Floats) -> Floats:
    """What a clear sky gives to level ground, in W/m² (Haurwitz, 1945, as Reno and others put it in 2012)."""
    rise = np.sin(np.radians(np.maximum(altitude_deg, 0.0)))
    with np.errstate(divide="ignore"):
        return np.asarray(np.where(rise > 0, 1098.0 * rise * np.exp(-0.059 / np.maximum(rise, 1e-9)), 0.0))


def sky_share(level: Floats, altitude_deg: Floats, day_of_year: Floats) -> Floats:
    """Which share of it comes from the sky and not from the sun itself (Erbs and others, 1982)."""
    turned = 2 * np.pi * (day_of_year - 1) / 365
    # The earth's distance to the sun (Spencer, 1971).
    distance = (
        1.00011 + 0.034221 * np.cos(turned) + 0.00128 * np.sin(turned)
        + 0.000719 * np.cos(2 * turned) + 7.7e-05 * np.sin(2 * turned)
    )  # fmt: skip
    above = SOLAR_CONSTANT_W_M2 * distance * np.maximum(np.sin(np.radians(altitude_deg)), 0.065)
    clear = np.clip(level / above, 0.0, 1.0)
    low = 1.0 - 0.09 * clear
    high = 0.9511 - 0.1604 * clear + 4.388 * clear**2 - 16.638 * clear**3 + 12.336 * clear**4
    return np.asarray(np.where(clear > 0.8, 0.165, np.where(clear > 0.22, high, low)))


def on_panel_w_m2(
    azimuth_deg: Floats, altitude_deg: Floats, day_of_year: Floats, tilt_deg: float, toward_deg: float
) -> Floats:
    """What falls on a panel under a clear sky, in W/m², for the sun's place; shape (moments,).

    `tilt_deg` is from the ground, `toward_deg` the bearing that it looks to. The sky is taken as evenly bright (Liu and
    Jordan), the ground gives back a fifth.
    """
    level = level_w_m2(altitude_deg)
    sky = level * sky_share(level, altitude_deg, day_of_year)
    rise, tilt = np.radians(altitude_deg), np.radians(tilt_deg)
    facing = np.sin(rise) * np.cos(tilt) + np.cos(rise) * np.sin(tilt) * np.cos(np.radians(azimuth_deg - toward_deg))
    high = altitude_deg > LOW_DEG
    beam = np.where(high, (level - sky) / np.maximum(np.sin(rise), 1e-9), 0.0)
    around = np.where(high, sky, level)
    return np.asarray(
        beam * np.maximum(facing, 0.0) + around * (1 + np.cos(tilt)) / 2 + level * ALBEDO * (1 - np.cos(tilt)) / 2
    )
