"""A mount whose rate is a number in a menu: `rate = base(key) × setting`."""

from collections.abc import Sequence
from typing import NamedTuple

from bridle.core.figure import Formula
from bridle.core.subjects.numbers.rounding import GUARD

WANTED = Formula("sweep / seconds * 60", "the sweep over the time of the move")
SETTING = Formula("wanted / base", "the wanted rate over the base rate of the key")
RATE = Formula("base * setting", "the base rate of the key times the setting")


class Setting(NamedTuple):
    """A key (by its place) and a number for the menu; `exact` is the number before rounding to the menu's step."""

    key: int
    number: float
    exact: float


def setting_for(rate: float, bases: Sequence[float], low: float, high: float, step: float) -> Setting | None:
    """The key and the number that come nearest to a rate; None where every key is out of range."""
    found = []
    for key, base in enumerate(bases):
        exact = rate / base
        number = round(exact / step) * step
        if low - GUARD <= number <= high + GUARD:
            found.append((abs(number * base - rate), Setting(key, number, exact)))
    return min(found)[1] if found else None
