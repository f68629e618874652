"""What a lens sees: fields of view and pixels per degree of a rectilinear picture."""

import math
from collections.abc import Iterable

from bridle.core.figure import Formula

PX_PER_DEG = Formula(
    "focal * width / sensor * atan(1) / 45", "at the centre of the picture; atan(1) / 45 is one degree"
)
SMEAR_PAN = Formula(
    "speed * exposure * scale", "degrees while the shutter is open, over pixels per degree at the centre"
)
SMEAR_PAN_EDGE = Formula(
    "speed * exposure * scale * (1 + (sensor / (2 * focal))**2)", "a rectilinear picture is drawn out towards its edge"
)
SMEAR_SLIDE = Formula(
    "speed * exposure * focal * width / sensor / distance",
    "the way while the shutter is open, seen at the nearest mark",
)
HYPERFOCAL = Formula(
    "focal**2 / (f_number * circle) + focal", "focused there, all is sharp from half of it to infinity"
)
STACK = Formula(
    "max(1, 1 + ceil((ln((1 / focal - 1 / far) / (1 / focal - 1 / near)) / ln(hyper / (hyper - 2 * focal)) - 1)"
    " / (1 - overlap)))",
    "between the limits of one exposure 1/f less the reciprocal of the distance grows by H/(H - 2f), wherever it is "
    "focused: so often that fits from near to far",
)
FIELD_OF_VIEW = Formula("degrees(2 * atan(sensor / (2 * focal)))", "a rectilinear lens, focused far away")


WIDE = Formula(
    "sensor * (distance - focal) / focal",
    "focused close up a lens stands further out than its focal length, and takes in less",
)
WIDE_SCREWED = Formula("sensor * focal / out", "the sensor over the magnification of a lens that is screwed out")


def wide_mm(sensor_mm: float, focal_mm: float, distance_mm: float) -> float:
    """How much stands across the picture at the distance that the lens is focused at: `sensor · (s − f) / f`."""
    return sensor_mm * (distance_mm - focal_mm) / focal_mm


def field_of_view_deg(sensor_mm: float, focal_mm: float) -> float:
    """The angle across a sensor side, in degrees."""
    return math.degrees(2 * math.atan(sensor_mm / (2 * focal_mm)))


def px_per_deg(focal_mm: float, sensor_width_mm: float, picture_width_px: int) -> float:
    """Pixels per degree at the centre of the picture."""
    return math.radians(1) * focal_mm * picture_width_px / sensor_width_mm


def hyperfocal_mm(focal_mm: float, f_number: float, circle_mm: float) -> float:
    """`f²/(A·c) + f`."""
    return focal_mm**2 / (f_number * circle_mm) + focal_mm


def stack_positions(
    near_mm: float, far_mm: float, overlap: float, focal_mm: float, f_number: float, circle_mm: float
) -> int:
    """Focus positions that keep everything sharp between two distances; `overlap` is a share of one exposure's depth.

    From the limits of depth of field `s(H − f)/(H + s − 2f)` and `s(H − f)/(H − s)`: with `u = 1/f − 1/distance` the
    far one is `H/(H − 2f)` times the near one. Raises ValueError inside the focal length, and where the circle is so
    wide that everything passes for sharp (`H ≤ 2f`).
    """
    way, each = _depths(near_mm, far_mm, focal_mm, hyperfocal_mm(focal_mm, f_number, circle_mm))
    return max(1, 1 + math.ceil((way / each - 1) / (1 - overlap) - 1e-9))


def focus_distances_mm(
    near_mm: float,
    far_mm: float,
    count: int,
    focal_mm: float,
    f_number: float,
    circle_mm: float,
    numbers: Iterable[int] | None = None,
) -> list[float]:
    """Where to focus for so many exposures, from near to far: the limits of the first and the last are the two ends.

    Of all of them, or of those with some `numbers` (from 0). A single one is focused so that both ends are equally
    sharp. Raises ValueError as `stack_positions` does.
    """
    hyper = hyperfocal_mm(focal_mm, f_number, circle_mm)
    way, each = _depths(near_mm, far_mm, focal_mm, hyper)
    # From the near limit of an exposure to where it is focused the reciprocal grows by this share of its depth.
    to_focus = math.log((hyper - focal_mm) / (hyper - 2 * focal_mm))
    asked = range(count) if numbers is None else numbers
    starts = [(way - each) / 2 if count == 1 else (way - each) * number / (count - 1) for number in asked]
    first = 1 / focal_mm - 1 / near_mm
    # Focused at the hyperfocal distance it is sharp to infinity: no exposure has to go further.
    return [1 / max(1 / focal_mm - first * math.exp(start + to_focus), 1 / hyper) for start in starts]


def _depths(near_mm: float, far_mm: float, focal_mm: float, hyper_mm: float) -> tuple[float, float]:
    """The way from near to far, and what one exposure holds of it, both in logarithms of `1/f − 1/distance`."""
    if near_mm <= focal_mm:
        raise ValueError("nothing can be focused closer than the focal length")
    if hyper_mm <= 2 * focal_mm:
        raise ValueError("the circle of confusion is so wide that everything passes for sharp")
    way = math.log((1 / focal_mm - 1 / far_mm) / (1 / focal_mm - 1 / near_mm))
    return way, math.log(hyper_mm / (hyper_mm - 2 * focal_mm))


def smear_px(
    speed_deg_s: float, exposure_s: float, scale: float, sensor_mm: float, focal_mm: float
) -> tuple[float, float]:
    """Smear of a turning camera at the centre and at the edge of the picture, in pixels."""
    centre = speed_deg_s * exposure_s * scale
    return centre, centre * (1 + (sensor_mm / (2 * focal_mm)) ** 2)


def slide_smear_px(
    speed_mm_s: float, exposure_s: float, focal_mm: float, width_px: int, sensor_mm: float, distance_mm: float
) -> float:
    """Smear of a sliding camera for something at a distance, in pixels."""
    return speed_mm_s * exposure_s * focal_mm * width_px / sensor_mm / distance_mm
