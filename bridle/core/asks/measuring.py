"""Guided measuring for the kit: what to do, what the readings say, and the card that comes of it."""

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from datetime import date
from fractions import Fraction
from typing import Any

from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.kit import AnyCard, AxisCard, Body, Measured, Phone
from bridle.core.subjects.motion import calibration
from bridle.core.subjects.motion.calibration import Column, Measure
from bridle.core.subjects.motion.drives.stepper import Stepper

FACTOR = Formula("commanded / measured", "what was commanded over what the ruler says")
RATE = Formula("angle / seconds * 60", "angle over time, in degrees a minute")
BASE = Formula("angle / seconds * 60 / setting", "angle over time, per unit of the setting")
PLAY = Formula("abs(one - other)", "the same place approached from both sides")
EACH = Formula("seconds / frames", "a burst, shared among its frames")
STEPS = Formula("base * factor", "computed steps per unit, times what was measured")


@dataclass(frozen=True)
class Result:
    """What the readings came to. `value` is what would go on the card; `verdict` says whether it should."""

    value: float
    mean: float
    spread: float
    accepted: bool
    verdict: str
    odd: tuple[int, ...] = ()
    figures: list[Figure] = field(default_factory=list)


def measures(card: AnyCard) -> list[Measure]:
    """All that can be measured on a card, the most useful first."""
    if isinstance(card, Body | Phone):
        return _of_camera()
    return card.drive.measures(card.unit) if isinstance(card, AxisCard) else []


def _of_camera() -> list[Measure]:
    burst = (Column("frames in the burst", "frames"), Column("card light out after", "s"))
    return [
        Measure("write", "time to write", "write_s", "s", burst, (
            "Set the picture format of the shoot and put in the card of the shoot.",
            "Hold the release for a burst, then let go and start the clock.",
            "Stop it when the card light goes out. Three bursts or more, of different lengths.",
        )),
        Measure("floor", "shortest real interval", "interval_floor_s", "s", (Column("no miss at every", "s"),), (
            "Set the shortest interval the camera offers and take fifty frames.",
            "Count them. If any are missing, take the next longer interval, until none is.",
            "Write down that interval. Repeat it cold and warm.",
        ), 2),
        Measure("lag", "shutter lag", "lag_s", "s", (Column("from trigger to open shutter", "s"),), (
            "Film a running clock with the camera while it is triggered by a click that can be heard.",
            "The difference of the two in the picture is the lag.",
        )),
        Measure("wake", "time to wake", "wake_s", "s", (Column("from the press to ready", "s"),), (
            "Let the camera fall asleep.",
            "Half-press and start the clock; stop it when the camera is ready to shoot.",
        )),
    ]  # fmt: skip


def measure(card: AnyCard, key: str, readings: list[list[float]]) -> Result:
    """What readings say. Raises ValueError where they cannot be used at all, with a sentence."""
    asked = next((measure for measure in measures(card) if measure.key == key), None)
    if asked is None:
        raise ValueError("this card has nothing of that kind to measure")
    rows = [row for row in readings if len(row) == len(asked.columns)]
    if not rows:
        raise ValueError("write down at least one reading, all of its numbers")
    if any(not math.isfinite(value) or (value <= 0 and key != "backlash") for row in rows for value in row):
        raise ValueError("a reading is a number above nought")
    single, working = _SINGLE[key.partition(".")[0]](rows)
    return _judge(card, asked, rows, single, working)


Worked = tuple[list[float], Callable[[int], tuple[Formula, list[tuple[str, str, float, str]]]]]


def _plain(rows: list[list[float]]) -> Worked:
    held = Formula("reading", "as it was read")
    return [row[0] for row in rows], lambda i: (held, [("reading", "read", rows[i][0], "s")])


def _burst(rows: list[list[float]]) -> Worked:
    return [row[1] / row[0] for row in rows], lambda i: (
        EACH,
        [("seconds", "card light out after", rows[i][1], "s"), ("frames", "frames in the burst", rows[i][0], "frames")],
    )


def _travel(rows: list[list[float]]) -> Worked:
    return [row[0] / row[1] for row in rows], lambda i: (
        FACTOR,
        [("commanded", "commanded", rows[i][0], ""), ("measured", "measured", rows[i][1], "")],
    )


def _rate(rows: list[list[float]]) -> Worked:
    return [row[0] / row[1] * 60 for row in rows], lambda i: (
        RATE,
        [("angle", "turned", rows[i][0], "deg"), ("seconds", "in", rows[i][1], "s")],
    )


def _base(rows: list[list[float]]) -> Worked:
    return [row[0] / row[1] * 60 / row[2] for row in rows], lambda i: (
        BASE,
        [
            ("angle", "turned", rows[i][0], "deg"),
            ("seconds", "in", rows[i][1], "s"),
            ("setting", "setting", rows[i][2], ""),
        ],
    )


def _play(rows: list[list[float]]) -> Worked:
    return [abs(row[0] - row[1]) for row in rows], lambda i: (
        PLAY,
        [("one", "from below", rows[i][0], ""), ("other", "from above", rows[i][1], "")],
    )


