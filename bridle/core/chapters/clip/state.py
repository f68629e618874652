"""The sentence as the page draws it."""

from typing import Literal

from bridle.core.chapters.answer import State
from bridle.core.plan.clip import Quantity


class QuantityState(State):
    """One figure of the sentence: its value where known, whether it is held, and what was typed for it."""

    quantity: Quantity
    label: str
    unit: str
    value: float | None
    exact: str | None
    held: bool
    asked: float | None


class RoundingNote(State):
    """What rounding to whole frames did to a held length, in seconds."""

    quantity: Literal["shoot", "clip"]
    asked: float
    got: float


class ClipState(State):
    """The sentence: solved, something still free, or a contradiction.

    `subject` says how the interval stands to what usually suits the subject; nothing while one of both is not known.
    """

    state: Literal["solved", "free", "contradiction", "too many"]
    quantities: tuple[QuantityState, ...]
    missing: tuple[str, ...]
    rounding: tuple[RoundingNote, ...]
    subject: Literal["shorter", "within", "longer"] | None = None
