"""Guided measuring for the kit: what to do, what the readings say, and the card that comes of it."""

import math
from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from datetime import date
from fractions import Fraction
from typing import Any

from bridle.core.asks.reading import READINGS, Reading
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.cards import Measured
from bridle.core.plan.kit import AnyCard, AxisCard, Body, Phone
from bridle.core.plan.printer import HeadSwitch
from bridle.core.quantity import write
from bridle.core.subjects.motion import calibration
from bridle.core.subjects.motion.calibration import (
    FILMED,
    TIMES,
    Column,
    Instrument,
    Line,
    Measure,
    click_of,
    constant_error,
    line_through,
)
from bridle.core.subjects.motion.drives.stepper import Stepper

STEPS = Formula("base * factor", "computed steps per unit, times what was measured")
EXPLAINED = Formula(
    "times * error / read", "readings that are each off by no more than their error scatter by less than this"
)
APART = Formula("times * error", "places that are each off by no more than their error scatter by less than this")
# What scatters by more than its readings explain hides something; the others scatter by nature.
JUDGED = ("travel", "rate", "base", "run", "each", "full")
# Readings that may be nought or less.
SIGNED = ("backlash", "click")
# Figures in another unit than what is read.
CONVERTED = ("write", "travel", "rate", "base", "each", "full")
# A card light that goes out so soon after a burst shows that the card kept up with it.
KEPT_UP = 1.5


@dataclass(frozen=True)
class Result:
    """What the readings came to. `value` is what would go on the card; `verdict` says whether it should.

    `play` is what was found to be missing at every length, in the axis's unit; 0 where nothing is.
    """

    value: float
    mean: float
    spread: float
    accepted: bool
    verdict: str
    play: float = 0.0
    odd: tuple[int, ...] = ()
    figures: list[Figure] = field(default_factory=list)


def measures(card: AnyCard) -> list[Measure]:
    """All that can be measured on a card, the most useful first."""
    if isinstance(card, Body):
        return _of_camera()
    if isinstance(card, Phone):
        # A phone shows no card light, and nobody presses it halfway.
        return [one for one in _of_camera() if one.key in ("floor", "lag")]
    if isinstance(card, HeadSwitch):
        return [click_of(card.axis)]
    return list(_of_axes(card)) if isinstance(card, AxisCard) else []


def _of_axes(card: AxisCard) -> Iterator[Measure]:
    """What can be measured on each axis of a card; settling once, as the whole of it shakes."""
    for within, axis in card.each():
        for one in axis.drive.measures(axis.unit):
            if not within:
                yield one if not card.more or one.key == "settle" else replace(one, label=f"{one.label}, {axis.turns}")
            elif one.key != "settle":
                yield replace(
                    one,
                    key=f"{one.key}.{within}"[:-1],
                    label=f"{one.label}, {axis.turns}",
                    field=f"{within}{one.field}",
                )


def _axis_of(card: AxisCard, asked: Measure) -> AxisCard:
    """The axis of a card that is measured."""
    return next(axis for within, axis in reversed(list(card.each())) if asked.field.startswith(within))


def _of_camera() -> list[Measure]:
    burst = (
        Column("frames in the burst", "frames"), Column("burst lasted", "s"), Column("card light out after", "s"),
    )  # fmt: skip
    return [
        Measure("write", "time to write", "write_s", "s", burst, (
            "Set the picture format of the shoot and put in the card of the shoot.",
            "Start the clock with the first picture of a burst, and note when you let go.",
            "Stop it when the card light goes out. Three bursts or more, of different lengths.",
        ), read_with=TIMES),
        Measure("floor", "shortest real interval", "interval_floor_s", "s", (Column("no miss at every", "s"),), (
            "Set the shortest interval the camera offers and take fifty frames.",
            "Count them. If any are missing, take the next longer interval, until none is.",
            "Write down that interval. Repeat it cold and warm.",
        ), 2, TIMES),
        Measure("lag", "shutter lag", "lag_s", "s", (Column("from trigger to open shutter", "s"),), (
            "Film a running clock with the camera while it is triggered by a click that can be heard.",
            "The difference of the two in the picture is the lag.",
        ), read_with=(FILMED,)),
        Measure("wake", "time to wake", "wake_s", "s", (Column("from the press to ready", "s"),), (
            "Let the camera fall asleep.",
            "Half-press and start the clock; stop it when the camera is ready to shoot.",
        ), read_with=TIMES),
    ]  # fmt: skip


@dataclass(frozen=True)
class Read:
    """All readings of a measure, each worked out; `offset` is what is off at every length, 0 where nothing is."""

    asked: Measure
    rows: list[list[float]]
    read_with: Instrument
    line: Line | None
    offset: float
    each: list[Reading]

    @property
    def values(self) -> list[float]:
        """What each reading gives."""
        return [reading.value for reading in self.each]


