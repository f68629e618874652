"""Lens rings: how far a ring is turned for a focus distance or a focal length, and the way back."""

import numpy as np

from bridle.core.subjects.numbers.arrays import Floats

Ring = tuple[tuple[float, float], ...]


def _scaled(values: Floats, reciprocal: bool) -> Floats:
    """Focus goes by the reciprocal of the distance, as the lens moves out; zoom by the logarithm of its length."""
    return np.asarray(-1 / values if reciprocal else np.log(values))


def turned(values: Floats, ring: Ring, reciprocal: bool) -> Floats:
    """The turn of the ring in degrees, from marks (turn, value); straight between marks, held at the ends."""
    turns, marks = (np.array(column) for column in zip(*ring, strict=True))
    order = np.argsort(marks)
    return np.asarray(np.interp(_scaled(values, reciprocal), _scaled(marks[order], reciprocal), turns[order]))


def set_to(turns: Floats, ring: Ring, reciprocal: bool) -> Floats:
    """What the lens is set to at these turns of the ring; the other way round of `turned`."""
    at, marks = (np.array(column) for column in zip(*ring, strict=True))
    scaled = np.interp(turns, at, _scaled(marks, reciprocal))
    return np.asarray(-1 / scaled if reciprocal else np.exp(scaled))
