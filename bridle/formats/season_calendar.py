"""Work windows and visits as events of a calendar: one entry with its rule where the windows come again as one."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta
from zoneinfo import ZoneInfo

from icalendar import Alarm, Event

from bridle.core.plan.document import Plan
from bridle.core.plan.frames import Windows
from bridle.core.plan.hours import rule_said
from bridle.core.quantity import write_duration
from bridle.core.reckon.frames.windows import every_of, spans_of, where_of
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.season.season import staying
from bridle.core.subjects.time.windows import Span
from bridle.formats.events import event_at

DAYS = ("MO", "TU", "WE", "TH", "FR", "SA", "SU")
# Fewer than this are told one by one; and a rule with more days left out than kept is none.
FEWEST = 3
DAY = timedelta(days=1)


@dataclass(frozen=True)
class Again:
    """Windows that come again at one hour of the clock for one length: the first and last day, and those left out."""

    hour: timedelta
    length_s: int
    days: tuple[date, ...]

    @property
    def weekdays(self) -> tuple[int, ...]:
        """On which days of the week they open."""
        return tuple(sorted({day.weekday() for day in self.days}))

    @property
    def left_out(self) -> list[date]:
        """The days on which the rule would open one and none is."""
        there = set(self.days)
        span = (self.days[0] + DAY * number for number in range((self.days[-1] - self.days[0]).days + 1))
        return [day for day in span if day.weekday() in self.weekdays and day not in there]


def window_events(plan: Plan) -> Iterator[Event]:
    """Every window; what comes again in one entry."""
    frames = plan.frames
    if not isinstance(frames, Windows):
        return
    zone = ZoneInfo(plan.shoot.place.zone)
    spans = spans_of(frames, plan.shoot.place.zone, where_of(plan))
    for number, rule in enumerate(frames.rules):
        name = f"{plan.shoot.name}: a frame every {write_duration(every_of(frames, number))}"
        groups, alone = grouped([span for span in spans if span.rule == number], zone)
        for again in groups:
            yield _recurring(plan, name, again, zone, rule_said(rule))
        for span in alone:
            at, end = (datetime.fromtimestamp(moment, UTC).astimezone(zone) for moment in span[:2])
            one = event_at(name, at, end, plan)
            one.add("description", rule_said(rule))
            yield one


def grouped(spans: Sequence[Span], zone: ZoneInfo) -> tuple[list[Again], list[Span]]:
    """Windows by the hour at which they open and by how long they are; and those that no group takes."""
    left = {_key(span, zone): [] for span in spans}  # type: dict[tuple[timedelta, int], list[Span]]
    for span in spans:
        left[_key(span, zone)].append(span)
    groups, alone = [], []
    for (hour, length), members in left.items():
        again = Again(hour, length, tuple(_day(span, zone) for span in members))
        if len(members) >= FEWEST and len(again.left_out) < len(members) and len(set(again.days)) == len(members):
            groups.append(again)
        else:
            alone += members
    return groups, sorted(alone)


def _key(span: Span, zone: ZoneInfo) -> tuple[timedelta, int]:
    at = datetime.fromtimestamp(span.opens, zone)
    # An hour that comes twice is told by itself: a calendar takes the first of them.
    twice = timedelta(days=at.fold)
    return timedelta(hours=at.hour, minutes=at.minute, seconds=at.second) + twice, span.closes - span.opens


def _day(span: Span, zone: ZoneInfo) -> date:
    return datetime.fromtimestamp(span.opens, zone).date()


def _recurring(plan: Plan, name: str, again: Again, zone: ZoneInfo, said: str) -> Event:
    def at(day: date) -> datetime:
        return (datetime(day.year, day.month, day.day) + again.hour).replace(tzinfo=zone)  # its zone follows

    first = at(again.days[0])
    end = (first.astimezone(UTC) + timedelta(seconds=again.length_s)).astimezone(zone)
    event = event_at(name, first, end, plan)
    event.add("description", said)
    until = at(again.days[-1]).astimezone(UTC)
    event.add("rrule", {"freq": "weekly", "byday": [DAYS[day] for day in again.weekdays], "until": until})
    for day in again.left_out:
        event.add("exdate", at(day))
    return event


def visit_events(shooting: Shooting) -> Iterator[Event]:
    """Every visit, with a word a day ahead."""
    plan = shooting.plan
    stay = staying(shooting)
    zone = ZoneInfo(plan.shoot.place.zone)
    takes = timedelta(seconds=float(plan.season.visiting.takes_s))
    for visit in stay.coming.visits if stay else ():
        at = datetime.fromtimestamp(visit.at, UTC).astimezone(zone)
        tasks = ", ".join(visit.tasks) or "arranged"
        event = event_at(f"{plan.shoot.name}: {tasks}", at, (at.astimezone(UTC) + takes).astimezone(zone), plan)
        alarm = Alarm()
        alarm.add("action", "DISPLAY")
        alarm.add("description", f"{plan.shoot.name}: tomorrow {tasks}")
        alarm.add("trigger", -DAY)
        event.add_component(alarm)
        yield event
