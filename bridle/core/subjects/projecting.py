"""What the camera sees: points of the scene in the picture, and how fast they pass through it.

The scene has x along the rail, y away from it, z upwards. A picture's coordinates are tangents: `across` to the
right and `up` from the middle, in multiples of the focal length; times focal length over sensor side they are
shares of that side.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from bridle.core.subjects.easing import Floats

# Nothing nearer than this in front of the lens is taken to be in the picture.
NEAREST_MM = 1.0


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

    def at(self, index: int) -> "Poses":
        """One frame's pose."""
        one = slice(index, index + 1)
        return Poses(self.x[one], self.z[one], self.pan[one], self.tilt[one], self.roll[one], self.focal[one])


@dataclass(frozen=True)
class Seen:
    """A point in the camera's own coordinates, in mm: right, up, ahead. Shapes (frames,)."""

    right: Floats
    up: Floats
    ahead: Floats

    @property
    def in_front(self) -> NDArray[np.bool_]:
        """Whether it lies before the lens."""
        return self.ahead > NEAREST_MM

    def across(self) -> Floats:
        """Right over ahead; not a number behind the lens."""
        return np.where(self.in_front, self.right / np.where(self.in_front, self.ahead, 1.0), np.nan)

    def above(self) -> Floats:
        """Up over ahead; not a number behind the lens."""
        return np.where(self.in_front, self.up / np.where(self.in_front, self.ahead, 1.0), np.nan)


def see(poses: Poses, x: float | Floats, y: float | Floats, z: float | Floats) -> Seen:
    """A point of the scene in the camera's coordinates at every frame; several points in a column (points, 1)."""
    return turn(poses, np.asarray(x) - poses.x, np.asarray(y) + 0.0 * poses.x, z - poses.z)


def see_far(poses: Poses, bearing: float | Floats, altitude: float | Floats) -> Seen:
    """A direction, from the rail's normal clockwise and above the horizon, in degrees: something very far away."""
    b, a = np.radians(bearing), np.radians(altitude)
    reach = 1e9 * np.ones_like(poses.x)
    return turn(poses, np.cos(a) * np.sin(b) * reach, np.cos(a) * np.cos(b) * reach, np.sin(a) * reach)


def turn(poses: Poses, dx: Floats, dy: Floats, dz: Floats) -> Seen:
    """A vector of the scene in camera coordinates: pan clockwise about the vertical, then tilt up, then roll."""
    p, t, r = np.radians(poses.pan), np.radians(poses.tilt), np.radians(poses.roll)
    right, level = dx * np.cos(p) - dy * np.sin(p), dx * np.sin(p) + dy * np.cos(p)
    ahead, up = level * np.cos(t) + dz * np.sin(t), dz * np.cos(t) - level * np.sin(t)
    # A roll to the right (clockwise from behind) turns the scene to the left in the picture.
    return Seen(right * np.cos(r) - up * np.sin(r), right * np.sin(r) + up * np.cos(r), ahead)


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
    t, r = np.radians(poses.tilt), np.radians(poses.roll)
    nought = np.zeros(len(poses))
    across, up = {}, {}
    for name, step in steps.items():
        turned = np.radians(step)
        if name == "pan":
            # About the vertical, as the tilted and rolled camera has it: clockwise seen from above.
            right, upward, ahead = -np.cos(t) * np.sin(r) * turned, np.cos(t) * np.cos(r) * turned, np.sin(t) * turned
            across[name], up[name] = _turned(u, v, right, upward, ahead)
        elif name == "tilt":
            across[name], up[name] = _turned(u, v, -np.cos(r) * turned, -np.sin(r) * turned, nought)
        elif name == "roll":
            across[name], up[name] = -v * turned, u * turned
        elif name == "zoom":
            grown = step / poses.focal
            across[name], up[name] = u * grown, v * grown
        elif name in ("slide", "rise") and depth_mm is not None:
            seen = turn(poses, step, nought, nought) if name == "slide" else turn(poses, nought, nought, step)
            across[name] = (-seen.right + u * seen.ahead) / depth_mm
            up[name] = (-seen.up + v * seen.ahead) / depth_mm
    return Flow(across, up)


def _turned(u: Floats, v: Floats, right: Floats, upward: Floats, ahead: Floats) -> tuple[Floats, Floats]:
    """The shift by a turn of the camera: to the right about `upward`, down about `right`, clockwise about `ahead`."""
    across = -(1 + u * u) * upward + u * v * right + v * ahead
    up = -u * v * upward + (1 + v * v) * right - u * ahead
    return across, up
