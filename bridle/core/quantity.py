"""Reading quantities as people type them, and writing them as people read them.

`read` takes text and a kind ("duration", "length" ...) and returns an exact `Fraction` in the kind's base
unit: seconds, millimetres, degrees, frames, frames per second, a share of one. `write` is the way back.
"""

import math
import re
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from fractions import Fraction
from zoneinfo import ZoneInfo

LONGEST_TEXT = 40
# Long enough for any shoot (20 years of seconds), short enough that no arithmetic on it is slow.
LARGEST = Fraction(10) ** 9

# A mixed number such as `4 1/2`, a decimal with point or comma.
_NUMBER = r"(\d+ \d{1,4}/\d{1,4}|\d{1,4}/\d{1,4}|\d+(?:[.,]\d+)?|[.,]\d+)"
_DAY, _HOUR, _MINUTE = 86_400, 3_600, 60


class QuantityError(ValueError):
    """Text that is not the quantity asked for: says what stood there and what was expected."""

    def __init__(self, stood: str, expected: str) -> None:
        """Keep both halves, so that a page can show them at the field."""
        super().__init__(f"“{stood}” cannot be read here; write {expected}")
        self.stood = stood
        self.expected = expected


@dataclass(frozen=True)
class Kind:
    """How one kind of quantity is typed: its units (word to factor), the unit of a bare number, an example."""

    units: dict[str, Fraction]
    bare: Fraction
    example: str
    colon: tuple[Fraction, Fraction] | None = None  # what `1:30` counts in
    signed: bool = False
    imperial: Fraction | None = None  # the unit of a bare number for people who think in inches and ounces


def _units(table: dict[str, int | str]) -> dict[str, Fraction]:
    return {word: Fraction(factor) for names, factor in table.items() for word in names.split()}


_TIME = _units(
    {
        "d day days": _DAY,
        "h hr hrs hour hours": _HOUR,
        "m min mins minute minutes ′": _MINUTE,
        "s sec secs second seconds ″": 1,
        "ms": "1/1000",
    }
)
_LENGTH = _units({"mm": 1, "cm": 10, "m metre metres": 1000, 'in inch inches "': "25.4", "ft foot feet '": "304.8"})

_MASS = _units({"g gram grams": 1, "kg": 1000, "oz ounce ounces": "28.349523125", "lb lbs pound pounds": "453.59237"})
_INCH = Fraction("25.4")

KINDS: dict[str, Kind] = {
    "shoot": Kind(
        _TIME,
        Fraction(_MINUTE),
        "a time such as 2h24, 90 min or 1:30 (hours and minutes)",
        (Fraction(_HOUR), Fraction(_MINUTE)),
    ),
    "duration": Kind(
        _TIME,
        Fraction(1),
        "a time such as 20, 90s, 1/60 or 1:30 (minutes and seconds)",
        (Fraction(_MINUTE), Fraction(1)),
    ),
    "count": Kind(_units({"frame frames": 1}), Fraction(1), "a whole number such as 480"),
    "rate": Kind(
        _units({"fps /s p": 1, "a second": 1}), Fraction(1), "frames a second such as 24, 29.97 or 24000/1001"
    ),
    "times": Kind(_units({"× x times": 1}), Fraction(1), "a factor such as 480 or 480×"),
    "length": Kind(
        _LENGTH, Fraction(1), "a length such as 900, 1.2 m, 40in or 5' 4 1/2\"", signed=True, imperial=_INCH
    ),
    "focal": Kind(_LENGTH, Fraction(1), "a focal length such as 35 or 35mm"),
    "mass": Kind(_MASS, Fraction(1), "a mass such as 650, 1.2 kg or 2 lb 3 oz", imperial=Fraction("28.349523125")),
    "angle": Kind(
        _units({"° deg degree degrees": 1, "'": "1/60"}),
        Fraction(1),
        "an angle in degrees such as 33.7 or −7.6°",
        signed=True,
    ),
    "share": Kind(_units({"%": "1/100"}), Fraction(1, 100), "a percentage such as 10 %"),
    "f-number": Kind(_units({"f": 1}), Fraction(1), "an f-number such as f/8 or 5.6"),
    "number": Kind({}, Fraction(1), "a number such as 400", signed=True),
    "mm/s": Kind(
        _units({"mm/s": 1, "cm/s": 10, "in/s": "25.4"}), Fraction(1), "a speed such as 25 mm/s", imperial=_INCH
    ),
    "mm/s²": Kind(
        _units({"mm/s²": 1, "cm/s²": 10, "in/s²": "25.4"}), Fraction(1), "an acceleration such as 80", imperial=_INCH
    ),
    "deg/s": Kind(_units({"°/s deg/s": 1}), Fraction(1), "a speed such as 12 °/s"),
    "deg/s²": Kind(_units({"°/s² deg/s²": 1}), Fraction(1), "an acceleration such as 40 °/s²"),
    "deg/min": Kind(
        _units({"°/min deg/min °/m": 1, "°/s deg/s": 60, "°/h deg/h": "1/60"}), Fraction(1), "a rate such as 6 °/min"
    ),
    "mm/h": Kind(
        _units({"mm/h": 1, "cm/h": 10, "m/h": 1000, "mm/min": 60, "mm/s": 3600, "in/h": "25.4"}),
        Fraction(1),
        "a speed such as 300 mm/h",
        imperial=_INCH,
    ),
    "deg/h": Kind(
        _units({"°/h deg/h": 1, "°/min deg/min": 60, "°/s deg/s": 3600}), Fraction(1), "a speed such as 120 °/h"
    ),
    "stops": Kind(_units({"stop stops ev": 1}), Fraction(1), "a number of stops such as 2, 1/3 or −1.5", signed=True),
    "pixels": Kind(_units({"px pixel pixels": 1}), Fraction(1), "a number of pixels such as 140"),
}

