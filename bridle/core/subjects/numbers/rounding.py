"""Floors and ceilings on steps, exact for ratios; peaks. Guarded against float noise where numbers are floats."""

import math
from fractions import Fraction

import numpy as np

from bridle.core.subjects.numbers.arrays import Floats

GUARD = 1e-9


def ceil_to(value: float | Fraction, step: Fraction) -> Fraction:
    """The smallest multiple of the step that is not below the value; the value itself where the step is 0."""
    if step == 0:
        return Fraction(value)
    steps = value / step if isinstance(value, Fraction) else value / float(step) - GUARD
    return math.ceil(steps) * step


def floor_to(value: float | Fraction, step: Fraction) -> Fraction:
    """The largest multiple of the step that is not above the value; the value itself where the step is 0."""
    if step == 0:
        return Fraction(value)
    steps = value / step if isinstance(value, Fraction) else value / float(step) + GUARD
    return math.floor(steps) * step


def nearest(value: Fraction) -> int:
    """The nearest whole number, halves upwards."""
    return math.floor(value + Fraction(1, 2))


def first_peak(values: Floats) -> int:
    """The first place at which values are as large as they get: float noise does not decide between those alike."""
    most = values.max()
    return int(np.argmax(values >= most - GUARD * abs(most)))
