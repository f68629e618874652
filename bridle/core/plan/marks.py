"""Marks: what the photographer puts on the plan drawing. Subjects, things near and far, people, bearings."""

from typing import Annotated, Literal

from pydantic import Field

from bridle.core.values import SMALLEST, Degrees, Millimetres, Name, Position, Section

Form = Literal["point", "post", "block", "person", "bearing"]
# What a direction belongs to: something far away that stands still, or a body that goes with the sky.
Body = Literal["still", "sun", "moon", "star"]
Size = Annotated[float, Field(ge=0, le=1e6, allow_inf_nan=False)]
Bearing = Annotated[float, Field(ge=-360, le=360, allow_inf_nan=False)]


class Aimed(Section):
    """A mark measured by aiming at it twice: slide and pan at each aim, and how well a pan can be read."""

    slide_1_mm: Position
    pan_1_deg: Degrees
    slide_2_mm: Position
    pan_2_deg: Degrees
    doubt_deg: Annotated[float, Field(ge=SMALLEST, le=5, allow_inf_nan=False)] = 0.5


class Mark(Section):
    """Something named in the scene.

    `x` lies along the level line of the rail from its zero, `y` away from it, `z` above the lens: that is where
    the mark is aimed at, and the top of what stands there. A bearing has no place but a direction: degrees from
    north, and above the horizon. Sun and moon have one of their own; that of a star is the one at the first frame.
    """

    name: Name
    form: Form = "point"
    x_mm: Millimetres = 0.0
    y_mm: Millimetres = 1000.0
    z_mm: Millimetres = 0.0
    width_mm: Size = 200.0
    depth_mm: Size = 200.0
    bearing_deg: Bearing = 0.0
    altitude_deg: Annotated[float, Field(ge=-90, le=90, allow_inf_nan=False)] = 0.0
    body: Body = "still"
    cue: bool = False
    aimed: Aimed | None = None

    @property
    def in_the_sky(self) -> tuple[str, float, float] | None:
        """What tells a body that goes with the sky from any other; None for what stands still."""
        if self.form != "bearing" or self.body == "still":
            return None
        return (self.body, self.bearing_deg, self.altitude_deg) if self.body == "star" else (self.body, 0.0, 0.0)
