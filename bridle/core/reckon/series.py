"""Quantities along the frames, thinned so that their own extremes stay."""

from dataclasses import dataclass

import numpy as np

from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.numbers.thinning import kept_indices


@dataclass(frozen=True, slots=True, kw_only=True)
class Series:
    """A quantity along the frames (0-based): its values at some of them, straight lines between.

    A long one keeps its own extremes, at frames of its own. Without frames the values stand for every frame one after
    another; a single value stands for all.
    """

    frames: tuple[int, ...] = ()
    values: tuple[float, ...]


def series(values: Floats, points: int, digits: int = 3) -> Series:
    """Values along the frames, rounded as finely as can be drawn."""
    first = round(float(values[0]), digits)
    if (values == values[0]).all():
        return Series(frames=(), values=(first,))
    picked = kept_indices(values, points)
    frames = () if len(picked) == len(values) else tuple(picked.tolist())
    return Series(frames=frames, values=tuple(np.round(values[picked], digits).tolist()))
