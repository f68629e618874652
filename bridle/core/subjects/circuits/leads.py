"""Wires: what a length of copper takes from a voltage."""

from bridle.core.figure import Formula

COPPER_NOHM_M = 17.2
DROP = Formula("current * 0.0172 * length / area", "copper, 17.2 nΩ·m; one way, the return wire takes as much again")


DROP_MEASURED = Formula("current * ohms * length", "what a metre has; one way, the return wire takes as much again")


def drop_of_v(current_a: float, length_m: float, ohm_per_m: float) -> float:
    """Voltage lost in one wire of known resistance: `V = I·R·l`."""
    return current_a * ohm_per_m * length_m


def drop_v(current_a: float, length_m: float, area_mm2: float) -> float:
    """Voltage lost in one wire: `V = I·ρ·l/A`."""
    return current_a * COPPER_NOHM_M * 1e-3 * length_m / area_mm2
