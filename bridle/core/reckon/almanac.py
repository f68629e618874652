"""What happens in the sky over a stretch of the clock: rising, setting, the ends of the twilights."""

from collections.abc import Iterator
from functools import lru_cache
from typing import Literal, NamedTuple

import numpy as np

from bridle.core.subjects.light import sky
from bridle.core.subjects.light.crossings import Heights, crossings
from bridle.core.subjects.light.sky import Body, Track
from bridle.core.subjects.numbers.arrays import Floats

SkyName = Literal[
    "astronomical dawn", "nautical dawn", "civil dawn", "sunrise", "sunset", "civil dusk", "nautical dusk",
    "astronomical dusk", "moonrise", "moonset", "galactic centre rises", "galactic centre sets",
]  # fmt: skip
# The air lifts what stands on the horizon by so much (the usual 34 minutes of arc), and half the sun is as broad again.
REFRACTION_DEG = 34 / 60
SUN_UP_DEG = -0.833
# The sun's true altitude at which each begins (upwards) and ends (downwards).
SUN_NAMES: dict[float, tuple[SkyName, SkyName]] = {
    SUN_UP_DEG: ("sunrise", "sunset"),
    -6.0: ("civil dawn", "civil dusk"),
    -12.0: ("nautical dawn", "nautical dusk"),
    -18.0: ("astronomical dawn", "astronomical dusk"),
}
TRACKS: dict[Body, Track] = {"sun": sky.sun, "moon": sky.moon, "galactic centre": sky.galactic_centre}


class SkyEvent(NamedTuple):
    """What happens at a moment (Unix seconds), and in which direction it is seen, in degrees from north."""

    name: SkyName
    at_s: float
    azimuth_deg: float


def over(body: Body, latitude: float, longitude: float, height_deg: float) -> Heights:
    """How far a body stands above a height, at moments that rise."""

    def above(at: Floats) -> Floats:
        return sky.altitude(body, latitude, longitude, at) - height_deg

    return above


def moon_up(latitude: float, longitude: float) -> Heights:
    """How far the moon's upper edge stands above the horizon, lifted by the air."""

    def above(at: Floats) -> Floats:
        return sky.altitude("moon", latitude, longitude, at) + sky.moon_radius_deg(at) + REFRACTION_DEG

    return above


@lru_cache(maxsize=64)
def almanac(latitude: float, longitude: float, start_s: float, end_s: float) -> tuple[SkyEvent, ...]:
    """Everything between two moments, in the order of time."""
    return tuple(sorted(_events(latitude, longitude, start_s, end_s), key=lambda event: event.at_s))


def _events(latitude: float, longitude: float, start_s: float, end_s: float) -> Iterator[SkyEvent]:
    centre: dict[float, tuple[SkyName, SkyName]] = {0.0: ("galactic centre rises", "galactic centre sets")}
    asked: tuple[tuple[Body, Heights, dict[float, tuple[SkyName, SkyName]]], ...] = (
        ("sun", over("sun", latitude, longitude, 0.0), SUN_NAMES),
        ("moon", moon_up(latitude, longitude), {0.0: ("moonrise", "moonset")}),
        ("galactic centre", over("galactic centre", latitude, longitude, 0.0), centre),
    )
    for body, above, named in asked:
        passed = crossings(above, start_s, end_s, tuple(named))
        if not passed:
            continue
        azimuths = TRACKS[body](latitude, longitude, np.array([one.at_s for one in passed]))[0]
        for one, azimuth in zip(passed, azimuths.tolist(), strict=True):
            rises, sets = named[one.height]
            yield SkyEvent(rises if one.up else sets, one.at_s, azimuth % 360)
