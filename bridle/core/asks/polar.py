"""Marks by how far they are and in which direction, for a camera that stands on one spot."""

import math
import re
from typing import Literal

from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, PathError
from bridle.core.plan.marks import Mark

# Places that no plan has: each stands for two that it has.
PATH = re.compile(r"move\.marks\.(\d+)\.(distance_mm|turn_deg|compass_deg)")
Field = Literal["distance_mm", "turn_deg", "compass_deg"]
FIELDS: dict[str, Field] = {"distance_mm": "distance_mm", "turn_deg": "turn_deg", "compass_deg": "compass_deg"}
DIGITS_MM = 1


def place(plan: Plan, path: str) -> tuple[int, Field] | None:
    """Which mark and which figure of it a path names; None for another path. Raises `PathError` without such a mark."""
    found = PATH.fullmatch(path)
    if found is None:
        return None
    index = int(found[1])
    if index >= len(plan.move.marks):
        raise PathError("there is no such mark")
    return index, FIELDS[found[2]]


def distance_mm(mark: Mark) -> float:
    """How far off it stands, on the level."""
    return math.hypot(mark.x_mm, mark.y_mm)


def turn_deg(mark: Mark) -> float:
    """How far to the right of straight ahead it stands; 0 where it stands on the spot itself."""
    return math.degrees(math.atan2(mark.x_mm, mark.y_mm))


def moved(plan: Plan, index: int, field: Field, value: float) -> list[Edit]:
    """The edits that put a mark as far away, or in such a direction of the turn or of the compass.

    Raises `PathError` where it would be nowhere, or nobody knows where.
    """
    mark = plan.move.marks[index]
    far, turn = (value, turn_deg(mark)) if field == "distance_mm" else (distance_mm(mark), value)
    if field == "compass_deg":
        ahead = plan.rig.normal_bearing_deg
        if ahead is None:
            raise PathError("nobody has said yet in which direction the camera looks straight ahead")
        turn = value - ahead
    if far <= 0:
        raise PathError("a mark stands some way off: its distance is above nought")
    x, y = far * math.sin(math.radians(turn)), far * math.cos(math.radians(turn))
    return [
        Edit(path=f"move.marks.{index}.{name}", value=round(side, DIGITS_MM) + 0.0)
        for name, side in (("x_mm", x), ("y_mm", y))
    ]
