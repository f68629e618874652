"""How far a followed mark drifts from its place."""

from dataclasses import dataclass

import numpy as np

from bridle.core.plan.document import Plan
from bridle.core.reckon.picture import kept
from bridle.core.reckon.poses import WANTED, see_mark
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.numbers.rounding import first_peak
from bridle.core.subjects.optics.projecting import Poses


@dataclass(frozen=True)
class Tracked:
    """How a followed mark does: off its place at each frame, as a share of the width (not a number behind the lens)."""

    off: Floats
    worst: int

    @property
    def error(self) -> float:
        """The largest error, as a share of the width."""
        return float(self.off[self.worst])


def tracked(plan: Plan, at: Poses) -> Tracked | None:
    """The error of the followed mark; None where nothing is followed."""
    follow = plan.move.follow
    if follow is None:
        return None
    seen = see_mark(plan, at, plan.move.marks[follow.mark])
    off = np.abs(seen.across() * at.focal / kept(plan).width_mm - WANTED[follow.across])
    lost = np.isnan(off)
    return Tracked(off, int(np.argmax(lost)) if lost.any() else first_peak(off))
