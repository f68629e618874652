"""What each drive is told for the move, and where it cannot do what the move asks."""

import math
from collections.abc import Iterator
from dataclasses import dataclass, field
from fractions import Fraction

from bridle.core.asks.clip_offers import at_most, clip_fix, clip_fixes
from bridle.core.asks.pegs import changed, within
from bridle.core.chapters.rig.asked import Asked, asked_of, seconds_of
from bridle.core.chapters.rig.by_the_clock import BY_EVENT, NO_EASE, NO_STOP, ONE_WAY, by_the_clock
from bridle.core.chapters.rig.evenness import COARSE, UNEVEN, coarse, ripples, step_figures
from bridle.core.chapters.rig.state import DriveState
from bridle.core.figure import Figure
from bridle.core.plan.edit import Edit
from bridle.core.reckon.path import at, end_path, key_path
from bridle.core.reckon.reckoning import Shooting, shooting_of
from bridle.core.snag import Fix, Slot, Snag, SnagKind, slot

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
KINDS = (UNEVEN, NO_STOP, NO_EASE, ONE_WAY, OTHER_SWEEP, RUNS_DOWN, OTHER_WAY, OUT_OF_RANGE, BY_EVENT, COARSE)
# Beyond these a keyframe cannot stand.
MOST_DEG, MOST_MM = 3600, 1e6
# From this share of the sweep on a drive misses the move.
CLOSE = 0.01


@dataclass(frozen=True)
class DrivesTold:
    """Every drive of the move, with figures and snags."""

    drives: tuple[DriveState, ...] = ()
    figures: list[Figure] = field(default_factory=list)
    snags: list[Snag] = field(default_factory=list)


def tell(shooting: Shooting) -> DrivesTold:
    """What the drives are told; nothing where no card says what they are."""
    states: list[DriveState] = []
    figures: list[Figure] = []
    snags: list[Snag] = []
    for asked in asked_of(shooting):
        words = asked.drive.words(asked.wanted)
        if words is not None:
            states.append(DriveState(axis=asked.axis.name, drive=asked.drive.NAME, words=words))
        figures += [*asked.drive.working(asked.wanted), *step_figures(asked)]
        snags += _snags(asked)
    return DrivesTold(tuple(states), figures, snags)


def _snags(asked: Asked) -> Iterator[Snag]:
    """Where the drive cannot do what the move asks."""
    drive, wanted = asked.drive, asked.wanted
    yield from ripples(asked)
    if drive.one_way and wanted.sweep and (wanted.sweep > 0) != (drive.one_way > 0):
        yield _turned_round(asked, "clockwise" if drive.one_way > 0 else "anticlockwise")
    does = drive.goes(wanted)
    if does is not None:
        yield from _differs(asked, does)
    elif drive.limits_deg_min() and wanted.sweep and wanted.seconds:
        yield _out_of_range(asked)
    if drive.runs_s is not None and asked.shooting.solution.shoot > drive.runs_s:
        yield _runs_down(asked, drive.runs_s)
    yield from coarse(asked)
    if drive.RUNS_ON and wanted.sweep:
        yield from by_the_clock(asked)


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
        consequence = "The shoot keeps its length; the move ends where the drive will be."
        return Fix(label="End at {end}", consequence=consequence, slots=slots, edits=(Edit(path=path, value=end),))
    consequence = "In so long a time it would go round and round; the move is done without it."
    start = at(asked.plan, asked.plan.move.start, asked.axis.name)
    return Fix(
        label="Leave the {axis} still", consequence=consequence, slots=slots, edits=(Edit(path=path, value=start),)
    )


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
    return abs(does * seconds_of(after) / asked.wanted.seconds - sweep) <= CLOSE * sweep * 0.99


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
