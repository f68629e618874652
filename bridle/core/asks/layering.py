"""Asking a layered print for so many frames: how often a layer has to call one."""

from fractions import Fraction

from bridle.core.plan.clip import Quantity
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.reckon.frames.found import rate_of
from bridle.core.reckon.printing import FINEST_MM, layered
from bridle.core.subjects.prints.choose import nth_for

ASKED: tuple[Quantity, ...] = ("frames", "clip")


def asks_layers(plan: Plan, quantity: Quantity) -> bool:
    """Whether layers answer for a quantity, and not a peg."""
    return plan.frames.source == "layers" and quantity in ASKED


def chosen_for(plan: Plan, quantity: Quantity, value: Fraction) -> list[Edit]:
    """Every how many layers, or at which heights, so many frames or so long a clip come of the print, at most."""
    frames = layered(plan)
    assert frames is not None
    wanted = max(Fraction(1), value * rate_of(plan) if quantity == "clip" else value)
    last = min(frames.last_layer or len(frames.layers_s), len(frames.layers_s))
    first = min(frames.first_layer, last)
    if frames.equal_mm and frames.z_mm:
        high = frames.z_mm[last - 1] - frames.z_mm[first - 1]
        step = max(FINEST_MM, round(high / max(1.0, float(wanted) - 1), 3))
        return [Edit(path="frames.equal_mm", value=step)]
    return [Edit(path="frames.every", value=min(1000, nth_for(last - first + 1, wanted)))]
