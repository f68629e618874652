"""What the camera sees: points of the scene in the picture, and how fast they pass through it.

The scene has x along the rail, y away from it, z upwards. A picture's coordinates are tangents: `across` to the
right and `up` from the middle, in multiples of the focal length; times focal length over sensor side they are
shares of that side.
"""

import math
from collections.abc import Hashable, Iterable, Mapping
from dataclasses import dataclass, field
from functools import cached_property
from types import MappingProxyType
from typing import TypeAlias

import numpy as np
from numpy.typing import NDArray

from bridle.core.subjects.numbers.arrays import Floats

# Nothing nearer than this in front of the lens is taken to be in the picture.
NEAREST_MM = 1.0
FAR_MM = 1e9
Way: TypeAlias = float | Floats
# Bearing from north and altitude of what goes with the sky, one entry a frame, in degrees.
Far: TypeAlias = Mapping[Hashable, tuple[Floats, Floats]]
NOTHING_FAR: Far = MappingProxyType({})


@dataclass(frozen=True)
class Lean:
    """How the axis of the pan leans: by `by` degrees from upright, its top towards `toward` degrees of pan."""

    by: float
    toward: float

    def into_head(self, dx: Way, dy: Way, dz: Way) -> tuple[Way, Way, Way]:
        """A vector of the scene as the leaned head has it: what the pan turns in is its level."""
        return self._turned(dx, dy, dz, math.radians(self.by))

    def out_of_head(self, dx: Way, dy: Way, dz: Way) -> tuple[Way, Way, Way]:
        """A vector of the leaned head as the scene has it."""
        return self._turned(dx, dy, dz, -math.radians(self.by))

    def _turned(self, dx: Way, dy: Way, dz: Way, angle: float) -> tuple[Way, Way, Way]:
        """About the level line square to the lean: what points that way goes up by the angle."""
        cos, sin = math.cos(angle), math.sin(angle)
        east, north = math.sin(math.radians(self.toward)), math.cos(math.radians(self.toward))
        along = dx * east + dy * north
        further = along * (cos - 1) - dz * sin
        return dx + further * east, dy + further * north, along * sin + dz * cos


@dataclass(frozen=True)
class Poses:
    """Where the camera stands and points, one entry a frame; lengths in mm, angles in degrees.

    Pan, tilt and roll are those of the axes. Where the head leans, its level is not that of the scene. `far` are the
    bearings from north and altitudes of what goes with the sky meanwhile.
    """

    x: Floats
    z: Floats
    pan: Floats
    tilt: Floats
    roll: Floats
    focal: Floats
    leaned: Lean | None = None
    far: Far = field(default_factory=dict)

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
        return self._picked(frames)

    def at(self, index: int) -> "Poses":
        """One frame's pose."""
        return self._picked(slice(index, index + 1))

    def before(self) -> "Poses":
        """Those of all frames but the last."""
        return self._picked(slice(None, -1))

    def _picked(self, frames: NDArray[np.int64] | slice) -> "Poses":
        x, z, pan, tilt, roll, focal = (
            values[frames] for values in (self.x, self.z, self.pan, self.tilt, self.roll, self.focal)
        )
        far = {body: (turn[frames], up[frames]) for body, (turn, up) in self.far.items()}
        return Poses(x, z, pan, tilt, roll, focal, self.leaned, far)

    @cached_property
    def views(self) -> tuple[Floats, Floats, Floats]:
        """Where the camera looks and how it stands in the scene: bearing from the normal, height, roll; in degrees."""
        if self.leaned is None:
            return self.pan, self.tilt, self.roll
        cos_p, sin_p, cos_t, sin_t, cos_r, sin_r = self.turned
        ones = np.ones(len(self))
        ahead = sin_p * cos_t * ones, cos_p * cos_t * ones, sin_t * ones
        right = cos_p * ones, -sin_p * ones, 0 * ones
        up = -sin_p * sin_t * ones, -cos_p * sin_t * ones, cos_t * ones
        (x, y, z), (*_, r), (*_, u) = (self.leaned.out_of_head(*way) for way in (ahead, right, up))
        # The turn that lies nearest to the pan, so that nothing jumps where it passes behind the rail.
        bearing = self.pan + (np.degrees(np.arctan2(x, y)) - self.pan + 180) % 360 - 180
        rolled = np.arctan2(-(r * cos_r - u * sin_r), u * cos_r + r * sin_r)
        return bearing, np.degrees(np.arctan2(z, np.hypot(x, y))), np.degrees(rolled)


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
    """A vector of the scene in camera coordinates: pan clockwise about its axis, then tilt up, then roll.

    Vectors of shape (frames,), (points, frames), or one for all.
    """
    cos_p, sin_p, cos_t, sin_t, cos_r, sin_r = poses.turned
    if poses.leaned is not None:
        dx, dy, dz = poses.leaned.into_head(dx, dy, dz)
    right, level = dx * cos_p - dy * sin_p, dx * sin_p + dy * cos_p
    ahead, up = level * cos_t + dz * sin_t, dz * cos_t - level * sin_t
    # A roll to the right (clockwise from behind) turns the scene to the left in the picture.
    level_head = sin_r.size == 1 and not sin_r[0]
    ways = (right, up, ahead) if level_head else (right * cos_r - up * sin_r, right * sin_r + up * cos_r, ahead)
    shape = np.broadcast(*ways, poses.x).shape
    return Seen(*(way if way.shape == shape else np.broadcast_to(way, shape) for way in ways))


