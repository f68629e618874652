"""What the chapter Print tells the page."""

from dataclasses import dataclass
from typing import Literal

from bridle.core.plan.edit import Edit
from bridle.core.reckon.proved import Stands
from bridle.core.subjects.motion.calibration import Measure

Missing = Literal["file", "printer", "switch", "coordinate"]


@dataclass(frozen=True, slots=True, kw_only=True)
class StopStep:
    """A step of the stop with its time; `far_mm` where something moves."""

    what: str
    far_mm: float | None
    seconds: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Box:
    """A rectangle on the drawing of the bed, mm; for a part of the head also how high over the nozzle's tip."""

    name: str
    x0: float
    x1: float
    y0: float
    y1: float
    low: float = 0.0
    high: float = 0.0


@dataclass(frozen=True, slots=True, kw_only=True)
class BedDrawn:
    """The bed from above: what the axes reach, the bed, the head's parts about the nozzle, switch, parking place."""

    reach: Box
    bed: Box
    head: tuple[Box, ...]
    body: Box | None
    park_x: float | None
    park_y: float | None
    # Where the head turns on its way there, if it does.
    corner_x: float | None
    corner_y: float | None
    press_x: float | None
    press_y: float | None
    free_low: float | None
    free_high: float | None
    axis: str
    bed_moves: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class Every:
    """What every how many layers comes to: frames, the clip's seconds, the print's seconds with its stops."""

    every: int
    frames: int
    clip_s: float
    print_s: float


@dataclass(frozen=True, slots=True, kw_only=True)
class SwitchPlace:
    """A place for the switch: whether homing and the start of the file meet it there, and what it costs.

    `unreached` are the chosen layers whose height does not reach it, `lost_mm` how much of the bed cannot be printed on
    then; `here` where it is fixed now, and `edits` move the plan's switch there, its coordinate to be read anew.
    """

    rides: str
    axis: str
    side: str
    homing: bool
    start: bool
    unreached: int
    stop_s: float
    lost_mm: float
    here: bool
    edits: tuple[Edit, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Way:
    """A way in which the stops reach the printer, as text that can be copied."""

    by: Literal["slicer", "host before", "host after"]
    lines: tuple[str, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Turn:
    """Something that a print may do instead of going on, and what becomes of the frames then."""

    when: str
    said: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Framed:
    """The print in the picture, of the first frame's camera where that moves.

    `lens_mm` is where the lens is from the middle of the part on the bed: to the right, away and up, as it sees them;
    `turned_deg` pan, tilt and roll; `sides` what is kept of the picture, across and down, over the focal length.
    `first` and `last` are the part in the first and the last frame, `head` the parked head in the last, as shares of
    the picture from its middle: left, right, low, high; `head` is empty where its place is not known. `moves` says that
    the camera does.
    """

    lens_mm: tuple[float, ...]
    turned_deg: tuple[float, ...]
    sides: tuple[float, ...]
    first: tuple[float, ...]
    last: tuple[float, ...]
    head: tuple[float, ...]
    head_in: int
    moves: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class PrintingState:
    """A layered shoot's print. `missing` says what has to be told before a stop can be written, in order.

    `chosen` are the layers (from 1) that call a frame; `of` is the digest of all that a changed file is made with.
    `reading` is how the coordinate of the switch is read, `equal_mm` the step of height that comes to as many frames.
    """

    layered: bool = False
    missing: tuple[Missing, ...] = ()
    layers: int = 0
    chosen: tuple[int, ...] = ()
    steps: tuple[StopStep, ...] = ()
    stop_s: float = 0.0
    bed: BedDrawn | None = None
    offers: tuple[Every, ...] = ()
    ways: tuple[Way, ...] = ()
    places: tuple[SwitchPlace, ...] = ()
    framed: Framed | None = None
    turns: tuple[Turn, ...] = ()
    reading: Measure | None = None
    equal_mm: float = 0.0
    of: str = ""
    proof: Stands = "none"
