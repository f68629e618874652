"""Two clocks that nobody ties: how long the move stays clear of the exposures."""

import math

from bridle.core.reckon.reckoning import Shooting

# A hand starts the second device so near to the moment that it is to be started at, in seconds, either way.
BY_HAND_S = 0.5


def room_s(shooting: Shooting) -> float:
    """What the move has on either side of it, in seconds, when the second start puts it in the middle of what is free.

    A hand's start may take some of it.
    """
    free = max(0.0, float(shooting.cycle.interval_s) - shooting.cycle.need_s)
    return max(0.0, free / 2 - BY_HAND_S)


def in_time_until(shooting: Shooting, drift_ppm: float) -> float:
    """The last frame (from 1) by which clocks that drift by so much have not used up the room; 0 where there is none.

    Which of the two is ahead nobody knows, so the room on one side has to last.
    """
    room, each = room_s(shooting), drift_ppm / 1e6 * float(shooting.cycle.interval_s)
    if room <= 0:
        return 0
    return math.floor(room / each) + 1 if each else math.inf