Triple: TypeAlias = tuple[float | Floats, float | Floats, float | Floats]
NOUGHT: Triple = (0.0, 0.0, 0.0)


def directions(poses: Poses, u: float | Floats, v: float | Floats) -> tuple[Floats, Floats]:
    """Where a point of the picture (right and up over ahead) lies in the scene: bearing from the normal, and altitude.

    In degrees, shape (frames,); the way back from `see_far`.
    """
    cos_p, sin_p, cos_t, sin_t, cos_r, sin_r = poses.turned
    right, up = u * cos_r + v * sin_r, v * cos_r - u * sin_r
    level, dz = cos_t - up * sin_t, sin_t + up * cos_t
    ones = np.ones(len(poses))
    ways = right * cos_p + level * sin_p, level * cos_p - right * sin_p, dz
    scene: Triple = ways if poses.leaned is None else poses.leaned.out_of_head(*ways)
    dx, dy, dz = (way * ones for way in scene)
    return np.degrees(np.arctan2(dx, dy)), np.degrees(np.arctan2(dz, np.hypot(dx, dy)))


@dataclass(frozen=True)
class Motion:
    """What one step does to the picture, of one axis or of all.

    `turn` is how far the camera turns about its own right, up and forward, in radians: down, to the right, clockwise.
    `goes` is how far it goes right, up and ahead, in shares of the distance of what it passes. `grows` is by which
    share the picture grows.
    """

    turn: Triple = NOUGHT
    goes: Triple = NOUGHT
    grows: float | Floats = 0.0

    def at(self, u: float | Floats, v: float | Floats) -> tuple[float | Floats, float | Floats]:
        """The shift across and up at a point of the picture, in tangents.

        The equations are those of optical flow: a turn shifts a point by `u·v·right − (1 + u²)·up + v·ahead` across.
        """
        right, upward, forward = self.turn
        aside, rises, nearer = self.goes
        grows = nearer + self.grows
        across = u * v * right - (1 + u * u) * upward + v * forward - aside + u * grows
        up = (1 + v * v) * right - u * v * upward - u * forward - rises + v * grows
        return across, up


def motions(poses: Poses, steps: dict[str, Floats], depth_mm: float | Floats | None) -> dict[str, Motion]:
    """What each axis does to the picture at each step, its steps given in mm and degrees.

    Linear axes (`slide` along the level, `rise` upwards) shift what stands at `depth_mm` ahead; None: that is not
    known, and they are left out.
    """
    _, _, cos_t, sin_t, cos_r, sin_r = poses.turned
    made = {}
    for name, step in steps.items():
        turned = np.radians(step)
        if name == "pan":
            # About its own axis, as the tilted and rolled camera has it: clockwise seen from above.
            made[name] = Motion(turn=(-cos_t * sin_r * turned, cos_t * cos_r * turned, sin_t * turned))
        elif name == "tilt":
            made[name] = Motion(turn=(-cos_r * turned, -sin_r * turned, 0.0))
        elif name == "roll":
            made[name] = Motion(turn=(0.0, 0.0, -turned))
        elif name == "zoom":
            made[name] = Motion(grows=step / poses.lens)
        elif name in ("slide", "rise") and depth_mm is not None:
            way = turn(poses, step, 0.0, 0.0) if name == "slide" else turn(poses, 0.0, 0.0, step)
            made[name] = Motion(goes=(way.right / depth_mm, way.up / depth_mm, way.ahead / depth_mm))
    return made


def together(all_of: Iterable[Motion]) -> Motion:
    """Several motions at once: small ones add up."""
    whole = Motion()
    for motion in all_of:
        turns, ways = _added(whole.turn, motion.turn), _added(whole.goes, motion.goes)
        whole = Motion(turns, ways, whole.grows + motion.grows)
    return whole


def _added(one: Triple, other: Triple) -> Triple:
    return one[0] + other[0], one[1] + other[1], one[2] + other[2]
