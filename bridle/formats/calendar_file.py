"""Sun, moon, the shoot itself, its windows and visits as a calendar file (RFC 5545), to be taken into any calendar."""

import hashlib
from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from fractions import Fraction

from icalendar import Alarm, Calendar, Event

from bridle.core.plan.document import Plan
from bridle.core.plan.frames import Windows
from bridle.core.quantity import spoken, write
from bridle.core.reckon.almanac import almanac
from bridle.core.reckon.changes import change_lines
from bridle.core.reckon.reckoning import Shooting, reckon
from bridle.core.reckon.scene import placed
from bridle.core.reckon.timeline import instant
from bridle.formats.change_list import said
from bridle.formats.events import event_at
from bridle.formats.nothing import NothingToWriteError
from bridle.formats.season_calendar import visit_events, window_events

# So much sky before the first frame and after the last is told.
BESIDE_S = 6 * 3600
MOST_SKY_DAYS = 40
CALLED_S = 600


def write_calendar(plan: Plan) -> Iterator[str]:
    """The calendar, line by line. Raises `NothingToWriteError` at once while the clip is open."""
    shooting = reckon(plan).shooting
    if shooting is None:
        raise NothingToWriteError("the clip leaves something open, so nobody knows when the shoot is over")
    calendar = Calendar()
    calendar.add("prodid", "-//Bridle//shoot//EN")
    calendar.add("version", "2.0")
    for number, event in enumerate(_events(plan, shooting)):
        digest = hashlib.sha256(f"{plan.shoot.name} {event['summary']} {number}".encode()).hexdigest()[:24]
        event.add("uid", f"{digest}@bridle")
        # The stamp is the shoot's own: the same plan gives the same file.
        event.add("dtstamp", shooting.timeline.start.astimezone(UTC))
        calendar.add_component(event)
    calendar.add_missing_timezones()
    text: str = calendar.to_ical().decode()
    return iter(text.splitlines(keepends=True))


def _events(plan: Plan, shooting: Shooting) -> Iterator[Event]:
    if isinstance(plan.frames, Windows):
        yield from _errands(plan, shooting)
        yield from window_events(plan)
        yield from visit_events(shooting)
        return
    times, zone = shooting.timeline, plan.shoot.place.zone
    shoot = event_at(plan.shoot.name, times.start, times.clock(times.frames), plan)
    shoot.add("description", _described(plan, shooting))
    alarm = Alarm()
    alarm.add("action", "DISPLAY")
    alarm.add("description", f"{plan.shoot.name}: the first frame in ten minutes")
    alarm.add("trigger", timedelta(seconds=-CALLED_S))
    shoot.add_component(alarm)
    yield shoot
    yield from _errands(plan, shooting)
    yield from visit_events(shooting)
    where = placed(plan)
    if where is None or float(times.end_s) > MOST_SKY_DAYS * 86_400:
        return
    start = times.start_unix_s
    for seen in almanac(*where, start - BESIDE_S, start + float(times.end_s) + BESIDE_S):
        at = instant(datetime.fromtimestamp(round(seen.at_s), UTC), Fraction(0), zone)
        one = event_at(f"{seen.name}, {seen.azimuth_deg:.0f}°", at, at, plan)
        one.add("transp", "TRANSPARENT")
        yield one


def _errands(plan: Plan, shooting: Shooting) -> Iterator[Event]:
    """What is done before, counted backwards from the press."""
    clock, zone = plan.shoot.clock, plan.shoot.place.zone
    at = instant(shooting.timeline.start, -clock.start_delay_s, zone)
    made = []
    for errand in reversed(clock.errands):
        begun = instant(at, -errand.length_s, zone)
        made.append(event_at(errand.name, begun, at, plan))
        at = begun
    yield from reversed(made)


def _described(plan: Plan, shooting: Shooting) -> str:
    times = shooting.timeline
    every = write(spoken(times.interval_s, "s"), "s")
    lines = [f"{write(times.frames, 'frames')}, {'one' if times.even else 'about'} every {every}."]
    for change in change_lines(shooting, 60):
        clock = shooting.timeline.clock(change.frame)
        lines.append(f"{clock:%H:%M:%S} frame {change.frame + 1}: {said(change)}")
    return "\n".join(lines)
