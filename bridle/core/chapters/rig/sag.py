"""How far the rail bends under the carriage, and what the camera does by it."""

import math
from collections.abc import Iterator

import numpy as np

from bridle.core.chapters.rig.joints import COPIES
from bridle.core.chapters.rig.tipping import with_supports
from bridle.core.figure import Figure, Formula, Term, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.core.plan.kit import AxisCard, Beam
from bridle.core.reckon.bending import Bending, bending, held_at, nod_px, roll_px
from bridle.core.reckon.loads import load_n, reach_mm, span_mm
from bridle.core.reckon.picture import kept, scale
from bridle.core.reckon.reckoning import Reckoning, reckon
from bridle.core.reckon.stack import Stack
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.strength import beams

SAGS = SnagKind(
    "rail-sags",
    "mind",
    "rig",
    "The rail bends under the carriage: over the move the camera {does} by {pixels} {where}.",
    "The slope under the carriage changes from place to place. Looking across the rail the picture rolls by it, along "
    "the rail it rises and sinks. Under two pixels nobody sees it.",
    short="the rail sags: {pixels}",
)
SAG_PX = 2.0
MOST_SUPPORTS = 5
NODS = Formula("slope * sin(radians(pan))", "the part of the slope along which the camera looks")
ROLLS = Formula("slope * cos(radians(pan))", "the part of the slope across which the camera looks")
NOD = Formula("(most - least) * scale", "from end to end of the move, in pixels at the centre of the picture")
ROLL = Formula("tan(radians(most - least)) * width / 2", "from end to end of the move, at the edge of the picture")
ABOVE = Formula("carried / 1000 * 9.80665", "what the carriage carries, as a force")


def sag_figures(known: Reckoning, rail: AxisCard) -> Iterator[Figure]:
    """How far the rail bends, by beam theory, and what that is in the picture."""
    beam, stack = rail.beam, known.stack
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
    common = (
        term("load", "load on the rail", force, "N"),
        modulus,
        term("inertia", "second moment of area", inertia, "mm⁴"),
    )
    bend = _between_supports if span_mm(stack) else _overhanging
    yield from bend(known.plan, stack, beam, common)
    bent = bending(known)
    if bent is not None:
        yield from _in_the_picture(known, bent, common)


def _between_supports(plan: Plan, stack: Stack, beam: Beam, common: tuple[Term, Term, Term]) -> Iterator[Figure]:
    """Sag in the middle, by the load, by the rail's own weight, and by both."""
    load, modulus, second = common
    force, span, inertia = load.value, span_mm(stack), second.value
    length = term("span", "between supports", span, "mm")
    sag = beams.sag_load_mm(force, span, beam.modulus_gpa, inertia)
    yield figure("rig.sag", "sag of the load, mid rail", sag, "mm", beams.SAG_LOAD, load, length, modulus, second)
    own = beams.sag_own_mm(_weight(beam), span, beam.modulus_gpa, inertia)
    heavy = term("weight", "weight of the rods", _weight(beam), "N/mm")
    yield figure("rig.sag_own", "sag of its own weight", own, "mm", beams.SAG_OWN, heavy, length, modulus, second)
    yield _sag_in_all(sag, own)


def _weight(beam: Beam) -> float:
    return beams.weight_n_mm(beam.count, beam.outer_mm, beam.inner_mm, beam.density_kg_m3)


def _sag_in_all(load: float, own: float) -> Figure:
    terms = term("load_sag", "of the load", load, "mm"), term("own_sag", "of its own weight", own, "mm")
    return figure("rig.sag_all", "sag in all", load + own, "mm", beams.SAG_ALL, *terms)


def _overhanging(plan: Plan, stack: Stack, beam: Beam, common: tuple[Term, Term, Term]) -> Iterator[Figure]:
    """Sag of the end that hangs out, with a single support, where the carriage comes to."""
    load, modulus, second = common
    out, inertia = reach_mm(plan, stack), second.value
    reach = term("reach", "from its only support", out, "mm")
    sag = beams.overhang_sag_mm(load.value, out, beam.modulus_gpa, inertia)
    yield figure("rig.sag", "sag of the free end", sag, "mm", beams.SAG_OVERHANG, load, reach, modulus, second)
    share = plan.rig.standing.rail_at
    arm = max(out, stack.rail_mm * float(max(share, 1 - share)))
    own = beams.overhang_own_mm(_weight(beam), out, arm, beam.modulus_gpa, inertia)
    heavy, whole = term("weight", "weight of the rods", _weight(beam), "N/mm"), term("arm", "the arm", arm, "mm")
    terms = (heavy, reach, whole, modulus, second)
    yield figure("rig.sag_own", "sag of its own weight", own, "mm", beams.SAG_OWN_OVERHANG, *terms)
    yield _sag_in_all(sag, own)


