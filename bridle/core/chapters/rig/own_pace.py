"""Drives whose pace is their own: where the move really ends, and what can give way so that it ends as planned."""

import math
from collections.abc import Iterator
from fractions import Fraction

from bridle.core.asks.clip_offers import outcome
from bridle.core.asks.pegs import changed, hold_only, within
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.edit import Edit
from bridle.core.reckon.asked import SEEN, Asked, asked_of, miss
from bridle.core.reckon.path import at, end_path
from bridle.core.reckon.reckoning import Shooting, shooting_of
from bridle.core.reckon.timers import keeps_up
from bridle.core.snag import Fix, Slot, Snag, SnagKind, slot
from bridle.core.subjects.time import cycle

OTHER_SWEEP = SnagKind(
    "sweep-differs",
    "stop",
    "rig",
    "In {time} the {axis} goes {does} and ends at {end}; the move asks for {asked}.",
    "The pace of its {drive} is what it is: either the move ends elsewhere, or it takes another time.",
)
NEARLY = SnagKind(
    "sweep-nearly",
    "note",
    "rig",
    "The {axis} will end at {end} instead of {planned}: {miss} of its way {off}.",
    "The pace of its {drive} comes no nearer. So little nobody sees, unless the last frame has to stand just so.",
)
OUT_OF_RANGE = SnagKind(
    "rate-out-of-range",
    "stop",
    "rig",
    "The {axis} would need {wanted}; its menu reaches from {low} to {high}.",
    "No key and no number of this drive give that rate.",
)
KINDS = (OTHER_SWEEP, NEARLY, OUT_OF_RANGE)
# From this share of the way on an end that is missed is told.
CLOSE = 0.01
# Beyond these a keyframe cannot stand.
MOST_DEG, MOST_MM = 3600, 1e6
ENDS = Formula("start + goes", "where it sets off, and how far it goes in the time of the move")
ENDS_BACK = Formula("start - goes", "where it sets off, and how far it goes back in the time of the move")


def ends_at(asked: Asked, does: float) -> float:
    """Where the axis really ends; on a drive that turns one way only, that way."""
    way = asked.one_way or math.copysign(1, asked.wanted.sweep)
    return asked.wanted.start + way * does


def end_figures(asked: Asked) -> Iterator[Figure]:
    """Where the move really ends on a drive that goes as far as it goes."""
    does = asked.drive.goes(asked.wanted)
    if does is None or not asked.wanted.sweep:
        return
    wanted, end = asked.wanted, ends_at(asked, does)
    terms = term("start", "sets off at", wanted.start, wanted.unit), term("goes", "goes", does, wanted.unit)
    rule = ENDS if end >= wanted.start else ENDS_BACK
    yield figure(f"drive.{wanted.axis}.ends", f"{wanted.axis} really ends at", end, wanted.unit, rule, *terms)


def differs(asked: Asked) -> Iterator[Snag]:
    """The drive ends elsewhere in the time of the move, or has no rate for it at all."""
    off, does = miss(asked), asked.drive.goes(asked.wanted)
    if off == math.inf:
        yield _out_of_range(asked)
    elif does is not None and off > CLOSE:
        yield _elsewhere(asked, does, off)


def _elsewhere(asked: Asked, does: float, off: float) -> Snag:
    wanted, unit = asked.wanted, asked.axis.unit
    path, end = end_path(asked.plan, asked.axis), round(ends_at(asked, does), 3)
    slots = {
        "time": slot(wanted.seconds, "s"),
        "axis": slot(asked.axis.name),
        "does": slot(does, unit),
        "asked": slot(abs(wanted.sweep), unit),
        "drive": slot(asked.drive.NAME),
        "end": slot(end, unit),
        "planned": slot(wanted.start + wanted.sweep, unit),
        "miss": slot(off, "share"),
        "off": slot("is missing" if does < abs(wanted.sweep) else "comes on top"),
    }
    kind = NEARLY if off <= SEEN else OTHER_SWEEP
    return kind.at(path, slots, [*_other_times(asked), *_end_there(asked, end), *_still(asked)])


def _out_of_range(asked: Asked) -> Snag:
    wanted = asked.wanted
    limits, rate = asked.drive.limits_deg_min(), abs(wanted.sweep) / wanted.seconds * 60
    nearest = min(limits, key=lambda one: abs(math.log(one / rate)))
    end = round(wanted.start + math.copysign(nearest * wanted.seconds / 60, wanted.sweep), 3)
    slots = {
        "axis": slot(asked.axis.name),
        "wanted": slot(rate, "deg/min"),
        "low": slot(min(limits), "deg/min"),
        "high": slot(max(limits), "deg/min"),
    }
    fixes = [*_other_times(asked), *_end_there(asked, end), *_still(asked)]
    return OUT_OF_RANGE.at(end_path(asked.plan, asked.axis), slots, fixes)


