"""The clip in numbers, whatever the frames come from."""

from fractions import Fraction
from functools import lru_cache
from typing import Protocol

from bridle.core.plan.clip import Clip
from bridle.core.plan.document import Plan
from bridle.core.plan.frames import Frames
from bridle.core.plan.shoot import Shoot
from bridle.core.reckon.frames import changing, even, layers, windows
from bridle.core.reckon.frames.found import Found, rate_of
from bridle.core.reckon.timeline import Timeline
from bridle.core.subjects.time.sentence import Solution


class Source(Protocol):
    """A source of frames: what it comes to, and when its frames are."""

    def find(self, plan: Plan) -> Found:
        """The solution, or why there is none."""

    def resolve(self, plan: Plan, solution: Solution) -> Timeline:
        """The frames in time."""


# Timelines of at most so many frames are kept from one evaluation to the next: a few megabytes.
MOST_KEPT = 100_000
SOURCES: dict[str, Source] = {"even": even, "changing": changing, "windows": windows, "layers": layers}


def source_of(plan: Plan) -> Source:
    """Where the frames of a plan come from."""
    return SOURCES[plan.frames.source]


def find(plan: Plan) -> Found:
    """What is held comes to this."""
    return source_of(plan).find(plan)


def solved(plan: Plan) -> tuple[Solution | None, tuple[str, ...]]:
    """The solution alone, or the quantities that contradict or are free."""
    found = find(plan)
    return found.solution, found.missing


def resolve(plan: Plan, solution: Solution) -> Timeline:
    """The frames in time, of a clip that is solved. The same in one plan after another, where nothing of it changes."""
    # How long the stops of a print take follows from its cards and its beat as well.
    if solution.frames > MOST_KEPT or plan.frames.source == "layers":
        return source_of(plan).resolve(plan, solution)
    return _resolved(plan.clip, plan.frames, plan.shoot)


@lru_cache(maxsize=4)
def _resolved(clip: Clip, frames: Frames, shoot: Shoot) -> Timeline:
    plan = Plan(shoot=shoot, clip=clip, frames=frames)
    solution = find(plan).solution
    assert solution is not None
    return source_of(plan).resolve(plan, solution)


def holds_of(plan: Plan) -> dict[str, Fraction]:
    """The held quantities by name; where layers say how many frames there are, only the playback rate is."""
    if plan.frames.source == "windows":
        return windows.holds_of(plan)
    return even.holds_of(plan.clip) if plan.frames.source == "even" else {"rate": rate_of(plan)}
