"""Whether the rig stands still and holds on: tipping, sag, slopes, shafts, level."""

import itertools
import math
from collections.abc import Callable, Iterator

from bridle.core.chapters.rig.joints import COPIES
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.core.plan.kit import AxisCard, Support
from bridle.core.plan.rig import Axis
from bridle.core.reckon.framings import framings, offsets
from bridle.core.reckon.loads import (
    carriages,
    hold,
    lean_mm,
    load_n,
    nod_deg,
    over_mm,
    reach_mm,
    slide_ends,
    span_mm,
    tip_slide,
)
from bridle.core.reckon.picture import kept, scale
from bridle.core.reckon.stack import SUPPORT_INSET, Stack, rail_of
from bridle.core.reckon.stack import stack as stack_of
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.motion.drives.stepper import Pulling
from bridle.core.subjects.strength import beams, mounting

TIPS = SnagKind(
    "rig-tips",
    "stop",
    "rig",
    "The rig tips with the carriage {side} {at}; the move goes to {goes}.",
    "The centre of mass leaves the feet by {over}: it all goes over, slowly at first. Feet on a circle of {radius} "
    "hold {hold} in their weakest direction.",
)
SAGS = SnagKind(
    "rail-sags",
    "mind",
    "rig",
    "The rail bends under the carriage: the camera nods by {pixels} over the move.",
    "The path becomes an arc, and the picture rises and sinks with it. Under two pixels nobody sees it.",
)
TRAVEL = SnagKind(
    "carriage-strikes",
    "stop",
    "rig",
    "The carriage has {usable} on this rail; the axis is set to travel {travel}.",
    "It would strike the pulley or the end plate, slip steps and be off by as much for the rest of the night.",
)
TORQUE = SnagKind(
    "motor-too-weak",
    "stop",
    "rig",
    "At {slope} the motor needs {needed} and has {has}; twice what is needed is little enough.",
    "It skips steps when the belt is cold or the load jerks, and nobody notices until the clip is seen.",
)
LETS_GO = SnagKind(
    "rail-lets-go",
    "stop",
    "rig",
    "At {slope} the carriage runs down when the motor is off: {pull} against {detent} that hold it.",
    "A flat battery, a loose plug, a driver that goes to sleep: the camera comes down the rail. Brake, counterweight, "
    "or a screw fine enough to hold itself. Nobody's hands in its way.",
)
SHAFT = SnagKind(
    "shaft-overload",
    "mind",
    "rig",
    "The {axis} has {torque} on its shaft, and takes {limit}.",
    "Not only the weight counts: a load that stands off the axis turns it. It sags, skips or strips its gear.",
)
TILTED = SnagKind(
    "horizon-tilts",
    "mind",
    "rig",
    "A pan base {error} off level tilts the horizon by up to {pixels} through the sweep.",
    "The sea runs downhill at one end of the pan. Leaning on purpose draws an arc; that is a choice, not a fault.",
)
KINDS = (TIPS, SAGS, TRAVEL, TORQUE, LETS_GO, SHAFT, TILTED)
SAG_PX, TILT_PX = 2.0, 12.0
FACTOR = 2
MOST_SUPPORTS = 5
NOD = Formula("slope * scale", "the slope under the carriage, in pixels at the centre of the picture")
MARGIN = Formula("hold - abs(centre + height * sin(radians(error)))", "how far the centre of mass may still go")
HORIZON = Formula("tan(radians(error)) * width", "from one edge of the picture to the other")
ABOVE = Formula("carried / 1000 * 9.80665", "what the carriage carries, as a force")


def figures(plan: Plan, stack: Stack) -> Iterator[Figure]:
    """Centre of mass, sag, slopes: everything that can be said of the rig as it stands."""
    if stack.supports and stack.parts:
        yield from _standing(plan, stack)
    rail = rail_of(plan)
    if rail is not None:
        yield from _sag(plan, stack, rail)
        yield from _slope(plan, stack, rail)
    error, width = plan.rig.standing.level_error_deg, kept(plan).width_px
    if error:
        terms = (term("error", "off level", error, "deg"), term("width", "picture, across", width, "px"))
        yield figure(
            "rig.horizon", "the horizon tilts by", math.tan(math.radians(error)) * width, "px", HORIZON, *terms
        )


