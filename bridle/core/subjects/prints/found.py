"""What an inspection finds: layers and the places for a stop, what else stands in the file, what nobody knows."""

from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from bridle.core.subjects.prints import follow, gather
from bridle.core.subjects.prints.units import UNIT_MM

# A nozzle of 0.4 mm pushes about 0.03 mm a millimetre; the finest and the broadest lie well within this.
LEAST_FLOW, MOST_FLOW = 0.002, 0.5


@dataclass(frozen=True, slots=True)
class Motion:
    """What a file is read with: top speeds (mm/s), accelerations (mm/s²), corner speed (mm/s), home (mm).

    `apart` is whether absolute and relative places leave the filament's mode alone; None: nobody knows.
    """

    top: tuple[float, float, float] = (300.0, 300.0, 12.0)
    push_top: float = 60.0
    print_a: float = 1500.0
    travel_a: float = 1500.0
    push_a: float = 3000.0
    corner: float = 8.0
    home: tuple[float, float, float] = (0.0, 0.0, 0.0)
    apart: bool | None = None


@dataclass(frozen=True, slots=True)
class Place:
    """A place where a stop can stand: before this byte, the lines before it, the clock, the state, what was printed.

    `back` is how much filament is drawn back there; `e` is the file's own E, as it stands there in mm.
    """

    byte: int
    line: int
    clock_s: float
    at: tuple[float, float, float]
    feed: float
    absolute: bool
    absolute_e: bool
    inches: bool
    firmware_back: bool
    back: float
    pushed: float
    e: float
    offset: tuple[float, float, float]
    sums: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class Layer:
    """A layer: its number from 1, which object it is of, its height over the bed, thickness, seconds, filament.

    `box` is x, X, y, Y of what is printed; `out` the same of where the head went besides. Places are made of their
    rows when they are asked for: a print can have tens of thousands of layers.
    """

    number: int
    thing: int
    z: float
    thick: float
    seconds: float
    filament: float
    way: float
    box: tuple[float, float, float, float]
    out: tuple[float, float, float, float]
    line: int
    rows: NDArray[np.float64] = field(repr=False, compare=False)

    @property
    def end(self) -> Place:
        """Behind its last printed move."""
        return place(self.rows[gather.END])

    @property
    def change(self) -> Place:
        """Where the next layer is announced; its end where nothing announces that."""
        told = self.rows[gather.CHANGE]
        return self.end if np.isnan(told[gather.BYTE]) else place(told)

    @property
    def fill(self) -> Place | None:
        """Where its infill begins, where the file says so."""
        told = self.rows[gather.FILL]
        return None if np.isnan(told[gather.BYTE]) else place(told)


@dataclass(frozen=True, slots=True)
class Other:
    """A command that somebody put in: how often, in how many layers, where first, and what it does."""

    name: str
    sort: str
    count: int
    layers: int
    line: int
    text: str


@dataclass(frozen=True, slots=True)
class Wrong:
    """A line that cannot be read: its number, what stands there, and what was expected."""

    line: int
    stood: str
    expected: str


@dataclass(slots=True)
class Inspection:
    """A file as it was read. Times are an estimate, without heating and homing.

    `apart` is whether it was read as for a printer whose `G90` and `G91` leave the filament's mode alone; in so many
    lines (`doubts`) that makes a difference. `pulls` is the share of the moves with filament that draw it back.
    """

    size: int
    lines: int
    crlf: bool
    last_ends: bool
    style: str | None
    layers: list[Layer]
    seconds: float
    start_s: float
    purge: float
    start_path: NDArray[np.float64]
    end_path: NDArray[np.float64]
    start_line: int
    spiral: bool
    homes: bool
    others: list[Other]
    wrong: list[Wrong]
    wrong_count: int
    parks: tuple[int, float, float] | None
    points: NDArray[np.int16]
    kept: NDArray[np.int64]
    total: Place | None = None
    pushed: float = 0.0
    tools: tuple[int, ...] = ()
    numbered: bool = False
    unit_mm: float = UNIT_MM
    apart: bool = False
    doubts: int = 0
    pulls: float = 0.0
    # Where a prime or wiping tower stands (x, X, y, Y), where comments say so, and in how many layers it is printed.
    tower: tuple[float, float, float, float] | None = None
    tower_layers: int = 0

    @property
    def likely(self) -> float:
        """How far it is a print: the share of layers with as much filament as prints, less that of moves that pull.

        Read in the wrong mode, half of all moves draw filament back, or they push more and more of it.
        """
        flows = [layer.filament / layer.way for layer in self.layers if layer.way > 0]
        return sum(LEAST_FLOW < flow < MOST_FLOW for flow in flows) / max(1, len(flows)) - self.pulls

    @property
    def things(self) -> int:
        """How many objects were printed one after another."""
        return max((layer.thing for layer in self.layers), default=0)

    @property
    def box(self) -> tuple[float, float, float, float]:
        """The extents of all layers: x, X, y, Y."""
        boxes = np.array([layer.box for layer in self.layers])
        return (boxes[:, 0].min(), boxes[:, 1].max(), boxes[:, 2].min(), boxes[:, 3].max())

    @property
    def unknown(self) -> list[Other]:
        """Commands that nobody here knows: what they do to the head is not known either."""
        return [other for other in self.others if other.sort == "unknown"]


def place(row: NDArray[np.float64]) -> Place:
    """A place as it was noted."""
    state = row[gather.STATE_AT : gather.STATE_AT + follow.STATE]
    return Place(
        byte=int(row[gather.BYTE]),
        line=int(row[gather.LINE]),
        clock_s=float(row[gather.CLOCK]),
        at=(float(state[0]), float(state[1]), float(state[2])),
        feed=float(state[follow.FEED]),
        absolute=bool(state[follow.ABSOLUTE]),
        absolute_e=bool(state[follow.ABSOLUTE_E]),
        inches=bool(state[follow.UNIT] != 1),
        firmware_back=bool(state[follow.FIRMWARE_BACK]),
        back=float(state[follow.MOST] - state[follow.PUSHED]),
        pushed=float(state[follow.PUSHED]),
        e=float(state[follow.TOLD_E]),
        offset=(float(state[follow.OFF_X]), float(state[follow.OFF_Y]), float(state[follow.OFF_Z])),
        sums=tuple(float(one) for one in row[gather.SUMS_AT : gather.PLACE]),
    )
