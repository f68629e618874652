"""Searching for the nearest pose or moment at which something does not happen."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace
from typing import TypeVar

import numpy as np
from numpy.typing import NDArray

from bridle.core.plan.document import Plan
from bridle.core.reckon.sky import Sun
from bridle.core.reckon.timeline import Timeline
from bridle.core.subjects.optics.projecting import Poses

T = TypeVar("T")
MOST_FRAMES = 300
MOST_LOOKS = 3


def some_frames(frames: int, runs: tuple[tuple[int, int], ...]) -> NDArray[np.int64]:
    """Frames on which a fix is tried first: some hundred, evenly spread, and the ends of where it is needed."""
    if frames <= MOST_FRAMES:
        return np.arange(frames)
    even = np.linspace(0, frames - 1, MOST_FRAMES).astype(np.int64)
    return np.unique(np.concatenate([even, np.array(runs, dtype=np.int64).ravel()]))


@dataclass(frozen=True)
class Search:
    """A search for what keeps the sun away: tried on some frames, and on all of them before it is offered.

    `spared` is what the picture has to be rid of afterwards; `rig_seen` whether the rig stands in it already.
    """

    spared: tuple[str, ...]
    rig_seen: bool
    plan: Plan
    at: Poses
    times: Timeline
    sun: Sun
    some: NDArray[np.int64]

    def first(self, tries: Iterable[T], helps: Callable[[T, Poses, Sun | None], bool]) -> T | None:
        """The first that helps. Few are looked at in full: what fails there a few times is given up."""
        few = self.at.some(self.some)
        sun_few = Sun(self.sun.azimuth[self.some], self.sun.altitude[self.some])
        looks = 0
        for attempt in tries:
            if not helps(attempt, few, sun_few):
                continue
            if len(self.some) == len(self.at) or helps(attempt, self.at, self.sun):
                return attempt
            looks += 1
            if looks == MOST_LOOKS:
                return None
        return None


def tilted_by(at: Poses, by: float) -> Poses:
    """The same poses with the camera tilted up by so many degrees."""
    return replace(at, tilt=at.tilt + by)
