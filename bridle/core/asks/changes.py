"""Changes as the page asks for them, turned into edits: typed text, stepped values, pegs, the clock, segments."""

import re
from datetime import date, datetime
from fractions import Fraction
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, JsonValue

from bridle.core.asks import aiming, beginnings, calendar, chain, keyframes, polar, unscrewing
from bridle.core.asks.dialling import dialled
from bridle.core.asks.fitting import fit
from bridle.core.asks.following import followed
from bridle.core.asks.pegs import hold_only, peg, release, take_over
from bridle.core.asks.sourcing import asked_of_source, asks_source
from bridle.core.asks.tying import let_go, untied, until
from bridle.core.plan.anchors import read_anchor
from bridle.core.plan.clip import QUANTITIES, Quantity
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import MOST_EDITS, Edit, apply, dump, look
from bridle.core.plan.frames import DAY_MIN, Even, Windows
from bridle.core.plan.hours import read_edge
from bridle.core.plan.kit import Copy
from bridle.core.plan.places import kind_of, read_at
from bridle.core.plan.rig import AxisName
from bridle.core.quantity import LONGEST_TEXT, QuantityError, read, read_clock
from bridle.core.reckon.anchors import anchored
from bridle.core.reckon.clip import solved
from bridle.core.reckon.frames.changing import segments_json
from bridle.core.reckon.frames.even import PEGS_PATH
from bridle.core.reckon.frames.windows import EVERY_PATH, HELD
from bridle.core.reckon.timeline import first_frame, instant
from bridle.core.subjects.light.dials import Dial
from bridle.core.values import Name

TIED_PATHS = ("shoot.clock.at", "shoot.clock.events.")
RULE_EDGE = re.compile(r"frames\.rules\.\d+\.(opens|closes)")
VISIT_HOUR = "season.visiting.at_min"
CLOCK_PATHS = ("shoot.clock.at", "shoot.clock.events.", "light.proofs.")


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


class Begin(Change):
    """Begin what stands at a path with its usual values; on a list, one more. `kind` says which of several."""

    do: Literal["begin"]
    path: str
    kind: str = ""


class Drop(Change):
    """Take one thing out of a list of the plan."""

    do: Literal["drop"]
    path: str


class ChangingInterval(Change):
    """Let the interval change over the shoot, in two halves to begin with; or make it even again, as the pegs say."""

    do: Literal["changing"]
    on: bool


class FitKit(Change):
    """Give the plan these copies of cards, and the figures that they know."""

    do: Literal["fit"]
    copies: Annotated[tuple[Copy, ...], Field(max_length=60)]


class PutOn(Change):
    """Put cards of the shelf on the rig, each where it belongs; another camera, lens or trigger replaces the first."""

    do: Literal["put"]
    cards: Annotated[tuple[chain.Taken, ...], Field(max_length=60)]


class MovePart(Change):
    """Let a part of the rig change places with the next one towards the camera (1) or the ground (-1)."""

    do: Literal["part"]
    key: Name
    by: Literal[1, -1]


class DialIn(Change):
    """Put a setting to the mark of its dial that is nearest to a value, as a drag does."""

    do: Literal["dial"]
    path: str
    dial: Dial
    value: Annotated[float, Field(gt=0, le=1e9, allow_inf_nan=False)]


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


class TurnWeekday(Change):
    """Put a day of the week into a list of them, or take it out."""

    do: Literal["weekday"]
    path: str
    day: Annotated[int, Field(ge=0, le=6)]


class TurnDay(Change):
    """Leave a day of the calendar out, or bring it back."""

    do: Literal["day"]
    day: date


class StretchDays(Change):
    """Move an end of days off."""

    do: Literal["stretch"]
    number: Annotated[int, Field(ge=0, le=1000)]
    end: Literal["first", "last"]
    day: date


Asked = (
    TurnWeekday
    | TurnDay
    | StretchDays
    | SetValue
    | TypeText
    | MakeEdits
    | HoldPeg
    | ReleasePeg
    | HoldClock
    | Begin
    | Drop
    | ChangingInterval
    | FitKit
    | PutOn
    | MovePart
    | DialIn
    | AimAt
    | AddKeyframe
)
AnyChange = Annotated[Asked, Field(discriminator="do")]


