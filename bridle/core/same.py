"""Whether two values are the same to the last bit: of one type, with the same bits, zone and fold.

Plain `==` takes 12:00 in London for 13:00 in Paris, −0.0 for 0.0, 1 for 1.0, and holds that NaN is not itself.
"""

import struct
from collections.abc import Mapping
from dataclasses import fields, is_dataclass
from datetime import datetime, time
from typing import Any, TypeVar, cast

import numpy as np
from pydantic import BaseModel

T = TypeVar("T")


def same(one: Any, other: Any) -> bool:
    """Whether nobody could tell one value from the other."""
    if one is other:
        return True
    if type(one) is not type(other):
        return False
    compare = _COMPARE.get(type(one))
    if compare is None:
        compare = _COMPARE[type(one)] = _how(type(one))
    return bool(compare(one, other))


def shared(new: T, old: Any) -> T:
    """The new value, in which each part that is the same in the old one is the old one's object.

    So a part that did not change is told by which it is, also by what was worked out from the old one. Parts of a
    tuple may have moved.
    """
    if same(new, old):
        return cast(T, old)
    if type(new) is type(old) and isinstance(new, BaseModel):
        parts = {name: shared(value, getattr(old, name)) for name, value in new}
        changes = {name: value for name, value in parts.items() if value is not getattr(new, name)}
        return cast(T, new.model_copy(update=changes)) if changes else new
    if isinstance(new, tuple) and isinstance(old, tuple) and new and isinstance(new[0], BaseModel):
        return cast(T, _matched(new, old))
    return new


def _matched(new: tuple[Any, ...], old: tuple[Any, ...]) -> tuple[Any, ...]:
    """Each item as it stands in the old tuple: at its own place, or at another that nobody else has."""
    left, made = dict(enumerate(old)), dict[int, Any]()
    for number, item in enumerate(new):
        if number in left and same(item, left[number]):
            made[number] = left.pop(number)
    for number, item in enumerate(new):
        if number not in made:
            place = next((place for place, one in left.items() if same(item, one)), None)
            made[number] = shared(item, left.get(number)) if place is None else left.pop(place)
    return tuple(made[number] for number in range(len(new)))


def _how(kind: type) -> Any:
    """How values of a type are compared: looked up once."""
    if issubclass(kind, float):
        return _floats
    if issubclass(kind, datetime | time):
        return _clocks
    if issubclass(kind, np.ndarray):
        return _arrays
    if issubclass(kind, np.generic):
        return _scalars
    if issubclass(kind, BaseModel):
        return _models
    if issubclass(kind, tuple | list):
        return _rows
    if issubclass(kind, Mapping):
        return _mappings
    if is_dataclass(kind):
        names = tuple(field.name for field in fields(kind) if field.compare)
        return lambda one, other: all(same(getattr(one, name), getattr(other, name)) for name in names)
    return _plain


def _plain(one: Any, other: Any) -> bool:
    return bool(one == other)


def _floats(one: float, other: float) -> bool:
    return struct.pack("d", one) == struct.pack("d", other)


def _clocks(one: datetime | time, other: datetime | time) -> bool:
    if one.replace(tzinfo=None) != other.replace(tzinfo=None) or one.fold != other.fold:
        return False
    return one.tzinfo is other.tzinfo or (
        type(one.tzinfo) is type(other.tzinfo) and one.tzinfo == other.tzinfo and repr(one.tzinfo) == repr(other.tzinfo)
    )


def _arrays(one: np.ndarray[Any, Any], other: np.ndarray[Any, Any]) -> bool:
    if one.dtype != other.dtype or one.shape != other.shape:
        return False
    if one.dtype.hasobject:
        return all(same(a, b) for a, b in zip(one.ravel(), other.ravel(), strict=True))
    return one.tobytes() == other.tobytes()


def _scalars(one: np.generic, other: np.generic) -> bool:
    return one.dtype == other.dtype and one.tobytes() == other.tobytes()


def _models(one: BaseModel, other: BaseModel) -> bool:
    return _mappings(vars(one), vars(other)) and one.model_extra == other.model_extra


def _rows(one: Any, other: Any) -> bool:
    return len(one) == len(other) and all(same(a, b) for a, b in zip(one, other, strict=True))


def _mappings(one: Mapping[Any, Any], other: Mapping[Any, Any]) -> bool:
    """The order counts too: it is the order in which things are told."""
    return len(one) == len(other) and all(
        same(a, b) and same(one[a], other[b]) for a, b in zip(one, other, strict=True)
    )


_COMPARE: dict[type, Any] = {str: _plain, int: _plain, bool: _plain, bytes: _plain, float: _floats}
