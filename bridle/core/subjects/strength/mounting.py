"""Standing still and holding on: threads, centre of mass, tipping, slopes. Masses in g, lengths in mm, N and N·mm."""

import math
from collections.abc import Sequence
from typing import NamedTuple

from bridle.core.figure import Formula
from bridle.core.subjects.strength.beams import G

# An M6 screw is 6.0 mm thick with 25.4 threads an inch, a quarter inch 6.35 mm with 20: it goes in and strips.
LOOK_ALIKES = {frozenset(("1/4-20", "M6")), frozenset(("3/8-16", "M8"))}
THREAD_NAMES = {
    "1/4-20": "quarter inch, 20 an inch",
    "3/8-16": "three eighths, 16 an inch",
    "fine": "a fine thread",
    "plate": "a quick-release plate",
    "own": "a fitting of its own",
    "none": "no thread",
}
# How far the feet's circle reaches in its weakest direction, between two legs.
WEAKEST = 0.5

CENTRE = Formula("moment / total", "each mass times its place, over all masses")
HOLD = Formula("radius / 2", "three feet on a circle: between two legs it tips soonest")
PULL = Formula(
    "mass / 1000 * (9.80665 * (sin(radians(slope)) + friction * cos(radians(slope))) + acceleration / 1000)",
    "weight down the slope, friction, and what it takes to speed up",
)
LETS_GO = Formula(
    "max(0, mass / 1000 * 9.80665 * (sin(radians(slope)) - friction * cos(radians(slope))) * radius)",
    "what is left of the weight when the motor lets go",
)
TORQUE = Formula("force * radius / efficiency", "force at the radius of the drive, and what the drive loses")
BELT_RADIUS = Formula("pitch * teeth / (8 * atan(1))", "the pulley's radius: its circumference over two pi")
SCREW_RADIUS = Formula("lead / (8 * atan(1))", "the way of one turn over two pi")
SHAFT = Formula("mass / 1000 * 9.80665 * offset", "the load's weight at its distance from the shaft")


class Body(NamedTuple):
    """A mass at a place: `x` along the rail from the first support, `y` up from the ground."""

    mass_g: float
    x_mm: float
    y_mm: float


def centre_of_mass(bodies: Sequence[Body]) -> Body:
    """All masses in one; (0, 0) for nothing at all."""
    total = sum(body.mass_g for body in bodies)
    if total == 0:
        return Body(0.0, 0.0, 0.0)
    x = sum(body.mass_g * body.x_mm for body in bodies) / total
    return Body(total, x, sum(body.mass_g * body.y_mm for body in bodies) / total)


def pull_n(mass_g: float, slope_deg: float, friction: float, acceleration_mm_s2: float) -> float:
    """`m·g·(sin θ + μ·cos θ) + m·a`, in newtons."""
    slope, mass = math.radians(slope_deg), mass_g / 1000
    return mass * G * (math.sin(slope) + friction * math.cos(slope)) + mass * acceleration_mm_s2 / 1000


def lets_go_nmm(mass_g: float, slope_deg: float, friction: float, radius_mm: float) -> float:
    """The torque on an unpowered motor; 0 where friction alone holds."""
    slope = math.radians(slope_deg)
    return max(0.0, mass_g / 1000 * G * (math.sin(slope) - friction * math.cos(slope)) * radius_mm)


def look_alike(one: str, other: str) -> bool:
    """Two threads that go into one another and strip."""
    return frozenset((one, other)) in LOOK_ALIKES
