"""One frame of a shoot: when it is taken and where the axes stand, with the working of both."""

from bridle.core.chapters import clip
from bridle.core.chapters import timeline as times
from bridle.core.chapters.path import at, move_span
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.rig import Axis
from bridle.core.subjects import easing
from bridle.core.subjects.easing import Ease

SLOT = Formula("next - this", "from this frame to the next, in seconds since the first")
TIME_RAMPED = Formula("start + before", "the slots of all frames before it, one after another")
TIME = Formula("start + (number - 1) * interval", "frame 1 is taken at the start, each one an interval later")


def answer(plan: Plan, frame: int) -> list[Figure]:
    """Time and positions of a frame (0-based, held within the shoot); nothing while the clip is open."""
    told = clip.answer(plan.clip)
    timeline = times.answer(plan, told)
    if told.solution is None or timeline is None:
        return []
    frame = max(0, min(frame, told.solution.frames - 1))
    span = move_span(plan.clip, told.solution.frames)
    ease = easing.fit_ease(plan.move.ease_in_frames, plan.move.ease_out_frames, span.steps)
    gone = max(0, min(frame - span.first, span.steps))
    at_frame = [_position(plan, axis, frame, gone, span.steps, ease) for axis in plan.rig.axes]
    return [*_time(timeline, frame), *at_frame]


def _time(timeline: times.TimelineAnswer, frame: int) -> list[Figure]:
    """When the frame is taken, and its own slot."""
    start, slot = timeline.start.timestamp(), timeline.elapsed_s(frame + 1) - timeline.elapsed_s(frame)
    first = term("start", "first frame", start, "instant")
    number = term("number", "number of the frame", frame + 1, "")
    rule, terms = TIME, [first, number, term("interval", "interval", timeline.interval_s, "s")]
    if timeline.pace is not None:
        gone = term("before", "slots of the frames before it", timeline.elapsed_s(frame), "s")
        rule, terms = TIME_RAMPED, [first, gone]
    at = start + float(timeline.elapsed_s(frame))
    after, before = (
        term(name, f"{name} it opens", timeline.elapsed_s(frame + i), "s") for i, name in ((1, "next"), (0, "this"))
    )
    return [
        figure("frame.time", f"time of frame {frame + 1}", at, "instant", rule, *terms),
        figure("frame.interval", f"interval at frame {frame + 1}", slot, "s", SLOT, after, before),
    ]


def _position(plan: Plan, axis: Axis, frame: int, gone: int, steps: int, ease: Ease) -> Figure:
    start, end = at(plan.move.start, axis), at(plan.move.end, axis)
    rule, position = easing.position(start, end, gone, steps, ease)
    pace = easing.cruise(end - start, steps, ease)
    terms = {
        "start": term("start", f"{axis.name} at the start", start, axis.unit),
        "end": term("end", f"{axis.name} at the end", end, axis.unit),
        "pace": term("pace", "pace at cruise", pace, f"{axis.unit}/frame"),
        "gone": term("gone", "frames since the move began", gone, ""),
        "left": term("left", "frames until it ends", steps - gone, ""),
        "ease_in": term("ease_in", "ease in", ease.frames_in, "frames"),
        "ease_out": term("ease_out", "ease out", ease.frames_out, "frames"),
    }
    used = [one for symbol, one in terms.items() if symbol in compile(rule.expression, "rule", "eval").co_names]
    return figure(f"frame.{axis.name}", f"{axis.name} at frame {frame + 1}", position, axis.unit, rule, *used)
