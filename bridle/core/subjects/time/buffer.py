"""A camera's buffer: how many frames it takes before a trigger is refused. Times in seconds."""

from collections.abc import Iterable, Sequence
from typing import NamedTuple

from bridle.core.figure import Formula

ESTIMATE = Formula(
    "buffer / count / (1 - interval / write)", "the buffer fills by what comes in faster than it is written"
)
NEEDED = Formula("count * write", "so that every picture is written before the next frame comes")


class Stall(NamedTuple):
    """Frames kept whole before the first refused trigger, how many are not whole, and the pictures refused in all."""

    kept: int
    lost: int
    pictures: int


def estimate(interval: float, write: float, buffer: int, count: int = 1) -> float:
    """About so many frames are absorbed, for a write time of all pictures of a frame longer than the interval."""
    return buffer / count / (1 - interval / write)


def written_by(starts: Sequence[float], write: float) -> float:
    """When the last picture of a frame is written, after its first began, where all of them find a place."""
    done = 0.0
    for at in starts:
        done = max(done, at) + write
    return done


def simulate(slots: Iterable[float], write: float, buffer: int, starts: Sequence[float] = (0.0,)) -> Stall | None:
    """Run the buffer over the slots of a shoot; None where nothing is refused.

    `starts` are when the pictures of a frame are begun after its first. The picture being written still holds its
    place. A refused trigger is a lost picture, and its frame is not whole; the next comes on the grid.
    """
    now = written_at = 0.0
    lost = pictures = in_buffer = 0
    first = None
    for number, slot in enumerate(slots):
        refused = 0
        for at in (now + start for start in starts):
            while in_buffer and written_at <= at + 1e-9:
                in_buffer -= 1
                written_at += write
            if in_buffer == buffer:
                refused += 1
                continue
            if in_buffer == 0:
                written_at = at + write
            in_buffer += 1
        if refused:
            lost, pictures = lost + 1, pictures + refused
            first = number if first is None else first
        now += slot
    return None if first is None else Stall(first, lost, pictures)
