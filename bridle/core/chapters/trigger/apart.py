"""Two clocks that nobody ties: after how many frames the shutter falls into the move."""

import math
from collections.abc import Iterator
from fractions import Fraction

from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.edit import Edit
from bridle.core.reckon.reckoning import Shooting
from bridle.core.snag import Fix, Snag, SnagKind, slot

FALLS = SnagKind(
    "shutter-falls-into-move",
    "mind",
    "trigger",
    "From frame {frame} on the shutter may fall into the move.",
    "Camera and controller count by clocks of their own, {drift} apart: what is free in a beat is used up by then.",
)
KINDS = (FALLS,)

LASTS = Formula(
    "floor(free / (drift / 1000000 * interval)) + 1", "each beat they come apart by so much; the first frame is in time"
)


def findings(shooting: Shooting) -> Iterator[Figure | Snag]:
    """When the two have come apart by all that a beat leaves free; nothing where they are tied, or never stop."""
    beat, cycle = shooting.plan.beat, shooting.cycle
    if beat.uncoupled is None or beat.continuous or not beat.uncoupled.drift_ppm or not shooting.plan.rig.axes:
        return
    free = max(0.0, float(cycle.interval_s) - cycle.need_s)
    each = beat.uncoupled.drift_ppm / 1e6 * float(cycle.interval_s)
    frame = math.floor(free / each) + 1
    terms = (
        term("free", "free in a beat", free, "s"),
        term("drift", "drift of the clocks", beat.uncoupled.drift_ppm, "ppm"),
        term("interval", "interval", cycle.interval_s, "s"),
    )
    yield figure("trigger.apart", "in time until frame", frame, "frames", LASTS, *terms)
    if frame >= shooting.frames:
        return
    tied = Fix(
        label="Tie them together",
        consequence="The controller fires the camera over a lead, or the camera's shutter steps the controller.",
        slots={},
        edits=(Edit(path="beat.uncoupled", value=None), Edit(path="beat.tied", value=True)),
    )
    slots = {"frame": slot(str(frame)), "drift": slot(beat.uncoupled.drift_ppm, "ppm")}
    yield FALLS.at("beat.uncoupled.drift_ppm", slots, [tied, *_better(shooting, free)])


def _better(shooting: Shooting, free: float) -> Iterator[Fix]:
    """Clocks that keep together for the whole shoot."""
    most = free / (shooting.frames * float(shooting.cycle.interval_s)) * 1e6
    ppm = Fraction(math.floor(most * 10), 10)
    if ppm <= 0:
        return
    yield Fix(
        label="Plan with clocks that keep to {ppm}",
        consequence="To be measured: both counting for a night, side by side.",
        slots={"ppm": slot(ppm, "ppm")},
        edits=(Edit(path="beat.uncoupled.drift_ppm", value=float(ppm)),),
    )
