"""The rig in its own picture."""

import math
from collections.abc import Iterator
from typing import TypeAlias

import numpy as np
from numpy.typing import NDArray

from bridle.core.chapters.move.search import some_frames, tilted_by
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.kit import Support
from bridle.core.plan.rounds import Stations
from bridle.core.reckon.path import key_path
from bridle.core.reckon.picture import kept
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.sights import in_picture, runs_of
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.optics import projecting
from bridle.core.subjects.optics.projecting import Poses

RIG = SnagKind(
    "rig-in-picture",
    "mind",
    "move",
    "The rig itself comes into the picture from frame {first} to frame {last}: {part}.",
    "Turned far aside, or tilted far down, a wide lens sees what carries it.",
)
# How far the rail lies below the lens.
BELOW_MM = 120.0
KINDS = (RIG,)
Point: TypeAlias = tuple[str, float, float, float]


def rig_points(plan: Plan) -> list[Point]:
    """Points of the rig that may get into the picture: what they are, and where, from the lens at the rail's zero."""
    points: list[Point] = []
    slide, height = plan.rig.axis("slide"), plan.rig.standing.lens_height_mm
    if slide is not None:
        points += [
            ("the end of the rail", slide.low - 60, 0.0, -BELOW_MM),
            ("the end of the rail", slide.high + 60, 0.0, -BELOW_MM),
        ]
    base = next((copy.card for copy in plan.kit.copies if isinstance(copy.card, Support)), None)
    if base is not None and base.form == "tripod" and base.feet_radius_mm > 0:
        middle = (slide.low + (slide.high - slide.low) * plan.rig.standing.rail_at) if slide else 0.0
        radius = base.feet_radius_mm
        for turn in range(0, 360, 30):
            x, y = middle + radius * np.sin(np.radians(turn)), radius * np.cos(np.radians(turn))
            points.append(("a foot of the tripod", float(x), float(y), -height))
    return points


def findings(shooting: Shooting) -> Iterator[Snag]:
    """The rail or the tripod in the picture; one snag for the first of them."""
    plan, at = shooting.plan, shooting.poses
    if isinstance(plan.move.visits, Stations):
        return
    points = rig_points(plan)
    found = in_view(plan, at, points)
    for part in ("the end of the rail", "a foot of the tripod"):
        of_part = np.asarray(found[[name == part for name, *_ in points]].any(axis=0))
        if of_part.any():
            runs = runs_of(of_part)
            first, last = runs[0]
            slots = {"first": slot(str(first + 1)), "last": slot(str(last + 1)), "part": slot(part)}
            yield RIG.at("move.keyframes", slots, _look_up(shooting, runs))
            return


def in_view(plan: Plan, at: Poses, points: list[Point]) -> NDArray[np.bool_]:
    """At which frames each point is in the picture, shape (points, frames)."""
    found = np.zeros((len(points), len(at)), dtype=bool)
    x, y, z = (np.array([point[column] for point in points]) for column in (1, 2, 3))
    some = np.flatnonzero(_within_reach(plan, at, x, y, z))
    if len(some):
        column = (some, np.newaxis)
        found[some] = in_picture(plan, at, projecting.see(at, x[column], y[column], z[column]))
    return found


def _within_reach(plan: Plan, at: Poses, x: Floats, y: Floats, z: Floats) -> NDArray[np.bool_]:
    """Which points the picture may reach at all, shape (points,): of a tripod's feet mostly none.

    What lies further below the lens's axis than half the picture's diagonal is in no frame, wherever the camera turns.
    """
    frame = kept(plan)
    lowest = np.radians(at.views[1].min()) - np.arctan(np.hypot(frame.width_mm, frame.height_mm) / 2 / at.focal.min())
    away = np.hypot(np.maximum(np.abs(x - at.x.min()), np.abs(x - at.x.max())), y)
    below = z - at.z.min()
    return np.asarray((below >= 0) | (np.arctan2(below, away) >= lowest))


def _look_up(shooting: Shooting, needed: tuple[tuple[int, int], ...]) -> list[Fix]:
    """The camera tilted up until the rig is out of the picture."""
    plan, at, points = shooting.plan, shooting.poses, rig_points(shooting.plan)
    tilt = plan.rig.axis("tilt")
    if plan.move.follow is not None and plan.move.follow.every_frame and tilt is not None:
        return []
    few = at.some(some_frames(len(at), needed))
    highest = max(key.tilt_deg for key in plan.move.keyframes)
    for up in range(1, min(60, math.floor(min(90.0, tilt.high if tilt else 90.0) - highest)) + 1):
        if in_view(plan, tilted_by(few, up), points).any() or not _clear(shooting, up):
            continue
        edits = tuple(
            Edit(path=key_path(plan, n, "tilt"), value=key.tilt_deg + up) for n, key in enumerate(plan.move.keyframes)
        )
        consequence = "The whole picture looks higher; the horizon sinks in it."
        return [Fix(label="Tilt up by {up}", consequence=consequence, slots={"up": slot(up, "deg")}, edits=edits)]
    return []


def _clear(shooting: Shooting, up: int) -> bool:
    """Whether the rig is out of every picture then, and what is followed still in it.

    A head that follows turns otherwise when it looks up.
    """
    move = shooting.plan.move
    keys = tuple(key.model_copy(update={"tilt_deg": key.tilt_deg + up}) for key in move.keyframes)
    tried = shooting.tried(move=move.model_copy(update={"keyframes": keys}))
    before, after = shooting.tracked, tried.tracked
    if before is not None and before.leaves is None and after is not None and after.leaves is not None:
        return False
    return not in_view(tried.plan, tried.poses, rig_points(tried.plan)).any()
