"""The rig section: the axes that move, with their limits, and how the rig stands."""

import math
from fractions import Fraction
from typing import Annotated, Literal

from pydantic import Field, model_validator

from bridle.core.values import SMALLEST, Position, Positive, PositiveDuration, Section

AxisName = Literal["slide", "pan", "tilt", "roll", "focus", "zoom"]
AXIS_NAMES: tuple[AxisName, ...] = ("slide", "pan", "tilt", "roll", "focus", "zoom")
Letter = Literal["X", "Y", "Z", "A", "B", "C"]
LETTERS: dict[AxisName, Letter] = {"slide": "X", "pan": "Y", "tilt": "Z", "roll": "A", "focus": "B", "zoom": "C"}


class RingMark(Section):
    """A place of a lens ring: how far it is turned, in degrees, and what the lens is set to there, in mm."""

    turn_deg: Position
    value_mm: Positive


# What a ring of ninety degrees usually reaches over; to be read off the lens that is there.
USUAL_RINGS: dict[AxisName, tuple[RingMark, ...]] = {
    "focus": (RingMark(turn_deg=0, value_mm=500), RingMark(turn_deg=90, value_mm=10_000)),
    "zoom": (RingMark(turn_deg=0, value_mm=24), RingMark(turn_deg=90, value_mm=70)),
}


class Axis(Section):
    """A linear (mm) or rotary (deg) axis: travel from low to high, top speed and acceleration per second.

    Focus and zoom turn a ring of the lens: limits, speed and backlash are the ring's, in degrees, and `ring` says
    what the lens is set to at which turn. `letter` is what the axis is called in the drive's program. An axis that is
    `hung` upside down turns the other way round than its card says.

    Top speed and acceleration are None where nobody knows them, or where its drive goes at a pace of its own.

    The top of a pan's axis may lean by `lean_deg` towards `lean_toward_deg` of its own turn: 0 is upright on purpose,
    None that nobody has said; then it is taken as upright.
    """

    name: AxisName
    kind: Literal["linear", "rotary"]
    low: Position
    high: Position
    top_speed: Positive | None
    acceleration: Positive | None
    backlash: Annotated[float, Field(ge=0, le=1000, allow_inf_nan=False)] = 0.0
    letter: Letter | None = None
    hung: bool = False
    lean_deg: Annotated[float, Field(ge=0, le=80, allow_inf_nan=False)] | None = None
    lean_toward_deg: Annotated[float, Field(ge=-180, le=180, allow_inf_nan=False)] = 0.0
    ring: Annotated[tuple[RingMark, ...], Field(max_length=40)] = ()

    @model_validator(mode="after")
    def _low_below_high(self) -> "Axis":
        if self.low >= self.high:
            raise ValueError("the lower end of the travel lies below the upper end")
        return self

    @model_validator(mode="after")
    def _ring_rises(self) -> "Axis":
        turns, values = [mark.turn_deg for mark in self.ring], [mark.value_mm for mark in self.ring]
        if self.ring and (len(self.ring) < 2 or sorted(set(turns)) != turns):
            raise ValueError("a ring has two marks or more, each turned further than the one before")
        if values not in (sorted(set(values)), sorted(set(values), reverse=True)):
            raise ValueError("along a ring the values rise, or they fall; they do not turn back")
        return self

    @model_validator(mode="after")
    def _pan_leans(self) -> "Axis":
        if self.lean_deg is not None and self.name != "pan":
            raise ValueError(
                "of the axes the pan alone can be leaned: tilt and roll lean with it, a rail has its slope"
            )
        return self

    @property
    def on_lens(self) -> bool:
        """Whether it turns a ring of the lens."""
        return self.name in ("focus", "zoom")

    @property
    def unmarked(self) -> bool:
        """Whether it turns a ring of which nobody has read the marks off."""
        return self.on_lens and not self.ring

    @property
    def marks(self) -> tuple[RingMark, ...]:
        """The marks of a lens ring; the usual ones where none were read off."""
        return self.ring or USUAL_RINGS.get(self.name, ())

    @property
    def fastest(self) -> float:
        """Its top speed; infinite where nothing is known that a plan could go beyond."""
        return math.inf if self.top_speed is None else self.top_speed

    @property
    def liveliest(self) -> float:
        """Its acceleration; infinite where nothing is known that a plan could go beyond."""
        return math.inf if self.acceleration is None else self.acceleration

    @property
    def called(self) -> Letter:
        """Its letter in the drive's program."""
        return self.letter or LETTERS[self.name]

    @property
    def unit(self) -> str:
        """`mm` or `deg`."""
        return "mm" if self.kind == "linear" else "deg"


SLIDE = Axis(name="slide", kind="linear", low=0, high=900, top_speed=25, acceleration=80)
PAN = Axis(name="pan", kind="rotary", low=-170, high=170, top_speed=20, acceleration=40)


class Standing(Section):
    """How the rig stands: slope of the rail, error of the level, the widest lean of the ground's own making.

    `rail_at` is the share of the rail that lies over the (first) support; `friction` is that of the carriage;
    the slope is positive where the rail rises away from its zero.
    """

    slope_deg: Annotated[float, Field(ge=-90, le=90, allow_inf_nan=False)] = 0.0
    level_error_deg: Annotated[float, Field(ge=0, le=30, allow_inf_nan=False)] = 0.0
    rail_at: Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)] = 0.5
    friction: Annotated[float, Field(ge=0, le=2, allow_inf_nan=False)] = 0.05
    # The lens above the ground, at the rail's zero.
    lens_height_mm: Annotated[float, Field(ge=0, le=1e6, allow_inf_nan=False)] = 1500.0


MOST_AREA_MM2 = 1000.0


class Lead(Section):
    """The lead from the supply to the motors: its length one way, and the cross-section of a wire, of copper.

    Where somebody has measured what a metre of one wire has in ohms, that counts and not the cross-section.
    """

    length_mm: Positive = 1500.0
    area_mm2: Annotated[float, Field(ge=SMALLEST, le=MOST_AREA_MM2, allow_inf_nan=False)] = 0.5
    ohm_per_m: Annotated[float, Field(ge=SMALLEST, le=1000, allow_inf_nan=False)] | None = None


class Controller(Section):
    """How the drive's program fires the camera: which outputs it switches, and for how long, in seconds."""

    shutter: Literal["digital output", "coolant output"] = "digital output"
    output: Annotated[int, Field(ge=0, le=7)] = 0
    pulse_s: PositiveDuration = Fraction(1, 5)


class Rig(Section):
    """Up to six axes, in the order of their names; a rail's normal has a bearing where it is known."""

    axes: Annotated[tuple[Axis, ...], Field(max_length=6)] = (SLIDE, PAN)
    normal_bearing_deg: Annotated[float, Field(ge=0, le=360, allow_inf_nan=False)] | None = None
    standing: Standing = Standing()
    lead: Lead | None = None
    controller: Controller = Controller()

    @model_validator(mode="after")
    def _in_order(self) -> "Rig":
        names = [axis.name for axis in self.axes]
        if names != [name for name in AXIS_NAMES if name in names]:
            raise ValueError(f"a rig has the axes {', '.join(AXIS_NAMES)}, each once at most and in this order")
        return self

    def axis(self, name: AxisName) -> Axis | None:
        """The axis of that name, where the rig has it."""
        return next((axis for axis in self.axes if axis.name == name), None)
