"""Where the values of a JSON text stand: the line and column of every path."""

import json
import re
from collections.abc import Iterator

_TOKEN = re.compile(r'"(?:[^"\\]|\\.)*"|[{}\[\],:]|[^\s{}\[\],:"]+')


def lines_of(text: str) -> dict[tuple[str | int, ...], int]:
    """The line (from 1) on which the value of each path starts. The text must be valid JSON."""
    tokens = _tokens(text)
    found: dict[tuple[str | int, ...], int] = {}
    _value(next(tokens), tokens, (), found)
    return found


def twice(text: str) -> Iterator[tuple[str, int]]:
    """The keys that stand a second time in their object, each with its line. The text must be valid JSON."""
    open_objects: list[set[str] | None] = []
    before = ("", 0)
    for word, line in _tokens(text):
        if word in "{[":
            open_objects.append(set() if word == "{" else None)
        elif word in "}]":
            open_objects.pop()
        elif word == ":" and (keys := open_objects[-1]) is not None:
            key = json.loads(before[0])
            if key in keys:
                yield key, before[1]
            keys.add(key)
        before = (word, line)


def _tokens(text: str) -> Iterator[tuple[str, int]]:
    line, at = 1, 0
    for match in _TOKEN.finditer(text):
        line += text.count("\n", at, match.start())
        at = match.start()
        yield match[0], line


def _value(
    token: tuple[str, int],
    tokens: Iterator[tuple[str, int]],
    path: tuple[str | int, ...],
    found: dict[tuple[str | int, ...], int],
) -> None:
    word, found[path] = token
    if word == "{":
        _members(tokens, path, found)
    elif word == "[":
        _items(tokens, path, found)


def _members(
    tokens: Iterator[tuple[str, int]], path: tuple[str | int, ...], found: dict[tuple[str | int, ...], int]
) -> None:
    for word, _ in tokens:
        if word == "}":
            return
        if word == ",":
            continue
        next(tokens)  # the colon
        _value(next(tokens), tokens, (*path, word[1:-1]), found)


def _items(
    tokens: Iterator[tuple[str, int]], path: tuple[str | int, ...], found: dict[tuple[str | int, ...], int]
) -> None:
    number = 0
    for word, line in tokens:
        if word == "]":
            return
        if word != ",":
            _value((word, line), tokens, (*path, number), found)
            number += 1
