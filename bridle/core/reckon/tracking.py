"""How far a followed mark drifts from its place."""

from dataclasses import dataclass

import numpy as np

from bridle.core.plan.document import Plan
from bridle.core.reckon.picture import kept
from bridle.core.reckon.poses import WANTED, see_mark
from bridle.core.reckon.sights import in_picture
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.numbers.rounding import first_peak
from bridle.core.subjects.optics.projecting import Poses


@dataclass(frozen=True)
class Tracked:
    """How a followed mark does: off its place at each frame, in shares of the width (not a number behind the lens).

    `off` is how far beside where it is wanted, `up` how far above or below where the first frame has it. `leaves` is
    the first frame (0-based) that does not have it in the picture; None where all do.
    """

    off: Floats
    up: Floats
    worst: int
    leaves: int | None

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
    across, above = (way * at.focal / kept(plan).width_mm for way in (seen.across(), seen.above()))
    off, up = np.abs(across - WANTED[follow.across]), np.abs(above - above[0])
    lost, out = np.isnan(off), ~in_picture(plan, at, seen)
    worst = int(np.argmax(lost)) if lost.any() else first_peak(off)
    return Tracked(off, up, worst, int(np.argmax(out)) if out.any() else None)
