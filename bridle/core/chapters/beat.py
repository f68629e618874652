"""What has to fit inside one interval of a shoot-move-shoot, and whether it does."""

from collections.abc import Callable
from dataclasses import dataclass, field
from fractions import Fraction

from bridle.core.chapters.clip import ClipAnswer, clip_fix, solved
from bridle.core.chapters.holding import take_over
from bridle.core.chapters.path import PathAnswer, at, field_of
from bridle.core.figure import Figure, Term, figure, term
from bridle.core.plan.beat import Beat
from bridle.core.plan.clip import Clip
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.rig import Axis, Rig
from bridle.core.snag import Fix, Slot, Snag, SnagKind, slot
from bridle.core.subjects import cycle, easing, shutter

TOLERANCE_S = 1e-9

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


@dataclass(frozen=True)
class Part:
    """A part of the beat as drawn: where it starts and how long it lasts, in seconds, and on which track."""

    name: str
    label: str
    start_s: float
    length_s: float
    track: str
    path: str | None


@dataclass(frozen=True)
class BeatAnswer:
    """The need of one cycle against its interval."""

    need_s: float
    move_s: float
    margin_s: float
    interval_s: Fraction
    shortest_s: Fraction
    parts: tuple[Part, ...]
    figures: list[Figure] = field(default_factory=list)
    snags: list[Snag] = field(default_factory=list)


def answer(plan: Plan, clip: ClipAnswer, path: PathAnswer) -> BeatAnswer | None:
    """The beat; None while the clip is open."""
    if clip.solution is None:
        return None
    interval = clip.solution.interval
    slowest, move_s = _slowest(plan.rig, path.longest_step)
    need = _need(plan.beat, move_s)
    shortest = _shortest(plan.beat, need, plan.clip.interval_step_s)
    margin = max(float(plan.beat.margin * interval), float(plan.beat.least_margin_s))
    figures = _figures(plan, slowest, path.longest_step[slowest.name], move_s, need, interval, margin, shortest)
    snags = _too_slow(plan, path, interval) + _too_short(plan, interval, need, move_s, shortest)
    parts = _parts(plan.beat, move_s, need, float(interval), margin)
    return BeatAnswer(need, move_s, margin, interval, shortest, parts, figures, snags)


def _slowest(rig: Rig, steps: dict[str, float]) -> tuple[Axis, float]:
    """The axis that takes longest for its longest step, and how long: all axes move together."""
    times = [(axis, _step_time(axis, steps[axis.name])) for axis in rig.axes]
    return max(times, key=lambda pair: pair[1])


def _step_time(axis: Axis, distance: float) -> float:
    return cycle.step_time(distance, axis.top_speed, axis.acceleration)


def _need(beat: Beat, move_s: float) -> float:
    return cycle.cycle_need(
        float(beat.exposure_s),
        float(beat.write_s),
        move_s,
        _settle(beat, move_s),
        wake=float(beat.wake_s),
        lag=float(beat.lag_s),
        write_while_moving=beat.write_while_moving,
    )


def _settle(beat: Beat, move_s: float) -> float:
    """Nothing has to settle where nothing has moved."""
    return float(beat.settle_s) if move_s else 0.0


def _shortest(beat: Beat, need: float, step: Fraction) -> Fraction:
    return cycle.shortest_interval(need, float(beat.margin), float(beat.least_margin_s), step)


def _parts(beat: Beat, move_s: float, need: float, interval: float, margin: float) -> tuple[Part, ...]:
    parts, now = [], 0.0
    for name, label in (("wake", "wake"), ("lag", "shutter lag"), ("exposure", "exposure")):
        length = float(getattr(beat, f"{name}_s"))
        parts.append(Part(name, label, now, length, "outer", f"beat.{name}_s"))
        now += length
    parts.append(Part("write", "write to card", now, float(beat.write_s), "outer", "beat.write_s"))
    inner = "inner" if beat.write_while_moving else "outer"
    moving = now if beat.write_while_moving else now + float(beat.write_s)
    parts.append(Part("move", "move", moving, move_s, inner, None))
    parts.append(Part("settle", "settle", moving + move_s, _settle(beat, move_s), inner, "beat.settle_s"))
    free = interval - margin
    parts.append(Part("spare", "spare", need, max(0.0, free - need), "outer", None))
    # Where the beat does not fit, the margin is what it overruns by besides.
    parts.append(Part("margin", "margin kept", max(need, free), margin, "outer", "beat.margin"))
    return tuple(parts)


