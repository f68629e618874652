"""Where the frames come from: an even interval, one that changes, work windows, or the layers of a print."""

from datetime import date
from typing import Annotated, Literal

from pydantic import Field, model_validator

from bridle.core.plan.clip import LONGEST_INTERVAL_S
from bridle.core.values import SMALLEST, Count, Line, PositiveDuration, Section

DAY_MIN = 24 * 60
MOST_LAYERS = 20_000
Weekday = Annotated[int, Field(ge=0, le=6)]
Height = Annotated[float, Field(ge=-1, le=5000, allow_inf_nan=False)]


class Even(Section):
    """One interval from the first frame to the last, as the pegs of the clip say."""

    source: Literal["even"] = "even"


class Segment(Section):
    """A part of the shoot with an interval of its own, both in seconds."""

    length_s: PositiveDuration
    interval_s: Annotated[PositiveDuration, Field(le=LONGEST_INTERVAL_S)]


class Changing(Section):
    """Segments one after another, each with its interval, blended over some frames from one to the next."""

    source: Literal["changing"] = "changing"
    segments: Annotated[tuple[Segment, ...], Field(min_length=2, max_length=20)]
    blend_frames: Count = 0


class Edge(Section):
    """When a window opens or closes: a minute of the place's own clock, or so many after sunrise or sunset."""

    by: Literal["clock", "sunrise", "sunset"] = "clock"
    minutes: Annotated[int, Field(ge=-720, le=DAY_MIN)] = 0

    @model_validator(mode="after")
    def _on_the_clock(self) -> "Edge":
        if self.by == "clock" and self.minutes < 0:
            raise ValueError("an hour of the clock is not before midnight")
        return self


class Rule(Section):
    """Windows that come again: on which weekdays they open (0 is Monday), when they open and close.

    Where they close before they open they run past midnight; `closes_on` is a weekday on which they close instead.
    `every_s` is an interval of their own, `first` and `last` are days beyond which they open no more.
    """

    weekdays: Annotated[tuple[Weekday, ...], Field(min_length=1, max_length=7)] = (0, 1, 2, 3, 4, 5, 6)
    opens: Edge = Edge()
    closes: Edge = Edge(minutes=DAY_MIN)
    closes_on: Weekday | None = None
    every_s: Annotated[PositiveDuration, Field(le=LONGEST_INTERVAL_S)] | None = None
    first: date | None = None
    last: date | None = None


class DaysOff(Section):
    """Whole days without a frame, from the first to the last one."""

    first: date
    last: date
    name: Line = ""

    @model_validator(mode="after")
    def _in_order(self) -> "DaysOff":
        if self.last < self.first:
            raise ValueError("the last day off is not before the first")
        return self


class Windows(Section):
    """Frames at an interval within the windows of some rules, from one day to another, days off left out.

    What two rules claim belongs to the first of them.
    """

    source: Literal["windows"] = "windows"
    every_s: Annotated[PositiveDuration, Field(le=LONGEST_INTERVAL_S)]
    rules: Annotated[tuple[Rule, ...], Field(min_length=1, max_length=12)] = (Rule(),)
    off: Annotated[tuple[DaysOff, ...], Field(max_length=200)] = ()
    first: date
    last: date

    @model_validator(mode="after")
    def _in_order(self) -> "Windows":
        if not 1990 <= self.first.year <= self.last.year <= 2150:
            raise ValueError("work windows lie between 1990 and 2150")
        if self.last < self.first:
            raise ValueError("the last day of the work windows is not before the first")
        if (self.last - self.first).days > 20 * 366:
            raise ValueError("work windows go on for twenty years at most")
        return self


class Layers(Section):
    """A frame when a layer of a print is done: how long each layer takes, in seconds, without any stop.

    Every `every`th layer counted back from the last one of `first_layer` to `last_layer` (1 is the lowest; None: to the
    end), so that the last is always a frame; or, where `equal_mm` says so, the layers nearest to equal heights.
    `z_mm` are the heights of the layers, empty where they are not known.
    """

    source: Literal["layers"] = "layers"
    layers_s: Annotated[tuple[PositiveDuration, ...], Field(min_length=1, max_length=MOST_LAYERS)]
    z_mm: Annotated[tuple[Height, ...], Field(max_length=MOST_LAYERS)] = ()
    every: Annotated[int, Field(ge=1, le=1000)] = 1
    first_layer: Annotated[int, Field(ge=1, le=MOST_LAYERS)] = 1
    last_layer: Annotated[int, Field(ge=1, le=MOST_LAYERS)] | None = None
    equal_mm: Annotated[float, Field(ge=SMALLEST, le=100, allow_inf_nan=False)] | None = None

    @model_validator(mode="after")
    def _one_height_each(self) -> "Layers":
        if self.z_mm and len(self.z_mm) != len(self.layers_s):
            raise ValueError("each layer has one height")
        return self


Frames = Annotated[Even | Changing | Windows | Layers, Field(discriminator="source")]
