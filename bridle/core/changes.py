"""Changes as the page asks for them, turned into edits: typed text, stepped values, pegs."""

from fractions import Fraction
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, JsonValue

from bridle.core.chapters.clip import solved
from bridle.core.chapters.holding import PEGS_PATH, peg, release, take_over
from bridle.core.plan.clip import QUANTITIES, Quantity
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply, dump, look
from bridle.core.quantity import read

# How the text typed at a path is read. A path that is not here takes its text as it stands.
KINDS_BY_PATH = {
    "clip.shoot": "shoot",
    "clip.interval": "duration",
    "clip.frames": "count",
    "clip.rate": "rate",
    "clip.clip": "duration",
    "clip.speed_up": "times",
    "clip.interval_step_s": "duration",
    "beat.margin": "share",
    "camera.focal_mm": "length",
    "camera.sensor_width_mm": "length",
    "camera.sensor_height_mm": "length",
    "camera.picture_width_px": "count",
    "camera.picture_height_px": "count",
    "camera.aperture": "f-number",
    "camera.iso": "count",
    "move.ease_in_frames": "count",
    "move.ease_out_frames": "count",
}
_AXIS_KINDS = {
    "slide": {"low": "length", "high": "length", "top_speed": "mm/s", "acceleration": "number"},
    "pan": {"low": "angle", "high": "angle", "top_speed": "deg/s", "acceleration": "number"},
}
_ENDINGS = {"_s": "duration", "_mm": "length", "_deg": "angle"}


class Change(BaseModel):
    """Base of the changes: frozen, no unknown fields."""

    model_config = ConfigDict(frozen=True, extra="forbid")


class SetValue(Change):
    """Put a value at a path, as a drag or a switch does."""

    do: Literal["set"]
    path: str
    value: JsonValue


class TypeText(Change):
    """Put what was typed at a path; `clip.<quantity>` holds that quantity."""

    do: Literal["type"]
    path: str
    text: Annotated[str, Field(max_length=400)]


class MakeEdits(Change):
    """Make edits as they are: a fix, or undo and redo."""

    do: Literal["edits"]
    edits: Annotated[tuple[Edit, ...], Field(max_length=100)]


class HoldPeg(Change):
    """Peg a quantity at the value it has now."""

    do: Literal["hold"]
    quantity: Quantity


class ReleasePeg(Change):
    """Pull a peg."""

    do: Literal["release"]
    quantity: Quantity


Asked = SetValue | TypeText | MakeEdits | HoldPeg | ReleasePeg
AnyChange = Annotated[Asked, Field(discriminator="do")]


def make(plan: Plan, changes: list[Asked]) -> tuple[Plan, list[Edit]]:
    """Apply changes one after another; returns the plan and the edits that undo them all.

    Raises `QuantityError`, `PathError` or a pydantic ValidationError; the plan given stays as it was.
    """
    undo: list[Edit] = []
    for change in changes:
        plan, back = apply(plan, _edits(plan, change))
        undo = back + undo
    return plan, undo


def kind_of(path: str) -> str | None:
    """The kind of quantity that stands at a path; None for plain text."""
    if path in KINDS_BY_PATH:
        return KINDS_BY_PATH[path]
    if path.startswith("rig.axes."):
        _, _, number, name = path.split(".")
        return _AXIS_KINDS["slide" if number == "0" else "pan"].get(name)
    return next((kind for ending, kind in _ENDINGS.items() if path.endswith(ending)), None)


def _edits(plan: Plan, change: Asked) -> list[Edit]:
    if isinstance(change, MakeEdits):
        return list(change.edits)
    if isinstance(change, HoldPeg):
        return _hold(plan, change.quantity)
    if isinstance(change, ReleasePeg):
        return release(plan.clip, change.quantity)
    quantity = _quantity(change.path)
    if isinstance(change, SetValue):
        if quantity:
            return take_over(plan.clip, quantity, Fraction(str(change.value)))
        return [Edit(path=change.path, value=change.value)]
    kind = kind_of(change.path)
    if kind is None:
        return [Edit(path=change.path, value=change.text.strip())]
    value = read(change.text, kind)
    if quantity:
        return take_over(plan.clip, quantity, value)
    return [Edit(path=change.path, value=_as_stored(plan, change.path, value))]


def _quantity(path: str) -> Quantity | None:
    return next((name for name in QUANTITIES if path == f"clip.{name}"), None)


def _as_stored(plan: Plan, path: str, value: Fraction) -> Any:
    """Exact values stay exact; lengths and angles are floats, counts are whole numbers."""
    standing = look(dump(plan), path)
    if isinstance(standing, str):
        return str(value)
    if isinstance(standing, int) and value.denominator == 1 and not isinstance(standing, bool):
        return int(value)
    return float(value)


def _hold(plan: Plan, quantity: Quantity) -> list[Edit]:
    """Peg a quantity where it is, and the held ones where rounding has put them, so that all of them agree.

    One that is free has no value to hold, so nothing changes.
    """
    solution, _ = solved(plan.clip)
    if solution is None:
        return [Edit(path=PEGS_PATH, value=dump(plan)["clip"]["pegs"])]
    as_shown = tuple(one.model_copy(update={"value": solution.value(one.quantity)}) for one in plan.clip.pegs)
    return peg(plan.clip.model_copy(update={"pegs": as_shown}), quantity, solution.value(quantity))
