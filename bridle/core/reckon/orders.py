"""What the drives are told, picture by picture: positions, times, and the way in between."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from bridle.core.plan.document import Plan
from bridle.core.plan.kit import AxisCard
from bridle.core.plan.rig import Axis
from bridle.core.reckon.cycles import Cycle
from bridle.core.reckon.parts import axis_copies
from bridle.core.reckon.timeline import Timeline
from bridle.core.reckon.travel import STILL, approach
from bridle.core.subjects.numbers.arrays import Floats

# A drive that counts no steps is told thousandths of its unit.
FINEST = 1000.0


@dataclass(frozen=True)
class Orders:
    """All pictures of a shoot in the order they are taken; arrays of one entry a picture.

    `frame` and `visit` (0-based) say which picture it is; `targets` are where each drive has to stand, in mm and
    degrees; `motor` the same with backlash taken up; `due_s` when the camera is triggered, from the first; `move_s`
    how long the rig moves after it.
    """

    frame: NDArray[np.int64]
    visit: NDArray[np.int64]
    targets: dict[str, Floats]
    motor: dict[str, Floats]
    due_s: Floats
    move_s: Floats
    end_s: float

    def __len__(self) -> int:
        """The number of pictures."""
        return len(self.frame)


def orders(plan: Plan, times: Timeline, grids: dict[str, Floats], moving: Floats, tightest: Cycle) -> Orders:
    """What the drives are told for a whole shoot: where they stop, and how long they go after each exposure.

    The grids have the shape (frames, visits), the times (visits, frames).
    """
    visits = len(moving)
    targets = {name: grid.ravel() for name, grid in grids.items()}
    due = times.starts_s[:, None] + visit_starts(tightest)[None, :]
    return Orders(
        frame=np.repeat(np.arange(times.frames), visits),
        visit=np.tile(np.arange(visits), times.frames),
        targets=targets,
        motor={axis.name: taken_up(axis, targets[axis.name]) for axis in plan.rig.axes},
        due_s=due.ravel(),
        move_s=moving.T.ravel(),
        end_s=float(times.elapsed_s(times.frames)),
    )


def unmarked(plan: Plan, say: Orders) -> str:
    """The lens ring that is to be turned and whose marks nobody has read off; empty where there is none."""
    turning = (axis.name for axis in plan.rig.axes if axis.unmarked and np.ptp(say.targets[axis.name]))
    return next(turning, "")


def visit_starts(reckoned: Cycle) -> Floats:
    """When the camera is triggered at each place of a round, after the first; as the tightest cycle has it.

    Waking comes once a cycle, before the first.
    """
    store = reckoned.exposures.processing_s + reckoned.write_s
    starts, now = [], 0.0
    awake = float(reckoned.beat.wake_s)
    for move in reckoned.travels_s:
        starts.append(now)
        travel = move + (reckoned.settle_s if move else 0.0)
        between = max(store, travel) if reckoned.beat.write_while_moving else store + travel
        now += awake + float(reckoned.beat.lag_s) + reckoned.exposures.busy_s + between
        awake = 0.0
    return np.array(starts)


def taken_up(axis: Axis, targets: Floats) -> Floats:
    """Where the motor has to stand so that the load stands at its target: behind it by the backlash on the way down."""
    way = np.concatenate(([approach(axis, targets)], np.diff(targets)))
    heading = np.sign(np.where(np.abs(way) > STILL, way, 0.0))
    moved = np.flatnonzero(heading)
    last = moved[np.searchsorted(moved, np.arange(len(targets)), side="right") - 1]
    return np.asarray(np.where(heading[last] < 0, targets - axis.backlash, targets))


def steps_a_unit(plan: Plan, axis: Axis) -> float:
    """Steps a millimetre or degree of a stepper; of any other drive the finest that it is told."""
    copy = axis_copies(plan.kit.copies).get(axis.name)
    steps = copy.card.drive.steps() if copy is not None and isinstance(copy.card, AxisCard) else None
    return FINEST if steps is None else steps
