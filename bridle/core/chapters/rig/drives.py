"""What each drive is told for the move, and where it cannot do what the move asks."""

import math
from collections.abc import Iterator
from dataclasses import dataclass, field
from fractions import Fraction

from bridle.core.asks.clip_offers import at_most, clip_fixes
from bridle.core.chapters.rig import own_pace
from bridle.core.chapters.rig.by_the_clock import BY_EVENT, NO_EASE, NO_STOP, ONE_WAY, by_the_clock
from bridle.core.chapters.rig.evenness import COARSE, UNEVEN, coarse, ripples, step_figures
from bridle.core.chapters.rig.state import DriveState
from bridle.core.figure import Figure
from bridle.core.plan.edit import Edit
from bridle.core.reckon.asked import Asked, asked_of
from bridle.core.reckon.path import at, end_path, key_path
from bridle.core.reckon.reckoning import Shooting
from bridle.core.snag import Fix, Snag, SnagKind, slot

RUNS_DOWN = SnagKind(
    "spring-runs-down",
    "stop",
    "rig",
    "The spring of the {axis} runs {longest}; the move lasts {move}.",
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
KINDS = (UNEVEN, NO_STOP, NO_EASE, ONE_WAY, *own_pace.KINDS, RUNS_DOWN, OTHER_WAY, BY_EVENT, COARSE)


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
        figures += [*asked.drive.working(asked.wanted), *own_pace.end_figures(asked), *step_figures(asked)]
        snags += _snags(asked)
    return DrivesTold(tuple(states), figures, snags)


def _snags(asked: Asked) -> Iterator[Snag]:
    """Where the drive cannot do what the move asks."""
    drive, wanted = asked.drive, asked.wanted
    yield from ripples(asked)
    if drive.one_way and wanted.sweep and (wanted.sweep > 0) != (drive.one_way > 0):
        yield _turned_round(asked, "clockwise" if drive.one_way > 0 else "anticlockwise")
    yield from own_pace.differs(asked)
    if drive.runs_s is not None and wanted.sweep and wanted.seconds > drive.runs_s:
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
        "move": slot(asked.wanted.seconds, "s"),
    }
    return RUNS_DOWN.at(f"kit.copies.{asked.index}.card.drive.longest_run_s", slots, fixes)
