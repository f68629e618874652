"""Two parts of a rig that are the same axis of the move: only the first of them drives."""

from collections.abc import Iterator

from bridle.core.asks.fitting import fit
from bridle.core.chapters.rig.joints import COPIES
from bridle.core.plan.document import Plan
from bridle.core.plan.kit import AxisCard, Copy
from bridle.core.reckon.parts import axis_copies, axis_name
from bridle.core.snag import Fix, Snag, SnagKind, slot

TWICE = SnagKind(
    "axis-twice",
    "stop",
    "rig",
    "The {second} is a {axis} like the {first}: it does not drive.",
    "A plan has one {axis}. The second stands where it is put, wherever its own controller would take it.",
)
KINDS = (TWICE,)


def snags(plan: Plan) -> Iterator[Snag]:
    """Every part that would be an axis which another part is already."""
    copies, drives = plan.kit.copies, axis_copies(plan.kit.copies)
    for index, copy in enumerate(copies):
        if not isinstance(copy.card, AxisCard) or drives[axis_name(copy.card)] is copy:
            continue
        first = drives[axis_name(copy.card)]
        slots = {"second": slot(copy.card.name), "first": slot(first.card.name), "axis": slot(axis_name(copy.card))}
        fixes = [_without(plan, copy), _without(plan, first)]
        yield TWICE.at(f"{COPIES}.{index}", slots, fixes)


def _without(plan: Plan, gone: Copy) -> Fix:
    kept = tuple(copy for copy in plan.kit.copies if copy is not gone)
    return Fix(
        label="Take the {gone} off",
        consequence="The other one drives; it stays where it is in the chain.",
        slots={"gone": slot(gone.card.name)},
        edits=tuple(fit(plan, kept)),
    )
