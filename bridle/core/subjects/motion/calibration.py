"""Making a figure out of repeated readings: mean, sample spread, the reading that does not fit, play against scale."""

import math
import statistics
from collections.abc import Sequence
from dataclasses import dataclass
from typing import NamedTuple

from bridle.core.figure import Formula

# A modified z-score above 3.5 marks an outlier: Iglewicz and Hoaglin, How to Detect and Handle Outliers, 1993.
OUTLYING = 3.5
FEWEST_FOR_ODD = 4
# Readings that are off by no more than their error, each either way, scatter by less than this many times of it.
EXPLAINED = 1.5

CORRECTION = Formula("old * factor", "steps per unit grow as what was commanded exceeds what was measured")


@dataclass(frozen=True)
class Column:
    """A reading's number: what it is, and in which unit it is typed."""

    label: str
    unit: str


@dataclass(frozen=True)
class Instrument:
    """What readings are made with, and how far one of them may be off, in its unit."""

    key: str
    label: str
    error: float
    unit: str


RULE, TAPE, CALLIPER = (
    Instrument("rule", "a steel rule", 0.5, "mm"),
    Instrument("tape", "a tape measure", 1.5, "mm"),
    Instrument("calliper", "a calliper", 0.1, "mm"),
)
EYE, SCALE, GAUGE = (
    Instrument("eye", "a protractor, by eye", 1.0, "deg"),
    Instrument("scale", "the degree scale of the axis", 0.5, "deg"),
    Instrument("gauge", "an electronic angle gauge", 0.2, "deg"),
)
WATCH, FILMED = (
    Instrument("watch", "a watch started by hand", 0.3, "s"),
    Instrument("filmed", "a film with a clock in it", 0.05, "s"),
)
JOGS = Instrument("jogs", "the printer’s display, by jogs of 0.1 mm", 0.1, "mm")
LENGTHS, ANGLES, TIMES = (RULE, TAPE, CALLIPER), (EYE, SCALE, GAUGE), (WATCH, FILMED)


def instruments(unit: str) -> tuple[Instrument, ...]:
    """What a length, an angle or a time is read with, the most usual first."""
    return {"mm": LENGTHS, "deg": ANGLES, "s": TIMES}[unit]


@dataclass(frozen=True)
class Measure:
    """Something that can be measured on a card: which figure it gives, how to do it, what to write down.

    `read_with` are the instruments of the number that is read. What scatters more than these explain hides something:
    `hides` says what, on such a drive. Where it is `strict`, such a mean is no good; else it is told and can be taken.
    """

    key: str
    label: str
    field: str
    unit: str
    columns: tuple[Column, ...]
    how: tuple[str, ...]
    least: int = 3
    read_with: tuple[Instrument, ...] = ()
    hides: str = ""
    strict: bool = True

    @property
    def what(self) -> str:
        """What kind of reading it takes: the first word of its key."""
        return self.key.partition(".")[0]


def click_of(axis: str) -> Measure:
    """How the coordinate is read at which a switch clicks that a head meets along an axis."""
    return Measure(
        "click", "where it clicks", "clicks_mm", "mm", (Column(f"{axis} at the click", "mm"),), (
            "Press and release the switch by hand: the camera takes one frame for each press.",
            "A spare switch at hand. Hot end and bed cold, hands off the head while it jogs.",
            f"Jog {axis} towards it by 1 mm until it clicks; back off until it lets go; then by 0.1 mm until it does.",
            "Write down the coordinate; three times.",
        ), read_with=(JOGS,), hides="Is the switch fixed, and the belt tight?",
    )  # fmt: skip


class Mean(NamedTuple):
    """Mean and sample spread (standard deviation over n − 1) of readings; spread 0 for a single one."""

    mean: float
    spread: float


class Line(NamedTuple):
    """`measured = scale · commanded + offset`, by least squares; `offset_error` is the offset's standard error."""

    scale: float
    offset: float
    offset_error: float


def mean_of(readings: Sequence[float]) -> Mean:
    """Mean and sample spread of at least one reading."""
    spread = statistics.stdev(readings) if len(readings) > 1 else 0.0
    return Mean(statistics.fmean(readings), spread)


def mean_formula(count: int) -> Formula:
    """The mean of so many readings, written out."""
    total = " + ".join(f"r{i}" for i in range(1, count + 1))
    return Formula(f"({total}) / {count}", "the mean of all readings")


def spread_formula(count: int) -> Formula:
    """The sample spread of so many readings, written out."""
    if count == 1:
        return Formula("0 * mean", "one reading has no spread: read again")
    total = " + ".join(f"(r{i} - mean)**2" for i in range(1, count + 1))
    return Formula(f"sqrt(({total}) / {count - 1})", "the sample standard deviation")


def apart_formula(count: int) -> Formula:
    """How far so many readings scatter about what the mean makes of each, written out."""
    if count == 1:
        return Formula("abs(r1 - e1)", "one reading has no spread: read again")
    total = " + ".join(f"(r{i} - e{i})**2" for i in range(1, count + 1))
    return Formula(f"sqrt(({total}) / {count - 1})", "what was read, about what it would be by the mean of all")


def offset_formula(count: int) -> Formula:
    """What is left of so many readings at no travel, by a straight line through them: least squares, written out."""
    each = range(1, count + 1)
    x, y, xx, xy = (
        " + ".join(pattern.format(i=i) for i in each) for pattern in ("c{i}", "r{i}", "c{i} * c{i}", "c{i} * r{i}")
    )
    return Formula(
        f"(({y}) * ({xx}) - ({x}) * ({xy})) / ({count} * ({xx}) - ({x})**2)",
        "the straight line through all readings, by least squares, at no travel",
    )


def odd_ones(readings: Sequence[float]) -> list[int]:
    """The readings (0-based) that do not fit the rest: modified z-score above 3.5, from four readings on."""
    if len(readings) < FEWEST_FOR_ODD:
        return []
    middle = statistics.median(readings)
    # What the last digits of a float differ by is no difference.
    deviations = [off if off > 1e-9 * abs(middle) else 0.0 for off in (abs(value - middle) for value in readings)]
    typical = statistics.median(deviations)
    if typical == 0:
        # All but a few are equal: whatever differs by more than a thousandth is odd.
        return [i for i, off in enumerate(deviations) if off > max(abs(middle), 1e-9) * 1e-3]
    return [i for i, off in enumerate(deviations) if 0.6745 * off / typical > OUTLYING]


def line_through(commanded: Sequence[float], measured: Sequence[float]) -> Line | None:
    """The straight line through readings at two or more lengths; None where all have the same one."""
    count = len(commanded)
    if count < 3 or max(commanded) - min(commanded) <= 0.05 * max(abs(value) for value in commanded):
        return None
    x, y = statistics.fmean(commanded), statistics.fmean(measured)
    across = sum((one - x) ** 2 for one in commanded)
    scale = sum((a - x) * (b - y) for a, b in zip(commanded, measured, strict=True)) / across
    offset = y - scale * x
    residue = sum((b - scale * a - offset) ** 2 for a, b in zip(commanded, measured, strict=True)) / (count - 2)
    return Line(scale, offset, math.sqrt(residue * (1 / count + x * x / across)))


def constant_error(line: Line, read_to: float) -> bool:
    """Whether the offset stands out of its own uncertainty and of what the readings are good to: no scale error."""
    return abs(line.offset) > max(3 * line.offset_error, read_to)