def _standing(plan: Plan, stack: Stack) -> Iterator[Figure]:
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
    riding = sum(part.mass_g for part in stack.parts if part.rides)
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


def _sag(plan: Plan, stack: Stack, rail: AxisCard) -> Iterator[Figure]:
    beam = rail.beam
    if beam is None:
        return
    inertia = beams.inertia_mm4(beam.count, beam.outer_mm, beam.inner_mm)
    rods = (
        term("rods", "rods", beam.count, ""),
        term("outside", "rod, outside", beam.outer_mm, "mm"),
        term("inside", "rod, inside", beam.inner_mm, "mm"),
    )
    yield figure("rig.inertia", "second moment of area", inertia, "mm⁴", beams.INERTIA, *rods)
    force, span, modulus = load_n(stack), span_mm(stack), term("modulus", "stiffness", beam.modulus_gpa, "GPa")
    carried = term("carried", "carriage and what rides on it", force / beams.G * 1000, "g")
    yield figure("rig.load", "load on the rail", force, "N", ABOVE, carried)
    load, second = (
        term("load", "load on the rail", force, "N"),
        term("inertia", "second moment of area", inertia, "mm⁴"),
    )
    if span:
        length = term("span", "between supports", span, "mm")
        sag = beams.sag_load_mm(force, span, beam.modulus_gpa, inertia)
        yield figure("rig.sag", "sag of the load, mid rail", sag, "mm", beams.SAG_LOAD, load, length, modulus, second)
        weight = beams.weight_n_mm(beam.count, beam.outer_mm, beam.inner_mm, beam.density_kg_m3)
        own = beams.sag_own_mm(weight, span, beam.modulus_gpa, inertia)
        heavy = term("weight", "weight of the rods", weight, "N/mm")
        yield figure("rig.sag_own", "sag of its own weight", own, "mm", beams.SAG_OWN, heavy, length, modulus, second)
        near, far = beams.WORST_SLOPE_AT * span, (1 - beams.WORST_SLOPE_AT) * span
        slope = beams.slope_deg(force, beams.WORST_SLOPE_AT, span, beam.modulus_gpa, inertia)
        ends = (term("near", "to the near support", near, "mm"), term("far", "to the far support", far, "mm"))
        yield figure(
            "rig.slope", "slope under the carriage", slope, "deg", beams.SLOPE, load, *ends, length, modulus, second
        )
    else:
        reach = term("reach", "from its only support", reach_mm(plan, stack), "mm")
        sag = beams.overhang_sag_mm(force, reach_mm(plan, stack), beam.modulus_gpa, inertia)
        yield figure("rig.sag", "sag of the free end", sag, "mm", beams.SAG_OVERHANG, load, reach, modulus, second)
        slope = beams.overhang_slope_deg(force, reach_mm(plan, stack), beam.modulus_gpa, inertia)
        yield figure(
            "rig.slope", "slope under the carriage", slope, "deg", beams.SLOPE_OVERHANG, load, reach, modulus, second
        )
    nod, per = nod_deg(plan, stack, rail), scale(plan)
    terms = (term("slope", "it nods by", nod, "deg"), term("scale", "pixels per degree", per, "px/°"))
    yield figure("rig.nod", "the camera nods by", nod * per, "px", NOD, *terms)


