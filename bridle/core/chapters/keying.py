"""Keyframes as the page asks for them: aimed at a mark, added where the rig is."""

import numpy as np

from bridle.core.chapters.clip import solved
from bridle.core.chapters.inview import aimed_edits
from bridle.core.chapters.path import FIELDS, positions
from bridle.core.chapters.schedule import schedule
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, PathError
from bridle.core.plan.move import Keyframe, OnFrame
from bridle.core.plan.rig import AxisName
from bridle.core.subjects.clip import Solution

# Positions are kept to this many digits.
DIGITS: dict[AxisName, int] = {"slide": 1, "pan": 2, "tilt": 2, "roll": 2, "focus": 0, "zoom": 1}


def aim(plan: Plan, mark: int, keyframe: int | None) -> list[Edit]:
    """The edits that point a keyframe, or all of them, at a mark. Raises `PathError` where there is none such."""
    keys = range(len(plan.move.keyframes)) if keyframe is None else [keyframe]
    if mark >= len(plan.move.marks) or keys[-1] >= len(plan.move.keyframes):
        raise PathError("there is no such mark or keyframe")
    return aimed_edits(plan, mark, tuple(keys))


def add(plan: Plan, frame: int, stands: dict[AxisName, float]) -> list[Edit]:
    """A keyframe more on a frame (0-based), in the order of time; one that is there takes the new positions."""
    solution, _missing = solved(plan.clip)
    keys = list(plan.move.keyframes)
    if solution is None:
        keys.insert(len(keys) - 1, keys[0].model_copy(update=_fields(stands)))
        return _kept(keys)
    told = schedule(plan.move, plan.clip, solution)
    frame = min(max(frame, told.legs[0].first), told.legs[0].last)
    frames = [told.frame(number) for number in range(len(keys))]
    if frame in frames:
        number = frames.index(frame)
        keys[number] = keys[number].model_copy(update=_fields(stands))
        return _kept(keys)
    here = _standing(plan, solution, frame) | stands
    number = int(np.searchsorted(frames, frame))
    fresh = Keyframe(when=OnFrame(frame=frame + 1)).model_copy(update=_fields(here))
    fixed = [_pinned(plan, key, at + 1, n) for n, (key, at) in enumerate(zip(keys, frames, strict=True))]
    return _kept([*fixed[:number], fresh, *fixed[number:]])


def _pinned(plan: Plan, key: Keyframe, frame: int, number: int) -> Keyframe:
    """One that stood evenly between its neighbours stays on its frame when another one comes in."""
    inner = 0 < number < len(plan.move.keyframes) - 1
    return key.model_copy(update={"when": OnFrame(frame=frame)}) if inner and key.when is None else key


def _standing(plan: Plan, solution: Solution, frame: int) -> dict[AxisName, float]:
    places = positions(plan, solution)
    first = plan.move.start
    still: dict[AxisName, float] = {"slide": first.slide_mm, "pan": first.pan_deg, "tilt": first.tilt_deg}
    still["roll"] = first.roll_deg
    return still | {axis.name: float(places[axis.name][frame]) for axis in plan.rig.axes}


def _fields(stands: dict[AxisName, float]) -> dict[str, float]:
    return {FIELDS[name]: round(value, DIGITS[name]) for name, value in stands.items()}


def _kept(keys: list[Keyframe]) -> list[Edit]:
    return [Edit(path="move.keyframes", value=[key.model_dump(mode="json") for key in keys])]
