"""Pegging and releasing quantities of the clip, as edits."""

from fractions import Fraction

from bridle.core.plan.clip import Clip, Peg, Quantity
from bridle.core.plan.edit import Edit
from bridle.core.subjects import clip as solver

PEGS_PATH = "clip.pegs"


def holds_of(clip: Clip) -> dict[str, Fraction]:
    """The held quantities by name."""
    return {peg.quantity: peg.value for peg in clip.pegs}


def peg(clip: Clip, quantity: Quantity, value: Fraction) -> list[Edit]:
    """Hold a quantity at a value; everything else that is held stays held."""
    return [_edit(_with(clip.pegs, quantity, value))]


def release(clip: Clip, quantity: str) -> list[Edit]:
    """Let a quantity follow from the others."""
    return [_edit(_without(clip.pegs, quantity))]


def take_over(clip: Clip, quantity: Quantity, value: Fraction) -> list[Edit]:
    """Hold a value for a quantity that has followed so far: the peg it makes superfluous is pulled.

    Of the pegs that could go, the oldest goes, the playback rate last. A quantity that is held already just
    takes its new value, since its owner has said that the others stay.
    """
    pegs = _with(clip.pegs, quantity, value)
    if len(pegs) > len(clip.pegs):
        pegs = _pull_one(pegs, quantity)
    return [_edit(pegs)]


def _pull_one(pegs: tuple[Peg, ...], newest: Quantity) -> tuple[Peg, ...]:
    others = [peg.quantity for peg in pegs if peg.quantity != newest]
    if solver.still_free(dict.fromkeys(others, Fraction(1))) and newest not in solver.known(others):
        return pegs
    for name in sorted(others, key=lambda other: other == "rate"):
        rest = _without(pegs, name)
        names = [peg.quantity for peg in rest]
        settled = solver.known(names) == solver.known([peg.quantity for peg in pegs])
        if settled and solver.conflict({peg.quantity: peg.value for peg in rest}) is None:
            return rest
    return pegs


def _with(pegs: tuple[Peg, ...], quantity: Quantity, value: Fraction) -> tuple[Peg, ...]:
    new = Peg(quantity=quantity, value=value)
    if any(peg.quantity == quantity for peg in pegs):
        return tuple(new if peg.quantity == quantity else peg for peg in pegs)
    return (*pegs, new)


def _without(pegs: tuple[Peg, ...], quantity: str) -> tuple[Peg, ...]:
    return tuple(peg for peg in pegs if peg.quantity != quantity)


def _edit(pegs: tuple[Peg, ...]) -> Edit:
    return Edit(path=PEGS_PATH, value=[peg.model_dump(mode="json") for peg in pegs])