# Rates that are named by their rounded value but are really a ratio (the broadcast rates).
BROADCAST_RATES = {
    Fraction("23.976"): Fraction(24000, 1001),
    Fraction("23.98"): Fraction(24000, 1001),
    Fraction("29.97"): Fraction(30000, 1001),
    Fraction("59.94"): Fraction(60000, 1001),
}


def read(text: str, kind: str, imperial: bool = False) -> Fraction:
    """Read typed text as a quantity of the kind, exactly, in its base unit. Raises `QuantityError`.

    For imperial readers a bare length is in inches and a bare mass in ounces.
    """
    rule = KINDS[kind]
    if imperial and rule.imperial:
        rule = replace(rule, bare=rule.imperial)
    body = _tidy(text, kind)
    value = _parse(body, rule) if len(body) <= LONGEST_TEXT else None
    if value is None or abs(value) > LARGEST:
        raise QuantityError(text.strip()[:LONGEST_TEXT], rule.example)
    if kind == "rate":
        return BROADCAST_RATES.get(value, value)
    if kind == "count" and value.denominator != 1:
        raise QuantityError(text.strip(), rule.example)
    return value


def _tidy(text: str, kind: str) -> str:
    body = " ".join(text.replace("−", "-").replace("–", "-").split()).lower()
    if kind == "f-number":
        body = re.sub(r"^f\s*/?\s*", "", body)
    if kind == "rate":
        body = re.sub(r"\s*(frames )?(a|per) second$", "", body)
    return re.sub(r"(?<=\d)[   ](?=\d{3}\b)", "", body) if kind == "count" else body


def _parse(body: str, rule: Kind) -> Fraction | None:
    negative = body.startswith("-")
    if negative and not rule.signed:
        return None
    body = body.removeprefix("-").removeprefix("+").strip()
    value = _colon(body, rule)
    if value is None:
        value = _ratio(body, rule)
    if value is None:
        value = _parts(body, rule)
    return -value if negative and value is not None else value


def _colon(body: str, rule: Kind) -> Fraction | None:
    match = re.fullmatch(r"(\d+):(\d{1,2})(?::(\d{1,2}(?:\.\d+)?))?", body)
    if not match or rule.colon is None:
        return None
    if match[3] is not None:
        return int(match[1]) * Fraction(_HOUR) + int(match[2]) * Fraction(_MINUTE) + Fraction(match[3])
    return int(match[1]) * rule.colon[0] + int(match[2]) * rule.colon[1]


def _ratio(body: str, rule: Kind) -> Fraction | None:
    match = re.fullmatch(r"(\d+)\s*/\s*(\d+)\s*(\D*)", body)
    if not match or int(match[2]) == 0:
        return None
    unit = match[3].strip()
    factor = rule.bare if not unit else rule.units.get(unit)
    return None if factor is None else Fraction(int(match[1]), int(match[2])) * factor


