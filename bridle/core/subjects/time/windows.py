"""Work windows on a place's own clock: when rules open and close, and what is left of each beside the others.

Times are whole Unix seconds. A window is half open: a frame may begin when it opens, none when it closes.
"""

from bisect import bisect_left
from collections.abc import Iterable, Iterator, Sequence
from datetime import UTC, date, datetime, time, timedelta
from fractions import Fraction
from typing import NamedTuple
from zoneinfo import ZoneInfo

DAY_MIN = 24 * 60


class Span(NamedTuple):
    """From when to when a rule has a window."""

    opens: int
    closes: int
    rule: int


def at_clock(day: date, minute: int, zone: ZoneInfo) -> int:
    """When a clock on the wall first shows a minute of a day (1440: the next midnight), as a Unix time.

    A minute that is left out when the clocks go forward is that moment; of one that comes twice it is the first.
    """
    whole, rest = divmod(minute, DAY_MIN)
    naive = datetime.combine(day + timedelta(days=whole), time(rest // 60, rest % 60))
    early, late = sorted(int(naive.replace(tzinfo=zone, fold=fold).timestamp()) for fold in (0, 1))
    if early == late or datetime.fromtimestamp(early, UTC).astimezone(zone).replace(tzinfo=None) == naive:
        return early
    return _changes(early, late, zone)


def _changes(low: int, high: int, zone: ZoneInfo) -> int:
    """The second between two at which the clocks are changed."""
    before = datetime.fromtimestamp(low, zone).utcoffset()
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (middle, high) if datetime.fromtimestamp(middle, zone).utcoffset() == before else (low, middle)
    return high


def days(first: date, last: date, weekdays: Iterable[int]) -> Iterator[date]:
    """Those days from the first to the last one, both of them counted (0 is Monday)."""
    on = set(weekdays)
    for number in range((last - first).days + 1):
        day = first + timedelta(days=number)
        if day.weekday() in on:
            yield day


def closing_day(day: date, opens_min: int, closes_min: int, closes_on: int | None) -> date:
    """The day on which a window that opens on a day closes: a weekday after it, the same day, or the next."""
    past_midnight = closes_min <= opens_min
    if closes_on is None:
        return day + timedelta(days=past_midnight)
    ahead = (closes_on - day.weekday()) % 7
    return day + timedelta(days=7 if ahead == 0 and past_midnight else ahead)


def without(spans: Iterable[Span], taken: Sequence[tuple[int, int]]) -> Iterator[Span]:
    """What is left of spans beside what is taken: pairs in order, none of which reach into one another."""
    ends = [end for _, end in taken]
    for span in spans:
        at = span.opens
        for begin, end in taken[bisect_left(ends, span.opens + 1) :]:
            if begin >= span.closes:
                break
            if begin > at:
                yield Span(at, begin, span.rule)
            at = max(at, end)
        if at < span.closes:
            yield Span(at, span.closes, span.rule)


def united(spans: Iterable[tuple[int, int]]) -> list[tuple[int, int]]:
    """Spans in order, those that touch or overlap made one."""
    made: list[tuple[int, int]] = []
    for begin, end in sorted(spans):
        if made and begin <= made[-1][1]:
            made[-1] = made[-1][0], max(made[-1][1], end)
        else:
            made.append((begin, end))
    return made


def ranked(rules: Iterable[Iterable[tuple[int, int]]], off: Sequence[tuple[int, int]]) -> list[Span]:
    """What each rule has of the time, in order: a moment belongs to the first rule that claims it; none to days off."""
    taken, made = united(off), []
    for number, spans in enumerate(rules):
        # A rule that reaches into its own next window goes on with it.
        own = [Span(begin, end, number) for begin, end in united(spans)]
        left = list(without(own, taken))
        made += left
        taken = united([*taken, *((span.opens, span.closes) for span in left)])
    return sorted(made)


def frames_in(length_s: int, every_s: Fraction, followed: bool) -> int:
    """How many frames begin in a window: one at its opening and one after each interval, none at its closing.

    Where another window follows at once, only those whose interval ends before it begins.
    """
    return int(length_s // every_s) if followed else -int(-length_s // every_s)
