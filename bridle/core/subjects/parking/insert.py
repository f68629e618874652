"""Stops put into a file as it streams by: every byte outside them stays as it is."""

from collections.abc import Iterable, Iterator, Sequence

from bridle.core.subjects.parking.blocks import Name, block
from bridle.core.subjects.parking.stop import Stand, Stop, lines


def park(pieces: Iterable[bytes], stands: Sequence[Stand], stop: Stop, end: bytes = b"\n") -> Iterator[bytes]:
    """The file with a stop at each stand, in the order of their bytes; `end` is how its lines end.

    The file has none of these stops yet. Raises ValueError where a stand lies behind the end of the file.
    """
    waiting = sorted(enumerate(stands, 1), key=lambda one: (one[1].byte, one[0]))
    at, ended = 0, True
    for piece in pieces:
        done = 0
        while waiting and waiting[0][1].byte < at + len(piece):
            number, stand = waiting.pop(0)
            yield piece[done : stand.byte - at]
            done = stand.byte - at
            yield block(Name(number, len(stands), stand.layer), lines(stop, stand), end)
        yield piece[done:]
        at, ended = at + len(piece), piece.endswith(b"\n")
    for number, stand in waiting:
        if stand.byte != at:
            raise ValueError(f"the file ends at byte {at:,}; layer {stand.layer} was to end at {stand.byte:,}")
        yield block(Name(number, len(stands), stand.layer), lines(stop, stand), end, not ended)
        ended = True
