"""Tracking: where the camera has to point to keep something in its place, and where that something is."""

import itertools
import math
from typing import NamedTuple

import numpy as np

from bridle.core.figure import Formula
from bridle.core.subjects.numbers.arrays import Floats

AWAY = Formula(
    "(second - first) / (tan(radians(pan_1)) - tan(radians(pan_2)))", "two aims from a known base meet at the mark"
)
ALONG = Formula("first + away * tan(radians(pan_1))", "from where the first aim was taken")


def aim(right: Floats, away: Floats) -> Floats:
    """The pan that points at what lies so far to the right and away, in degrees; `θ = atan2(right, away)`."""
    return np.asarray(np.degrees(np.arctan2(right, away)))


def aim_up(right: Floats, away: Floats, up: Floats) -> Floats:
    """The tilt that points at what lies that way, in degrees; `atan2(up, hypot(right, away))`."""
    return np.asarray(np.degrees(np.arctan2(up, np.hypot(right, away))))


class Found(NamedTuple):
    """A mark found by aiming twice, in mm, and between which places it lies: (low, high) along and away."""

    x_mm: float
    y_mm: float
    along_mm: tuple[float, float]
    away_mm: tuple[float, float]


def meet(first: float, second: float, pan_1: float, pan_2: float) -> tuple[float, float]:
    """Where two aims meet: along the rail and away from it, in mm."""
    one, two = math.tan(math.radians(pan_1)), math.tan(math.radians(pan_2))
    away = (second - first) / (one - two)
    return first + away * one, away


def aimed_twice(first: float, second: float, pan_1: float, pan_2: float, doubt: float) -> Found:
    """Where two aims meet, from two places along the rail; the worst of the four corners at ± the doubt.

    Raises ValueError where the aims do not meet before the rail, or might not for all that is known.
    """
    corners = []
    for off_1, off_2 in itertools.product((-doubt, doubt), repeat=2):
        corner = pan_1 + off_1, pan_2 + off_2
        if max(abs(angle) for angle in corner) >= 89 or (corner[0] - corner[1]) * (second - first) <= 0:
            raise ValueError("the two aims might as well be parallel")
        corners.append(meet(first, second, *corner))
    x, y = meet(first, second, pan_1, pan_2)
    xs, ys = [corner[0] for corner in corners], [corner[1] for corner in corners]
    return Found(x, y, (min(xs), max(xs)), (min(ys), max(ys)))


def beside(wanted: Floats, up: Floats, tilt: Floats) -> Floats:
    """How far to the right of a point the camera has to pan so that the point is seen at `wanted` (a tangent).

    All angles in radians: `up` is how high the point stands above the level. A camera that is panned by `e` away
    from it sees it at `cos(up)·sin(e) / (cos(up)·cos(e)·cos(tilt) + sin(up)·sin(tilt))`; solved for `e`.
    """
    # a·sin(e) = wanted·(b·cos(e) + c): one sine of a shifted angle.
    a, b, c = np.cos(up), np.cos(up) * np.cos(tilt), np.sin(up) * np.sin(tilt)
    size = np.hypot(a, wanted * b)
    sine = np.where(size > 0, wanted * c / np.where(size > 0, size, 1.0), 0.0)
    return np.asarray(-(np.arctan2(wanted * b, a) + np.arcsin(np.clip(sine, -1, 1))))
