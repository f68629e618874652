"""The chapter Trigger as the page draws it: the wiring diagram, the time of one frame, the bench."""

from dataclasses import dataclass
from datetime import date
from typing import Literal

from bridle.core.reckon.hearing import Verdict

# Two numbers, across and down.
Point = tuple[float, ...]
GlyphName = Literal[
    "button", "open", "closed", "arm", "led", "transistor", "coil", "diode", "resistor", "pin", "ground", "plug",
    "ring", "light", "lamp", "battery", "fuse", "supply",
]  # fmt: skip


@dataclass(frozen=True, slots=True, kw_only=True)
class Glyph:
    """A symbol of the field, from one point to another."""

    name: GlyphName
    a: Point
    b: Point


@dataclass(frozen=True, slots=True, kw_only=True)
class Written:
    """A word on the drawing: where its baseline begins, or ends."""

    text: str
    at: Point
    anchor: Literal["start", "middle", "end"] = "start"
    role: Literal["title", "end", "value", "lead"] = "end"


@dataclass(frozen=True, slots=True, kw_only=True)
class EndDrawn:
    """An end of a part: where it stands on the edge of its block, and whether anything is joined to it."""

    end: str
    label: str
    at: Point
    joined: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class BlockDrawn:
    """A part as a block: its frame, its ends, its symbols and the lines within."""

    part: str
    copy: int | None
    x: float
    y: float
    width: float
    height: float
    ends: tuple[EndDrawn, ...]
    glyphs: tuple[Glyph, ...]
    lines: tuple[tuple[Point, ...], ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class WireDrawn:
    """What is joined: lines at right angles, with a dot where more than two meet."""

    ends: tuple[str, ...]
    lines: tuple[tuple[Point, ...], ...]
    dots: tuple[Point, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Diagram:
    """The wiring diagram in pixels of its own; `sheath` is the lead, as a box round its wires."""

    width: float
    height: float
    blocks: tuple[BlockDrawn, ...]
    wires: tuple[WireDrawn, ...]
    words: tuple[Written, ...]
    sheath: tuple[float, ...] | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Wave:
    """One line of the time of a frame: when it is on, in seconds of the beat; `path` is what sets it."""

    name: str
    label: str
    on: tuple[tuple[float, ...], ...]
    kind: Literal["source", "camera", "shutter", "lamp", "busy"]
    note: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class WireNamed:
    """A wire of a cut lead or a switch, and what it is; nothing while that is open."""

    name: str
    role: str | None


@dataclass(frozen=True, slots=True, kw_only=True)
class MeterNext:
    """The reading to take next."""

    ask: Literal["closed", "above", "focuses", "fires"]
    stage: Literal["rest", "half", "full"]
    a: int
    b: int
    settles: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class SoundedState:
    """What the readings come to: the wires, how many ways are left, readings against one another, the next to take."""

    wires: tuple[WireNamed, ...]
    left: int
    against: tuple[int, ...]
    next: MeterNext | None


@dataclass(frozen=True, slots=True, kw_only=True)
class BenchStep:
    """One test of the bench and how it stands."""

    what: str
    asked: int
    stand: Literal["passed", "missed", "fewer", "older", "simulated", "never"]
    on: date | None
    came: int | None


@dataclass(frozen=True, slots=True, kw_only=True)
class HeadsetKey:
    """A button of a headset: what it is made with, in ohms, and between what a phone takes it for that key."""

    key: str
    ohms: float
    low: float
    high: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Preparing:
    """One thing to do beforehand, in its order, and why it comes there."""

    what: str
    why: str


@dataclass(frozen=True, slots=True, kw_only=True)
class TriggerState:
    """The chain of a plan. `verdict` is what the camera makes of a press; empty where nothing presses it."""

    source: str = ""
    output: str = "nothing"
    verdict: Verdict | Literal[""] = ""
    ends: tuple[str, ...] = ()
    joins: tuple[tuple[str, ...], ...] = ()
    seen: tuple[str, ...] = ()
    diagram: Diagram | None = None
    lamps: tuple[Diagram, ...] = ()
    waves: tuple[Wave, ...] = ()
    interval_s: float = 0.0
    lead: SoundedState | None = None
    switch: SoundedState | None = None
    pads: SoundedState | None = None
    # The remote across whose button a switch can be soldered; empty where there is none.
    remote: str = ""
    bench: tuple[BenchStep, ...] = ()
    digest: str = ""
    prepare: tuple[Preparing, ...] = ()
    keys: tuple[HeadsetKey, ...] = ()
