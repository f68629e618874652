"""What each drive is told for the move, and where it cannot do what the move asks."""

import math
from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from fractions import Fraction

import numpy as np

from bridle.core.asks.clip_offers import at_most, clip_fix, clip_fixes
from bridle.core.asks.pegs import changed, within
from bridle.core.chapters.rig.state import DriveState
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.lists.card import steps_figures
from bridle.core.plan.document import Plan
from bridle.core.plan.drive import STEPPERS, ByHand, Clockwork, Dial, Rated, SteppedSpeed
from bridle.core.plan.edit import Edit
from bridle.core.plan.kit import AxisCard
from bridle.core.plan.rig import Axis
from bridle.core.quantity import write
from bridle.core.reckon.clip import solved
from bridle.core.reckon.parts import axis_copies
from bridle.core.reckon.path import at, end_path, key_path
from bridle.core.reckon.picture import kept, scale
from bridle.core.reckon.poses import nearest_mm
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.schedule import schedule
from bridle.core.reckon.steps import steps_per_unit
from bridle.core.snag import Fix, Slot, Snag, SnagKind, slot
from bridle.core.subjects.motion import steppers
from bridle.core.subjects.motion.drives import clockwork, rated, timed
from bridle.core.subjects.optics import lens
from bridle.core.subjects.time.sentence import Solution

UNEVEN = SnagKind(
    "steps-uneven",
    "mind",
    "rig",
    "The {axis} takes {steps} steps a frame: its pace wavers by {ripple}, and a step is {pixels}.",
    "Some frames get a step more than others. Below about eight steps a frame it shows as a fine judder.",
)
NO_STOP = SnagKind(
    "drive-cannot-stop",
    "stop",
    "rig",
    "The {axis} runs on: its {drive} cannot stop for each frame.",
    "Shoot-move-shoot needs a drive that waits. One that just runs is for continuous moves, and short exposures.",
)
NO_EASE = SnagKind(
    "drive-cannot-ease",
    "mind",
    "rig",
    "The {axis} eases over {frames}, but its {drive} has one pace only.",
    "The move starts and ends abruptly; ease it in the edit, or leave handles to cut into.",
)
OTHER_SWEEP = SnagKind(
    "sweep-differs",
    "stop",
    "rig",
    "In {time} the {axis} goes {does}; the move asks for {asked}.",
    "The pace of its {drive} is what it is: either the move ends elsewhere, or it takes another time.",
)
RUNS_DOWN = SnagKind(
    "spring-runs-down",
    "stop",
    "rig",
    "The spring of the {axis} runs {longest}; the shoot lasts {shoot}.",
    "It slows down towards the end and stops, and nobody is there to wind it without a jolt.",
)
OTHER_WAY = SnagKind(
    "turns-the-other-way",
    "mind",
    "rig",
    "The {axis} only turns {way}; the move goes the other way.",
    "Hang it upside down, or turn the move round and play the footage in reverse: then people walk backwards and "
    "smoke sinks.",
)
OUT_OF_RANGE = SnagKind(
    "rate-out-of-range",
    "stop",
    "rig",
    "The {axis} would need {wanted}; its menu reaches from {low} to {high}.",
    "No key and no number of this drive give that rate.",
)
BY_EVENT = SnagKind(
    "clock-driven-axis",
    "stop",
    "rig",
    "An event calls the frames, but the {drive} of the {axis} runs by the clock.",
    "The drive goes on while the next frame is still waited for: the framing comes out of step with the frames.",
)
COARSE = SnagKind(
    "scale-too-coarse",
    "note",
    "rig",
    "The scale of the {axis} is divided into {division}; the move goes {pace}.",
    "Several frames share a mark: set it every {every} frames, or pick the nearest division and accept the jumps.",
)
ONE_WAY = SnagKind(
    "drive-goes-straight",
    "stop",
    "rig",
    "The move of the {axis} has turns or stops, but its {drive} goes one way at one pace.",
    "It starts, and goes on until it is stopped: nothing between the first keyframe and the last can be asked of it.",
)
KINDS = (UNEVEN, NO_STOP, NO_EASE, ONE_WAY, OTHER_SWEEP, RUNS_DOWN, OTHER_WAY, OUT_OF_RANGE, BY_EVENT, COARSE)

