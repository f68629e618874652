"""Keyframes pointed at a mark."""

import numpy as np

from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, PathError
from bridle.core.reckon.path import key_path
from bridle.core.reckon.poses import pan_at, poses, tilt_at


def aimed_edits(plan: Plan, index: int, keys: tuple[int, ...]) -> list[Edit]:
    """The edits that point keyframes at a mark, as far as pan and tilt reach."""
    edits = []
    mark = plan.move.marks[index]
    slides = plan.rig.axis("slide") is not None
    stands = np.array([plan.move.keyframes[number].slide_mm if slides else 0.0 for number in keys])
    at = poses(plan, {"slide": stands}, len(keys))
    for name, angles in (("pan", pan_at(plan, at, mark)), ("tilt", tilt_at(plan, at, mark))):
        axis = next((axis for axis in plan.rig.axes if axis.name == name), None)
        if axis is None:
            continue
        for number, angle in zip(keys, angles, strict=True):
            inside = round(float(np.clip(angle, axis.low, axis.high)), 2)
            edits.append(Edit(path=key_path(plan, number, axis.name), value=inside))
    return edits


def aim(plan: Plan, mark: int, keyframe: int | None) -> list[Edit]:
    """The edits that point a keyframe, or all of them, at a mark. Raises `PathError` where there is none such."""
    keys = range(len(plan.move.keyframes)) if keyframe is None else [keyframe]
    if mark >= len(plan.move.marks) or keys[-1] >= len(plan.move.keyframes):
        raise PathError("there is no such mark or keyframe")
    return aimed_edits(plan, mark, tuple(keys))