_SINGLE: dict[str, Callable[[list[list[float]]], Worked]] = {
    "write": _burst, "floor": _plain, "lag": _plain, "wake": _plain, "settle": _plain, "run": _plain,
    "travel": _travel, "rate": _rate, "base": _base, "backlash": _play,
}  # fmt: skip
# Scales and rates have to repeat; times and plays scatter by nature.
_STRICT = ("travel", "rate", "base")


def _judge(card: AnyCard, asked: Measure, rows: list[list[float]], single: list[float], working: Any) -> Result:
    mean, spread = calibration.mean_of(single)
    odd = tuple(calibration.odd_ones(single))
    figures = [*_readings(asked, single, working), *_together(asked, single, mean, spread)]
    value = mean
    if asked.key == "travel" and isinstance(card, AxisCard):
        assert isinstance(card.drive, Stepper)
        # What was commanded went out with the correction that the card already had.
        value = card.drive.correction * mean
        figures += _corrected(card.drive, card.unit, mean, value)
    accepted, verdict = _verdict(asked, rows, single, mean, spread, odd)
    return Result(value, mean, spread, accepted, verdict, odd, figures)


def _readings(asked: Measure, single: list[float], working: Any) -> Iterator[Figure]:
    for i, reading in enumerate(single):
        rule, parts = working(i)
        terms = (term(*part) for part in parts)
        yield figure(f"reading.{i}", f"reading {i + 1}", reading, asked.unit, rule, *terms)


def _together(asked: Measure, single: list[float], mean: float, spread: float) -> Iterator[Figure]:
    """Mean and spread of all readings."""
    count, unit = len(single), asked.unit
    terms = [term(f"r{i}", f"reading {i}", value, unit) for i, value in enumerate(single, 1)]
    yield figure("mean", "mean", mean, unit, calibration.mean_formula(count), *terms)
    said = term("mean", "mean", mean, unit)
    yield figure("spread", "spread", spread, unit, calibration.spread_formula(count), said, *terms)


def _corrected(drive: Stepper, unit: str, mean: float, value: float) -> Iterator[Figure]:
    """The correction that comes out, and the steps per unit with it."""
    base = drive.base_steps()
    assert base is not None
    parts = (term("old", "correction so far", drive.correction, ""), term("factor", "mean of the readings", mean, ""))
    yield figure("correction", "correction", value, "", calibration.CORRECTION, *parts)
    steps = (term("base", "computed steps per unit", base, ""), term("factor", "correction", value, ""))
    yield figure("steps", "steps per unit", base * value, f"steps/{unit}", STEPS, *steps)


def _verdict(
    asked: Measure, rows: list[list[float]], single: list[float], mean: float, spread: float, odd: tuple[int, ...]
) -> tuple[bool, str]:
    if odd:
        numbers = " and ".join(str(i + 1) for i in odd)
        return False, f"Reading {numbers} does not fit the rest. Look at it again, or strike it out and read once more."
    strict = asked.key.partition(".")[0] in _STRICT
    if strict and len(single) > 1 and spread > calibration.LARGEST_SPREAD * mean:
        return False, (
            f"The readings scatter by {spread / mean:.2%}, more than 0.3 %. That hides a slipping belt, a loose grub "
            "screw or a hand that reads badly: find it first, a mean would only cover it up."
        )
    if len(single) < asked.least:
        return True, f"Usable, but {asked.least} readings or more tell how far it can be trusted."
    if asked.key == "travel":
        return True, _scale_or_play(rows)
    return True, "The readings agree. Put it on the card."


def _scale_or_play(rows: list[list[float]]) -> str:
    line = calibration.line_through([row[0] for row in rows], [row[1] for row in rows])
    if line is None:
        return "The readings agree. At a second length they would also tell a play from a wrong scale."
    if calibration.constant_error(line):
        return (
            f"The same {abs(line.offset):.2f} {'is missing' if line.offset < 0 else 'comes on top'} at every length: "
            "that is a play, not a wrong scale. Measure the backlash; correct the steps only by what is left."
        )
    return "Longer travels are off by more: the scale is wrong, and the correction puts it right."


def applied(card: AnyCard, key: str, result: Result, readings: list[list[float]], on: date, note: str = "") -> AnyCard:
    """The card with the measured figure and the history of it. Raises ValueError or a ValidationError."""
    asked = next(measure for measure in measures(card) if measure.key == key)
    data = card.model_dump(mode="json")
    *way, last = asked.field.split(".")
    place: Any = data
    for step in way:
        place = place[int(step) if isinstance(place, list) else step]
    standing = place[last]
    rounded = round(result.value, 6)
    place[last] = str(Fraction(str(rounded))) if isinstance(standing, str) else rounded
    singles = tuple(found.value for found in result.figures if found.key.startswith("reading."))
    measurement = Measured(
        field=asked.field, value=rounded, spread=round(result.spread, 6), readings=singles, on=on, note=note
    )
    data["measured"] = [*data["measured"], measurement.model_dump(mode="json")]
    return type(card).model_validate(data)
