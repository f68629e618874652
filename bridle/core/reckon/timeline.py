"""Which frames, when, with how much room, called by whom."""

import math
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from fractions import Fraction
from functools import cached_property
from typing import Literal, NamedTuple
from zoneinfo import ZoneInfo

import numpy as np

from bridle.core.plan.document import Plan
from bridle.core.subjects.numbers.arrays import Floats

Calls = Literal["clock", "layer", "event", "hand"]
MS = 1000


class Run(NamedTuple):
    """A stretch without a gap: its first frame (0-based), its frames, when it begins, and its interval where even.

    Times are seconds after the shoot's first frame. Where `every_s` is empty the timeline's starts say when.
    """

    first: int
    frames: int
    at_s: Fraction
    every_s: Fraction | None


# Told apart by which it is: one stands in many plans of a drag, and what follows from it is kept beside it.
@dataclass(frozen=True, eq=False)
class Timeline:
    """When each frame is taken (`starts_s`), and how much room its beat has (`rooms_s`), in seconds; shape (frames,).

    A night between two windows is part of no beat. `runs` are the stretches without a gap; `end_s` is the end of
    the last frame's slot; `interval_s` is the interval, or its mean.
    """

    start: datetime
    zone: str
    starts_s: Floats
    rooms_s: Floats
    runs: tuple[Run, ...]
    end_s: Fraction
    interval_s: Fraction
    calls: Calls = "clock"

    @property
    def frames(self) -> int:
        """How many frames there are."""
        return len(self.starts_s)

    @property
    def even(self) -> bool:
        """Whether one interval goes through from the first frame to the last."""
        return len(self.runs) == 1 and self.runs[0].every_s is not None

    def elapsed_s(self, frame: int) -> Fraction:
        """Seconds from the first frame to a frame, or to the end of the last slot; exact."""
        if frame >= self.frames:
            return self.end_s
        run = self._run_of(frame)
        if run.every_s is not None:
            return run.at_s + (frame - run.first) * run.every_s
        return Fraction(round(float(self.starts_s[frame]) * MS), MS)

    def room_s(self, frame: int) -> Fraction:
        """How much room a frame's beat has; exact."""
        every = self._run_of(frame).every_s
        return Fraction(round(float(self.rooms_s[frame]) * MS), MS) if every is None else every

    def clock(self, frame: int) -> datetime:
        """When a frame's shutter opens, on the place's own clock."""
        return instant(self.start, self.elapsed_s(frame), self.zone)

    def unix_s(self, frame: int) -> float:
        """The same as a Unix time."""
        return self.start_unix_s + float(self.starts_s[frame] if frame < self.frames else self.end_s)

    def holds(self, when: datetime) -> bool:
        """Whether a moment falls into the shoot, nights between its windows included."""
        return 0 <= when.timestamp() - self.start_unix_s < self.end_s

    def keeping(self, moments: list[datetime]) -> tuple[float, float]:
        """By how few and how many seconds it can be shifted so that it still holds what it holds of these moments.

        The least is negative (earlier) or 0; with none of them in it there is no limit.
        """
        after = [when.timestamp() - self.start_unix_s for when in moments if self.holds(when)]
        if not after:
            return -math.inf, math.inf
        return max(after) - float(self.end_s) + 1 / MS, min(after)

    @cached_property
    def start_unix_s(self) -> float:
        """When the first frame's shutter opens, as a Unix time."""
        return self.start.timestamp()

    def _run_of(self, frame: int) -> Run:
        if len(self.runs) == 1:
            return self.runs[0]
        return self.runs[int(np.searchsorted(self._firsts, frame, side="right")) - 1]

    @cached_property
    def _firsts(self) -> Floats:
        return np.array([run.first for run in self.runs], dtype=np.float64)

    @cached_property
    def map(self) -> tuple[Floats, Floats]:
        """Frames and seconds between which straight lines tell when a frame is, to the millisecond.

        At a gap the same frame stands twice: at the end of the slot before it, and at its own start.
        """
        frames, seconds = zip(*(self._knots(run) for run in self.runs), strict=True)
        return np.concatenate(frames), np.concatenate(seconds)

    def _knots(self, run: Run) -> tuple[Floats, Floats]:
        """The ends of a run, and the frames within it at which the interval changes."""
        last = run.first + run.frames
        if run.every_s is not None:
            ends = run.at_s, run.at_s + run.frames * run.every_s
            return np.array([run.first, last], dtype=np.float64), np.array(ends, dtype=np.float64)
        at = np.append(self.starts_s[run.first : last], self.starts_s[last - 1] + self.rooms_s[last - 1])
        bends = np.flatnonzero(np.abs(np.diff(at, n=2)) > 0.5 / MS) + 1
        kept = np.concatenate(([0], bends, [run.frames]))
        return run.first + kept.astype(np.float64), at[kept]

    def frame_at(self, elapsed_s: float) -> float:
        """The frame (0-based, with the share of its slot) that owns a moment; below 0 and past the end go on evenly.

        Between two stretches it stands at the first frame of the later one.
        """
        if self.even:
            return elapsed_s / float(self.interval_s)
        if elapsed_s < 0:
            return float(elapsed_s / self.rooms_s[0])
        if elapsed_s > self.end_s:
            return float(self.frames + (elapsed_s - float(self.end_s)) / self.rooms_s[-1])
        frames, seconds = self.map
        return float(np.interp(elapsed_s, seconds, frames))


def instant(start: datetime, seconds: Fraction, zone: str) -> datetime:
    """So many elapsed seconds after the start, through any change of the clocks."""
    elapsed = timedelta(microseconds=round(seconds * 1_000_000))
    return (start.astimezone(UTC) + elapsed).astimezone(ZoneInfo(zone))


def first_frame(plan: Plan, shoot_s: Fraction) -> datetime:
    """When the first shutter opens: as the clock holds it, or so that the held finish is met."""
    clock, zone = plan.shoot.clock, plan.shoot.place.zone
    return instant(clock.at, Fraction(0) if clock.holds == "start" else -shoot_s, zone)