def _in_the_picture(known: Reckoning, bent: Bending, common: tuple[Term, Term, Term]) -> Iterator[Figure]:
    """The steepest slope within the move; nod and roll from end to end, each from the slopes at its two ends."""
    steepest = int(np.argmax(np.abs(bent.falls_deg)))
    yield _slope(known.stack, bent, steepest, "rig.slope", "steepest slope under the carriage", common)
    turns = (
        ("nod", "nods", bent.nod_deg, NODS, term("scale", "pixels per degree", scale(known.plan), "px/°")),
        ("roll", "rolls", bent.roll_deg, ROLLS, term("width", "picture, across", kept(known.plan).width_px, "px")),
    )
    for name, does, turned, rule, per in turns:
        ends = []
        for end, at in (("most", int(np.argmax(turned))), ("least", int(np.argmin(turned)))):
            slope = _slope(known.stack, bent, at, f"rig.{name}.{end}.slope", "slope under the carriage", common)
            terms = (
                term("slope", "slope under the carriage", slope.value, "deg"),
                term("pan", "camera looks, off the rail's normal", float(bent.pan_deg[at]), "deg"),
            )
            label = f"{does} by, at the {end}"
            yield slope
            yield figure(f"rig.{name}.{end}", label, float(turned[at]), "deg", rule, *terms)
            ends.append(term(end, label, float(turned[at]), "deg"))
        whole, pixels = (NOD, nod_px) if name == "nod" else (ROLL, roll_px)
        label = "the camera nods by" if name == "nod" else "the picture rolls by, at its edge"
        yield figure(f"rig.{name}", label, pixels(known, bent), "px", whole, *ends, per)


def _slope(put: Stack, bent: Bending, at: int, key: str, label: str, common: tuple[Term, Term, Term]) -> Figure:
    """The slope at one place of the move, by how the rail is held there."""
    held, near, far = held_at(put, float(bent.at_mm[at]))
    reach = term("reach", "out from its support", near, "mm")
    rule, terms = {
        "between": (
            beams.SLOPE,
            (term("near", "to the support before it", near, "mm"), term("far", "to the one behind it", far, "mm")),
        ),
        "beyond": (beams.SLOPE_BEYOND, (reach, term("span", "between supports", span_mm(put), "mm"))),
        "alone": (beams.SLOPE_OVERHANG, (reach,)),
    }[held]
    return figure(key, label, float(bent.falls_deg[at]), "deg", rule, *common, *terms)


def sags(known: Reckoning, rail: AxisCard) -> Iterator[Snag]:
    """A rail that bends so that it is seen."""
    bent = bending(known)
    if bent is None or rail.beam is None:
        return
    nod, roll = nod_px(known, bent), roll_px(known, bent)
    pixels = max(nod, roll)
    if pixels <= SAG_PX:
        return
    plan = known.plan
    index = next(i for i, copy in enumerate(plan.kit.copies) if copy.card is rail)
    path = f"{COPIES}.{index}.card.beam"
    does, where = ("nods", "in the middle of the picture") if nod >= roll else ("rolls", "at the edge of the picture")
    fixes = [*_more_supports(known), _thicker(rail.beam, path, pixels)]
    yield SAGS.at(path, {"does": slot(does), "where": slot(where), "pixels": slot(pixels, "px")}, fixes)


def _more_supports(known: Reckoning) -> list[Fix]:
    """As few supports more as bring nod and roll below what is seen; none where even the most do not."""
    for count in range(max(2, len(known.stack.supports) + 1), MOST_SUPPORTS + 1):
        edits = with_supports(known.plan, count)
        tried = reckon(apply(known.plan, edits)[0])
        bent = bending(tried)
        after = max(nod_px(tried, bent), roll_px(tried, bent)) if bent is not None else SAG_PX
        if after < SAG_PX:
            return [
                Fix(
                    label="Stand it on {count} supports",
                    consequence="It is {after} then. Level them together, tighten, level again.",
                    slots={"count": slot(str(count)), "after": slot(after, "px")},
                    edits=tuple(edits),
                )
            ]
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
