"""Which way the plus of each axis goes, and how far the move goes that way as a whole."""

from dataclasses import dataclass

import numpy as np

from bridle.core.plan.document import Plan
from bridle.core.plan.rig import Axis
from bridle.core.reckon.asked import seconds_of
from bridle.core.reckon.path import shown_unit
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.travel import STILL
from bridle.core.subjects.motion.drives.interface import way


@dataclass(frozen=True)
class Sweep:
    """The whole way of an axis in its unit, without a sign; which way it goes, and how long it takes."""

    far: float
    unit: str
    way: str
    seconds: float


def plus_ways(plan: Plan) -> dict[str, str]:
    """Which way each axis goes as its figure grows: a head's, seen from behind the camera; none for a lens's ring."""
    return {axis.name: way(axis.name, True) for axis in plan.rig.axes if not axis.on_lens}


def sweep_of(shooting: Shooting, axis: Axis) -> Sweep | None:
    """The whole way of an axis; None where it stands, turns round on the way, or sets a lens."""
    span, places = shooting.schedule.span, shooting.positions[axis.name]
    if axis.on_lens or len(shooting.schedule.legs) > 1 or not (shooting.steps[axis.name] > STILL).any():
        return None
    steps = np.diff(places[span.first : span.last + 1])
    if (steps > STILL).any() and (steps < -STILL).any():
        return None
    sweep = float(places[span.last] - places[span.first])
    return Sweep(abs(sweep), shown_unit(axis), way(axis.name, sweep > 0), seconds_of(shooting))