def _slope(plan: Plan, stack: Stack, rail: AxisCard) -> Iterator[Figure]:
    axis = plan.rig.axis("slide")
    if axis is None or not isinstance(rail.drive, Pulling):
        return
    standing, riding = plan.rig.standing, load_n(stack) / beams.G * 1000
    value, rule, parts = rail.drive.pull_radius()
    yield figure("rig.radius", "radius of the drive", value, "mm", rule, *parts)
    force = mounting.pull_n(riding, abs(standing.slope_deg), standing.friction, axis.acceleration)
    shared = (
        term("mass", "mass on the rail", riding, "g"),
        term("slope", "slope of the rail", abs(standing.slope_deg), "deg"),
        term("friction", "friction", standing.friction, ""),
    )
    speeding = term("acceleration", "acceleration", axis.acceleration, "mm/s²")
    yield figure("rig.pull", "pull on the carriage", force, "N", mounting.PULL, *shared, speeding)
    at = term("radius", "radius of the drive", value, "mm")
    lossy = term("efficiency", "efficiency", rail.drive.efficiency, "share")
    torque = force * value / rail.drive.efficiency
    pulled = term("force", "pull on the carriage", force, "N")
    yield figure("rig.torque", "torque needed", torque, "N·mm", mounting.TORQUE, pulled, at, lossy)
    lets_go = mounting.lets_go_nmm(riding, abs(standing.slope_deg), standing.friction, value)
    yield figure("rig.lets_go", "pulls on the motor when it is off", lets_go, "N·mm", mounting.LETS_GO, *shared, at)


def snags(plan: Plan, stack: Stack) -> Iterator[Snag]:
    """All that moves, bends or falls where it should not."""
    rail, axis = rail_of(plan), plan.rig.axis("slide")
    if stack.supports and stack.parts:
        yield from _tips(plan, stack)
    if rail is not None and axis is not None:
        yield from _strikes(plan, rail, axis)
        yield from _sags(plan, stack, rail)
        yield from _weak(plan, stack, rail, axis)
        yield from _falls(plan, stack, rail)
    yield from _shafts(plan, stack)
    yield from _tilted(plan)


def _tips(plan: Plan, stack: Stack) -> Iterator[Snag]:
    base = stack.base
    first, last = slide_ends(plan)
    for end, (position, carriage) in enumerate(zip((first, last), carriages(plan, stack), strict=True)):
        over = over_mm(plan, stack, carriage)
        limit = tip_slide(plan, stack)[end]
        if over <= 0 or base is None or (end == 1 and limit is None and tip_slide(plan, stack)[0] is None):
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
    keys = list(itertools.islice((one for one in free if one not in taken), count - have))
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
            Edit(path=f"{COPIES}.{one.index}.card.feet_radius_mm", value=float(radius)) for one in stack.supports
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
    edits = []
    aside = offsets(plan).get("slide", (0.0,))
    if low - min(aside) > high - max(aside):
        return []
    for one in framings(plan):
        inside = min(max(one.slide_mm, low - min(aside)), high - max(aside))
        if inside != one.slide_mm:
            edits.append(Edit(path=f"{one.path}.slide_mm", value=float(inside)))
    fix = Fix(
        label="Stop the travel at {stop}",
        consequence="The move is shorter by {shorter}; the framing there changes.",
        slots={
            "stop": slot(low if end == 0 else high, "mm"),
            "shorter": slot(abs((slide_ends(plan)[end]) - (low if end == 0 else high)), "mm"),
        },
        edits=tuple(edits),
    )
    return [fix] if edits else []


def _strikes(plan: Plan, rail: AxisCard, axis: Axis) -> Iterator[Snag]:
    if not rail.length_mm:
        return
    usable = rail.length_mm - rail.carriage_mm - 2 * rail.end_margin_mm
    travel = axis.high - axis.low
    if travel <= usable + 1e-6 or usable <= 0:
        return
    path = f"rig.axes.{plan.rig.axes.index(axis)}.high"
    high = math.floor(axis.low + usable)
    fix = Fix(
        label="Travel to {high}",
        consequence="The carriage stays {margin} clear of both ends.",
        slots={"high": slot(high, "mm"), "margin": slot(rail.end_margin_mm, "mm")},
        edits=(Edit(path=path, value=float(high)),),
    )
    yield TRAVEL.at(path, {"usable": slot(usable, "mm"), "travel": slot(travel, "mm")}, [fix])


def _nod_px(plan: Plan, stack: Stack, rail: AxisCard) -> float:
    return nod_deg(plan, stack, rail) * scale(plan)


