"""Frames called by the layers of a print: each when its layer is done, however long that takes."""

from fractions import Fraction
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from bridle.core.plan.document import Plan
from bridle.core.plan.frames import Layers
from bridle.core.reckon.frames.found import Found, by_count
from bridle.core.reckon.printing import chosen, stop_s
from bridle.core.reckon.timeline import MS, Run, Timeline, first_frame
from bridle.core.subjects.time.sentence import Solution


@lru_cache(maxsize=8)
def starts_ms(frames: Layers, stop_s: Fraction) -> NDArray[np.int64]:
    """When the layers are done at which a frame is taken, after the first; last the end of the print.

    In whole milliseconds, shape (frames + 1,); each frame's stop takes `stop_s` before printing goes on.
    """
    done = np.cumsum([round(length * MS) for length in frames.layers_s])
    called = done[np.array(chosen(frames)) - 1]
    stops = np.arange(len(called) + 1) * round(stop_s * MS)
    # What comes after the last frame is the rest of the print; where that is nothing, as much as its layer took.
    rest = int(done[-1]) - int(called[-1])
    end = int(called[-1]) + (rest or round(frames.layers_s[-1] * MS))
    return np.append(called, end).astype(np.int64) - int(called[0]) + stops


def find(plan: Plan) -> Found:
    """As many frames as layers call; the interval is the mean one."""
    starts = starts_ms(_source(plan), stop_s(plan))
    count, shoot = len(starts) - 1, Fraction(int(starts[-1]), MS)
    return Found(by_count(plan, count, shoot, shoot / count, "layers"), frames=count)


def resolve(plan: Plan, solution: Solution) -> Timeline:
    """The frames in time, one run; the room of a beat is what lies between its layer and the next one called."""
    starts = starts_ms(_source(plan), stop_s(plan))
    return Timeline(
        start=first_frame(plan, solution.shoot),
        zone=plan.shoot.place.zone,
        starts_s=starts[:-1] / MS,
        rooms_s=np.diff(starts) / MS,
        runs=(Run(0, len(starts) - 1, Fraction(0), None),),
        end_s=solution.shoot,
        interval_s=solution.interval,
        calls="layer",
    )


def _source(plan: Plan) -> Layers:
    assert isinstance(plan.frames, Layers)
    return plan.frames
