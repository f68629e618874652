"""The clip of an interval that changes over the shoot: its figures, and what to mind."""

from fractions import Fraction

from bridle.core.chapters.clip.even import HELD, at_other_rates, spare_term
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.frames import Changing
from bridle.core.plan.words import LABELS, UNITS
from bridle.core.reckon.frames.changing import pace_of, segments_of
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.numbers.rounding import ceil_to, floor_to
from bridle.core.subjects.time import pacing
from bridle.core.subjects.time import sentence as solver

BLEND = SnagKind(
    "blend-shortened",
    "note",
    "clip",
    "Blending over {asked} is longer than the segments around frame {edge} allow.",
    "It was shortened to {used} there: two blends may not run into each other, nor beyond the ends of the shoot.",
)
OFF_STEP = SnagKind(
    "segment-off-step",
    "mind",
    "clip",
    "An interval of {interval} cannot be dialled.",
    "The interval is set in steps of {step}; segment {number} would run at another pace than planned.",
)
KINDS = (BLEND, OFF_STEP)
MEAN = Formula("shoot / frames", "the mean interval: the shoot over its frames")
SPEED_UP = Formula("shoot / (frames / rate)", "real time over clip time, over the whole shoot")


def figures(plan: Plan, solution: solver.Solution) -> list[Figure]:
    """The six quantities and each segment's frames, with their working."""
    clip = plan.clip
    rate = term("rate", LABELS["rate"], solution.rate, "rate")
    frames = term("frames", LABELS["frames"], solution.frames, "frames")
    shoot = term("shoot", LABELS["shoot"], solution.shoot, "s")
    held = term("held", "playback rate, held", solution.rate, "rate")
    clip_rule = solver.CLIP_KEPT if clip.spare else solver.CLIP
    spare = (spare_term(clip.spare),) if clip.spare else ()
    return [
        *_sums(_source(plan), solution),
        figure("clip.interval", "mean interval", solution.interval, "s", MEAN, shoot, frames),
        figure("clip.rate", LABELS["rate"], solution.rate, UNITS["rate"], HELD, held),
        figure("clip.clip", LABELS["clip"], solution.clip, "s", clip_rule, frames, rate, *spare),
        figure("clip.speed_up", LABELS["speed_up"], solution.speed_up, "times", SPEED_UP, shoot, frames, rate),
        *at_other_rates(solution),
    ]


def _sums(frames: Changing, solution: solver.Solution) -> list[Figure]:
    """Frames and length as sums over the segments, and each segment's frames."""
    segments = segments_of(frames)
    counts = pacing.counts(segments)
    each = [
        figure(
            f"clip.segment.{number}.frames",
            f"frames of segment {number + 1}",
            count,
            "frames",
            pacing.FRAMES,
            term("length", "length", length, "s"),
            term("interval", "interval", interval, "s"),
        )
        for number, (count, (length, interval)) in enumerate(zip(counts, segments, strict=True))
    ]
    each += [
        figure(
            f"clip.segment.{number}.speed_up",
            f"segment {number + 1} is faster than life by",
            interval * solution.rate,
            "times",
            solver.SPEED_UP,
            term("interval", "interval", interval, "s"),
            term("rate", LABELS["rate"], solution.rate, "rate"),
        )
        for number, (_, interval) in enumerate(segments)
    ]
    plain = sum((n * interval for n, (_, interval) in zip(counts, segments, strict=True)), start=Fraction(0))
    names = range(1, len(counts) + 1)
    total = Formula(" + ".join(f"frames{i}" for i in names), "all segments together")
    length = Formula(
        " + ".join(f"frames{i} * interval{i}" for i in names) + " + blending",
        "the slots of all frames; blending makes those around a boundary longer or shorter",
    )
    terms = [term(f"frames{i}", f"frames of segment {i}", counts[i - 1], "frames") for i in names]
    slots = [term(f"interval{i}", f"interval of segment {i}", segments[i - 1][1], "s") for i in names]
    blending = term("blending", "what blending adds", solution.shoot - plain, "s")
    return [
        *each,
        figure("clip.frames", LABELS["frames"], Fraction(solution.frames), "frames", total, *terms),
        figure("clip.shoot", LABELS["shoot"], solution.shoot, "s", length, *terms, *slots, blending),
    ]


def asked(plan: Plan) -> dict[str, Fraction]:
    """The length that was asked for: that of all segments."""
    return {"shoot": sum((segment.length_s for segment in _source(plan).segments), start=Fraction(0))}


def snags(plan: Plan, solution: solver.Solution) -> list[Snag]:
    """Blends that had to be shortened, and intervals that no dial has."""
    frames = _source(plan)
    return [*_shortened(frames), *_off_step(frames, plan.clip.interval_step_s)]


def _source(plan: Plan) -> Changing:
    assert isinstance(plan.frames, Changing)
    return plan.frames


def _shortened(frames: Changing) -> list[Snag]:
    pace, asked = pace_of(frames), frames.blend_frames
    short = [(used, edge) for used, edge in zip(pace.blends, pace.boundaries, strict=True) if used < asked]
    if not short:
        return []
    used, edge = min(short)
    slots = {"asked": slot(asked, "frames"), "used": slot(used, "frames"), "edge": slot(edge + 1)}
    fix = Fix(
        label="Blend over {used}",
        consequence="Every change of the interval takes as many frames as this one.",
        slots=slots,
        edits=(Edit(path="frames.blend_frames", value=used),),
    )
    return [BLEND.at("frames.blend_frames", slots, [fix])]


def _off_step(frames: Changing, step: Fraction) -> list[Snag]:
    found = []
    for number, segment in enumerate(frames.segments):
        if step and (segment.interval_s / step).denominator != 1:
            path = f"frames.segments.{number}.interval_s"
            slots = {"interval": slot(segment.interval_s, "s"), "step": slot(step, "s"), "number": slot(number + 1)}
            values = dict.fromkeys((floor_to(segment.interval_s, step), ceil_to(segment.interval_s, step)))
            fixes = [_dial(path, segment.length_s, value) for value in values if value > 0]
            found.append(OFF_STEP.at(path, slots, fixes))
    return found


def _dial(path: str, length: Fraction, value: Fraction) -> Fix:
    frames = pacing.counts([(length, value)])[0]
    return Fix(
        label="Dial {dial}",
        consequence="The segment has {frames} then.",
        slots={"dial": slot(value, "s"), "frames": slot(frames, "frames")},
        edits=(Edit(path=path, value=str(value)),),
    )
