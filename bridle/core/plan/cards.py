"""What every card of the kit has, and those that join into a rig."""

from datetime import date
from typing import Annotated, Literal

from pydantic import BeforeValidator, Field

from bridle.core.values import Line, Mass, Name, Section

Thread = Literal["1/4-20", "3/8-16", "M3", "M4", "M5", "M6", "M8", "fine", "plate", "own", "none"]
Socket = Literal["2.5 mm", "3.5 mm", "USB", "own", "none"]
Holds = Literal["yes", "no", "not known"]
NonNegative = Annotated[float, Field(ge=0, le=1e6, allow_inf_nan=False)]


def nothing(value: object) -> object:
    """Nought stood for nothing once."""
    return None if value in (0, "0") and not isinstance(value, bool) else value


Unknown = Annotated[NonNegative | None, BeforeValidator(nothing)]


class Measured(Section):
    """A figure that was measured: in the unit of its field, with spread and date, and the readings it came from."""

    field: Name
    value: Annotated[float, Field(allow_inf_nan=False)]
    spread: NonNegative
    readings: Annotated[tuple[float, ...], Field(max_length=200)] = ()
    on: date
    note: Line = ""


class CardBase(Section):
    """What every card has. `measured` is the history, the newest last; figures not in it were typed."""

    name: Name
    note: Line = ""
    mass_g: Mass = 0.0
    # Which figures somebody typed, though they say what is usual.
    typed: Annotated[tuple[Name, ...], Field(max_length=400)] = ()
    measured: Annotated[tuple[Measured, ...], Field(max_length=400)] = ()
    # The steps through its own menu, in their order: what is set, what is skipped, what is left as it is.
    menu: Annotated[tuple[Line, ...], Field(max_length=30)] = ()


class Joined(CardBase):
    """A card that stands in the chain from ground to camera: its threads, its height, what it carries."""

    below: Thread = "1/4-20"
    above: Thread = "1/4-20"
    height_mm: NonNegative = 0.0
    width_mm: NonNegative = 60.0
    carries_g: Mass | None = None
    # How far the screw on its upper side stands out, and how deep the hole on its lower side is.
    screw_mm: NonNegative | None = None
    hole_mm: NonNegative | None = None
