"""Whether the rig stands: the centre of mass, and where the carriage tips it."""

import itertools
import math
from collections.abc import Iterator

from bridle.core.chapters.rig.joints import COPIES
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.core.plan.kit import Support
from bridle.core.reckon.framings import framings, offsets
from bridle.core.reckon.loads import carriages, hold, lean_mm, over_mm, slide_ends, tip_slide, tippable
from bridle.core.reckon.stack import Stack, rail_of
from bridle.core.reckon.stack import stack as stack_of
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.strength import mounting

TIPS = SnagKind(
    "rig-tips",
    "stop",
    "rig",
    "The rig tips with the carriage {side} {at}; the move goes to {goes}.",
    "The centre of mass leaves the feet by {over}: it all goes over, slowly at first. Feet on a circle of {radius} "
    "hold {hold} in their weakest direction.",
)


def standing_figures(plan: Plan, stack: Stack) -> Iterator[Figure]:
    """The centre of mass, what holds it, and where the carriage tips it."""
    base = stack.base
    assert base is not None
    worst = max(carriages(plan, stack), key=lambda x: over_mm(plan, stack, x))
    bodies, centre = stack.bodies(worst), stack.centre(worst)
    total = term("total", "mass of it all", centre.mass_g, "g")
    for name, label, value, moment in (
        ("x", "centre of mass, from the first support", centre.x_mm, sum(b.mass_g * b.x_mm for b in bodies)),
        ("y", "centre of mass, above the ground", centre.y_mm, sum(b.mass_g * b.y_mm for b in bodies)),
    ):
        each = term("moment", "sum of mass times place", moment, "g·mm")
        yield figure(f"rig.centre.{name}", label, value, "mm", mounting.CENTRE, each, total)
    if not tippable(stack):
        return
    radius = term("radius", "feet on a circle of radius", base.feet_radius_mm, "mm")
    yield figure("rig.hold", "holds in the weakest direction", base.feet_radius_mm / 2, "mm", mounting.HOLD, radius)
    yield from _tipping_point(plan, stack)


def _tipping_point(plan: Plan, stack: Stack) -> Iterator[Figure]:
    rule = Formula(
        "first + (limit - centre) * total / riding",
        "the centre of mass follows the carriage, by the share of the mass that rides on it",
    )
    rail = rail_of(plan)
    if rail is None:
        return
    centre = stack.centre(stack.ends_mm[0])
    lean = lean_mm(plan, centre.y_mm)
    riding = stack.riding_g
    for end, (name, slide) in enumerate(zip(("below", "above"), tip_slide(plan, stack), strict=True)):
        if slide is None:
            continue
        limit = hold(stack)[end] + (lean if end == 0 else -lean)
        terms = (
            term("first", "slide at its lower end", rail.low, "mm"),
            term("limit", "the centre may go to", limit, "mm"),
            term("centre", "centre with the carriage there", centre.x_mm, "mm"),
            term("total", "mass of it all", centre.mass_g, "g"),
            term("riding", "mass on the carriage", riding, "g"),
        )
        yield figure(f"rig.tips.{name}", f"tips {name}", slide, "mm", rule, *terms)


def tips(plan: Plan, stack: Stack) -> Iterator[Snag]:
    """A rig that tips somewhere along the move."""
    base = stack.base
    first, last = slide_ends(plan)
    for end, (position, carriage) in enumerate(zip((first, last), carriages(plan, stack), strict=True)):
        over = over_mm(plan, stack, carriage)
        limit = tip_slide(plan, stack)[end]
        if (
            over <= 0
            or base is None
            or not base.on_feet
            or (end == 1 and limit is None and tip_slide(plan, stack)[0] is None)
        ):
            continue
        at = limit if limit is not None else position
        slots = {
            "side": slot("below" if end == 0 else "past"),
            "at": slot(at, "mm"),
            "goes": slot(position, "mm"),
            "over": slot(over, "mm"),
            "radius": slot(base.feet_radius_mm, "mm"),
            "hold": slot(base.feet_radius_mm / 2, "mm"),
        }
        fixes = [*_more_supports(plan, stack), *_stop_short(plan, stack, end), _wider(plan, stack)]
        yield TIPS.at(f"rig.standing.{'low' if end == 0 else 'high'}", slots, fixes)
        return


