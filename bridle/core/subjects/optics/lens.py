"""What a lens sees: fields of view and pixels per degree of a rectilinear picture."""

import math

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
    "max(1, ceil((1 / near - 1 / far) / ((1 - overlap) * 2 * (1 - focal / near) / (hyper - focal))))",
    "one exposure is sharp over twice 1/H of reciprocal distance; counted where that is least, at the near end",
)
FIELD_OF_VIEW = Formula("degrees(2 * atan(sensor / (2 * focal)))", "a rectilinear lens, focused far away")


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
    """Focus positions that keep everything sharp between two distances; raises ValueError inside the focal length."""
    if near_mm <= focal_mm:
        raise ValueError("nothing can be focused closer than the focal length")
    hyper = hyperfocal_mm(focal_mm, f_number, circle_mm)
    each = (1 - overlap) * 2 * (1 - focal_mm / near_mm) / (hyper - focal_mm)
    return max(1, math.ceil((1 / near_mm - 1 / far_mm) / each - 1e-9))


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
