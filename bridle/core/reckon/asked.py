"""What the move asks of each axis, and the card that has to do it."""

import math
from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from bridle.core.plan.document import Plan
from bridle.core.plan.rig import Axis
from bridle.core.reckon.parts import Driven, axis_parts
from bridle.core.reckon.path import at
from bridle.core.reckon.reckoning import Shooting, reckon
from bridle.core.reckon.schedule import Schedule
from bridle.core.reckon.timers import keeps_up
from bridle.core.reckon.travel import STILL
from bridle.core.subjects.motion.drives.interface import DriveCard, Wanted

# From this share of the way on an end that is missed is seen.
SEEN = 0.05


@dataclass(frozen=True)
class Asked:
    """What the move asks of an axis, and the part that has to do it."""

    shooting: Shooting
    axis: Axis
    part: Driven
    wanted: Wanted

    @property
    def plan(self) -> Plan:
        """The plan it is asked by."""
        return self.shooting.plan

    @property
    def drive(self) -> DriveCard:
        """What it is asked of."""
        return self.part.card.drive

    @property
    def one_way(self) -> int:
        """1 or −1 where it turns one way only as it stands or hangs (clockwise is 1), else 0."""
        return -self.drive.one_way if self.axis.hung else self.drive.one_way

    @property
    def rotary(self) -> bool:
        """Whether it turns."""
        return self.axis.kind == "rotary"


def asked_of(shooting: Shooting) -> tuple[Asked, ...]:
    """Every axis of the move that a card drives."""
    parts: dict[str, Driven] = dict(axis_parts(shooting.plan.kit.copies).items())
    axes: dict[str, Axis] = {axis.name: axis for axis in shooting.plan.rig.axes}
    return tuple(Asked(shooting, axes[one.axis], parts[one.axis], one) for one in shooting.every(_wanted))


def _wanted(shooting: Shooting) -> Iterator[Wanted]:
    plan, span = shooting.plan, shooting.schedule.span
    seconds = seconds_of(shooting)
    for name, part in axis_parts(plan.kit.copies).items():
        axis = plan.rig.axis(name)
        if axis is None or span.steps == 0:
            continue
        start = at(plan, plan.move.start, name)
        sweep = at(plan, plan.move.end, name) - start
        per_frame = float(np.max(np.abs(np.diff(shooting.driven[name]))))
        eases = shooting.schedule.eases_asked
        yield Wanted(
            axis=axis.name,
            unit=axis.unit,
            start=start,
            sweep=sweep,
            seconds=seconds,
            per_frame=per_frame,
            travel=part.card.high - part.card.low,
            hung=axis.hung,
            frames=span.steps + 1,
            interval_s=seconds / span.steps,
            still_s=shooting.cycle.still_s,
            ease_frames=(round(eases[0]), round(eases[1])),
            between=_between(plan, shooting.schedule, axis),
            stands=not (shooting.steps[name] > STILL).any(),
            way_known=_way_known(part),
        )


def _way_known(part: Driven) -> bool:
    """Whether somebody has said which way a drive turns that turns one way only: the usual way may not be its own."""
    return not part.card.drive.one_way or f"{part.within}drive.clockwise" in part.card.typed


def _between(plan: Plan, timing: Schedule, axis: Axis) -> tuple[tuple[int, float], ...]:
    """The keyframes on the way: the frame of the move, from 1, and where the axis stands there."""
    keys = plan.move.keyframes
    return tuple((round(float(timing.arrive[n])) + 1, at(plan, keys[n], axis.name)) for n in range(1, len(keys) - 1))


def seconds_of(shooting: Shooting) -> float:
    """How long the move runs: from its first frame to its last, whatever the intervals between are."""
    span, times = shooting.schedule.span, shooting.timeline
    return float(times.elapsed_s(span.last) - times.elapsed_s(span.first))


def miss(asked: Asked) -> float:
    """By which share of the way the drive misses its end: nought where it goes as far as it is told.

    Infinite where no key and no number of its menu gives the rate.
    """
    does, sweep = asked.drive.goes(asked.wanted), abs(asked.wanted.sweep)
    if asked.drive.limits_deg_min() and does is None and sweep and asked.wanted.seconds:
        return math.inf
    return abs(does - sweep) / sweep if does is not None and sweep else 0.0


def cannot_stop(shooting: Shooting) -> bool:
    """Whether a drive takes part in the move that cannot stand still for a frame."""
    return any(not asked.wanted.stands and not asked.drive.stops for asked in asked_of(shooting))


def spoilt(before: Shooting, after: Shooting) -> bool:
    """Whether another clip is beyond all bounds, or asks more of camera, trigger or drives than the one before."""
    beyond = reckon(after.plan).found.usable is None
    return beyond or misses_more(before, after) or (keeps_up(before) and not keeps_up(after))


def misses_more(before: Shooting, after: Shooting) -> bool:
    """Whether a drive then misses its end by more than anybody overlooks, and by more than before."""
    was = max((miss(asked) for asked in asked_of(before)), default=0.0)
    return max((miss(asked) for asked in asked_of(after)), default=0.0) > max(was, SEEN)
