"""Where a star stands later: the sky turns about its pole."""

import numpy as np

from bridle.core.subjects.light.trails import DRIFT_ARCSEC_S, declination_deg
from bridle.core.subjects.numbers.arrays import Floats


def turned(azimuth_deg: float, altitude_deg: float, latitude_deg: float, seconds: Floats) -> tuple[Floats, Floats]:
    """Bearing from north and altitude, in degrees, so many seconds after it stood there (Meeus, chapter 13)."""
    turn, up, here = np.radians(azimuth_deg), np.radians(altitude_deg), np.radians(latitude_deg)
    declination = np.radians(declination_deg(azimuth_deg, altitude_deg, latitude_deg))
    hour = np.arctan2(-np.sin(turn) * np.cos(up), np.sin(up) * np.cos(here) - np.cos(up) * np.sin(here) * np.cos(turn))
    hour = hour + np.radians(DRIFT_ARCSEC_S / 3600 * np.asarray(seconds))
    high = np.sin(here) * np.sin(declination) + np.cos(here) * np.cos(declination) * np.cos(hour)
    east = -np.cos(declination) * np.sin(hour)
    north = np.sin(declination) * np.cos(here) - np.cos(declination) * np.sin(here) * np.cos(hour)
    return np.degrees(np.arctan2(east, north)) % 360, np.degrees(np.arcsin(np.clip(high, -1, 1)))
