"""A file as a printer takes it in: bytes in pieces, of which whole lines are asked for."""

from collections.abc import Iterable

import numpy as np

from bridle.standins.printer.compiled import Array, compiled


class Tape:
    """What is left of a file: `held` from `at` on, and what is still to come."""

    def __init__(self, pieces: Iterable[bytes]) -> None:
        """Pieces of any size, that end anywhere."""
        self._pieces = iter(pieces)
        self.held, self.at = b"", 0

    def ready(self) -> bool:
        """See to it that a whole line is held, or the last one; False at the end of the file."""
        while self.held.find(b"\n", self.at) < 0:
            piece = next(self._pieces, None)
            if piece is None:
                return self.at < len(self.held)
            self.held, self.at = self.held[self.at :] + piece, 0
        return True

    def line(self) -> bytes | None:
        """The next line with its end; None behind the last."""
        if not self.ready():
            return None
        to = self.held.find(b"\n", self.at) + 1 or len(self.held)
        line, self.at = self.held[self.at : to], to
        return line

    def whole(self) -> int:
        """Where the whole lines that are held end."""
        return max(self.at, self.held.rfind(b"\n", self.at) + 1)


def alike(one: Tape, other: Tape) -> int:
    """How many bytes of whole lines are the same next in both, of those that are held."""
    if not (one.ready() and other.ready()):
        return 0
    count = min(one.whole() - one.at, other.whole() - other.at)
    same = _same(np.frombuffer(one.held, np.uint8), one.at, np.frombuffer(other.held, np.uint8), other.at, count)
    if same == count:
        return count
    return max(0, one.held.rfind(b"\n", one.at, one.at + same) + 1 - one.at)


@compiled
def _same(one: Array, at: int, other: Array, there: int, count: int) -> int:
    for n in range(count):
        if one[at + n] != other[there + n]:
            return n
    return count
