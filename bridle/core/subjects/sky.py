"""Where the sun stands: the one file that asks the almanac."""

import math
from datetime import UTC, datetime, timedelta
from functools import lru_cache

import ephem
import numpy as np

from bridle.core.subjects.easing import Floats

# The sun moves a degree in four minutes; straight lines between such samples are good to a hundredth of one.
SAMPLE_S = 240


@lru_cache(maxsize=4096)
def _sampled(latitude: float, longitude: float, first: int, count: int) -> tuple[Floats, Floats]:
    """Azimuth (unwrapped) and true altitude in degrees, every `SAMPLE_S` from a Unix time."""
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
    return np.degrees(np.unwrap(azimuths)), np.array(altitudes)


def sun(latitude: float, longitude: float, times: Floats) -> tuple[Floats, Floats]:
    """Azimuth from north clockwise (not wrapped) and true altitude of the sun, in degrees, at Unix times (rising).

    Over more than three days only the samples around each time are asked for.
    """
    if times[-1] - times[0] > 3 * 86_400:
        return _scattered(latitude, longitude, times)
    first = int(times[0] // 3600 * 3600)
    count = int((times[-1] - first) // SAMPLE_S) + 2
    azimuth, altitude = _sampled(round(latitude, 4), round(longitude, 4), first, count)
    at = (times - first) / SAMPLE_S
    grid = np.arange(count)
    return np.interp(at, grid, azimuth), np.interp(at, grid, altitude)


MOST_SCATTERED = 240


def _scattered(latitude: float, longitude: float, times: Floats) -> tuple[Floats, Floats]:
    """Long shoots: at most some hundred frames, evenly spread, are asked for; the others take the nearest one's."""
    picked = np.unique(np.linspace(0, len(times) - 1, min(len(times), MOST_SCATTERED)).astype(int))
    told = [_sampled(round(latitude, 4), round(longitude, 4), int(times[i]), 1) for i in picked]
    nearest = np.abs(np.searchsorted(picked, np.arange(len(times)), side="right") - 1)
    azimuth = np.array([one[0][0] for one in told])
    altitude = np.array([one[1][0] for one in told])
    return azimuth[nearest], altitude[nearest]
