"""How far the picture smears while the shutter is open, axis by axis, at the fastest moment of the move."""

import math
from collections.abc import Iterator
from dataclasses import dataclass

from bridle.core.figure import Figure, Formula, Term, figure, term
from bridle.core.plan.rig import Axis
from bridle.core.reckon.picture import kept
from bridle.core.reckon.poses import nearest_mm
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.travel import steps_of
from bridle.core.subjects.numbers.rounding import first_peak
from bridle.core.subjects.optics import lens

FASTEST = Formula("step / slot", "the longest step over its slot")
LONGEST = Formula("exposure * 2**(step * (count - 1) / 2)", "the longest exposure of the bracket")
SMEAR = "each at its worst; on a subject that is kept centred they take from one another"
SMEAR_ROLL = Formula("radians(speed * exposure) * half", "the picture turns about its centre; worst in the corner")
SMEAR_ZOOM = Formula("speed * exposure / focal * half", "the picture grows from its centre; worst in the corner")


@dataclass(frozen=True)
class Open:
    """What all axes share: the longest exposure in seconds, the lens in mm, the picture in pixels; with its terms."""

    exposure_s: float
    focal_mm: float
    sensor_mm: float
    width_px: int
    half_px: float
    px_per_deg: float

    def term(self, name: str) -> Term:
        """One of them as a term of a formula."""
        return {
            "exposure": term("exposure", "longest exposure", self.exposure_s, "shutter"),
            "focal": term("focal", "focal length", self.focal_mm, "focal"),
            "sensor": term("sensor", "sensor, across", self.sensor_mm, "focal"),
            "width": term("width", "picture, across", self.width_px, "px"),
            "half": term("half", "from the centre to the corner", self.half_px, "px"),
            "scale": term("scale", "pixels per degree", self.px_per_deg, "px/°"),
        }[name]

    def terms(self, *names: str) -> tuple[Term, ...]:
        """Several of them."""
        return tuple(self.term(name) for name in names)


def smear(shooting: Shooting) -> list[Figure]:
    """Exposure, scale, and the smear of each axis; last that of all together."""
    made, opened = list(_shared(shooting)), _open(shooting)
    parts: list[tuple[str, float]] = []
    for axis in shooting.plan.rig.axes:
        speed, figures = _speed(shooting, axis)
        made += figures
        for found, counts in _of_axis(axis, speed, opened, nearest_mm(shooting.plan)):
            made.append(found)
            if counts:
                parts.append((axis.name, found.value))
    return [*made, _together(parts)]


def _open(shooting: Shooting) -> Open:
    beat, frame, focal = shooting.plan.beat, kept(shooting.plan), shooting.plan.camera.focal_mm
    return Open(
        exposure_s=float(beat.exposure_s) * 2 ** (beat.bracket_step_stops * (beat.bracket_frames - 1) / 2),
        focal_mm=focal,
        sensor_mm=frame.width_mm,
        width_px=frame.width_px,
        half_px=math.hypot(frame.width_px, frame.height_px) / 2,
        px_per_deg=lens.px_per_deg(focal, frame.width_mm, frame.width_px),
    )


def _shared(shooting: Shooting) -> Iterator[Figure]:
    """The longest exposure, and the scale of the picture."""
    beat, opened = shooting.plan.beat, _open(shooting)
    count = term("count", "exposures in a bracket", beat.bracket_frames, "")
    between = term("step", "from one to the next", beat.bracket_step_stops, "stops")
    middle = term("exposure", "exposure", beat.exposure_s, "shutter")
    label = "longest exposure"
    yield figure("beat.longest_exposure", label, opened.exposure_s, "shutter", LONGEST, middle, between, count)
    terms = opened.terms("focal", "width", "sensor")
    yield figure("view.px_per_deg", "pixels per degree", opened.px_per_deg, "px/°", lens.PX_PER_DEG, *terms)


def _speed(shooting: Shooting, axis: Axis) -> tuple[Term, list[Figure]]:
    """How fast an axis is at its fastest, seen from its slot: a zoom in mm of focal length."""
    places, unit = (shooting.positions, "mm") if axis.name == "zoom" else (shooting.driven, axis.unit)
    steps = steps_of(places[axis.name])
    rooms = shooting.timeline.rooms_s
    worst = first_peak(steps / rooms)
    step, own = float(steps[worst]), float(rooms[worst])
    pace = term("step", "longest step", step, unit), term("slot", "its slot", own, "s")
    label = f"{axis.name} at its fastest"
    fastest = figure(f"beat.speed.{axis.name}", label, step / own, f"{unit}/s", FASTEST, *pace)
    return term("speed", label, step / own, f"{unit}/s"), [fastest]


def _of_axis(axis: Axis, speed: Term, opened: Open, near_mm: float | None) -> Iterator[tuple[Figure, bool]]:
    """The smear by an axis, and whether the figure is the one that counts in the sum."""
    pace, exposure = speed.value, opened.exposure_s
    if axis.name in ("pan", "tilt"):
        centre, edge = lens.smear_px(pace, exposure, opened.px_per_deg, opened.sensor_mm, opened.focal_mm)
        key, by = "beat.smear" if axis.name == "pan" else f"beat.smear.{axis.name}", f"smear by the {axis.name}"
        turned = (speed, *opened.terms("exposure", "scale"))
        yield figure(f"{key}.centre", f"{by}, centre", centre, "px", lens.SMEAR_PAN, *turned), False
        wide = opened.terms("sensor", "focal")
        yield figure(f"{key}.edge", f"{by}, edge", edge, "px", lens.SMEAR_PAN_EDGE, *turned, *wide), True
    elif axis.name in ("roll", "zoom"):
        roll = axis.name == "roll"
        way = math.radians(pace * exposure) if roll else pace * exposure / opened.focal_mm
        rule, terms = (SMEAR_ROLL, ()) if roll else (SMEAR_ZOOM, opened.terms("focal"))
        shared = (speed, *opened.terms("exposure", "half"), *terms)
        label = f"smear by the {axis.name}, corner"
        yield figure(f"beat.smear.{axis.name}", label, opened.half_px * way, "px", rule, *shared), True
    elif axis.name == "slide" and near_mm is not None:
        away = term("distance", "nearest mark, away from the rail", near_mm, "mm")
        px = lens.slide_smear_px(pace, exposure, opened.focal_mm, opened.width_px, opened.sensor_mm, near_mm)
        terms = (speed, *opened.terms("exposure", "focal", "width", "sensor"), away)
        yield figure("beat.smear.slide", "smear by the slide", px, "px", lens.SMEAR_SLIDE, *terms), True


def _together(parts: list[tuple[str, float]]) -> Figure:
    """All of them added up; a slide last, and only where it smears at all or nothing else does."""
    turned = [part for part in parts if part[0] != "slide"]
    slide = next((px for name, px in parts if name == "slide"), 0.0)
    counted = [*turned, ("slide", slide)] if slide or not turned else turned
    sums = [
        term(name, f"by the {name}, {'at the nearest mark' if name == 'slide' else 'at the edge'}", px, "px")
        for name, px in counted
    ]
    rule = Formula(" + ".join(name for name, _px in counted), SMEAR)
    return figure("beat.smear", "smear while exposing", sum(px for _name, px in counted), "px", rule, *sums)
