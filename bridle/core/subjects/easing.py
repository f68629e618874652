"""Eased moves: how far a move has come at each frame, with constant acceleration at its ends."""

from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from bridle.core.figure import Formula

Floats = NDArray[np.float64]

CRUISE = Formula(
    "distance / (steps - (ease_in + ease_out) / 2)",
    "constant acceleration in and out: the area under the pace is the distance",
)
EASING_IN = Formula("start + pace * gone**2 / (2 * ease_in)", "constant acceleration from rest")
CRUISING = Formula("start + pace * (gone - ease_in / 2)", "an even pace, once the ease is done")
EASING_OUT = Formula("end - pace * left**2 / (2 * ease_out)", "constant deceleration to rest")
STANDING = Formula("0 * distance", "a single frame: nothing moves")


class Ease(NamedTuple):
    """Frames to reach speed and to lose it, as they are used, and whether they had to be shortened."""

    frames_in: float
    frames_out: float
    scaled: bool


def fit_ease(frames_in: float, frames_out: float, steps: int) -> Ease:
    """Ease for a move of `steps` steps; both ends are scaled alike where they do not fit."""
    asked = frames_in + frames_out
    if asked <= steps:
        return Ease(frames_in, frames_out, False)
    return Ease(frames_in * steps / asked, frames_out * steps / asked, True)


def cruise(distance: float, steps: int, ease: Ease) -> float:
    """The pace between the eases, in distance per frame; 0 for a move of no steps."""
    return distance / (steps - (ease.frames_in + ease.frames_out) / 2) if steps else 0.0


def _share(k: Floats, steps: int, ease: Ease) -> Floats:
    pace = cruise(1.0, steps, ease)
    u = pace * (k - ease.frames_in / 2)
    if ease.frames_in > 0:
        u = np.where(k < ease.frames_in, pace * k * k / (2 * ease.frames_in), u)
    if ease.frames_out > 0:
        left = steps - k
        u = np.where(left < ease.frames_out, 1 - pace * left * left / (2 * ease.frames_out), u)
    return u


def progress(steps: int, ease: Ease) -> Floats:
    """The share of the way at frames 0 to `steps`: exactly 0 and 1 at the ends, never falling. Shape (steps+1,)."""
    k = np.arange(steps + 1, dtype=np.float64)
    if steps == 0:
        return k
    u = _share(k, steps, ease)
    u[0], u[-1] = 0.0, 1.0
    return np.clip(u, 0.0, 1.0)


def position(start: float, end: float, frame: int, steps: int, ease: Ease) -> tuple[Formula, float]:
    """The position at one frame (0-based), and the rule that gives it there."""
    pace, left = cruise(end - start, steps, ease), steps - frame
    if frame < ease.frames_in:
        return EASING_IN, start + pace * frame**2 / (2 * ease.frames_in)
    if left < ease.frames_out:
        return EASING_OUT, end - pace * left**2 / (2 * ease.frames_out)
    return CRUISING, start + pace * (frame - ease.frames_in / 2)


def between(start: float, end: float, share: Floats) -> Floats:
    """Positions from start to end at shares of the way; exact at 0 and 1 and never outside."""
    positions = start * (1 - share) + end * share
    return np.clip(positions, min(start, end), max(start, end))
