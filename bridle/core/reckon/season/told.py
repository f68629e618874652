"""What a controller can be told of work windows: its own few rules, the runs between visits, what it takes besides."""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, replace
from datetime import UTC, date, datetime, timedelta
from fractions import Fraction
from itertools import pairwise
from zoneinfo import ZoneInfo

import numpy as np

from bridle.core.plan.document import Plan
from bridle.core.plan.frames import Windows
from bridle.core.plan.outdoors import Schedule
from bridle.core.plan.wired import Trigger
from bridle.core.reckon.frames.windows import Window, where_of, windows_of
from bridle.core.reckon.timeline import Timeline
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.numbers.rounding import ceil_to
from bridle.core.subjects.time.windows import DAY_MIN, at_clock, united

DAY_S, MIN_S = 86_400, 60
WEEK_S = 6 * DAY_S
WEEK = tuple(range(7))
WEEKDAYS, WEEKEND = WEEK[:5], WEEK[5:]
# What these are told is a program of one's own: any rule goes into it.
TOLD_ALL = ("controller", "pin", "host command", "computer", "camera board")


@dataclass(frozen=True)
class Entries:
    """What is put into its menu: days on which it opens (0 is Monday), from–to in minutes of its clock, its interval.

    A from–to may end beyond 1440: on the next day. `offset_s` is what its clock is ahead of UTC where it does not
    follow the changes of clocks; None where it does.
    """

    days: tuple[int, ...]
    spans: tuple[tuple[int, int], ...]
    every_s: Fraction
    offset_s: int | None = None

    @property
    def all_day(self) -> bool:
        """Whether it never stops."""
        return self.days == WEEK and self.spans == ((0, DAY_MIN),)


@dataclass(frozen=True)
class Menu:
    """A run: from when to when (Unix seconds) it goes by these entries."""

    from_s: float
    to_s: float
    entries: Entries


def caller(plan: Plan) -> tuple[int, Trigger] | None:
    """What calls the frames, and its place in the kit."""
    return next(((n, copy.card) for n, copy in enumerate(plan.kit.copies) if isinstance(copy.card, Trigger)), None)


def in_its_own_words(plan: Plan) -> tuple[Trigger, Schedule | None] | None:
    """The controller that has to make do with rules of its own; None where windows are told it as they are."""
    found = caller(plan)
    if found is None or not isinstance(plan.frames, Windows):
        return None
    card = found[1]
    return None if card.schedule is None and card.source in TOLD_ALL else (card, card.schedule)


def entries_of(plan: Plan, times: Timeline) -> Entries | None:
    """What it is told if it is told once for the whole season; None where it is told the windows as they are."""
    told = in_its_own_words(plan)
    if told is None:
        return None
    return entries_for(plan, *told, times.start_unix_s, times.start_unix_s + float(times.end_s))


def starts_taken(plan: Plan, times: Timeline) -> Floats:
    """When frames are taken if it is told once for the whole season; seconds after the first planned one."""
    entries = entries_of(plan, times)
    if entries is None:
        return times.starts_s
    start = times.start_unix_s
    return np.asarray(taken(plan.shoot.place.zone, Menu(start, start + float(times.end_s), entries)) - start)


def menus(plan: Plan, times: Timeline, visits: Sequence[float], restarts: Iterable[float]) -> tuple[Menu, ...]:
    """The runs of a season: its entries are changed at a visit where others cover the windows more closely."""
    told = in_its_own_words(plan)
    if told is None:
        return ()
    start, end = times.start_unix_s, times.start_unix_s + float(times.end_s)
    edges, again = [start, *visits, end], set(restarts)
    made: list[Menu] = []
    for low, high in pairwise(edges):
        entries = entries_for(plan, *told, low, high)
        if made and low not in again and _as_good(times.zone, low, high, made[-1].entries, entries):
            made[-1] = replace(made[-1], to_s=high)
        else:
            made.append(Menu(low, high, entries))
    return tuple(made)


def _as_good(zone: str, low: float, high: float, old: Entries, new: Entries) -> bool:
    """Whether the entries that are in already take the same frames between two moments as others would."""
    return old == new or np.array_equal(taken(zone, Menu(low, high, old)), taken(zone, Menu(low, high, new)))


