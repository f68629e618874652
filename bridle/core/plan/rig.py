"""The rig section: the axes that move, with their limits, and how the rig stands."""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from bridle.core.plan.values import Position, Positive, Section

AxisName = Literal["slide", "pan"]
AXIS_NAMES: tuple[AxisName, ...] = ("slide", "pan")


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


class Standing(Section):
    """How the rig stands: slope of the rail, error of the level, the widest lean of the ground's own making.

    `rail_at` is the share of the rail that lies over the (first) support; `friction` is that of the carriage.
    """

    slope_deg: Annotated[float, Field(ge=-90, le=90, allow_inf_nan=False)] = 0.0
    level_error_deg: Annotated[float, Field(ge=0, le=30, allow_inf_nan=False)] = 0.0
    rail_at: Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)] = 0.5
    friction: Annotated[float, Field(ge=0, le=2, allow_inf_nan=False)] = 0.05


class Lead(Section):
    """The lead from the supply to the motors: its length one way, and the cross-section of a wire."""

    length_mm: Positive = 1500.0
    area_mm2: Annotated[float, Field(gt=0, le=1000, allow_inf_nan=False)] = 0.5


class Rig(Section):
    """Up to two axes in this version, slide before pan; a rail's normal has a bearing where it is known."""

    axes: Annotated[tuple[Axis, ...], Field(max_length=2)] = (SLIDE, PAN)
    normal_bearing_deg: Annotated[float, Field(ge=0, le=360, allow_inf_nan=False)] | None = None
    standing: Standing = Standing()
    lead: Lead | None = None

    @model_validator(mode="after")
    def _slide_before_pan(self) -> "Rig":
        names = [axis.name for axis in self.axes]
        if names != [name for name in AXIS_NAMES if name in names]:
            raise ValueError("a rig has the axes slide and pan, each once and in this order")
        return self

    def axis(self, name: AxisName) -> Axis | None:
        """The axis of that name, where the rig has it."""
        return next((axis for axis in self.axes if axis.name == name), None)
