"""How warm it gets in a closed box in the sun, and when its glass fogs over."""

from bridle.core.figure import Formula

# Heat that a thin wall gives off to moving air and sky around it, with the air inside: W/m² and K.
WALL_W_M2K = 5.0
# A hole that lets air through takes some of it along.
VENTED_W_M2K = 8.0
SUN_W_M2 = 1000.0
TAKEN_UP = {"white": 0.3, "grey": 0.6, "black": 0.9}
# A plate that stands off the box leaves so much of the sun.
ROOFED = 0.2
SWITCHING_LOSS = 0.1
WARMTH = Formula(
    "warmest + (inside + sun) / (passes * walls)",
    "what is lost inside and taken up from the sun, over what the walls give off",
)
LINEAR = Formula("(from_v - to_v) * drawn / to_v", "a linear regulator burns what it takes off the voltage")
SWITCHED = Formula("drawn * 0.1", "a switching regulator loses about a tenth")


def walls_m2(wide_mm: float, tall_mm: float, deep_mm: float) -> float:
    """The outside of a box, in m²."""
    return 2 * (wide_mm * tall_mm + wide_mm * deep_mm + tall_mm * deep_mm) / 1e6


def sunlit_m2(wide_mm: float, tall_mm: float, deep_mm: float) -> float:
    """What of it the sun can shine on at a time, at most: the area of its shadow, square to the beam, in m²."""
    return float(((wide_mm * tall_mm) ** 2 + (wide_mm * deep_mm) ** 2 + (tall_mm * deep_mm) ** 2) ** 0.5 / 1e6)


def inside_c(warmest_c: float, inside_w: float, sun_w: float, walls: float, vented: bool) -> float:
    """How warm it gets inside, in °C."""
    return warmest_c + (inside_w + sun_w) / ((VENTED_W_M2K if vented else WALL_W_M2K) * walls)


def linear_loss_w(from_v: float, to_v: float, drawn_w: float) -> float:
    """What a linear regulator turns into heat while a device draws so much behind it, in watts; nothing upwards."""
    return max(0.0, from_v - to_v) * drawn_w / to_v
