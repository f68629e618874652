"""A trial print: the first layers of a file and its own end, with nothing between."""

import re
from collections.abc import Iterable, Iterator

from bridle.core.subjects.parking.stop import INCH_MM, Stand, number

# The line by which a trial is known again: how many layers of which file, by its digest.
MARK = re.compile(rb"^; bridle trial, (\d{1,6}) layers of ([0-9a-f]{64})\r?$", re.M)


def trial(pieces: Iterable[bytes], cut: Stand, goes_on: Stand, of: str, end: bytes = b"\n") -> Iterator[bytes]:
    """The bytes before `cut` and from `goes_on` on; between them what makes the end begin as it would have.

    `of` is the digest of the file that it is cut from.

    The end of a file counts on its own modes and its own E; both are set, and the head is left where it is.
    """
    at, told = 0, False
    for piece in pieces:
        if at < cut.byte:
            yield piece[: cut.byte - at]
        if not told and at + len(piece) >= cut.byte:
            yield b"".join(line.encode() + end for line in _between(cut.layer, of, goes_on))
            told = True
        if at + len(piece) > goes_on.byte:
            yield piece[max(0, goes_on.byte - at) :]
        at += len(piece)


def _between(layers: int, of: str, stand: Stand) -> Iterator[str]:
    unit = INCH_MM if stand.inches else 1.0
    yield f"; bridle trial, {layers} layers of {of}"
    yield "; the trial ends here; what follows is the end of the file"
    yield "G20" if stand.inches else "G21"
    yield "G90" if stand.absolute else "G91"
    yield "M82" if stand.absolute_e else "M83"
    yield f"G92 E{number(stand.e / unit, 7)}"
