"""The move section: two keyframes, how the move eases, and the marks on the plan drawing."""

from typing import Annotated

from pydantic import Field

from bridle.core.plan.values import Count, Degrees, Millimetres, Name, Section


class Keyframe(Section):
    """Where each axis stands at one frame: the first of the move, or the last."""

    slide_mm: Millimetres = 0.0
    pan_deg: Degrees = 0.0


class Mark(Section):
    """Something named on the plan drawing: `x` along the rail from its zero, `y` away from it."""

    name: Name
    x_mm: Millimetres
    y_mm: Annotated[float, Field(gt=0, le=1e6, allow_inf_nan=False)]


class Move(Section):
    """From the start to the end keyframe, easing over whole frames at each end."""

    start: Keyframe = Keyframe()
    end: Keyframe = Keyframe()
    ease_in_frames: Count = 0
    ease_out_frames: Count = 0
    marks: Annotated[tuple[Mark, ...], Field(max_length=40)] = ()

    @property
    def keyframes(self) -> tuple[Keyframe, Keyframe]:
        """Start and end, in the order of time."""
        return (self.start, self.end)
