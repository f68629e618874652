"""Which frames, when: from the clock, or from an interval that changes over the shoot."""

from collections.abc import Iterator
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta
from fractions import Fraction
from typing import Any
from zoneinfo import ZoneInfo

import numpy as np
from numpy.typing import NDArray

from bridle.core.chapters.clip import ClipAnswer
from bridle.core.figure import Figure, Formula, Term, figure, term
from bridle.core.plan.document import Plan
from bridle.core.subjects import pacing
from bridle.core.subjects.clip import Solution

FIRST_HELD = Formula("held", "held by the clock, as typed")
FIRST = Formula("finish - shoot", "the finish is held: the shoot ends there")
LAST = Formula("start + (frames - 1) * interval", "the last shutter opens one interval before the end")
LAST_RAMPED = Formula("finish - last", "the last shutter opens one slot before the end")
FINISH = Formula("start + frames * interval", "every frame owns one slot, the last one too")
FINISH_RAMPED = Formula("start + shoot", "the slots of all frames, one after another")
PRESS = Formula("start - delay", "the delay runs from the press to the first frame")
EARLIEST = Formula("start + shoot * (1 - spread)", "if every frame is called that much early")
LATEST = Formula("start + shoot * (1 + spread)", "if every frame is called that much late")


@dataclass(frozen=True)
class TimelineAnswer:
    """Start and count of the frames, and when each one is taken; `interval_s` is the mean where it changes."""

    start: datetime
    zone: str
    interval_s: Fraction
    frames: int
    pace: pacing.Pace | None = None
    figures: list[Figure] = field(default_factory=list)

    def elapsed_s(self, frame: int) -> Fraction:
        """Seconds from the first frame to a frame, or to the end of the last slot."""
        if self.pace is None:
            return frame * self.interval_s
        return Fraction(int(self.pace.starts_ms[frame]), 1000)

    def starts_s(self) -> NDArray[np.float64]:
        """When each frame is taken, in seconds after the first, shape (frames,)."""
        if self.pace is None:
            return np.arange(self.frames, dtype=np.float64) * float(self.interval_s)
        return self.pace.starts_ms[:-1].astype(np.float64) / 1000

    def clock(self, frame: int) -> datetime:
        """When a frame's shutter opens, on the place's own clock."""
        return instant(self.start, self.elapsed_s(frame), self.zone)

    def slots_s(self) -> NDArray[np.float64]:
        """The slot of each frame in seconds, shape (frames,)."""
        if self.pace is None:
            return np.full(self.frames, float(self.interval_s))
        return self.pace.intervals_s()

    def frame_at(self, elapsed_s: float) -> float:
        """The frame (0-based, with the share of its slot) that owns a moment; below 0 and past the end go on evenly."""
        if self.pace is None:
            return elapsed_s / float(self.interval_s)
        starts = self.pace.starts_ms / 1000
        if elapsed_s < 0:
            return float(elapsed_s / (starts[1] - starts[0]))
        if elapsed_s > starts[-1]:
            return float(self.frames + (elapsed_s - starts[-1]) / (starts[-1] - starts[-2]))
        return float(np.interp(elapsed_s, starts, np.arange(self.frames + 1)))


def instant(start: datetime, seconds: Fraction, zone: str) -> datetime:
    """So many elapsed seconds after the start, through any change of the clocks."""
    elapsed = timedelta(microseconds=round(seconds * 1_000_000))
    return (start.astimezone(UTC) + elapsed).astimezone(ZoneInfo(zone))


def first_frame(plan: Plan, solution: Solution) -> datetime:
    """When the first shutter opens: as the clock holds it, or so that the held finish is met."""
    clock, zone = plan.shoot.clock, plan.shoot.place.zone
    return instant(clock.at, Fraction(0) if clock.holds == "start" else -solution.shoot, zone)


def answer(plan: Plan, clip: ClipAnswer) -> TimelineAnswer | None:
    """The frames in time; None while the clip is open."""
    solution = clip.solution
    if solution is None:
        return None
    start = first_frame(plan, solution)
    told = TimelineAnswer(start, plan.shoot.place.zone, solution.interval, solution.frames, clip.pace)
    figures = [*_ends(plan, solution, told), *_press(plan, start), *_range(plan, solution, start)]
    return TimelineAnswer(start, told.zone, told.interval_s, told.frames, clip.pace, figures)


def at_term(symbol: str, label: str, at: datetime) -> Term:
    """An instant as a term of a formula."""
    return term(symbol, label, at.timestamp(), "instant")


def _ends(plan: Plan, solution: Solution, told: TimelineAnswer) -> Iterator[Figure]:
    start, finish = told.start, told.clock(told.frames)
    shoot, frames = term("shoot", "shoot length", solution.shoot, "s"), term("frames", "frames", told.frames, "frames")
    interval = term("interval", "interval", told.interval_s, "s")
    first = at_term("start", "first frame", start)
    held = (at_term("held", f"{plan.shoot.clock.holds}, held", plan.shoot.clock.at),)
    backwards = plan.shoot.clock.holds == "finish"
    by = (at_term("finish", "finish, held", finish), shoot)
    yield figure(
        "time.first", "first frame", start.timestamp(), "instant", *((FIRST, *by) if backwards else (FIRST_HELD, *held))
    )
    last = told.clock(told.frames - 1).timestamp()
    if told.pace is None:
        yield figure("time.last", "last frame", last, "instant", LAST, first, frames, interval)
        rule: tuple[Any, ...] = (FINISH, first, frames, interval)
    else:
        end = (
            at_term("finish", "finish", finish),
            term("last", "slot of the last frame", finish.timestamp() - last, "s"),
        )
        yield figure("time.last", "last frame", last, "instant", LAST_RAMPED, *end)
        rule = (FINISH_RAMPED, first, shoot)
    yield figure(
        "time.finish", "finished", finish.timestamp(), "instant", *((FIRST_HELD, *held) if backwards else rule)
    )


def _press(plan: Plan, start: datetime) -> Iterator[Figure]:
    """When to press start, and the errands before it, counted backwards."""
    clock, zone = plan.shoot.clock, plan.shoot.place.zone
    delay = term("delay", "start delay", clock.start_delay_s, "s")
    at = instant(start, -clock.start_delay_s, zone)
    yield figure(
        "time.press", "press start", at.timestamp(), "instant", PRESS, at_term("start", "first frame", start), delay
    )
    after = "press start"
    for number in reversed(range(len(clock.errands))):
        errand = clock.errands[number]
        rule = Formula("next - length", f"done before it is time to {after}")
        terms = (at_term("next", after, at), term("length", errand.name, errand.length_s, "s"))
        at, after = instant(at, -errand.length_s, zone), errand.name
        yield figure(f"time.errand.{number}", errand.name, at.timestamp(), "instant", rule, *terms)


def _range(plan: Plan, solution: Solution, start: datetime) -> Iterator[Figure]:
    """The earliest and the latest finish where an event calls the frames."""
    if plan.clip.called_by == "clock":
        return
    spread = plan.clip.event_spread
    terms = (
        at_term("start", "first frame", start),
        term("shoot", "shoot length", solution.shoot, "s"),
        term("spread", "frames come early or late by", spread, "share"),
    )
    for name, label, rule, factor in (
        ("earliest", "finished at the earliest", EARLIEST, 1 - spread),
        ("latest", "finished at the latest", LATEST, 1 + spread),
    ):
        at = instant(start, solution.shoot * factor, plan.shoot.place.zone)
        yield figure(f"time.{name}", label, at.timestamp(), "instant", rule, *terms)
