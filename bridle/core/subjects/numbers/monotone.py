"""Monotone cubic curves: through every given point, and nowhere above or below its two neighbours."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from bridle.core.figure import Formula
from bridle.core.subjects.numbers.arrays import Floats

# Fritsch and Butland's slopes: a weighted harmonic mean of the slopes on both sides, 0 at every turn.
CUBIC = Formula(
    "left * (1 + 2 * t) * (1 - t)**2 + right * t**2 * (3 - 2 * t)"
    " + gap * (slope_left * t * (1 - t)**2 - slope_right * t**2 * (1 - t))",
    "a cubic between two keyframes, with slopes that keep it from overshooting",
)


def slopes(x: Floats, y: Floats) -> Floats:
    """The slope at each point, shape (n,), for rising `x` (n ≥ 2); one-sided at the ends."""
    gaps = np.diff(x)
    rises = np.diff(y) / gaps
    if len(x) == 2:
        return np.array([rises[0], rises[0]])
    inner = np.zeros(len(x) - 2)
    along = rises[:-1] * rises[1:] > 0
    before, after = 2 * gaps[1:] + gaps[:-1], gaps[1:] + 2 * gaps[:-1]
    with np.errstate(divide="ignore", invalid="ignore", over="ignore"):
        mean = (before + after) / (before / rises[:-1] + after / rises[1:])
    inner[along] = mean[along]
    first = _end_slope(gaps[0], gaps[1], rises[0], rises[1])
    last = _end_slope(gaps[-1], gaps[-2], rises[-1], rises[-2])
    return np.concatenate(([first], inner, [last]))


def _end_slope(gap: float, next_gap: float, rise: float, next_rise: float) -> float:
    """Three points' slope at an end, held within what cannot overshoot."""
    slope = ((2 * gap + next_gap) * rise - gap * next_rise) / (gap + next_gap)
    if slope * rise <= 0:
        return 0.0
    if rise * next_rise <= 0 and abs(slope) > 3 * abs(rise):
        return 3 * rise
    return float(slope)


@dataclass(frozen=True)
class Within:
    """Places within the points of a curve: the piece each lies in, and what its ends and slopes count there."""

    x: Floats
    piece: NDArray[np.int64]
    left: Floats
    right: Floats
    slope_left: Floats
    slope_right: Floats


def within(x: Floats, at: Floats) -> Within:
    """Places along points at `x` (rising, two or more): what all curves through such points share."""
    at = np.clip(at, x[0], x[-1])
    piece = np.clip(np.searchsorted(x, at, side="right") - 1, 0, len(x) - 2)
    gap = np.diff(x)[piece]
    t = (at - x[piece]) / gap
    s, both = 1 - t, gap * t * (1 - t)
    return Within(x, piece, (1 + 2 * t) * s * s, (3 - 2 * t) * t * t, both * s, both * t)


def through(y: Floats, at: Within) -> Floats:
    """The curve through the points of these heights; exact at them, shape of the places."""
    low, high, m = y[at.piece], y[at.piece + 1], slopes(at.x, y)
    value = low * at.left + high * at.right + m[at.piece] * at.slope_left - m[at.piece + 1] * at.slope_right
    return np.clip(value, np.minimum(low, high), np.maximum(low, high))


def curve(x: Floats, y: Floats, at: Floats) -> Floats:
    """The curve through the points (x rising) at places within them; exact at the points, shape of `at`."""
    return np.full(np.shape(at), y[0]) if len(x) == 1 else through(y, within(x, at))
