"""The evaluation: all that a plan tells, as one serialisable value."""

from datetime import date
from typing import Literal

from pydantic import BaseModel, ConfigDict

from bridle.core.figure import Figure
from bridle.core.plan.beat import BeatSchool
from bridle.core.plan.clip import Quantity
from bridle.core.snag import Slot, Snag


class Part(BaseModel):
    """Base of the parts: frozen."""

    model_config = ConfigDict(frozen=True, from_attributes=True)


class QuantityState(Part):
    """One figure of the sentence: its value where known, whether it is held, and what was typed for it."""

    quantity: Quantity
    label: str
    unit: str
    value: float | None
    exact: str | None
    held: bool
    asked: float | None


class RoundingNote(Part):
    """What rounding to whole frames did to a held length, in seconds."""

    quantity: Literal["shoot", "clip"]
    asked: float
    got: float


class ClipState(Part):
    """The sentence: solved, something still free, or a contradiction."""

    state: Literal["solved", "free", "contradiction", "too many"]
    quantities: tuple[QuantityState, ...]
    missing: tuple[str, ...]
    rounding: tuple[RoundingNote, ...]


class BeatPart(Part):
    """One arc of the beat ring, in seconds from the start of the interval."""

    name: str
    label: str
    start_s: float
    length_s: float
    track: Literal["outer", "inner"]
    path: str | None
    figure: str | None


class BeatState(Part):
    """The tightest beat against its slot, in seconds; `over_s` is by how much it does not fit, margin included."""

    interval_s: float
    frame: int
    need_s: float
    over_s: float
    parts: tuple[BeatPart, ...]


class SchoolState(Part):
    """Shoot-move-shoot or continuous, as it would come out; its figures are keyed `school.<school>.…`."""

    school: BeatSchool
    here: bool
    suits: str
    smear_px: float
    risk: str


class DriveState(Part):
    """What the drive of an axis is told, in words; its figures are keyed `drive.<axis>.…`."""

    axis: str
    drive: str
    words: str


class RigPart(Part):
    """A part of the rig as drawn: its middle from the first support, its foot above the ground, in mm."""

    index: int
    key: str
    name: str
    kind: str
    form: str
    x_mm: float
    y_mm: float
    width_mm: float
    height_mm: float
    mass_g: float
    rides: bool
    joint: str
    bad: bool
    weakest: bool


class RigState(Part):
    """The rig from the side. Two ends each: where the carriage comes to in the move, and what holds."""

    parts: tuple[RigPart, ...]
    carriage_mm: tuple[float, ...]
    # Where the carriage may come to at all, and the centre of mass (along, up) with it there; straight in between.
    ends_mm: tuple[float, ...]
    centre_mm: tuple[tuple[float, ...], ...]
    # The slide positions below and above which it tips, an unlevel base included.
    tips_mm: tuple[float | None, ...]
    hold_mm: tuple[float, ...]
    slope_deg: float


class OriginState(Part):
    """How a figure of the plan is known: typed, from a card, measured with spread and date, or the usual value."""

    how: Literal["typed", "card", "measured", "usual"]
    card: str | None
    card_value: float | None
    spread: float | None
    on: date | None
    count: int


class Traces(Part):
    """Elapsed time and positions of each axis at some frames (0-based), at most about a thousand.

    One position stands for all where an axis stays where it is.
    """

    frames: tuple[int, ...]
    elapsed_s: tuple[float, ...]
    axes: dict[str, tuple[float, ...]]


class SightState(Part):
    """When a mark is in the picture: runs of first and last frame (0-based), and the clock times of both."""

    index: int
    name: str
    cue: bool
    runs: tuple[tuple[int, ...], ...]
    clocks: tuple[tuple[float, ...], ...]


class ViewState(Part):
    """What the camera sees. `poses` (x, z in mm; pan, tilt, roll in degrees; focal in mm), `shift_share` (of the
    width, to the next frame), `sun` (azimuth and altitude) and `crops` (left, top, width, height in shares of the
    kept picture) have one entry for each frame of the traces, or one for all where nothing changes.

    `keyframes` are the frames (0-based) at which the keyframes stand on the first leg, `legs` those at which the
    legs begin and end. `kept_mm` is the kept part of the sensor, `delivered_px` the size of the clip.
    """

    kept_mm: tuple[float, ...]
    delivered_px: tuple[int, ...]
    keyframes: tuple[int, ...]
    legs: tuple[int, ...]
    poses: dict[str, tuple[float, ...]]
    shift_share: tuple[float, ...]
    sun: dict[str, tuple[float, ...]] | None
    crops: tuple[tuple[float, ...], ...]
    sights: tuple[SightState, ...]
    # Pictures in each cycle, and how far each lies beside where the move stands, by axis.
    visits: int
    beside: dict[str, tuple[float, ...]]


class SettingLine(Part):
    """One line of the field card."""

    label: str
    value: Slot
    figure: str | None


class SettingSheet(Part):
    """A group of lines on the field card."""

    title: str
    settings: tuple[SettingLine, ...]


class ReviewState(Part):
    """Settings to dial in, and cautions."""

    sheets: tuple[SettingSheet, ...]
    cautions: tuple[str, ...]


class Evaluation(Part):
    """Everything about a shoot. Figures by key; snags with the worst first; `stalls_at` is a frame (0-based)."""

    frames: int | None
    interval_s: float | None
    clip: ClipState
    beat: BeatState | None
    schools: tuple[SchoolState, ...]
    stalls_at: int | None
    rig: RigState | None
    drives: tuple[DriveState, ...]
    traces: Traces | None
    view: ViewState | None
    review: ReviewState
    origins: dict[str, OriginState]
    figures: dict[str, Figure]
    snags: tuple[Snag, ...]