def measure(card: AnyCard, key: str, readings: list[list[float]], read_with: str = "") -> Result:
    """What readings say, made with an instrument. Raises ValueError where they cannot be used at all."""
    asked = next((measure for measure in measures(card) if measure.key == key), None)
    if asked is None:
        raise ValueError("this card has nothing of that kind to measure")
    rows = [row for row in readings if len(row) == len(asked.columns)]
    if not rows:
        raise ValueError("write down at least one reading, all of its numbers")
    if any(not math.isfinite(value) or (value <= 0 and asked.what not in SIGNED) for row in rows for value in row):
        raise ValueError("a reading is a number above nought")
    return _judge(card, _read(asked, rows, read_with))


def _read(asked: Measure, rows: list[list[float]], read_with: str) -> Read:
    by = next((one for one in asked.read_with if one.key == read_with), asked.read_with[0])
    line, offset = None, 0.0
    if asked.what == "travel":
        line = line_through([row[0] for row in rows], [row[1] for row in rows])
        found = line.offset if line is not None and constant_error(line, by.error) else 0.0
        # More than the shortest travel itself cannot be play.
        offset = found if found < min(row[1] for row in rows) else 0.0
    rule = READINGS[asked.what]
    return Read(asked, rows, by, line, offset, [rule(row, by, offset) for row in rows])


def _judge(card: AnyCard, read: Read) -> Result:
    mean, spread = calibration.mean_of(read.values)
    odd = tuple(calibration.odd_ones(read.values))
    figures = [*_readings(read), *_together(read, mean, spread), *_as_read(read, mean), *_explained(read)]
    value, play = mean, max(0.0, -read.offset)
    if read.asked.what == "travel" and isinstance(card, AxisCard):
        axis = _axis_of(card, read.asked)
        assert isinstance(axis.drive, Stepper)
        # What was commanded went out with the correction that the card already had.
        value = axis.drive.correction * mean
        figures += _corrected(axis.drive, axis.unit, mean, value)
    accepted, verdict = _verdict(read, mean, spread, odd)
    return Result(value, mean, spread, accepted, verdict, play, odd, figures)


def _readings(read: Read) -> Iterator[Figure]:
    for i, reading in enumerate(read.each):
        yield figure(f"reading.{i}", f"reading {i + 1}", reading.value, read.asked.unit, reading.rule, *reading.terms)


def _together(read: Read, mean: float, spread: float) -> Iterator[Figure]:
    """Mean and spread of all readings."""
    count, unit = len(read.each), read.asked.unit
    terms = [term(f"r{i}", f"reading {i}", value, unit) for i, value in enumerate(read.values, 1)]
    yield figure("mean", "mean", mean, unit, calibration.mean_formula(count), *terms)
    said = term("mean", "mean", mean, unit)
    yield figure("spread", "spread", spread, unit, calibration.spread_formula(count), said, *terms)


def _as_read(read: Read, mean: float) -> Iterator[Figure]:
    """Mean and spread in the unit that was read, where the figure has another; and what is off throughout."""
    unit, count = read.read_with.unit, len(read.each)
    reads = [term(f"r{i}", f"read at {i}", one.read, unit) for i, one in enumerate(read.each, 1)]
    if read.asked.what in CONVERTED:
        made = [term(f"e{i}", f"by the mean, at {i}", one.by(mean), unit) for i, one in enumerate(read.each, 1)]
        apart = math.hypot(*(one.read - one.by(mean) for one in read.each)) / math.sqrt(max(count - 1, 1))
        if len({one.by(mean) for one in read.each}) == 1:
            whole = calibration.mean_of([one.read for one in read.each]).mean
            yield figure("read.mean", "mean of what was read", whole, unit, calibration.mean_formula(count), *reads)
        rule = calibration.apart_formula(count)
        yield figure("read.spread", "spread of what was read", apart, unit, rule, *reads, *made)
    if read.offset:
        sent = [term(f"c{i}", f"commanded at {i}", row[0], unit) for i, row in enumerate(read.rows, 1)]
        rule = calibration.offset_formula(count)
        yield figure("offset", "off at every length", read.offset, unit, rule, *reads, *sent)


def _explained(read: Read) -> Iterator[Figure]:
    """By how much the readings may scatter without hiding anything."""
    if read.asked.what == "click" and len(read.each) > 1:
        error = term("error", f"{read.read_with.label}, may be off by", read.read_with.error, read.read_with.unit)
        times = term("times", "allowed", calibration.EXPLAINED, "")
        yield figure("explained", "scatter that reading explains", _apart(read), read.asked.unit, APART, times, error)
    if not _judged(read):
        return
    worst, unit = max(read.each, key=lambda one: one.doubt), read.read_with.unit
    terms = (
        term("times", "allowed", calibration.EXPLAINED, ""),
        term("error", f"{read.read_with.label}, may be off by", worst.doubt * worst.read, unit),
        term("read", "read, where that tells most", worst.read, unit),
    )
    yield figure("explained", "scatter that reading explains", _limit(read), "share", EXPLAINED, *terms)


