"""What the kit's API takes and gives."""

from datetime import date, datetime
from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field

from bridle.core.asks.shelf import CardChange, Like
from bridle.core.figure import Figure
from bridle.core.plan.document import Plan
from bridle.core.plan.kit import Card, Copy
from bridle.core.values import Line, Name


class MeasureColumn(Schema):
    """A number of a reading."""

    label: str
    unit: str


class InstrumentLine(Schema):
    """What readings are made with, and how far one may be off, in its unit."""

    key: str
    label: str
    error: float
    unit: str


class MeasureLine(Schema):
    """Something that can be measured on a card, and how."""

    key: str
    label: str
    field: str
    unit: str
    columns: list[MeasureColumn]
    how: list[str]
    least: int
    read_with: list[InstrumentLine]


class UsedIn(Schema):
    """A shoot whose plan has a copy of a card."""

    id: int
    name: str


class CardLine(Schema):
    """A card of the shelf with what follows from it, and what can be measured on it.

    `usual` are the places of those figures that nobody has typed, measured or chosen.
    """

    id: int
    identity: str
    version: int
    changed_at: datetime
    binned: bool
    card: Card
    figures: list[Figure]
    measures: list[MeasureLine]
    usual: list[str]
    used_in: list[UsedIn]


class BrokenCard(Schema):
    """A card that this Bridle cannot read, and why."""

    id: int
    name: str
    said: str


class Shelf(Schema):
    """All cards that can be read, those that cannot, and how many lie in the bin.

    `starters` are the ids of those that make a rig to begin with, `usual` what such a rig is put together from.
    """

    cards: list[CardLine]
    starters: list[int]
    usual: list[str]
    broken: list[BrokenCard]
    in_bin: int


class NewCard(Schema):
    """What a new card is like; everything else has a sensible default."""

    like: Like
    name: Name | Literal[""] = ""


class SaveCard(Schema):
    """A card to keep, and the version it was made from."""

    version: int
    card: Card


class StaleCard(Schema):
    """Someone else saved in between: what is kept now."""

    message: str
    kept: CardLine


class TypeOnCard(Schema):
    """Text typed at a path of a card; empty text clears what may be empty."""

    card: Card
    path: str
    text: Annotated[str, Field(max_length=400)]
    imperial: bool = False


class ChangeCard(Schema):
    """A choice made on a card, or a change of one of its tables."""

    card: Card
    change: CardChange


class CardTold(Schema):
    """A card and what follows from it, not kept yet."""

    card: Card
    figures: list[Figure]
    measures: list[MeasureLine]


class Readings(Schema):
    """Readings of one measure of a card, as they were typed: one list a reading, its numbers in their order."""

    card: Card
    key: str
    readings: Annotated[
        list[Annotated[list[Annotated[str, Field(max_length=40)]], Field(max_length=4)]], Field(max_length=200)
    ]
    read_with: Annotated[str, Field(max_length=40)] = ""
    imperial: bool = False
    on: date
    note: Line = ""


class Measuring(Schema):
    """What the readings came to, and the card with it; `card` is None where it should not be applied.

    `play` is what was found to be missing at every length, in the unit that was read; it goes onto the card too.
    """

    value: float
    mean: float
    spread: float
    unit: str
    play: float
    play_unit: str
    accepted: bool
    verdict: str
    odd: list[int]
    figures: list[Figure]
    card: Card | None


class ComparePlan(Schema):
    """A plan, to be compared with the shelf."""

    plan: Plan


class ChangedCard(Schema):
    """A copy in a plan whose card has changed since: both, in words, and what the update does to the plan."""

    key: str
    name: str
    differences: list[str]
    effects: list[str]
    copy_now: Copy


class KitCompared(Schema):
    """The copies of a plan that have changed on the shelf since."""

    changed: list[ChangedCard]


class CardThen(Schema):
    """A card as it was once, with what followed from it, and how it differs from the card as it is."""

    version: int
    made_at: datetime
    card: Card
    figures: list[Figure]
    differences: list[str]