def _figures(
    plan: Plan,
    slowest: Axis,
    step: float,
    move_s: float,
    need: float,
    interval: Fraction,
    margin: float,
    shortest: Fraction,
) -> list[Figure]:
    beat = plan.beat
    settle = _settle(beat, move_s)
    seconds: Callable[[str, str, float | Fraction], Term] = lambda name, label, v: term(name, label, v, "s")  # noqa: E731
    needs, whole = seconds("need", "needed", need), seconds("interval", "interval", interval)
    share, least = (
        term("share", "margin", beat.margin, "share"),
        seconds("least", "least margin", beat.least_margin_s),
    )
    moving = seconds("move", "move", move_s)
    cycle_terms = (
        seconds("wake", "wake", beat.wake_s),
        seconds("lag", "shutter lag", beat.lag_s),
        term("exposure", "exposure", beat.exposure_s, "shutter"),
        seconds("write", "write to card", beat.write_s),
        moving,
        seconds("settle", "settle", settle),
    )
    step_terms = (
        term("distance", f"longest step of the {slowest.name}", step, slowest.unit),
        term("speed", "top speed", slowest.top_speed, f"{slowest.unit}/s"),
        term("acceleration", "acceleration", slowest.acceleration, f"{slowest.unit}/s²"),
    )
    need_rule = cycle.NEED_OVERLAP if beat.write_while_moving else cycle.NEED_IN_TURN
    step_rule = cycle.step_formula(step, slowest.top_speed, slowest.acceleration)
    grid = seconds("step", "interval step", plan.clip.interval_step_s or cycle.FINEST_S)
    return [
        figure("beat.move", "move", move_s, "s", step_rule, *step_terms),
        figure("beat.need", "needed", need, "s", need_rule, *cycle_terms),
        figure("beat.margin", "margin kept", margin, "s", cycle.MARGIN, share, whole, least),
        figure(
            "beat.spare",
            "spare",
            float(interval) - need - margin,
            "s",
            cycle.SPARE,
            whole,
            needs,
            seconds("margin", "margin kept", margin),
        ),
        figure(
            "beat.shortest",
            "shortest interval that fits",
            shortest,
            "s",
            cycle.SHORTEST,
            needs,
            term("margin", "margin", beat.margin, "share"),
            least,
            grid,
        ),
        figure(
            "beat.still",
            "still time for the controller",
            float(interval) - move_s - margin,
            "s",
            cycle.STILL,
            whole,
            moving,
            seconds("margin", "margin kept", margin),
        ),
        figure(
            "beat.share",
            "exposure over interval",
            float(beat.exposure_s / interval),
            "share",
            cycle.EXPOSURE_SHARE,
            term("exposure", "exposure", beat.exposure_s, "shutter"),
            whole,
        ),
    ]


def _too_short(plan: Plan, interval: Fraction, need: float, move_s: float, shortest: Fraction) -> list[Snag]:
    if not _misfit(plan.beat, float(interval), need):
        return []
    slots = {"need": slot(need, "s"), "interval": slot(interval, "s"), "shortest": slot(shortest, "s")}
    fixes = [*_lengthen(plan), *_shorten_exposure(plan.beat, float(interval), need)]
    return [TOO_SHORT.at("clip.interval", slots, fixes)]


def _misfit(beat: Beat, interval: float, need: float) -> bool:
    margin = max(float(beat.margin) * interval, float(beat.least_margin_s))
    return need + margin > interval + TOLERANCE_S


