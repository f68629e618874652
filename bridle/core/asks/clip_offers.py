"""Fixes that change the clip, with what each makes of it."""

from fractions import Fraction

from bridle.core.asks.pegs import changed, within
from bridle.core.asks.tying import free_length
from bridle.core.plan.clip import RANGES, Peg
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.words import LABELS, UNITS
from bridle.core.quantity import listed
from bridle.core.reckon.clip import holds_of, solved
from bridle.core.reckon.frames.even import pegs_edit
from bridle.core.snag import Fix, Slot, slot
from bridle.core.subjects.time import sentence as solver


def outcome(plan: Plan, edits: list[Edit]) -> tuple[str, dict[str, Slot]]:
    """What a change of pegs makes of the clip, as a sentence with slots."""
    after = changed(plan, edits)
    solution, missing = solved(after)
    if solution is None:
        return f"Leaves {listed([LABELS[name] for name in missing])} open.", {}
    released = set(holds_of(plan)) - set(holds_of(after))
    pulled = f"{listed([LABELS[n] for n in sorted(released)]).capitalize()} no longer held. " if released else ""
    slots = {f"new_{name}": slot(solution.value(name), UNITS[name]) for name in solver.NAMES}
    return pulled + "{new_frames}, one every {new_interval}, {new_shoot} on site, {new_clip} of clip.", slots


def clip_fix(plan: Plan, label: str, edits: list[Edit], slots: dict[str, Slot]) -> Fix:
    """A fix that changes the pegs, with what it makes of the clip."""
    consequence, more = outcome(plan, edits)
    return Fix(label=label, consequence=consequence, slots={**slots, **more}, edits=(*edits, *free_length(plan, edits)))


def clip_fixes(plan: Plan, label: str, edits: list[Edit], slots: dict[str, Slot]) -> list[Fix]:
    """The fix that makes these edits; none where there are no edits to make."""
    return [clip_fix(plan, label, edits, slots)] if edits else []


def at_most(plan: Plan, longest: Fraction) -> list[Edit]:
    """The pegs or segments with which the shoot lasts no longer, whatever the rounding does; none for nought."""
    if longest <= RANGES["shoot"][0]:
        return []
    for shoot in (longest, longest * Fraction(9, 10), longest / 2):
        edits = within(plan, "shoot", shoot)
        solution, _ = solved(changed(plan, edits))
        if edits and solution is not None and solution.shoot <= longest:
            return edits
    # The rate alone is kept; the shoot is shared among a usual number of frames.
    pegs = [Peg(quantity="rate", value=holds_of(plan).get("rate", Fraction(25)))]
    pegs += [Peg(quantity="shoot", value=longest), Peg(quantity="frames", value=Fraction(100))]
    return [pegs_edit(tuple(pegs))]
