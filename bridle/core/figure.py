"""Figures: values that a person sees, each with the formula and the numbers it came from."""

from dataclasses import dataclass
from fractions import Fraction

from pydantic import BaseModel, ConfigDict


@dataclass(frozen=True)
class Formula:
    """A rule of arithmetic: an expression over named terms, and where it comes from.

    The expression is plain arithmetic with `ceil`, `floor`, `round`, `sqrt`, `abs`, `sin`, `cos`, `tan`, `atan`,
    `atan2`, `degrees`, `radians`, `min`, `max`, `up_to` and `down_to` (a multiple of a step); names are the
    symbols of its terms.
    """

    expression: str
    source: str


class Term(BaseModel):
    """One number in a formula; `exact` where the value is a ratio that a float cannot hold."""

    model_config = ConfigDict(frozen=True)

    symbol: str
    label: str
    value: float
    unit: str
    exact: str | None = None


class Figure(BaseModel):
    """A computed value with its working."""

    model_config = ConfigDict(frozen=True)

    key: str
    label: str
    value: float
    unit: str
    exact: str | None = None
    expression: str
    source: str
    terms: tuple[Term, ...]


Number = float | int | Fraction


def exact_text(value: Number) -> str | None:
    """The exact text of a ratio; None where the float says it all."""
    return str(value) if isinstance(value, Fraction) else None


def term(symbol: str, label: str, value: Number, unit: str) -> Term:
    """One term of a formula."""
    # Built from typed values here; checking each once more would cost a tenth of the evaluation.
    return Term.model_construct(symbol=symbol, label=label, value=float(value), unit=unit, exact=exact_text(value))


def figure(key: str, label: str, value: Number, unit: str, formula: Formula, *terms: Term) -> Figure:
    """A figure made from a formula with its terms."""
    return Figure.model_construct(
        key=key,
        label=label,
        value=float(value),
        unit=unit,
        exact=exact_text(value),
        expression=formula.expression,
        source=formula.source,
        terms=terms,
    )
