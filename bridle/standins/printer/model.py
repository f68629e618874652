"""What the virtual printer is made of: axes, head, switch, and what fires a camera. Lengths in mm, speeds in mm/s."""

import math
from dataclasses import dataclass, field
from typing import Literal

Axis = Literal["X", "Y"]
Box = tuple[float, float, float, float, float, float]
Three = tuple[float, float, float]
INFINITE = (-math.inf, math.inf)


@dataclass(frozen=True, slots=True)
class Part:
    """A part of the head as a box about the nozzle's tip: x, X, y, Y, z, Z; `presses` where it meets the switch."""

    name: str
    box: Box
    presses: bool = False


@dataclass(frozen=True, slots=True)
class Key:
    """A switch: it clicks where the nozzle stands at `clicks` on its way along `axis` (`sign` −1 or 1).

    `beyond` is how much further it can be pushed, `lets_go` how far back it releases. `at` is where the nozzle stood
    across and in height when the coordinate was read; `size` its depth along the way, width and height; `about` where
    the middle of its body lies from the nozzle, across and in height. `rides` is what it is fixed to.
    """

    axis: Axis
    sign: int
    clicks: float
    beyond: float = 2.0
    lets_go: float = 0.5
    at: tuple[float, float] = (0.0, 0.0)
    size: Box | tuple[float, float, float] = (12.0, 20.0, 10.0)
    about: tuple[float, float] = (0.0, 0.0)
    rides: Literal["gantry", "frame", "bed"] = "frame"


@dataclass(frozen=True, slots=True)
class Model:
    """A printer. `head_moves` are the axes in which the head moves and not the bed; `home` is where `G28` ends."""

    low: tuple[float, float, float] = (0.0, 0.0, 0.0)
    high: tuple[float, float, float] = (220.0, 220.0, 250.0)
    home: tuple[float, float, float] = (0.0, 0.0, 0.0)
    head_moves: str = "XZ"
    top: tuple[float, float, float] = (300.0, 300.0, 12.0)
    gain: float = 1500.0
    parts: tuple[Part, ...] = ()
    key: Key | None = None
    on: tuple[str, ...] = ()
    off: tuple[str, ...] = ()
    # What a stop switches besides, as its lamps; and what it leaves switched as it is at rest.
    lamps: tuple[str, ...] = ()
    rest: tuple[str, ...] = ()
    # Whether `G90` and `G91` leave the filament's mode alone.
    apart: bool = False
    probes: tuple[float, float, float, float] | None = None
    macros: dict[str, str] = field(default_factory=dict)

    def matters(self, axis: str) -> bool:
        """Whether going along an axis brings the head nearer to the switch or takes it away."""
        assert self.key is not None
        if self.key.rides == "bed":
            return True
        if self.key.rides == "frame":
            return axis in self.head_moves
        return axis == self.key.axis


def lever(model: Model) -> Box:
    """Where the nozzle stands while the switch is held down: x, X, y, Y, z, Z."""
    key = model.key
    assert key is not None
    along = (key.clicks, math.inf) if key.sign > 0 else (-math.inf, key.clicks)
    across, up = (
        (key.at[n] - key.size[n + 1] / 2, key.at[n] + key.size[n + 1] / 2) if model.matters(axis) else INFINITE
        for n, axis in ((0, "Y" if key.axis == "X" else "X"), (1, "Z"))
    )
    return (*along, *across, *up) if key.axis == "X" else (*across, *along, *up)


def zones(model: Model) -> list[tuple[str, Box]]:
    """Where the nozzle must not be, so that no part of the head touches the switch's body: part and box."""
    key = model.key
    if key is None:
        return []
    n, m = ("XY".index(key.axis), 1 - "XY".index(key.axis))
    faces = [part.box[2 * n + (key.sign > 0)] for part in model.parts if part.presses]
    face = (max(faces) if key.sign > 0 else min(faces)) if faces else 0.0
    near = key.clicks + key.sign * key.beyond + face
    far = near + key.sign * key.size[0]
    body = (min(near, far), max(near, far))
    found = []
    for part in model.parts:
        ranges: list[tuple[float, float] | None] = [None, None, None]
        ranges[n] = (body[0] - part.box[2 * n + 1], body[1] - part.box[2 * n])
        for axis, which in ((m, 0), (2, 1)):
            half, low, high = key.size[which + 1] / 2, part.box[2 * axis], part.box[2 * axis + 1]
            about = key.about[which]
            if model.matters("XYZ"[axis]):
                at = key.at[which] + about
                ranges[axis] = (at - half - high, at + half - low)
            elif about + half > low and about - half < high:
                ranges[axis] = INFINITE
        if all(ranges):
            x, y, z = (one for one in ranges if one)
            found.append((part.name, (*x, *y, *z)))
    return found
