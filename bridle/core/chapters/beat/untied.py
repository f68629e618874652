"""Clocks that nobody ties together: the camera's, and those of what moves it."""

import math
from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction

import numpy as np

from bridle.core.asks.following import followed
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.beat import Uncoupled
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.core.quantity import listed, write
from bridle.core.reckon.clocks import own_clocks
from bridle.core.reckon.drifting import in_time_until
from bridle.core.reckon.reckoning import Shooting
from bridle.core.snag import Fix, Slot, Snag, SnagKind, slot

NOT_TIED = SnagKind(
    "clocks-not-tied",
    "note",
    "clip",
    "The {movers} and the camera each run by a clock of their own.",
    "They are started one after the other, and drift: the first frames and the last are not as planned, and the rest "
    "of the move comes a little later than it says here.",
)
BY_CHANCE = SnagKind(
    "moves-by-chance",
    "stop",
    "clip",
    "Nothing ties the {movers} to the camera, so the rig may move while the shutter is open, from the first frame on.",
    "Shoot-move-shoot needs one clock for both: with two, nobody knows where in the interval the move falls.",
)
UNTIED = SnagKind(
    "handles-do-not-absorb",
    "mind",
    "clip",
    "Camera and motor are started {between} apart: {first} at the start and {last} at the end are not as planned.",
    "Nothing ties the clocks together. Handles of as many frames absorb it; without them the move is cut off.",
)
KINDS = (NOT_TIED, BY_CHANCE, UNTIED)

# Below half a pixel nobody sees a smear.
UNSEEN_PX = 0.5
# A move needs a frame to set off at and one to arrive at.
FEWEST_MOVING = 2
COUNTED = {2: "two", 3: "three", 4: "four"}
DRIFT = Formula("ppm / 1000000 * shoot", "two clocks of ordinary quality, each off by a little")
LOST_FIRST = Formula("ceil(starts * between / interval)", "frames taken before the last motor runs")
LOST_LAST = Formula(
    "ceil((starts * between + drift) / interval)", "frames taken after the motor has stopped, or the other way round"
)


@dataclass(frozen=True)
class Lost:
    """What is not as planned: frames at the start and at the end, and how far apart the clocks are then, in seconds."""

    between: Fraction
    starts: int
    drift: Fraction
    first: int
    last: int


def figures(shooting: Shooting) -> Iterator[Figure]:
    """What clocks that nobody ties together cost; nothing where they are tied."""
    beat = shooting.plan.beat
    if beat.uncoupled is None:
        return
    lost = _lost(shooting, beat.uncoupled)
    starts = term("starts", "starts after the camera's", lost.starts, "")
    between = term("between", "between two starts", lost.between, "s")
    interval = term("interval", "interval", shooting.solution.interval, "s")
    off = term("drift", "clocks apart at the end", lost.drift, "s")
    ppm = term("ppm", "drift of the clocks", beat.uncoupled.drift_ppm, "ppm")
    shoot = term("shoot", "shoot length", shooting.solution.shoot, "s")
    yield figure("untied.drift", "clocks apart at the end", lost.drift, "s", DRIFT, ppm, shoot)
    first, last = "frames before the motor runs", "frames off at the end"
    yield figure("untied.first", first, lost.first, "frames", LOST_FIRST, starts, between, interval)
    yield figure("untied.last", last, lost.last, "frames", LOST_LAST, starts, between, off, interval)


def snags(shooting: Shooting) -> Iterator[Snag]:
    """Clocks of which nobody has said that they are not tied, and handles that do not absorb what that costs."""
    beat = shooting.plan.beat
    if beat.uncoupled is not None:
        yield from _absorbed(shooting, beat.uncoupled)
    elif not beat.tied and (movers := own_clocks(shooting.plan)):
        slots = {"movers": slot(listed([part.copy.card.name for part in movers]))}
        # A drive that cannot stop at all is told as that.
        if not beat.continuous and all(part.card.drive.stops for part in movers):
            yield BY_CHANCE.at("beat.uncoupled", slots, [*_tied(), *_going_on(shooting), *_in_step(shooting)])
        else:
            yield NOT_TIED.at("beat.uncoupled", slots, [*_planned_with(shooting), *_tied()])


def _lost(shooting: Shooting, untied: Uncoupled) -> Lost:
    starts = max(1, len(own_clocks(shooting.plan)))
    solution, apart = shooting.solution, untied.between_starts_s * starts
    drift = Fraction(untied.drift_ppm) / 1_000_000 * solution.shoot
    first, last = math.ceil(apart / solution.interval), math.ceil((apart + drift) / solution.interval)
    return Lost(untied.between_starts_s, starts, drift, first, last)


