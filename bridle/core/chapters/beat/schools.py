"""Shoot-move-shoot and continuous side by side: what each needs, what each blurs."""

import math
from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from bridle.core.chapters.beat.figures import against, needed
from bridle.core.chapters.beat.state import SchoolState
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.beat import BeatSchool
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.rig import Axis
from bridle.core.reckon.cycles import Cycle
from bridle.core.reckon.picture import Kept, kept
from bridle.core.reckon.poses import nearest_mm
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.travel import steps_of
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.light import shutter
from bridle.core.subjects.optics import lens
from bridle.core.subjects.time.sentence import Solution

SCHOOLS: tuple[BeatSchool, ...] = ("shoot-move-shoot", "continuous")
SMEARS = SnagKind(
    "smear-visible",
    "mind",
    "clip",
    "Moving on while the shutter is open smears the picture by {smear}.",
    "Below half a pixel nobody sees it, up to two it looks soft, above it is plain to see.",
)
KINDS = (SMEARS,)
INVISIBLE_PX, VISIBLE_PX = 0.5, 2.0

FASTEST = Formula("step / slot", "the longest step over its slot")
LONGEST = Formula("exposure * 2**(step * (count - 1) / 2)", "the longest exposure of the bracket")
SMEAR = "each at its worst; on a subject that is kept centred they take from one another"
SMEAR_ROLL = Formula("radians(speed * exposure) * half", "the picture turns about its centre; worst in the corner")
SMEAR_ZOOM = Formula("speed * exposure / focal * half", "the picture grows from its centre; worst in the corner")
ON_SITE = Formula("frames * shortest", "as many frames at the shortest interval that fits")

SUITS = {
    "shoot-move-shoot": "Right for long exposures, night, close-ups and heavy lenses: nothing moves while the "
    "shutter is open. Each frame waits for the rig to stand still.",
    "continuous": "Right for short exposures and simple drives that cannot stop: no settling, a shorter interval, "
    "and a little smear along the move in every frame.",
}


@dataclass(frozen=True)
class Compared:
    """Both schools in their order, with the figures that tell them apart, and a smear that is seen."""

    schools: tuple[SchoolState, ...]
    figures: list[Figure]
    snags: list[Snag]


def compared(shooting: Shooting) -> Compared:
    """Each school as it would come out."""
    plan = shooting.plan
    smears = list(_smear(shooting))
    smear = smears[-1].value
    states, made = [], [*smears]
    for name in SCHOOLS:
        cycle = shooting.tried(beat=plan.beat.model_copy(update={"school": name})).cycle
        prefix = f"school.{name}"
        shortest = next(found for found in against(cycle, prefix) if found.key == f"{prefix}.shortest")
        made += [needed(cycle, prefix), shortest, _on_site(cycle, shooting.solution, prefix)]
        px = smear if name == "continuous" else 0.0
        here, risk = name == plan.beat.school, _risk(name, px, cycle)
        states.append(SchoolState(school=name, here=here, suits=SUITS[name], smear_px=px, risk=risk))
    return Compared(tuple(states), made, _visible(plan, smear))


def _on_site(one: Cycle, solution: Solution, prefix: str) -> Figure:
    terms = (
        term("frames", "frames", solution.frames, "frames"),
        term("shortest", "shortest interval that fits", one.shortest_s, "s"),
    )
    return figure(f"{prefix}.on_site", "on site at the least", solution.frames * one.shortest_s, "s", ON_SITE, *terms)


def _risk(school: str, px: float, one: Cycle) -> str:
    if school == "shoot-move-shoot":
        if not one.move_s:
            return "none: nothing moves"
        return "a rig that still shakes" if one.settle_s < 0.3 else "none, once the rig has settled"
    if px < INVISIBLE_PX:
        return "invisible"
    return "soft" if px <= VISIBLE_PX else "plain to see"