def _sags(plan: Plan, stack: Stack, rail: AxisCard) -> Iterator[Snag]:
    pixels = _nod_px(plan, stack, rail)
    if pixels <= SAG_PX or not stack.supports or rail.beam is None:
        return
    fixes = []
    inertia = beams.inertia_mm4(rail.beam.count, rail.beam.outer_mm, rail.beam.inner_mm)
    scale = pixels / nod_deg(plan, stack, rail)
    for count in range(max(2, len(stack.supports) + 1), MOST_SUPPORTS + 1):
        span = (1 - 2 * SUPPORT_INSET) * stack.rail_mm / (count - 1)
        after = 2 * beams.slope_deg(load_n(stack), beams.WORST_SLOPE_AT, span, rail.beam.modulus_gpa, inertia) * scale
        if after <= SAG_PX:
            slots = {"count": slot(str(count)), "after": slot(after, "px")}
            told = "The camera nods by {after} then. Level them together, tighten, level again."
            fixes.append(
                Fix(
                    label="Stand it on {count} supports",
                    consequence=told,
                    slots=slots,
                    edits=tuple(with_supports(plan, count)),
                )
            )
            break
    factor = (pixels / SAG_PX) ** 0.25 * 1.02
    thicker = math.ceil(rail.beam.outer_mm * factor) + rail.beam.inner_mm * 0
    index = next(i for i, copy in enumerate(plan.kit.copies) if copy.card is rail)
    solid = {**rail.beam.model_dump(mode="json"), "outer_mm": float(thicker), "inner_mm": 0.0}
    told = "Solid rods of that size sag less than two pixels; the rail grows heavier."
    slots = {"thicker": slot(thicker, "mm")}
    edits = (Edit(path=f"{COPIES}.{index}.card.beam", value=solid),)
    fixes.append(Fix(label="Plan with rods of {thicker}", consequence=told, slots=slots, edits=edits))
    yield SAGS.at(f"{COPIES}.{index}.card.beam", {"pixels": slot(pixels, "px")}, fixes)


def _gentler(plan: Plan, fits: float | None, consequence: str) -> list[Fix]:
    if fits is None:
        return []
    slope = math.copysign(fits, plan.rig.standing.slope_deg) if fits else 0.0
    edits = (Edit(path="rig.standing.slope_deg", value=slope),)
    return [
        Fix(
            label="Lower the rail to {gentler}",
            consequence=consequence,
            slots={"gentler": slot(slope, "deg")},
            edits=edits,
        )
    ]


def _steepest(test: Callable[[float], bool], most: float) -> float | None:
    """The steepest slope in tenths of a degree that passes a test; None where not even a level rail does."""
    if not test(0.0):
        return None
    low, high = 0.0, most
    for _ in range(30):
        middle = (low + high) / 2
        low, high = (middle, high) if test(middle) else (low, middle)
    return math.floor(low * 10) / 10


def _weak(plan: Plan, stack: Stack, rail: AxisCard, axis: Axis) -> Iterator[Snag]:
    if not isinstance(rail.drive, Pulling) or not rail.drive.torque_nmm:
        return
    standing, riding, drive = plan.rig.standing, load_n(stack) / beams.G * 1000, rail.drive
    has, radius = rail.drive.torque_nmm, drive.pull_radius()[0]

    def needed(slope: float, acceleration: float = axis.acceleration) -> float:
        return mounting.pull_n(riding, slope, standing.friction, acceleration) * radius / drive.efficiency

    steep = abs(standing.slope_deg)
    if FACTOR * needed(steep) <= has:
        return
    gentler = _gentler(
        plan, _steepest(lambda slope: FACTOR * needed(slope) <= has, steep), "The motor has twice what it needs."
    )
    slots = {"slope": slot(steep, "deg"), "needed": slot(needed(steep), "N·mm"), "has": slot(has, "N·mm")}
    stronger = math.ceil(FACTOR * needed(steep) / 10) * 10
    index = next(i for i, copy in enumerate(plan.kit.copies) if copy.card is rail)
    motor = Fix(
        label="Plan with a motor of {stronger}",
        consequence="At the speed of the move, not standing still; its driver set to its current.",
        slots={"stronger": slot(stronger, "N·mm")},
        edits=(Edit(path=f"{COPIES}.{index}.card.drive.torque_nmm", value=float(stronger)),),
    )
    yield TORQUE.at(f"{COPIES}.{index}.card.drive.torque_nmm", slots, [*gentler, motor])


