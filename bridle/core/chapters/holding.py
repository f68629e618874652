"""Pegging and releasing quantities of the clip, and stretching an interval that changes, as edits."""

import math
from fractions import Fraction

from pydantic import ValidationError

from bridle.core.plan.clip import Clip, Peg, Quantity, Segment
from bridle.core.plan.edit import Edit
from bridle.core.subjects import clip as solver
from bridle.core.subjects import pacing
from bridle.core.subjects.rounding import ceil_to

PEGS_PATH = "clip.pegs"
SEGMENTS_PATH = "clip.ramp.segments"
USUAL_RATE = Fraction(25)
FINEST = Fraction(1, 1000)


def holds_of(clip: Clip) -> dict[str, Fraction]:
    """The held quantities by name; while the interval changes, only the playback rate is held by a peg."""
    pegs: dict[str, Fraction] = {peg.quantity: peg.value for peg in clip.pegs}
    return {"rate": pegs.get("rate", USUAL_RATE)} if clip.ramped else dict(pegs)


def keep_of(clip: Clip) -> Fraction:
    """The share of the frames that stays after culling."""
    return 1 - clip.spare


def segments_of(clip: Clip) -> list[tuple[Fraction, Fraction]]:
    """Length and interval of each segment, in seconds."""
    return [(one.length_s, one.interval_s) for one in clip.ramp.segments]


def changed(clip: Clip, edits: list[Edit]) -> Clip:
    """The clip after edits of its pegs or segments."""
    data = clip.model_dump(mode="json")
    for edit in edits:
        if edit.path == PEGS_PATH:
            data["pegs"] = edit.value
        elif edit.path == SEGMENTS_PATH:
            data["ramp"]["segments"] = edit.value
    return Clip.model_validate(data)


def peg(clip: Clip, quantity: Quantity, value: Fraction) -> list[Edit]:
    """Hold a quantity at a value; everything else that is held stays held."""
    return [_edit(_with(clip.pegs, quantity, value))]


def release(clip: Clip, quantity: str) -> list[Edit]:
    """Let a quantity follow from the others."""
    return [_edit(_without(clip.pegs, quantity))]


def take_over(clip: Clip, quantity: Quantity, value: Fraction) -> list[Edit]:
    """Hold a value for a quantity that has followed so far: the peg it makes superfluous is pulled.

    Of the pegs that could go, the oldest goes, the playback rate last. A quantity that is held already just
    takes its new value, since its owner has said that the others stay. While the interval changes over the
    shoot, the segments are stretched instead.
    """
    pegs = _with(clip.pegs, quantity, value)
    if clip.ramped and quantity != "rate":
        return stretch(clip, quantity, value)
    if len(pegs) > len(clip.pegs) and not clip.ramped:
        pegs = _pull_one(pegs, quantity)
    return [_edit(pegs)]


def within(clip: Clip, quantity: Quantity, value: Fraction) -> list[Edit]:
    """As `take_over`, for what is offered unasked: no edits where it would lead beyond what a plan can hold."""
    try:
        return take_over(clip, quantity, value)
    except ValidationError:
        return []


def no_shorter(clip: Clip, interval: Fraction) -> list[Edit]:
    """The interval held at this length; where it changes over the shoot, no segment below it. None beyond bounds."""
    if not clip.ramped:
        return within(clip, "interval", interval)
    try:
        return segments_edit([(max(length, interval), max(own, interval)) for length, own in segments_of(clip)])
    except ValidationError:
        return []


def stretch(clip: Clip, quantity: Quantity, value: Fraction) -> list[Edit]:
    """Make all segments longer or shorter alike, or their intervals, so that a quantity comes to a value."""
    rate, segments = holds_of(clip)["rate"], segments_of(clip)
    frames = sum(pacing.counts(segments))
    if quantity == "clip":
        quantity, value = "frames", Fraction(math.ceil(Fraction(math.ceil(value * rate)) / keep_of(clip)))
    elif quantity == "speed_up":
        quantity, value = "interval", value / rate
    if quantity == "frames":
        shared = _shared(pacing.counts(segments), max(int(value), len(segments)))
        return segments_edit([(n * interval, interval) for n, (_, interval) in zip(shared, segments, strict=True)])
    if quantity == "shoot":
        factor = value / sum((length for length, _ in segments), Fraction(0))
        return segments_edit([(max(FINEST, length * factor), interval) for length, interval in segments])
    total = sum((n * one for n, (_, one) in zip(pacing.counts(segments), segments, strict=True)), Fraction(0))
    mean = total / frames
    factor, step = value / mean, clip.interval_step_s or FINEST
    return segments_edit([(length, ceil_to(interval * factor, step)) for length, interval in segments])


def segments_edit(segments: list[tuple[Fraction, Fraction]]) -> list[Edit]:
    """The edit that puts these segments (length and interval in seconds) in place."""
    made = [Segment(length_s=length, interval_s=interval).model_dump(mode="json") for length, interval in segments]
    return [Edit(path=SEGMENTS_PATH, value=made)]


def _shared(counts: list[int], wanted: int) -> list[int]:
    """So many frames shared out as the counts are, at least one each, the largest remainders first."""
    raw = [Fraction(count * wanted, sum(counts)) for count in counts]
    shared = [max(1, math.floor(one)) for one in raw]
    order = sorted(range(len(raw)), key=lambda i: math.floor(raw[i]) - raw[i])
    while sum(shared) != wanted:
        up = 1 if sum(shared) < wanted else -1
        for i in order if up > 0 else order[::-1]:
            if sum(shared) != wanted and shared[i] + up >= 1:
                shared[i] += up
    return shared


def _pull_one(pegs: tuple[Peg, ...], newest: Quantity) -> tuple[Peg, ...]:
    others = [peg.quantity for peg in pegs if peg.quantity != newest]
    if solver.still_free(dict.fromkeys(others, Fraction(1))) and newest not in solver.known(others):
        return pegs
    for name in sorted(others, key=lambda other: other == "rate"):
        rest = _without(pegs, name)
        names = [peg.quantity for peg in rest]
        settled = solver.known(names) == solver.known([peg.quantity for peg in pegs])
        if settled and solver.conflict({peg.quantity: peg.value for peg in rest}) is None:
            return rest
    return pegs


def _with(pegs: tuple[Peg, ...], quantity: Quantity, value: Fraction) -> tuple[Peg, ...]:
    new = Peg(quantity=quantity, value=value)
    if any(peg.quantity == quantity for peg in pegs):
        return tuple(new if peg.quantity == quantity else peg for peg in pegs)
    return (*pegs, new)


def _without(pegs: tuple[Peg, ...], quantity: str) -> tuple[Peg, ...]:
    return tuple(peg for peg in pegs if peg.quantity != quantity)


def _edit(pegs: tuple[Peg, ...]) -> Edit:
    return Edit(path=PEGS_PATH, value=[peg.model_dump(mode="json") for peg in pegs])