def _smear(shooting: Shooting) -> Iterator[Figure]:
    """Smear of pan and slide at the fastest moment of the move, and both together, last."""
    plan, places, slots = shooting.plan, shooting.positions, shooting.timeline.rooms_s
    steps = steps_of(shooting.driven)
    if "zoom" in places:
        steps["zoom"] = np.append(np.abs(np.diff(places["zoom"])), 0.0)
    camera, beat, frame = plan.camera, plan.beat, kept(plan)
    count = term("count", "exposures in a bracket", beat.bracket_frames, "")
    exposure = float(beat.exposure_s) * 2 ** (beat.bracket_step_stops * (beat.bracket_frames - 1) / 2)
    between, middle = (
        term("step", "from one to the next", beat.bracket_step_stops, "stops"),
        term("exposure", "exposure", beat.exposure_s, "shutter"),
    )
    yield figure("beat.longest_exposure", "longest exposure", exposure, "shutter", LONGEST, middle, between, count)
    open_s = term("exposure", "longest exposure", exposure, "shutter")
    focal, sensor = (
        term("focal", "focal length", camera.focal_mm, "focal"),
        term("sensor", "sensor, across", frame.width_mm, "focal"),
    )
    width = term("width", "picture, across", frame.width_px, "px")
    scale = lens.px_per_deg(camera.focal_mm, frame.width_mm, frame.width_px)
    yield figure("view.px_per_deg", "pixels per degree", scale, "px/°", lens.PX_PER_DEG, focal, width, sensor)
    turned: list[tuple[str, float]] = []
    slide, nearest = 0.0, nearest_mm(plan)
    for axis in plan.rig.axes:
        worst = int(np.argmax(steps[axis.name] / slots))
        step, own = float(steps[axis.name][worst]), float(slots[worst])
        unit = "mm" if axis.name == "zoom" else axis.unit
        pace = term("step", "longest step", step, unit), term("slot", "its slot", own, "s")
        yield figure(f"beat.speed.{axis.name}", f"{axis.name} at its fastest", step / own, f"{unit}/s", FASTEST, *pace)
        speed = term("speed", f"{axis.name} at its fastest", step / own, f"{unit}/s")
        if axis.name in ("pan", "tilt"):
            centre, edge = lens.smear_px(step / own, exposure, scale, frame.width_mm, camera.focal_mm)
            turned.append((axis.name, edge))
            per = term("scale", "pixels per degree", scale, "px/°")
            key = "beat.smear" if axis.name == "pan" else f"beat.smear.{axis.name}"
            yield figure(
                f"{key}.centre", f"smear by the {axis.name}, centre", centre, "px", lens.SMEAR_PAN, speed, open_s, per
            )
            yield figure(
                f"{key}.edge",
                f"smear by the {axis.name}, edge",
                edge,
                "px",
                lens.SMEAR_PAN_EDGE,
                speed,
                open_s,
                per,
                sensor,
                focal,
            )
        elif axis.name in ("roll", "zoom"):
            edge = _edge_smear(axis, frame, step / own * exposure, camera.focal_mm)
            turned.append((axis.name, edge))
            rule = SMEAR_ROLL if axis.name == "roll" else SMEAR_ZOOM
            half = term("half", "from the centre to the corner", math.hypot(frame.width_px, frame.height_px) / 2, "px")
            terms = (speed, open_s, half, *(() if axis.name == "roll" else (focal,)))
            yield figure(f"beat.smear.{axis.name}", f"smear by the {axis.name}, corner", edge, "px", rule, *terms)
        elif axis.name == "slide" and nearest is not None:
            away = term("distance", "nearest mark, away from the rail", nearest, "mm")
            args = (step / own, exposure, camera.focal_mm, frame.width_px, frame.width_mm, nearest)
            slide = lens.slide_smear_px(*args)
            yield figure(
                "beat.smear.slide",
                "smear by the slide",
                slide,
                "px",
                lens.SMEAR_SLIDE,
                speed,
                open_s,
                focal,
                width,
                sensor,
                away,
            )
    parts = [*turned, ("slide", slide)] if slide or not turned else turned
    sums = [
        term(name, f"by the {name}, {'at the nearest mark' if name == 'slide' else 'at the edge'}", px, "px")
        for name, px in parts
    ]
    rule = Formula(" + ".join(name for name, _px in parts), SMEAR)
    yield figure("beat.smear", "smear while exposing", sum(px for _name, px in parts), "px", rule, *sums)


def _edge_smear(axis: Axis, frame: Kept, way: float, focal: float) -> float:
    """Smear in the corner of the picture by a roll (way in degrees) or a zoom (way in mm of focal length)."""
    half = math.hypot(frame.width_px, frame.height_px) / 2
    return half * (math.radians(way) if axis.name == "roll" else way / focal)


def _visible(plan: Plan, smear: float) -> list[Snag]:
    if not plan.beat.continuous or smear <= VISIBLE_PX:
        return []
    stop = Fix(
        label="Shoot, move, shoot",
        consequence="Nothing moves while the shutter is open; each frame needs the time to settle.",
        slots={},
        edits=(Edit(path="beat.school", value="shoot-move-shoot"),),
    )
    return [SMEARS.at("beat.school", {"smear": slot(smear, "px")}, [stop, *_expose_shorter(plan, smear)])]


def _expose_shorter(plan: Plan, smear: float) -> list[Fix]:
    exposure = float(plan.beat.exposure_s)
    label = shutter.at_most(exposure * VISIBLE_PX / smear)
    if label is None:
        return []
    stops = shutter.stops_between(exposure, float(label))
    return [
        Fix(
            label="Expose {shorter}",
            consequence="{darker} darker, and soft at most: open the aperture or raise ISO by as much.",
            slots={"shorter": slot(label, "shutter"), "darker": slot(round(stops, 1), "stops")},
            edits=(Edit(path="beat.exposure_s", value=str(label)),),
        )
    ]