def make(plan: Plan, changes: list[Asked]) -> tuple[Plan, list[Edit]]:
    """Apply changes one after another; returns the plan and the edits that undo them all.

    Raises `QuantityError`, `PathError` or a pydantic ValidationError; the plan given stays as it was.
    """
    undo: list[Edit] = []
    for change in changes:
        before = plan
        plan, back = apply(plan, _edits(plan, change))
        undo = back + undo
        # Edits as they are, undo among them, are made to the letter.
        if not isinstance(change, MakeEdits) and (more := followed(before, plan)):
            plan, back = apply(plan, more)
            undo = back + undo
    return plan, undo


def _edits(plan: Plan, change: Asked) -> list[Edit]:
    match change:
        case MakeEdits():
            return list(change.edits)
        case HoldPeg():
            return _hold(anchored(plan), change.quantity)
        case ReleasePeg():
            return [*release(plan, change.quantity), *let_go(plan, change.quantity)]
        case HoldClock():
            return _hold_clock(plan, change.holds)
        case Begin():
            return beginnings.begin(plan, change.path, change.kind)
        case Drop():
            return beginnings.drop(plan, change.path)
        case ChangingInterval():
            return _changing(plan, change.on)
        case FitKit():
            return fit(plan, change.copies)
        case PutOn():
            return chain.put(plan, change.cards)
        case MovePart():
            return chain.move(plan, change.key, change.by)
        case DialIn():
            return dialled(plan, change.path, change.dial, change.value)
        case AimAt():
            return aiming.aim(plan, change.mark, change.keyframe)
        case TurnWeekday():
            return calendar.turn_weekday(plan, change.path, change.day)
        case TurnDay():
            return calendar.turn_day(plan, change.day)
        case StretchDays():
            return calendar.stretch(plan, change.number, change.end, change.day)
        case AddKeyframe():
            return keyframes.add(plan, change.frame, change.stands or {})
        case SetValue():
            return _set(plan, change)
        case TypeText():
            return _type(plan, change)


def _set(plan: Plan, change: SetValue) -> list[Edit]:
    quantity = _quantity(change.path)
    if quantity and asks_source(plan, quantity):
        return asked_of_source(plan, quantity, Fraction(str(change.value)))
    if quantity:
        return [*take_over(plan, quantity, Fraction(str(change.value))), *let_go(plan, quantity)]
    if (found := polar.place(plan, change.path)) and isinstance(change.value, int | float):
        return polar.moved(plan, *found, float(change.value))
    if change.path in unscrewing.KINDS and isinstance(change.value, int | float):
        return unscrewing.screwed(plan, change.path, float(change.value))
    return [Edit(path=change.path, value=change.value)]


def _type(plan: Plan, change: TypeText) -> list[Edit]:
    path, text = change.path, change.text
    quantity = _quantity(path)
    if quantity and asks_source(plan, quantity):
        return asked_of_source(plan, quantity, read(text, str(kind_of(path))))
    if quantity:
        return [*take_over(plan, quantity, read(text, str(kind_of(path)))), *let_go(plan, quantity)]
    if found := polar.place(plan, path):
        value = read(text, "length" if found[1] == "distance_mm" else "angle", change.imperial)
        return polar.moved(plan, *found, float(value))
    if path in unscrewing.KINDS:
        return unscrewing.screwed(plan, path, float(read(text, unscrewing.KINDS[path], change.imperial)))
    standing = look(dump(plan), path)
    if path.startswith(TIED_PATHS) and path.endswith(".at") and re.search("[a-z]{3}", text.lower()):
        return [Edit(path=f"{path.removesuffix('.at')}.tied", value=read_anchor(text).model_dump(mode="json"))]
    if RULE_EDGE.fullmatch(path):
        return [Edit(path=path, value=read_edge(text).model_dump(mode="json"))]
    if path == VISIT_HOUR:
        return [Edit(path=path, value=_hour(text))]
    if path == "shoot.clock.until":
        return until(plan, read_anchor(text))
    if path.startswith(CLOCK_PATHS) and path.endswith(".at"):
        at = read_clock(text, datetime.fromisoformat(str(standing)), plan.shoot.place.zone)
        typed = [Edit(path=path, value=at.isoformat())]
        # An hour that somebody types is not the sky's any more.
        return (
            [*typed, Edit(path=f"{path.removesuffix('.at')}.tied", value=None)]
            if path.startswith(TIED_PATHS)
            else typed
        )
    return [Edit(path=path, value=read_at(path, text, standing, _linear(plan, path), change.imperial))]