def _judged(read: Read) -> bool:
    """Whether the scatter of what was read tells anything."""
    return read.asked.what in JUDGED and len(read.each) > 1


def _apart(read: Read) -> float:
    """How far places may scatter without hiding anything, in their own unit."""
    return calibration.EXPLAINED * read.read_with.error


def _limit(read: Read) -> float:
    """The share of the mean by which readings may scatter without hiding anything."""
    return calibration.EXPLAINED * max(one.doubt for one in read.each)


def _corrected(drive: Stepper, unit: str, mean: float, value: float) -> Iterator[Figure]:
    """The correction that comes out, and the steps per unit with it."""
    base = drive.base_steps()
    assert base is not None
    parts = (term("old", "correction so far", drive.correction, ""), term("factor", "mean of the readings", mean, ""))
    yield figure("correction", "correction", value, "", calibration.CORRECTION, *parts)
    steps = (term("base", "computed steps per unit", base, ""), term("factor", "correction", value, ""))
    yield figure("steps", "steps per unit", base * value, f"steps/{unit}", STEPS, *steps)


def _verdict(read: Read, mean: float, spread: float, odd: tuple[int, ...]) -> tuple[bool, str]:
    asked = read.asked
    if odd:
        numbers = " and ".join(str(i + 1) for i in odd)
        return False, f"Reading {numbers} does not fit the rest. Look at it again, or strike it out and read once more."
    hidden = _hidden(read, mean, spread)
    if hidden and asked.strict:
        return False, f"{hidden} Find it first: a mean would only cover it up."
    if hidden:
        return True, hidden
    if asked.what == "write" and any(out - lasted < KEPT_UP * out / frames for frames, lasted, out in read.rows):
        return True, (
            "The light went out right after a burst: the card kept up with it, and really writes faster than this. "
            "A longer or faster burst tells how much."
        )
    if len(read.each) < asked.least:
        return True, f"Usable, but {asked.least} readings or more tell how far it can be trusted."
    return True, _scale_or_play(read) if asked.what == "travel" else "The readings agree. Put it on the card."


def _hidden(read: Read, mean: float, spread: float) -> str:
    """What a spread may hide that is larger than reading explains; nothing where it is not."""
    if read.asked.what == "click" and spread > _apart(read):
        return (
            f"The readings scatter by {spread:.2g} mm; jogs of {read.read_with.error:g} mm explain {_apart(read):.2g} "
            f"mm. {read.asked.hides}"
        )
    if not _judged(read):
        return ""
    limit = _limit(read)
    if spread <= limit * mean:
        return ""
    shortest = min(one.read for one in read.each)
    return (
        f"The readings scatter by {spread / mean * 100:.2g} %; {read.read_with.label} explains {limit * 100:.2g} % of "
        f"{write(shortest, read.read_with.unit)}. {read.asked.hides}"
    )


def _scale_or_play(read: Read) -> str:
    unit = read.read_with.unit
    if read.line is None:
        return "The readings agree. At a second length they would also tell a play from a wrong scale."
    if read.offset < 0:
        return (
            f"The same {write(-read.offset, unit)} is missing at every length: that is play, and goes onto the card as "
            "play. The scale comes from what is left."
        )
    if read.offset > 0:
        return (
            f"The same {write(read.offset, unit)} comes on top at every length: the reading did not begin where the "
            "travel did. The scale comes from what is left."
        )
    return "Longer travels are off by more: the scale is wrong, and the correction puts it right."


def applied(card: AnyCard, key: str, result: Result, readings: list[list[float]], on: date, note: str = "") -> AnyCard:
    """The card with the measured figure and the history of it. Raises ValueError or a ValidationError."""
    asked = next(measure for measure in measures(card) if measure.key == key)
    data = card.model_dump(mode="json")
    singles = tuple(found.value for found in result.figures if found.key.startswith("reading."))
    _put(data, asked.field, result.value, result.spread, singles, on, note)
    if asked.what == "click":
        data["read_on"] = on.isoformat()
    if result.play:
        off = next((found.value for found in result.figures if found.key == "read.spread"), 0.0)
        _put(data, f"{asked.field.removesuffix('drive.correction')}backlash", result.play, off, (), on, note)
    return type(card).model_validate(data)


def _put(
    data: dict[str, Any], field: str, value: float, spread: float, singles: tuple[float, ...], on: date, note: str
) -> None:
    """Put a measured figure at its place on a dumped card, and into its history."""
    *way, last = field.split(".")
    place: Any = data
    for step in way:
        place = place[int(step) if isinstance(place, list) else step]
    rounded = round(value, 6)
    place[last] = (
        str(Fraction(str(rounded)))
        if isinstance(place[last], str) or (place[last] is None and last.endswith("_s"))
        else rounded
    )
    measurement = Measured(field=field, value=rounded, spread=round(spread, 6), readings=singles, on=on, note=note)
    data["measured"] = [*data["measured"], measurement.model_dump(mode="json")]