def with_supports(plan: Plan, count: int) -> list[Edit]:
    """The edits that give the rail so many supports like the first one."""
    copies = [copy.model_dump(mode="json") for copy in plan.kit.copies]
    first = next(copy for copy in plan.kit.copies if isinstance(copy.card, Support))
    have = sum(isinstance(copy.card, Support) for copy in plan.kit.copies)
    at, taken = plan.kit.copies.index(first) + have, {copy.key for copy in plan.kit.copies}
    free = (f"{first.key[:34]}-{number}" for number in range(2, 200))
    keys = list(itertools.islice((key for key in free if key not in taken), count - have))
    copies[at:at] = [{**first.model_dump(mode="json"), "key": key} for key in keys]
    return [Edit(path=COPIES, value=copies)]


def _more_supports(plan: Plan, stack: Stack) -> list[Fix]:
    """A second support at the far end; nothing where there is one already, or no rail to put it under."""
    if stack.rail is None or len(stack.supports) > 1:
        return []
    fix = Fix(
        label="A second support at the far end",
        consequence="The rail stands on both; test for rocking on four points, level, tighten, level again.",
        slots={},
        edits=tuple(with_supports(plan, 2)),
    )
    after = apply(plan, fix.edits)[0]
    put = stack_of(after)
    return [fix] if all(over_mm(after, put, x) <= 0 for x in carriages(after, put)) else []


def _wider(plan: Plan, stack: Stack) -> Fix:
    """Feet spread so far that the rig stands at both ends of the move."""
    assert stack.base is not None
    over = max(over_mm(plan, stack, x) for x in carriages(plan, stack))
    radius = math.ceil((stack.base.feet_radius_mm + over / mounting.WEAKEST) / 10 + 1) * 10
    return Fix(
        label="Spread the feet to {wider}",
        consequence="A wider tripod, or spreaders under this one; measure from the middle to a foot.",
        slots={"wider": slot(radius, "mm")},
        edits=tuple(
            Edit(path=f"{COPIES}.{support.index}.card.feet_radius_mm", value=float(radius))
            for support in stack.supports
        ),
    )


def _stop_short(plan: Plan, stack: Stack, end: int) -> list[Fix]:
    """Bring both ends of the move to where the rig stands."""
    rail, (below, above) = rail_of(plan), tip_slide(plan, stack)
    if rail is None:
        return []
    low = math.ceil(below) + 1 if below is not None else rail.low
    high = math.floor(above) - 1 if above is not None else rail.high
    if low > high:
        return []
    aside = offsets(plan).get("slide", (0.0,))
    if low - min(aside) > high - max(aside):
        return []
    inside = [min(max(framing.slide_mm, low - min(aside)), high - max(aside)) for framing in framings(plan)]
    ends = (stack.carriage_x(at, rail.low) for at in (min(inside) + min(aside), max(inside) + max(aside)))
    # A rig that tips wherever its carriage stands is not helped by a shorter way.
    if any(over_mm(plan, stack, carriage) > 0 for carriage in ends):
        return []
    edits = [
        Edit(path=f"{framing.path}.slide_mm", value=float(to))
        for framing, to in zip(framings(plan), inside, strict=True)
        if to != framing.slide_mm
    ]
    before, after = slide_ends(plan), slide_ends(apply(plan, edits)[0])
    both = all(abs(was - now) > 1e-9 for was, now in zip(before, after, strict=True))
    fix = Fix(
        label="Keep the slide between {low} and {high}" if both else "Stop the slide at {stop}",
        consequence="The move is shorter by {shorter}; the framing changes at both ends."
        if both
        else "The move is shorter by {shorter}; the framing there changes.",
        slots={
            "low": slot(after[0], "mm"),
            "high": slot(after[1], "mm"),
            "stop": slot(after[end], "mm"),
            "shorter": slot((before[1] - before[0]) - (after[1] - after[0]), "mm"),
        },
        edits=tuple(edits),
    )
    return [fix] if edits else []