def _hour(text: str) -> int:
    """An hour of the clock in minutes. Raises `QuantityError`."""
    edge = read_edge(text)
    if edge.by != "clock" or edge.minutes >= DAY_MIN:
        raise QuantityError(text.strip()[:LONGEST_TEXT], "an hour such as 10:00")
    return edge.minutes


def _linear(plan: Plan, path: str) -> bool:
    """Whether a path belongs to a linear axis; anything else counts as one."""
    _, found, rest = path.partition("rig.axes.")
    number = rest.split(".")[0]
    if not found or not number.isdigit() or int(number) >= len(plan.rig.axes):
        return True
    return plan.rig.axes[int(number)].kind == "linear"


def _quantity(path: str) -> Quantity | None:
    if path == EVERY_PATH:
        return "interval"
    return next((name for name in QUANTITIES if path == f"clip.{name}"), None)


def _hold(plan: Plan, quantity: Quantity) -> list[Edit]:
    """Peg a quantity where it is, and the held ones where rounding has put them, so that all of them agree.

    One that is free has no value to hold, so nothing changes; nor does it while the interval changes.
    """
    solution, _ = solved(plan)
    if isinstance(plan.frames, Windows) and solution is not None and quantity in (*HELD, "rate"):
        at = [Edit(path=EVERY_PATH, value=str(solution.interval))] if quantity == "interval" else []
        return [*peg(plan, quantity, solution.value(quantity)), *at]
    if solution is None or (plan.frames.source != "even" and quantity != "rate"):
        return [Edit(path=PEGS_PATH, value=dump(plan)["clip"]["pegs"])]
    if plan.frames.source != "even":
        return peg(plan, quantity, solution.rate)
    as_shown = tuple(one.model_copy(update={"value": solution.value(one.quantity)}) for one in plan.clip.pegs)
    shown = plan.model_copy(update={"clip": plan.clip.model_copy(update={"pegs": as_shown})})
    return peg(shown, quantity, solution.value(quantity))


def _hold_clock(plan: Plan, holds: str) -> list[Edit]:
    plan = anchored(plan)
    clock, at = plan.shoot.clock, plan.shoot.clock.at
    solution, _ = solved(plan)
    if solution is not None and holds != clock.holds:
        first = first_frame(plan, solution.shoot)
        at = first if holds == "start" else instant(first, solution.shoot, plan.shoot.place.zone)
    moved = [Edit(path="shoot.clock.holds", value=holds), Edit(path="shoot.clock.at", value=at.isoformat())]
    return [*moved, *(untied(plan) if holds != clock.holds else [])]


def _changing(plan: Plan, on: bool) -> list[Edit]:
    """Two halves of the shoot as it is, blended over a second of clip; an open clip gives two half hours."""
    solution, _ = solved(plan)
    if not on:
        even = Edit(path="frames", value=Even().model_dump(mode="json"))
        # Nothing but the windows said how long and how often: it stays as it is.
        kept = {"rate": solution.rate, "interval": solution.interval, "shoot": solution.shoot} if solution else {}
        return [even, *hold_only(kept)] if kept and isinstance(plan.frames, Windows) else [even]
    shoot, interval = (solution.shoot, solution.interval) if solution else (Fraction(3600), Fraction(10))
    blend = min(round(solution.rate), solution.frames // 4) if solution else 0
    half = max(interval, shoot / 2)
    segments = segments_json([(half, interval), (half, interval)])
    return [Edit(path="frames", value={"source": "changing", "segments": segments, "blend_frames": int(blend)})]
