"""The move: where the axes go, what the camera sees on the way, and what comes of it."""

from collections.abc import Callable, Iterable, Iterator

from bridle.core.chapters.answer import Answer, answer
from bridle.core.chapters.move import (
    aiming,
    in_view,
    passing,
    path,
    picture,
    rig_in_view,
    rounds,
    skymarks,
    still,
    sun,
    tracking,
)
from bridle.core.chapters.move.drawn import drawn
from bridle.core.chapters.move.state import MoveState
from bridle.core.figure import Figure, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.rounds import Stations
from bridle.core.reckon.picture import focal_ends, kept
from bridle.core.reckon.reckoning import Reckoning, Shooting
from bridle.core.snag import Snag
from bridle.core.subjects.optics import lens

# What is not asked again while something is dragged: who is seen when, and what the sun and the rig do.
ASIDE = (*in_view.KINDS, *sun.KINDS, *rig_in_view.KINDS)
KINDS = (
    *path.KINDS,
    *tracking.KINDS,
    *passing.KINDS,
    *aiming.KINDS,
    *in_view.KINDS,
    *sun.KINDS,
    *rig_in_view.KINDS,
    *picture.KINDS,
    *rounds.KINDS,
    *still.KINDS,
    *skymarks.KINDS,
)


def tell(known: Reckoning, points: int, aside: bool) -> Answer[MoveState]:
    """The path and what is seen from it, drawn through about so many points; with what stands aside or without."""
    shooting = known.shooting
    state = MoveState() if shooting is None else shooting.ask(drawn, points, aside)
    found = [*known.every(path.path_snags), *(one for family in OF_PLAN for one in known.of_plan(family))]
    if shooting is not None:
        found += shooting.every(path.path_figures)
        found += [one for family in _families(shooting, aside) for one in shooting.every(family)]
    return answer(state, found)


def _families(shooting: Shooting, aside: bool) -> Iterator[Callable[[Shooting], Iterable[Figure | Snag]]]:
    yield from (still.findings, skymarks.findings, rounds.findings)
    if aside:
        yield from (sun.findings, rig_in_view.findings, in_view.findings)
    if not shooting.ask(_at_stations):
        yield from (tracking.findings, passing.findings)


def _at_stations(shooting: Shooting) -> bool:
    return isinstance(shooting.plan.move.visits, Stations)


def _fields_of_view(plan: Plan) -> Iterator[Figure]:
    """Across and upright; where the lens zooms, at its shortest and at its longest."""
    frame, (shortest, longest) = kept(plan), focal_ends(plan)
    ends = [("", shortest, " at its widest"), (".narrowest", longest, " at its narrowest")]
    if shortest == longest:
        ends = [("", longest, "")]
    for key, focal_mm, said in ends:
        focal = term("focal", f"focal length{said}", focal_mm, "focal")
        for side, mm in (("across", frame.width_mm), ("upright", frame.height_mm)):
            sensor = term("sensor", f"sensor that is kept, {side}", mm, "focal")
            view = lens.field_of_view_deg(mm, focal_mm)
            label = f"field of view, {side}{said}"
            yield figure(f"view.{side}{key}", label, view, "deg", lens.FIELD_OF_VIEW, sensor, focal)
    yield from _wide(plan, frame.width_mm, longest)


def _wide(plan: Plan, sensor_mm: float, focal_mm: float) -> Iterator[Figure]:
    """How much stands across the picture where the first keyframe is focused: a lens that is screwed out sees there."""
    sensor, focal = (
        term("sensor", "sensor that is kept, across", sensor_mm, "focal"),
        term("focal", "focal length", focal_mm, "focal"),
    )
    out, distance = plan.camera.extension_mm, plan.move.start.focus_mm
    label = "the picture is so wide where it is focused"
    if out is not None:
        beyond = term("out", "screwed out by", out, "focal")
        yield figure("view.wide", label, sensor_mm * focal_mm / out, "mm", lens.WIDE_SCREWED, sensor, focal, beyond)
    elif distance > focal_mm:
        at = term("distance", "focused at", distance, "mm")
        wide = lens.wide_mm(sensor_mm, focal_mm, distance)
        yield figure("view.wide", label, wide, "mm", lens.WIDE, sensor, at, focal)


# While the clip is open: fields of view, what is kept, and marks aimed at twice.
OF_PLAN = (_fields_of_view, picture.findings, aiming.findings)
