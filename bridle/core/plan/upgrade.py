"""Older plans made into today's: one pure function a version, on plain JSON values."""

from collections.abc import Callable
from typing import Any

from bridle.core.plan.document import Plan

Data = dict[str, Any]


def _from_1(data: Data) -> Data:
    """Version 2 has a clock that holds the start or the finish."""
    if not isinstance(data.get("shoot"), dict):
        return {**data, "bridle_plan": 2}
    shoot = dict(data["shoot"])
    clock = {"at": shoot.pop("start")} if "start" in shoot else {}
    return {**data, "bridle_plan": 2, "shoot": {**shoot, "clock": clock}}


def _from_2(data: Data) -> Data:
    """Version 3 has a row of keyframes instead of a start and an end."""
    if not isinstance(data.get("move"), dict):
        return {**data, "bridle_plan": 3}
    move = dict(data["move"])
    ends = [move.pop(end, {}) for end in ("start", "end")]
    return {**data, "bridle_plan": 3, "move": {**move, "keyframes": ends}}


UPGRADES: dict[int, Callable[[Data], Data]] = {1: _from_1, 2: _from_2}


def upgraded(data: Data) -> Data:
    """Plain data of any older version as that of today's; newer or unknown versions stay as they are."""
    while data.get("bridle_plan") in UPGRADES:
        data = UPGRADES[data["bridle_plan"]](data)
    return data


def plan_from(data: Data) -> Plan:
    """The plan of kept data, whatever version it was written in. Raises pydantic's ValidationError."""
    return Plan.model_validate(upgraded(data))
