"""What the motor pulls: up a slope, and when it is off."""

import math
from collections.abc import Callable, Iterator

from bridle.core.chapters.rig.joints import COPIES
from bridle.core.figure import Figure, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.kit import AxisCard
from bridle.core.plan.rig import Axis
from bridle.core.reckon.loads import load_n
from bridle.core.reckon.stack import Stack
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.motion.drives.stepper import Pulling
from bridle.core.subjects.strength import beams, mounting

TORQUE = SnagKind(
    "motor-too-weak",
    "stop",
    "rig",
    "With the rail at {slope} the motor of the slide needs {needed} and has {has}; twice as much is little enough.",
    "It skips steps when grease is cold or the load jerks, and nobody notices until the clip is seen.",
)
LETS_GO = SnagKind(
    "rail-lets-go",
    "stop",
    "rig",
    "With the rail at {slope} the carriage runs down when the motor is off: {pull} against {detent} that hold it.",
    "A flat battery, a loose plug, a driver that goes to sleep: the camera comes down the rail. Brake, counterweight, "
    "or a screw fine enough to hold itself. Nobody's hands in its way.",
)
FACTOR = 2


def pull_figures(plan: Plan, stack: Stack, rail: AxisCard) -> Iterator[Figure]:
    """The pull on the carriage, and what it asks of the motor."""
    axis = plan.rig.axis("slide")
    if axis is None or not isinstance(rail.drive, Pulling):
        return
    standing, riding = plan.rig.standing, load_n(stack) / beams.G * 1000
    value, rule, parts = rail.drive.pull_radius()
    yield figure("rig.radius", "radius of the drive", value, "mm", rule, *parts)
    force = mounting.pull_n(riding, abs(standing.slope_deg), standing.friction, axis.acceleration or 0.0)
    shared = (
        term("mass", "mass on the rail", riding, "g"),
        term("slope", "slope of the rail", abs(standing.slope_deg), "deg"),
        term("friction", "friction", standing.friction, ""),
    )
    speeding = term("acceleration", "acceleration", axis.acceleration or 0.0, "mm/s²")
    yield figure("rig.pull", "pull on the carriage", force, "N", mounting.PULL, *shared, speeding)
    at = term("radius", "radius of the drive", value, "mm")
    lossy = term("efficiency", "efficiency", rail.drive.efficiency, "share")
    torque = force * value / rail.drive.efficiency
    pulled = term("force", "pull on the carriage", force, "N")
    yield figure("rig.torque", "torque needed", torque, "N·mm", mounting.TORQUE, pulled, at, lossy)
    lets_go = mounting.lets_go_nmm(riding, abs(standing.slope_deg), standing.friction, value)
    yield figure("rig.lets_go", "pulls on the motor when it is off", lets_go, "N·mm", mounting.LETS_GO, *shared, at)


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


def too_weak(plan: Plan, stack: Stack, rail: AxisCard, axis: Axis) -> Iterator[Snag]:
    """A motor that has less than twice the torque it needs."""
    if not isinstance(rail.drive, Pulling) or not rail.drive.torque_nmm:
        return
    standing, riding, drive = plan.rig.standing, load_n(stack) / beams.G * 1000, rail.drive
    has, radius = rail.drive.torque_nmm, drive.pull_radius()[0]

    def needed(slope: float, acceleration: float = axis.acceleration or 0.0) -> float:
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


def lets_go(plan: Plan, stack: Stack, rail: AxisCard) -> Iterator[Snag]:
    """A carriage that runs down when the power goes."""
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
    consequence = "It stays where it is when the power goes. Steeper only with a brake or a counterweight."
    index = next(i for i, copy in enumerate(plan.kit.copies) if copy.card is rail)
    braked = math.ceil(pull(steep) * 2)
    brake = Fix(
        label="Fit a brake that holds {braked}",
        consequence="The plan counts on it; try it with the battery out, before the camera is on.",
        slots={"braked": slot(braked, "N·mm")},
        edits=(Edit(path=f"{COPIES}.{index}.card.drive.detent_nmm", value=float(braked)),),
    )
    fixes = [*_gentler(plan, _steepest(lambda slope: pull(slope) <= detent, steep), consequence), brake]
    yield LETS_GO.at("rig.standing.slope_deg", slots, fixes)