NAMES = {
    "belt": "stepper on a belt", "screw": "stepper on a screw", "gear": "stepper on a gear", "clockwork": "spring",
    "rated": "rate from a menu", "stepped": "switch of speeds", "dial": "dial", "hand": "scale",
}  # fmt: skip
# Beyond these a keyframe cannot stand.
MOST_DEG, MOST_MM = 3600, 1e6
# From this share of the sweep on a drive misses the move.
CLOSE = 0.01
VISIBLE_PX = 0.5
STEP_PX = Formula("step * scale", "one step, seen at the centre of the picture")
STEP_PX_SLIDE = Formula("step * focal * width / sensor / distance", "one step, seen at the nearest mark")


@dataclass(frozen=True)
class DrivesTold:
    """Every drive of the move, with figures and snags."""

    drives: tuple[DriveState, ...] = ()
    figures: list[Figure] = field(default_factory=list)
    snags: list[Snag] = field(default_factory=list)


@dataclass(frozen=True)
class Asked:
    """What the move asks of an axis: a sweep in a time, at a pace per frame; `seconds` is the move's own time."""

    plan: Plan
    axis: Axis
    card: AxisCard
    index: int
    sweep: float
    seconds: float
    per_frame: float
    shooting: Shooting

    @property
    def solution(self) -> Solution:
        """The clip as it is solved."""
        return self.shooting.solution

    @property
    def rotary(self) -> bool:
        """Whether it turns."""
        return self.axis.kind == "rotary"


def told(shooting: Shooting) -> DrivesTold:
    """What the drives are told; nothing where no card says what they are."""
    states: list[DriveState] = []
    figures: list[Figure] = []
    snags: list[Snag] = []
    for asked in _asked(shooting):
        for one in _TELL[asked.card.drive.kind](asked):
            if isinstance(one, DriveState):
                states.append(one)
            elif isinstance(one, Snag):
                snags.append(one)
            else:
                figures.append(one)
        snags += list(_common(asked))
    return DrivesTold(tuple(states), figures, snags)


def _asked(shooting: Shooting) -> Iterator[Asked]:
    plan, solution, steps = shooting.plan, shooting.solution, shooting.schedule.span.steps
    seconds = float(solution.shoot) * steps / solution.frames
    for name, copy in axis_copies(plan.kit.copies).items():
        axis = plan.rig.axis(name)
        if axis is None or not isinstance(copy.card, AxisCard) or steps == 0:
            continue
        sweep = at(plan, plan.move.end, name) - at(plan, plan.move.start, name)
        per_frame = float(np.max(np.abs(np.diff(shooting.driven[name]))))
        yield Asked(plan, axis, copy.card, plan.kit.copies.index(copy), sweep, seconds, per_frame, shooting)


Told = DriveState | Figure | Snag


def _said(asked: Asked, words: str) -> DriveState:
    return DriveState(axis=asked.axis.name, drive=NAMES[asked.card.drive.kind], words=words)


def _stepper(asked: Asked) -> Iterator[Told]:
    axis, card = asked.axis, asked.card
    steps = steps_per_unit(card)
    assert steps is not None
    for one in steps_figures(card):
        yield replace(one, key=f"drive.{axis.name}.{one.key.removeprefix('card.')}")
    per_frame = asked.per_frame * steps
    pace = term("pace", "pace at cruise", asked.per_frame, f"{axis.unit}/frame")
    each = term("steps", "steps per unit", steps, f"steps/{axis.unit}")
    yield figure(
        f"drive.{axis.name}.per_frame", "steps a frame at cruise", per_frame, "", steppers.PER_FRAME, pace, each
    )
    words = f"{per_frame:.4g} steps a frame at cruise; each position rounded from its own target"
    yield _said(asked, words)
    if per_frame:
        yield from _ripple(asked, steps, per_frame)


