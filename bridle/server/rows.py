"""Rows as they lie in the database: each read by itself, so that one that is damaged takes no other down."""

import json
import zlib
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, TypeVar

from django.core.exceptions import ObjectDoesNotExist
from django.db import connection, models

# What a column may hold that its field cannot make anything of.
UNFIT = (ValueError, TypeError, ArithmeticError, LookupError)
DAMAGED = "This entry is damaged and cannot be read. Everything else is as it was."
Row = TypeVar("Row", bound=models.Model)


@dataclass(frozen=True)
class Unreadable:
    """The text of a column that is no JSON; whatever wants to read it as a plan, a card or a state refuses it."""

    text: str


class KeptJSON(models.JSONField):
    """JSON that says so when it is none, where Django's own field ends the whole query with an error."""

    def from_db_value(self, value: Any, *place: Any) -> Any:
        """The value, or `Unreadable`."""
        try:
            return super().from_db_value(value, *place)
        except UNFIT:
            return Unreadable(str(value))

    def get_db_prep_value(self, value: Any, connection: Any, prepared: bool = False) -> Any:
        """What could not be read goes back as it was."""
        if isinstance(value, Unreadable):
            return value.text
        return super().get_db_prep_value(value, connection, prepared)

    def deconstruct(self) -> Any:
        """To the database this is Django's own field."""
        name, _, arguments, options = super().deconstruct()
        return name, "django.db.models.JSONField", arguments, options


class PackedJSON(models.BinaryField):  # type: ignore[type-arg]
    """JSON that is looked at seldom, compressed."""

    def from_db_value(self, value: Any, *place: Any) -> Any:
        """The value, or `Unreadable`."""
        try:
            return None if value is None else unpacked(bytes(value))
        except (zlib.error, *UNFIT):
            return Unreadable(bytes(value).decode("utf-8", "replace") if isinstance(value, bytes) else str(value))

    def get_db_prep_value(self, value: Any, connection: Any, prepared: bool = False) -> Any:
        """The bytes that are kept."""
        return super().get_db_prep_value(packed(value), connection, prepared)


def packed(value: Any) -> bytes:
    """A value as compressed JSON."""
    return zlib.compress(json.dumps(value, separators=(",", ":")).encode(), 6)


def unpacked(raw: bytes) -> Any:
    """The value of compressed JSON. Raises a zlib.error or a ValueError."""
    return json.loads(zlib.decompress(raw))


@dataclass(frozen=True)
class Damaged:
    """A row that cannot be read, by its number."""

    pk: int


def each(rows: models.QuerySet[Row]) -> Iterator[Row | Damaged]:
    """The rows of a query in its order; one by one where all at once cannot be read."""
    try:
        found: list[Row] = list(rows)
    except UNFIT:
        yield from _one_by_one(rows)
    else:
        yield from found


def _one_by_one(rows: models.QuerySet[Row]) -> Iterator[Row | Damaged]:
    whole = rows.model._default_manager.all() if rows.query.is_sliced else rows
    for pk in list(rows.values_list("pk", flat=True)):
        try:
            yield whole.get(pk=pk)
        except ObjectDoesNotExist:
            continue
        except UNFIT:
            yield Damaged(pk)


def readable(rows: models.QuerySet[Row]) -> Iterator[Row]:
    """Those rows of a query that can be read."""
    return (row for row in each(rows) if not isinstance(row, Damaged))


def as_text(model: type[models.Model], pk: int) -> str | None:
    """All columns of a row as text, whatever is in them; None where there is no such row."""
    table, key = model._meta.db_table, model._meta.pk.column
    columns = [field.column for field in model._meta.concrete_fields]
    wanted = ", ".join(f'CAST("{column}" AS BLOB)' for column in columns)
    with connection.cursor() as cursor:
        cursor.execute(f'SELECT {wanted} FROM "{table}" WHERE "{key}" = %s', [pk])
        row = cursor.fetchone()
    if row is None:
        return None
    return "".join(f"{column}: {_text(value)}\n" for column, value in zip(columns, row, strict=True))


def _text(value: Any) -> str:
    if value is None:
        return ""
    raw = bytes(value)
    try:
        return json.dumps(unpacked(raw), ensure_ascii=False)
    except (zlib.error, ValueError):
        return raw.decode("utf-8", "replace")