def _falls(plan: Plan, stack: Stack, rail: AxisCard) -> Iterator[Snag]:
    if not isinstance(rail.drive, Pulling) or rail.drive.detent_nmm is None:
        return
    radius = rail.drive.pull_radius()[0]
    standing, riding = plan.rig.standing, load_n(stack) / beams.G * 1000
    steep, detent = abs(standing.slope_deg), rail.drive.detent_nmm

    def pull(slope: float) -> float:
        return mounting.lets_go_nmm(riding, slope, standing.friction, radius)

    if pull(steep) <= detent:
        return
    slots = {"slope": slot(steep, "deg"), "pull": slot(pull(steep), "N·mm"), "detent": slot(detent, "N·mm")}
    told = "It stays where it is when the power goes. Steeper only with a brake or a counterweight."
    index = next(i for i, copy in enumerate(plan.kit.copies) if copy.card is rail)
    braked = math.ceil(pull(steep) * 2)
    brake = Fix(
        label="Fit a brake that holds {braked}",
        consequence="The plan counts on it; try it with the battery out, before the camera is on.",
        slots={"braked": slot(braked, "N·mm")},
        edits=(Edit(path=f"{COPIES}.{index}.card.drive.detent_nmm", value=float(braked)),),
    )
    fixes = [*_gentler(plan, _steepest(lambda slope: pull(slope) <= detent, steep), told), brake]
    yield LETS_GO.at("rig.standing.slope_deg", slots, fixes)


def _shafts(plan: Plan, stack: Stack) -> Iterator[Snag]:
    for index, copy in enumerate(plan.kit.copies):
        card = copy.card
        if not isinstance(card, AxisCard) or card.motion != "rotary" or card.shaft_nmm is None:
            continue
        force = stack.above(index) / 1000 * beams.G
        lean = 1.0 if card.turns != "pan" else math.sin(math.radians(abs(plan.rig.standing.slope_deg)))
        torque = force * card.off_axis_mm * lean
        if torque <= card.shaft_nmm:
            continue
        balanced = math.floor(card.shaft_nmm / (force * lean) * 10) / 10
        path = f"{COPIES}.{index}.card.off_axis_mm"
        fix = Fix(
            label="Balance it to {balanced} off the axis",
            consequence="Slide the plate until the camera stays where it is put with the clamp loose.",
            slots={"balanced": slot(balanced, "mm")},
            edits=(Edit(path=path, value=balanced),),
        )
        slots = {"axis": slot(card.name), "torque": slot(torque, "N·mm"), "limit": slot(card.shaft_nmm, "N·mm")}
        yield SHAFT.at(path, slots, [fix])


def _tilted(plan: Plan) -> Iterator[Snag]:
    pans = [one.pan_deg for one in framings(plan)]
    error, turns = plan.rig.standing.level_error_deg, abs(max(pans) - min(pans))
    pixels = math.tan(math.radians(error)) * kept(plan).width_px
    if plan.rig.axis("pan") is None or turns < 1 or pixels <= TILT_PX:
        return
    level = math.floor(math.degrees(math.atan(TILT_PX / kept(plan).width_px)) * 100) / 100
    fix = Fix(
        label="Level it to {level}",
        consequence="Under {few} from edge to edge. A bubble in the head, not the one in the tripod.",
        slots={"level": slot(level, "deg"), "few": slot(TILT_PX, "px")},
        edits=(Edit(path="rig.standing.level_error_deg", value=level),),
    )
    yield TILTED.at("rig.standing.level_error_deg", {"error": slot(error, "deg"), "pixels": slot(pixels, "px")}, [fix])
