"""A long run hour by hour: how many frames begin, how much of the hour work windows lie open, whether it is night."""

import math
from dataclasses import dataclass
from datetime import UTC, date, datetime
from functools import lru_cache
from zoneinfo import ZoneInfo

import numpy as np
from numpy.typing import NDArray

from bridle.core.plan.document import Plan
from bridle.core.plan.frames import Windows
from bridle.core.reckon.scene import placed
from bridle.core.reckon.season.told import Entries, Menu, entries_of, taken
from bridle.core.reckon.timeline import Timeline
from bridle.core.subjects.light import sky
from bridle.core.subjects.numbers.arrays import Floats

HOUR_S = 3600
DAY_S = 86_400
SUN_UP_DEG = -0.833
LONG_S = 2 * DAY_S
KINDS = ("site", "grow")


@dataclass(frozen=True, eq=False)
class Hours:
    """The hours of a season from its first frame on; arrays have one entry an hour.

    Frames are taken at `starts_s` (seconds from the first planned one), `frames` in each hour; `open_share` of it
    is within work windows (all of it where there are none). The sun is that of its middle; None where nobody knows the
    place.
    """

    start_s: float
    zone: str
    starts_s: Floats
    frames: NDArray[np.int64]
    open_share: Floats
    sun_azimuth: Floats | None
    sun_altitude: Floats | None

    @property
    def count(self) -> int:
        """How many hours there are."""
        return len(self.frames)

    @property
    def night(self) -> Floats | None:
        """1 where the sun is down, 0 where it is up."""
        return None if self.sun_altitude is None else np.asarray((self.sun_altitude < SUN_UP_DEG).astype(np.float64))

    def day(self, hour: int) -> date:
        """On which day of the place's calendar an hour begins."""
        return datetime.fromtimestamp(self.start_s + hour * HOUR_S, UTC).astimezone(ZoneInfo(self.zone)).date()

    def hour_of(self, unix_s: float) -> float:
        """In which hour a moment lies, with the share of it that has gone."""
        return (unix_s - self.start_s) / HOUR_S


def is_long(plan: Plan, times: Timeline) -> bool:
    """Whether a shoot is a long run: in work windows, on a site, of what grows, or of days; a print is none."""
    if times.calls == "layer":
        return False
    called = isinstance(plan.frames, Windows) or plan.shoot.kind in KINDS
    return called or float(times.end_s) > LONG_S


def season_hours(plan: Plan, times: Timeline) -> Hours:
    """The hours of a plan's season, from its first frame to the end of its last."""
    return _hours(times, placed(plan), entries_of(plan, times))


@lru_cache(maxsize=4)
def _hours(times: Timeline, place: tuple[float, float] | None, told: Entries | None) -> Hours:
    count = max(1, math.ceil(float(times.end_s) / HOUR_S))
    starts = times.starts_s
    if told is not None:
        start = times.start_unix_s
        starts = taken(times.zone, Menu(start, start + float(times.end_s), told)) - start
    frames = np.bincount((starts // HOUR_S).astype(np.int64), minlength=count)[:count]
    azimuth = altitude = None
    if place is not None:
        azimuth, altitude = sky.sun(*place, times.start_unix_s + HOUR_S * np.arange(0.5, count))
    open_share = _open_share(times, count) if told is None or not told.all_day else np.ones(count)
    return Hours(times.start_unix_s, times.zone, starts, frames, open_share, azimuth, altitude)


def _open_share(times: Timeline, count: int) -> Floats:
    """How much of each hour lies between the beginning of a stretch without a gap and its end."""
    edges = np.arange(0.0, count + 1) * HOUR_S
    begins = np.array([float(run.at_s) for run in times.runs])
    ends = np.array([_end_s(times, n) for n in range(len(times.runs))])
    lengths = np.concatenate(([0.0], np.cumsum(ends - begins)))

    def open_until(moment: Floats) -> Floats:
        before = np.searchsorted(begins, moment, side="right")
        inside = np.where(before > 0, np.minimum(moment, ends[before - 1]) - begins[before - 1], 0.0)
        return np.asarray(lengths[np.maximum(before - 1, 0)] + np.maximum(inside, 0.0))

    return np.asarray(np.diff(open_until(edges)) / HOUR_S)


def _end_s(times: Timeline, number: int) -> float:
    run = times.runs[number]
    if run.every_s is not None:
        return float(run.at_s + run.frames * run.every_s)
    last = run.first + run.frames - 1
    return float(times.starts_s[last] + times.rooms_s[last])
