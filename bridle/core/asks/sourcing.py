"""Asking the layers of a print, which count the frames themselves, for so many frames or so long a clip."""

from fractions import Fraction

from bridle.core.asks import layering
from bridle.core.plan.clip import Quantity
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit


def asks_source(plan: Plan, quantity: Quantity) -> bool:
    """Whether the source of the frames answers for a quantity, and not a peg."""
    return layering.asks_layers(plan, quantity)


def asked_of_source(plan: Plan, quantity: Quantity, value: Fraction) -> list[Edit]:
    """The edits after which it comes as near to that as it can. Raises ValueError where nothing does."""
    return layering.chosen_for(plan, quantity, value)
