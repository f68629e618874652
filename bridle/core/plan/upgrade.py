"""Older plans made into today's: one pure function a version, on plain JSON values."""

from collections.abc import Callable
from typing import Any

from bridle.core.plan.document import Plan

Data = dict[str, Any]


class UpgradeError(ValueError):
    """An older plan that has a field which its version did not know: making it newer would throw something away."""

    def __init__(self, version: int, *path: str) -> None:
        """Keep the version and the place."""
        super().__init__(f"version {version} of the plan knows no field “{'.'.join(path)}”")
        self.version = version
        self.path = path


def _from_1(data: Data) -> Data:
    """Version 2 has a clock that holds the start or the finish."""
    if not isinstance(data.get("shoot"), dict):
        return {**data, "bridle_plan": 2}
    shoot = dict(data["shoot"])
    if "clock" in shoot:
        raise UpgradeError(1, "shoot", "clock")
    clock = {"at": shoot.pop("start")} if "start" in shoot else {}
    return {**data, "bridle_plan": 2, "shoot": {**shoot, "clock": clock}}


def _from_2(data: Data) -> Data:
    """Version 3 has a row of keyframes instead of a start and an end."""
    if not isinstance(data.get("move"), dict):
        return {**data, "bridle_plan": 3}
    move = dict(data["move"])
    if "keyframes" in move:
        raise UpgradeError(2, "move", "keyframes")
    ends = [move.pop(end, {}) for end in ("start", "end")]
    return {**data, "bridle_plan": 3, "move": {**move, "keyframes": ends}}


def _from_3(data: Data) -> Data:
    """Version 4 has the frames' source beside the clip: an interval that changes is one of several."""
    if "frames" in data:
        raise UpgradeError(3, "frames")
    if not isinstance(data.get("clip"), dict):
        return {**data, "bridle_plan": 4}
    clip = dict(data["clip"])
    ramp = clip.pop("ramp", {})
    if not isinstance(ramp, dict):
        return {**data, "bridle_plan": 4, "clip": clip, "frames": ramp}
    for name in ramp.keys() - {"segments", "blend_frames"}:
        raise UpgradeError(3, "clip", "ramp", name)
    # Without segments nothing was blended: an empty ramp was an even interval.
    source = {"source": "changing", **ramp} if ramp.get("segments") else {"source": "even"}
    return {**data, "bridle_plan": 4, "clip": clip, "frames": source}


UPGRADES: dict[int, Callable[[Data], Data]] = {1: _from_1, 2: _from_2, 3: _from_3}


def upgraded(data: Data) -> Data:
    """Plain data of any older version as that of today's; newer or unknown versions stay as they are."""
    while isinstance(data, dict) and isinstance(version := data.get("bridle_plan"), int) and version in UPGRADES:
        data = UPGRADES[version](data)
    return data


def plan_from(data: Data) -> Plan:
    """The plan of kept data, whatever version it was written in. Raises `UpgradeError` or a ValidationError."""
    return Plan.model_validate(upgraded(data))
