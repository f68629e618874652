"""Shutter times as cameras offer them, in steps of a third of a stop."""

import math
from fractions import Fraction

# The labels in common use from 1/8000 s to 30 s; the source is the standard third-stop series.
_FRACTIONS = (
    "8000 6400 5000 4000 3200 2500 2000 1600 1250 1000 800 640 500 400 320 250 200 160 125 100 80 60 50 40 "
    "30 25 20 15 13 10 8 6 5 4"
)
_SECONDS = "0.3 0.4 0.5 0.6 0.8 1 1.3 1.6 2 2.5 3.2 4 5 6 8 10 13 15 20 25 30"
LABELS: tuple[Fraction, ...] = tuple(Fraction(1, int(n)) for n in _FRACTIONS.split()) + tuple(
    Fraction(s) for s in _SECONDS.split()
)


def at_most(seconds: float) -> Fraction | None:
    """The longest shutter time on the dial that is not longer; None below the shortest."""
    fitting = [label for label in LABELS if float(label) <= seconds + 1e-12]
    return fitting[-1] if fitting else None


def nearest(seconds: float) -> Fraction:
    """The time on the dial that is nearest, in stops."""
    return min(LABELS, key=lambda label: abs(math.log2(float(label) / seconds)))


def stops_between(longer: float, shorter: float) -> float:
    """How many stops darker the shorter exposure is."""
    return math.log2(longer / shorter)
