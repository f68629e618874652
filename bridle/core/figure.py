"""Figures: values that a person sees, each with the formula and the numbers it came from."""

from dataclasses import dataclass
from fractions import Fraction
from typing import TypeAlias


@dataclass(frozen=True)
class Formula:
    """A rule of arithmetic: an expression over named terms, and where it comes from.

    The expression is plain arithmetic with `ceil`, `floor`, `round`, `sqrt`, `ln`, `log2`, `abs`, `sin`, `cos`, `tan`,
    `asin`, `atan`, `atan2`, `degrees`, `radians`, `min`, `max`, `up_to` and `down_to` (a multiple of a step); names
    are the symbols of its terms.
    """

    expression: str
    source: str


# Plain dataclasses: an evaluation makes some hundreds of them, and checking each would show in its time.
@dataclass(frozen=True, slots=True)
class Term:
    """One number in a formula; `exact` where the value is a ratio that a float cannot hold."""

    symbol: str
    label: str
    value: float
    unit: str
    exact: str | None = None


@dataclass(frozen=True, slots=True)
class Figure:
    """A computed value with its working."""

    key: str
    label: str
    value: float
    unit: str
    exact: str | None
    expression: str
    source: str
    terms: tuple[Term, ...]


Number: TypeAlias = float | int | Fraction


def exact_text(value: Number) -> str | None:
    """The exact text of a ratio; None where the float says it all."""
    # Not `isinstance`: numbers are abstract classes, and asking them is slow.
    return str(value) if type(value) is Fraction else None


def term(symbol: str, label: str, value: Number, unit: str) -> Term:
    """One term of a formula."""
    return Term(symbol, label, float(value), unit, str(value) if type(value) is Fraction else None)


def figure(key: str, label: str, value: Number, unit: str, formula: Formula, *terms: Term) -> Figure:
    """A figure made from a formula with its terms."""
    return Figure(key, label, float(value), unit, exact_text(value), formula.expression, formula.source, terms)