def entries_for(plan: Plan, card: Trigger, schedule: Schedule | None, low: float, high: float) -> Entries:
    """The closest rules of its own that cover every window between two moments."""
    frames = plan.frames
    assert isinstance(frames, Windows)
    windows = windows_of(frames, plan.shoot.place.zone, where_of(plan))
    inside = [one for one in windows if one.closes > low and one.opens < high]
    every = _dialled(min((one.every_s for one in inside), default=frames.every_s), card)
    if schedule is None:
        return Entries(WEEK, ((0, DAY_MIN),), every)
    zone = ZoneInfo(plan.shoot.place.zone)
    offset = None if schedule.follows_change == "yes" else _offset_s(low, zone)
    pieces = [piece for one in inside for piece in _pieces(one, schedule, zone, offset)]
    spans = _spans(schedule, [(opens, closes) for _, opens, closes in pieces], every)
    # A week that is cut by a visit has all of its days: entries are not changed for that.
    # Windows that are joined over their midnights may have opened long before.
    near = (one for one in windows if one.closes > low - WEEK_S and one.opens < high + WEEK_S)
    days = {day for one in (near if inside else ()) for day, _, _ in _pieces(one, schedule, zone, offset)}
    if spans == ((0, DAY_MIN),):
        # A whole day does not reach into the next: that one has to be whole as well.
        days |= {(day + 1) % len(WEEK) for day, _, closes in pieces if closes > DAY_MIN}
    return Entries(_days(schedule, days), spans, every, offset)


def _dialled(every: Fraction, card: Trigger) -> Fraction:
    """The interval as it can be dialled: no shorter than it is planned."""
    step = card.step_s or Fraction(0)
    return max(ceil_to(every, step) if step else every, card.shortest_s or Fraction(0))


def _offset_s(moment: float, zone: ZoneInfo) -> int:
    ahead = datetime.fromtimestamp(moment, zone).utcoffset()
    return int(ahead.total_seconds()) if ahead else 0


def _shown(moment: int, zone: ZoneInfo, offset: int | None) -> datetime:
    """What its clock shows."""
    if offset is None:
        return datetime.fromtimestamp(moment, zone)
    return datetime.fromtimestamp(moment + offset, UTC)


def _pieces(window: Window, schedule: Schedule, zone: ZoneInfo, offset: int | None) -> Iterator[tuple[int, int, int]]:
    """A window as it can be told: the weekday on which it opens, and the minutes of that day; cut at midnights."""
    opens, closes = _shown(window.opens, zone, offset), _shown(window.closes, zone, offset)
    day, minute = opens.date(), opens.hour * 60 + opens.minute
    last = closes.hour * 60 + closes.minute + (closes.second > 0) + DAY_MIN * (closes.date() - day).days
    if last <= DAY_MIN or (schedule.over_midnight and last - minute < DAY_MIN):
        yield day.weekday(), minute, last
        return
    while last > 0:
        yield day.weekday(), minute, min(last, DAY_MIN)
        day, minute, last = day + timedelta(days=1), 0, last - DAY_MIN


def _days(schedule: Schedule, days: set[int]) -> tuple[int, ...]:
    """The fewest days that it knows which have all of these."""
    if schedule.days == "any weekdays":
        return tuple(sorted(days))
    if schedule.days == "weekdays or weekends":
        for known in (WEEKDAYS, WEEKEND):
            if days <= set(known):
                return known
    return WEEK


