"""Where a figure of the plan comes from: typed, from a kit card, measured, or nobody has said yet."""

from dataclasses import dataclass
from datetime import date
from typing import Any, Literal

from bridle.core.plan.beat import Beat
from bridle.core.plan.cards import Measured
from bridle.core.plan.document import Plan
from bridle.core.plan.kit import Copy
from bridle.core.reckon.parts import as_json, bound

How = Literal["typed", "card", "measured", "usual"]


@dataclass(frozen=True, slots=True)
class Origin:
    """How a figure is known: the card it is on, what the card says, and the measurement behind it."""

    how: How
    card: str | None = None
    card_value: float | None = None
    spread: float | None = None
    on: date | None = None
    count: int = 0


# The parts of the beat that a person can take hold of.
PATHS = (
    "wake_s", "half_s", "warm_s", "call_s", "couple_s", "lag_s", "press_s", "exposure_s", "write_s", "settle_s",
    "margin", "least_margin_s", "merge_s", "bracket_gap_s",
)  # fmt: skip


def answer(plan: Plan) -> dict[str, Origin]:
    """The origin of every figure that cards can give, and of every part of the beat."""
    origins = {f"beat.{name}": _typed_or_usual(plan.beat, name) for name in PATHS}
    for link in bound(plan.kit.copies, plan.rig.axes):
        standing = as_json(_at(plan, link.path))
        said = _number(link.value)
        if standing != link.value:
            origins[link.path] = Origin("typed", link.copy.card.name, said)
        else:
            origins[link.path] = _from_card(link.copy, link.field, said)
    return origins


def _at(plan: Plan, path: str) -> object:
    """What stands at a path that a card gives the value for."""
    found: Any = plan
    for step in path.split("."):
        found = found[int(step)] if isinstance(found, tuple) else getattr(found, step)
    return found


def _from_card(copy: Copy, field: str, said: float | None) -> Origin:
    measured = last_measured(copy.card.measured, field)
    if measured is None or said is None or abs(measured.value - said) > 1e-6 * max(1.0, abs(said)):
        return Origin("card", copy.card.name, said)
    return Origin("measured", copy.card.name, said, measured.spread, measured.on, len(measured.readings))


def last_measured(history: tuple[Measured, ...], field: str) -> Measured | None:
    """The newest measurement of a field."""
    return next((measured for measured in reversed(history) if measured.field == field), None)


def _typed_or_usual(beat: Beat, name: str) -> Origin:
    return Origin("usual" if getattr(beat, name) == Beat.model_fields[name].default else "typed")


def _number(value: object) -> float | None:
    if isinstance(value, str):
        over, _, under = value.partition("/")
        return float(over) / float(under or 1)
    return float(value) if isinstance(value, int | float) else None
