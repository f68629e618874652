"""Frames at an interval that changes over the shoot, segment by segment."""

import math
from fractions import Fraction
from functools import lru_cache

from bridle.core.plan.clip import Quantity
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.frames import Changing, Segment
from bridle.core.reckon.frames.even import pegs_edit, with_peg
from bridle.core.reckon.frames.found import MOST_FRAMES, Found, by_count, calls_of, keep_of, rate_of
from bridle.core.reckon.timeline import MS, Run, Timeline, first_frame
from bridle.core.subjects.numbers.rounding import ceil_to
from bridle.core.subjects.time import pacing
from bridle.core.subjects.time.sentence import Solution

SEGMENTS_PATH = "frames.segments"
FINEST = Fraction(1, 1000)


def segments_of(frames: Changing) -> list[tuple[Fraction, Fraction]]:
    """Length and interval of each segment, in seconds."""
    return [(segment.length_s, segment.interval_s) for segment in frames.segments]


@lru_cache(maxsize=8)
def pace_of(frames: Changing) -> pacing.Pace:
    """When each frame is taken. The same segments stand in one plan after another of a drag."""
    return pacing.pace(segments_of(frames), frames.blend_frames)


def find(plan: Plan) -> Found:
    """What the segments come to; the interval is the mean one."""
    frames = _source(plan)
    count = sum(pacing.counts(segments_of(frames)))
    if count > MOST_FRAMES:
        return Found(free=("frames",), frames=count)
    pace = pace_of(frames)
    mean = pace.length_s / pace.frames
    return Found(by_count(plan, pace.frames, pace.length_s, mean, "segments"), frames=count)


def resolve(plan: Plan, solution: Solution) -> Timeline:
    """The frames in time, to the millisecond; without a gap."""
    pace = pace_of(_source(plan))
    return Timeline(
        start=first_frame(plan, solution.shoot),
        zone=plan.shoot.place.zone,
        starts_s=pace.starts_ms[:-1] / MS,
        rooms_s=pace.intervals_s(),
        runs=(Run(0, pace.frames, Fraction(0), None),),
        end_s=pace.length_s,
        interval_s=solution.interval,
        calls=calls_of(plan),
    )


def hold(plan: Plan, quantity: Quantity, value: Fraction) -> list[Edit]:
    """The playback rate as a peg; for all else the segments are stretched alike, or their intervals."""
    if quantity == "rate":
        return [pegs_edit(with_peg(plan.clip.pegs, quantity, value))]
    segments, rate = segments_of(_source(plan)), rate_of(plan)
    if quantity == "clip":
        quantity, value = "frames", Fraction(math.ceil(Fraction(math.ceil(value * rate)) / keep_of(plan.clip)))
    elif quantity == "speed_up":
        quantity, value = "interval", value / rate
    if quantity == "frames":
        shared = _shared(pacing.counts(segments), max(int(value), len(segments)))
        return segments_edit([(n * interval, interval) for n, (_, interval) in zip(shared, segments, strict=True)])
    if quantity == "shoot":
        factor = value / sum((length for length, _ in segments), Fraction(0))
        return segments_edit([(max(FINEST, length * factor), interval) for length, interval in segments])
    return _stretched(segments, value, plan.clip.interval_step_s or FINEST)


def _stretched(segments: list[tuple[Fraction, Fraction]], mean: Fraction, step: Fraction) -> list[Edit]:
    """The intervals made longer or shorter alike, so that their mean comes to a value, each on the step."""
    counts = pacing.counts(segments)
    total = sum((n * interval for n, (_, interval) in zip(counts, segments, strict=True)), Fraction(0))
    factor = mean / (total / sum(counts))
    return segments_edit([(length, ceil_to(interval * factor, step)) for length, interval in segments])


def no_shorter(plan: Plan, interval: Fraction) -> list[Edit]:
    """No segment with an interval below this, none shorter than one."""
    segments = segments_of(_source(plan))
    return segments_edit([(max(length, interval), max(own, interval)) for length, own in segments])


def segments_edit(segments: list[tuple[Fraction, Fraction]]) -> list[Edit]:
    """The edit that puts these segments (length and interval in seconds) in place."""
    return [Edit(path=SEGMENTS_PATH, value=segments_json(segments))]


def segments_json(segments: list[tuple[Fraction, Fraction]]) -> list[dict[str, str]]:
    """Segments as they stand in the plan's JSON. Raises a ValidationError beyond what a plan can hold."""
    return [Segment(length_s=length, interval_s=every).model_dump(mode="json") for length, every in segments]


def _source(plan: Plan) -> Changing:
    assert isinstance(plan.frames, Changing)
    return plan.frames


def _shared(counts: list[int], wanted: int) -> list[int]:
    """So many frames shared out as the counts are, at least one each, the largest remainders first."""
    raw = [Fraction(count * wanted, sum(counts)) for count in counts]
    shared = [max(1, math.floor(share)) for share in raw]
    order = sorted(range(len(raw)), key=lambda i: math.floor(raw[i]) - raw[i])
    while sum(shared) != wanted:
        up = 1 if sum(shared) < wanted else -1
        for i in order if up > 0 else order[::-1]:
            if sum(shared) != wanted and shared[i] + up >= 1:
                shared[i] += up
    return shared
