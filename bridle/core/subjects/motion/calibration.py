"""Making a figure out of repeated readings: mean, sample spread, the reading that does not fit, and a correction."""

import math
import statistics
from collections.abc import Sequence
from dataclasses import dataclass
from typing import NamedTuple

from bridle.core.figure import Formula

# A belt that slips or a hand that reads badly shows in a spread above this share of the mean.
LARGEST_SPREAD = 0.003
# A modified z-score above 3.5 marks an outlier: Iglewicz and Hoaglin, How to Detect and Handle Outliers, 1993.
OUTLYING = 3.5
FEWEST_FOR_ODD = 4

CORRECTION = Formula("old * factor", "steps per unit grow as what was commanded exceeds what was measured")


@dataclass(frozen=True)
class Column:
    """A reading's number: what it is, and in which unit it is typed."""

    label: str
    unit: str


@dataclass(frozen=True)
class Measure:
    """Something that can be measured on a card: which figure it gives, how to do it, what to write down."""

    key: str
    label: str
    field: str
    unit: str
    columns: tuple[Column, ...]
    how: tuple[str, ...]
    least: int = 3


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


def odd_ones(readings: Sequence[float]) -> list[int]:
    """The readings (0-based) that do not fit the rest: modified z-score above 3.5, from four readings on."""
    if len(readings) < FEWEST_FOR_ODD:
        return []
    middle = statistics.median(readings)
    deviations = [abs(value - middle) for value in readings]
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


def constant_error(line: Line) -> bool:
    """Whether the offset stands out of its own uncertainty: a backlash rather than a scale error."""
    return abs(line.offset) > max(3 * line.offset_error, 1e-9) and abs(line.offset) > 0.02
