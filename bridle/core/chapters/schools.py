"""Shoot-move-shoot and continuous side by side: what each needs, what each blurs."""

from collections.abc import Iterator
from dataclasses import dataclass, field

import numpy as np

from bridle.core.chapters import path
from bridle.core.chapters.beat_measure import Cycle, figures, measure, slots_of, steps_of
from bridle.core.chapters.clip import ClipAnswer
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.beat import BeatSchool
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects import optics, shutter
from bridle.core.subjects.clip import Solution

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
SMEAR = Formula("pan + slide", "both at their worst; on a subject that is kept centred they take from one another")
ON_SITE = Formula("frames * shortest", "as many frames at the shortest interval that fits")

SUITS = {
    "shoot-move-shoot": "Right for long exposures, night, close-ups and heavy lenses: nothing moves while the "
    "shutter is open. Each frame waits for the rig to stand still.",
    "continuous": "Right for short exposures and simple drives that cannot stop: no settling, a shorter interval, "
    "and a little smear along the move in every frame.",
}


@dataclass(frozen=True)
class School:
    """One school as it would come out; `smear_px` is 0 where nothing moves while the shutter is open."""

    school: BeatSchool
    here: bool
    suits: str
    smear_px: float
    risk: str


@dataclass(frozen=True)
class SchoolsAnswer:
    """Both schools, in their order."""

    schools: tuple[School, ...] = ()
    figures: list[Figure] = field(default_factory=list)
    snags: list[Snag] = field(default_factory=list)


def answer(plan: Plan, clip: ClipAnswer) -> SchoolsAnswer:
    """The comparison; nothing while the clip is open."""
    if clip.solution is None:
        return SchoolsAnswer()
    smears = list(_smear(plan, clip.solution, clip))
    smear = smears[-1].value
    schools, made = [], [*smears]
    for name in SCHOOLS:
        one = measure(plan, clip.solution, clip.pace, name)
        prefix = f"school.{name}"
        kept = (f"{prefix}.shortest", f"{prefix}.need")
        made += [one for one in figures(one, plan.camera, prefix) if one.key in kept]
        made.append(_on_site(one, clip.solution, prefix))
        px = smear if name == "continuous" else 0.0
        schools.append(School(name, name == plan.beat.school, SUITS[name], px, _risk(name, px, one)))
    return SchoolsAnswer(tuple(schools), made, _visible(plan, smear))


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


def _smear(plan: Plan, solution: Solution, clip: ClipAnswer) -> Iterator[Figure]:
    """Smear of pan and slide at the fastest moment of the move, and both together, last."""
    steps, slots = steps_of(path.positions(plan, solution)), slots_of(solution, clip.pace)
    camera, beat = plan.camera, plan.beat
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
        term("sensor", "sensor, across", camera.sensor_width_mm, "focal"),
    )
    width = term("width", "picture, across", camera.picture_width_px, "px")
    scale = optics.px_per_deg(camera.focal_mm, camera.sensor_width_mm, camera.picture_width_px)
    yield figure("view.px_per_deg", "pixels per degree", scale, "px/°", optics.PX_PER_DEG, focal, width, sensor)
    pan = slide = 0.0
    for axis in plan.rig.axes:
        worst = int(np.argmax(steps[axis.name] / slots))
        step, own = float(steps[axis.name][worst]), float(slots[worst])
        pace = term("step", "longest step", step, axis.unit), term("slot", "its slot", own, "s")
        yield figure(
            f"beat.speed.{axis.name}", f"{axis.name} at its fastest", step / own, f"{axis.unit}/s", FASTEST, *pace
        )
        speed = term("speed", f"{axis.name} at its fastest", step / own, f"{axis.unit}/s")
        if axis.name == "pan":
            centre, pan = optics.smear_px(step / own, exposure, scale, camera.sensor_width_mm, camera.focal_mm)
            per = term("scale", "pixels per degree", scale, "px/°")
            yield figure(
                "beat.smear.centre", "smear by the pan, centre", centre, "px", optics.SMEAR_PAN, speed, open_s, per
            )
            yield figure(
                "beat.smear.edge",
                "smear by the pan, edge",
                pan,
                "px",
                optics.SMEAR_PAN_EDGE,
                speed,
                open_s,
                per,
                sensor,
                focal,
            )
        elif plan.move.marks:
            nearest = min(mark.y_mm for mark in plan.move.marks)
            away = term("distance", "nearest mark, away from the rail", nearest, "mm")
            args = (step / own, exposure, camera.focal_mm, camera.picture_width_px, camera.sensor_width_mm, nearest)
            slide = optics.slide_smear_px(*args)
            yield figure(
                "beat.smear.slide",
                "smear by the slide",
                slide,
                "px",
                optics.SMEAR_SLIDE,
                speed,
                open_s,
                focal,
                width,
                sensor,
                away,
            )
    terms = (
        term("pan", "by the pan, at the edge", pan, "px"),
        term("slide", "by the slide, at the nearest mark", slide, "px"),
    )
    yield figure("beat.smear", "smear while exposing", pan + slide, "px", SMEAR, *terms)


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
