"""A setting pulled to a value: put at the nearest mark of its dial, and no limit beyond its other end."""

from fractions import Fraction

from pydantic import JsonValue

from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.subjects.light import dials
from bridle.core.subjects.light.dials import STEPS_A_STOP, Dial

# The other end of each limit, and whether a value has to lie above it.
OTHER_END = {
    "light.shutter_short_s": ("shutter_long_s", False),
    "light.shutter_long_s": ("shutter_short_s", True),
    "light.iso_low": ("iso_high", False),
    "light.iso_high": ("iso_low", True),
    "light.aperture_wide": ("aperture_narrow", False),
    "light.aperture_narrow": ("aperture_wide", True),
}


def dialled(plan: Plan, path: str, dial: Dial, value: float) -> list[Edit]:
    """The edit that puts the nearest mark at a path. Raises ValueError for what is on no dial."""
    if not value > 0:
        raise ValueError("a setting is more than nought")
    mark = dials.label(dial, dials.nearest(dial, value, STEPS_A_STOP[plan.light.step]), STEPS_A_STOP[plan.light.step])
    if path in OTHER_END:
        field, above = OTHER_END[path]
        other = float(getattr(plan.light, field))
        mark = max(mark, other) if above else min(mark, other)
    return [Edit(path=path, value=_stored(dial, mark))]


def _stored(dial: Dial, mark: float) -> JsonValue:
    if dial == "shutter":
        return str(exact_mark(mark))
    return round(mark) if dial == "iso" else mark


def exact_mark(seconds: float) -> Fraction:
    """What is engraved on a shutter dial, as an exact number: 1/60 and not its decimals."""
    return Fraction(seconds).limit_denominator(8000)
