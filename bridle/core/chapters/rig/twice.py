"""Two parts of a rig that are the same axis of the move: only the first of them drives."""

from collections.abc import Iterator

from bridle.core.asks.fitting import fit
from bridle.core.chapters.rig.joints import COPIES
from bridle.core.plan.document import Plan
from bridle.core.plan.kit import Copy
from bridle.core.quantity import listed
from bridle.core.reckon.parts import Driven, axes_in, axis_parts
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
    drives = axis_parts(plan.kit.copies)
    for part in axes_in(plan.kit.copies):
        first = drives[part.name]
        if first.path == part.path:
            continue
        second, standing = part.copy, first.copy
        slots = {"second": slot(second.card.name), "first": slot(standing.card.name), "axis": slot(part.name)}
        path = f"{COPIES}.{part.index}" if not part.within else part.path
        yield TWICE.at(path, slots, [_without(plan, second), _alone(plan, part)])


def _alone(plan: Plan, kept: Driven) -> Fix:
    """Without every other part that is this axis."""
    return _without(plan, *(part.copy for part in axes_in(plan.kit.copies) if _same_axis(part, kept)))


def _same_axis(part: Driven, kept: Driven) -> bool:
    return part.name == kept.name and part.copy is not kept.copy


def _without(plan: Plan, *gone: Copy) -> Fix:
    kept = tuple(copy for copy in plan.kit.copies if not any(copy is one for one in gone))
    return Fix(
        label="Take the {gone} off",
        consequence="The other one drives; it stays where it is in the chain.",
        slots={"gone": slot(listed([copy.card.name for copy in gone]))},
        edits=tuple(fit(plan, kept)),
    )
