"""The value types that plan sections are made of: exact numbers, bounded and readable in JSON."""

import math
import re
import unicodedata
from datetime import datetime
from fractions import Fraction
from typing import Annotated, Any
from zoneinfo import available_timezones

from pydantic import (
    AfterValidator,
    AwareDatetime,
    BaseModel,
    BeforeValidator,
    ConfigDict,
    Field,
    PlainSerializer,
    StringConstraints,
    WithJsonSchema,
)

RATIONAL_PATTERN = r"-?\d{1,40}(\.\d{1,12})?(/\d{1,40})?"
LONGEST_S = 20 * 366 * 86_400
# The largest whole number: everything that reads JSON still knows it exactly.
MOST = 2**53 - 1
ZONES = available_timezones()
# Separators, controls, joiners, marks without a letter; and letters that are drawn as nothing.
UNSEEN = ("Zs", "Zl", "Zp", "Cc", "Cf", "Cn", "Co", "Cs", "Mn", "Me")
BLANKS = "\u115f\u1160\u2800\u3164\uffa0"


def to_fraction(value: Any) -> Fraction:
    """Take a Fraction, an int, a finite float or a string such as `24000/1001`; raises ValueError else.

    Exponents are refused: a few characters of them can stand for more digits than memory holds.
    """
    if isinstance(value, Fraction):
        return value
    if isinstance(value, bool) or not isinstance(value, int | float | str):
        raise ValueError("an exact number is written as a string such as “24000/1001” or “12.5”")
    if isinstance(value, float) and not math.isfinite(value):
        raise ValueError("a number must be finite")
    text = value if isinstance(value, str) else f"{value:.12f}" if isinstance(value, float) else str(value)
    if not re.fullmatch(RATIONAL_PATTERN, text) or text.endswith("/0"):
        raise ValueError("an exact number is written such as “24000/1001” or “12.5”")
    numerator, _, denominator = text.partition("/")
    if denominator and int(denominator) == 0:
        raise ValueError("a ratio cannot have nought below the line")
    return Fraction(numerator) / int(denominator or 1)


def bounded(low: float, high: float, what: str, open_below: bool = True) -> AfterValidator:
    """A check that an exact number lies between two bounds."""

    def check(value: Fraction) -> Fraction:
        if value < low or (open_below and value == low) or value > high:
            raise ValueError(f"{what} lies {'above' if open_below else 'between'} {low:g} and {high:g}")
        return value

    return AfterValidator(check)


Rational = Annotated[
    Fraction,
    BeforeValidator(to_fraction),
    PlainSerializer(str, return_type=str),
    WithJsonSchema({"type": "string", "pattern": f"^{RATIONAL_PATTERN}$"}),
]
Duration = Annotated[Rational, bounded(0, LONGEST_S, "a time in seconds", open_below=False)]
PositiveDuration = Annotated[Rational, bounded(0, LONGEST_S, "a time in seconds")]
Share = Annotated[Rational, bounded(0, 0.9, "a share", open_below=False)]

Count = Annotated[int, Field(ge=0, le=10_000_000)]
Mass = Annotated[float, Field(ge=0, le=1e6, allow_inf_nan=False)]


def _visible(name: str) -> str:
    """Refuse a name that nobody could see or click on."""
    if all(letter in BLANKS or unicodedata.category(letter) in UNSEEN for letter in name):
        raise ValueError("a name has at least one letter, figure or sign that can be seen")
    return name


Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120), AfterValidator(_visible)]
Line = Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)]
Millimetres = Annotated[float, Field(ge=-1e6, le=1e6, allow_inf_nan=False)]
Degrees = Annotated[float, Field(ge=-3600, le=3600, allow_inf_nan=False)]
Position = Annotated[float, Field(ge=-1e6, le=1e6, allow_inf_nan=False)]
# What is above nought and less than this is no measure of anything: its reciprocal would be beyond all bounds.
SMALLEST = 1e-9
Positive = Annotated[float, Field(ge=SMALLEST, le=1e6, allow_inf_nan=False)]


def _known_zone(name: str) -> str:
    if name not in ZONES:
        raise ValueError("a time zone is named as in Europe/London")
    return name


def _sane_year(value: datetime) -> datetime:
    if not 1990 <= value.year <= 2150:
        raise ValueError("a date lies between 1990 and 2150")
    return value


Zone = Annotated[str, AfterValidator(_known_zone)]
Instant = Annotated[AwareDatetime, AfterValidator(_sane_year)]


class Section(BaseModel):
    """A part of the plan: frozen, and without fields that this version does not know."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)
