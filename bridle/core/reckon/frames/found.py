"""What a source of frames makes of what is held: a solution, or why there is none."""

from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from bridle.core.plan.clip import RANGES, Clip, Quantity
from bridle.core.plan.document import Plan
from bridle.core.subjects.time import sentence
from bridle.core.subjects.time.sentence import Conflict, Solution

USUAL_RATE = Fraction(25)
MOST_FRAMES = 1_000_000
FOLLOWING: tuple[Quantity, ...] = ("rate", "interval", "clip", "shoot", "speed_up")


@dataclass(frozen=True)
class Found:
    """What is held comes to this. `free` and `conflict` say why there is nothing yet; `frames` counts too many."""

    solution: Solution | None = None
    free: tuple[str, ...] = ()
    conflict: Conflict | None = None
    frames: int = 0

    @property
    def missing(self) -> tuple[str, ...]:
        """The quantities that are open, or contradict one another."""
        return self.conflict.names if self.conflict else self.free

    @property
    def too_many(self) -> bool:
        """Whether there are more frames than are worked out."""
        return self.frames > MOST_FRAMES

    @property
    def beyond(self) -> tuple[Quantity, ...]:
        """Quantities that follow, but that no shoot can have."""
        if self.solution is None:
            return ()
        found: list[Quantity] = []
        for name in FOLLOWING:
            low, high, _sentence = RANGES[name]
            if not low < self.solution.value(name) <= high:
                found.append(name)
        return tuple(found)

    @property
    def usable(self) -> Solution | None:
        """The solution, where a shoot can be worked out from it."""
        return None if self.too_many or self.beyond else self.solution


def calls_of(plan: Plan) -> Literal["clock", "event"]:
    """Who calls the frames where an interval says when they are meant to come."""
    return plan.clip.called_by


def rate_of(plan: Plan) -> Fraction:
    """The playback rate that is held, or the usual one."""
    return next((peg.value for peg in plan.clip.pegs if peg.quantity == "rate"), USUAL_RATE)


def keep_of(clip: Clip) -> Fraction:
    """The share of the frames that stays after culling."""
    return 1 - clip.spare


def by_count(plan: Plan, frames: int, shoot_s: Fraction, interval_s: Fraction, source: str) -> Solution:
    """All six quantities where the source says how many frames there are, and how long the shoot is."""
    rate, kept = rate_of(plan), sentence.kept_frames(frames, keep_of(plan.clip))
    estimate = sentence.Estimate((source,), Fraction(frames))
    return Solution(shoot_s, interval_s, frames, rate, kept / rate, interval_s * rate, estimate, kept)
