"""What the runs' API takes and gives."""

from datetime import datetime
from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field

from bridle.core.figure import Figure
from bridle.core.plan.document import Plan
from bridle.core.plan.rig import AxisName
from bridle.standins.weather import WeatherName


class NewRun(Schema):
    """How fast simulated time goes: times real time, 0 for as fast as it goes; and the weather over the stand-ins."""

    speed: Literal[0, 1, 60, 600, 86400] = 60
    weather: WeatherName = "as planned"
    # Whether somebody comes as it is planned, to a camera that stays.
    comes: bool = True


class AskRun(Schema):
    """What is asked of a run; a speed may come along, or alone."""

    what: Literal["start", "pause", "go on", "stop", "visit", "cut"] | None = None
    speed: Literal[0, 1, 60, 600, 86400] | None = None


class EventLine(Schema):
    """An entry of the event log with the clock time it stands for."""

    number: int
    clock: datetime
    kind: str
    frame: int | None
    seconds: float | None
    said: str


class Setting(Schema):
    """What the camera is set to, as it is engraved; and by how many stops the picture comes out brighter than right.

    `bright` and the meter's reading (EV100) are empty where the light is not known.
    """

    frame: int
    shutter_s: float
    iso: float
    aperture: float
    density: float
    bright: float | None
    metered_ev: float | None


class RunView(Schema):
    """Where a run is. Times are simulated seconds since its start; clocks are the shoot's own."""

    id: int
    shoot_id: int | None
    phase: str
    # Whether the shoot's plan is another one than the run was made from.
    outdated: bool
    speed: int
    frames: int
    taken: int
    # Called, and never come.
    missed: int
    now_s: float
    next_due_s: float | None
    left_s: float
    # How many seconds the shoot's clock goes on, and what is left gets less, in one second of the reader's.
    clock_rate: float
    left_rate: float
    delayed_s: float
    finish: datetime
    clock: datetime
    position: dict[str, float]
    units: dict[str, str]
    weather: str
    # Of a camera that stays: shares of charge and card; None where nobody knows, or there is none.
    charge: float | None
    fill: float | None
    stays: bool
    comes: bool
    # Of the frame that was taken last; of the first before that.
    setting: Setting
    figures: list[Figure]
    # Why it stands still through no wish of anybody's, and what was asked for and is not done yet.
    trouble: str
    pending: list[str]
    entry_id: int | None
    events_count: int
    events: list[EventLine]


class DamagedLine(Schema):
    """A row that cannot be read; its text can be taken along. `under_way`: it keeps another run from beginning."""

    id: int
    said: str
    under_way: bool = False


class RunList(Schema):
    """The runs of a shoot, newest first, and those that cannot be read."""

    runs: list[RunView]
    damaged: list[DamagedLine]


class LogLine(Schema):
    """An entry of the logbook."""

    id: int
    version: int
    shoot_id: int | None
    name: str
    outcome: str
    made_at: datetime
    planned_frames: int
    taken_frames: int
    planned_s: float
    taken_s: float
    delayed_s: float
    late_frames: int
    restarts: int
    clip_planned_s: float
    clip_taken_s: float
    note: str
    figures: list[Figure]


class LogList(Schema):
    """A page of the logbook, newest first; `before` is where it goes on, None at its end."""

    entries: list[LogLine]
    damaged: list[DamagedLine]
    before: int | None


class SaveNote(Schema):
    """A note to keep, and the version it was made from."""

    version: int
    note: str


class StaleNote(Schema):
    """Someone else wrote in between: what is kept now."""

    message: str
    kept: LogLine


class AskJog(Schema):
    """The shoot whose rig it is, its plan as it is now, what to do with which axes.

    Amounts are in the drive's unit; `text` is where an axis is to go, as somebody typed it.
    """

    shoot: int
    plan: Plan
    do: Literal["look", "reference", "by", "go", "type"]
    axes: Annotated[tuple[AxisName, ...], Field(max_length=6)] = ()
    amounts: dict[AxisName, float] = Field(default_factory=dict)
    text: Annotated[str, Field(max_length=40)] = ""
    imperial: bool = False


class Jogged(Schema):
    """Where the referenced axes stand: in the drive's unit, and as a keyframe has it; which are at an end."""

    at: dict[AxisName, float]
    stands: dict[AxisName, float]
    at_end: list[AxisName]
    seconds: float


class AskProgram(Schema):
    """The plan whose program is to be rehearsed."""

    plan: Plan


class MarkedAxis(Schema):
    """An axis whose scale is set by hand, and the unit of its marks."""

    name: AxisName
    unit: str


class MarkToSet(Schema):
    """After this Unix time, and before this frame, the scales are set to these marks."""

    frame: int
    clock: float
    marks: list[float]


class MarksToSet(Schema):
    """The list of marks; `left` is how many lines of it are not in it."""

    axes: list[MarkedAxis]
    lines: list[MarkToSet]
    left: int


class Rehearsal(Schema):
    """What came of running the drive's program: pictures, how far off in steps, how near the top speed, how late."""

    lines: int
    opening: str
    pictures: int
    off_steps: dict[str, float]
    fastest: dict[str, float]
    late_s: float
    ends_s: float
