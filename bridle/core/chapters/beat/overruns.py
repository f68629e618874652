"""What does not fit into one interval, and fixes that make it fit."""

from dataclasses import replace
from fractions import Fraction

import numpy as np

from bridle.core.asks.clip_offers import clip_fix
from bridle.core.asks.exposing import bracket_said, exposing, shifted
from bridle.core.asks.move_offers import lessened
from bridle.core.asks.pegs import changed, no_shorter
from bridle.core.plan.clip import RANGES
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.rig import Axis
from bridle.core.reckon.path import end_path
from bridle.core.reckon.picture import longest_lens
from bridle.core.reckon.reckoning import Shooting, shooting_of
from bridle.core.reckon.travel import times_alone
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.light import shutter
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.numbers.rounding import ceil_to, first_peak
from bridle.core.subjects.time import cycle

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
    "With a top speed of {speed} the {axis} cannot cover {step} in one interval, even with nothing else to do.",
    short="{axis} too slow: {time} a step",
)
DARK = SnagKind(
    "noise-reduction-costs",
    "mind",
    "clip",
    "Noise reduction in the camera takes {dark} of every {interval}.",
    "After each exposure the camera takes a dark one just as long. Without it the interval could be {without}; a few "
    "dark frames taken at the end, with the cap on and in the same cold, do the same for all frames at once.",
)
TOO_NEAR = SnagKind(
    "stack-too-near",
    "stop",
    "clip",
    "A focus stack from {near} cannot be taken with a focal length of {focal}.",
    "Nothing closer than the focal length can be brought into focus, and distances count from the lens.",
)
SPEEDS_UP = (
    "Speeding up by {acceleration} and slowing down again the {axis} cannot cover {step} in one interval, even with "
    "nothing else to do."
)
KINDS = (TOO_SHORT, TOO_SLOW, DARK, TOO_NEAR)
# From this share of the interval on, dark frames are worth a word.
MUCH = 0.2


def snags(shooting: Shooting) -> list[Snag]:
    """All that does not fit."""
    return [
        *too_slow(shooting),
        *too_short(shooting),
        *too_near(shooting.plan),
        *dark_frames(shooting),
    ]


def too_short(shooting: Shooting) -> list[Snag]:
    """The interval is shorter than the beat with its margin."""
    reckoned = shooting.cycle
    if not reckoned.over_s:
        return []
    slots = {
        "need": slot(reckoned.need_s, "s"),
        "interval": slot(reckoned.interval_s, "s"),
        "shortest": slot(reckoned.shortest_s, "s"),
    }
    fixes = [*_lengthen(shooting), *_shorten_exposure(shooting), *_one_a_cycle(shooting)]
    return [TOO_SHORT.at("clip.interval", slots, fixes)]


def _one_a_cycle(shooting: Shooting) -> list[Fix]:
    """A round left out, where a single picture a cycle fits."""
    if shooting.plan.move.visits is None:
        return []
    if shooting.tried(move=shooting.plan.move.model_copy(update={"visits": None})).cycle.over_s:
        return []
    return [
        Fix(
            label="One picture a cycle",
            consequence="The round is left out; the move goes from keyframe to keyframe.",
            slots={},
            edits=(Edit(path="move.visits", value=None),),
        )
    ]


def too_near(plan: Plan) -> list[Snag]:
    """A focus stack that begins inside the focal length."""
    stack, focal = plan.beat.stack, longest_lens(plan).focal_mm
    if stack is None or stack.near_mm > focal:
        return []
    near = round(focal * 4, 1)
    far = max(stack.far_mm, near * 1.5)
    fix = Fix(
        label="Stack from {nearer} to {further}",
        consequence="Closest focus of an ordinary lens; measure what yours can do.",
        slots={"nearer": slot(near, "mm"), "further": slot(far, "mm")},
        edits=(Edit(path="beat.stack.far_mm", value=far), Edit(path="beat.stack.near_mm", value=near)),
    )
    slots = {"near": slot(stack.near_mm, "mm"), "focal": slot(focal, "focal")}
    return [TOO_NEAR.at("beat.stack.near_mm", slots, [fix])]


def dark_frames(shooting: Shooting) -> list[Snag]:
    """In-camera noise reduction that takes a good part of the interval."""
    reckoned = shooting.cycle
    dark = reckoned.exposures.dark_in_gaps_s + reckoned.exposures.dark_last_s
    if dark < MUCH * float(reckoned.interval_s):
        return []
    edit = Edit(path="beat.noise_reduction", value=False)
    bare = shooting.plan.beat.model_copy(update={"noise_reduction": False})
    without = shooting.tried(beat=bare).cycle.shortest_s
    slots = {"dark": slot(dark, "s"), "interval": slot(reckoned.interval_s, "s"), "without": slot(without, "s")}
    fix = Fix(
        label="Switch it off",
        consequence="The shortest interval becomes {without}. Take ten dark frames when the shoot is over.",
        slots={"without": slot(without, "s")},
        edits=(edit,),
    )
    return [DARK.at("beat.noise_reduction", slots, [fix])]


