"""A lone move from rest to rest."""

import math


def lone_s(far_mm: float, speed: float, gain: float) -> float:
    """Seconds of a move that speeds up and slows down evenly: far/v + v/a, or 2·√(far/a) where it is short.

    `speed` in mm/s, `gain` in mm/s².
    """
    if far_mm * gain <= speed * speed:
        return 2 * math.sqrt(far_mm / gain)
    return far_mm / speed + speed / gain
