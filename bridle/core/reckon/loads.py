"""Forces on the rig: where it tips, how far it bends, what pulls on the carriage."""

import math

from bridle.core.plan.document import Plan
from bridle.core.reckon.framings import framings, offsets
from bridle.core.reckon.stack import SUPPORT_INSET, Stack, rail_of
from bridle.core.subjects.strength import beams, mounting


def slide_ends(plan: Plan) -> tuple[float, float]:
    """The lowest and the highest slide position of the move; both nought without a rail."""
    if plan.rig.axis("slide") is None:
        return (0.0, 0.0)
    ends, aside = [framing.slide_mm for framing in framings(plan)], offsets(plan).get("slide", (0.0,))
    return (min(ends) + min(aside), max(ends) + max(aside))


def carriages(plan: Plan, stack: Stack) -> tuple[float, float]:
    """Where the carriage stands at the lowest and the highest slide position of the move."""
    rail = rail_of(plan)
    low = rail.low if rail else 0.0
    first, last = slide_ends(plan)
    return stack.carriage_x(first, low), stack.carriage_x(last, low)


def tippable(stack: Stack) -> bool:
    """Whether it stands on feet: a clamp, a mast, a table and the ground hold by themselves."""
    return stack.base is not None and stack.base.on_feet


def hold(stack: Stack) -> tuple[float, float]:
    """Between which places along the rail the centre of mass may be, in mm from the first support."""
    base = stack.base
    reach = base.feet_radius_mm * mounting.WEAKEST if base else 0.0
    return -reach, (stack.supports[-1].x_mm if stack.supports else 0.0) + reach


def lean_mm(plan: Plan, height: float) -> float:
    """How far an unlevel base carries the centre of mass aside."""
    return height * math.sin(math.radians(plan.rig.standing.level_error_deg))


def over_mm(plan: Plan, stack: Stack, carriage: float) -> float:
    """By how much the centre of mass stands outside what holds it; below nought is the reserve."""
    centre, (left, right) = stack.centre(carriage), hold(stack)
    lean = lean_mm(plan, centre.y_mm)
    return max(left - (centre.x_mm - lean), centre.x_mm + lean - right)


def tip_slide(plan: Plan, stack: Stack) -> tuple[float | None, float | None]:
    """The slide positions below and above which the rig tips; None where it stands over the whole travel."""
    rail = rail_of(plan)
    if rail is None or stack.riding_g == 0 or not stack.supports or not tippable(stack):
        return None, None
    found: list[float | None] = []
    for end in (0, 1):
        place = carriage_at_limit(plan, stack, end)
        slide = place - stack.ends_mm[0] + rail.low
        inside = slide > rail.low if end == 0 else slide < rail.high
        found.append(slide if inside else None)
    return found[0], found[1]


def carriage_at_limit(plan: Plan, stack: Stack, end: int) -> float:
    """The carriage's place at which the centre of mass stands at an end of what holds it."""
    at = stack.ends_mm[0]
    centre = stack.centre(at)
    lean = lean_mm(plan, centre.y_mm)
    limit = hold(stack)[end] + (lean if end == 0 else -lean)
    return at + (limit - centre.x_mm) * centre.mass_g / stack.riding_g


def load_n(stack: Stack) -> float:
    """What the carriage carries, itself included, as a force."""
    return stack.riding_g / 1000 * beams.G


def span_mm(stack: Stack) -> float:
    """Between two neighbouring supports of the rail; 0 with a single one."""
    gaps = len(stack.supports) - 1
    return (1 - 2 * SUPPORT_INSET) * stack.rail_mm / gaps if gaps > 0 else 0.0


def reach_mm(plan: Plan, stack: Stack) -> float:
    """How far from its only support the carriage comes."""
    return max(abs(x) for x in carriages(plan, stack))
