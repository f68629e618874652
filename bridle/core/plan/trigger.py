"""The trigger section: how what fires is wired to the camera, what a meter said of it, and how it was tried."""

from datetime import date
from fractions import Fraction
from typing import Annotated, Literal

from pydantic import Field, model_validator

from bridle.core.plan.cards import NonNegative
from bridle.core.subjects.circuits.contacts import MOST_WIRES, Ask, Stage
from bridle.core.values import SMALLEST, Duration, Line, Name, Positive, Rational, Section, bounded

# An end of a part: `source.ground`, `coupling.plus`, `camera.shutter`; `wire.0` is a wire of a lead cut open.
Terminal = Annotated[str, Field(pattern=r"^(source|coupling|resistor|camera|wire)\.[a-z0-9-]{1,20}$")]
WireNumber = Annotated[int, Field(ge=0, lt=MOST_WIRES)]
# How sure a test can make anybody.
Certainty = Annotated[Rational, bounded(0.5, 0.999, "how sure a test makes", open_below=False)]
Level = Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)]
CopyKey = Annotated[str, Field(pattern=r"^[a-z0-9-]{1,40}$")]


class Meter(Section):
    """A reading between two wires: are they joined at this stage (`closed`), does `a` stand above `b`.

    Or they are touched together: does it focus (`focuses`), does it fire (`fires`).
    """

    ask: Ask = "closed"
    stage: Stage = "rest"
    a: WireNumber
    b: WireNumber
    yes: bool = True


class Sounded(Section):
    """The wires of a lead or a switch, as people name them, and what a meter said between them."""

    wires: Annotated[tuple[Name, ...], Field(min_length=2, max_length=MOST_WIRES)]
    readings: Annotated[tuple[Meter, ...], Field(max_length=100)] = ()

    @model_validator(mode="after")
    def _between_its_wires(self) -> "Sounded":
        for one in self.readings:
            if one.a == one.b or max(one.a, one.b) >= len(self.wires):
                raise ValueError("a meter stands between two wires of the lead")
        if len(set(self.wires)) != len(self.wires):
            raise ValueError("each wire has a name of its own")
        return self


class Join(Section):
    """Two ends that are soldered, plugged or screwed together."""

    a: Terminal
    b: Terminal


class LampUse(Section):
    """How a lamp of the kit is used: `pin` switches it, `before_s` ahead of the shutter.

    `levels` say how bright it is in each exposure of a frame: 0 is dark, 1 full, and the last one holds for all that
    follow it. All the time, and between frames, it is as bright as the brightest of them.
    """

    lamp: CopyKey
    lit: Literal["always", "for the frame", "between frames"] = "always"
    pin: Line = ""
    before_s: Duration | None = None
    levels: Annotated[tuple[Level, ...], Field(min_length=1, max_length=15)] = (1.0,)

    @model_validator(mode="after")
    def _lit_once(self) -> "LampUse":
        if not any(self.levels):
            raise ValueError("a lamp is lit in one exposure of a frame at least")
        return self

    @property
    def brightest(self) -> float:
        """Its level where it is not lit exposure by exposure."""
        return max(self.levels)

    def level(self, number: int) -> float:
        """How bright it is in an exposure of the frame; 1 is the first."""
        return self.levels[min(number, len(self.levels)) - 1]


class Trial(Section):
    """A test on the bench: so many presses asked for, so many frames came; `of` says of which chain it was."""

    what: Literal["one press", "ten presses", "with the rig", "lamp", "many presses"]
    on: date
    asked: Annotated[int, Field(ge=1, le=10_000_000)]
    came: Annotated[int, Field(ge=0, le=10_000_000)]
    of: Annotated[str, Field(pattern=r"^[0-9a-f]{0,16}$")] = ""
    simulated: bool = False
    note: Line = ""


class Look(Section):
    """What is seen from afar: a small picture of every so many frames, and an alarm after so many that did not come."""

    every_frames: Annotated[int, Field(ge=1, le=100_000)] = 1
    picture_kb: Annotated[float, Field(ge=SMALLEST, le=1e6, allow_inf_nan=False)] = 150.0
    link_w: NonNegative = 1.5
    alarm_frames: Annotated[int, Field(ge=1, le=100_000)] = 3


class Actuator(Section):
    """A rod through a wall that a switch is pressed with: the wall's thickness, the rod's own, and the switch's travel.

    `click_mm` is how far the switch is pressed until it clicks, `travel_mm` how far it can be pressed at all.
    """

    wall_mm: NonNegative = 3.0
    rod_mm: Positive = 4.0
    click_mm: Positive = 0.8
    travel_mm: Positive = 1.6

    @model_validator(mode="after")
    def _clicks_on_its_way(self) -> "Actuator":
        if self.click_mm >= self.travel_mm:
            raise ValueError("a switch clicks before the end of its travel")
        return self


class Chain(Section):
    """From what fires to the camera.

    `pads` are those under the button of a bought remote across which a switch is soldered; None where its button itself
    is pressed.
    `joins` is None while all is joined as it belongs. `dwell_s` is how long what calls the frames waits for each,
    where it does; `keep_awake_s` how often something is pressed to keep a camera, a phone or an app awake.
    `ground_mm` is how much of the lead's ground the lamps' current shares. `may_miss` is how many frames of the shoot
    may fail to come, `certainty` how sure a test is to make of that.
    """

    lead: Sounded | None = None
    switch: Sounded | None = None
    pads: Sounded | None = None
    joins: Annotated[tuple[Join, ...], Field(max_length=40)] | None = None
    pin: Line = ""
    dwell_s: Duration | None = None
    keep_awake_s: Duration | None = None
    distance_mm: NonNegative | None = None
    ground_mm: NonNegative = 0.0
    ground_ohm_per_m: NonNegative = 0.15
    autofocus: bool = False
    stabiliser: bool = False
    lamps: Annotated[tuple[LampUse, ...], Field(max_length=12)] = ()
    may_miss: Annotated[int, Field(ge=1, le=1_000_000)] | None = None
    certainty: Certainty = Fraction(19, 20)
    look: Look | None = None
    actuator: Actuator | None = None
    trials: Annotated[tuple[Trial, ...], Field(max_length=200)] = ()
