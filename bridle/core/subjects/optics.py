"""What a lens sees: fields of view and pixels per degree of a rectilinear picture."""

import math

from bridle.core.figure import Formula

FIELD_OF_VIEW = Formula("degrees(2 * atan(sensor / (2 * focal)))", "a rectilinear lens, focused far away")


def field_of_view_deg(sensor_mm: float, focal_mm: float) -> float:
    """The angle across a sensor side, in degrees."""
    return math.degrees(2 * math.atan(sensor_mm / (2 * focal_mm)))


def px_per_deg(focal_mm: float, sensor_width_mm: float, picture_width_px: int) -> float:
    """Pixels per degree at the centre of the picture."""
    return math.radians(1) * focal_mm * picture_width_px / sensor_width_mm


def aim_deg(slide_mm: float, x_mm: float, y_mm: float) -> float:
    """The pan that points from a place on the rail at a point: 0 square to the rail, clockwise positive."""
    return math.degrees(math.atan2(x_mm - slide_mm, y_mm))
