"""How far each drive goes between exposures, backlash and rounds included, and how long the rig takes for it."""

import numpy as np
from numpy.typing import NDArray

from bridle.core.plan.beat import Beat
from bridle.core.plan.document import Plan
from bridle.core.plan.rig import Axis
from bridle.core.plan.rounds import Stations
from bridle.core.reckon.framings import offsets, visits_a_cycle
from bridle.core.reckon.path import ring_turns, visited
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.time import cycle

# Less than this is no move and turns nothing round.
STILL = 1e-9


def steps_of(places: Floats) -> Floats:
    """How far a drive goes in each frame's slot, without backlash; 0 after the last. Shape (frames,)."""
    return np.append(np.abs(np.diff(places)), 0.0)


def stops(plan: Plan, places: dict[str, Floats], stack_mm: tuple[float, ...] = ()) -> dict[str, Floats]:
    """Where each drive stops for an exposure, shape (frames, visits): several in a cycle where there is a round.

    At each place of it a focus motor goes through the distances of a stack, where it is told any.
    """
    made = _round_stops(plan, places)
    if not stack_mm:
        return made
    focus = plan.rig.axis("focus")
    assert focus is not None
    frames, count = made["focus"].shape
    stacked = {name: np.repeat(grid, len(stack_mm), axis=1) for name, grid in made.items()}
    turns = np.tile(ring_turns(focus, np.array(stack_mm)), count)
    return stacked | {"focus": np.tile(turns, (frames, 1))}


def _round_stops(plan: Plan, places: dict[str, Floats]) -> dict[str, Floats]:
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


def overreach(plan: Plan, stopping: dict[str, Floats]) -> float:
    """How far the move, its rounds included, goes beyond what the axes reach, at its worst; nought where it does not.

    `stopping` is where each drive stops, of any shape.
    """
    over = [0.0]
    for axis in plan.rig.axes:
        values = stopping[axis.name]
        over += [axis.low - float(values.min()), float(values.max()) - axis.high]
    return max(over)


def times_alone(axis: Axis, steps: Floats, continuous: bool) -> Floats:
    """How long an axis takes for each step by itself: from rest to rest, or at its top speed where it never rests."""
    if continuous:
        return np.asarray(steps / axis.fastest)
    return cycle.step_times(steps, axis.fastest, axis.liveliest)


def turned_back(way: Floats) -> NDArray[np.bool_]:
    """Which of these signed steps go the other way than the last one that moved; shape of `way`."""
    signs = np.where(np.abs(way) > STILL, np.sign(way), 0.0)
    moved = np.flatnonzero(signs)
    back = np.zeros(len(way), dtype=bool)
    back[moved[1:]] = signs[moved[1:]] != signs[moved[:-1]]
    return back


# How far before its first position an axis is sent, so that it always comes from the same side; by its unit.
RUN_UP = {"mm": 2.0, "deg": 1.0}


def approach(axis: Axis, targets: Floats) -> float:
    """The direction in which an axis comes to its first position: that of its first move, where there is room for it.

    1 upwards, -1 downwards. At the end of its travel it can only come from within.
    """
    way = np.diff(targets)
    moved = np.flatnonzero(np.abs(way) > STILL)
    heading = float(np.sign(way[moved[0]])) if len(moved) else 1.0
    before = float(targets[0]) - heading * (RUN_UP[axis.unit] + axis.backlash)
    return heading if axis.low <= before <= axis.high else -heading


def longest_steps(plan: Plan, grids: dict[str, Floats]) -> dict[str, Floats]:
    """How far each drive turns after each exposure, its backlash taken up at reversals; shape (visits, frames).

    The grids are the places at which each drive stops.
    """
    return {axis.name: _drive_steps(plan, axis, grids[axis.name]) for axis in plan.rig.axes}


def _drive_steps(plan: Plan, axis: Axis, grid: Floats) -> Floats:
    frames, visits = grid.shape
    way = np.append(np.diff(grid.ravel()), 0.0)
    far = np.abs(way)
    if axis.backlash and not plan.beat.continuous:
        # The way to the first position counts too: it may have been the other way.
        whole = np.concatenate(([approach(axis, grid.ravel())], way))
        far = far + axis.backlash * turned_back(whole)[1:]
    return np.asarray(far.reshape(frames, visits).T)


def settle_times(beat: Beat, steps: dict[str, Floats], travels: Floats, positions: int) -> Floats:
    """How long it takes to settle after each move, in seconds, shape of `travels`; nothing where nothing moved.

    Between the `positions` of a stack that a motor goes through, only what the ring needs.
    """
    rig = float(beat.settle_s)
    if not positions or beat.stack is None:
        # How long an axis moves may not be known; that it settles then is.
        moved = np.max(list(steps.values()), axis=0) > 0 if steps else travels > 0
        return np.where(moved & (not beat.continuous), rig, 0.0)
    ring = float(beat.stack.settle_s)
    others = [far for name, far in steps.items() if name != "focus"]
    whole = np.max(others, axis=0) > STILL if others else np.zeros(travels.shape, dtype=bool)
    return np.where(whole, max(rig, ring), np.where(travels > 0, ring, 0.0))


def travel_times(plan: Plan, steps: dict[str, Floats], frames: int) -> Floats:
    """How long the rig moves after each exposure, in seconds; shape (visits, frames)."""
    times = [cycle.step_times(steps[axis.name], axis.fastest, axis.liveliest) for axis in plan.rig.axes]
    return np.max(times, axis=0) if times else np.zeros((visits_a_cycle(plan), frames))
