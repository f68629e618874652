"""What the camera sees: points of the scene in the picture, and how fast they pass through it.

The scene has x along the rail, y away from it, z upwards. A picture's coordinates are tangents: `across` to the
right and `up` from the middle, in multiples of the focal length; times focal length over sensor side they are
shares of that side.
"""

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from bridle.core.subjects.numbers.arrays import Floats

# Nothing nearer than this in front of the lens is taken to be in the picture.
NEAREST_MM = 1.0
FAR_MM = 1e9


@dataclass(frozen=True)
class Poses:
    """Where the camera stands and points, one entry a frame; lengths in mm, angles in degrees."""

    x: Floats
    z: Floats
    pan: Floats
    tilt: Floats
    roll: Floats
    focal: Floats

    def __len__(self) -> int:
        """The number of frames."""
        return len(self.x)

    @cached_property
    def turned(self) -> tuple[Floats, Floats, Floats, Floats, Floats, Floats]:
        """Cosine and sine of pan, tilt and roll: of one frame where the axis stands still, else of each."""
        p, t, r = (np.radians(still_or_each(angles)) for angles in (self.pan, self.tilt, self.roll))
        return np.cos(p), np.sin(p), np.cos(t), np.sin(t), np.cos(r), np.sin(r)

    @cached_property
    def lens(self) -> Floats:
        """The focal length: of one frame where it stays, else of each."""
        return still_or_each(self.focal)

    def some(self, frames: NDArray[np.int64]) -> "Poses":
        """The poses at some frames only."""
        ways = (self.x, self.z, self.pan, self.tilt, self.roll, self.focal)
        return Poses(*(values[frames] for values in ways))

    def at(self, index: int) -> "Poses":
        """One frame's pose."""
        frame = slice(index, index + 1)
        return Poses(
            self.x[frame], self.z[frame], self.pan[frame], self.tilt[frame], self.roll[frame], self.focal[frame]
        )


def still_or_each(values: Floats) -> Floats:
    """The values, or one of them where all are alike: it stands for all of them in arithmetic."""
    still = len(values) > 0 and bool((values == values[0]).all())
    return values[:1] if still else values


@dataclass(frozen=True)
class Seen:
    """A point in the camera's own coordinates, in mm: right, up, ahead. Shapes (frames,)."""

    right: Floats
    up: Floats
    ahead: Floats

    @cached_property
    def in_front(self) -> NDArray[np.bool_]:
        """Whether it lies before the lens."""
        return self.ahead > NEAREST_MM

    def across(self) -> Floats:
        """Right over ahead; not a number behind the lens."""
        return self._over_ahead(self.right)

    def above(self) -> Floats:
        """Up over ahead; not a number behind the lens."""
        return self._over_ahead(self.up)

    def _over_ahead(self, way: Floats) -> Floats:
        out: Floats = np.full(self.ahead.shape, np.nan)
        return np.divide(way, self.ahead, out=out, where=self.in_front)


def see(poses: Poses, x: float | Floats, y: float | Floats, z: float | Floats) -> Seen:
    """A point of the scene in the camera's coordinates at every frame; several points in a column (points, 1)."""
    return turn(poses, x - poses.x, y, z - poses.z)


def see_far(poses: Poses, bearing: float | Floats, altitude: float | Floats) -> Seen:
    """A direction, from the rail's normal clockwise and above the horizon, in degrees: something very far away."""
    b, a = np.radians(bearing), np.radians(altitude)
    level = FAR_MM * np.cos(a)
    return turn(poses, level * np.sin(b), level * np.cos(b), FAR_MM * np.sin(a))


def turn(poses: Poses, dx: float | Floats, dy: float | Floats, dz: float | Floats) -> Seen:
    """A vector of the scene in camera coordinates: pan clockwise about the vertical, then tilt up, then roll.

    Vectors of shape (frames,), (points, frames), or one for all.
    """
    cos_p, sin_p, cos_t, sin_t, cos_r, sin_r = poses.turned
    right, level = dx * cos_p - dy * sin_p, dx * sin_p + dy * cos_p
    ahead, up = level * cos_t + dz * sin_t, dz * cos_t - level * sin_t
    # A roll to the right (clockwise from behind) turns the scene to the left in the picture.
    level_head = sin_r.size == 1 and not sin_r[0]
    ways = (right, up, ahead) if level_head else (right * cos_r - up * sin_r, right * sin_r + up * cos_r, ahead)
    shape = np.broadcast(*ways, poses.x).shape
    return Seen(*(way if way.shape == shape else np.broadcast_to(way, shape) for way in ways))


@dataclass(frozen=True)
class Flow:
    """How fast the picture passes a point of it, for each axis: tangents per frame, across and up."""

    across: dict[str, Floats]
    up: dict[str, Floats]

    def total(self, focal: Floats) -> Floats:
        """The length of the shift in mm on the sensor; shape (frames,)."""
        return np.hypot(sum(self.across.values(), np.zeros(1)), sum(self.up.values(), np.zeros(1))) * focal


def flow(poses: Poses, steps: dict[str, Floats], u: Floats, v: Floats, depth_mm: float | None) -> Flow:
    """The shift at picture point (u, v), in tangents per frame, of each axis, its steps given in mm and degrees.

    Linear axes (`slide` along the level, `rise` upwards) shift what stands at `depth_mm` ahead (None: nothing
    near). The equations are those of optical flow: a turn `w` of the scene about the camera shifts a point by
    `u·v·w_right − (1 + u²)·w_up + v·w_ahead` across.
    """
    _, _, cos_t, sin_t, cos_r, sin_r = poses.turned
    across, up = {}, {}
    for name, step in steps.items():
        turned = np.radians(step)
        if name == "pan":
            # About the vertical, as the tilted and rolled camera has it: clockwise seen from above.
            right, upward, ahead = -cos_t * sin_r * turned, cos_t * cos_r * turned, sin_t * turned
            across[name], up[name] = _turned(u, v, right, upward, ahead)
        elif name == "tilt":
            across[name], up[name] = _turned(u, v, -cos_r * turned, -sin_r * turned, np.zeros(1))
        elif name == "roll":
            across[name], up[name] = -v * turned, u * turned
        elif name == "zoom":
            grown = step / poses.lens
            across[name], up[name] = u * grown, v * grown
        elif name in ("slide", "rise") and depth_mm is not None:
            seen = turn(poses, step, 0.0, 0.0) if name == "slide" else turn(poses, 0.0, 0.0, step)
            across[name] = (-seen.right + u * seen.ahead) / depth_mm
            up[name] = (-seen.up + v * seen.ahead) / depth_mm
    return Flow(across, up)


def _turned(u: Floats, v: Floats, right: Floats, upward: Floats, ahead: Floats) -> tuple[Floats, Floats]:
    """The shift by a turn of the camera: to the right about `upward`, down about `right`, clockwise about `ahead`."""
    across = -(1 + u * u) * upward + u * v * right + v * ahead
    up = -u * v * upward + (1 + v * v) * right - u * ahead
    return across, up
