"""The season as cloth: days across, hours down, each window where it lies, the sun behind it."""

from collections.abc import Iterator, Sequence
from datetime import UTC, date, datetime, timedelta
from itertools import pairwise
from zoneinfo import ZoneInfo

import numpy as np

from bridle.core.plan.frames import Windows
from bridle.core.reckon.frames.windows import Sky, Where
from bridle.core.reckon.timeline import Timeline
from bridle.core.subjects.time.windows import DAY_MIN, Span, at_clock

SUN_EVERY = 7


def calendar_days(frames: Windows, spans: Sequence[Span], zone: str) -> list[date]:
    """Each day from the first one of the rules to the last on which a window lies open."""
    last = frames.last
    if spans:
        last = max(last, datetime.fromtimestamp(spans[-1].closes - 1, ZoneInfo(zone)).date())
    return [frames.first + timedelta(days=number) for number in range((last - frames.first).days + 1)]


def midnights(days: Sequence[date], zone: str) -> list[int]:
    """When each day begins, and when the last one ends; Unix seconds."""
    local = ZoneInfo(zone)
    return [at_clock(day, 0, local) for day in days] + [at_clock(days[-1], DAY_MIN, local)]


def per_day(times: Timeline, begins: Sequence[int]) -> tuple[int, ...]:
    """How many frames begin on each day."""
    counts = np.diff(np.searchsorted(times.start_unix_s + times.starts_s, np.array(begins)))
    return tuple(int(count) for count in counts)


def inked(spans: Sequence[Span], begins: Sequence[int], zone: str) -> Iterator[int]:
    """Every window cut at midnight: day, from minute, to minute, rule. Minutes are those that the clock shows."""
    local, day = ZoneInfo(zone), 0
    for span in spans:
        while begins[day + 1] <= span.opens:
            day += 1
        at = day
        while at < len(begins) - 1 and begins[at] < span.closes:
            low, high = max(span.opens, begins[at]), min(span.closes, begins[at + 1])
            yield from (at, _minute(low, local), DAY_MIN if high == begins[at + 1] else _minute(high, local), span.rule)
            at += 1


def _minute(moment: int, local: ZoneInfo) -> int:
    shown = datetime.fromtimestamp(moment, UTC).astimezone(local)
    return shown.hour * 60 + shown.minute


def sun_of(days: Sequence[date], zone: str, where: Where) -> Iterator[int]:
    """Sunrise and sunset of every seventh day, as minutes of the clock; −1 where the sun does not."""
    if where is None or not days:
        return
    sky, local = Sky(zone, where, days[0], days[-1]), ZoneInfo(zone)
    for day in days[::SUN_EVERY]:
        for which in ("sunrise", "sunset"):
            turn = sky.turn(day, which)
            yield -1 if turn is None else _minute(turn, local)


def longest_gap(spans: Sequence[Span]) -> tuple[int, int] | None:
    """From when to when nothing is open longest; None with fewer than two windows."""
    gaps = [(after.opens - one.closes, one.closes, after.opens) for one, after in pairwise(spans)]
    return max(gaps)[1:] if gaps else None
