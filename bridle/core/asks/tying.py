"""Clock and length tied to the sky, or let go of it."""

from collections.abc import Sequence

from bridle.core.asks.pegs import changed, take_over
from bridle.core.plan.anchors import Anchor
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.reckon.clip import holds_of, solved


def untied(plan: Plan) -> list[Edit]:
    """The edits after which the clock goes by the hour; none where it does already."""
    return [] if plan.shoot.clock.tied is None else [Edit(path="shoot.clock.tied", value=None)]


def untied_said(plan: Plan) -> str:
    """What a fix that unties the start adds to its words; nothing where it goes by the hour already."""
    tied = plan.shoot.clock.tied
    return "" if tied is None else f" The start is no longer tied to {tied.to}."


def until(plan: Plan, anchor: Anchor) -> list[Edit]:
    """The edits that let the shoot last until something in the sky: its length is held, and the sky says at what.

    Raises ValueError where the frames come from somewhere else.
    """
    if plan.frames.source != "even":
        raise ValueError("how long the shoot lasts follows from its segments, windows or layers")
    tie = Edit(path="shoot.clock.until", value=anchor.model_dump(mode="json"))
    if "shoot" in holds_of(plan):
        return [tie]
    solution, _ = solved(plan)
    if solution is None:
        raise ValueError("the sentence leaves something open: then nobody knows what gives way to the sky")
    return [*take_over(plan, "shoot", solution.shoot), tie]


def let_go(plan: Plan, quantity: str) -> list[Edit]:
    """The edit that lets the length go by the peg again, where that is what somebody changes."""
    tied = quantity == "shoot" and plan.shoot.clock.until is not None
    return [Edit(path="shoot.clock.until", value=None)] if tied else []


def free_length(plan: Plan, edits: Sequence[Edit]) -> list[Edit]:
    """The same where edits of the pegs give the shoot another length than the sky does."""
    if plan.shoot.clock.until is None:
        return []
    before, after = holds_of(plan).get("shoot"), holds_of(changed(plan, list(edits))).get("shoot")
    return [] if before == after else [Edit(path="shoot.clock.until", value=None)]
