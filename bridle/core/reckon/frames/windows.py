"""Frames within daily work windows: an even interval by day, nothing in the nights and on days off between."""

from collections.abc import Iterator
from datetime import UTC, date, datetime, time, timedelta
from fractions import Fraction
from functools import lru_cache
from typing import NamedTuple
from zoneinfo import ZoneInfo

import numpy as np

from bridle.core.plan.document import Plan
from bridle.core.plan.frames import DAY_MIN, Windows
from bridle.core.reckon.frames.found import Found, by_count
from bridle.core.reckon.timeline import Run, Timeline
from bridle.core.subjects.time.sentence import Solution


class Window(NamedTuple):
    """One day's window: when it opens, and how many frames fit into it, each with its whole slot."""

    opens: datetime
    frames: int


@lru_cache(maxsize=8)
def windows_of(frames: Windows, zone: str) -> tuple[Window, ...]:
    """The windows that hold a frame at all, one after another; in UTC. Through changes of the clocks."""
    return tuple(window for window in _each(frames, zone) if window.frames)


def _each(frames: Windows, zone: str) -> Iterator[Window]:
    free: datetime | None = None
    for number in range((frames.last - frames.first).days + 1):
        day = frames.first + timedelta(days=number)
        if day.weekday() not in frames.weekdays:
            continue
        opens, closes = (_at(day, minute, zone) for minute in (frames.opens_min, frames.closes_min))
        if frames.closes_min <= frames.opens_min:
            closes = _at(day + timedelta(days=1), frames.closes_min, zone)
        # On the night of a change of the clocks one window may run into the next.
        opens = max(opens, free) if free else opens
        length = Fraction(int((closes - opens).total_seconds()))
        window = Window(opens, max(0, int(length // frames.every_s)))
        free = opens + timedelta(seconds=float(window.frames * frames.every_s))
        yield window


def _at(day: date, minute: int, zone: str) -> datetime:
    """A minute of a day on the place's own clock, as UTC."""
    whole, rest = divmod(minute, DAY_MIN)
    local = datetime.combine(day + timedelta(days=whole), time(rest // 60, rest % 60), ZoneInfo(zone))
    return local.astimezone(UTC)


def find(plan: Plan) -> Found:
    """As many frames as the windows hold, from the first window's opening to the end of the last frame's slot."""
    frames = _source(plan)
    windows = windows_of(frames, plan.shoot.place.zone)
    count = sum(window.frames for window in windows)
    if not windows:
        return Found(free=("frames",))
    last = windows[-1]
    shoot = Fraction(int((last.opens - windows[0].opens).total_seconds())) + last.frames * frames.every_s
    return Found(by_count(plan, count, shoot, frames.every_s, "windows"), frames=count)


def resolve(plan: Plan, solution: Solution) -> Timeline:
    """The frames in time: a run for each window, a gap before the next. The room of a beat is the interval."""
    frames, windows = _source(plan), windows_of(_source(plan), plan.shoot.place.zone)
    start, every = windows[0].opens, float(frames.every_s)
    runs, first = [], 0
    for window in windows:
        runs.append(Run(first, window.frames, Fraction(int((window.opens - start).total_seconds())), frames.every_s))
        first += window.frames
    starts = [float(run.at_s) + np.arange(run.frames) * every for run in runs]
    return Timeline(
        start=start.astimezone(ZoneInfo(plan.shoot.place.zone)),
        zone=plan.shoot.place.zone,
        starts_s=np.concatenate(starts),
        rooms_s=np.full(first, every),
        runs=tuple(runs),
        end_s=solution.shoot,
        interval_s=frames.every_s,
    )


def _source(plan: Plan) -> Windows:
    assert isinstance(plan.frames, Windows)
    return plan.frames
