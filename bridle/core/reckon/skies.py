"""Where the bodies stand that marks belong to: the sun, the moon, a star that is known by where it stands at first."""

from collections.abc import Hashable

from bridle.core.plan.document import Plan
from bridle.core.plan.marks import Mark
from bridle.core.reckon.sky import moon, sun
from bridle.core.reckon.timeline import Timeline
from bridle.core.subjects.light.turning import turned
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.optics.projecting import Far


def skies(plan: Plan, times: Timeline) -> Far:
    """Bearing and altitude at each frame of every body in the marks; none while nobody knows place and north."""
    made: dict[Hashable, tuple[Floats, Floats]] = {}
    if not known(plan):
        return made
    for mark in plan.move.marks:
        body = mark.in_the_sky
        if body is not None and body not in made:
            made[body] = _of(plan, mark, times)
    return made


def known(plan: Plan) -> bool:
    """Whether it is known where on earth this is, and which way the rig faces there."""
    place = plan.shoot.place
    return None not in (place.latitude_deg, place.longitude_deg, plan.rig.normal_bearing_deg)


def _of(plan: Plan, mark: Mark, times: Timeline) -> tuple[Floats, Floats]:
    latitude = plan.shoot.place.latitude_deg
    assert latitude is not None
    if mark.body == "star":
        return turned(mark.bearing_deg, mark.altitude_deg, latitude, times.starts_s)
    body = sun(plan, times) if mark.body == "sun" else moon(plan, times)
    assert body is not None
    return body.azimuth, body.altitude
