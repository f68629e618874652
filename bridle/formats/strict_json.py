"""JSON from outside: read as it stands, bounded before it is looked at more closely."""

import json
import math
import re
from collections.abc import Callable
from itertools import islice
from typing import Any

# What may hold so many entries: objects, and lists of anything but plain values. No part of a plan has more.
MOST_ENTRIES = 400
# A list of plain values, such as the seconds of each layer.
MOST_PLAIN = 20_000
MOST_VALUES = 60_000
LARGEST_INT = 2**63 - 1
# Numbers that may be more than a float or a column holds, and halves of characters: rare, so looked for first.
_LARGE = re.compile(r"\d{19}|[eE]\+?0*[1-9]\d\d")
_HALF = re.compile(r"\\u[dD][89a-fA-F]")

Pairs = Callable[[list[tuple[str, Any]]], dict[str, Any]]


class TooManyError(ValueError):
    """More entries than a plan has; carries the place."""

    def __init__(self, path: tuple[str | int, ...], said: str) -> None:
        """Keep the place and what is wrong there."""
        super().__init__(said)
        self.path = path


def loads(text: str, pairs: Pairs | None = None, typed: bool = False) -> Any:
    """The values of a JSON text. Raises a JSONDecodeError, `TooManyError`, a ValueError or a RecursionError.

    `typed`: what is read is checked against a type that bounds its numbers, and says where they stand.
    """
    large = not typed and _LARGE.search(text) is not None
    data = json.loads(
        text,
        parse_constant=no_constant,
        parse_float=_finite if large else None,
        parse_int=_small if large else None,
        object_pairs_hook=pairs,
    )
    if _HALF.search(text) is not None:
        _whole_characters(data)
    count(data)
    return data


def no_constant(name: str) -> float:
    """Refuse NaN and infinity, which some writers put into JSON. Raises ValueError."""
    raise ValueError(f"{name} is no number in a plan")


def _finite(text: str) -> float:
    value = float(text)
    if not math.isfinite(value):
        raise ValueError(f"{text[:20]} is larger than any number of a plan")
    return value


def _small(text: str) -> int:
    if len(text) > 20 or abs(value := int(text)) > LARGEST_INT:
        raise ValueError(f"{text[:20]}… is larger than any number of a plan")
    return value


def _whole_characters(data: Any) -> None:
    try:
        json.dumps(data, ensure_ascii=False).encode()
    except UnicodeEncodeError as error:
        raise ValueError("a text holds half a character, which no text can be written with") from error


def count(data: Any) -> int:
    """How many values there are. Raises `TooManyError`, at the first place that holds too many."""
    values = 0
    waiting: list[tuple[tuple[str | int, ...], Any]] = [((), data)]
    while waiting:
        path, value = waiting.pop()
        if not isinstance(value, dict | list):
            continue
        plain = not isinstance(value, dict) and not any(isinstance(one, dict | list) for one in value)
        most = MOST_PLAIN if plain else MOST_ENTRIES
        if len(value) > most:
            raise TooManyError(path, f"{len(value):,} entries stand here; expected at most {most:,}")
        values += 1 if plain else len(value)
        if values > MOST_VALUES:
            raise TooManyError(path, f"more than {MOST_VALUES:,} values stand up to here; no plan has so many")
        if not plain:
            each = value.items() if isinstance(value, dict) else enumerate(value)
            waiting.extend(((*path, key), one) for key, one in each if isinstance(one, dict | list))
    return values


def glimpse(value: Any, length: int = 60) -> str:
    """The beginning of a value as JSON, without writing all of it."""
    if isinstance(value, str):
        value = value[: length * 2]
    elif isinstance(value, list | tuple):
        value = [glimpse_of(one) for one in value[:length]]
    elif isinstance(value, dict):
        value = {str(key)[:length]: glimpse_of(one) for key, one in islice(value.items(), length)}
    return json.dumps(value, ensure_ascii=False, default=str)[:length]


def glimpse_of(value: Any) -> Any:
    """An entry as it is shown within another: what is in it is left out."""
    return type(value)() if isinstance(value, dict | list) and value else value
