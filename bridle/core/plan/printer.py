"""Cards of a printer and of a switch that its head meets. Lengths in mm, speeds in mm/s, as the axes count them."""

from datetime import date
from typing import Annotated, Literal

from pydantic import Field, model_validator

from bridle.core.plan.cards import CardBase, Holds, NonNegative, Unknown
from bridle.core.values import Duration, Line, Name, Positive, Section

Coordinate = Annotated[float, Field(ge=-2000, le=2000, allow_inf_nan=False)]
Command = Annotated[str, Field(min_length=1, max_length=120, pattern=r"^[^\r\n]+$")]
Moves = Literal["head X Z, bed Y", "head X Y, bed Z", "head X Y Z"]


class HeadPart(Section):
    """A part of the head as a box about the tip of the nozzle; `presses` where it is what meets the switch."""

    name: Name
    left_mm: Coordinate = -10.0
    right_mm: Coordinate = 10.0
    front_mm: Coordinate = -10.0
    back_mm: Coordinate = 10.0
    low_mm: Coordinate = 5.0
    high_mm: Coordinate = 50.0
    presses: bool = False

    @model_validator(mode="after")
    def _has_room(self) -> "HeadPart":
        if self.left_mm >= self.right_mm or self.front_mm >= self.back_mm or self.low_mm >= self.high_mm:
            raise ValueError("a part of the head is wider than nothing: left before right, front before back")
        return self


class Macro(Section):
    """What the printer does at a command of its own, as its settings have it: G-code, a line a command."""

    name: Annotated[str, Field(pattern=r"^[A-Za-z][A-Za-z0-9_]{0,60}$")]
    text: Annotated[str, Field(max_length=20_000)] = ""


class Printer(CardBase):
    """A printer: how far its axes reach, how fast they are, its head, and how it tells a camera.

    `reach_mm` are the lowest and highest positions of X, Y and Z that it lets itself be sent to; `bed_mm` is what can
    be printed on, from nought. `fires` says by what the camera is told: the head presses a switch, commands switch a
    pin, or commands are heard by the print's host. `idle_s` is after how long without a move it turns its heaters off.
    """

    kind: Literal["printer"] = "printer"
    moves: Moves = "head X Z, bed Y"
    bed_x_mm: Positive = 220.0
    bed_y_mm: Positive = 220.0
    low_x_mm: Coordinate = 0.0
    high_x_mm: Coordinate = 220.0
    low_y_mm: Coordinate = 0.0
    high_y_mm: Coordinate = 220.0
    high_z_mm: Positive = 250.0
    home_x_mm: Coordinate = 0.0
    home_y_mm: Coordinate = 0.0
    top_mm_s: Positive = 300.0
    top_z_mm_s: Positive = 12.0
    top_push_mm_s: Positive = 60.0
    print_mm_s2: Positive = 1500.0
    travel_mm_s2: Positive = 1500.0
    corner_mm_s: Positive = 8.0
    extruder: Literal["direct", "long tube"] = "direct"
    head: Annotated[tuple[HeadPart, ...], Field(min_length=1, max_length=12)] = (
        HeadPart(name="nozzle", left_mm=-4, right_mm=4, front_mm=-4, back_mm=4, low_mm=0, high_mm=10),
        HeadPart(name="head", left_mm=-25, right_mm=25, front_mm=-25, back_mm=25, low_mm=10, high_mm=60, presses=True),
    )
    fires: Literal["switch", "commands", "pause"] = "switch"
    fire_on: Annotated[tuple[Command, ...], Field(max_length=10)] = ()
    fire_off: Annotated[tuple[Command, ...], Field(max_length=10)] = ()
    # How long a single command that fires holds the contact closed by itself.
    hold_s: Duration | None = None
    lamp_on: Annotated[tuple[Command, ...], Field(max_length=10)] = ()
    lamp_off: Annotated[tuple[Command, ...], Field(max_length=10)] = ()
    park_x_mm: Coordinate = 0.0
    park_y_mm: Coordinate | None = None
    idle_s: Duration | None = None
    # Whether absolute and relative mode are only of places, and leave that of the filament alone.
    filament_apart: Holds = "not known"
    # The rectangle that levelling probes: where `G29` sends the head.
    probe_from_x_mm: Coordinate | None = None
    probe_to_x_mm: Coordinate | None = None
    probe_from_y_mm: Coordinate | None = None
    probe_to_y_mm: Coordinate | None = None
    macros: Annotated[tuple[Macro, ...], Field(max_length=40)] = ()

    @model_validator(mode="after")
    def _reaches(self) -> "Printer":
        if self.low_x_mm >= self.high_x_mm or self.low_y_mm >= self.high_y_mm:
            raise ValueError("an axis reaches from a lower to a higher position")
        return self


class HeadSwitch(CardBase):
    """A switch that the head meets: where it clicks, how far it can be pushed, its body, what it is fixed to.

    `clicks_mm` is the position of the axis at which it clicks, None until it has been read; `across_mm` and `up_mm`
    where the nozzle stood in the other two axes when it was. `middle_mm` is how high over the nozzle's tip the middle
    of its body lies then, `deep_mm`, `wide_mm` and `tall_mm` its size along the way, across it and in height.
    """

    kind: Literal["head switch"] = "head switch"
    mass_g: Annotated[float, Field(ge=0, le=1e6, allow_inf_nan=False)] = 10.0
    axis: Literal["X", "Y"] = "X"
    side: Literal["low", "high"] = "high"
    clicks_mm: Coordinate | None = None
    read_on: date | None = None
    refitted_on: date | None = None
    across_mm: Coordinate = 110.0
    up_mm: NonNegative = 0.0
    beyond_mm: Positive = 2.0
    lets_go_mm: Positive = 0.5
    deep_mm: Positive = 12.0
    wide_mm: Positive = 20.0
    tall_mm: Positive = 10.0
    middle_mm: Coordinate = 35.0
    rides: Literal["gantry", "frame", "bed"] = "gantry"
    force_n: NonNegative = 1.0
    # How often it can be pressed.
    presses: Unknown = None
    fixed: Literal["screwed", "clamped", "glued", "taped", "magnet"] = "screwed"
    note_on_fixing: Line = ""
