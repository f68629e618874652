"""What wind does to a box on a mast: the push, the bend of the tube, and how far the camera leans."""

import math

from bridle.core.figure import Formula

AIR_KG_M3 = 1.225
BOX_DRAG = 1.3
PUSH = Formula("0.5 * 1.225 * wind**2 * 1.3 * face", "the wind's pressure on a flat face, drag 1.3")
TUBE_DRAG = 1.2
MAST_PUSH = Formula(
    "0.5 * 1.225 * wind**2 * 1.2 * wide * free / 1000000", "the wind's pressure on a round tube, drag 1.2"
)
TURN = Formula("(push + mast / 2) * free / 1000", "the box pushes at the top, the wind on the tube at its middle")
LEAN = Formula(
    "degrees((push / 2 + mast / 6) * free**2 / (stiff * bend))",
    "a tube held at its foot, with a push at its top and one along it: its end leans",
)


def push_n(wind_m_s: float, face_m2: float) -> float:
    """The push of wind on a box, in newtons."""
    return 0.5 * AIR_KG_M3 * wind_m_s**2 * BOX_DRAG * face_m2


def mast_push_n(wind_m_s: float, wide_mm: float, free_mm: float) -> float:
    """The push of wind on a round tube that stands free over so much, in newtons."""
    return 0.5 * AIR_KG_M3 * wind_m_s**2 * TUBE_DRAG * wide_mm * free_mm / 1e6


def second_moment_mm4(outer_mm: float, inner_mm: float) -> float:
    """How much a round tube resists bending, in mm⁴."""
    return math.pi / 64 * (outer_mm**4 - inner_mm**4)


def lean_deg(push: float, mast: float, free_mm: float, modulus_gpa: float, moment_mm4: float) -> float:
    """How far the top of a tube leans, in degrees: F·L²/(2·E·I) by a push at it, W·L²/(6·E·I) by one along it."""
    return math.degrees((push / 2 + mast / 6) * free_mm**2 / (modulus_gpa * 1e3 * moment_mm4))
