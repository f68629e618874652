"""Marked blocks: how an inserted stop is told from the file around it, and whether anyone has changed it since."""

import re
import zlib
from collections.abc import Iterable, Iterator
from dataclasses import dataclass

BEGIN = re.compile(rb";\{ bridle stop (\d+) of (\d+), layer (\d+)(, after a line without an end)?\r?\n")
END = re.compile(rb";\} bridle (\d+) bytes ([0-9a-f]{8})\r?\n?")
BEGINS = b";{ bridle "
ENDS = b";} bridle "


class AlteredError(ValueError):
    """A block is not as it was written: its line, and what is wrong with it."""

    def __init__(self, line: int, why: str) -> None:
        """Keep both."""
        super().__init__(f"line {line}: {why}")
        self.line = line


@dataclass(frozen=True, slots=True)
class Name:
    """Which stop of how many, and after which layer."""

    number: int
    of: int
    layer: int


def block(name: Name, lines: Iterable[str], end: bytes, after_open_line: bool = False) -> bytes:
    """A block as bytes, its lines ended as the file's are."""
    first = f";{{ bridle stop {name.number} of {name.of}, layer {name.layer}"
    first += ", after a line without an end" if after_open_line else ""
    inside = b"".join(line.encode() + end for line in (first, *lines))
    closing = f";}} bridle {len(inside)} bytes {zlib.crc32(inside):08x}".encode() + end
    return (end if after_open_line else b"") + inside + closing


def strip(pieces: Iterable[bytes], altered_too: bool = False) -> Iterator[bytes]:
    """The file without its blocks, to the byte; pieces are whole lines.

    Raises `AlteredError` at a block that is not as it was written, or has no end; with `altered_too` such a block goes
    as well, from its first marked line to its last.
    """
    inside, began, line = b"", 0, 1
    held = b""
    for piece in pieces:
        at = 0
        if not inside and BEGINS not in piece:
            line += piece.count(b"\n")
            yield held + piece[: len(piece) - _end(piece)]
            held = piece[len(piece) - _end(piece) :]
            continue
        kept = [held]
        held = b""
        while at < len(piece):
            if not inside:
                found = _next(piece, at, BEGINS)
                kept.append(piece[at:found])
                line += piece.count(b"\n", at, found)
                at, began = found, line
            if at >= len(piece):
                break
            closing = _next(piece, at, ENDS)
            behind = piece.find(b"\n", closing) + 1 or len(piece)
            inside += piece[at : behind if closing < len(piece) else len(piece)]
            line += piece.count(b"\n", at, behind if closing < len(piece) else len(piece))
            at = behind if closing < len(piece) else len(piece)
            if closing < len(piece):
                if _open_line(inside, began, altered_too):
                    kept[-1] = kept[-1].removesuffix(b"\n").removesuffix(b"\r") if kept[-1] else kept[-1]
                inside = b""
        out = b"".join(kept)
        # The last line's end is held: a block may say that it was never there.
        cut = len(out) - _end(out)
        yield out[:cut]
        held = out[cut:]
    if inside:
        raise AlteredError(began, "a stop begins here and never ends; this file is cut off, or was edited by hand")
    yield held


def _end(piece: bytes) -> int:
    return 2 if piece.endswith(b"\r\n") else 1 if piece.endswith(b"\n") else 0


def _next(piece: bytes, at: int, what: bytes) -> int:
    """Where a line begins with these bytes, or the end of the piece."""
    while (found := piece.find(what, at)) >= 0:
        if found == 0 or piece[found - 1 : found] == b"\n":
            return found
        at = found + 1
    return len(piece)


def _open_line(inside: bytes, began: int, altered_too: bool) -> bool:
    """Check a whole block; whether it was put behind a line without an end."""
    first = BEGIN.match(inside)
    at = inside.rfind(ENDS)
    last = END.fullmatch(inside[at:])
    if not altered_too:
        if not first or not last:
            raise AlteredError(began, "this stop's own marks were changed by hand")
        if int(last[1]) != at or int(last[2], 16) != zlib.crc32(inside[:at]):
            raise AlteredError(began, "this stop was changed by hand after it was put in")
    return bool(first and first[4])
