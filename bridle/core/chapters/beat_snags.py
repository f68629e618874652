"""What does not fit into one interval, and fixes that make it fit."""

from fractions import Fraction

from bridle.core.chapters.beat_measure import Cycle, measure, step_time
from bridle.core.chapters.clip import clip_fix, solved
from bridle.core.chapters.holding import take_over
from bridle.core.chapters.path import at, field_of
from bridle.core.plan.clip import RANGES, Clip
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.rig import Axis
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects import cycle, easing, shutter

MOST_TRIES = 40

TOO_SHORT = SnagKind(
    "interval-too-short",
    "stop",
    "clip",
    "One beat needs {need} and a margin, but the interval is {interval}.",
    "The next shutter would open while the camera still writes or the rig still moves: frames go missing or "
    "come out blurred. The shortest interval that fits is {shortest}.",
)
TOO_SLOW = SnagKind(
    "axis-too-slow",
    "stop",
    "move",
    "The {axis} needs {time} for its longest step; the interval is {interval}.",
    "Its top speed of {speed} cannot cover {step} in one interval, even with nothing else to do.",
)
KINDS = (TOO_SHORT, TOO_SLOW)


def too_short(plan: Plan, one: Cycle) -> list[Snag]:
    """The interval is shorter than the beat with its margin."""
    if not one.over_s:
        return []
    slots = {
        "need": slot(one.need_s, "s"),
        "interval": slot(one.interval_s, "s"),
        "shortest": slot(one.shortest_s, "s"),
    }
    return [TOO_SHORT.at("clip.interval", slots, [*_lengthen(plan), *_shorten_exposure(one)])]


def too_slow(plan: Plan, longest_steps: dict[str, float], one: Cycle) -> list[Snag]:
    """Axes whose longest step alone takes a whole interval."""
    interval = float(one.interval_s)
    late = [axis for axis in plan.rig.axes if step_time(axis, longest_steps[axis.name]) >= interval]
    return [_too_slow(plan, axis, longest_steps[axis.name], one) for axis in late]


def _too_slow(plan: Plan, axis: Axis, step: float, one: Cycle) -> Snag:
    slots = {
        "axis": slot(axis.name),
        "time": slot(step_time(axis, step), "s"),
        "interval": slot(one.interval_s, "s"),
        "speed": slot(axis.top_speed, f"{axis.unit}/s"),
        "step": slot(step, axis.unit),
    }
    fixes = [*_lengthen(plan), _travel_less(plan, axis, step, one)]
    return TOO_SLOW.at(f"move.end.{field_of(axis)}", slots, fixes)


def _lengthen(plan: Plan) -> list[Fix]:
    """The shortest interval that fits once the frames, and with them the steps of the move, have followed it."""
    tried = _fitting(plan, plan.clip)
    for _ in range(MOST_TRIES):
        if tried is None or tried > RANGES["interval"][1]:
            return []
        edits = take_over(plan.clip, "interval", tried)
        fitting = _fitting(plan, _changed(plan.clip, edits))
        if fitting is not None and fitting <= tried:
            return [clip_fix(plan.clip, "Beat of {fitting}", edits, {"fitting": slot(tried, "s")})]
        tried = fitting
    return []


def _fitting(plan: Plan, clip: Clip) -> Fraction | None:
    """The shortest interval for as many frames as the clip has; None where the clip is open."""
    solution, _ = solved(clip)
    if solution is None:
        return None
    ease = easing.fit_ease(plan.move.ease_in_frames, plan.move.ease_out_frames, solution.frames - 1)
    share = easing.longest_step(solution.frames - 1, ease)
    steps: dict[str, float] = {axis.name: share * _distance(plan, axis) for axis in plan.rig.axes}
    return measure(plan, steps, solution.interval).shortest_s


def _changed(clip: Clip, edits: list[Edit]) -> Clip:
    return Clip.model_validate({**clip.model_dump(mode="json"), "pegs": edits[0].value})


def _distance(plan: Plan, axis: Axis) -> float:
    return abs(at(plan.move.end, axis) - at(plan.move.start, axis))


def _shorten_exposure(one: Cycle) -> list[Fix]:
    exposure = float(one.beat.exposure_s)
    label = shutter.at_most(exposure + float(one.interval_s) - one.margin_s - one.need_s)
    if label is None:
        return []
    darker = shutter.stops_between(exposure, float(label))
    fix = Fix(
        label="Expose {shorter}",
        consequence="{darker} darker: open the aperture or raise ISO by as much. The interval stays.",
        slots={"shorter": slot(label, "shutter"), "darker": slot(round(darker, 1), "stops")},
        edits=(Edit(path="beat.exposure_s", value=str(label)),),
    )
    return [fix]


def _travel_less(plan: Plan, axis: Axis, step: float, one: Cycle) -> Fix:
    """Bring the end nearer, so that the longest step takes what the rest of the beat leaves, or half of it all."""
    interval = float(one.interval_s)
    room = interval - one.margin_s - (one.need_s - one.move_s)
    reach = cycle.step_within(room if room > 0 else interval / 2, axis.top_speed, axis.acceleration)
    start, end = at(plan.move.start, axis), at(plan.move.end, axis)
    # A hair less than the reach, so that rounding to the thousandth cannot overstep it.
    nearer = round(start + (end - start) * min(1.0, reach / step) * 0.999, 3)
    return Fix(
        label="End the {axis} at {nearer}",
        consequence="The {axis} travels {shorter} less; the interval stays.",
        slots={
            "axis": slot(axis.name),
            "nearer": slot(nearer, axis.unit),
            "shorter": slot(abs(end - nearer), axis.unit),
        },
        edits=(Edit(path=f"move.end.{field_of(axis)}", value=nearer),),
    )
