"""Two clocks that nobody ties: after how many frames the shutter falls into the move."""

import math
from collections.abc import Iterator
from fractions import Fraction

from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.edit import Edit
from bridle.core.reckon.drifting import BY_HAND_S, in_time_until, room_s
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.travel import STILL
from bridle.core.snag import Fix, Snag, SnagKind, slot

FALLS = SnagKind(
    "shutter-falls-into-move",
    "mind",
    "trigger",
    "From frame {frame} on the shutter may fall into the move.",
    "Camera and controller count by clocks of their own, {drift} apart: what is free in a beat is used up by then.",
)
NO_ROOM = SnagKind(
    "two-starts-no-room",
    "stop",
    "trigger",
    "The beat leaves {free} free, too little for two starts: the rig may move while the shutter is open, from the "
    "first frame on.",
    "A hand starts the second device within half a second, and nobody knows which clock gains: the move needs more "
    "room than that on either side.",
)
KINDS = (FALLS, NO_ROOM)

LASTS = Formula(
    "floor((free / 2 - by_hand) / (drift / 1000000 * interval)) + 1",
    "started so that the move has half of what is free on either side, less what a hand's start is off; each beat the "
    "clocks come apart by so much, one way or the other",
)


def findings(shooting: Shooting) -> Iterator[Figure | Snag]:
    """When the two have come apart by all that a beat leaves free; nothing where they are tied, or never stop."""
    beat, cycle = shooting.plan.beat, shooting.cycle
    if beat.uncoupled is None or beat.continuous or not any((far > STILL).any() for far in shooting.steps.values()):
        return
    free = max(0.0, float(cycle.interval_s) - cycle.need_s)
    frame = in_time_until(shooting, beat.uncoupled.drift_ppm)
    if not frame:
        yield NO_ROOM.at("beat.uncoupled", {"free": slot(free, "s")}, [_tied()])
        return
    terms = (
        term("free", "free in a beat", free, "s"),
        term("by_hand", "a hand's start is off by", BY_HAND_S, "s"),
        term("drift", "drift of the clocks", beat.uncoupled.drift_ppm, "ppm"),
        term("interval", "interval", cycle.interval_s, "s"),
    )
    if not beat.uncoupled.drift_ppm:
        return
    yield figure("trigger.apart", "in time until frame", frame, "frames", LASTS, *terms)
    if frame >= shooting.frames:
        return
    slots = {"frame": slot(str(frame)), "drift": slot(beat.uncoupled.drift_ppm, "ppm")}
    yield FALLS.at("beat.uncoupled.drift_ppm", slots, [_tied(), *_better(shooting)])


def _tied() -> Fix:
    return Fix(
        label="Tie them together",
        consequence="The controller fires the camera over a lead, or the camera's shutter steps the controller.",
        slots={},
        edits=(Edit(path="beat.uncoupled", value=None), Edit(path="beat.tied", value=True)),
    )


def _better(shooting: Shooting) -> Iterator[Fix]:
    """Clocks that keep together for the whole shoot."""
    most = room_s(shooting) / (shooting.frames * float(shooting.cycle.interval_s)) * 1e6
    ppm = Fraction(math.floor(most * 10), 10)
    if ppm <= 0:
        return
    yield Fix(
        label="Plan with clocks that keep to {ppm}",
        consequence="To be measured: both counting for a night, side by side.",
        slots={"ppm": slot(ppm, "ppm")},
        edits=(Edit(path="beat.uncoupled.drift_ppm", value=float(ppm)),),
    )
