"""Asking a source that counts its frames itself, layers or work windows, for so many frames or so long a clip."""

from fractions import Fraction

from bridle.core.asks import layering, opening
from bridle.core.plan.clip import Quantity
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit


def asks_source(plan: Plan, quantity: Quantity) -> bool:
    """Whether the source of the frames answers for a quantity, and not a peg."""
    return layering.asks_layers(plan, quantity) or opening.asks_windows(plan, quantity)


def asked_of_source(plan: Plan, quantity: Quantity, value: Fraction) -> list[Edit]:
    """The edits after which it comes as near to that as it can. Raises ValueError where nothing does."""
    if layering.asks_layers(plan, quantity):
        return layering.chosen_for(plan, quantity, value)
    return opening.interval_for(plan, quantity, value)