def too_slow(shooting: Shooting) -> list[Snag]:
    """Axes for which one step alone takes a whole slot."""
    found, plan = [], shooting.plan
    for axis in plan.rig.axes:
        steps, rooms = shooting.steps[axis.name], shooting.timeline.rooms_s
        times = times_alone(axis, steps, plan.beat.continuous)
        visit, worst = np.unravel_index(first_peak((times / rooms).ravel()), times.shape)
        time, slot_s = float(times[visit, worst]), float(rooms[worst])
        if time >= slot_s * (1 + 1e-9 if plan.beat.continuous else 1):
            found.append(_too_slow(shooting, axis, float(steps[visit, worst]), time, slot_s))
    return found


def _too_slow(shooting: Shooting, axis: Axis, step: float, time: float, interval: float) -> Snag:
    slots = {
        "axis": slot(axis.name),
        "time": slot(time, "s"),
        "interval": slot(interval, "s"),
        "step": slot(step, axis.unit),
    }
    if axis.top_speed is not None:
        slots["speed"] = slot(axis.top_speed, f"{axis.unit}/s")
    if axis.acceleration is not None:
        slots["acceleration"] = slot(axis.acceleration, f"{axis.unit}/s²")
    fixes = [*_lengthen(shooting, axis), *_travel_less(shooting, axis)]
    told = TOO_SLOW.at(end_path(shooting.plan, axis), slots, fixes)
    # At its top speed all the way it would be there in time: then the way up to it is what takes so long.
    return replace(told, why=SPEEDS_UP) if step / axis.fastest < interval else told


def _lengthen(shooting: Shooting, axis: Axis | None = None) -> list[Fix]:
    """The shortest interval that fits once the frames, and with them the steps of the move, have followed it.

    With an axis, one that gives it the time for its steps too.
    """
    edits: list[Edit] = []
    plan, longest = shooting.plan, Fraction(0)
    tried: Shooting | None = shooting
    for _ in range(MOST_TRIES):
        if tried is None:
            return []
        needed = _needed(tried, axis)
        if needed is None and edits:
            return [clip_fix(plan, "Beat of {fitting}", edits, {"fitting": slot(longest, "s")})]
        longest = max(needed or longest, longest)
        edits = no_shorter(plan, longest) if longest <= RANGES["interval"][1] else []
        if not edits:
            return []
        tried = shooting_of(changed(plan, edits))
    return []


def _late(times: Floats, slots: Floats) -> bool:
    return float(np.max(times / slots)) >= 1


def _needed(shooting: Shooting, axis: Axis | None) -> Fraction | None:
    """The interval that this clip needs, where it has a shorter one; None where it fits."""
    late = _too_late(shooting, axis) if axis else None
    return late or (shooting.cycle.shortest_s if shooting.cycle.over_s else None)


def _too_late(shooting: Shooting, axis: Axis) -> Fraction | None:
    """Where an axis cannot keep up, an interval in which its longest step takes at most nine tenths."""
    times = times_alone(axis, shooting.steps[axis.name], shooting.plan.beat.continuous)
    if not _late(times, shooting.timeline.rooms_s):
        return None
    return ceil_to(float(np.max(times)) / 0.9, shooting.plan.clip.interval_step_s or cycle.FINEST_S)


def _shorten_exposure(shooting: Shooting) -> list[Fix]:
    """The longest shutter time on the dial with which the beat fits; what is needed only falls with it.

    Where the exposure follows the light, the beat holds it back already.
    """
    if shooting.followed is not None:
        return []
    beat, dial = shooting.plan.beat, shutter.LABELS
    exposure = float(beat.exposure_s)
    low, high = 0, sum(float(label) < exposure for label in dial)
    while low < high:
        middle = (low + high) // 2
        low, high = (middle + 1, high) if _fits_with(shooting, dial[middle]) else (low, middle)
    label = dial[low - 1] if low else None
    if label is None:
        return []
    darker = shutter.stops_between(exposure, float(label))
    fix = Fix(
        label="Expose {shorter}",
        consequence="{darker} darker: open the aperture or raise ISO by as much. The interval stays."
        + bracket_said(beat),
        slots={"shorter": slot(label, "shutter"), "darker": slot(round(darker, 1), "stops")},
        edits=tuple(exposing(beat, label)),
    )
    return [fix]


def _fits_with(shooting: Shooting, exposure: Fraction) -> bool:
    """Whether the whole shoot fits with another exposure; another frame may be the tightest then."""
    beat = shooting.plan.beat
    changed = {"exposure_s": exposure, "bracket_times_s": shifted(beat, exposure)}
    return not shooting.tried(beat=beat.model_copy(update=changed)).cycle.over_s


def _travel_less(shooting: Shooting, axis: Axis) -> list[Fix]:
    """Bring the keyframes nearer together, so that the axis keeps up with every slot; found by halving."""

    def keeps_up(tried: Shooting) -> bool:
        # All axes stay: what a ring has to turn follows from the others too, where one of them zooms.
        times = times_alone(axis, tried.steps[axis.name], tried.plan.beat.continuous)
        return not _late(times, tried.timeline.rooms_s)

    return lessened(shooting, (axis,), keeps_up)
