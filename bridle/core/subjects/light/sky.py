"""Where sun, moon and galactic centre stand, at any place and over any time: the one file that asks the almanac.

The almanac gives right ascension and declination every six hours; between them they go straight, good to a
ten-thousandth of a degree for the sun and to two hundredths for the moon. What the earth's turning makes of them is
worked out for every moment asked for (Meeus, Astronomical Algorithms, chapters 12 and 13), so that a year of noons is
as right as an hour of seconds.
"""

import math
from collections.abc import Callable
from functools import lru_cache
from typing import Literal, NamedTuple, TypeAlias

import ephem
import numpy as np

from bridle.core.subjects.numbers.arrays import Floats

Body = Literal["sun", "moon", "galactic centre"]
# Azimuth and altitude of a body at Unix times that rise, in degrees.
Track: TypeAlias = "Callable[[float, float, Floats], tuple[Floats, Floats]]"

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
EARTH_RADIUS_AU = 4.263_496e-5
# The middle of the galaxy, at the equinox of 2000.
CENTRE = "centre,f|G,17:45:40.04,-29:00:28.1,4"


class Day(NamedTuple):
    """The almanac's figures of a body every six hours of a day (since 1970), the last at the start of the next one.

    Sidereal time at Greenwich at the day's start, right ascension (not wrapped) and declination in degrees, distance in
    radii of the earth (infinite for a star), and the phase angle in degrees (0 where all of it is lit).
    """

    sidereal: float
    ascension: tuple[float, ...]
    declination: tuple[float, ...]
    distance: tuple[float, ...]
    phase: tuple[float, ...]


# Sun and moon on every day of the longest shoot, which lasts twenty years.
@lru_cache(maxsize=16_384)
def _day(body: Body, day: int) -> Day:
    greenwich = ephem.Observer()
    greenwich.lon, greenwich.lat, greenwich.date = 0, 0, EPOCH + day
    ascension, declination, distance, phase = [], [], [], []
    for step in range(STEPS + 1):
        one = _asked(body, ephem.Date(EPOCH + day + step / STEPS))
        ascension.append(math.degrees(float(one.g_ra)))
        declination.append(math.degrees(float(one.g_dec)))
        distance.append(one.earth_distance / EARTH_RADIUS_AU if body != "galactic centre" else math.inf)
        phase.append(math.degrees(math.acos(2 * one.moon_phase - 1)) if body == "moon" else 0.0)
    unwrapped = np.unwrap(ascension, period=360).tolist()
    sidereal = math.degrees(float(greenwich.sidereal_time()))
    return Day(sidereal, tuple(unwrapped), tuple(declination), tuple(distance), tuple(phase))


def _asked(body: Body, date: ephem.Date) -> ephem.Body:
    # A fresh body for each question: the almanac keeps its answers in them.
    if body == "sun":
        return ephem.Sun(date)
    if body == "moon":
        return ephem.Moon(date)
    star = ephem.readdb(CENTRE)
    star.compute(date)
    return star


class Places(NamedTuple):
    """Sidereal time at Greenwich, and what the almanac says of a body, one entry a moment; degrees and earth radii."""

    sidereal: Floats
    ascension: Floats
    declination: Floats
    distance: Floats
    phase: Floats


def _places(body: Body, times: Floats) -> Places:
    """The body at Unix times that rise."""
    days = np.floor(times / DAY_S).astype(np.int64)
    # The times rise: a day's moments stand together.
    place = np.cumsum(np.diff(days, prepend=days[0]) > 0)
    named = days[np.flatnonzero(np.diff(place, prepend=-1))]
    tables = [_day(body, day) for day in named.tolist()]
    share = times / DAY_S - days
    step = np.minimum((share * STEPS).astype(np.int64), STEPS - 1)
    rest = share * STEPS - step

    def along(of: Callable[[Day], tuple[float, ...]]) -> Floats:
        table = np.array([of(day) for day in tables])
        return np.asarray(table[place, step] * (1 - rest) + table[place, step + 1] * rest)

    sidereal = np.array([day.sidereal for day in tables])[place] + TURN_DEG * share
    far = body != "moon"
    return Places(
        sidereal,
        along(lambda day: day.ascension),
        along(lambda day: day.declination),
        np.full(1, np.inf) if far else along(lambda day: day.distance),
        np.zeros(1) if far else along(lambda day: day.phase),
    )


