"""What is kept of each frame for the clip: its shape, its size on the sensor, its size in delivered pixels."""

from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache

from bridle.core.plan.camera import Camera
from bridle.core.plan.document import Plan
from bridle.core.plan.picture import Shape
from bridle.core.subjects.optics import cropping, lens

SHAPES: dict[Shape, tuple[int, int]] = {"3:2": (3, 2), "4:3": (4, 3), "16:9": (16, 9), "1:1": (1, 1), "9:16": (9, 16)}


@dataclass(frozen=True)
class Kept:
    """The kept part of a frame: on the sensor in mm, in the camera's pixels, and as delivered, in pixels.

    `shot_px` are the sides of the frame as it is shot, upright or not.
    """

    shot_px: tuple[int, int]
    width_mm: float
    height_mm: float
    source_px: tuple[int, int]
    width_px: int
    height_px: int

    @property
    def headroom(self) -> float:
        """Pixels kept over pixels delivered, across; below 1 it enlarges."""
        return self.source_px[0] / self.width_px


def kept(plan: Plan) -> Kept:
    """Upright or not, without distortion, levelled, in the clip's shape, less the reserve."""
    camera, picture = plan.camera, plan.picture
    sides = camera.picture_width_px, camera.picture_height_px, camera.sensor_width_mm, camera.sensor_height_mm
    less = camera.corrected, picture.level_deg, picture.reserve
    return _kept(sides, camera.upright, less, picture.shape, picture.width_px)


@lru_cache(maxsize=256)
def _kept(
    sides: tuple[int, int, float, float],
    upright: bool,
    less: tuple[float, float, Fraction],
    shape: Shape,
    wanted_px: int | None,
) -> Kept:
    """Some thirty places of an evaluation ask for the same one."""
    wide, high, wide_mm, high_mm = sides
    corrected, level_deg, reserve = less
    if upright:
        wide, high, wide_mm, high_mm = high, wide, high_mm, wide_mm
    across, down = SHAPES.get(shape, (wide, high))
    width, height = cropping.largest(wide * corrected, high * corrected, across, down, level_deg)
    width, height = width * (1 - reserve), height * (1 - reserve)
    source = cropping.even(width), cropping.even(height)
    delivered = source[0] if wanted_px is None else cropping.even(wanted_px)
    return Kept(
        shot_px=(wide, high),
        width_mm=wide_mm * source[0] / wide,
        height_mm=high_mm * source[1] / high,
        source_px=source,
        width_px=delivered,
        height_px=cropping.even(delivered * source[1] / source[0]),
    )


def focal_ends(plan: Plan) -> tuple[float, float]:
    """The shortest and the longest focal length of the move: a zoom goes from keyframe to keyframe and not beyond."""
    if plan.rig.axis("zoom") is None:
        return plan.camera.focal_mm, plan.camera.focal_mm
    at = [plan.camera.focal_mm if key.zoom_mm is None else key.zoom_mm for key in plan.move.keyframes]
    return min(at), max(at)


def longest_lens(plan: Plan) -> Camera:
    """The camera with its lens as long as it gets in the move: where it sees the least, and is sharp over the least."""
    _, longest = focal_ends(plan)
    return plan.camera if longest == plan.camera.focal_mm else plan.camera.model_copy(update={"focal_mm": longest})


def scale(plan: Plan) -> float:
    """Delivered pixels per degree at the centre of the picture, with the lens at its longest."""
    frame = kept(plan)
    return lens.px_per_deg(focal_ends(plan)[1], frame.width_mm, frame.width_px)
