"""Where the camera stands and points at every frame, and where a mark is seen from there."""

import math
from dataclasses import replace

import numpy as np

from bridle.core.plan.document import Plan
from bridle.core.plan.marks import Mark
from bridle.core.plan.move import Across
from bridle.core.reckon.picture import kept
from bridle.core.subjects.motion import tracking
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.optics import projecting
from bridle.core.subjects.optics.projecting import NEAREST_MM, NOTHING_FAR, Far, Lean, Poses, Seen

# Where a mark is wanted, as a share of the picture's width to the right of its middle.
WANTED: dict[Across, float] = {"left third": -1 / 6, "centre": 0.0, "right third": 1 / 6}


def normal_deg(plan: Plan) -> float:
    """The bearing square to the rail; north where it is not known."""
    return plan.rig.normal_bearing_deg or 0.0


def poses(plan: Plan, places: dict[str, Floats], frames: int, far: Far = NOTHING_FAR) -> Poses:
    """The camera at every frame. What no axis moves stands as the first keyframe has it; a slope lifts the carriage.

    `far` is where the bodies of the sky stand meanwhile.

    Without a rail the camera stands at nought, wherever a carriage may once have stood.
    """
    first = plan.move.start
    still = {"pan": first.pan_deg, "tilt": first.tilt_deg, "roll": first.roll_deg, "zoom": plan.camera.focal_mm}
    still["slide"] = first.slide_mm if plan.rig.axis("slide") else 0.0
    each = {name: places[name] if name in places else np.full(frames, value) for name, value in still.items()}
    slope = math.radians(plan.rig.standing.slope_deg)
    return Poses(
        leaned=leaned(plan),
        x=each["slide"] * math.cos(slope),
        z=each["slide"] * math.sin(slope),
        pan=each["pan"],
        tilt=each["tilt"],
        roll=each["roll"],
        focal=each["zoom"],
        far=far,
    )


def leaned(plan: Plan) -> Lean | None:
    """How the axis of the pan leans; None where it stands upright, or there is no such axis."""
    pan = plan.rig.axis("pan")
    return Lean(pan.lean_deg, pan.lean_toward_deg) if pan is not None and pan.lean_deg else None


def see_mark(plan: Plan, at: Poses, mark: Mark) -> Seen:
    """A mark as the camera sees it at every frame; a bearing is very far away."""
    if mark.form == "bearing":
        turn, up = _heading(at, mark)
        return projecting.see_far(at, turn - normal_deg(plan), up)
    return projecting.see(at, mark.x_mm, mark.y_mm, mark.z_mm)


def _heading(at: Poses, mark: Mark) -> tuple[Floats | float, Floats | float]:
    """Bearing and altitude of a direction: a body's own, frame by frame, else as it is typed."""
    body = mark.in_the_sky
    return (mark.bearing_deg, mark.altitude_deg) if body is None or body not in at.far else at.far[body]


def placed(plan: Plan) -> list[Mark]:
    """The marks that stand somewhere before the rail, by more than a hair."""
    return [mark for mark in plan.move.marks if mark.form != "bearing" and mark.y_mm >= NEAREST_MM]


def nearest_mm(plan: Plan) -> float | None:
    """How far the nearest of them stands away from the rail; None where there is none."""
    return min((mark.y_mm for mark in placed(plan)), default=None)


def towards(plan: Plan, at: Poses, mark: Mark) -> tuple[Floats, Floats, Floats]:
    """Which way a mark lies from the camera at every frame, as the head has it: right, away and up along its own level.

    Those of a bearing are shares of one, those of a place are in mm.
    """
    if mark.form == "bearing":
        bearing, altitude = _heading(at, mark)
        turn, up = np.radians(np.asarray(bearing - normal_deg(plan))), np.radians(np.asarray(altitude))
        ways = np.sin(turn) * np.cos(up), np.cos(turn) * np.cos(up), np.sin(up)
    else:
        ways = mark.x_mm - at.x, mark.y_mm, mark.z_mm - at.z
    right, away, up = ways if at.leaned is None else at.leaned.into_head(*ways)
    each = np.ones(len(at))
    return right * each, away * each, up * each


def pan_at(plan: Plan, at: Poses, mark: Mark) -> Floats:
    """The pan that points at a mark at every frame, not wrapped where it passes behind the rail."""
    right, away, _ = towards(plan, at, mark)
    return np.degrees(np.unwrap(np.radians(tracking.aim(right, away))))


def tilt_at(plan: Plan, at: Poses, mark: Mark) -> Floats:
    """The tilt that points at a mark at every frame."""
    return tracking.aim_up(*towards(plan, at, mark))


def following(plan: Plan, places: dict[str, Floats], far: Far = NOTHING_FAR) -> dict[str, Floats]:
    """Pan, and tilt where there is such an axis, that keep the followed mark in its place at every frame."""
    follow = plan.move.follow
    if follow is None or not places:
        return {}
    mark = plan.move.marks[follow.mark]
    at = poses(plan, places, len(next(iter(places.values()))), far)
    made: dict[str, Floats] = {}
    if "tilt" in places:
        made["tilt"] = tilt_at(plan, at, mark)
    if "pan" in places:
        tilted = replace(at, tilt=made.get("tilt", at.tilt))
        made["pan"] = pan_at(plan, at, mark) + _beside(plan, tilted, mark)
    return made


def _beside(plan: Plan, at: Poses, mark: Mark) -> Floats:
    """The pan beside the mark that puts it where it is wanted, at every frame: exact at any tilt."""
    assert plan.move.follow is not None
    wanted = WANTED[plan.move.follow.across] * kept(plan).width_mm / at.focal
    up = np.radians(tilt_at(plan, at, mark))
    return np.degrees(tracking.beside(wanted, up, np.radians(at.tilt)))
