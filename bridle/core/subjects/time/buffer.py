"""A camera's buffer: how many frames it takes before a trigger is refused. Times in seconds."""

from collections.abc import Iterable
from typing import NamedTuple

from bridle.core.figure import Formula

ESTIMATE = Formula("buffer / (1 - interval / write)", "the buffer fills by what comes in faster than it is written")
NEEDED = Formula("count * write", "so that every picture is written before the next frame comes")


class Stall(NamedTuple):
    """Frames kept before the first refused trigger, and how many are lost over the whole shoot."""

    kept: int
    lost: int


def estimate(interval: float, write: float, buffer: int) -> float:
    """About so many frames are absorbed, for a write time longer than the interval."""
    return buffer / (1 - interval / write)


def simulate(slots: Iterable[float], write: float, buffer: int, count: int = 1) -> Stall | None:
    """Run the buffer over the slots of a shoot, `count` pictures a frame; None where nothing is refused.

    The picture being written still holds its place. A refused trigger is a lost frame; the next comes on the grid.
    """
    now = written_at = 0.0
    kept = lost = in_buffer = 0
    first = None
    for number, slot in enumerate(slots):
        while in_buffer and written_at <= now + 1e-9:
            in_buffer -= 1
            written_at += write
        if in_buffer + count > max(buffer, count):
            lost += 1
            first = number if first is None else first
        else:
            if in_buffer == 0:
                written_at = now + write
            in_buffer += count
            kept += 1
        now += slot
    return None if first is None else Stall(first, lost)