def _parts(body: str, rule: Kind) -> Fraction | None:
    """Read `2 h 24 min`, `2h24`, `1.2 m`, `400`: numbers with units, each unit smaller than the one before."""
    rest, total, previous = body, Fraction(0), None
    while rest:
        match = re.match(_NUMBER + r"\s*([^\d\s.,]*(?: second)?)\s*", rest)
        if not match:
            return None
        factor = _factor(match[2], previous, rule)
        if factor is None or (previous is not None and factor >= previous):
            return None
        number = _mixed(match[1])
        if number is None:
            return None
        total += number * factor
        rest, previous = rest[match.end() :], factor
    return total if previous is not None else None


def _mixed(text: str) -> Fraction | None:
    """`4 1/2`, `1/2`, `4.5` or `4,5`; None where nought stands below the line."""
    whole, _, part = text.rpartition(" ")
    if part.endswith(("/0", "/00", "/000", "/0000")):
        return None
    return Fraction(whole or 0) + Fraction(part.replace(",", "."))


def _factor(unit: str, previous: Fraction | None, rule: Kind) -> Fraction | None:
    """The factor of a unit; a bare number after hours is minutes, after minutes seconds, after feet inches."""
    if unit:
        return rule.units.get(unit)
    if previous is None:
        return rule.bare
    return {Fraction(_HOUR): Fraction(_MINUTE), Fraction(_MINUTE): Fraction(1), 12 * _INCH: _INCH}.get(previous)


def read_clock(text: str, near: datetime, zone: str) -> datetime:
    """Read `21:40`, `9:40 pm`, `2026-09-12 21:40` on a zone's clock; without a date the instant nearest to another.

    Raises `QuantityError`.
    """
    body = " ".join(text.lower().replace("t", " ").split())
    match = re.fullmatch(r"(?:(\d{4})-(\d\d?)-(\d\d?) )?(\d\d?)[:.h](\d\d)(?:[:.](\d\d))? ?(am|pm)?", body)
    try:
        if match is None:
            raise ValueError
        hour = _hour(int(match[4]), match[7])
        local = near.astimezone(ZoneInfo(zone))
        day = local.replace(year=int(match[1]), month=int(match[2]), day=int(match[3])) if match[1] else local
        at = day.replace(hour=hour, minute=int(match[5]), second=int(match[6] or 0), microsecond=0, fold=0)
    except ValueError as error:
        raise QuantityError(text.strip()[:LONGEST_TEXT], "a time such as 21:40, or 2026-09-12 21:40") from error
    if not match[1]:
        at = min((at + timedelta(days=days) for days in (-1, 0, 1)), key=lambda one: abs(one - near))
    there = at.astimezone(UTC).astimezone(at.tzinfo)
    if there.replace(tzinfo=None) != at.replace(tzinfo=None):
        expected = f"an hour that there is: on {at.day} {at:%B} the clocks go forward over this one"
        raise QuantityError(text.strip()[:LONGEST_TEXT], expected)
    return at


def _hour(hour: int, half: str | None) -> int:
    """The hour of the day; raises ValueError for 13 pm and the like."""
    if half is None:
        return hour
    if not 1 <= hour <= 12:
        raise ValueError("an hour before or after noon lies between 1 and 12")
    return hour % 12 + (12 if half == "pm" else 0)


