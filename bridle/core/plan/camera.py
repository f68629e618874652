"""The camera section: sensor, lens and the settings that are dialled in."""

from typing import Annotated

from pydantic import Field

from bridle.core.subjects.optics.depth import circle_mm
from bridle.core.values import SMALLEST, Positive, Section

Pixels = Annotated[int, Field(ge=16, le=100_000)]


class Camera(Section):
    """Sensor in millimetres, picture in pixels, focal length in millimetres, aperture as f-number.

    `circle_mm` is the circle of confusion: what may still pass for a point on the sensor; empty: as the sensor has it
    (`circle`). `upright` turns the camera
    on its side; `corrected` is the share of each side that is left once the lens's distortion has been taken out;
    `lens_px` is how many pixels across the lens can fill, where that is known.
    """

    sensor_width_mm: Positive = 36.0
    sensor_height_mm: Positive = 24.0
    picture_width_px: Pixels = 6000
    picture_height_px: Pixels = 4000
    focal_mm: Positive = 35.0
    aperture: Positive = 8.0
    circle_mm: Positive | None = None
    upright: bool = False
    corrected: Annotated[float, Field(ge=0.5, le=1, allow_inf_nan=False)] = 1.0
    lens_px: Pixels | None = None
    iso: Annotated[int, Field(ge=1, le=10_000_000)] = 100
    # A fixed lens screwed out of its mount to focus close up: by how much, and how far one turn of its thread goes.
    extension_mm: Annotated[float, Field(ge=SMALLEST, le=1000, allow_inf_nan=False)] | None = None
    thread_mm: Annotated[float, Field(ge=SMALLEST, le=20, allow_inf_nan=False)] = 0.5

    @property
    def circle(self) -> float:
        """The circle of confusion in mm: as typed, or a share of the sensor's diagonal, but no smaller than a pixel."""
        if self.circle_mm is not None:
            return self.circle_mm
        return circle_mm(self.sensor_width_mm, self.sensor_height_mm, self.picture_width_px)
