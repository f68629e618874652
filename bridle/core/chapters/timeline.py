"""Which frames, when: from the clock alone in this version."""

from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta
from fractions import Fraction
from zoneinfo import ZoneInfo

from bridle.core.chapters.clip import ClipAnswer
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.shoot import Shoot

LAST = Formula("start + (frames - 1) * interval", "the last shutter opens one interval before the end")
FINISH = Formula("start + frames * interval", "every frame owns one slot, the last one too")


@dataclass(frozen=True)
class TimelineAnswer:
    """Start, interval and count of the frames; frame `k` is taken at `start + k·interval`."""

    start: datetime
    zone: str
    interval_s: Fraction
    frames: int
    figures: list[Figure] = field(default_factory=list)

    def clock(self, frame: int) -> datetime:
        """When a frame's shutter opens, on the place's own clock."""
        return instant(self.start, frame * self.interval_s, self.zone)


def instant(start: datetime, seconds: Fraction, zone: str) -> datetime:
    """So many elapsed seconds after the start, through any change of the clocks."""
    elapsed = timedelta(microseconds=round(seconds * 1_000_000))
    return (start.astimezone(UTC) + elapsed).astimezone(ZoneInfo(zone))


def answer(shoot: Shoot, clip: ClipAnswer) -> TimelineAnswer | None:
    """The frames in time; None while the clip is open."""
    solution = clip.solution
    if solution is None:
        return None
    start = term("start", "start", shoot.start.timestamp(), "instant")
    frames = term("frames", "frames", solution.frames, "frames")
    interval = term("interval", "interval", solution.interval, "s")
    last = shoot.start.timestamp() + float((solution.frames - 1) * solution.interval)
    finish = shoot.start.timestamp() + float(solution.frames * solution.interval)
    figures = [
        figure("time.last", "last frame", last, "instant", LAST, start, frames, interval),
        figure("time.finish", "finished", finish, "instant", FINISH, start, frames, interval),
    ]
    return TimelineAnswer(shoot.start, shoot.place.zone, solution.interval, solution.frames, figures)
