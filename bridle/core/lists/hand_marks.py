"""Marks to set by hand: at which frame the scale of an axis comes to its next mark."""

from typing import NamedTuple

import numpy as np

from bridle.core.plan.document import Plan
from bridle.core.plan.rig import Axis
from bridle.core.reckon.parts import axis_parts, by_hand
from bridle.core.reckon.path import shown_unit
from bridle.core.reckon.timeline import Timeline
from bridle.core.subjects.numbers.arrays import Floats

# What a scale without a card is divided into, by its unit.
USUAL = {"mm": 1.0, "deg": 1.0, "focal": 1.0}


class MarkLine(NamedTuple):
    """Before this frame (from 1), at this Unix time, the scales are set to these marks, in the order of the axes."""

    frame: int
    clock: float
    marks: tuple[float, ...]


def division(plan: Plan, axis: Axis) -> float:
    """What the scale of an axis is divided into, in the unit that is shown."""
    part = axis_parts(plan.kit.copies).get(axis.name)
    scale = None if part is None else part.card.drive.division_of_scale
    return scale if scale is not None else USUAL[shown_unit(axis)]


def mark_lines(plan: Plan, places: dict[str, Floats], times: Timeline) -> list[MarkLine]:
    """A line for the first frame and for each at which any scale comes to another mark; nearest marks."""
    if not places or not by_hand(plan):
        return []
    grid = np.stack(
        [np.round(places[axis.name] / division(plan, axis)) * division(plan, axis) for axis in by_hand(plan)]
    )
    changed = np.flatnonzero(np.any(np.diff(grid, axis=1) != 0, axis=0)) + 1
    frames = [0, *changed.tolist()]
    # The scale is set after the frame before it, so that is when the hands may go to the rig.
    return [
        MarkLine(frame + 1, times.clock(max(frame - 1, 0)).timestamp(), tuple((grid[:, frame] + 0.0).tolist()))
        for frame in frames
    ]
