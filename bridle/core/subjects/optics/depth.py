"""Over which distances a lens is sharp, far away and close up; and a fixed lens screwed out of its mount."""

import math

from bridle.core.figure import Formula
from bridle.core.subjects.optics.lens import hyperfocal_mm

NEAR = Formula("distance * (hyper - focal) / (hyper + distance - 2 * focal)", "the near limit of what passes for sharp")
FAR = Formula("distance * (hyper - focal) / (hyper - distance)", "the far limit of what passes for sharp")
CLOSE = Formula("2 * f_number * circle * (1 + scale) / scale**2", "close up, where near and far limits lie alike")
HALF = Formula("depth / 2", "half of the depth lies before what is focused")
SCALE = Formula("focal / (distance - focal)", "a thin lens: how large the subject stands on the sensor")
EXTENDED = Formula("out / focal", "a lens that far out of its mount")
SUBJECT = Formula("focal * (1 + focal / out)", "in front of the lens: measured to the subject, not to what covers it")
TURNS = Formula("out / thread", "turns of its thread")


# What may pass for a point, as a share of the sensor's diagonal: seen as a whole, sharp prints need no more.
SHARE_OF_DIAGONAL = 1500
CIRCLE = Formula(
    "max(sqrt(sensor**2 + height**2) / 1500, sensor / width)",
    "the sensor's diagonal over 1500, no smaller than a pixel",
)


def circle_mm(width_mm: float, height_mm: float, width_px: int) -> float:
    """The circle of confusion of a sensor: its diagonal over 1500, but no smaller than one of its pixels."""
    return max(math.hypot(width_mm, height_mm) / SHARE_OF_DIAGONAL, width_mm / width_px)


def limits_mm(distance_mm: float, focal_mm: float, f_number: float, circle_mm: float) -> tuple[float, float]:
    """`s(H − f)/(H + s − 2f)` and `s(H − f)/(H − s)`; the far one is infinite from the hyperfocal distance on."""
    hyper = hyperfocal_mm(focal_mm, f_number, circle_mm)
    near = distance_mm * (hyper - focal_mm) / (hyper + distance_mm - 2 * focal_mm)
    far = distance_mm * (hyper - focal_mm) / (hyper - distance_mm) if distance_mm < hyper else math.inf
    return near, far


def close_depth_mm(scale: float, f_number: float, circle_mm: float) -> float:
    """`2·A·c·(1 + m)/m²` at magnification `m`."""
    return 2 * f_number * circle_mm * (1 + scale) / scale**2


def magnification(focal_mm: float, distance_mm: float) -> float:
    """How large a subject at a distance stands on the sensor. Raises ValueError within the focal length."""
    if distance_mm <= focal_mm:
        raise ValueError("nothing can be focused closer than the focal length")
    return focal_mm / (distance_mm - focal_mm)


def extended_subject_mm(focal_mm: float, out_mm: float) -> float:
    """Where the subject of a lens that is screwed out has to stand, in front of the lens: `f·(1 + f/e)`."""
    return focal_mm * (1 + focal_mm / out_mm)
