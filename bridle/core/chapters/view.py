"""What the camera sees over the move: the chapters on tracking, shifts, sight, sun and crops put together."""

from collections.abc import Iterable
from dataclasses import dataclass, field

import numpy as np

from bridle.core.chapters import aiming, crops, inview, rounds, shifts, sunlight, tracks
from bridle.core.chapters.clip import ClipAnswer
from bridle.core.chapters.inview import Sight
from bridle.core.chapters.path import PathAnswer
from bridle.core.chapters.picture import kept
from bridle.core.chapters.sighting import poses
from bridle.core.chapters.sunlight import Sun
from bridle.core.chapters.timeline import TimelineAnswer
from bridle.core.figure import Figure, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.rounds import Stations
from bridle.core.snag import Snag
from bridle.core.subjects import optics
from bridle.core.subjects.easing import Floats
from bridle.core.subjects.projecting import Poses

KINDS = (
    *tracks.KINDS,
    *shifts.KINDS,
    *aiming.KINDS,
    *inview.KINDS,
    *sunlight.KINDS,
    *crops.KINDS,
    *rounds.KINDS,
)


@dataclass(frozen=True)
class ViewAnswer:
    """The camera's poses, the shift in px after each frame, each mark's time in the picture, and the sun."""

    poses: Poses | None = None
    shift_px: Floats = field(default_factory=lambda: np.zeros(0))
    sights: tuple[Sight, ...] = ()
    sun: Sun | None = None
    figures: list[Figure] = field(default_factory=list)
    snags: list[Snag] = field(default_factory=list)


# What is not asked again while something is dragged: who is seen when, and what the sun does.
ASIDE = (*inview.KINDS, *sunlight.KINDS)


def answer(
    plan: Plan, clip: ClipAnswer, times: TimelineAnswer | None, path: PathAnswer, aside: bool = True
) -> ViewAnswer:
    """What is seen. While the clip is open: fields of view, what is kept, and marks aimed at twice."""
    told: list[Figure | Snag] = [*_views(plan), *crops.answer(plan), *aiming.answer(plan)]
    solution = clip.solution
    if solution is None or times is None:
        return _sorted(told)
    places, frames = path.positions, solution.frames
    at = poses(plan, places, frames)
    shift = shifts.shift(plan, at)
    sun = sunlight.sun(plan, times)
    told += rounds.answer(plan, places, solution)
    seen: tuple[Sight, ...] = ()
    if aside:
        seen = inview.sights(plan, at, times)
        told += sunlight.answer(plan, at, times, sun)
    if not isinstance(plan.move.visits, Stations):
        told += [*tracks.answer(plan, places, solution), *shifts.answer(plan, places, solution, shift)]
        told += inview.answer(plan, at, solution, seen)
    return _sorted(told, at, np.append(shift.px, 0.0), seen, sun)


def _sorted(
    told: Iterable[Figure | Snag],
    at: Poses | None = None,
    px: Floats | None = None,
    seen: tuple[Sight, ...] = (),
    sun: Sun | None = None,
) -> ViewAnswer:
    figures = [one for one in told if isinstance(one, Figure)]
    snags = [one for one in told if isinstance(one, Snag)]
    return ViewAnswer(at, np.zeros(0) if px is None else px, seen, sun, figures, snags)


def _views(plan: Plan) -> list[Figure]:
    frame, focal_mm = kept(plan), plan.camera.focal_mm
    focal = term("focal", "focal length", focal_mm, "focal")
    sides = (("across", frame.width_mm), ("upright", frame.height_mm))
    return [
        figure(
            f"view.{side}",
            f"field of view, {side}",
            optics.field_of_view_deg(mm, focal_mm),
            "deg",
            optics.FIELD_OF_VIEW,
            term("sensor", f"sensor that is kept, {side}", mm, "focal"),
            focal,
        )
        for side, mm in sides
    ]
