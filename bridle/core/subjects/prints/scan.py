"""A first, quick pass over a file: how its layers are announced, how its lines end, whether it is text at all."""

import re
from collections.abc import Callable, Iterable
from dataclasses import dataclass, field

from bridle.core.subjects.prints.pieces import NoTextError

FLAGS = re.M | re.I
OF = rb"(?:[ \t]*(?:of|/)[ \t]*\d+)?"
# How layers are announced in comments: by number, by a change, by number and height, before a change.
STYLES = {
    "numbered": re.compile(
        rb"^[ \t]*;[ \t]*layer[ \t]*(?:no\.?|nr\.?|number|index)?[ \t]*[:=][ \t]*-?\d+" + OF + rb"[ \t]*\r?$", FLAGS
    ),
    "change": re.compile(
        rb"^[ \t]*;[ \t]*(?:layer[ \t_-]*change|change[ \t_-]*layer|(?:next|new)[ \t_-]*layer)[ \t]*\r?$", FLAGS
    ),
    "with height": re.compile(
        rb"^[ \t]*;[ \t]*(?:(?:begin|start)[ \t]+)?layer[ \t#]+\d+"
        + OF
        + rb"[ \t]*(?:[,:][ \t]*)?(?:\(?z[ \t]*[=:]?[ \t]*[\d.]+.*)?\r?$",
        FLAGS,
    ),
    "before": re.compile(rb"^[ \t]*;[ \t]*before[ \t_-]*layer[ \t_-]*change[ \t]*\r?$", FLAGS),
}
# A file that is no text says so in its first bytes, or in a byte that no text has.
STARTS = {
    b"GCDE": "a binary print file",
    b"PK\x03\x04": "a packed archive",
    b"\x1f\x8b": "a compressed file",
    b"\x7fELF": "a program",
    b"\x89PNG": "a picture",
    b"%PDF": "a document",
    b"solid ": "a model that has not been sliced",
}
KEPT = 64


@dataclass(slots=True)
class Scanned:
    """What the first pass finds: bytes, lines, how many marks of each style, line ends, whether the last has one."""

    size: int = 0
    lines: int = 0
    marks: dict[str, int] = field(default_factory=lambda: dict.fromkeys(STYLES, 0))
    crlf: int = 0
    last_ends: bool = True
    stops: int = 0

    @property
    def style(self) -> str | None:
        """How layers are announced; nothing where only their heights tell."""
        style = max(self.marks, key=lambda name: self.marks[name])
        return style if self.marks[style] else None


def scan(pieces: Iterable[bytes], told: Callable[[int], None] = lambda _: None) -> Scanned:
    """Go over pieces of whole lines. Raises `NoTextError` where they are no text."""
    found = Scanned()
    for piece in pieces:
        if not found.size:
            _refuse(piece)
        at = piece.find(b"\0")
        if at >= 0:
            raise NoTextError(found.size + at, "a nought byte: this file is damaged, or it is no text")
        found.size += len(piece)
        found.lines += piece.count(b"\n")
        found.crlf += piece.count(b"\r\n")
        found.last_ends = piece.endswith(b"\n")
        for style, pattern in STYLES.items():
            found.marks[style] += len(pattern.findall(piece))
        told(found.size)
    found.lines += not found.last_ends
    return found


def _refuse(piece: bytes) -> None:
    for start, what in STARTS.items():
        if piece.startswith(start):
            raise NoTextError(0, f"this is {what}; a print is G-code as text, as a slicer exports it")
    if piece.startswith((b"\xff\xfe", b"\xfe\xff")):
        raise NoTextError(0, "this text is written in two bytes a letter; G-code is plain text of one byte a letter")