def _end_there(asked: Asked, end: float) -> Iterator[Fix]:
    """End where the drive will be, if the axis comes there and it is no turn for a whole clip."""
    if not asked.axis.low <= end <= asked.axis.high or abs(end) > (MOST_DEG if asked.rotary else MOST_MM):
        return
    yield Fix(
        label="End the {axis} at {end}",
        consequence="The shoot keeps its length; the move ends where the drive will be.",
        slots={"end": slot(end, asked.axis.unit), "axis": slot(asked.axis.name)},
        edits=(Edit(path=end_path(asked.plan, asked.axis), value=end),),
    )


def _still(asked: Asked) -> Iterator[Fix]:
    """Do the move without this axis, where its drive can stand still."""
    start = at(asked.plan, asked.plan.move.start, asked.axis.name)
    yield Fix(
        label="Leave the {axis} still",
        consequence="Do not start it; the move is done without it.",
        slots={"axis": slot(asked.axis.name)},
        edits=(Edit(path=end_path(asked.plan, asked.axis), value=start),),
    )


def _other_times(asked: Asked) -> Iterator[Fix]:
    """Keep the sweep: another interval for the same frames, as many frames as the drive has time for, or a longer
    watch where the interval changes."""
    times = asked.drive.times_s(asked.wanted)
    if not times:
        return
    seconds = min(times, key=lambda one: abs(math.log(one / asked.wanted.seconds)))
    if asked.plan.frames.source == "even":
        yield from _other_interval(asked, seconds)
        yield from _other_frames(asked, seconds)
    else:
        yield from _other_watch(asked, seconds)


def _other_interval(asked: Asked, seconds: float) -> Iterator[Fix]:
    """The same frames, one every so often that the drive has the time it takes."""
    shooting = asked.shooting
    step = asked.plan.clip.interval_step_s or cycle.FINEST_S
    exact = Fraction(seconds) / shooting.schedule.span.steps
    dialled = max(step, round(exact / step) * step)
    pegs = {"rate": shooting.solution.rate, "frames": Fraction(shooting.frames), "interval": dialled}
    said = "" if abs(dialled - exact) < Fraction(1, 1000) else "Exactly it would be {exact}. "
    slots = {"dialled": slot(dialled, "s"), "exact": slot(round(float(exact), 3), "s")}
    yield from _tried(asked, hold_only(pegs), "Beat of {dialled}", said, slots)


def _other_frames(asked: Asked, seconds: float) -> Iterator[Fix]:
    """As many frames at the same interval as the drive has time for."""
    shooting, interval = asked.shooting, asked.shooting.solution.interval
    frames = round(Fraction(seconds) / interval) + shooting.frames - shooting.schedule.span.steps
    pegs = {"rate": shooting.solution.rate, "interval": interval, "frames": Fraction(frames)}
    yield from _tried(asked, hold_only(pegs), "{frames}", "", {"frames": slot(frames, "frames")})


def _other_watch(asked: Asked, seconds: float) -> Iterator[Fix]:
    """Every part of a changing interval stretched alike."""
    shoot = Fraction(round(float(asked.shooting.solution.shoot) * seconds / asked.wanted.seconds))
    edits = within(asked.plan, "shoot", shoot) if shoot else []
    yield from _tried(asked, edits, "Watch for {longer}", "", {"longer": slot(shoot, "s")})


def _tried(asked: Asked, edits: list[Edit], label: str, said: str, slots: dict[str, Slot]) -> Iterator[Fix]:
    """A fix that changes the clip, where beat, camera and drive keep up; it ends where the drive then really ends."""
    after = shooting_of(changed(asked.plan, edits)) if edits else None
    now = next((one for one in asked_of(after) if one.axis.name == asked.axis.name), None) if after else None
    if after is None or now is None or miss(now) >= miss(asked) or _others_miss(asked, after):
        return
    if not keeps_up(after) or (asked.drive.runs_s is not None and now.wanted.seconds > asked.drive.runs_s):
        return
    does, planned = now.drive.goes(now.wanted), now.wanted.start + now.wanted.sweep
    end = round(planned if does is None else ends_at(now, does), 3)
    if miss(now) > CLOSE:
        if not asked.axis.low <= end <= asked.axis.high:
            return
        edits = [*edits, Edit(path=end_path(asked.plan, asked.axis), value=end)]
    consequence, more = outcome(asked.plan, edits)
    there = f"{said}The {asked.axis.name} ends at {{there}}. {consequence}"
    more |= {"there": slot(end, asked.axis.unit)}
    yield Fix(label=label, consequence=there, slots={**slots, **more}, edits=tuple(edits))


def _others_miss(asked: Asked, after: Shooting) -> bool:
    """Whether another drive with a pace of its own would miss its end by more than now, and so that it is seen."""
    was = {one.axis.name: miss(one) for one in asked_of(asked.shooting)}
    others = (one for one in asked_of(after) if one.axis.name != asked.axis.name)
    return any(miss(one) > max(SEEN, was.get(one.axis.name, 0.0)) for one in others)
