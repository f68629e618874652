"""When somebody has to come to a camera that stays, and what becomes of card and battery with these visits."""

import math
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date, timedelta
from zoneinfo import ZoneInfo

import numpy as np

from bridle.core.plan.document import Plan
from bridle.core.plan.outdoors import Schedule
from bridle.core.reckon.frames.windows import Sky
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.scene import placed
from bridle.core.reckon.season.hours import DAY_S, HOUR_S, Hours
from bridle.core.reckon.season.power import Powered
from bridle.core.reckon.season.storage import Stored
from bridle.core.reckon.season.told import caller
from bridle.core.subjects.power.charge import Charged, stepped
from bridle.core.subjects.time.visits import Due, Visit, merged
from bridle.core.subjects.time.windows import at_clock

CARD, CHARGE, GLASS, CLOCK, LOOK, RESTART, CELL, ENTRIES = (
    "swap the card", "swap the battery", "clean the glass", "set the clock", "look at the frames",
    "start the controller again", "change the coin cell",
    "put in other hours",
)  # fmt: skip
OPENS_BOX = (CARD, CHARGE, CLOCK, RESTART, CELL, ENTRIES)
MILLION = 1_000_000
MONTH_DAYS = 365.25 / 12
# So long after sunrise and before sunset there is light to work by.
LIGHT_S = 1800


@dataclass(frozen=True)
class Coming:
    """The visits of a season, and the charge with the swaps at them. `due` are the tasks that there are at all."""

    visits: tuple[Visit, ...]
    due: tuple[str, ...]
    charged: Charged

    def at(self, task: str) -> list[float]:
        """When a task is done, Unix seconds."""
        return [visit.at for visit in self.visits if task in visit.tasks]


def schedule_of(plan: Plan) -> Schedule | None:
    """What the controller can be told of hours; None where it has no hours at all, or there is none."""
    found = caller(plan)
    return found[1].schedule if found else None


def coming(shooting: Shooting, hours: Hours, power: Powered, store: Stored) -> Coming:
    """The visits that a season needs."""
    plan, times = shooting.plan, shooting.timeline
    due = dict(_due(plan, hours, power, store))
    start = times.start_unix_s
    end = start + float(times.end_s)
    wished, possible, arranged = moments(plan, hours)
    visits = tuple(merged(due, start, end, wished, possible, arranged))
    swaps = {}
    for visit in visits:
        if CHARGE in visit.tasks:
            hour, share = divmod(hours.hour_of(visit.at), 1)
            swaps[int(hour)] = share
    charged = stepped(power.gained.tolist(), power.drawn.tolist(), power.usable_wh, swaps) if swaps else power.charged
    return Coming(visits, tuple(due), charged)


def moments(plan: Plan, hours: Hours) -> tuple[list[float], list[float], list[float]]:
    """When somebody would come, could come, and comes anyhow: once a day, Unix seconds that rise."""
    visiting, zone = plan.season.visiting, ZoneInfo(hours.zone)
    first, last = hours.day(0), hours.day(hours.count)
    sky = Sky(hours.zone, placed(plan), first, last) if visiting.by_day else None
    wished, possible, arranged = [], [], []
    for number in range((last - first).days + 1):
        day = first + timedelta(days=number)
        at = _at(day, visiting.at_min, zone, sky)
        possible.append(at)
        if day.weekday() in visiting.weekdays:
            wished.append(at)
        if day in visiting.arranged:
            arranged.append(at)
    return wished, possible, arranged


def _at(day: date, minute: int, zone: ZoneInfo, sky: Sky | None) -> float:
    """The hour of a visit, moved into daylight where the sun comes up at all."""
    at = at_clock(day, minute, zone)
    rise, fall = (sky.turn(day, "sunrise"), sky.turn(day, "sunset")) if sky else (None, None)
    if rise is None or fall is None:
        return float(at)
    return float(min(max(at, rise + LIGHT_S), max(rise + LIGHT_S, fall - LIGHT_S)))


def _due(plan: Plan, hours: Hours, power: Powered, store: Stored) -> Iterator[tuple[str, Due]]:
    visiting, found = plan.season.visiting, caller(plan)
    if store.holds:
        yield CARD, _after_frames(hours, store.holds)
    if power.supply.by == "battery" and visiting.swaps_battery and not power.missing and power.usable_wh:
        yield CHARGE, _when_empty(hours, power)
    if visiting.clean_days:
        yield GLASS, _every(visiting.clean_days * DAY_S)
    if visiting.may_lose_days and plan.trigger.look is None:
        yield LOOK, _every(visiting.may_lose_days * DAY_S)
    if found is None:
        return
    card = found[1]
    if card.schedule and card.schedule.clock_ppm:
        yield CLOCK, _every(float(visiting.clock_off_s) * MILLION / card.schedule.clock_ppm)
    if card.schedule and card.schedule.cell_months:
        yield CELL, _every(card.schedule.cell_months * MONTH_DAYS * DAY_S)
    limits = [_every(float(card.longest_run_s))] if card.longest_run_s else []
    limits += [_after_frames(hours, card.most_frames)] if card.most_frames else []
    if limits:
        yield RESTART, lambda done: min(limit(done) for limit in limits)


def _every(seconds: float) -> Due:
    return lambda done: done + seconds


def _after_frames(hours: Hours, most: int) -> Due:
    """When the first frame comes that is one too many since it was done."""

    def again(done: float) -> float:
        at = int(np.searchsorted(hours.starts_s, done - hours.start_s)) + most
        return hours.start_s + float(hours.starts_s[at]) if at < len(hours.starts_s) else math.inf

    return again


def _when_empty(hours: Hours, power: Powered) -> Due:
    start = hours.start_s
    return lambda done: start + HOUR_S * power.runs_out_h((done - start) / HOUR_S)
