"""Making a move smaller until something holds: the fix that many snags of the move share."""

from collections.abc import Callable, Sequence
from typing import TypeVar

import numpy as np

from bridle.core.asks.naming import besides
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.move import Keyframe, Move
from bridle.core.plan.rig import Axis
from bridle.core.plan.rounds import PanoramaRow, Station, Stations, StereoPair
from bridle.core.quantity import listed
from bridle.core.reckon.asked import misses_more
from bridle.core.reckon.path import FIELDS, at, shown_unit
from bridle.core.reckon.reckoning import Shooting
from bridle.core.snag import Fix, slot

Stand = TypeVar("Stand", Keyframe, Station)
TRIES = 10
DIGITS = 3


def scaled(plan: Plan, axes: Sequence[Axis], share: float) -> Move:
    """The move with each axis's keyframes, or stations, a share of the way from the first; nothing followed on top."""
    move = plan.move
    follow = move.follow
    if follow is not None and follow.every_frame and any(axis.name in ("pan", "tilt") for axis in axes):
        follow = follow.model_copy(update={"every_frame": False})
    visits = move.visits
    if isinstance(visits, Stations):
        stations = tuple(_nearer(plan, axes, share, visits.stations[0], station) for station in visits.stations)
        visits = visits.model_copy(update={"stations": stations})
    elif isinstance(visits, StereoPair) and any(axis.name == "slide" for axis in axes):
        visits = visits.model_copy(update={"base_mm": max(0.001, round(visits.base_mm * share, DIGITS))})
    elif isinstance(visits, PanoramaRow) and any(axis.name == "pan" for axis in axes) and share < 1:
        visits = None
    keys = tuple(_nearer(plan, axes, share, move.keyframes[0], key) for key in move.keyframes)
    return move.model_copy(update={"keyframes": keys, "visits": visits, "follow": follow})


def _nearer(plan: Plan, axes: Sequence[Axis], share: float, first: Stand, stand: Stand) -> Stand:
    changed = {}
    for axis in axes:
        field = FIELDS[axis.name]
        if hasattr(stand, field):
            start, here = at(plan, first, axis.name), at(plan, stand, axis.name)
            changed[field] = round(start + (here - start) * share, DIGITS)
    return stand.model_copy(update=changed)


def edits_to(plan: Plan, move: Move) -> tuple[Edit, ...]:
    """The edits that make the plan's move into another one."""
    made = []
    for name in ("keyframes", "visits", "follow"):
        if getattr(move, name) != getattr(plan.move, name):
            made.append(Edit(path=f"move.{name}", value=move.model_dump(mode="json")[name]))
    return tuple(made)


def lessened(shooting: Shooting, axes: Sequence[Axis], holds: Callable[[Shooting], bool]) -> list[Fix]:
    """The largest share of the move, on these axes, with which something holds; standing still at the least."""
    plan = shooting.plan
    low, high = 0.0, 1.0
    for _ in range(TRIES):
        middle = (low + high) / 2
        low, high = (middle, high) if holds(_with(shooting, axes, middle)) else (low, middle)
    # A hair less than found, so that rounding cannot overstep it.
    low = float(np.floor(low * 980) / 1000)
    # A drive whose pace is its own may not do so little: then it is not started at all.
    if not holds(_with(shooting, axes, low)) or misses_more(shooting, _with(shooting, axes, low)):
        low = 0.0
        if not holds(_with(shooting, axes, low)):
            return []
    move = scaled(plan, axes, low)
    edits = edits_to(plan, move)
    if not edits:
        return []
    names = listed([axis.name for axis in axes])
    if len(axes) == 1 and len(plan.move.keyframes) == 2 and move.visits is None and plan.move.visits is None:
        return [_end_there(plan, axes[0], move, edits)]
    more, named = besides(plan, move, [axis.name for axis in axes])
    consequence = f"Every keyframe of the {{axes}} comes that much nearer to the first.{more}"
    slots = {"share": slot(low, "share"), "axes": slot(names), **named}
    label = "Go {share} of the way" if low else "Leave the {axes} still"
    return [Fix(label=label, consequence=consequence, slots=slots, edits=edits)]


def _end_there(plan: Plan, axis: Axis, move: Move, edits: tuple[Edit, ...]) -> Fix:
    more, named = besides(plan, move, (axis.name,))
    before, nearer, unit = at(plan, plan.move.end, axis.name), at(plan, move.end, axis.name), shown_unit(axis)
    return Fix(
        label="End the {axis} at {nearer}",
        consequence=f"The {{axis}} travels {{shorter}} less; the interval stays.{more}",
        slots={
            **named,
            "axis": slot(axis.name),
            "nearer": slot(nearer, unit),
            "shorter": slot(abs(before - nearer), unit),
        },
        edits=edits,
    )


def _with(shooting: Shooting, axes: Sequence[Axis], share: float) -> Shooting:
    return shooting.tried(move=scaled(shooting.plan, axes, share))


def still(plan: Plan) -> tuple[Edit, ...]:
    """The edits that leave the camera where the first keyframe has it."""
    return edits_to(plan, scaled(plan, plan.rig.axes, 0.0))
