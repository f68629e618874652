"""Eased moves: how far a move has come at each frame, with constant acceleration or an S-curve at its ends."""

from typing import Literal, NamedTuple

import numpy as np

from bridle.core.figure import Formula
from bridle.core.subjects.numbers.arrays import Floats

Curve = Literal["constant", "s-curve"]

CRUISE = Formula(
    "distance / (steps - (ease_in + ease_out) / 2)",
    "the area under the pace is the distance; either curve takes half of it while easing",
)
STANDING = Formula("0 * distance", "a single frame: nothing moves")
CRUISING = Formula("pace * (gone - ease_in / 2)", "an even pace, once the ease is done")
EASING_IN = Formula("pace * gone**2 / (2 * ease_in)", "constant acceleration from rest")
EASING_OUT = Formula("1 - pace * left**2 / (2 * ease_out)", "constant deceleration to rest")
EASING_IN_S = Formula("pace * ease_in * ((gone / ease_in)**3 - (gone / ease_in)**4 / 2)", "the pace rises as 3τ² − 2τ³")
EASING_OUT_S = Formula(
    "1 - pace * ease_out * ((left / ease_out)**3 - (left / ease_out)**4 / 2)", "the pace falls as it rose"
)


class Ease(NamedTuple):
    """Frames to reach speed and to lose it, as they are used, and whether they had to be shortened."""

    frames_in: float
    frames_out: float
    scaled: bool
    curve: Curve = "constant"


def fit_ease(frames_in: float, frames_out: float, steps: float, curve: Curve = "constant") -> Ease:
    """Ease for a move of `steps` steps; both ends are scaled alike where they do not fit."""
    asked = frames_in + frames_out
    if asked <= steps:
        return Ease(frames_in, frames_out, False, curve)
    return Ease(frames_in * steps / asked, frames_out * steps / asked, True, curve)


def cruise(distance: float, steps: float, ease: Ease) -> float:
    """The pace between the eases, in distance per frame; 0 for a move of no steps."""
    return distance / (steps - (ease.frames_in + ease.frames_out) / 2) if steps else 0.0


def _ramp(gone: Floats, length: float, pace: float, curve: Curve) -> Floats:
    """The share of the way after a time of speeding up from rest, within the ramp."""
    if curve == "constant":
        return pace * gone * gone / (2 * length)
    t = gone / length
    return pace * length * (t**3 - t**4 / 2)


def share(k: Floats, steps: float, ease: Ease) -> Floats:
    """The share of the way after `k` frames (0 to `steps`, whole or not): 0 and 1 at the ends, never falling."""
    if steps == 0:
        return np.zeros_like(k)
    pace = cruise(1.0, steps, ease)
    u = pace * (k - ease.frames_in / 2)
    if ease.frames_in > 0:
        u = np.where(k < ease.frames_in, _ramp(np.minimum(k, ease.frames_in), ease.frames_in, pace, ease.curve), u)
    if ease.frames_out > 0:
        left = steps - k
        falling = _ramp(np.minimum(left, ease.frames_out), ease.frames_out, pace, ease.curve)
        u = np.where(left < ease.frames_out, 1 - falling, u)
    u = np.clip(u, 0.0, 1.0)
    return np.where(k <= 0, 0.0, np.where(k >= steps, 1.0, u))


def progress(steps: int, ease: Ease) -> Floats:
    """The share of the way at frames 0 to `steps`. Shape (steps+1,)."""
    return share(np.arange(steps + 1, dtype=np.float64), steps, ease)


def share_formula(frame: float, steps: float, ease: Ease) -> Formula:
    """The rule that gives the share of the way at a frame."""
    if frame < ease.frames_in:
        return EASING_IN if ease.curve == "constant" else EASING_IN_S
    if steps - frame < ease.frames_out:
        return EASING_OUT if ease.curve == "constant" else EASING_OUT_S
    return CRUISING