def _planned_with(shooting: Shooting) -> Iterator[Fix]:
    lost, clip = _lost(shooting, Uncoupled()), shooting.plan.clip
    needed = max(clip.handle_in_frames, lost.first), max(clip.handle_out_frames, lost.last)
    planned = Edit(path="beat.uncoupled", value=Uncoupled().model_dump(mode="json"))
    room = shooting.solution.frames - sum(needed) >= FEWEST_MOVING
    said = "The clip has a handle of {first} at its start and one of {last} at its end; the edit cuts them off."
    handles = _handle_edits(*needed) if room else ()
    # In less time a drive with a pace of its own goes less far.
    ends = followed(shooting.plan, apply(shooting.plan, [planned, *handles])[0], ("spring", "setting"))
    said += " At its own pace {ends} then." if ends else ""
    yield Fix(
        label="Plan with {starts}",
        consequence=f"The field card says what to start first, {{between}} apart. {said if room else ''}".strip(),
        slots={
            "starts": slot(f"{COUNTED.get(lost.starts + 1, lost.starts + 1)} starts"),
            "between": slot(lost.between, "s"),
            "first": slot(needed[0], "frames"),
            "last": slot(needed[1], "frames"),
            "ends": slot(listed([_ends_at(shooting.plan, edit) for edit in ends])),
        },
        edits=(planned, *handles, *ends),
    )


def _ends_at(plan: Plan, edit: Edit) -> str:
    """Where an axis ends, by the place of its keyframe."""
    name = edit.path.rpartition(".")[2].partition("_")[0]
    axis = next(axis for axis in plan.rig.axes if axis.name == name)
    return f"the {name} ends at {write(float(str(edit.value)), axis.unit)}"


def _going_on(shooting: Shooting) -> Iterator[Fix]:
    """Frames taken on the way, where so little smears that nobody sees it."""
    if shooting.plan.move.visits is not None or not shooting.shift.known:
        return
    rooms, open_s = shooting.timeline.rooms_s[:-1], shooting.shuttered.longest_s
    px = float(np.max(shooting.shift.px * np.broadcast_to(open_s, shooting.frames)[:-1] / rooms, initial=0.0))
    if px > UNSEEN_PX:
        return
    yield Fix(
        label="Move all the time",
        consequence="Frames are taken on the way; each smears {px} at most, which nobody sees.",
        slots={"px": slot(px, "px")},
        edits=(Edit(path="beat.school", value="continuous"),),
    )


def _in_step(shooting: Shooting) -> Iterator[Fix]:
    """Two starts, where the beat leaves the move room on both sides for as long as the shoot lasts."""
    if in_time_until(shooting, Uncoupled().drift_ppm) >= shooting.frames:
        yield from _planned_with(shooting)


def _tied() -> Iterator[Fix]:
    yield Fix(
        label="Tie them together",
        consequence="What moves fires the camera, or the camera sets it going: by a contact, a lead or one app.",
        slots={},
        edits=(Edit(path="beat.tied", value=True),),
    )


def _absorbed(shooting: Shooting, untied: Uncoupled) -> Iterator[Snag]:
    lost, clip = _lost(shooting, untied), shooting.plan.clip
    if clip.handle_in_frames >= lost.first and clip.handle_out_frames >= lost.last:
        return
    slots = {
        "between": slot(lost.between, "s"),
        "first": slot(lost.first, "frames"),
        "last": slot(lost.last, "frames"),
    }
    needed = max(clip.handle_in_frames, lost.first), max(clip.handle_out_frames, lost.last)
    fixes = [_handles(*needed, slots)] if shooting.solution.frames - sum(needed) >= FEWEST_MOVING else []
    yield UNTIED.at("beat.uncoupled", slots, fixes or _sooner(shooting, lost))


def _handles(first: int, last: int, slots: dict[str, Slot]) -> Fix:
    return Fix(
        label="Handles of {first} and {last}",
        consequence="The camera is started first and stopped last; the edit cuts the handles off.",
        slots=slots,
        edits=_handle_edits(first, last),
    )


def _handle_edits(first: int, last: int) -> tuple[Edit, Edit]:
    return Edit(path="clip.handle_in_frames", value=first), Edit(path="clip.handle_out_frames", value=last)


def _sooner(shooting: Shooting, lost: Lost) -> list[Fix]:
    """So few frames hold no such handles: one at each end, and the two started that soon after one another."""
    between = math.floor((shooting.solution.interval - lost.drift) / lost.starts)
    if between < 1 or shooting.solution.frames - 2 < FEWEST_MOVING:
        edits = Edit(path="beat.uncoupled", value=None), Edit(path="beat.tied", value=True)
        said = "The motor's controller fires the camera, or the camera's timer steps the motor."
        return [Fix(label="Tie them together", consequence=said, slots={}, edits=edits)]
    soon = (
        Edit(path="beat.uncoupled.between_starts_s", value=str(between)),
        Edit(path="clip.handle_in_frames", value=1),
        Edit(path="clip.handle_out_frames", value=1),
    )
    said = "One frame at each end absorbs it then; the clip has none to spare for more."
    return [Fix(label="Start them {soon} apart", consequence=said, slots={"soon": slot(between, "s")}, edits=soon)]
