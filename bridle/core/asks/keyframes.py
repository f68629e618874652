"""Keyframes added where the rig is."""

import numpy as np

from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.move import Keyframe, OnFrame
from bridle.core.plan.rig import AxisName
from bridle.core.reckon.path import FIELDS
from bridle.core.reckon.reckoning import Shooting, shooting_of

# Positions are kept to this many digits.
DIGITS: dict[AxisName, int] = {"slide": 1, "pan": 2, "tilt": 2, "roll": 2, "focus": 0, "zoom": 1}


def add(plan: Plan, frame: int, stands: dict[AxisName, float]) -> list[Edit]:
    """A keyframe more on a frame (0-based), in the order of time; one that is there takes the new positions."""
    shooting = shooting_of(plan)
    keys = list(plan.move.keyframes)
    if shooting is None:
        keys.insert(len(keys) - 1, keys[0].model_copy(update=_fields(stands)))
        return _kept(keys)
    timing = shooting.schedule
    frame = min(max(frame, timing.legs[0].first), timing.legs[0].last)
    frames = [timing.frame(number) for number in range(len(keys))]
    if frame in frames:
        number = frames.index(frame)
        keys[number] = keys[number].model_copy(update=_fields(stands))
        return _kept(keys)
    here = _standing(shooting, frame) | stands
    number = int(np.searchsorted(frames, frame))
    fresh = Keyframe(when=OnFrame(frame=frame + 1)).model_copy(update=_fields(here))
    fixed = [_pinned(plan, key, at + 1, n) for n, (key, at) in enumerate(zip(keys, frames, strict=True))]
    return _kept([*fixed[:number], fresh, *fixed[number:]])


def _pinned(plan: Plan, key: Keyframe, frame: int, number: int) -> Keyframe:
    """One that stood evenly between its neighbours stays on its frame when another one comes in."""
    inner = 0 < number < len(plan.move.keyframes) - 1
    return key.model_copy(update={"when": OnFrame(frame=frame)}) if inner and key.when is None else key


def _standing(shooting: Shooting, frame: int) -> dict[AxisName, float]:
    plan, places = shooting.plan, shooting.positions
    first = plan.move.start
    still: dict[AxisName, float] = {"slide": first.slide_mm, "pan": first.pan_deg, "tilt": first.tilt_deg}
    still["roll"] = first.roll_deg
    return still | {axis.name: float(places[axis.name][frame]) for axis in plan.rig.axes}


def _fields(stands: dict[AxisName, float]) -> dict[str, float]:
    return {FIELDS[name]: round(value, DIGITS[name]) for name, value in stands.items()}


def _kept(keys: list[Keyframe]) -> list[Edit]:
    return [Edit(path="move.keyframes", value=[key.model_dump(mode="json") for key in keys])]