def _ripple(asked: Asked, steps: float, per_frame: float) -> Iterator[Told]:
    axis, plan = asked.axis, asked.plan
    frame, step = kept(plan), term("step", "one step", 1 / steps, axis.unit)
    near = nearest_mm(plan)
    if axis.name in ("pan", "tilt"):
        pixels = scale(plan) / steps
        per = term("scale", "pixels per degree", scale(plan), "px/°")
        yield figure(f"drive.{axis.name}.step_px", "one step in the picture", pixels, "px", STEP_PX, step, per)
    elif axis.name == "slide" and near is not None:
        focal = plan.camera.focal_mm
        pixels = lens.slide_smear_px(1 / steps, 1.0, focal, frame.width_px, frame.width_mm, near)
        terms = (
            term("focal", "focal length", focal, "focal"),
            term("width", "picture, across", frame.width_px, "px"),
            term("sensor", "sensor, across", frame.width_mm, "focal"),
            term("distance", "nearest mark, away from the rail", near, "mm"),
        )
        yield figure(f"drive.{axis.name}.step_px", "one step in the picture", pixels, "px", STEP_PX_SLIDE, step, *terms)
    else:
        return
    share = steppers.ripple(per_frame)
    if share:
        each = term("per_frame", "steps a frame", max(1.0, per_frame), "")
        yield figure(f"drive.{axis.name}.ripple", "unevenness at most", share, "share", steppers.RIPPLE, each)
    if share and per_frame < steppers.FEW_STEPS and pixels > VISIBLE_PX:
        yield _uneven(asked, per_frame, share, pixels)


def _uneven(asked: Asked, per_frame: float, share: float, pixels: float) -> Snag:
    drive = asked.card.drive
    assert isinstance(drive, STEPPERS)
    factor = 2 ** math.ceil(math.log2(max(steppers.FEW_STEPS / per_frame, 1.0001)))
    enough = min(drive.microsteps * min(factor, 2 ** math.ceil(math.log2(pixels / VISIBLE_PX))), 100_000)
    slots = {
        "axis": slot(asked.axis.name),
        "steps": slot(per_frame),
        "ripple": slot(share, "share"),
        "pixels": slot(pixels, "px"),
        "micro": slot(enough),
    }
    fix = Fix(
        label="{micro} microsteps",
        consequence="Set on the driver; a step becomes finer, and the top speed may fall.",
        slots=slots,
        edits=(Edit(path=f"kit.copies.{asked.index}.card.drive.microsteps", value=enough),),
    )
    return UNEVEN.at(f"kit.copies.{asked.index}.card.drive.microsteps", slots, [fix])


def _clockwork(asked: Asked) -> Iterator[Told]:
    drive, axis = asked.card.drive, asked.axis
    assert isinstance(drive, Clockwork)
    does = clockwork.sweep_deg(drive.rate_deg_min, asked.seconds)
    rate = term("rate", "rate", drive.rate_deg_min, "deg/min")
    seconds = term("seconds", "time of the move", asked.seconds, "s")
    yield figure(f"drive.{axis.name}.does", f"{axis.name} goes", does, axis.unit, clockwork.SWEEP, rate, seconds)
    needs = clockwork.seconds_for(abs(asked.sweep), drive.rate_deg_min)
    sweep = term("sweep", "the move sweeps", abs(asked.sweep), axis.unit)
    yield figure(f"drive.{axis.name}.time", "time for the sweep", needs, "s", clockwork.TIME, sweep, rate)
    way = "clockwise" if drive.clockwise else "anticlockwise"
    start = write(at(asked.plan, asked.plan.move.start, axis.name), "deg")
    yield _said(
        asked,
        f"wind it fully, start at {start}; it turns {way} by itself",
    )
    if asked.sweep and (asked.sweep > 0) != drive.clockwise:
        yield _turned_round(asked, way)
    yield from _differs(asked, does)
    if asked.solution.shoot > drive.longest_run_s:
        yield _runs_down(asked, drive)


def _turned_round(asked: Asked, way: str) -> Snag:
    plan, name = asked.plan, asked.axis.name
    edits = (
        Edit(path=key_path(plan, 0, name), value=at(plan, plan.move.end, name)),
        Edit(path=end_path(plan, asked.axis), value=at(plan, plan.move.start, name)),
    )
    fix = Fix(
        label="Turn the move round",
        consequence="Its ends change places. Play the footage in reverse if it has to go as planned; whatever moves in "
        "the picture then moves backwards.",
        slots={},
        edits=edits,
    )
    slots = {"axis": slot(asked.axis.name), "way": slot(way)}
    return OTHER_WAY.at(end_path(plan, asked.axis), slots, [fix])


