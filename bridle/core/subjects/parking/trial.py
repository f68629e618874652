"""A trial print: the first layers of a file and its own end, with nothing between."""

from collections.abc import Iterable, Iterator

from bridle.core.subjects.parking.stop import INCH_MM, Stand, number


def trial(pieces: Iterable[bytes], cut: Stand, goes_on: Stand, end: bytes = b"\n") -> Iterator[bytes]:
    """The bytes before `cut` and from `goes_on` on; between them what makes the end begin as it would have.

    The end of a file counts on its own modes and its own E; both are set, and the head is left where it is.
    """
    at, told = 0, False
    for piece in pieces:
        if at < cut.byte:
            yield piece[: cut.byte - at]
        if not told and at + len(piece) >= cut.byte:
            yield b"".join(line.encode() + end for line in _between(goes_on))
            told = True
        if at + len(piece) > goes_on.byte:
            yield piece[max(0, goes_on.byte - at) :]
        at += len(piece)


def _between(stand: Stand) -> Iterator[str]:
    unit = INCH_MM if stand.inches else 1.0
    yield "; the trial ends here; what follows is the end of the file"
    yield "G20" if stand.inches else "G21"
    yield "G90" if stand.absolute else "G91"
    yield "M82" if stand.absolute_e else "M83"
    yield f"G92 E{number(stand.e / unit, 7)}"
