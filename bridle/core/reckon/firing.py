"""When each picture is really triggered, where a beat does not fit: the rig first, and the grid moves with it."""

import numpy as np

from bridle.core.reckon.cycles import Cycle
from bridle.core.reckon.orders import Orders
from bridle.core.subjects.numbers.arrays import Floats

# What comes later than this takes the grid with it, so that the pace of the clip stays even from there on.
LATE_S = 0.05


def fired_s(say: Orders, cycle: Cycle) -> Floats:
    """When each picture is triggered, in seconds from the first; shape (pictures,).

    When it is due, or as soon as the camera has stored the one before and the rig has settled. A buffer that fills up
    is not followed.
    """
    beat = cycle.beat
    open_s = float(beat.heard_s) + say.busy_s + np.where(say.visit == 0, float(beat.ready_s), 0.0)
    store, moving = say.processing_s + cycle.write_s, say.move_s + say.settle_s
    busy = open_s + (np.maximum(store, moving) if beat.write_while_moving else store + moving)
    if not (busy[:-1] > np.diff(say.due_s)).any():
        return say.due_s
    fired, grid = say.due_s.copy(), 0.0
    for picture in range(1, len(say)):
        due, ready = float(say.due_s[picture]) + grid, float(fired[picture - 1] + busy[picture - 1])
        grid += max(0.0, ready - due) if ready > due + LATE_S else 0.0
        fired[picture] = max(due, ready)
    return fired
