"""What turns, and what strikes: shafts, an unlevel base, a carriage that runs into the end of its rail."""

import math
from collections.abc import Iterator

from bridle.core.chapters.rig import leaning
from bridle.core.figure import Formula
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.kit import AxisCard
from bridle.core.plan.rig import Axis
from bridle.core.reckon.framings import framings
from bridle.core.reckon.parts import axes_in
from bridle.core.reckon.picture import kept
from bridle.core.reckon.stack import Stack
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.strength import beams

TRAVEL = SnagKind(
    "carriage-strikes",
    "stop",
    "rig",
    "The carriage has {usable} on this rail; the axis is set to travel {travel}.",
    "It would strike what stands at the end, slip steps and be off by as much for the rest of the shoot.",
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
    short="the horizon tilts: {pixels}",
)
TILT_PX = 12.0
HORIZON = Formula("tan(radians(error)) * width", "from one edge of the picture to the other")


def strikes(plan: Plan, rail: AxisCard, axis: Axis) -> Iterator[Snag]:
    """A travel longer than what the carriage has on its rail."""
    if not rail.length_mm:
        return
    usable = rail.length_mm - rail.carriage_mm - 2 * rail.end_margin_mm
    travel = axis.high - axis.low
    if travel <= usable + 1e-6 or usable <= 0:
        return
    path = f"rig.axes.{plan.rig.axes.index(axis)}.high"
    high = math.floor(axis.low + usable)
    fix = Fix(
        label="Slide no further than {high}",
        consequence="The carriage stays {margin} clear of both ends.",
        slots={"high": slot(high, "mm"), "margin": slot(rail.end_margin_mm, "mm")},
        edits=(Edit(path=path, value=float(high)),),
    )
    yield TRAVEL.at(path, {"usable": slot(usable, "mm"), "travel": slot(travel, "mm")}, [fix])


def shafts(plan: Plan, stack: Stack) -> Iterator[Snag]:
    """Loads that stand so far off an axis that its shaft cannot hold them."""
    for part in axes_in(plan.kit.copies):
        card = part.card
        if card.motion != "rotary" or card.shaft_nmm is None:
            continue
        force = stack.above(part.index) / 1000 * beams.G
        lean = math.sin(math.radians(_leans_deg(plan))) if card.turns == "pan" else 1.0
        torque = force * card.off_axis_mm * lean
        if torque <= card.shaft_nmm:
            continue
        balanced = math.floor(card.shaft_nmm / (force * lean) * 10) / 10
        path = f"{part.path}.off_axis_mm"
        fix = Fix(
            label="Balance it to {balanced} off the axis",
            consequence="Move the plate until the camera stays where it is put with the clamp loose.",
            slots={"balanced": slot(balanced, "mm")},
            edits=(Edit(path=path, value=balanced),),
        )
        slots = {"axis": slot(card.name), "torque": slot(torque, "N·mm"), "limit": slot(card.shaft_nmm, "N·mm")}
        yield SHAFT.at(path, slots, [fix])


def _leans_deg(plan: Plan) -> float:
    """How far the pan's axis leans; where nobody has said, with the rail as the worst."""
    pan = plan.rig.axis("pan")
    return abs(plan.rig.standing.slope_deg) if pan is None or pan.lean_deg is None else pan.lean_deg


def tilted(plan: Plan) -> Iterator[Snag]:
    """A pan base so far off level that the horizon tilts visibly."""
    pans = [framing.pan_deg for framing in framings(plan)]
    error, turns = plan.rig.standing.level_error_deg, abs(max(pans) - min(pans))
    pixels = math.tan(math.radians(error)) * kept(plan).width_px
    if plan.rig.axis("pan") is None or turns < 1 or pixels <= TILT_PX:
        return
    level = math.floor(math.degrees(math.atan(TILT_PX / kept(plan).width_px)) * 100) / 100
    fix = Fix(
        label="Level it to {level}",
        consequence="Under {few} from edge to edge. A bubble in the head, not the one under it.",
        slots={"level": slot(level, "deg"), "few": slot(TILT_PX, "px")},
        edits=(Edit(path="rig.standing.level_error_deg", value=level),),
    )
    slots = {"error": slot(error, "deg"), "pixels": slot(pixels, "px")}
    yield TILTED.at("rig.standing.level_error_deg", slots, [fix, *leaning.on_purpose(plan)])
