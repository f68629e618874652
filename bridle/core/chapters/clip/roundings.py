"""What rounding did to what is held: by how much, through what, and what comes nearest to what was asked for."""

from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from bridle.core.asks.clip_offers import clip_fix, clip_fixes
from bridle.core.asks.pegs import hold_only, within
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.frames import Windows
from bridle.core.reckon.clip import solved
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.time.cycle import FINEST_S
from bridle.core.subjects.time.sentence import Solution

Rounded = Literal["shoot", "clip", "speed_up", "frames"]
ROUNDED: tuple[Rounded, ...] = ("shoot", "clip", "speed_up", "frames")
Cause = Literal["whole frames", "interval step", "whole windows"]
# Steps that timers have, the coarsest first.
STEPS = (Fraction(1), Fraction(1, 2), Fraction(1, 10), Fraction(1, 100), Fraction(1, 1000))

OVERRUN = SnagKind(
    "shoot-overrun",
    "mind",
    "clip",
    "The shoot was to last {asked} and takes {got}: {frames} need an interval of {wanted}.",
    "The shortest that can be dialled is {step}, so all of them come later than was meant.",
)
KINDS = (OVERRUN,)


@dataclass(frozen=True)
class Rounding:
    """A held quantity: what was asked for, what it has become, and through what."""

    quantity: Rounded
    asked: Fraction
    got: Fraction
    cause: Cause
    fixes: tuple[Fix, ...] = ()


def roundings(plan: Plan, asked: dict[str, Fraction], solution: Solution) -> Iterator[Rounding]:
    """Each held quantity that came out different."""
    for name in ROUNDED:
        wanted, got = asked.get(name, solution.value(name)), solution.value(name)
        if wanted == got:
            continue
        if isinstance(plan.frames, Windows):
            yield Rounding(name, wanted, got, "whole windows", tuple(_beside(plan, name, solution)))
            continue
        stepped = name != "clip" and _stepped(plan, asked, solution)
        yield Rounding(name, wanted, got, "interval step" if stepped else "whole frames", _nearer(plan, name, stepped))


def _beside(plan: Plan, name: Rounded, solution: Solution) -> Iterator[Fix]:
    """The interval on the other side of what was asked for."""
    every = solution.interval + (plan.clip.interval_step_s or FINEST_S) * (-1 if name == "frames" else 1)
    if every > 0:
        edits = within(plan, "interval", every)
        yield from clip_fixes(plan, "One frame every {every} instead", edits, {"every": slot(every, "s")})


def _stepped(plan: Plan, asked: dict[str, Fraction], solution: Solution) -> bool:
    """Whether the interval follows from the others and was put onto the step that can be dialled."""
    step = plan.clip.interval_step_s
    held = {peg.quantity for peg in plan.clip.pegs}
    # Speed-up over playback rate is an interval too: then the frames follow from it, and not it from them.
    if plan.frames.source != "even" or not step or "interval" in held or held >= {"speed_up", "rate"}:
        return False
    return "shoot" in asked and asked["shoot"] / solution.frames != solution.interval


def _nearer(plan: Plan, name: Rounded, stepped: bool) -> tuple[Fix, ...]:
    if plan.frames.source != "even" or name != "shoot" or not stepped:
        return ()
    return (*_other_frames(plan), *_finer(plan))


def _other_frames(plan: Plan) -> Iterator[Fix]:
    """As many frames as fill the shoot at the interval as it is dialled, where the count is free to follow."""
    solution, _ = solved(plan)
    shoot = next(peg.value for peg in plan.clip.pegs if peg.quantity == "shoot")
    if solution is None or not any(peg.quantity == "clip" for peg in plan.clip.pegs):
        return
    frames = round(shoot / solution.interval)
    held = {"shoot": shoot, "rate": solution.rate, "interval": solution.interval}
    # A step of a year makes an interval that nobody can hold.
    edits = hold_only(held)
    if edits and frames != solution.frames and frames >= 1:
        label = "{frames}, one every {interval}"
        slots = {"frames": slot(frames, "frames"), "interval": slot(solution.interval, "s")}
        yield clip_fix(plan, label, edits, slots)


def _finer(plan: Plan) -> Iterator[Fix]:
    """The coarsest step finer than its own with which the shoot lasts as long as was asked for."""
    shoot = next(peg.value for peg in plan.clip.pegs if peg.quantity == "shoot")
    for step in STEPS:
        if step >= plan.clip.interval_step_s:
            continue
        tried = plan.model_copy(update={"clip": plan.clip.model_copy(update={"interval_step_s": step})})
        solution, _ = solved(tried)
        if solution is None or solution.shoot != shoot:
            continue
        yield Fix(
            label="Dial in steps of {step}",
            consequence="If the timer has them: one every {interval}, and the shoot lasts just as long as it should.",
            slots={"step": slot(step, "s"), "interval": slot(solution.interval, "s")},
            edits=(Edit(path="clip.interval_step_s", value=str(step)),),
        )
        return


def overrun(plan: Plan, asked: dict[str, Fraction], solution: Solution) -> list[Snag]:
    """A held shoot that takes longer because no shorter interval can be dialled."""
    step, shoot = plan.clip.interval_step_s, asked.get("shoot")
    if shoot is None or solution.shoot <= shoot or not _stepped(plan, asked, solution):
        return []
    slots = {
        "asked": slot(shoot, "s"),
        "got": slot(solution.shoot, "s"),
        "frames": slot(solution.frames, "frames"),
        "wanted": slot(shoot / solution.frames, "s"),
        "step": slot(step, "s"),
    }
    longer = clip_fixes(
        plan, "Watch for {longer}", within(plan, "shoot", solution.shoot), {"longer": slot(solution.shoot, "s")}
    )
    fixes = [*_finest(plan, shoot, solution), *_other_frames(plan), *_fewer(plan, shoot, step), *longer]
    return [OVERRUN.at("clip.interval_step_s", slots, fixes)]


def _finest(plan: Plan, shoot: Fraction, solution: Solution) -> Iterator[Fix]:
    """The coarsest step with which the shoot does not take longer."""
    for step in STEPS:
        if step < plan.clip.interval_step_s and shoot / solution.frames >= step:
            yield Fix(
                label="Dial in steps of {step}",
                consequence="If the timer has them; then the interval comes down to what the shoot leaves each frame.",
                slots={"step": slot(step, "s")},
                edits=(Edit(path="clip.interval_step_s", value=str(step)),),
            )
            return


def _fewer(plan: Plan, shoot: Fraction, step: Fraction) -> Iterator[Fix]:
    """Held frames: as many as there is time for at the shortest interval."""
    if any(peg.quantity == "clip" for peg in plan.clip.pegs) or shoot < step:
        return
    frames = shoot // step
    edits = within(plan, "frames", Fraction(frames))
    yield from clip_fixes(plan, "{fewer}", edits, {"fewer": slot(frames, "frames")})
