"""Panorama rows: how many pictures side by side, and how much they overlap in the end."""

import math

from bridle.core.figure import Formula

ROW = Formula(
    "max(1, 1 + ceil((sweep - view) / (view * (1 - overlap))))", "the first picture and as many more as it takes"
)
TURN = Formula("ceil(360 / (view * (1 - overlap)))", "all the way round, the last joining the first")
TRUE_OVERLAP = Formula("1 - apart / view", "what neighbours share, over what one of them sees")
GUARD = 1e-9


def shots(sweep_deg: float, view_deg: float, overlap: float, closed: bool) -> int:
    """Pictures for a sweep: `max(1, 1 + ⌈(sweep − hfov)/(hfov·(1 − o))⌉)`, or `⌈360/(hfov·(1 − o))⌉` for a turn."""
    each = view_deg * (1 - overlap)
    if closed:
        return max(1, math.ceil(360 / each - GUARD))
    return max(1, 1 + math.ceil((sweep_deg - view_deg) / each - GUARD))


def apart_deg(sweep_deg: float, view_deg: float, count: int, closed: bool) -> float:
    """From one picture to the next, so that the row just covers the sweep; 0 for a single picture."""
    if count == 1:
        return 0.0
    return 360 / count if closed else max(0.0, sweep_deg - view_deg) / (count - 1)
