"""What a run carries out: frames, interval, and what the devices are told. Made once from the plan."""

from dataclasses import dataclass
from datetime import datetime
from itertools import islice

import numpy as np
from numpy.typing import NDArray

from bridle.core.plan.document import Plan
from bridle.core.plan.frames import Windows
from bridle.core.reckon.calls import call_of
from bridle.core.reckon.reckoning import reckon
from bridle.core.reckon.season.season import Staying, staying
from bridle.core.reckon.signals import Signal, signal
from bridle.core.reckon.timeline import Calls
from bridle.core.subjects.numbers.arrays import Floats

LEAD_S = 5.0
# No camera's buffer is followed over more pictures of a single frame.
MOST_PICTURES = 10_000


class NotReadyError(ValueError):
    """The plan leaves something open, so that there is nothing to run."""


@dataclass(frozen=True)
class Programme:
    """Positions per axis and frame, when each frame is due, and the times of one cycle in seconds.

    `motor` is the positions with backlash taken up. Where a cycle has several places (`visits`), each counts as a frame
    of its own. `starts_s[k]` is when frame `k` is due after the first, its last entry the end of the last slot;
    `exposures_s[k]` is how long frame `k` is exposed, all its pictures together, and `processes_s[k]` how long the
    camera works on it. `begins_s` is when each picture of a frame is begun after its first, for each kind of frame
    there is, `kinds[k]` (or the only one) which kind frame `k` is; `settles_s[k]` is how long the rig settles before
    frame `k`; `calls` is who calls a frame then.
    """

    frames: int
    start: datetime
    starts_s: Floats
    positions: dict[str, Floats]
    motor: dict[str, Floats]
    speeds: dict[str, tuple[float, float]]
    wake_s: float
    lag_s: float
    exposures_s: Floats
    processes_s: Floats
    write_s: float
    settles_s: Floats
    write_while_moving: bool
    continuous: bool
    buffer_frames: int
    begins_s: tuple[tuple[float, ...], ...]
    kinds: NDArray[np.int64]
    visits: int
    calls: Calls = "clock"
    # What the camera is really sent; None where nothing presses its contacts, and it takes every frame.
    signal: Signal | None = None
    shutter_lag_s: float = 0.0
    # Work windows call the frames; and what a camera that stays lives on.
    by_windows: bool = False
    stay: Staying | None = None

    def next_after(self, now_s: float) -> int:
        """The first frame that is not due before a moment, in seconds after the run was started."""
        return int(np.searchsorted(self.starts_s[:-1], now_s - LEAD_S))

    def due_s(self, frame: int) -> float:
        """When a frame's shutter opens, in seconds after the run was started, if nothing delays it."""
        return LEAD_S + float(self.starts_s[frame])

    @property
    def mean_interval_s(self) -> float:
        """The interval, or its mean where it changes."""
        return float(self.starts_s[-1]) / self.frames

    @property
    def end_s(self) -> float:
        """The end of the last frame's slot."""
        return self.due_s(self.frames)

    def exposure_s(self, frame: int) -> float:
        """How long the shutter is at work for a frame, in seconds."""
        return float(self.exposures_s[min(frame, self.frames - 1)])

    def process_s(self, frame: int) -> float:
        """How long the camera works on a frame afterwards, in seconds."""
        return float(self.processes_s[min(frame, self.frames - 1)])

    def begun_s(self, frame: int) -> tuple[float, ...]:
        """When each picture of a frame is begun after its first, in seconds."""
        return self.begins_s[int(self.kinds[min(frame, len(self.kinds) - 1)])]

    def place(self, frame: int) -> dict[str, float]:
        """Where each axis stands at a frame."""
        return {name: float(values[frame]) for name, values in self.positions.items()}


def programme(plan: Plan) -> Programme:
    """The programme of a plan. Raises `NotReadyError` while the clip is open."""
    shooting = reckon(plan).shooting
    if shooting is None:
        raise NotReadyError("the clip leaves something open: a run needs frames and an interval")
    beat, open_, orders = plan.beat, shooting.shuttered, shooting.orders
    visits = len(orders) // shooting.frames
    return Programme(
        frames=len(orders),
        start=shooting.timeline.start,
        starts_s=np.append(orders.due_s, orders.end_s),
        positions=orders.targets,
        motor=orders.motor,
        speeds={axis.name: (axis.fastest, axis.liveliest) for axis in plan.rig.axes},
        wake_s=float(beat.ready_s),
        lag_s=float(beat.heard_s),
        exposures_s=orders.busy_s,
        processes_s=orders.processing_s,
        write_s=float(beat.write_s),
        # Settling comes after the move to a frame; the first is gone to before the run.
        settles_s=np.append(max(float(beat.settle_s), float(orders.settle_s.max())), orders.settle_s[:-1]),
        write_while_moving=beat.write_while_moving,
        continuous=beat.continuous,
        buffer_frames=beat.buffer_frames,
        begins_s=tuple(tuple(islice(kind.starts_s(), MOST_PICTURES)) for kind in open_.kinds),
        kinds=open_.which.repeat(visits),
        visits=visits,
        calls=shooting.timeline.calls,
        signal=None if shooting.hearing is None else signal(plan, shooting.hearing, call_of(shooting).heard),
        shutter_lag_s=float(beat.lag_s),
        by_windows=isinstance(plan.frames, Windows),
        stay=staying(shooting),
    )