def _lengthen(plan: Plan) -> list[Fix]:
    """The shortest interval that fits once the frames, and so the steps of the move, have followed it."""
    tried: Fraction | None = None
    for _ in range(40):
        edits = take_over(plan.clip, "interval", tried) if tried else []
        clip = _changed(plan.clip, edits)
        answered, _ = solved(clip)
        if answered is None:
            return []
        need = _need(plan.beat, _move_time(plan, answered.frames))
        fitting = _shortest(plan.beat, need, plan.clip.interval_step_s)
        if tried and not _misfit(plan.beat, float(tried), need):
            return [clip_fix(plan.clip, "Beat of {fitting}", edits, {"fitting": slot(tried, "s")})]
        if fitting > 31 * 86_400:
            return []
        tried = fitting if tried is None else max(fitting, tried + (plan.clip.interval_step_s or cycle.FINEST_S))
    return []


def _changed(clip: Clip, edits: list[Edit]) -> Clip:
    return Clip.model_validate({**clip.model_dump(mode="json"), "pegs": edits[0].value}) if edits else clip


def _move_time(plan: Plan, frames: int) -> float:
    ease = easing.fit_ease(plan.move.ease_in_frames, plan.move.ease_out_frames, frames - 1)
    longest = easing.longest_step(frames - 1, ease)
    return max(_step_time(axis, longest * _distance(plan, axis)) for axis in plan.rig.axes)


def _distance(plan: Plan, axis: Axis) -> float:
    return abs(at(plan.move.end, axis) - at(plan.move.start, axis))


def _shorten_exposure(beat: Beat, interval: float, need: float) -> list[Fix]:
    room = cycle.longest_exposure(
        interval, float(beat.exposure_s), need, float(beat.margin), float(beat.least_margin_s)
    )
    label = shutter.at_most(room)
    if label is None:
        return []
    darker = shutter.stops_between(float(beat.exposure_s), float(label))
    return [
        Fix(
            label="Expose {shorter}",
            consequence="{darker} darker: open the aperture or raise ISO by as much. The interval stays.",
            slots={"shorter": slot(label, "shutter"), "darker": slot(round(darker, 1), "stops")},
            edits=(Edit(path="beat.exposure_s", value=str(label)),),
        )
    ]


def _too_slow(plan: Plan, path: PathAnswer, interval: Fraction) -> list[Snag]:
    found = []
    for axis in plan.rig.axes:
        step = path.longest_step[axis.name]
        time = _step_time(axis, step)
        if time >= float(interval):
            slots = {
                "axis": slot(axis.name),
                "time": slot(time, "s"),
                "interval": slot(interval, "s"),
                "speed": slot(axis.top_speed, f"{axis.unit}/s"),
                "step": slot(step, axis.unit),
            }
            fixes = [*_lengthen(plan), *_travel_less(plan, axis, step, float(interval))]
            found.append(TOO_SLOW.at(f"move.end.{field_of(axis)}", slots, fixes))
    return found


def _travel_less(plan: Plan, axis: Axis, step: float, interval: float) -> list[Fix]:
    """Bring the end nearer, so that the longest step takes what the rest of the beat leaves, or half of it all."""
    room = interval - _need(plan.beat, 0.0) - _settle(plan.beat, 1.0) - float(plan.beat.margin) * interval
    reach = cycle.step_within(room if room > 0 else interval / 2, axis.top_speed, axis.acceleration)
    start, end = at(plan.move.start, axis), at(plan.move.end, axis)
    nearer = round(start + (end - start) * reach / step * 0.999, 3)
    slots: dict[str, Slot] = {"nearer": slot(nearer, axis.unit), "axis": slot(axis.name)}
    slots["shorter"] = slot(abs(end - nearer), axis.unit)
    edit = Edit(path=f"move.end.{field_of(axis)}", value=nearer)
    return [
        Fix(
            label="End the {axis} at {nearer}",
            consequence="The {axis} travels {shorter} less; the interval stays.",
            slots=slots,
            edits=(edit,),
        )
    ]
