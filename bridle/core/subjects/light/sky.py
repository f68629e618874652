"""Where the sun stands: the one file that asks the almanac."""

import math
from datetime import UTC, datetime, timedelta
from functools import lru_cache

import ephem
import numpy as np

from bridle.core.subjects.numbers.arrays import Floats

# The sun moves a degree in four minutes; straight lines between such samples are good to a hundredth of one.
SAMPLE_S = 240


DAY_S = 86_400


def _asked(latitude: float, longitude: float, first: int, count: int) -> tuple[Floats, Floats]:
    """Azimuth and true altitude in radians and degrees, every `SAMPLE_S` from a Unix time."""
    here = ephem.Observer()
    here.lat, here.lon, here.pressure = math.radians(latitude), math.radians(longitude), 0
    azimuths, altitudes = [], []
    for number in range(count):
        at = datetime.fromtimestamp(first, UTC) + timedelta(seconds=number * SAMPLE_S)
        here.date = at.replace(tzinfo=None)
        body = ephem.Sun()  # a fresh one each time: its searches and places are not safe to share
        body.compute(here)
        azimuths.append(float(body.az))
        altitudes.append(math.degrees(float(body.alt)))
    return np.array(azimuths), np.array(altitudes)


@lru_cache(maxsize=1024)
def _day(latitude: float, longitude: float, day: int) -> tuple[Floats, Floats]:
    """A whole day of samples (days since 1970, UTC): whatever is moved by minutes or hours finds them there."""
    return _asked(latitude, longitude, day * DAY_S, DAY_S // SAMPLE_S)


@lru_cache(maxsize=4096)
def _moment(latitude: float, longitude: float, at: int) -> tuple[float, float]:
    """Azimuth and altitude in degrees at one Unix time."""
    azimuth, altitude = _asked(latitude, longitude, at, 1)
    return math.degrees(azimuth[0]), float(altitude[0])


def sun(latitude: float, longitude: float, times: Floats) -> tuple[Floats, Floats]:
    """Azimuth from north clockwise (not wrapped) and true altitude of the sun, in degrees, at Unix times (rising).

    Over more than three days only the samples around each time are asked for.
    """
    if times[-1] - times[0] > 3 * DAY_S:
        return _scattered(latitude, longitude, times)
    first, last = int(times[0] // DAY_S), int((times[-1] + SAMPLE_S) // DAY_S)
    days = [_day(round(latitude, 4), round(longitude, 4), day) for day in range(first, last + 1)]
    azimuth = np.degrees(np.unwrap(np.concatenate([day[0] for day in days])))
    altitude = np.concatenate([day[1] for day in days])
    at = (times - first * DAY_S) / SAMPLE_S
    grid = np.arange(len(azimuth))
    # Turns that lie before the first frame do not count.
    azimuth -= 360 * math.floor(np.interp(at[0], grid, azimuth) / 360)
    return np.interp(at, grid, azimuth), np.interp(at, grid, altitude)


MOST_SCATTERED = 240


def _scattered(latitude: float, longitude: float, times: Floats) -> tuple[Floats, Floats]:
    """Long shoots: at most some hundred frames, evenly spread, are asked for; the others take the nearest one's."""
    picked = np.unique(np.linspace(0, len(times) - 1, min(len(times), MOST_SCATTERED)).astype(int))
    told = [_moment(round(latitude, 4), round(longitude, 4), int(times[i])) for i in picked]
    nearest = np.abs(np.searchsorted(picked, np.arange(len(times)), side="right") - 1)
    azimuth = np.array([one[0] for one in told])
    altitude = np.array([one[1] for one in told])
    return azimuth[nearest], altitude[nearest]
