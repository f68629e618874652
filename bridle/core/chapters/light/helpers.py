"""What is worked out beside the ramp: filters, stars, depth of field, close-up, lamps on the mains, dew."""

import math
from collections.abc import Iterator

import numpy as np

from bridle.core.figure import Figure, Formula, Term, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.light import StarsIn
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.settings import Followed
from bridle.core.reckon.starfield import Fastest, fastest
from bridle.core.subjects.light import dew, lamps, trails
from bridle.core.subjects.optics import depth, lens
from bridle.core.subjects.optics.projecting import Poses

HALF_INTERVAL = Formula("log2(interval / 2 / exposure)", "so many stops of filter let half the interval be exposed")
PITCH = Formula("sensor / width * 1000", "the sensor's width shared among its pixels")
LIKE_FULL_FRAME = Formula("focal * 36 / sensor", "the focal length that sees as much on a sensor 36 mm across")
BRIGHTER = Formula("setting * step", "one stop more light")
# From this magnification on depth is worked out as close up.
CLOSE_UP = 0.1
STEADY_HZ = (50, 60)


def findings(shooting: Shooting) -> Iterator[Figure]:
    """All helpers that have what they need."""
    plan, followed = shooting.plan, shooting.followed
    exposure = float(shooting.shuttered.exposed_s[0])
    yield from _filter(shooting, exposure)
    yield from _triangle(plan, followed, exposure)
    yield from _circle(plan)
    yield from _depth(plan)
    yield from _extended(plan)
    yield from _lamps(plan, exposure)
    yield from _dew(plan)
    yield from _stars(shooting)


def _exposure(seconds: float) -> Term:
    return term("exposure", "exposure of the first frame", seconds, "shutter")


def _filter(shooting: Shooting, exposure: float) -> Iterator[Figure]:
    interval = float(shooting.timeline.rooms_s[0])
    terms = term("interval", "interval", interval, "s"), _exposure(exposure)
    stops = math.log2(interval / 2 / exposure)
    if stops > 0:
        yield figure("help.density", "filter for half the interval", stops, "stops", HALF_INTERVAL, *terms)


def _triangle(plan: Plan, followed: Followed | None, exposure: float) -> Iterator[Figure]:
    """One stop brighter by each of the three."""
    iso = followed.true("iso", 0) if followed else float(plan.camera.iso)
    f_number = followed.true("aperture", 0) if followed else plan.camera.aperture
    for name, value, unit, step in (
        ("shutter", exposure, "shutter", 2.0), ("iso", iso, "", 2.0), ("aperture", f_number, "f-number", math.sqrt(0.5))
    ):  # fmt: skip
        terms = term("setting", name, value, unit), term("step", "one stop", step, "times")
        yield figure(f"help.brighter.{name}", f"one stop brighter by {name}", value * step, unit, BRIGHTER, *terms)


def _circle(plan: Plan) -> Iterator[Figure]:
    """What passes for a point, where nobody has typed it."""
    camera = plan.camera
    if camera.circle_mm is not None:
        return
    terms = (
        term("sensor", "sensor, across", camera.sensor_width_mm, "focal"),
        term("height", "sensor, upright", camera.sensor_height_mm, "focal"),
        term("width", "picture, across", camera.picture_width_px, "px"),
    )
    yield figure("help.circle", "circle of confusion", camera.circle, "focal", depth.CIRCLE, *terms)


def _glass(plan: Plan) -> tuple[float, float, float]:
    return plan.camera.focal_mm, plan.camera.aperture, plan.camera.circle


def _depth(plan: Plan) -> Iterator[Figure]:
    """The limits of sharpness at the first keyframe's focus, where that lies beyond the focal length."""
    focal, f_number, circle = _glass(plan)
    distance = plan.move.start.focus_mm
    hyper = lens.hyperfocal_mm(focal, f_number, circle)
    long = term("focal", "focal length", focal, "focal")
    opened, circled = (
        term("f_number", "aperture", f_number, "f-number"),
        term("circle", "circle of confusion", circle, "mm"),
    )
    yield figure("help.hyperfocal", "hyperfocal distance", hyper, "mm", lens.HYPERFOCAL, long, opened, circled)
    if distance <= focal or hyper <= 2 * focal:
        return
    ends = term("distance", "focused at", distance, "mm"), term("hyper", "hyperfocal distance", hyper, "mm"), long
    near, far = depth.limits_mm(distance, focal, f_number, circle)
    yield figure("help.near", "sharp from", near, "mm", depth.NEAR, *ends)
    if math.isfinite(far):
        yield figure("help.far", "sharp to", far, "mm", depth.FAR, *ends)
    scale = depth.magnification(focal, distance)
    if scale >= CLOSE_UP:
        yield figure("help.scale", "magnification", scale, "times", depth.SCALE, long, ends[0])
        yield from _close(scale, f_number, circle, "help.close")


def _close(scale: float, f_number: float, circle: float, key: str) -> Iterator[Figure]:
    deep = depth.close_depth_mm(scale, f_number, circle)
    terms = (
        term("f_number", "aperture", f_number, "f-number"),
        term("circle", "circle of confusion", circle, "mm"),
        term("scale", "magnification", scale, "times"),
    )
    yield figure(key, "depth, close up", deep, "mm", depth.CLOSE, *terms)
    whole = term("depth", "depth, close up", deep, "mm")
    yield figure(f"{key}.grows", "may grow towards the lens by", deep / 2, "mm", depth.HALF, whole)