def _seen(latitude: float, longitude: float, at: Places) -> tuple[Floats, Floats]:
    """Azimuth (not wrapped, in degrees) and altitude (in radians) as seen from the centre of the earth."""
    hour, up = np.radians(at.sidereal + longitude - at.ascension), np.radians(at.declination)
    here = math.radians(latitude)
    north = math.cos(here) * np.sin(up) - math.sin(here) * np.cos(up) * np.cos(hour)
    azimuth = np.unwrap(np.degrees(np.arctan2(-np.cos(up) * np.sin(hour), north)), period=360)
    azimuth -= 360 * math.floor(float(azimuth[0]) / 360)
    return azimuth, _risen(latitude, longitude, at)


def _risen(latitude: float, longitude: float, at: Places) -> Floats:
    """The altitude as seen from the centre of the earth, in radians (Meeus, 13.6)."""
    hour, up = np.radians(at.sidereal + longitude - at.ascension), np.radians(at.declination)
    here = math.radians(latitude)
    sine = math.sin(here) * np.sin(up) + math.cos(here) * np.cos(up) * np.cos(hour)
    return np.asarray(np.arcsin(np.clip(sine, -1, 1)))


def _from_here(body: Body, at: Places, altitude: Floats) -> Floats:
    """The altitude as seen from the ground, in degrees: lower than from the earth's centre by the parallax."""
    if body == "moon":
        return np.asarray(np.degrees(np.arctan2(at.distance * np.sin(altitude) - 1, at.distance * np.cos(altitude))))
    return np.asarray(np.degrees(altitude) - (PARALLAX_DEG * np.cos(altitude) if body == "sun" else 0.0))


def altitude(body: Body, latitude: float, longitude: float, times: Floats) -> Floats:
    """The true altitude alone of a body, in degrees, at Unix times (rising)."""
    at = _places(body, times)
    return _from_here(body, at, _risen(latitude, longitude, at))


def _track(body: Body, latitude: float, longitude: float, times: Floats) -> tuple[Floats, Floats]:
    at = _places(body, times)
    azimuth, risen = _seen(latitude, longitude, at)
    return azimuth, _from_here(body, at, risen)


def sun(latitude: float, longitude: float, times: Floats) -> tuple[Floats, Floats]:
    """Azimuth from north clockwise (not wrapped) and true altitude of the sun, in degrees, at Unix times (rising).

    Without refraction. The azimuth goes on from moment to moment the shorter way round, from 0 to 360 at the first.
    """
    return _track("sun", latitude, longitude, times)


def moon(latitude: float, longitude: float, times: Floats) -> tuple[Floats, Floats]:
    """The same of the moon: as it is seen from the place, by up to a degree lower than from the earth's centre."""
    return _track("moon", latitude, longitude, times)


def galactic_centre(latitude: float, longitude: float, times: Floats) -> tuple[Floats, Floats]:
    """The same of the middle of the galaxy, where the Milky Way is brightest."""
    return _track("galactic centre", latitude, longitude, times)


def moon_phase_deg(times: Floats) -> Floats:
    """The phase angle of the moon at Unix times that rise: 0° when it is full, 180° when it is new."""
    return _places("moon", times).phase


def moon_radius_deg(times: Floats) -> Floats:
    """Half the moon's breadth in the sky, in degrees, as its distance has it (Meeus, chapter 55)."""
    return np.asarray(np.degrees(np.arcsin(0.272_481 / _places("moon", times).distance)))


def lit_share(phase_deg: Floats) -> Floats:
    """The share of the moon's disc that is lit (Meeus, 48.1)."""
    return np.asarray((1 + np.cos(np.radians(phase_deg))) / 2)
