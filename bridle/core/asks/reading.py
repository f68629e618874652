"""One reading of a guided measurement: the figure it gives, with its working, and how far reading explains it."""

import math
from collections.abc import Callable
from dataclasses import dataclass

from bridle.core.figure import Formula, Term, term
from bridle.core.subjects.motion.calibration import WATCH, Instrument

HELD = Formula("reading", "as it was read")
FACTOR = Formula("commanded / measured", "what was commanded over what was measured")
FACTOR_AND_PLAY = Formula(
    "commanded / (measured - offset)", "what was commanded over what was measured, without what is off at every length"
)
RATE = Formula("angle / seconds * 60", "angle over time, in degrees a minute")
BASE = Formula("angle / seconds * 60 / setting", "angle over time, per unit of the setting")
A_MOVE = Formula("went / moves", "how far it went, shared among its moves")
FULL = Formula("went / seconds * 3600 / number * 100", "how far it went in an hour, at a hundred per cent")
PLAY = Formula("abs(one - other)", "the same place approached from both sides")
EACH = Formula("seconds / frames", "from the first picture on it is written all the time: shared among all of them")


@dataclass(frozen=True)
class Reading:
    """A figure out of one reading, with its rule and terms.

    `read` is what was read off; `by(mean)` what it would have been had the figure been the mean of all; `doubt` is
    the share of the figure by which the reading itself may be off.
    """

    value: float
    rule: Formula
    terms: tuple[Term, ...]
    read: float
    by: Callable[[float], float]
    doubt: float


Row = list[float]


def plain(row: Row, read_with: Instrument, offset: float = 0.0) -> Reading:
    """A time as it was read."""
    terms = (term("reading", "read", row[0], "s"),)
    return Reading(row[0], HELD, terms, row[0], lambda mean: mean, read_with.error / row[0])


def place(row: Row, read_with: Instrument, offset: float = 0.0) -> Reading:
    """A place on an axis as it was read; its nought is anywhere, so that a share of it says nothing."""
    return Reading(row[0], HELD, (term("reading", "read", row[0], "mm"),), row[0], lambda mean: mean, 0.0)


def burst(row: Row, read_with: Instrument, offset: float = 0.0) -> Reading:
    """Writing a burst: frames, how long it lasted, and when the light went out, both from the first picture."""
    frames, _, out = row
    terms = (term("seconds", "card light out after", out, "s"), term("frames", "frames in the burst", frames, "frames"))
    return Reading(out / frames, EACH, terms, out, lambda mean: mean * frames, read_with.error / out)


def travel(row: Row, read_with: Instrument, offset: float = 0.0) -> Reading:
    """A travel: commanded and measured, and what is off at every length."""
    commanded, measured = row
    unit = read_with.unit
    terms = [term("commanded", "commanded", commanded, unit), term("measured", "measured", measured, unit)]
    if offset:
        terms.append(term("offset", "off at every length", offset, unit))
    rule = FACTOR_AND_PLAY if offset else FACTOR
    value, doubt = commanded / (measured - offset), read_with.error / measured
    return Reading(value, rule, tuple(terms), measured, lambda mean: commanded / mean + offset, doubt)


def rate(row: Row, read_with: Instrument, offset: float = 0.0) -> Reading:
    """An angle over time."""
    angle, seconds = row
    terms = (term("angle", "turned", angle, "deg"), term("seconds", "in", seconds, "s"))
    doubt = math.hypot(read_with.error / angle, WATCH.error / seconds)
    return Reading(angle / seconds * 60, RATE, terms, angle, lambda mean: mean * seconds / 60, doubt)


def base(row: Row, read_with: Instrument, offset: float = 0.0) -> Reading:
    """An angle over time at a setting of the menu."""
    angle, seconds, setting = row
    one = rate([angle, seconds], read_with)
    terms = (*one.terms, term("setting", "setting", setting, ""))
    return Reading(one.value / setting, BASE, terms, angle, lambda mean: mean * setting * seconds / 60, one.doubt)


def each_move(row: Row, read_with: Instrument, offset: float = 0.0) -> Reading:
    """A distance over so many moves."""
    went, moves = row
    terms = term("went", "went", went, read_with.unit), term("moves", "in moves", moves, "")
    return Reading(went / moves, A_MOVE, terms, went, lambda mean: mean * moves, read_with.error / went)


def full_speed(row: Row, read_with: Instrument, offset: float = 0.0) -> Reading:
    """A distance over time at so many per cent: the speed at a hundred, an hour."""
    went, seconds, number = row
    terms = (
        term("went", "went", went, read_with.unit),
        term("seconds", "in", seconds, "s"),
        term("number", "at, in per cent", number, ""),
    )
    doubt = math.hypot(read_with.error / went, WATCH.error / seconds)
    value = went / seconds * 3600 / number * 100
    return Reading(value, FULL, terms, went, lambda mean: mean * seconds / 3600 * number / 100, doubt)


def play(row: Row, read_with: Instrument, offset: float = 0.0) -> Reading:
    """The same place, approached from both sides."""
    value = abs(row[0] - row[1])
    terms = (term("one", "from below", row[0], read_with.unit), term("other", "from above", row[1], read_with.unit))
    return Reading(value, PLAY, terms, value, lambda mean: mean, 0.0)


READINGS: dict[str, Callable[[Row, Instrument, float], Reading]] = {
    "write": burst, "floor": plain, "lag": plain, "wake": plain, "settle": plain, "run": plain,
    "travel": travel, "rate": rate, "base": base, "backlash": play,
    "each": each_move, "full": full_speed, "click": place,
}  # fmt: skip
