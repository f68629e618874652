"""The clip in numbers, whatever the frames come from."""

from fractions import Fraction
from typing import Protocol

from bridle.core.plan.document import Plan
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
    """The frames in time, of a clip that is solved."""
    return source_of(plan).resolve(plan, solution)


def holds_of(plan: Plan) -> dict[str, Fraction]:
    """The held quantities by name; where layers say how many frames there are, only the playback rate is."""
    if plan.frames.source == "windows":
        return windows.holds_of(plan)
    return even.holds_of(plan.clip) if plan.frames.source == "even" else {"rate": rate_of(plan)}
