"""What can be dialled: shutter, ISO and aperture in steps of a third, a half or a whole stop, by their true values.

A setting is a whole number of steps: a shutter of n steps is `2^(n/s)` seconds, an ISO `100 · 2^(n/s)`, an aperture
`2^(n/2s)`, with s steps a stop. So what is engraved as 30 s is really 32, and 1/125 is 1/128.
"""

import math
from bisect import bisect_left, bisect_right
from functools import cache, lru_cache
from typing import Literal, NamedTuple

from bridle.core.figure import Formula

Step = Literal["third", "half", "full"]
Dial = Literal["shutter", "iso", "aperture"]
STEPS_A_STOP: dict[Step, int] = {"third": 3, "half": 2, "full": 1}
EV = Formula("log2(f_number**2 / shutter) - log2(iso / 100)", "the exposure value of a setting, at ISO 100")
EV_ND = Formula(
    "log2(f_number**2 / shutter) - log2(iso / 100) + density",
    "the exposure value of a setting at ISO 100, and what the filter takes",
)

# The labels in common use, by steps a stop: the least of each row stands at that many steps.
_SHUTTER = {
    3: (-39, "1/8000 1/6400 1/5000 1/4000 1/3200 1/2500 1/2000 1/1600 1/1250 1/1000 1/800 1/640 1/500 1/400 1/320 "
        "1/250 1/200 1/160 1/125 1/100 1/80 1/60 1/50 1/40 1/30 1/25 1/20 1/15 1/13 1/10 1/8 1/6 1/5 1/4 0.3 0.4 0.5 "
        "0.6 0.8 1 1.3 1.6 2 2.5 3.2 4 5 6 8 10 13 15 20 25 30"),
    2: (-26, "1/8000 1/6000 1/4000 1/3000 1/2000 1/1500 1/1000 1/750 1/500 1/350 1/250 1/180 1/125 1/90 1/60 1/45 "
        "1/30 1/20 1/15 1/10 1/8 1/6 1/4 0.3 0.5 0.7 1 1.5 2 3 4 6 8 10 15 20 30"),
    1: (-13, "1/8000 1/4000 1/2000 1/1000 1/500 1/250 1/125 1/60 1/30 1/15 1/8 1/4 0.5 1 2 4 8 15 30"),
}  # fmt: skip
_ISO = {
    3: (-3, "50 64 80 100 125 160 200 250 320 400 500 640 800 1000 1250 1600 2000 2500 3200 4000 5000 6400 8000 "
        "10000 12800 16000 20000 25600 32000 40000 51200 64000 80000 102400"),
    2: (-2, "50 70 100 140 200 280 400 560 800 1100 1600 2200 3200 4500 6400 9000 12800 18000 25600 36000 51200 "
        "72000 102400"),
    1: (-1, "50 100 200 400 800 1600 3200 6400 12800 25600 51200 102400"),
}  # fmt: skip
_APERTURE = {
    3: (0, "1 1.1 1.2 1.4 1.6 1.8 2 2.2 2.5 2.8 3.2 3.5 4 4.5 5 5.6 6.3 7.1 8 9 10 11 13 14 16 18 20 22 25 29 32"),
    2: (0, "1 1.2 1.4 1.7 2 2.4 2.8 3.3 4 4.8 5.6 6.7 8 9.5 11 13 16 19 22 27 32"),
    1: (0, "1 1.4 2 2.8 4 5.6 8 11 16 22 32"),
}  # fmt: skip
_TABLES: dict[Dial, dict[int, tuple[int, str]]] = {"shutter": _SHUTTER, "iso": _ISO, "aperture": _APERTURE}
# Beyond the longest on the dial somebody times it: in the same steps, up to so many stops of a second.
LONGEST_STOPS = 10


def _read(label: str) -> float:
    over, _, below = label.partition("/")
    return float(over) / float(below or 1)


class Marks(NamedTuple):
    """The marks of a dial: the steps of the first, and what is engraved, each with the value that it says."""

    first: int
    values: tuple[float, ...]

    @property
    def last(self) -> int:
        """The steps of the last."""
        return self.first + len(self.values) - 1


@cache
def marks(dial: Dial, a_stop: int) -> Marks:
    """All marks of a dial, with so many steps a stop."""
    first, labels = _TABLES[dial][a_stop]
    values = [_read(label) for label in labels.split()]
    if dial == "shutter":
        values += [round(true(dial, n, a_stop)) for n in range(first + len(values), LONGEST_STOPS * a_stop + 1)]
    return Marks(first, tuple(float(value) for value in values))


def true(dial: Dial, steps: int, a_stop: int) -> float:
    """The true value of a setting: seconds, ISO, or the f-number."""
    stops = steps / a_stop
    if dial == "aperture":
        return float(2.0 ** (stops / 2))
    return float(2.0**stops) * (100.0 if dial == "iso" else 1.0)


def label(dial: Dial, steps: int, a_stop: int) -> float:
    """What is engraved for a setting."""
    row = marks(dial, a_stop)
    return row.values[max(0, min(steps - row.first, len(row.values) - 1))]


def at_most(dial: Dial, value: float, a_stop: int) -> int:
    """The steps of the largest mark that is not above a value; the first one below all."""
    row = marks(dial, a_stop)
    return row.first + max(0, bisect_right(row.values, value * (1 + 1e-9)) - 1)


def at_least(dial: Dial, value: float, a_stop: int) -> int:
    """The steps of the smallest mark that is not below a value; the last one above all."""
    row = marks(dial, a_stop)
    return row.first + min(len(row.values) - 1, bisect_left(row.values, value * (1 - 1e-9)))


@lru_cache(maxsize=256)
def nearest(dial: Dial, value: float, a_stop: int) -> int:
    """The steps of the mark that is nearest to a value, in stops."""
    low, high = at_most(dial, value, a_stop), at_least(dial, value, a_stop)
    return min(low, high, key=lambda steps: abs(math.log2(label(dial, steps, a_stop) / value)))


def ev100(shutter_s: float, iso: float, f_number: float) -> float:
    """The exposure value of a setting at ISO 100."""
    return math.log2(f_number * f_number / shutter_s) - math.log2(iso / 100)