def _runs_down(asked: Asked, drive: Clockwork) -> Snag:
    longest = Fraction(math.floor(drive.longest_run_s))
    plan = asked.plan
    fixes = clip_fixes(plan, "Watch for {longest}", at_most(plan, longest), {"longest": slot(longest, "s")})
    slots = {
        "axis": slot(asked.axis.name),
        "longest": slot(drive.longest_run_s, "s"),
        "shoot": slot(asked.solution.shoot, "s"),
    }
    return RUNS_DOWN.at(f"kit.copies.{asked.index}.card.drive.longest_run_s", slots, fixes)


def _differs(asked: Asked, does: float) -> Iterator[Snag]:
    """The drive goes elsewhere in the time of the move: end there."""
    wanted = abs(asked.sweep)
    if wanted == 0 or abs(does - wanted) <= CLOSE * wanted:
        return
    start = at(asked.plan, asked.plan.move.start, asked.axis.name)
    end = round(start + math.copysign(does, asked.sweep), 3)
    slots = {
        "time": slot(asked.seconds, "s"),
        "axis": slot(asked.axis.name),
        "does": slot(does, asked.axis.unit),
        "asked": slot(wanted, asked.axis.unit),
        "drive": slot(NAMES[asked.card.drive.kind]),
        "end": slot(end, asked.axis.unit),
    }
    path = end_path(asked.plan, asked.axis)
    yield OTHER_SWEEP.at(path, slots, [_end_there(asked, path, slots, end), *_longer(asked, does)])


def _end_there(asked: Asked, path: str, slots: dict[str, Slot], end: float) -> Fix:
    """End where the drive will be; where that lies beyond all bounds, leave the axis still."""
    if abs(end) <= (MOST_DEG if asked.rotary else MOST_MM):
        told = "The shoot keeps its length; the move ends where the drive will be."
        return Fix(label="End at {end}", consequence=told, slots=slots, edits=(Edit(path=path, value=end),))
    told = "In so long a time it would go round and round; the move is done without it."
    start = at(asked.plan, asked.plan.move.start, asked.axis.name)
    return Fix(label="Leave the {axis} still", consequence=told, slots=slots, edits=(Edit(path=path, value=start),))


def _longer(asked: Asked, does: float) -> list[Fix]:
    """Keep the move, and let the shoot last as long as the drive takes for it."""
    plan, factor = asked.plan, abs(asked.sweep) / does
    shoot = Fraction(round(float(asked.solution.shoot) * factor))
    tried = within(plan, "shoot", shoot)
    if not tried or not _close_after(asked, tried, does):
        return []
    return [clip_fix(plan, "Watch for {longer}", tried, {"longer": slot(shoot, "s")})]


def _close_after(asked: Asked, edits: list[Edit], does: float) -> bool:
    after = changed(asked.plan, edits)
    from_now, _missing = solved(after)
    if from_now is None:
        return False
    span = schedule(after.move, after.clip, from_now).span
    seconds = float(from_now.shoot) * span.steps / from_now.frames
    return abs(does * seconds / asked.seconds - abs(asked.sweep)) <= CLOSE * abs(asked.sweep) * 0.99


def _rated(asked: Asked) -> Iterator[Told]:
    drive, axis = asked.card.drive, asked.axis
    assert isinstance(drive, Rated)
    wanted = abs(asked.sweep) / asked.seconds * 60 if asked.seconds else 0.0
    sweep, seconds = (
        term("sweep", "the move sweeps", abs(asked.sweep), axis.unit),
        term("seconds", "time of the move", asked.seconds, "s"),
    )
    yield figure(f"drive.{axis.name}.wanted", "rate wanted", wanted, "deg/min", rated.WANTED, sweep, seconds)
    bases = [key.base_deg_min for key in drive.keys]
    found = rated.setting_for(wanted, bases, drive.low_setting, drive.high_setting, drive.setting_step)
    if wanted == 0:
        return
    if found is None:
        yield _out_of_range(asked, drive, wanted)
        return
    key = drive.keys[found.key]
    base = term("base", f"base rate of key {key.name}", key.base_deg_min, "deg/min")
    rate = term("wanted", "rate wanted", wanted, "deg/min")
    yield figure(f"drive.{axis.name}.setting", "setting, before rounding", found.exact, "", rated.SETTING, rate, base)
    number = term("setting", "setting", found.number, "")
    gives = key.base_deg_min * found.number
    yield figure(f"drive.{axis.name}.rate", "rate it gives", gives, "deg/min", rated.RATE, base, number)
    stop = (
        f"; it runs on until you stop it: set an alarm for {asked.seconds / 60:.0f} min"
        if drive.runs_while_held
        else ""
    )
    yield _said(asked, f"key {key.name}, setting {found.number:.6g}{stop}")
    yield from _differs(asked, gives * asked.seconds / 60)


