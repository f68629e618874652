"""The sentence as the page draws it."""

from dataclasses import dataclass
from typing import Literal

from bridle.core.chapters.clip.roundings import Rounded
from bridle.core.plan.clip import Quantity
from bridle.core.snag import Fix


@dataclass(frozen=True, slots=True, kw_only=True)
class QuantityState:
    """One figure of the sentence: its value where known, whether it is held, and what was typed for it.

    `pulls` are the pegs that give way when it is typed over.
    """

    quantity: Quantity
    label: str
    unit: str
    value: float | None
    exact: str | None
    held: bool
    asked: float | None
    pulls: tuple[Quantity, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class RoundingNote:
    """What became of a held length (in seconds) or speed-up, by whole frames or by the step of the interval.

    `fixes` come nearer to what was asked for, each in its own way.
    """

    quantity: Rounded
    asked: float
    got: float
    cause: Literal["whole frames", "interval step", "whole windows"]
    fixes: tuple[Fix, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class ClipState:
    """The sentence: solved, something still free, or a contradiction.

    `subject` says how the interval stands to what usually suits the subject; nothing while one of both is not known.
    `chosen` is whether anybody chooses how often a frame is taken; the layers of a print call theirs.
    """

    state: Literal["solved", "free", "contradiction", "too many"]
    quantities: tuple[QuantityState, ...]
    missing: tuple[str, ...]
    rounding: tuple[RoundingNote, ...]
    subject: Literal["shorter", "within", "longer"] | None = None
    chosen: bool = True
