"""Works a figure out again from its own formula and terms, as a careful reader would."""

import math
from fractions import Fraction

from bridle.core.figure import Figure
from bridle.core.subjects.numbers.rounding import ceil_to, floor_to, nearest

FUNCTIONS = {
    "ceil": math.ceil,
    "floor": math.floor,
    "round": nearest,
    "sqrt": math.sqrt,
    "ln": math.log,
    "log2": math.log2,
    "abs": abs,
    "atan": math.atan,
    "sin": math.sin,
    "cos": math.cos,
    "tan": math.tan,
    "radians": math.radians,
    "asin": math.asin,
    "atan2": math.atan2,
    "degrees": math.degrees,
    "min": min,
    "max": max,
    "up_to": lambda value, step: ceil_to(value, Fraction(step)),
    "down_to": lambda value, step: floor_to(value, Fraction(step)),
}


def worked_out(figure: Figure) -> float:
    """The value that the expression gives for the terms, exact ones taken exactly."""
    terms = {t.symbol: Fraction(t.exact) if t.exact else t.value for t in figure.terms}
    return float(eval(figure.expression, {"__builtins__": {}, **FUNCTIONS}, terms))