def _out_of_range(asked: Asked, drive: Rated, wanted: float) -> Snag:
    rates = [key.base_deg_min * limit for key in drive.keys for limit in (drive.low_setting, drive.high_setting)]
    nearest = min(rates, key=lambda rate: abs(math.log(rate / wanted)))
    start = at(asked.plan, asked.plan.move.start, asked.axis.name)
    end = round(start + math.copysign(nearest * asked.seconds / 60, asked.sweep), 3)
    path = end_path(asked.plan, asked.axis)
    slots = {
        "axis": slot(asked.axis.name),
        "wanted": slot(wanted, "deg/min"),
        "low": slot(min(rates), "deg/min"),
        "high": slot(max(rates), "deg/min"),
        "end": slot(end, "deg"),
    }
    return OUT_OF_RANGE.at(path, slots, [_end_there(asked, path, slots, end)])


def _stepped(asked: Asked) -> Iterator[Told]:
    drive = asked.card.drive
    assert isinstance(drive, SteppedSpeed)
    yield from _needed(asked)
    if not asked.sweep:
        return
    needed = _run_needed(asked)
    chosen = drive.codes[timed.nearest_run(needed, [code.run_s for code in drive.codes])]
    yield from _becomes(asked, chosen.run_s)
    yield _said(asked, f"switch to {chosen.code}; the whole travel takes {chosen.run_s / 60:.4g} min there")
    yield from _differs(asked, _travel(asked) * asked.seconds / chosen.run_s)


def _dial(asked: Asked) -> Iterator[Told]:
    drive, axis = asked.card.drive, asked.axis
    assert isinstance(drive, Dial)
    yield from _needed(asked)
    if not asked.sweep:
        return
    needed, points = _run_needed(asked), [(point.dial, point.run_s) for point in drive.points]
    found = timed.dial_for(needed, points)
    if found is None:
        nearest = min(points, key=lambda point: abs(1 / point[1] - 1 / needed))
        yield _said(asked, f"dial at {nearest[0]:g}, the end of what is calibrated")
        yield from _differs(asked, _travel(asked) * asked.seconds / nearest[1])
        return
    i, dial = found
    (low, run_low), (high, run_high) = points[i], points[i + 1]
    terms = (
        term("low", "calibrated below", low, ""),
        term("high", "calibrated above", high, ""),
        term("run_low", f"whole travel at {low:g}", run_low, "s"),
        term("run_high", f"whole travel at {high:g}", run_high, "s"),
        term("needed", "whole travel, as needed", needed, "s"),
    )
    yield figure(f"drive.{axis.name}.dial", "dial", dial, "", timed.DIAL, *terms)
    doubt, ten = timed.dial_doubt(points), asked.per_frame * 10
    first = "it moves first, then shoots" if drive.moves_first else "it shoots first, then moves"
    yield _said(asked, f"dial at {dial:.1f} ± {doubt:.1f}; after ten frames it should stand {ten:.3g} further; {first}")


def _by_hand(asked: Asked) -> Iterator[Told]:
    drive, axis = asked.card.drive, asked.axis
    assert isinstance(drive, ByHand)
    yield _said(asked, f"set the scale between frames, by {asked.per_frame:.3g} a frame at cruise")
    if 0 < asked.per_frame < drive.division / 2:
        every = math.ceil(drive.division / asked.per_frame)
        finer = 10 ** math.floor(math.log10(asked.per_frame * 2))
        slots = {
            "axis": slot(axis.name),
            "division": slot(drive.division, axis.unit),
            "pace": slot(asked.per_frame, f"{axis.unit}/frame"),
            "every": slot(str(every)),
            "finer": slot(finer, axis.unit),
        }
        path = f"kit.copies.{asked.index}.card.drive.division"
        fix = Fix(
            label="Plan with a scale of {finer}",
            consequence="A printed strip with that division can be taped over the old one.",
            slots=slots,
            edits=(Edit(path=path, value=finer),),
        )
        yield COARSE.at(path, slots, [fix])


def _travel(asked: Asked) -> float:
    return asked.card.high - asked.card.low


