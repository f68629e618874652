"""What each drive is told for the move, and where it cannot do what the move asks."""

import math
from collections.abc import Iterator
from dataclasses import dataclass, field
from fractions import Fraction

from pydantic import JsonValue

from bridle.core.asks.clip_offers import at_most, clip_fixes
from bridle.core.chapters.rig import own_pace
from bridle.core.chapters.rig.by_the_clock import BY_EVENT, NO_EASE, NO_STOP, ONE_WAY, by_the_clock
from bridle.core.chapters.rig.evenness import COARSE, UNEVEN, coarse, ripples, step_figures
from bridle.core.chapters.rig.state import DriveState
from bridle.core.figure import Figure
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.quantity import write
from bridle.core.reckon.asked import Asked, asked_of
from bridle.core.reckon.path import at, end_path
from bridle.core.reckon.reckoning import Shooting
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.motion.drives.interface import way

RUNS_DOWN = SnagKind(
    "spring-runs-down",
    "stop",
    "rig",
    "The spring of the {axis} runs {longest}; the move lasts {move}.",
    "It slows down towards the end and stops, and nobody is there to wind it without a jolt.",
)
OTHER_WAY = SnagKind(
    "turns-the-other-way",
    "stop",
    "rig",
    "The {axis} only turns {way}; the move goes the other way.",
    "It would go away from where the move wants it, frame by frame. Mirror the move, hang the drive upside down, or "
    "shoot the move from its end and play the footage in reverse.",
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
        words = _stands(asked) if asked.wanted.stands else asked.drive.words(asked.wanted)
        if words is not None:
            told = DriveState(
                axis=asked.axis.name,
                drive=asked.drive.NAME,
                told=asked.drive.TOLD,
                words=words,
                one_way=asked.one_way != 0,
                stands=asked.wanted.stands,
            )
            states.append(told)
        if not asked.wanted.stands or asked.drive.TOLD == "program":
            figures += [*asked.drive.working(asked.wanted), *own_pace.end_figures(asked), *step_figures(asked)]
        snags += _snags(asked)
    return DrivesTold(tuple(states), figures, snags)


def _stands(asked: Asked) -> str:
    """What is said of a drive that has nothing to do."""
    return f"stands still at {write(asked.wanted.start, asked.axis.unit)}"


def _snags(asked: Asked) -> Iterator[Snag]:
    """Where the drive cannot do what the move asks."""
    drive, wanted = asked.drive, asked.wanted
    yield from ripples(asked)
    if asked.one_way and wanted.sweep and (wanted.sweep > 0) != (asked.one_way > 0):
        yield _other_way(asked, way(asked.axis.name, asked.one_way > 0))
    yield from own_pace.differs(asked)
    if drive.runs_s is not None and not wanted.stands and wanted.seconds > drive.runs_s:
        yield _runs_down(asked, drive.runs_s)
    yield from coarse(asked)
    if not wanted.stands:
        yield from by_the_clock(asked)


def _other_way(asked: Asked, way: str) -> Snag:
    slots = {"axis": slot(asked.axis.name), "way": slot(way)}
    fixes = [*_mirrored(asked), *_turned_over(asked), *_turned_round(asked)]
    return OTHER_WAY.at(end_path(asked.plan, asked.axis), slots, fixes)


def _mirrored(asked: Asked) -> Iterator[Fix]:
    """The same framings in the opposite order, and nothing played backwards."""
    plan = asked.plan
    if len(plan.move.keyframes) > 2 or plan.move.visits is not None:
        return
    ends = (at(plan, key, asked.axis.name) for key in (plan.move.end, plan.move.start))
    first, last = (slot(end, asked.axis.unit) for end in ends)
    yield Fix(
        label="Mirror the move",
        consequence="It begins at its last framing and ends at its first: the {axis} goes from {first} to {last}.",
        slots={"axis": slot(asked.axis.name), "first": first, "last": last},
        edits=(Edit(path="move.keyframes", value=_reversed(plan)),),
    )


def _reversed(plan: Plan) -> list[JsonValue]:
    return [key.model_dump(mode="json") for key in reversed(plan.move.keyframes)]


def _turned_over(asked: Asked) -> Iterator[Fix]:
    """What turns can be hung upside down; a rail cannot."""
    if not asked.rotary:
        return
    number = asked.plan.rig.axes.index(asked.axis)
    yield Fix(
        label="Stand it upright" if asked.axis.hung else "Hang it upside down",
        consequence="It turns the other way round then. Put the camera on it upright, or turn the footage by half "
        "a turn in the edit.",
        slots={},
        edits=(Edit(path=f"rig.axes.{number}.hung", value=not asked.axis.hung),),
    )


def _turned_round(asked: Asked) -> Iterator[Fix]:
    """The whole move from its end to its start, and the footage played in reverse, so that the clip stays."""
    plan = asked.plan
    if len(plan.move.keyframes) > 2 or plan.move.visits is not None:
        return
    yield Fix(
        label="Shoot it from its end, and play it in reverse",
        consequence="The clip goes as planned, but whatever moves in it goes backwards: people, smoke, water, clouds.",
        slots={},
        edits=(
            Edit(path="move.keyframes", value=_reversed(plan)),
            Edit(path="clip.backwards", value=not plan.clip.backwards),
        ),
    )


def _runs_down(asked: Asked, runs_s: float) -> Snag:
    longest = Fraction(math.floor(runs_s))
    plan = asked.plan
    fixes = clip_fixes(plan, "Watch for {longest}", at_most(plan, longest), {"longest": slot(longest, "s")})
    slots = {
        "axis": slot(asked.axis.name),
        "longest": slot(runs_s, "s"),
        "move": slot(asked.wanted.seconds, "s"),
    }
    return RUNS_DOWN.at(f"{asked.part.path}.drive.longest_run_s", slots, fixes)
