"""Monotone cubic curves: through every given point, and nowhere above or below its two neighbours."""

import numpy as np

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


def curve(x: Floats, y: Floats, at: Floats) -> Floats:
    """The curve through the points (x rising) at places within them; exact at the points, shape of `at`."""
    if len(x) == 1:
        return np.full(np.shape(at), y[0])
    at = np.clip(at, x[0], x[-1])
    piece = np.clip(np.searchsorted(x, at, side="right") - 1, 0, len(x) - 2)
    gap, m = np.diff(x)[piece], slopes(x, y)
    t = (at - x[piece]) / gap
    left, right, s = y[piece], y[piece + 1], 1 - t
    value = left * (1 + 2 * t) * s * s + right * t * t * (3 - 2 * t)
    value = value + gap * (m[piece] * t * s * s - m[piece + 1] * t * t * s)
    held = np.clip(value, np.minimum(left, right), np.maximum(left, right))
    return np.where(t == 0, left, np.where(t == 1, right, held))
