"""Which chapters, and which leaves of them, a shoot has a use for; the others are folded away."""

from bridle.core.plan.document import Plan
from bridle.core.plan.frames import Windows
from bridle.core.reckon.printing import layered
from bridle.core.reckon.reckoning import Reckoning
from bridle.core.reckon.season.hours import KINDS, is_long


def standing(known: Reckoning) -> tuple[str, ...]:
    """Of what is folded away where nobody needs it, what stands: chapters, and leaves as `chapter/leaf`."""
    plan = known.plan
    found = []
    if layered(plan) is not None or plan.shoot.kind == "print":
        found.append("print")
    if _long(known):
        found.append("season")
    if isinstance(plan.frames, Windows):
        found.append("season/controller")
    if _outside(plan):
        found.append("season/box")
    return tuple(found)


def _long(known: Reckoning) -> bool:
    """Whether somebody has to look after what the camera lives on; while the clip is open, by what it is to be."""
    if known.shooting is not None:
        return is_long(known.plan, known.shooting.timeline)
    return isinstance(known.plan.frames, Windows) or known.plan.shoot.kind in KINDS


def _outside(plan: Plan) -> bool:
    """What grows on a window sill needs no box, unless there is one."""
    return plan.shoot.kind != "grow" or any(copy.card.kind == "box" for copy in plan.kit.copies)
