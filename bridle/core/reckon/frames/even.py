"""Frames at one interval, from what the pegs hold."""

from fractions import Fraction

import numpy as np

from bridle.core.plan.clip import Clip, Peg, Quantity
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.reckon.frames.found import Found, calls_of, keep_of
from bridle.core.reckon.timeline import Run, Timeline, first_frame
from bridle.core.subjects.time import sentence
from bridle.core.subjects.time.sentence import Solution

PEGS_PATH = "clip.pegs"


def holds_of(clip: Clip) -> dict[str, Fraction]:
    """The held quantities by name."""
    return {peg.quantity: peg.value for peg in clip.pegs}


def find(plan: Plan) -> Found:
    """What the pegs come to, or what contradicts or is free."""
    clip = plan.clip
    holds, keep = holds_of(clip), keep_of(clip)
    conflict = sentence.conflict(holds, keep)
    if conflict is not None:
        return Found(conflict=conflict)
    free = sentence.still_free(holds)
    if free:
        return Found(free=free)
    solution = sentence.solve(holds, clip.interval_step_s, keep)
    return Found(solution, frames=solution.frames)


def resolve(plan: Plan, solution: Solution) -> Timeline:
    """The frames in time, one interval after another."""
    every, frames = float(solution.interval), solution.frames
    return Timeline(
        start=first_frame(plan, solution.shoot),
        zone=plan.shoot.place.zone,
        starts_s=np.arange(frames, dtype=np.float64) * every,
        rooms_s=np.full(frames, every),
        runs=(Run(0, frames, Fraction(0), solution.interval),),
        end_s=solution.shoot,
        interval_s=solution.interval,
        calls=calls_of(plan),
    )


def hold(plan: Plan, quantity: Quantity, value: Fraction) -> list[Edit]:
    """Hold a value for a quantity that has followed so far: the peg it makes superfluous is pulled.

    Of the pegs that could go, the one longest untouched goes, the playback rate last. A quantity that is held already
    just takes its new value, since its owner has said that the others stay.
    """
    pegs = with_peg(plan.clip.pegs, quantity, value)
    if len(pegs) > len(plan.clip.pegs):
        pegs = _pull_one(pegs, quantity)
    return [pegs_edit(pegs)]


def no_shorter(plan: Plan, interval: Fraction) -> list[Edit]:
    """The interval held at this length."""
    return hold(plan, "interval", interval)


def _pull_one(pegs: tuple[Peg, ...], newest: Quantity) -> tuple[Peg, ...]:
    others = [peg.quantity for peg in pegs if peg.quantity != newest]
    if sentence.still_free(dict.fromkeys(others, Fraction(1))) and newest not in sentence.known(others):
        return pegs
    for name in sorted(others, key=lambda other: other == "rate"):
        rest = without_peg(pegs, name)
        names = [peg.quantity for peg in rest]
        settled = sentence.known(names) == sentence.known([peg.quantity for peg in pegs])
        if settled and sentence.conflict({peg.quantity: peg.value for peg in rest}) is None:
            return rest
    return pegs


def with_peg(pegs: tuple[Peg, ...], quantity: Quantity, value: Fraction) -> tuple[Peg, ...]:
    """The pegs with one more, or with another value for one of them: touched last, it stands last."""
    return (*without_peg(pegs, quantity), Peg(quantity=quantity, value=value))


def without_peg(pegs: tuple[Peg, ...], quantity: str) -> tuple[Peg, ...]:
    """The pegs without one of them."""
    return tuple(peg for peg in pegs if peg.quantity != quantity)


def pegs_edit(pegs: tuple[Peg, ...]) -> Edit:
    """The edit that puts these pegs in place."""
    return Edit(path=PEGS_PATH, value=[peg.model_dump(mode="json") for peg in pegs])
