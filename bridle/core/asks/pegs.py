"""Pegging and releasing quantities of the clip, whatever the frames come from, as edits."""

from collections.abc import Mapping
from fractions import Fraction
from typing import Protocol, runtime_checkable

from pydantic import ValidationError

from bridle.core.plan.clip import Clip, Peg, Quantity
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.core.plan.frames import Changing, Windows
from bridle.core.reckon.clip import source_of
from bridle.core.reckon.frames.changing import SEGMENTS_PATH
from bridle.core.reckon.frames.even import PEGS_PATH, pegs_edit, with_peg, without_peg
from bridle.core.reckon.frames.windows import EVERY_PATH, HELD, settled


@runtime_checkable
class Held(Protocol):
    """A source of frames whose quantities can be held."""

    def hold(self, plan: Plan, quantity: Quantity, value: Fraction) -> list[Edit]:
        """The edits with which a quantity comes to a value."""

    def no_shorter(self, plan: Plan, interval: Fraction) -> list[Edit]:
        """The edits with which no interval is shorter."""


def changed(plan: Plan, edits: list[Edit]) -> Plan:
    """The plan after edits of its pegs or segments."""
    for edit in edits:
        if edit.path == PEGS_PATH:
            clip = Clip.model_validate({**dict(plan.clip), "pegs": edit.value})
            plan = plan.model_copy(update={"clip": clip})
        elif edit.path == SEGMENTS_PATH:
            frames = Changing.model_validate({**dict(plan.frames), "segments": edit.value})
            plan = plan.model_copy(update={"frames": frames})
        elif edit.path.startswith("frames."):
            plan, _ = apply(plan, (edit,))
    return plan


def peg(plan: Plan, quantity: Quantity, value: Fraction) -> list[Edit]:
    """Hold a quantity at a value; everything else that is held stays held."""
    return [pegs_edit(with_peg(plan.clip.pegs, quantity, value))]


def release(plan: Plan, quantity: str) -> list[Edit]:
    """Let a quantity follow from the others; the interval of work windows stays where it was."""
    edits = [pegs_edit(without_peg(plan.clip.pegs, quantity))]
    after = settled(plan).frames
    if isinstance(after, Windows) and quantity in HELD:
        edits.append(Edit(path=EVERY_PATH, value=str(after.every_s)))
    return edits


def take_over(plan: Plan, quantity: Quantity, value: Fraction) -> list[Edit]:
    """Hold a value for a quantity that has followed so far. Raises ValueError where the source leaves no choice."""
    source = source_of(plan)
    if isinstance(source, Held):
        return source.hold(plan, quantity, value)
    if quantity == "rate":
        return peg(plan, quantity, value)
    raise ValueError("the frames come from somewhere else: what they come from is changed there")


def within(plan: Plan, quantity: Quantity, value: Fraction) -> list[Edit]:
    """As `take_over`, for what is offered unasked: no edits where it would lead beyond what a plan can hold."""
    try:
        return take_over(plan, quantity, value)
    except ValueError:
        return []


def no_shorter(plan: Plan, interval: Fraction) -> list[Edit]:
    """The edits with which no interval is shorter than this; none where that cannot be had."""
    source = source_of(plan)
    try:
        return source.no_shorter(plan, interval) if isinstance(source, Held) else []
    except ValidationError:
        return []


def hold_only(values: Mapping[str, Fraction]) -> list[Edit]:
    """The edits that hold these quantities and no other; none where one is beyond its bounds."""
    try:
        return [pegs_edit(tuple(Peg.model_validate({"quantity": name, "value": at}) for name, at in values.items()))]
    except ValidationError:
        return []
