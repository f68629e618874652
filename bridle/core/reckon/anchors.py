"""What is tied to the sky, at the hour that the sky gives it on that day and at that place."""

from datetime import UTC, datetime
from fractions import Fraction
from functools import lru_cache
from typing import NamedTuple
from zoneinfo import ZoneInfo

from bridle.core.plan.anchors import Anchor
from bridle.core.plan.clip import Peg
from bridle.core.plan.document import Plan
from bridle.core.plan.shoot import Clock, Event
from bridle.core.reckon.almanac import SUN_NAMES, moon_up, over
from bridle.core.reckon.frames.windows import settled
from bridle.core.reckon.scene import placed
from bridle.core.subjects.light.crossings import Heights, crossings
from bridle.core.values import LONGEST_S

# The occurrence is looked for within so much of the moment that is written down; an end within so much of the start.
NEAR_S = 86_400.0
LATEST_END_S = 2 * 86_400.0
# A shoot that ends where it begins is none.
SHORTEST_S = 1.0


class Tied(NamedTuple):
    """Something tied to the sky: its place in the plan, the anchor, and when it comes; None where it never does."""

    path: str
    anchor: Anchor
    at: datetime | None


def anchored(plan: Plan) -> Plan:
    """The plan with the hours that the sky gives, and the interval that work windows give."""
    plan = settled(plan)
    clock = plan.shoot.clock
    if clock.tied is None and clock.until is None and all(event.tied is None for event in clock.events):
        return plan
    if placed(plan) is None:
        return plan
    at = _at(plan, clock.tied, clock.at) or clock.at
    events = tuple(_moved(plan, event) for event in clock.events)
    ended = clock.model_copy(update={"at": at, "events": events})
    shoot = plan.shoot.model_copy(update={"clock": ended})
    return _until(plan.model_copy(update={"shoot": shoot}), ended)


def tied_of(plan: Plan) -> tuple[Tied, ...]:
    """Everything that is tied, and when it comes."""
    clock = plan.shoot.clock
    found = []
    if clock.tied is not None:
        found.append(Tied("shoot.clock", clock.tied, _at(plan, clock.tied, clock.at)))
    if clock.until is not None:
        found.append(Tied("shoot.clock.until", clock.until, _end(plan, clock)))
    for number, event in enumerate(clock.events):
        if event.tied is not None:
            found.append(Tied(f"shoot.clock.events.{number}", event.tied, _at(plan, event.tied, event.at)))
    return tuple(found)


def _moved(plan: Plan, event: Event) -> Event:
    at = _at(plan, event.tied, event.at)
    return event if at is None else event.model_copy(update={"at": at})


def _until(plan: Plan, clock: Clock) -> Plan:
    """The peg of the shoot's length, as the sky has it; there is such a peg, or the end is not tied."""
    end = _end(plan, clock)
    if end is None:
        return plan
    length = Fraction(round((end - clock.at).total_seconds()))
    if not SHORTEST_S < length <= LONGEST_S:
        return plan
    pegs = tuple(Peg(quantity="shoot", value=length) if peg.quantity == "shoot" else peg for peg in plan.clip.pegs)
    return plan.model_copy(update={"clip": plan.clip.model_copy(update={"pegs": pegs})})


def _end(plan: Plan, clock: Clock) -> datetime | None:
    """When a shoot ends that is to last until something in the sky: the first time after its start."""
    where = placed(plan)
    if clock.until is None or where is None or clock.holds != "start" or plan.frames.source != "even":
        return None
    start, offset = clock.at.timestamp(), float(clock.until.offset_s)
    times = occurrences(*where, clock.until, start - offset, start - offset + LATEST_END_S)
    return next((_instant(plan, at + offset) for at in times if at + offset > start + SHORTEST_S), None)


def _at(plan: Plan, anchor: Anchor | None, near: datetime) -> datetime | None:
    where = placed(plan)
    if anchor is None or where is None:
        return None
    asked = near.timestamp() - float(anchor.offset_s)
    # A whole day is looked through at a time, so that a drag does not search anew at every step.
    day = asked // NEAR_S * NEAR_S
    times = [at for at in occurrences(*where, anchor, day - NEAR_S, day + 2 * NEAR_S) if abs(at - asked) <= NEAR_S]
    if not times:
        return None
    return _instant(plan, min(times, key=lambda at: abs(at - asked)) + float(anchor.offset_s))


def _instant(plan: Plan, at_s: float) -> datetime:
    """A whole second of the place's own clock: nobody starts on a fraction."""
    return datetime.fromtimestamp(round(at_s), UTC).astimezone(ZoneInfo(plan.shoot.place.zone))


@lru_cache(maxsize=128)
def occurrences(latitude: float, longitude: float, anchor: Anchor, start_s: float, end_s: float) -> tuple[float, ...]:
    """When what an anchor is tied to happens between two moments (Unix seconds), its offset left out."""
    above, up = _watched(latitude, longitude, anchor)
    return tuple(passed.at_s for passed in crossings(above, start_s, end_s) if passed.up == up)


def _watched(latitude: float, longitude: float, anchor: Anchor) -> tuple[Heights, bool]:
    """What is watched, and whether it comes upwards."""
    named, _, way = anchor.to.partition(" ")
    if way in ("up", "down"):
        return over("moon" if named == "moon" else "sun", latitude, longitude, anchor.altitude_deg), way == "up"
    if anchor.to in ("moonrise", "moonset"):
        return moon_up(latitude, longitude), anchor.to == "moonrise"
    height, rises = next((height, anchor.to == names[0]) for height, names in SUN_NAMES.items() if anchor.to in names)
    return over("sun", latitude, longitude, height), rises
