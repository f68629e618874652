"""The sun over the shoot, and when it gets into the picture."""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from bridle.core.plan.document import Plan
from bridle.core.reckon.poses import normal_deg
from bridle.core.reckon.sights import in_picture
from bridle.core.reckon.timeline import Timeline
from bridle.core.subjects.light import sky
from bridle.core.subjects.light.sky import Track
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.optics import projecting
from bridle.core.subjects.optics.projecting import Poses

UP_DEG = -0.833
LOW_SHADOW_DEG = 3.0
NEAR_SHARE = 0.25


@dataclass(frozen=True)
class Sun:
    """Bearing from north and true altitude of the sun at each frame, in degrees."""

    azimuth: Floats
    altitude: Floats


def sun(plan: Plan, times: Timeline) -> Sun | None:
    """The sun over the frames; None where the place on earth is not known."""
    return _of(sky.sun, plan, times)


def moon(plan: Plan, times: Timeline) -> Sun | None:
    """The moon over the frames, in the same figures; None where the place on earth is not known."""
    return _of(sky.moon, plan, times)


def _of(track: Track, plan: Plan, times: Timeline) -> Sun | None:
    place = plan.shoot.place
    if place.latitude_deg is None or place.longitude_deg is None:
        return None
    return _over(track, place.latitude_deg, place.longitude_deg, times)


# Sun and moon of two timelines.
@lru_cache(maxsize=4)
def _over(track: Track, latitude: float, longitude: float, times: Timeline) -> Sun:
    return Sun(*track(latitude, longitude, times.start_unix_s + times.starts_s))


def in_the_picture(plan: Plan, at: Poses, body: Sun) -> NDArray[np.bool_]:
    """At which frames a body stands in the picture, over the horizon; nowhere while nobody knows where north is."""
    up = body.altitude > UP_DEG
    if not up.any() or plan.rig.normal_bearing_deg is None:
        return np.zeros(len(body.altitude), dtype=bool)
    return in_picture(plan, at, projecting.see_far(at, body.azimuth - normal_deg(plan), body.altitude)) & up


def sun_at(plan: Plan, at: Floats) -> Sun | None:
    """The sun at Unix times that rise; None where the place on earth is not known."""
    place = plan.shoot.place
    if place.latitude_deg is None or place.longitude_deg is None:
        return None
    return Sun(*sky.sun(place.latitude_deg, place.longitude_deg, at))


def mask(name: str, plan: Plan, at: Poses, sun: Sun) -> NDArray[np.bool_]:
    """At which frames the sun is in the picture, just outside it (flare), or throws the camera's shadow into it."""
    from_normal = sun.azimuth - normal_deg(plan)
    if name == "shadow":
        low = sun.altitude > LOW_SHADOW_DEG
        if not low.any():
            return low
        return in_picture(plan, at, projecting.see_far(at, from_normal + 180, -sun.altitude)) & low
    up = sun.altitude > UP_DEG
    if not up.any():
        return up
    seen = projecting.see_far(at, from_normal, sun.altitude)
    inside = in_picture(plan, at, seen) & up
    return inside if name == "sun" else in_picture(plan, at, seen, NEAR_SHARE) & up & ~inside