def _spans(schedule: Schedule, pieces: list[tuple[int, int]], every: Fraction) -> tuple[tuple[int, int], ...]:
    """As many from–to as it knows: those that lie closest are made one; in its steps."""
    step = schedule.step_min
    spans = _together(schedule, united((opens // step * step, closes) for opens, closes in pieces))
    # One that does not open with the others has its last frame up to half an interval after it has closed.
    late = -(-every // (2 * MIN_S))
    ends = [
        max(closes + (late if opens != low else 0) for opens, closes in pieces if low <= opens < high)
        for low, high in spans
    ]
    spans = united((low, -(-end // step) * step) for (low, _), end in zip(spans, ends, strict=True))
    most = 2 * DAY_MIN if schedule.over_midnight else DAY_MIN
    whole = any(closes - opens >= DAY_MIN for opens, closes in spans)
    return ((0, DAY_MIN),) if whole else tuple((opens, min(closes, most)) for opens, closes in spans)


def _together(schedule: Schedule, spans: list[tuple[int, int]]) -> list[tuple[int, int]]:
    """No more from–to than it knows: those that lie closest are made one."""
    while len(spans) > schedule.spans:
        gaps = [after[0] - one[1] for one, after in pairwise(spans)]
        at = gaps.index(min(gaps))
        spans[at : at + 2] = [(spans[at][0], spans[at + 1][1])]
    return spans


def taken(zone_name: str, menu: Menu) -> Floats:
    """When frames are taken in a run, Unix seconds: from each opening on, half open, as the windows are."""
    entries, zone = menu.entries, ZoneInfo(zone_name)
    every = float(entries.every_s)
    if entries.all_day:
        return np.asarray(menu.from_s + every * np.arange(max(0, -(-(menu.to_s - menu.from_s) // every))))
    first = _shown(int(menu.from_s), zone, entries.offset_s).date() - timedelta(days=1)
    last = _shown(int(menu.to_s), zone, entries.offset_s).date()
    opened = [
        (_moment(day, opens, zone, entries.offset_s), _moment(day, closes, zone, entries.offset_s))
        for day in (first + timedelta(days=number) for number in range((last - first).days + 1))
        if day.weekday() in entries.days
        for opens, closes in entries.spans
    ]
    runs = [low + every * np.arange(-(-(high - low) // every)) for low, high in united(opened) if high > low]
    all_ = np.concatenate(runs) if runs else np.zeros(0)
    return np.asarray(all_[(all_ >= menu.from_s) & (all_ < menu.to_s)])


def _moment(day: date, minute: int, zone: ZoneInfo, offset: int | None) -> int:
    if offset is None:
        return at_clock(day, minute, zone)
    return int(datetime(day.year, day.month, day.day, tzinfo=UTC).timestamp()) + minute * MIN_S - offset


@dataclass(frozen=True)
class Compared:
    """Planned frames that nobody takes, and frames that are taken besides, as Unix seconds that rise.

    `kept` is how many planned frames are taken, each within half its interval of when it should be.
    """

    missing: Floats
    surplus: Floats
    kept: int


def compared(times: Timeline, got: Floats) -> Compared:
    """Planned frames against those that are taken (Unix seconds): each planned one has the nearest that is in time."""
    planned = times.start_unix_s + times.starts_s
    if not len(got):
        return Compared(planned, got, 0)
    after = np.clip(np.searchsorted(got, planned), 0, len(got) - 1)
    before = np.maximum(after - 1, 0)
    nearest = np.where(np.abs(got[after] - planned) <= np.abs(got[before] - planned), after, before)
    there = np.abs(got[nearest] - planned) <= times.rooms_s / 2
    # One that is taken stands for one that is planned.
    used = np.zeros(len(got), dtype=bool)
    _, first = np.unique(nearest[there], return_index=True)
    kept = np.flatnonzero(there)[first]
    there = np.zeros(len(planned), dtype=bool)
    there[kept] = used[nearest[kept]] = True
    return Compared(planned[~there], got[~used], int(there.sum()))


@dataclass(frozen=True)
class ToldFrames:
    """What is taken over all runs, against the plan; `stopped` planned frames are missed while it is started again."""

    compared: Compared
    stopped: int


def told_frames(plan: Plan, times: Timeline, runs: Sequence[Menu]) -> ToldFrames:
    """The frames of all runs; while it is started again, for as long as a visit takes, none is taken."""
    away = float(plan.season.visiting.takes_s)
    # It is set up before the first frame: one of its own may come a little ahead of that.
    ahead = 0.0 if runs and runs[0].entries.all_day else float(times.rooms_s[0]) / 2
    got = [taken(times.zone, replace(one, from_s=one.from_s - ahead * (n == 0))) for n, one in enumerate(runs)]
    whole = compared(times, _joined(got))
    begins = [run.from_s + (away if number else -ahead) for number, run in enumerate(runs)]
    left = [frames[frames >= begin] for frames, begin in zip(got, begins, strict=True)]
    found = compared(times, _joined(left))
    return ToldFrames(found, len(found.missing) - len(whole.missing))


def _joined(frames: Sequence[Floats]) -> Floats:
    return np.concatenate(frames) if frames else np.zeros(0)
