"""Values that nobody can change any more: arrays closed to writing, lists as tuples, dicts that refuse."""

from collections.abc import Callable, Container, Mapping
from dataclasses import fields, is_dataclass
from datetime import date
from enum import Enum
from fractions import Fraction
from functools import cache
from typing import Any, Literal, NoReturn, TypeAlias, get_args, get_origin, get_type_hints

import numpy as np
from pydantic import BaseModel

# About what a number, a word or a small object takes.
PLAIN_BYTES = 50
Sized: TypeAlias = tuple[Any, int]
Close: TypeAlias = Callable[[Any, Container[int]], Sized]


class ClosedDict(dict[Any, Any]):
    """A dict that refuses every change."""

    def _refuse(self, *_: Any, **__: Any) -> NoReturn:
        raise TypeError("this is finished: what it is to be is made anew")

    __setitem__ = __delitem__ = __ior__ = update = setdefault = pop = popitem = clear = _refuse

    def __reduce__(self) -> tuple[Any, ...]:
        return ClosedDict, (dict(self),)


def closed(value: Any, already: Container[int] = ()) -> Sized:
    """The value, closed, and about how many bytes it holds, without what is closed `already` (by its id).

    A field of a dataclass that takes no part in comparing is a memory of its own, and left as it is.
    """
    if id(value) in already:
        return value, 0
    kind = type(value)
    close = _CLOSE.get(kind)
    if close is None:
        close = _CLOSE[kind] = _how(kind)
    return close(value, already)


def _how(kind: type) -> Close:
    if not may_be_open(kind):
        return _plain
    if issubclass(kind, np.ndarray):
        return _array
    if issubclass(kind, tuple | list):
        return _rows
    if issubclass(kind, Mapping):
        return _mapping
    if is_dataclass(kind):
        names = tuple(field.name for field in fields(kind) if field.compare)
        return lambda value, already: _fields(value, names, already)
    return _plain


def _plain(value: Any, already: Container[int]) -> Sized:
    return value, PLAIN_BYTES


def _array(value: Any, already: Container[int]) -> Sized:
    value.setflags(write=False)
    return value, PLAIN_BYTES + int(value.nbytes)


def _rows(value: Any, already: Container[int]) -> Sized:
    kind = tuple if isinstance(value, list) else type(value)
    if all(_CLOSE.get(one) is _plain for one in set(map(type, value))):
        return (value if kind is type(value) else tuple(value)), PLAIN_BYTES * (1 + len(value))
    each = [closed(item, already) for item in value]
    size = PLAIN_BYTES + sum(size for _, size in each)
    if kind is type(value) and all(now is was for (now, _), was in zip(each, value, strict=True)):
        return value, size
    items = (now for now, _ in each)
    return (kind(items) if kind is tuple else kind(*items)), size


def _mapping(value: Any, already: Container[int]) -> Sized:
    if type(value) is ClosedDict:
        return value, PLAIN_BYTES * (1 + len(value))
    each = {key: closed(item, already) for key, item in value.items()}
    return ClosedDict({key: now for key, (now, _) in each.items()}), PLAIN_BYTES + sum(n for _, n in each.values())


def _fields(value: Any, names: tuple[str, ...], already: Container[int]) -> Sized:
    size = PLAIN_BYTES
    for name in names:
        was = getattr(value, name)
        now, more = closed(was, already)
        size += more
        if now is not was:
            object.__setattr__(value, name, now)
    return value, size


@cache
def may_be_open(hint: Any) -> bool:
    """Whether a value of a type could have something in it that can be changed."""
    if hint in _PLAIN or isinstance(hint, str) or get_origin(hint) is Literal:
        return False
    if get_origin(hint) in (dict, list, set, Mapping):
        return True
    if parts := [part for part in get_args(hint) if part is not Ellipsis]:
        return any(map(may_be_open, parts))
    if isinstance(hint, type) and issubclass(hint, BaseModel | Enum | date | Fraction):
        return False
    if not is_dataclass(hint) or hasattr(hint, "__parameters__"):
        return True
    return any(map(may_be_open, get_type_hints(hint).values()))


_PLAIN: tuple[type, ...] = (str, int, float, bool, bytes, type(None))
_CLOSE: dict[type, Close] = dict.fromkeys(_PLAIN, _plain)
