"""What each drive is told for the move, and where it cannot do what the move asks."""

import math
from collections.abc import Iterator
from dataclasses import dataclass, field
from fractions import Fraction

import numpy as np

from bridle.core.asks.clip_offers import at_most, clip_fix, clip_fixes
from bridle.core.asks.pegs import changed, within
from bridle.core.chapters.rig.state import DriveState
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.kit import AxisCard
from bridle.core.plan.rig import Axis
from bridle.core.reckon.parts import axis_copies
from bridle.core.reckon.path import at, end_path, key_path
from bridle.core.reckon.picture import kept, scale
from bridle.core.reckon.poses import nearest_mm
from bridle.core.reckon.reckoning import Shooting, shooting_of
from bridle.core.snag import Fix, Slot, Snag, SnagKind, slot
from bridle.core.subjects.motion import steppers
from bridle.core.subjects.motion.drives.interface import DriveCard, Wanted
from bridle.core.subjects.motion.drives.stepper import Stepper
from bridle.core.subjects.optics import lens

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
    """What the move asks of an axis, and the card that has to do it (its place in the kit)."""

    shooting: Shooting
    axis: Axis
    card: AxisCard
    index: int
    wanted: Wanted

    @property
    def plan(self) -> Plan:
        """The plan it is asked by."""
        return self.shooting.plan

    @property
    def drive(self) -> DriveCard:
        """What it is asked of."""
        return self.card.drive

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
        words = asked.drive.words(asked.wanted)
        if words is not None:
            states.append(DriveState(axis=asked.axis.name, drive=asked.drive.NAME, words=words))
        figures += [*asked.drive.working(asked.wanted), *_step_figures(asked)]
        snags += _snags(asked)
    return DrivesTold(tuple(states), figures, snags)


def _asked(shooting: Shooting) -> Iterator[Asked]:
    plan, span = shooting.plan, shooting.schedule.span
    seconds = _seconds(shooting)
    for name, copy in axis_copies(plan.kit.copies).items():
        axis, card = plan.rig.axis(name), copy.card
        if axis is None or not isinstance(card, AxisCard) or span.steps == 0:
            continue
        start = at(plan, plan.move.start, name)
        sweep = at(plan, plan.move.end, name) - start
        per_frame = float(np.max(np.abs(np.diff(shooting.driven[name]))))
        wanted = Wanted(axis.name, axis.unit, start, sweep, seconds, per_frame, card.high - card.low)
        yield Asked(shooting, axis, card, plan.kit.copies.index(copy), wanted)


def _seconds(shooting: Shooting) -> float:
    """How long the move runs: from its first frame to its last, whatever the intervals between are."""
    span, times = shooting.schedule.span, shooting.timeline
    return float(times.elapsed_s(span.last) - times.elapsed_s(span.first))


def _snags(asked: Asked) -> Iterator[Snag]:
    """Where the drive cannot do what the move asks."""
    drive, wanted = asked.drive, asked.wanted
    yield from _ripples(asked)
    if drive.one_way and wanted.sweep and (wanted.sweep > 0) != (drive.one_way > 0):
        yield _turned_round(asked, "clockwise" if drive.one_way > 0 else "anticlockwise")
    does = drive.goes(wanted)
    if does is not None:
        yield from _differs(asked, does)
    elif drive.limits_deg_min() and wanted.sweep and wanted.seconds:
        yield _out_of_range(asked)
    if drive.runs_s is not None and asked.shooting.solution.shoot > drive.runs_s:
        yield _runs_down(asked, drive.runs_s)
    yield from _coarse(asked)
    if drive.RUNS_ON and wanted.sweep:
        yield from _by_the_clock(asked)


def _step_px(asked: Asked) -> float | None:
    """One step of a stepper as it is seen: at the centre by a head, at the nearest mark by a slide."""
    plan, steps = asked.plan, asked.drive.steps()
    if steps is None or not asked.wanted.per_frame:
        return None
    if asked.axis.name in ("pan", "tilt"):
        return scale(plan) / steps
    near, frame = nearest_mm(plan), kept(plan)
    if asked.axis.name != "slide" or near is None:
        return None
    return lens.slide_smear_px(1 / steps, 1.0, plan.camera.focal_mm, frame.width_px, frame.width_mm, near)


def _step_figures(asked: Asked) -> Iterator[Figure]:
    """One step in the picture, and how uneven the pace is."""
    pixels, steps, plan, axis = _step_px(asked), asked.drive.steps(), asked.plan, asked.axis
    if pixels is None or steps is None:
        return
    step, rule = term("step", "one step", 1 / steps, axis.unit), STEP_PX
    terms = [term("scale", "pixels per degree", scale(plan), "px/°")]
    if axis.name == "slide":
        rule, frame = STEP_PX_SLIDE, kept(plan)
        terms = [
            term("focal", "focal length", plan.camera.focal_mm, "focal"),
            term("width", "picture, across", frame.width_px, "px"),
            term("sensor", "sensor, across", frame.width_mm, "focal"),
            term("distance", "nearest mark, away from the rail", nearest_mm(plan) or 0.0, "mm"),
        ]
    yield figure(f"drive.{axis.name}.step_px", "one step in the picture", pixels, "px", rule, step, *terms)
    per_frame = asked.wanted.per_frame * steps
    share = steppers.ripple(per_frame)
    if share:
        each = term("per_frame", "steps a frame", max(1.0, per_frame), "")
        yield figure(f"drive.{axis.name}.ripple", "unevenness at most", share, "share", steppers.RIPPLE, each)


