"""Rails as beams on two supports: sag under the carriage, sag of their own weight, slope under the carriage.

Lengths in mm, modulus in GPa (kN/mm²), forces in N, densities in kg/m³. Slopes take arrays of places, of any shape.
"""

import math

import numpy as np

from bridle.core.figure import Formula
from bridle.core.subjects.numbers.arrays import Floats

G = 9.80665
WORST_SLOPE_AT = 0.211

INERTIA = Formula(
    "rods * atan(1) * 4 * (outside**4 - inside**4) / 64", "second moment of area of round rods, side by side"
)
SAG_LOAD = Formula(
    "load * span**3 / (48 * modulus * 1000 * inertia)", "a point load in the middle between two supports"
)
SAG_OWN = Formula("5 * weight * span**4 / (384 * modulus * 1000 * inertia)", "the rods' own weight, spread along them")
SAG_ALL = Formula("load_sag + own_sag", "the load's and its own weight's, at the same place")
SLOPE = Formula(
    "degrees(load * near * far * (far - near) / (3 * modulus * 1000 * inertia * (near + far)))",
    "under a load between two supports: it falls towards the middle, steepest at 0.211 of the span",
)
SLOPE_BEYOND = Formula(
    "degrees(load * reach * (2 * span + 3 * abs(reach)) / (6 * modulus * 1000 * inertia))",
    "under a load on the end that stands out beyond two supports",
)
SAG_OVERHANG = Formula("load * reach**3 / (3 * modulus * 1000 * inertia)", "a free end with the load on it")
SAG_OWN_OVERHANG = Formula(
    "weight * reach**2 * (6 * arm**2 - 4 * arm * reach + reach**2) / (24 * modulus * 1000 * inertia)",
    "the rods' own weight on the arm that hangs out, where the carriage comes to",
)
SLOPE_OVERHANG = Formula(
    "degrees(load * reach * abs(reach) / (2 * modulus * 1000 * inertia))", "the slope of a free end under its load"
)


def inertia_mm4(rods: int, outer_mm: float, inner_mm: float) -> float:
    """Second moment of area of round rods or tubes that share the load: `n·π·(D⁴ − d⁴)/64`."""
    return rods * math.pi * (outer_mm**4 - inner_mm**4) / 64


def weight_n_mm(rods: int, outer_mm: float, inner_mm: float, density_kg_m3: float) -> float:
    """Weight of the rods per millimetre, in newtons."""
    area = rods * math.pi * (outer_mm**2 - inner_mm**2) / 4
    return area * density_kg_m3 * 1e-9 * G


def sag_load_mm(force_n: float, span_mm: float, modulus_gpa: float, inertia: float) -> float:
    """`F·L³/(48·E·I)`: sag in the middle under a load in the middle."""
    return force_n * span_mm**3 / (48 * modulus_gpa * 1000 * inertia)


def sag_own_mm(weight: float, span_mm: float, modulus_gpa: float, inertia: float) -> float:
    """`5·w·L⁴/(384·E·I)`: sag in the middle of the beam's own weight."""
    return 5 * weight * span_mm**4 / (384 * modulus_gpa * 1000 * inertia)


def slope_deg(
    force_n: float, near_mm: Floats | float, far_mm: Floats | float, modulus_gpa: float, inertia: float
) -> Floats:
    """`F·a·b·(b−a)/(3·E·I·(a+b))` in degrees, for a load so far from the support before it and the one behind.

    Above nought it falls towards the one behind.
    """
    stiff = 3 * modulus_gpa * 1000 * inertia * (near_mm + far_mm)
    return np.asarray(np.degrees(force_n * near_mm * far_mm * (far_mm - near_mm) / stiff))


def beyond_slope_deg(
    force_n: float, reach_mm: Floats | float, span_mm: float, modulus_gpa: float, inertia: float
) -> Floats:
    """`F·c·(2·L + 3·|c|)/(6·E·I)` in degrees: a load that far beyond two supports (below nought: before them)."""
    stiff = 6 * modulus_gpa * 1000 * inertia
    return np.asarray(np.degrees(force_n * reach_mm * (2 * span_mm + 3 * np.abs(reach_mm)) / stiff))


def overhang_sag_mm(force_n: float, reach_mm: float, modulus_gpa: float, inertia: float) -> float:
    """`F·a³/(3·E·I)`: how far a free end sags under a load that far from its only support."""
    return force_n * reach_mm**3 / (3 * modulus_gpa * 1000 * inertia)


def overhang_slope_deg(force_n: float, reach_mm: Floats | float, modulus_gpa: float, inertia: float) -> Floats:
    """`F·a·|a|/(2·E·I)` in degrees: the slope of the free end, below nought on the near side."""
    return np.asarray(np.degrees(force_n * reach_mm * np.abs(reach_mm) / (2 * modulus_gpa * 1000 * inertia)))


def overhang_own_mm(weight: float, reach_mm: float, arm_mm: float, modulus_gpa: float, inertia: float) -> float:
    """`w·x²·(6·A² − 4·A·x + x²)/(24·E·I)`: how far an arm sags of its own weight, so far out on it."""
    bend = 6 * arm_mm**2 - 4 * arm_mm * reach_mm + reach_mm**2
    return weight * reach_mm**2 * bend / (24 * modulus_gpa * 1000 * inertia)
