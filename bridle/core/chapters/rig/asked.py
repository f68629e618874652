"""What the move asks of each axis, and the card that has to do it."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from bridle.core.plan.document import Plan
from bridle.core.plan.kit import AxisCard
from bridle.core.plan.rig import Axis
from bridle.core.reckon.parts import axis_copies
from bridle.core.reckon.path import at
from bridle.core.reckon.reckoning import Shooting
from bridle.core.subjects.motion.drives.interface import DriveCard, Wanted


@dataclass(frozen=True)
class Asked:
    """What the move asks of an axis, and the card that has to do it (its place in the kit)."""

    shooting: Shooting
    axis: Axis
    card: AxisCard
    index: int
    wanted: Wanted

    @property
    def plan(self) -> Plan:
        """The plan it is asked by."""
        return self.shooting.plan

    @property
    def drive(self) -> DriveCard:
        """What it is asked of."""
        return self.card.drive

    @property
    def rotary(self) -> bool:
        """Whether it turns."""
        return self.axis.kind == "rotary"


def asked_of(shooting: Shooting) -> Iterator[Asked]:
    """Every axis of the move that a card drives."""
    plan, span = shooting.plan, shooting.schedule.span
    seconds = seconds_of(shooting)
    for name, copy in axis_copies(plan.kit.copies).items():
        axis, card = plan.rig.axis(name), copy.card
        if axis is None or not isinstance(card, AxisCard) or span.steps == 0:
            continue
        start = at(plan, plan.move.start, name)
        sweep = at(plan, plan.move.end, name) - start
        per_frame = float(np.max(np.abs(np.diff(shooting.driven[name]))))
        wanted = Wanted(axis.name, axis.unit, start, sweep, seconds, per_frame, card.high - card.low)
        yield Asked(shooting, axis, card, plan.kit.copies.index(copy), wanted)


def seconds_of(shooting: Shooting) -> float:
    """How long the move runs: from its first frame to its last, whatever the intervals between are."""
    span, times = shooting.schedule.span, shooting.timeline
    return float(times.elapsed_s(span.last) - times.elapsed_s(span.first))
