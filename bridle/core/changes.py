"""Changes as the page asks for them, turned into edits: typed text, stepped values, pegs, the clock, the ramp."""

from datetime import datetime
from fractions import Fraction
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, JsonValue

from bridle.core.chapters import keying
from bridle.core.chapters.clip import solved
from bridle.core.chapters.fitting import fit
from bridle.core.chapters.holding import PEGS_PATH, peg, release, segments_edit, take_over
from bridle.core.chapters.timeline import first_frame, instant
from bridle.core.plan.clip import QUANTITIES, Quantity
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import MOST_EDITS, Edit, apply, dump, look
from bridle.core.plan.kit import Copy
from bridle.core.plan.places import kind_of, read_at
from bridle.core.plan.rig import AxisName
from bridle.core.quantity import read, read_clock

CLOCK_PATHS = ("shoot.clock.at", "shoot.clock.events.")


class Change(BaseModel):
    """Base of the changes: frozen, no unknown fields."""

    model_config = ConfigDict(frozen=True, extra="forbid")


class SetValue(Change):
    """Put a value at a path, as a drag or a switch does."""

    do: Literal["set"]
    path: str
    value: JsonValue


class TypeText(Change):
    """Put what was typed at a path; `clip.<quantity>` holds that quantity. Imperial: bare lengths are inches."""

    do: Literal["type"]
    path: str
    text: Annotated[str, Field(max_length=400)]
    imperial: bool = False


class MakeEdits(Change):
    """Make edits as they are: a fix, or undo and redo."""

    do: Literal["edits"]
    edits: Annotated[tuple[Edit, ...], Field(max_length=MOST_EDITS)]


class HoldPeg(Change):
    """Peg a quantity at the value it has now."""

    do: Literal["hold"]
    quantity: Quantity


class ReleasePeg(Change):
    """Pull a peg."""

    do: Literal["release"]
    quantity: Quantity


class HoldClock(Change):
    """Let the clock hold the first frame or the finish, where it is now; the shoot stays where it is."""

    do: Literal["clock"]
    holds: Literal["start", "finish"]


class RampInterval(Change):
    """Let the interval change over the shoot, in two halves to begin with; or make it even again, as the pegs say."""

    do: Literal["ramp"]
    on: bool


class FitKit(Change):
    """Give the plan these copies of cards, and the figures that they know."""

    do: Literal["fit"]
    copies: Annotated[tuple[Copy, ...], Field(max_length=60)]


class AimAt(Change):
    """Point keyframes at a mark, as far as pan and tilt reach: one of them, or all."""

    do: Literal["aim"]
    mark: Annotated[int, Field(ge=0, le=100)]
    keyframe: Annotated[int, Field(ge=0, le=100)] | None = None


class AddKeyframe(Change):
    """A keyframe more at a frame (0-based), with the axes where they are there; or where a controller has them."""

    do: Literal["keyframe"]
    frame: Annotated[int, Field(ge=0, le=10_000_000)]
    stands: dict[AxisName, float] | None = None


Asked = SetValue | TypeText | MakeEdits | HoldPeg | ReleasePeg | HoldClock | RampInterval | FitKit | AimAt | AddKeyframe
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


def _edits(plan: Plan, change: Asked) -> list[Edit]:
    match change:
        case MakeEdits():
            return list(change.edits)
        case HoldPeg():
            return _hold(plan, change.quantity)
        case ReleasePeg():
            return release(plan.clip, change.quantity)
        case HoldClock():
            return _hold_clock(plan, change.holds)
        case RampInterval():
            return _ramp(plan, change.on)
        case FitKit():
            return fit(plan, change.copies)
        case AimAt():
            return keying.aim(plan, change.mark, change.keyframe)
        case AddKeyframe():
            return keying.add(plan, change.frame, change.stands or {})
        case SetValue():
            return _set(plan, change)
        case TypeText():
            return _type(plan, change)


def _set(plan: Plan, change: SetValue) -> list[Edit]:
    quantity = _quantity(change.path)
    if quantity:
        return take_over(plan.clip, quantity, Fraction(str(change.value)))
    return [Edit(path=change.path, value=change.value)]


def _type(plan: Plan, change: TypeText) -> list[Edit]:
    path, text = change.path, change.text
    quantity = _quantity(path)
    if quantity:
        return take_over(plan.clip, quantity, read(text, str(kind_of(path))))
    standing = look(dump(plan), path)
    if path.startswith(CLOCK_PATHS) and path.endswith(".at"):
        at = read_clock(text, datetime.fromisoformat(str(standing)), plan.shoot.place.zone)
        return [Edit(path=path, value=at.isoformat())]
    return [Edit(path=path, value=read_at(path, text, standing, _linear(plan, path), change.imperial))]


def _linear(plan: Plan, path: str) -> bool:
    """Whether a path belongs to a linear axis; anything else counts as one."""
    _, found, rest = path.partition("rig.axes.")
    number = rest.split(".")[0]
    if not found or not number.isdigit() or int(number) >= len(plan.rig.axes):
        return True
    return plan.rig.axes[int(number)].kind == "linear"


def _quantity(path: str) -> Quantity | None:
    return next((name for name in QUANTITIES if path == f"clip.{name}"), None)


def _hold(plan: Plan, quantity: Quantity) -> list[Edit]:
    """Peg a quantity where it is, and the held ones where rounding has put them, so that all of them agree.

    One that is free has no value to hold, so nothing changes; nor does it while the interval changes.
    """
    solution, _ = solved(plan.clip)
    if solution is None or (plan.clip.ramped and quantity != "rate"):
        return [Edit(path=PEGS_PATH, value=dump(plan)["clip"]["pegs"])]
    if plan.clip.ramped:
        return peg(plan.clip, quantity, solution.rate)
    as_shown = tuple(one.model_copy(update={"value": solution.value(one.quantity)}) for one in plan.clip.pegs)
    return peg(plan.clip.model_copy(update={"pegs": as_shown}), quantity, solution.value(quantity))


def _hold_clock(plan: Plan, holds: str) -> list[Edit]:
    clock, at = plan.shoot.clock, plan.shoot.clock.at
    solution, _ = solved(plan.clip)
    if solution is not None and holds != clock.holds:
        first = first_frame(plan, solution)
        at = first if holds == "start" else instant(first, solution.shoot, plan.shoot.place.zone)
    return [Edit(path="shoot.clock.holds", value=holds), Edit(path="shoot.clock.at", value=at.isoformat())]


def _ramp(plan: Plan, on: bool) -> list[Edit]:
    """Two halves of the shoot as it is, blended over a second of clip; an open clip gives two half hours."""
    if not on:
        return [Edit(path="clip.ramp", value={"segments": [], "blend_frames": 0})]
    solution, _ = solved(plan.clip)
    shoot, interval = (solution.shoot, solution.interval) if solution else (Fraction(3600), Fraction(10))
    blend = min(round(solution.rate), solution.frames // 4) if solution else 0
    half = max(interval, shoot / 2)
    segments = segments_edit([(half, interval), (half, interval)])
    # One edit, since two equal segments must never stand without the other.
    return [Edit(path="clip.ramp", value={"segments": segments[0].value, "blend_frames": int(blend)})]
