"""The bench: how a chain is tried before it is trusted, with a pass mark for this number of frames."""

from collections.abc import Iterator

from bridle.core.chapters.trigger.state import BenchStep
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.tested import PRESSES, may_miss, presses_needed, steps


def bench(shooting: Shooting) -> Iterator[BenchStep]:
    """The tests in their order, with how each stands."""
    for step in steps(shooting.plan, shooting.frames):
        last = step.last
        yield BenchStep(
            what=step.what,
            asked=step.asked,
            stand=step.stand,
            on=last.on if last else None,
            came=last.came if last else None,
        )


CHANCE = Formula("(1 - may_miss / frames) ** presses", "every one of so many presses would have to come through")
STANDS_OUT = Formula("(click + travel) / 2", "between the click and the end of the travel, as far from both")
ROD = Formula("wall + out", "through the wall, and so far beyond it")
HOLE = Formula("rod + play", "the rod slides, and does not lean")
PLAY_MM = 0.4


def rods(shooting: Shooting) -> Iterator[Figure]:
    """Hole, length and stand-out of a rod that presses the switch through a wall."""
    rod = shooting.plan.trigger.actuator
    if rod is None:
        return
    out = (rod.click_mm + rod.travel_mm) / 2
    click, travel = (
        term("click", "pressed until it clicks", rod.click_mm, "mm"),
        term("travel", "can be pressed", rod.travel_mm, "mm"),
    )
    yield figure("trigger.rod.out", "stands out beyond the wall", out, "mm", STANDS_OUT, click, travel)
    wall, beyond = term("wall", "the wall", rod.wall_mm, "mm"), term("out", "stands out", out, "mm")
    yield figure("trigger.rod.length", "length of the rod", rod.wall_mm + out, "mm", ROD, wall, beyond)
    thick, play = term("rod", "the rod", rod.rod_mm, "mm"), term("play", "play", PLAY_MM, "mm")
    yield figure("trigger.rod.hole", "hole", rod.rod_mm + PLAY_MM, "mm", HOLE, thick, play)


def figures(shooting: Shooting) -> Iterator[Figure]:
    """The pass mark, and how long that takes on the bench."""
    yield from rods(shooting)
    plan, frames = shooting.plan, shooting.frames
    missed, sure = may_miss(plan, frames), plan.trigger.certainty
    if missed >= frames:
        return
    yield figure(
        "trigger.presses",
        "presses without a miss",
        presses_needed(frames, missed, float(sure)),
        "times",
        PRESSES,
        term("certainty", "how sure that makes", sure, "share"),
        term("may_miss", "frames that may be missed", missed, "frames"),
        term("frames", "frames", frames, "frames"),
    )
    presses = presses_needed(frames, missed, float(sure))
    yield figure(
        "trigger.chance",
        f"chance that a chain that loses more than {missed} of {frames} passes all the same",
        (1 - missed / frames) ** presses,
        "share",
        CHANCE,
        term("may_miss", "frames that may be missed", missed, "frames"),
        term("frames", "frames", frames, "frames"),
        term("presses", "presses without a miss", presses, "times"),
    )
