"""Keyframes pointed at a mark."""

import numpy as np

from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, PathError
from bridle.core.plan.marks import Mark
from bridle.core.reckon.path import key_path
from bridle.core.reckon.poses import pan_at, poses, tilt_at
from bridle.core.reckon.reckoning import shooting_of
from bridle.core.subjects.optics.projecting import NOTHING_FAR, Far


def aimed_edits(plan: Plan, index: int, keys: tuple[int, ...]) -> list[Edit]:
    """The edits that point keyframes at a mark, as far as pan and tilt reach."""
    edits = []
    mark = plan.move.marks[index]
    slides = plan.rig.axis("slide") is not None
    stands = np.array([plan.move.keyframes[number].slide_mm if slides else 0.0 for number in keys])
    at = poses(plan, {"slide": stands}, len(keys), _skies(plan, mark, keys))
    for name, angles in (("pan", pan_at(plan, at, mark)), ("tilt", tilt_at(plan, at, mark))):
        axis = next((axis for axis in plan.rig.axes if axis.name == name), None)
        if axis is None:
            continue
        for number, angle in zip(keys, angles, strict=True):
            inside = round(float(np.clip(angle, axis.low, axis.high)), 2)
            edits.append(Edit(path=key_path(plan, number, axis.name), value=inside))
    return edits


def _skies(plan: Plan, mark: Mark, keys: tuple[int, ...]) -> Far:
    """Where a body of the sky stands at the frames of the keyframes."""
    shooting = shooting_of(plan) if mark.in_the_sky else None
    if shooting is None:
        return NOTHING_FAR
    frames = [shooting.schedule.frame(number) for number in keys]
    return {body: (turn[frames], up[frames]) for body, (turn, up) in shooting.skies.items()}


def aim(plan: Plan, mark: int, keyframe: int | None) -> list[Edit]:
    """The edits that point a keyframe, or all of them, at a mark. Raises `PathError` where there is none such."""
    keys = range(len(plan.move.keyframes)) if keyframe is None else [keyframe]
    if mark >= len(plan.move.marks) or keys[-1] >= len(plan.move.keyframes):
        raise PathError("there is no such mark or keyframe")
    return aimed_edits(plan, mark, tuple(keys))
