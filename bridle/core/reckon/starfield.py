"""How fast stars pass through the picture: at its centre, in its middle two thirds, and out to its corners."""

from dataclasses import dataclass
from typing import TypeAlias

import numpy as np

from bridle.core.plan.document import Plan
from bridle.core.plan.light import StarsIn
from bridle.core.reckon.picture import kept
from bridle.core.reckon.poses import normal_deg
from bridle.core.subjects.light import trails
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.optics import projecting
from bridle.core.subjects.optics.projecting import Poses

# How much of half the picture's width and height each part has, from the centre out.
SHARE: dict[StarsIn, float] = {"centre": 0.0, "middle": 2 / 3, "corner": 1.0}
# Where in a part it is looked for what passes fastest, in halves of its width and height.
GRID = np.linspace(-1, 1, 9)


@dataclass(frozen=True)
class Fastest:
    """What passes fastest through a part of the picture, one entry a frame; no number where no sky is in that part.

    Delivered pixels a second; the declination there and delivered pixels per degree along the star's way, which makes
    it `15.04″ · cos δ · scale`; where it is: right and up of the centre, in halves of the picture.
    """

    px_s: Floats
    declination_deg: Floats
    px_per_deg: Floats
    right: Floats
    up: Floats


def fastest(plan: Plan, at: Poses, latitude_deg: float, part: StarsIn) -> Fastest:
    """The fastest star of each frame, shape (frames,)."""
    frame, share = kept(plan), SHARE[part]
    places = GRID * share if share else np.zeros(1)
    right, up = (axis.ravel()[None, :] for axis in np.meshgrid(places, places))
    ahead = at.focal[:, None]
    across, above = right * frame.width_mm / 2 / ahead, up * frame.height_mm / 2 / ahead
    basis = _basis(plan, at)
    pole, zenith = _seen(basis, latitude_deg), _seen(basis, 90.0)
    off = np.sqrt(1 + across**2 + above**2)
    # How a point of the picture moves as the sky turns: the turn about the pole, seen through the lens.
    x, y, z = pole[1] - pole[2] * above, pole[2] * across - pole[0], pole[0] * above - pole[1] * across
    turned = trails.DRIFT_RAD_S * np.hypot(x - across * z, y - above * z)
    speed = turned * ahead * frame.width_px / frame.width_mm
    sine = (pole[0] * across + pole[1] * above + pole[2]) / off
    height = zenith[0] * across + zenith[1] * above + zenith[2]
    speed = np.where(height > 0, speed, np.nan)
    return _worst(speed, sine, right, up)


def _worst(speed: Floats, sine: Floats, right: Floats, up: Floats) -> Fastest:
    """The fastest point of each frame."""
    none = np.isnan(speed).all(axis=1)
    which = np.where(none, 0, np.nanargmax(np.where(np.isnan(speed), -1.0, speed), axis=1))
    rows = np.arange(len(speed))
    px_s = np.where(none, np.nan, speed[rows, which])
    declination = np.where(none, np.nan, np.degrees(np.arcsin(np.clip(sine[rows, which], -1, 1))))
    # A star on the pole itself stays where it is, whatever its scale.
    drift = trails.DRIFT_ARCSEC_S / 3600 * np.maximum(np.cos(np.radians(declination)), 1e-9)
    return Fastest(px_s, declination, px_s / drift, right[0, which], up[0, which])


Vector: TypeAlias = tuple[Floats, Floats, Floats]


def _basis(plan: Plan, at: Poses) -> tuple[Vector, Vector, Vector]:
    """Right, up and ahead of the camera, each as east, north and up, shape (frames,)."""
    ahead, *others = (_vector(plan, at, *way) for way in ((0.0, 0.0), (1.0, 0.0), (0.0, 1.0)))
    # A point as far to the right as ahead lies at 45 degrees between the two.
    right, up = (tuple(np.sqrt(2) * one - two for one, two in zip(way, ahead, strict=True)) for way in others)
    return right, up, ahead


def _seen(basis: tuple[Vector, Vector, Vector], altitude_deg: float) -> Vector:
    """A direction that lies due north so high, as the camera has it: right, up and ahead, shape (frames, 1) each."""
    north, high = np.cos(np.radians(altitude_deg)), np.sin(np.radians(altitude_deg))
    x, y, z = ((way[1] * north + way[2] * high)[:, None] for way in basis)
    return x, y, z


def _vector(plan: Plan, at: Poses, across: float, above: float) -> Vector:
    """Where a point of the picture lies: east, north and up, a vector of length 1."""
    bearing, height = projecting.directions(at, across, above)
    turn, tall = np.radians(bearing + normal_deg(plan)), np.radians(height)
    return np.sin(turn) * np.cos(tall), np.cos(turn) * np.cos(tall), np.sin(tall)
