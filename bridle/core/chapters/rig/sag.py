"""How far the rail bends under the carriage, and the camera nods."""

import math
from collections.abc import Iterator

from bridle.core.chapters.rig.joints import COPIES
from bridle.core.chapters.rig.tipping import with_supports
from bridle.core.figure import Figure, Formula, Term, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.kit import AxisCard, Beam
from bridle.core.reckon.loads import load_n, nod_deg, reach_mm, span_mm
from bridle.core.reckon.picture import scale
from bridle.core.reckon.stack import SUPPORT_INSET, Stack
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.strength import beams

SAGS = SnagKind(
    "rail-sags",
    "mind",
    "rig",
    "The rail bends under the carriage: the camera nods by {pixels} over the move.",
    "The path becomes an arc, and the picture rises and sinks with it. Under two pixels nobody sees it.",
    short="the rail sags: {pixels}",
)
SAG_PX = 2.0
MOST_SUPPORTS = 5
NOD = Formula("slope * scale", "the slope under the carriage, in pixels at the centre of the picture")
ABOVE = Formula("carried / 1000 * 9.80665", "what the carriage carries, as a force")


def sag_figures(plan: Plan, stack: Stack, rail: AxisCard) -> Iterator[Figure]:
    """How far the rail bends, by beam theory, and what that is in the picture."""
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
    force, modulus = load_n(stack), term("modulus", "stiffness", beam.modulus_gpa, "GPa")
    carried = term("carried", "carriage and what rides on it", force / beams.G * 1000, "g")
    yield figure("rig.load", "load on the rail", force, "N", ABOVE, carried)
    bend = _between_supports if span_mm(stack) else _overhanging
    load, second = (
        term("load", "load on the rail", force, "N"),
        term("inertia", "second moment of area", inertia, "mm⁴"),
    )
    yield from bend(plan, stack, beam, (load, modulus, second))
    nod, per = nod_deg(plan, stack, rail), scale(plan)
    terms = (term("slope", "it nods by", nod, "deg"), term("scale", "pixels per degree", per, "px/°"))
    yield figure("rig.nod", "the camera nods by", nod * per, "px", NOD, *terms)


def _between_supports(plan: Plan, stack: Stack, beam: Beam, common: tuple[Term, Term, Term]) -> Iterator[Figure]:
    """Sag in the middle, by the load and by the rail's own weight, and the slope where it is steepest."""
    load, modulus, second = common
    force, span, inertia = load.value, span_mm(stack), second.value
    length = term("span", "between supports", span, "mm")
    sag = beams.sag_load_mm(force, span, beam.modulus_gpa, inertia)
    yield figure("rig.sag", "sag of the load, mid rail", sag, "mm", beams.SAG_LOAD, load, length, modulus, second)
    weight = beams.weight_n_mm(beam.count, beam.outer_mm, beam.inner_mm, beam.density_kg_m3)
    own = beams.sag_own_mm(weight, span, beam.modulus_gpa, inertia)
    heavy = term("weight", "weight of the rods", weight, "N/mm")
    yield figure("rig.sag_own", "sag of its own weight", own, "mm", beams.SAG_OWN, heavy, length, modulus, second)
    at = beams.WORST_SLOPE_AT
    near, far = (
        term("near", "to the near support", at * span, "mm"),
        term("far", "to the far support", (1 - at) * span, "mm"),
    )
    slope = beams.slope_deg(force, at, span, beam.modulus_gpa, inertia)
    terms = (load, near, far, length, modulus, second)
    yield figure("rig.slope", "slope under the carriage", slope, "deg", beams.SLOPE, *terms)


def _overhanging(plan: Plan, stack: Stack, beam: Beam, common: tuple[Term, Term, Term]) -> Iterator[Figure]:
    """Sag and slope of the end that hangs out, with a single support."""
    load, modulus, second = common
    out, inertia = reach_mm(plan, stack), second.value
    terms = (load, term("reach", "from its only support", out, "mm"), modulus, second)
    sag = beams.overhang_sag_mm(load.value, out, beam.modulus_gpa, inertia)
    yield figure("rig.sag", "sag of the free end", sag, "mm", beams.SAG_OVERHANG, *terms)
    slope = beams.overhang_slope_deg(load.value, out, beam.modulus_gpa, inertia)
    yield figure("rig.slope", "slope under the carriage", slope, "deg", beams.SLOPE_OVERHANG, *terms)


def _nod_px(plan: Plan, stack: Stack, rail: AxisCard) -> float:
    return nod_deg(plan, stack, rail) * scale(plan)


def sags(plan: Plan, stack: Stack, rail: AxisCard) -> Iterator[Snag]:
    """A rail that bends so that it is seen."""
    pixels = _nod_px(plan, stack, rail)
    if pixels <= SAG_PX or not stack.supports or rail.beam is None:
        return
    index = next(i for i, copy in enumerate(plan.kit.copies) if copy.card is rail)
    path = f"{COPIES}.{index}.card.beam"
    fixes = [
        *_more_supports(plan, stack, rail.beam, pixels / nod_deg(plan, stack, rail)),
        _thicker(rail.beam, path, pixels),
    ]
    yield SAGS.at(path, {"pixels": slot(pixels, "px")}, fixes)


def _more_supports(plan: Plan, stack: Stack, beam: Beam, per_deg: float) -> list[Fix]:
    """As few supports more as bring the nod below what is seen; none where even the most do not."""
    inertia = beams.inertia_mm4(beam.count, beam.outer_mm, beam.inner_mm)
    for count in range(max(2, len(stack.supports) + 1), MOST_SUPPORTS + 1):
        span = (1 - 2 * SUPPORT_INSET) * stack.rail_mm / (count - 1)
        slope = beams.slope_deg(load_n(stack), beams.WORST_SLOPE_AT, span, beam.modulus_gpa, inertia)
        after = 2 * slope * per_deg
        if after <= SAG_PX:
            fix = Fix(
                label="Stand it on {count} supports",
                consequence="The camera nods by {after} then. Level them together, tighten, level again.",
                slots={"count": slot(str(count)), "after": slot(after, "px")},
                edits=tuple(with_supports(plan, count)),
            )
            return [fix]
    return []


def _thicker(beam: Beam, path: str, pixels: float) -> Fix:
    """Solid rods: stiffness grows with the fourth power of their thickness."""
    thicker = math.ceil(beam.outer_mm * (pixels / SAG_PX) ** 0.25 * 1.02)
    solid = {**beam.model_dump(mode="json"), "outer_mm": float(thicker), "inner_mm": 0.0}
    return Fix(
        label="Plan with rods of {thicker}",
        consequence="Solid rods of that size sag less than two pixels; the rail grows heavier.",
        slots={"thicker": slot(thicker, "mm")},
        edits=(Edit(path=path, value=solid),),
    )
