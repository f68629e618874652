"""What is kept of each frame for the clip: its shape, its size on the sensor, its size in delivered pixels."""

from dataclasses import dataclass

from bridle.core.plan.document import Plan
from bridle.core.plan.picture import Shape
from bridle.core.subjects import cropping, optics

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
    wide, high = camera.picture_width_px, camera.picture_height_px
    wide_mm, high_mm = camera.sensor_width_mm, camera.sensor_height_mm
    if camera.upright:
        wide, high, wide_mm, high_mm = high, wide, high_mm, wide_mm
    share = camera.corrected * cropping.levelled_share(wide, high, picture.level_deg)
    width, height = wide * share, high * share
    if picture.shape in SHAPES:
        width, height = cropping.shaped(width, height, *SHAPES[picture.shape])
    width, height = width * (1 - picture.reserve), height * (1 - picture.reserve)
    source = cropping.even(width), cropping.even(height)
    delivered = source[0] if picture.width_px is None else cropping.even(picture.width_px)
    return Kept(
        shot_px=(wide, high),
        width_mm=wide_mm * source[0] / wide,
        height_mm=high_mm * source[1] / high,
        source_px=source,
        width_px=delivered,
        height_px=cropping.even(delivered * source[1] / source[0]),
    )


def scale(plan: Plan) -> float:
    """Delivered pixels per degree at the centre of the picture."""
    frame = kept(plan)
    return optics.px_per_deg(plan.camera.focal_mm, frame.width_mm, frame.width_px)
