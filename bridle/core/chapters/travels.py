"""How far each drive goes between exposures, backlash and rounds included, and how long the rig takes for it."""

import numpy as np
from numpy.typing import NDArray

from bridle.core.chapters.framings import offsets, visits_a_cycle
from bridle.core.chapters.path import driven, ring_turns, visited
from bridle.core.plan.document import Plan
from bridle.core.plan.rig import Axis
from bridle.core.plan.rounds import Stations
from bridle.core.subjects import cycle
from bridle.core.subjects.easing import Floats

# Less than this is no move and turns nothing round.
STILL = 1e-9


def steps_of(plan: Plan, places: dict[str, Floats]) -> dict[str, Floats]:
    """How far each drive goes in each frame's slot, without backlash; 0 after the last. Shapes (frames,)."""
    return {name: np.append(np.abs(np.diff(values)), 0.0) for name, values in driven(plan, places).items()}


def stops(plan: Plan, places: dict[str, Floats]) -> dict[str, Floats]:
    """Where each drive stops for an exposure, shape (frames, visits): several in a cycle where there is a round."""
    made: dict[str, Floats] = {}
    count = visits_a_cycle(plan)
    at_stations, aside = visited(plan, places), offsets(plan)
    for axis in plan.rig.axes:
        values = places[axis.name]
        if isinstance(plan.move.visits, Stations):
            grid = np.tile(at_stations[axis.name], (len(values), 1))
        else:
            grid = values[:, None] + np.array(aside.get(axis.name, (0.0,) * count))[None, :]
        made[axis.name] = ring_turns(axis, grid) if axis.on_lens else grid
    return made


def turned_back(way: Floats) -> NDArray[np.bool_]:
    """Which of these signed steps go the other way than the last one that moved; shape of `way`."""
    signs = np.where(np.abs(way) > STILL, np.sign(way), 0.0)
    moved = np.flatnonzero(signs)
    back = np.zeros(len(way), dtype=bool)
    back[moved[1:]] = signs[moved[1:]] != signs[moved[:-1]]
    return back


def longest_steps(plan: Plan, places: dict[str, Floats]) -> dict[str, Floats]:
    """How far each drive turns after each exposure, its backlash taken up at reversals; shape (visits, frames)."""
    return {axis.name: _drive_steps(plan, axis, grid) for axis, grid in _with_axes(plan, places)}


def _with_axes(plan: Plan, places: dict[str, Floats]) -> list[tuple[Axis, Floats]]:
    grids = stops(plan, places)
    return [(axis, grids[axis.name]) for axis in plan.rig.axes]


def _drive_steps(plan: Plan, axis: Axis, grid: Floats) -> Floats:
    frames, visits = grid.shape
    way = np.append(np.diff(grid.ravel()), 0.0)
    far = np.abs(way)
    if axis.backlash and not plan.beat.continuous:
        far = far + axis.backlash * turned_back(way)
    return np.asarray(far.reshape(frames, visits).T)


def travel_times(plan: Plan, steps: dict[str, Floats], frames: int) -> Floats:
    """How long the rig moves after each exposure, in seconds; shape (visits, frames)."""
    times = [cycle.step_times(steps[axis.name], axis.top_speed, axis.acceleration) for axis in plan.rig.axes]
    return np.max(times, axis=0) if times else np.zeros((visits_a_cycle(plan), frames))