def _extended(plan: Plan) -> Iterator[Figure]:
    """A fixed lens screwed out."""
    out = plan.camera.extension_mm
    if out is None:
        return
    focal, f_number, circle = _glass(plan)
    terms = term("focal", "focal length", focal, "focal"), term("out", "screwed out by", out, "focal")
    scale = out / focal
    yield figure("help.out.scale", "magnification, screwed out", scale, "times", depth.EXTENDED, *terms)
    away = depth.extended_subject_mm(focal, out)
    yield figure("help.out.subject", "subject in front of the lens", away, "mm", depth.SUBJECT, *terms)
    thread = term("thread", "one turn of its thread", plan.camera.thread_mm, "focal")
    yield figure(
        "help.out.turns", "turns of its thread", out / plan.camera.thread_mm, "", depth.TURNS, terms[1], thread
    )
    yield from _close(scale, f_number, circle, "help.out.depth")


def _lamps(plan: Plan, exposure: float) -> Iterator[Figure]:
    for mains in STEADY_HZ:
        count, steady = lamps.steady_s(exposure, mains)
        terms = term("half_cycles", "half cycles", count, ""), term("mains", "mains", mains, "Hz")
        yield figure(f"help.mains.{mains}", f"steady under lamps at {mains} Hz", steady, "shutter", lamps.MAINS, *terms)
    lamp, day = term("lamp", "lamps", plan.light.lamp_k, "K"), term("day", "daylight", lamps.DAYLIGHT_K, "K")
    mixed = lamps.mixed_k(plan.light.lamp_k)
    yield figure("help.mixed", "lamp and daylight, equally bright", mixed, "K", lamps.MIXED, lamp, day)


def _dew(plan: Plan) -> Iterator[Figure]:
    light = plan.light
    if light.air_c is None or light.humidity is None:
        return
    terms = term("air", "air", light.air_c, "°C"), term("humidity", "relative humidity", light.humidity, "share")
    yield figure("help.dew", "dew point", dew.dew_point_c(light.air_c, light.humidity), "°C", dew.DEW, *terms)


def _stars(shooting: Shooting) -> Iterator[Figure]:
    """The computed limit for the framing's sky beside the quick rules."""
    plan, camera = shooting.plan, shooting.plan.camera
    pitch = camera.sensor_width_mm / camera.picture_width_px * 1000
    focal = float(shooting.poses.focal[0])
    alike = focal * 36 / camera.sensor_width_mm
    sensor = term("sensor", "sensor, across", camera.sensor_width_mm, "focal")
    long = term("focal", "focal length", focal, "focal")
    yield figure("help.like", "as on full frame", alike, "focal", LIKE_FULL_FRAME, long, sensor)
    full = term("focal", "focal length, as on full frame", alike, "focal")
    yield figure("help.stars.500", "by the 500 rule", trails.rule_500_s(alike), "s", trails.RULE_500, full)
    pixels = term("pitch", "pixel pitch", pitch, "µm")
    opened = term("f_number", "aperture", camera.aperture, "f-number")
    by_pixels = trails.rule_pixels_s(camera.aperture, pitch, focal)
    yield figure(
        "help.stars.pixels", "by aperture and pixels", by_pixels, "s", trails.RULE_PIXELS, opened, pixels, long
    )
    where, bearing = plan.shoot.place.latitude_deg, plan.rig.normal_bearing_deg
    if where is None or bearing is None:
        return
    yield from _star_places(plan, shooting.poses.at(0), where)


PLACES: dict[StarsIn, str] = {"centre": "at the centre", "middle": "in the middle two thirds", "corner": "anywhere"}


def _star_places(plan: Plan, at: Poses, where: float) -> Iterator[Figure]:
    """How long stars stay points in each part of the picture, and how far the fastest is drawn out then."""
    px, counts = plan.light.stars_px or 2.0, plan.light.stars_in
    longest: dict[StarsIn, float] = {}
    found = {part: fastest(plan, at, where, part) for part in PLACES}
    for part, said in PLACES.items():
        one = found[part]
        speed = float(one.px_s[0])
        if np.isnan(speed) or not speed:
            continue
        longest[part] = px / speed
        terms = (
            term("pixels", "drawn out over", px, "px"),
            term("declination", f"declination of the fastest, {_place(one)}", float(one.declination_deg[0]), "deg"),
            term("scale", "pixels per degree there", float(one.px_per_deg[0]), "px/°"),
        )
        key = "help.stars" if part == counts else f"help.stars.{part}"
        yield figure(key, f"stars stay points {said} for", longest[part], "s", trails.DRIFT, *terms)
    if counts != "corner" and counts in longest and "corner" in longest:
        one, seconds = found["corner"], longest[counts]
        terms = (
            term("declination", "declination there", float(one.declination_deg[0]), "deg"),
            term("scale", "pixels per degree there", float(one.px_per_deg[0]), "px/°"),
            term("seconds", f"what stays a point {PLACES[counts]}, exposed for", seconds, "s"),
        )
        label = f"then drawn out {_place(one)} over"
        yield figure("help.stars.drawn", label, float(one.px_s[0]) * seconds, "px", trails.DRAWN, *terms)


def _place(one: Fastest) -> str:
    """Where in the picture the fastest star is, in words."""
    right, up = float(one.right[0]), float(one.up[0])
    sides = [name for by, more, less in ((up, "top", "bottom"), (right, "right", "left")) if by
             for name in ((more if by > 0 else less),)]  # fmt: skip
    return f"at the {' '.join(sides)}" if sides else "at the centre"
