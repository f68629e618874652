"""One stop as G-code: draw back, travel, press, release, wait, return, prime, and everything as it was.

Lengths in mm, feed rates in mm/min, times in seconds; places are the printer's own, whatever the file has set its
coordinates to.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

INCH_MM = 25.4
Order = Literal["straight", "x first", "y first"]
BACK: dict[Order, Order] = {"straight": "straight", "x first": "y first", "y first": "x first"}
# Nearer than this two positions are the same.
NEAR_MM = 0.0005


@dataclass(frozen=True, slots=True)
class Stand:
    """Where a stop is put: before which byte of the file, at which layer, and how the printer stands there.

    `at` is where the head is, `e` the file's own E in mm, `back` the filament that is drawn back already, `offset`
    what has to be added to the file's numbers to have the printer's own.
    """

    byte: int
    layer: int
    at: tuple[float, float, float]
    feed: float
    absolute: bool
    absolute_e: bool
    inches: bool
    firmware_back: bool
    back: float
    e: float
    offset: tuple[float, float, float]


@dataclass(frozen=True, slots=True)
class Stop:
    """What a stop does. With a switch, `press` is the axis and the coordinate at which it is held down.

    `park` is where the head stands while the picture is taken; a coordinate that is nothing stays as it is. A switch
    is approached from `park` along its axis and left again by the same way. `order` is how it goes to `park`; back it
    goes the other way about. `on` and `off` are commands that fire instead of a switch; `before` and `after` switch
    lamps.
    """

    park: tuple[float | None, float | None]
    press: tuple[Literal["X", "Y"], float] | None = None
    held_s: float = 0.2
    wait_s: float = 1.0
    back_mm: float = 0.8
    back_feed: float = 2100.0
    by_firmware: bool = False
    travel_feed: float = 9000.0
    press_feed: float = 1200.0
    raise_mm: float = 0.0
    raise_feed: float = 600.0
    order: Order = "straight"
    on: tuple[str, ...] = ()
    off: tuple[str, ...] = ()
    before: tuple[str, ...] = ()
    after: tuple[str, ...] = ()
    warm_s: float = 0.0
    settle_s: float = 0.0

    def __post_init__(self) -> None:
        """Refuse a press from nowhere: raises ValueError."""
        if self.press and self.park["XY".index(self.press[0])] is None:
            raise ValueError(f"a press along {self.press[0]} needs a parking place along it, from where it is pressed")


def lines(stop: Stop, stand: Stand) -> Iterator[str]:
    """The lines of a stop, without their ends."""
    back = max(0.0, stop.back_mm - stand.back)
    if stand.inches:
        yield "G21"
    yield "G90"
    yield "M83"
    if stop.by_firmware:
        if not stand.firmware_back:
            yield "G10"
    elif back > NEAR_MM and not stand.firmware_back:
        yield f"G1 E-{number(back)} F{number(stop.back_feed)}"
    if stop.raise_mm > 0:
        yield f"G1 Z{_told(stand, 2, stand.at[2] + stop.raise_mm)} F{number(stop.raise_feed)}"
    yield from _away(stop, stand)
    yield from firing(stop, stand)
    yield from _home(stop, stand)
    if stop.by_firmware:
        if not stand.firmware_back:
            yield "G11"
    elif back > NEAR_MM and not stand.firmware_back:
        yield f"G1 E{number(back)} F{number(stop.back_feed)}"
    yield from _as_it_was(stand)


def _away(stop: Stop, stand: Stand) -> Iterator[str]:
    to = {axis: at for axis, at in enumerate(stop.park) if at is not None and abs(at - stand.at[axis]) > NEAR_MM}
    yield from travel(stop, {axis: _told(stand, axis, at) for axis, at in to.items()}, stop.order)


def travel(stop: Stop, to: dict[int, str], order: Order) -> Iterator[str]:
    """To a place along both axes at once, or along one after the other."""
    words = [f" {'XY'[axis]}{at}" for axis, at in sorted(to.items(), reverse=order == "y first")]
    for part in ["".join(words)] if order == "straight" else words:
        if part:
            yield f"G0{part} F{number(stop.travel_feed)}"


def firing(stop: Stop, stand: Stand) -> Iterator[str]:
    """From the head at its parking place to the picture taken."""
    if stop.before:
        yield "M400"
        yield from stop.before
        if stop.warm_s > 0:
            yield f"G4 P{number(stop.warm_s * 1000)}"
    if stop.settle_s > 0:
        yield f"G4 P{number(stop.settle_s * 1000)}"
    if stop.press:
        letter, at = stop.press
        axis = "XY".index(letter)
        left = stop.park[axis]
        yield f"G1 {letter}{_told(stand, axis, at)} F{number(stop.press_feed)}"
        yield f"G4 P{number(stop.held_s * 1000)}"
        yield f"G1 {letter}{_told(stand, axis, stand.at[axis] if left is None else left)}"
    elif stop.on or stop.off:
        yield "M400"
        yield from stop.on
        if stop.off:
            yield f"G4 P{number(stop.held_s * 1000)}"
            yield from stop.off
    if stop.wait_s > 0:
        yield f"G4 P{number(stop.wait_s * 1000)}"
    yield from stop.after


def _home(stop: Stop, stand: Stand) -> Iterator[str]:
    moved = {axis for axis, to in enumerate(stop.park) if to is not None}
    moved |= {"XY".index(stop.press[0])} if stop.press else set()
    yield from travel(stop, {axis: _told(stand, axis, stand.at[axis]) for axis in moved}, BACK[stop.order])
    if stop.raise_mm > 0:
        yield f"G1 Z{_told(stand, 2, stand.at[2])} F{number(stop.raise_feed)}"


def _as_it_was(stand: Stand) -> Iterator[str]:
    if not stand.absolute:
        yield "G91"
    yield "M82" if stand.absolute_e else "M83"
    if stand.inches:
        yield "G20"
    unit = INCH_MM if stand.inches else 1.0
    if stand.absolute_e:
        yield f"G92 E{number(stand.e / unit, 7)}"
    yield f"G1 F{number(stand.feed / unit, 6)}"


def _told(stand: Stand, axis: int, place: float) -> str:
    """A place of the printer as the file's own coordinates have it, in mm."""
    return number(place - stand.offset[axis], 5)


def number(value: float, places: int = 4) -> str:
    """A number as short as it goes."""
    text = f"{value:.{places}f}"
    text = text.rstrip("0").rstrip(".") if "." in text else text
    return "0" if text in ("-0", "") else text