def write(value: float | Fraction, unit: str, zone: str = "UTC") -> str:
    """Write a value of a unit as people read it; instants and moments are epoch seconds in the zone."""
    if unit == "s":
        return write_duration(value)
    if unit == "shutter":
        return write_shutter(float(value))
    if unit in ("moment", "dated"):
        at = datetime.fromtimestamp(float(value), UTC).astimezone(ZoneInfo(zone))
        return f"{at.day} {at:%b}{f' {at.year}' if unit == 'dated' else ''}, {at:%H:%M:%S}"
    if unit == "instant":
        return datetime.fromtimestamp(float(value), UTC).astimezone(ZoneInfo(zone)).strftime("%H:%M:%S")
    if unit == "rate":
        return f"{write_rate(Fraction(value))} a second"
    if unit == "share":
        return f"{write_number(float(value) * 100)} %"
    if unit == "g":
        grams = float(value)
        return f"{write_number(grams)} g" if abs(grams) < 1000 else f"{write_number(grams / 1000)} kg"
    number = write_number(value)
    if unit in COUNTED:
        return f"{number} {unit[:-1] if value == 1 else unit}"
    if unit == "stops":
        return f"{number} stop" if abs(float(value)) == 1 else f"{number} stops"
    joined = {
        "": "{}",
        "focal": "{} mm",
        "times": "{}×",
        "deg": "{}°",
        "deg/s": "{} °/s",
        "deg/s²": "{} °/s²",
        "deg/min": "{} °/min",
        "deg/h": "{} °/h",
        "deg/frame": "{}° a frame",
        "mm/frame": "{} mm a frame",
        "f-number": "f/{}",
    }
    return joined.get(unit, f"{{}} {unit}").format(number)


# What is counted, dialled or read off a clock is written as it is.
# Things that are counted, by their plural.
COUNTED = frozenset(("frames", "layers", "lines", "tools", "objects", "ways", "presses", "pictures", "faults"))
WHOLE = frozenset(("frames", "instant", "moment", "dated", "rate", "shutter", "f-number", "focal", *COUNTED))
SPOKEN = 3


def spoken(value: float | Fraction, unit: str) -> float | Fraction:
    """A value as a sentence says it: three significant digits, no more; what is whole stays whole."""
    if unit in WHOLE or not math.isfinite(number := float(value)) or not number:
        return float(round(value)) if unit in COUNTED else value
    if unit == "s" and abs(number) >= _MINUTE:
        return float(round(number))
    scale = 100 if unit == "share" else 1000 if unit == "g" and abs(number) >= 1000 else 1
    read = number * 100 if unit == "share" else number / scale
    places = max(0, SPOKEN - 1 - math.floor(math.log10(abs(read))))
    said = round(read, places)
    return said / 100 if unit == "share" else said * scale


def write_number(value: float | Fraction, digits: int = 4) -> str:
    """Write a number with about so many significant digits, none of them for show; minus is a true minus."""
    number = float(value)
    if number == 0 or not math.isfinite(number):
        return "0" if number == 0 else str(number)
    places = max(0, min(6, digits - 1 - math.floor(math.log10(abs(number)))))
    text = f"{number:.{places}f}"
    text = text.rstrip("0").rstrip(".") if "." in text else text
    text = "0" if text in ("-0", "") else text
    whole, point, decimals = text.lstrip("-").partition(".")
    grouped = f"{int(whole):,}".replace(",", " ") if len(whole) > 4 else whole
    return ("−" if text.startswith("-") else "") + grouped + point + decimals


def write_duration(value: float | Fraction) -> str:
    """Write seconds as `2 h 24 min`, `1 h 31 min 40 s`, `19.2 s`, `9 d 2 h`; at most three parts."""
    seconds = round(float(value), 3)
    if abs(seconds) < _MINUTE:
        return f"{write_number(seconds, 5)} s"
    sign, rest = ("−" if seconds < 0 else ""), abs(seconds)
    parts = []
    for name, size in (("d", _DAY), ("h", _HOUR), ("min", _MINUTE)):
        count, rest = divmod(rest, size)
        if count:
            parts.append(f"{int(count)} {name}")
    if round(rest, 3) and len(parts) < 3:
        parts.append(f"{write_number(round(rest, 3), 5)} s")
    return sign + " ".join(parts)


def write_shutter(seconds: float) -> str:
    """Write an exposure as on a camera: `1/60 s` below a third of a second, else seconds."""
    if 0 < seconds < 0.3:
        whole = round(1 / seconds)
        if abs(1 / seconds - whole) < 0.02 * whole:
            return f"1/{whole} s"
    return write_duration(seconds)


def write_rate(rate: Fraction) -> str:
    """Write a frame rate by the name people know it by: 29.97, not 30000/1001."""
    return f"{float(rate):.3f}".rstrip("0").rstrip(".")


def listed(names: list[str] | tuple[str, ...]) -> str:
    """`a`, `a and b`, `a, b and c`."""
    return " and ".join([", ".join(names[:-1]), names[-1]] if len(names) > 1 else list(names))
