"""The picture section: what is kept of each frame, and the move that is made by cropping."""

from typing import Annotated, Literal

from pydantic import Field

from bridle.core.plan.camera import Pixels
from bridle.core.values import Section

Shape = Literal["as shot", "3:2", "4:3", "16:9", "1:1", "9:16"]
Fraction0To1 = Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)]


class Picture(Section):
    """What the clip shows: its shape, its width in pixels (empty: as many as are kept), levelling, and a reserve.

    `level_deg` is by how much the picture is turned to make it level; `reserve` the share of each side that is
    left for stabilising later.
    """

    shape: Shape = "as shot"
    width_px: Pixels | None = None
    level_deg: Annotated[float, Field(ge=-45, le=45, allow_inf_nan=False)] = 0.0
    reserve: Annotated[float, Field(ge=0, le=0.5, allow_inf_nan=False)] = 0.0


class Crop(Section):
    """A crop of the kept picture: its middle and its width as shares of it, from the left and from the top."""

    across: Fraction0To1 = 0.5
    down: Fraction0To1 = 0.5
    width: Annotated[float, Field(ge=0.02, le=1, allow_inf_nan=False)] = 1.0


class Post(Section):
    """A move made afterwards: from one crop to another, eased like any move."""

    start: Crop = Crop()
    end: Crop = Crop(width=0.7)
