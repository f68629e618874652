"""A fixed lens screwed out of its mount, by turns of its thread or by how far off the subject stands."""

from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, PathError

# Places that no plan has, and how what is typed there is read: both stand for `camera.extension_mm`.
TURNS, SUBJECT = "camera.turns", "camera.subject_mm"
KINDS = {TURNS: "number", SUBJECT: "length"}
PATH, DIGITS_MM = "camera.extension_mm", 4


def screwed(plan: Plan, path: str, value: float) -> list[Edit]:
    """The edit that screws the lens out by so many turns, or until it is sharp at a distance in front of it.

    The distance is `f·(1 + f/e)`, so `e = f²/(distance − f)`. Raises `PathError` for what no lens does.
    """
    camera = plan.camera
    if path == TURNS:
        if value <= 0:
            raise PathError("a lens is screwed out by more than no turn")
        return _out(value * camera.thread_mm)
    if value <= camera.focal_mm:
        raise PathError(f"nothing nearer than the focal length of {camera.focal_mm:g} mm can be made sharp")
    return _out(camera.focal_mm**2 / (value - camera.focal_mm))


def _out(millimetres: float) -> list[Edit]:
    return [Edit(path=PATH, value=round(millimetres, DIGITS_MM) or millimetres)]
