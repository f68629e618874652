"""One frame of a shoot: when it is taken and where the axes stand, with the working of both."""

from collections.abc import Iterator

import numpy as np

from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.rig import Axis
from bridle.core.plan.rounds import Stations
from bridle.core.reckon.changes import DIALS
from bridle.core.reckon.path import at, shown_unit
from bridle.core.reckon.reckoning import Shooting, reckon
from bridle.core.reckon.schedule import Piece, Schedule
from bridle.core.reckon.timeline import Timeline
from bridle.core.subjects.light import dials, ramp
from bridle.core.subjects.motion import easing
from bridle.core.subjects.numbers import monotone

SLOT = Formula("next - this", "from this frame to the next, in seconds since the first")
TIME_RAMPED = Formula("start + before", "the slots of all frames before it, one after another")
BETWEEN = Formula("start + (end - start) * share", "from one keyframe to the other, by the share of the way")
READ = Formula("place", "as the mark that is followed, the lens ring or the station has it")
TIME = Formula("start + (number - 1) * interval", "frame 1 is taken at the start, each one an interval later")


def answer(plan: Plan, frame: int) -> list[Figure]:
    """Time and positions of a frame (0-based, held within the shoot); nothing while the clip is open."""
    shooting = reckon(plan).shooting
    if shooting is None:
        return []
    frame = max(0, min(frame, shooting.frames - 1))
    return [*_time(shooting.timeline, frame), *_positions(shooting, frame), *_exposed(shooting, frame)]


def _exposed(shooting: Shooting, frame: int) -> Iterator[Figure]:
    """What is set at a frame that follows the light, and what is left of it for the edit."""
    followed = shooting.followed
    if followed is None:
        return
    shutter, iso, aperture = (followed.true(dial, frame) for dial in DIALS)
    terms = (
        term("f_number", "aperture, as it is", aperture, "f-number"),
        term("shutter", "shutter, as it is", shutter, "s"),
        term("iso", "ISO, as it is", iso, ""),
        term("density", "filters take", float(followed.density[frame]), "stops"),
    )
    set_ev, left = float(followed.ev[frame]), float(followed.leftover[frame])
    yield figure("frame.set", f"set at frame {frame + 1}", set_ev, "EV", dials.EV_ND, *terms)
    ends = term("set", "set", set_ev, "EV"), term("wanted", "wanted", set_ev - left, "EV")
    yield figure("frame.leftover", f"left for the edit at frame {frame + 1}", left, "stops", ramp.LEFTOVER, *ends)


def _time(times: Timeline, frame: int) -> list[Figure]:
    """When the frame is taken, and its own slot."""
    start, slot = times.start.timestamp(), times.elapsed_s(frame + 1) - times.elapsed_s(frame)
    first = term("start", "first frame", start, "instant")
    number = term("number", "number of the frame", frame + 1, "")
    rule, terms = TIME, [first, number, term("interval", "interval", times.interval_s, "s")]
    if not times.even:
        gone = term("before", "slots of the frames before it", times.elapsed_s(frame), "s")
        rule, terms = TIME_RAMPED, [first, gone]
    at = start + float(times.elapsed_s(frame))
    after, before = (
        term(name, f"{name} it opens", times.elapsed_s(frame + i), "s") for i, name in ((1, "next"), (0, "this"))
    )
    return [
        figure("frame.time", f"time of frame {frame + 1}", at, "instant", rule, *terms),
        figure("frame.interval", f"interval at frame {frame + 1}", slot, "s", SLOT, after, before),
    ]


def _share(timing: Schedule, frame: int) -> tuple[Figure | None, Piece | None, float]:
    """How far the leg has come at a frame of it, by its ease; nothing where the rig stands at a keyframe."""
    step = _step(timing, frame)
    piece = next(
        (stretch for stretch in timing.pieces if stretch.knots[0] <= step <= stretch.knots[-1] and stretch.steps), None
    )
    if piece is None:
        return None, None, 0.0
    gone, ease = step - float(piece.knots[0]), piece.ease
    rule = easing.share_formula(gone, piece.steps, ease)
    terms = {
        "pace": term("pace", "share of the way, a frame at cruise", easing.cruise(1.0, piece.steps, ease), ""),
        "gone": term("gone", "frames since it set off", gone, "frames"),
        "left": term("left", "frames until it arrives", piece.steps - gone, "frames"),
        "ease_in": term("ease_in", "ease in", ease.frames_in, "frames"),
        "ease_out": term("ease_out", "ease out", ease.frames_out, "frames"),
    }
    share = float(piece.shares(np.array([step]))[0])
    used = [value for symbol, value in terms.items() if symbol in compile(rule.expression, "rule", "eval").co_names]
    return figure("frame.share", "share of the way", share, "share", rule, *used), piece, share


def _step(timing: Schedule, frame: int) -> float:
    """The step of the first leg that a frame corresponds to, on its way there or back."""
    frame = max(timing.span.first, min(frame, timing.span.last))
    number = next(number for number, leg in enumerate(timing.legs) if frame <= leg.last)
    leg = timing.legs[number]
    step = (frame - leg.first) * timing.steps / max(leg.steps, 1)
    return float(timing.steps - step if number % 2 else step)


def _positions(shooting: Shooting, frame: int) -> Iterator[Figure]:
    plan, places = shooting.plan, shooting.positions
    found, piece, share = _share(shooting.schedule, frame)
    if found is not None:
        yield found
    for axis in plan.rig.axes:
        yield _position(plan, axis, piece, share, float(places[axis.name][frame]), frame)


def _position(plan: Plan, axis: Axis, piece: Piece | None, share: float, place: float, frame: int) -> Figure:
    key, label, unit = f"frame.{axis.name}", f"{axis.name} at frame {frame + 1}", shown_unit(axis)
    values = np.array([at(plan, key, axis.name) for key in plan.move.keyframes])
    if piece is None or axis.on_lens or isinstance(plan.move.visits, Stations) or _followed(plan, axis):
        return figure(key, label, place, unit, READ, term("place", label, place, unit))
    shares = piece.shares(piece.knots)
    values = values[piece.first : piece.last + 1]
    if len(values) == 2:
        ends = (term("start", "where it sets off", values[0], unit), term("end", "where it goes", values[1], unit))
        return figure(key, label, place, unit, BETWEEN, *ends, term("share", "share of the way", share, "share"))
    number = int(np.clip(np.searchsorted(shares, share, side="right") - 1, 0, len(values) - 2))
    slopes, gap = monotone.slopes(shares, values), shares[number + 1] - shares[number]
    terms = (
        term("left", "keyframe before", values[number], unit),
        term("right", "keyframe after", values[number + 1], unit),
        term("t", "share of the way between them", (share - shares[number]) / gap, "share"),
        term("gap", "from one to the other, of the whole way", gap, "share"),
        term("slope_left", "slope at the one before", slopes[number], unit),
        term("slope_right", "slope at the one after", slopes[number + 1], unit),
    )
    return figure(key, label, place, unit, monotone.CUBIC, *terms)


def _followed(plan: Plan, axis: Axis) -> bool:
    """Whether an axis is led by a mark, frame by frame, instead of by its keyframes."""
    return plan.move.follow is not None and plan.move.follow.every_frame and axis.name in ("pan", "tilt")
