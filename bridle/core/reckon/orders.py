"""What the drives are told, picture by picture: positions, times, and the way in between."""

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from bridle.core.plan.document import Plan
from bridle.core.plan.rig import Axis
from bridle.core.reckon.cycles import Cycle
from bridle.core.reckon.exposed import Shuttered
from bridle.core.reckon.parts import axis_parts
from bridle.core.reckon.timeline import Timeline
from bridle.core.reckon.travel import STILL, approach
from bridle.core.subjects.numbers.arrays import Floats

# A drive that counts no steps is told thousandths of its unit.
FINEST = 1000.0


@dataclass(frozen=True)
class Orders:
    """All pictures of a shoot in the order they are taken; arrays of one entry a picture.

    `frame` and `visit` (0-based) say which picture it is; `positions` visits at each place are a stack that a motor
    goes through (1 where there is none). `targets` are where each drive has to stand, in mm and
    degrees; `motor` the same with backlash taken up; `due_s` when the camera is triggered, from the first; `move_s`
    how long the rig moves after it, and `settle_s` how long it settles then; exposing takes `busy_s`, and the camera
    works on it for `processing_s`.
    """

    frame: NDArray[np.int64]
    visit: NDArray[np.int64]
    targets: dict[str, Floats]
    motor: dict[str, Floats]
    due_s: Floats
    move_s: Floats
    settle_s: Floats
    end_s: float
    busy_s: Floats
    processing_s: Floats
    positions: int = 1

    def __len__(self) -> int:
        """The number of pictures."""
        return len(self.frame)

    @cached_property
    def _round(self) -> bool:
        """Whether a cycle goes to several places."""
        return bool(self.visit.max() >= self.positions)

    def called(self, picture: int) -> str:
        """Which of the pictures of its frame it is, where there are several: `place 2, focus 3`."""
        place, position = divmod(int(self.visit[picture]), self.positions)
        said = [f"place {place + 1}"] if self._round else []
        return ", ".join([*said, *([f"focus {position + 1}"] if self.positions > 1 else [])])


def orders(
    plan: Plan,
    times: Timeline,
    grids: dict[str, Floats],
    moving: Floats,
    settling: Floats,
    tightest: Cycle,
    open_: Shuttered,
) -> Orders:
    """What the drives are told for a whole shoot: where they stop, how long they go after each exposure, and settle.

    The grids have the shape (frames, visits), the times (visits, frames).
    """
    visits = len(moving)
    targets = {name: grid.ravel() for name, grid in grids.items()}
    travels = np.zeros_like(moving) if plan.beat.continuous else moving + settling
    due = times.starts_s[:, np.newaxis] + starts_s(tightest, travels, open_.busy_s, open_.processing_s)
    return Orders(
        frame=np.repeat(np.arange(times.frames), visits),
        visit=np.tile(np.arange(visits), times.frames),
        targets=targets,
        motor={axis.name: taken_up(axis, targets[axis.name]) for axis in plan.rig.axes},
        due_s=due.ravel(),
        move_s=moving.T.ravel(),
        settle_s=settling.T.ravel(),
        end_s=float(times.elapsed_s(times.frames)),
        busy_s=np.broadcast_to(open_.busy_s, times.frames).repeat(visits),
        processing_s=np.broadcast_to(open_.processing_s, times.frames).repeat(visits),
        positions=tightest.positions or 1,
    )


def unmarked(plan: Plan, say: Orders) -> str:
    """The lens ring that is to be turned and whose marks nobody has read off; empty where there is none."""
    turning = (axis.name for axis in plan.rig.axes if axis.unmarked and np.ptp(say.targets[axis.name]))
    return next(turning, "")


def visit_starts(reckoned: Cycle) -> Floats:
    """When the camera is triggered at each place of the tightest cycle, after the first, in seconds."""
    travels, settles = (np.array(times)[:, np.newaxis] for times in (reckoned.travels_s, reckoned.settles_s))
    busy, processing = (np.array([value]) for value in (reckoned.exposures.busy_s, reckoned.exposures.processing_s))
    return np.asarray(starts_s(reckoned, travels + settles, busy, processing)[0])


def starts_s(reckoned: Cycle, travels_s: Floats, busy_s: Floats, processing_s: Floats) -> Floats:
    """When the camera is triggered at each place after the first, in seconds, shape (frames, visits).

    `travels_s` is moving and settling after each exposure, shape (visits, frames); exposing takes `busy_s` and the
    camera works on for `processing_s` at each frame (one entry a frame, or one for all). Waking comes once a cycle,
    before the first.
    """
    store = processing_s + reckoned.write_s
    between = np.maximum(store, travels_s) if reckoned.beat.write_while_moving else store + travels_s
    each = float(reckoned.beat.heard_s) + busy_s + between[:-1]
    each[:1] += float(reckoned.beat.ready_s)
    return np.asarray(np.vstack([np.zeros_like(travels_s[:1]), np.cumsum(each, axis=0)]).T)


def taken_up(axis: Axis, targets: Floats) -> Floats:
    """Where the motor has to stand so that the load stands at its target: behind it by the backlash on the way down."""
    way = np.concatenate(([approach(axis, targets)], np.diff(targets)))
    heading = np.sign(np.where(np.abs(way) > STILL, way, 0.0))
    moved = np.flatnonzero(heading)
    last = moved[np.searchsorted(moved, np.arange(len(targets)), side="right") - 1]
    return np.asarray(np.where(heading[last] < 0, targets - axis.backlash, targets))


def steps_a_unit(plan: Plan, axis: Axis) -> float:
    """Steps a millimetre or degree of a stepper; of any other drive the finest that it is told."""
    part = axis_parts(plan.kit.copies).get(axis.name)
    steps = None if part is None else part.card.drive.steps()
    return FINEST if steps is None else steps
