"""Reading G-code: lines of words, with comments after a semicolon or in brackets."""

import re
from collections.abc import Iterable, Iterator
from dataclasses import dataclass

_WORD = re.compile(r"\s*([A-Za-z])\s*([+-]?(?:\d+\.?\d*|\.\d+))")
_BRACKETS = re.compile(r"\([^()]*\)")
_CHECKSUM = re.compile(r"\*\d+\s*$")


class GcodeError(ValueError):
    """A line that cannot be read or carried out: its number, what stood there, and what was expected."""

    def __init__(self, line: int, stood: str, expected: str) -> None:
        """Keep all three."""
        super().__init__(f"line {line}: found “{stood}”, expected {expected}")
        self.line, self.stood, self.expected = line, stood, expected


@dataclass(frozen=True)
class Block:
    """One line's words, capital letters with their numbers, in the order they stand; `line` counts from 1."""

    line: int
    words: tuple[tuple[str, float], ...]

    def codes(self, letter: str) -> list[float]:
        """All numbers behind a letter (`G` or `M`)."""
        return [number for name, number in self.words if name == letter]

    def value(self, letter: str) -> float | None:
        """The number behind a letter, where it stands there."""
        return next((number for name, number in self.words if name == letter), None)


def read(lines: Iterable[str]) -> Iterator[Block]:
    """The blocks of a program; empty lines, comments, line numbers and checksums are passed over.

    Raises `GcodeError` at the first line that is not made of words.
    """
    for number, text in enumerate(lines, 1):
        block = _block(number, text)
        if block.words:
            yield block


def _block(number: int, text: str) -> Block:
    rest = _BRACKETS.sub(" ", text).split(";")[0]
    rest = _CHECKSUM.sub("", rest).strip()
    if rest in ("", "%"):
        return Block(number, ())
    words, at = [], 0
    while at < len(rest):
        found = _WORD.match(rest, at)
        if found is None:
            raise GcodeError(number, rest[at : at + 20].strip(), "a letter with a number behind it")
        words.append((found[1].upper(), float(found[2])))
        at = found.end()
        while at < len(rest) and rest[at].isspace():
            at += 1
    return Block(number, tuple(word for word in words if word[0] != "N"))
