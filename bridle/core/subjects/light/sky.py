"""Where the sun stands, at any place and over any time: the one file that asks the almanac.

The almanac gives right ascension and declination every six hours; between them they go straight, good to a
ten-thousandth of a degree. What the earth's turning makes of them is worked out for every moment asked for (Meeus,
Astronomical Algorithms, chapters 12 and 13), so that a year of noons is as right as an hour of seconds.
"""

import math
from functools import lru_cache

import ephem
import numpy as np

from bridle.core.subjects.numbers.arrays import Floats

DAY_S = 86_400
# Between these altitudes of the sun the light of a drawn scene grows from none to all, in a straight line: below the
# first lamps outshine the sky. For a picture of the scene, and no measure of exposure.
DAYLIGHT_DEG = (-8.0, 12.0)
STEPS = 4
# The earth turns a little more than once a day against the stars (Meeus, 12.4).
TURN_DEG = 360.985_647_366_29
# Seen from the surface instead of the centre the sun stands lower, by this much on the horizon.
PARALLAX_DEG = 8.794 / 3600
# Days of the almanac's own count since 1899-12-31 12:00, at the start of 1970.
EPOCH = float(ephem.Date("1970/1/1"))


@lru_cache(maxsize=8192)
def _day(day: int) -> tuple[float, tuple[float, ...], tuple[float, ...]]:
    """Sidereal time at Greenwich at the start of a day (since 1970), and the sun's place every six hours, in degrees.

    The last place is that of the next day's start; right ascension is not wrapped within the day.
    """
    greenwich = ephem.Observer()
    greenwich.lon, greenwich.lat, greenwich.date = 0, 0, EPOCH + day
    ascension, declination = [], []
    for step in range(STEPS + 1):
        body = ephem.Sun(ephem.Date(EPOCH + day + step / STEPS))
        ascension.append(math.degrees(float(body.g_ra)))
        declination.append(math.degrees(float(body.g_dec)))
    unwrapped = np.unwrap(ascension, period=360).tolist()
    return math.degrees(float(greenwich.sidereal_time())), tuple(unwrapped), tuple(declination)


def _equatorial(times: Floats) -> tuple[Floats, Floats, Floats]:
    """Sidereal time at Greenwich, right ascension and declination of the sun at Unix times, in degrees."""
    days = np.floor(times / DAY_S).astype(np.int64)
    # The times rise: a day's moments stand together.
    place = np.cumsum(np.diff(days, prepend=days[0]) > 0)
    named = days[np.flatnonzero(np.diff(place, prepend=-1))]
    sidereal, ascension, declination = (np.array(each) for each in zip(*map(_day, named.tolist()), strict=True))
    share = times / DAY_S - days
    step = np.minimum((share * STEPS).astype(np.int64), STEPS - 1)
    rest = share * STEPS - step

    def along(table: Floats) -> Floats:
        return np.asarray(table[place, step] * (1 - rest) + table[place, step + 1] * rest)

    return sidereal[place] + TURN_DEG * share, along(ascension), along(declination)


def sun(latitude: float, longitude: float, times: Floats) -> tuple[Floats, Floats]:
    """Azimuth from north clockwise (not wrapped) and true altitude of the sun, in degrees, at Unix times (rising).

    Without refraction. The azimuth goes on from moment to moment the shorter way round, from 0 to 360 at the first.
    """
    sidereal, ascension, declination = _equatorial(times)
    hour, up, here = np.radians(sidereal + longitude - ascension), np.radians(declination), math.radians(latitude)
    altitude = np.arcsin(np.clip(math.sin(here) * np.sin(up) + math.cos(here) * np.cos(up) * np.cos(hour), -1, 1))
    north = math.cos(here) * np.sin(up) - math.sin(here) * np.cos(up) * np.cos(hour)
    azimuth = np.unwrap(np.degrees(np.arctan2(-np.cos(up) * np.sin(hour), north)), period=360)
    azimuth -= 360 * math.floor(float(azimuth[0]) / 360)
    return azimuth, np.degrees(altitude) - PARALLAX_DEG * np.cos(altitude)