def _run_needed(asked: Asked) -> float:
    return timed.run_needed(asked.seconds, _travel(asked), abs(asked.sweep))


def _needed(asked: Asked) -> Iterator[Figure]:
    if not asked.sweep:
        return
    axis = asked.axis
    terms = (
        term("seconds", "time of the move", asked.seconds, "s"),
        term("travel", "whole travel", _travel(asked), axis.unit),
        term("sweep", "the move sweeps", abs(asked.sweep), axis.unit),
    )
    yield figure(f"drive.{axis.name}.run", "whole travel, as needed", _run_needed(asked), "s", timed.NEEDED, *terms)


def _becomes(asked: Asked, run_s: float) -> Iterator[Figure]:
    axis, does = asked.axis, _travel(asked) * asked.seconds / run_s
    terms = (
        term("travel", "whole travel", _travel(asked), axis.unit),
        term("seconds", "time of the move", asked.seconds, "s"),
        term("run", "whole travel at that switch", run_s, "s"),
    )
    yield figure(f"drive.{axis.name}.does", f"{axis.name} goes", does, axis.unit, timed.BECOMES, *terms)


# Drives that run by the clock: they neither stop for a frame nor wait for one, and have a single pace.
RUNNING = ("clockwork", "rated", "stepped", "dial")


def _common(asked: Asked) -> Iterator[Snag]:
    kind, axis, plan = asked.card.drive.kind, asked.axis, asked.plan
    if kind not in RUNNING or not asked.sweep:
        return
    slots = {"axis": slot(axis.name), "drive": slot(NAMES[kind])}
    stops = isinstance(asked.card.drive, Dial)
    if not plan.beat.continuous and not stops:
        fix = Fix(
            label="Move all the time",
            consequence="Every frame is taken while the axis runs; keep the exposure short.",
            slots={},
            edits=(Edit(path="beat.school", value="continuous"),),
        )
        yield NO_STOP.at("beat.school", slots, [fix])
    if not _straight(asked):
        yield _only_straight(asked, slots)
    eased = sum(asked.shooting.schedule.eases_asked)
    if eased:
        fix = Fix(
            label="No ease",
            consequence="The move runs at one pace from its first frame to its last.",
            slots={},
            edits=tuple(
                Edit(path=f"move.ease_{end}", value=value)
                for end, value in (("in_frames", 0), ("out_frames", 0), ("in_s", None), ("out_s", None))
            ),
        )
        yield NO_EASE.at("move.ease_in_frames", {**slots, "frames": slot(eased, "frames")}, [fix])
    if plan.clip.called_by == "event":
        fix = Fix(
            label="Let the clock call the frames",
            consequence="Frames come at the interval, whether the event has happened or not.",
            slots={},
            edits=(Edit(path="clip.called_by", value="clock"),),
        )
        yield BY_EVENT.at("clip.called_by", slots, [fix])


def _straight(asked: Asked) -> bool:
    """Whether the move of this axis is one way at one pace, but for the ease."""
    move, name = asked.plan.move, asked.axis.name
    keys = [at(asked.plan, key, name) for key in move.keyframes]
    led = move.follow is not None and move.follow.every_frame and name in ("pan", "tilt")
    holds = any(key.hold_frames for key in (move.start, move.end))
    return len(keys) == 2 and move.legs == 1 and move.visits is None and not led and not holds


def _only_straight(asked: Asked, slots: dict[str, Slot]) -> Snag:
    move = asked.plan.move
    ends = [key.model_copy(update={"hold_frames": 0}).model_dump(mode="json") for key in (move.start, move.end)]
    edits = [Edit(path="move.keyframes", value=ends), Edit(path="move.legs", value=1)]
    if move.visits is not None:
        edits.append(Edit(path="move.visits", value=None))
    if move.follow is not None and move.follow.every_frame:
        edits.append(Edit(path="move.follow.every_frame", value=False))
    fix = Fix(
        label="Straight from the first keyframe to the last",
        consequence="All other keyframes, ways back and rounds are left out, on every axis.",
        slots={},
        edits=tuple(edits),
    )
    return ONE_WAY.at("move.keyframes", slots, [fix])


_TELL = {
    "belt": _stepper, "screw": _stepper, "gear": _stepper, "clockwork": _clockwork, "rated": _rated,
    "stepped": _stepped, "dial": _dial, "hand": _by_hand,
}  # fmt: skip