def _ripples(asked: Asked) -> Iterator[Snag]:
    """A pace that wavers so that it is seen."""
    pixels, steps = _step_px(asked), asked.drive.steps()
    if pixels is None or steps is None:
        return
    per_frame = asked.wanted.per_frame * steps
    share = steppers.ripple(per_frame)
    if share and per_frame < steppers.FEW_STEPS and pixels > VISIBLE_PX:
        yield _uneven(asked, per_frame, share, pixels)


def _uneven(asked: Asked, per_frame: float, share: float, pixels: float) -> Snag:
    drive = asked.drive
    assert isinstance(drive, Stepper)
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


def _runs_down(asked: Asked, runs_s: float) -> Snag:
    longest = Fraction(math.floor(runs_s))
    plan = asked.plan
    fixes = clip_fixes(plan, "Watch for {longest}", at_most(plan, longest), {"longest": slot(longest, "s")})
    slots = {
        "axis": slot(asked.axis.name),
        "longest": slot(runs_s, "s"),
        "shoot": slot(asked.shooting.solution.shoot, "s"),
    }
    return RUNS_DOWN.at(f"kit.copies.{asked.index}.card.drive.longest_run_s", slots, fixes)


def _differs(asked: Asked, does: float) -> Iterator[Snag]:
    """The drive goes elsewhere in the time of the move: end there."""
    wanted = abs(asked.wanted.sweep)
    if wanted == 0 or abs(does - wanted) <= CLOSE * wanted:
        return
    start = at(asked.plan, asked.plan.move.start, asked.axis.name)
    end = round(start + math.copysign(does, asked.wanted.sweep), 3)
    slots = {
        "time": slot(asked.wanted.seconds, "s"),
        "axis": slot(asked.axis.name),
        "does": slot(does, asked.axis.unit),
        "asked": slot(wanted, asked.axis.unit),
        "drive": slot(asked.drive.NAME),
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
    plan, factor = asked.plan, abs(asked.wanted.sweep) / does
    shoot = Fraction(round(float(asked.shooting.solution.shoot) * factor))
    tried = within(plan, "shoot", shoot)
    if not tried or not _close_after(asked, tried, does):
        return []
    return [clip_fix(plan, "Watch for {longer}", tried, {"longer": slot(shoot, "s")})]


def _close_after(asked: Asked, edits: list[Edit], does: float) -> bool:
    after = shooting_of(changed(asked.plan, edits))
    if after is None:
        return False
    sweep = abs(asked.wanted.sweep)
    return abs(does * _seconds(after) / asked.wanted.seconds - sweep) <= CLOSE * sweep * 0.99


def _out_of_range(asked: Asked) -> Snag:
    limits, wanted = asked.drive.limits_deg_min(), abs(asked.wanted.sweep) / asked.wanted.seconds * 60
    nearest = min(limits, key=lambda rate: abs(math.log(rate / wanted)))
    end = round(asked.wanted.start + math.copysign(nearest * asked.wanted.seconds / 60, asked.wanted.sweep), 3)
    path = end_path(asked.plan, asked.axis)
    slots = {
        "axis": slot(asked.axis.name),
        "wanted": slot(wanted, "deg/min"),
        "low": slot(min(limits), "deg/min"),
        "high": slot(max(limits), "deg/min"),
        "end": slot(end, "deg"),
    }
    return OUT_OF_RANGE.at(path, slots, [_end_there(asked, path, slots, end)])


def _coarse(asked: Asked) -> Iterator[Snag]:
    """A scale so coarse that several frames share a mark."""
    division, axis, per_frame = asked.drive.division_of_scale, asked.axis, asked.wanted.per_frame
    if division is None or not 0 < per_frame < division / 2:
        return
    every = math.ceil(division / per_frame)
    finer = 10 ** math.floor(math.log10(per_frame * 2))
    slots = {
        "axis": slot(axis.name),
        "division": slot(division, axis.unit),
        "pace": slot(per_frame, f"{axis.unit}/frame"),
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


def _by_the_clock(asked: Asked) -> Iterator[Snag]:
    """What a drive cannot do that runs by the clock: it neither waits for a frame nor changes its pace."""
    axis, plan = asked.axis, asked.plan
    slots = {"axis": slot(axis.name), "drive": slot(asked.drive.NAME)}
    if not plan.beat.continuous and not asked.drive.STOPS:
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
