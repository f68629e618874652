"""Where a print's bytes come from: a file, or a stream that is kept for as long as it is read twice."""

import tempfile
from collections.abc import Callable, Iterator
from contextlib import AbstractContextManager
from pathlib import Path
from typing import BinaryIO

from bridle.core.subjects.parking.blocks import strip
from bridle.core.subjects.prints.pieces import chunks, whole_lines

MOST_BYTES = 300_000_000
Opened = Callable[[], AbstractContextManager[BinaryIO]]


class TooLargeError(ValueError):
    """More bytes than a print may have."""


def of_file(path: Path) -> Opened:
    """A file on disk."""
    return lambda: path.open("rb")


def spooled(stream: BinaryIO, folder: Path | None = None) -> Path:
    """What a stream gives, in a temporary file that the caller removes. Raises `TooLargeError`."""
    with tempfile.NamedTemporaryFile(prefix="bridle-", suffix=".gcode", dir=folder, delete=False) as kept:
        path, size = Path(kept.name), 0
        for chunk in chunks(stream):
            size += len(chunk)
            if size > MOST_BYTES:
                path.unlink()
                raise TooLargeError(f"more than {MOST_BYTES / 1e6:.0f} MB; that is the most a print may have")
            kept.write(chunk)
    return path


def pieces(opened: Opened, altered_too: bool = False) -> Iterator[bytes]:
    """The file without Bridle's own stops, in pieces of whole lines."""
    with opened() as stream:
        yield from whole_lines(strip(whole_lines(chunks(stream)), altered_too))


def as_it_is(opened: Opened, told: Callable[[int], None] = lambda _: None) -> Iterator[bytes]:
    """The file with all that is in it, in pieces that end anywhere; `told` hears how many bytes are done."""
    done = 0
    with opened() as stream:
        for piece in chunks(stream):
            yield piece
            done += len(piece)
            told(done)
