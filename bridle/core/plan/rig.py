"""The rig section: the axes that move, with their limits."""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from bridle.core.plan.values import Position, Positive, Section

AxisName = Literal["slide", "pan"]


class Axis(Section):
    """A linear (mm) or rotary (deg) axis: travel from low to high, top speed and acceleration per second."""

    name: AxisName
    kind: Literal["linear", "rotary"]
    low: Position
    high: Position
    top_speed: Positive
    acceleration: Positive

    @model_validator(mode="after")
    def _low_below_high(self) -> "Axis":
        if self.low >= self.high:
            raise ValueError("the lower end of the travel lies below the upper end")
        return self

    @property
    def unit(self) -> str:
        """`mm` or `deg`."""
        return "mm" if self.kind == "linear" else "deg"


SLIDE = Axis(name="slide", kind="linear", low=0, high=900, top_speed=25, acceleration=80)
PAN = Axis(name="pan", kind="rotary", low=-170, high=170, top_speed=20, acceleration=40)


class Rig(Section):
    """The two axes of this version, slide first; a rail's normal has a bearing where it is known."""

    axes: Annotated[tuple[Axis, ...], Field(min_length=2, max_length=2)] = (SLIDE, PAN)
    normal_bearing_deg: Annotated[float, Field(ge=0, le=360, allow_inf_nan=False)] | None = None

    @model_validator(mode="after")
    def _slide_and_pan(self) -> "Rig":
        if [axis.name for axis in self.axes] != ["slide", "pan"]:
            raise ValueError("a rig has the axes slide and pan, in this order")
        return self

    def axis(self, name: AxisName) -> Axis:
        """The axis of that name."""
        return next(axis for axis in self.axes if axis.name == name)
