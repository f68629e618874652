"""What storing, moving and the margin leave of each beat, and what waking and exposing ask of it."""

import numpy as np

from bridle.core.plan.beat import Beat
from bridle.core.reckon.exposed import Exposures
from bridle.core.subjects.numbers.arrays import Floats


def room_left_s(beat: Beat, exposing: Exposures, rooms_s: Floats, settling: Floats) -> Floats:
    """What storing, moving and the margin leave of each beat for waking and exposing; shape (frames,).

    In seconds, negative where nothing is left. `settling` is moving and settling, of shape (visits, frames).
    """
    write = 0.0 if beat.buffer_frames else float(beat.write_s)
    store = exposing.processing_s + write
    together = np.maximum(store, settling) if beat.write_while_moving else store + settling
    margins = np.maximum(float(beat.margin) * rooms_s, float(beat.least_margin_s))
    return np.asarray(rooms_s - together.sum(axis=0) - margins)


def waking_and_exposing_s(beat: Beat, exposing: Exposures, visits: int) -> float:
    """What a cycle of so many places needs for waking and exposing, in seconds."""
    return float(beat.ready_s) + visits * (float(beat.heard_s) + exposing.busy_s)
