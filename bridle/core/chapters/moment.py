"""One frame of a shoot: when it is taken and where the axes stand, with the working of both."""

from bridle.core.chapters.clip import solved
from bridle.core.chapters.path import at
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.rig import Axis
from bridle.core.subjects import easing
from bridle.core.subjects.easing import Ease

TIME = Formula("start + (number - 1) * interval", "frame 1 is taken at the start, each one an interval later")


def answer(plan: Plan, frame: int) -> list[Figure]:
    """Time and positions of a frame (0-based, held within the shoot); nothing while the clip is open."""
    solution, _ = solved(plan.clip)
    if solution is None:
        return []
    frame = max(0, min(frame, solution.frames - 1))
    start, interval = plan.shoot.start.timestamp(), solution.interval
    time = figure(
        "frame.time",
        f"time of frame {frame + 1}",
        start + float(frame * interval),
        "instant",
        TIME,
        term("start", "start", start, "instant"),
        term("number", "number of the frame", frame + 1, ""),
        term("interval", "interval", interval, "s"),
    )
    steps = solution.frames - 1
    ease = easing.fit_ease(plan.move.ease_in_frames, plan.move.ease_out_frames, steps)
    return [time, *(_position(plan, axis, frame, steps, ease) for axis in plan.rig.axes)]


def _position(plan: Plan, axis: Axis, frame: int, steps: int, ease: Ease) -> Figure:
    start, end = at(plan.move.start, axis), at(plan.move.end, axis)
    rule, position = easing.position(start, end, frame, steps, ease)
    pace = easing.cruise(end - start, steps, ease)
    terms = {
        "start": term("start", f"{axis.name} at the start", start, axis.unit),
        "end": term("end", f"{axis.name} at the end", end, axis.unit),
        "pace": term("pace", "pace at cruise", pace, f"{axis.unit}/frame"),
        "gone": term("gone", "frames since the first", frame, ""),
        "left": term("left", "frames until the last", steps - frame, ""),
        "ease_in": term("ease_in", "ease in", ease.frames_in, "frames"),
        "ease_out": term("ease_out", "ease out", ease.frames_out, "frames"),
    }
    used = [one for symbol, one in terms.items() if symbol in compile(rule.expression, "rule", "eval").co_names]
    return figure(f"frame.{axis.name}", f"{axis.name} at frame {frame + 1}", position, axis.unit, rule, *used)
