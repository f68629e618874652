"""A stream cut into pieces of whole lines, so that a file of any size is read in little memory."""

from collections.abc import Iterable, Iterator
from typing import BinaryIO

PIECE = 1 << 20
LONGEST_LINE, LONGEST_COMMENT = 1 << 20, 64 << 20


class NoTextError(ValueError):
    """What was given is no text with lines: where that shows (bytes), and what stands there."""

    def __init__(self, byte: int, why: str) -> None:
        """Keep both."""
        super().__init__(why)
        self.byte = byte


def chunks(stream: BinaryIO, size: int = PIECE) -> Iterator[bytes]:
    """Whatever a stream gives, until it ends."""
    while piece := stream.read(size):
        yield piece


def whole_lines(given: Iterable[bytes]) -> Iterator[bytes]:
    """The same bytes in pieces that end as a line does, but for the last. Raises `NoTextError` at an endless line.

    A comment may be longer than any command: pictures and settings are kept in some.
    """
    rest: list[bytes] = []
    at = held = 0
    for chunk in given:
        cut = chunk.rfind(b"\n") + 1
        if not cut:
            rest.append(chunk)
            held += len(chunk)
            longest = LONGEST_COMMENT if rest[0].lstrip(b" \t")[:1] == b";" else LONGEST_LINE
            if held > longest:
                raise NoTextError(at, f"no line ends within {longest:,} bytes: this is no G-code in lines of text")
            continue
        piece = b"".join([*rest, chunk[:cut]])
        rest, held = [chunk[cut:]], len(chunk) - cut
        yield piece
        at += len(piece)
    if held:
        yield b"".join(rest)
