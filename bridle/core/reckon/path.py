"""Where the axes stand at every frame."""

import numpy as np

from bridle.core.plan.document import Plan
from bridle.core.plan.move import Keyframe
from bridle.core.plan.rig import Axis, AxisName
from bridle.core.plan.rounds import Station, Stations
from bridle.core.reckon.poses import following
from bridle.core.reckon.schedule import Schedule
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.optics import rings
from bridle.core.subjects.optics.projecting import NOTHING_FAR, Far

FIELDS: dict[AxisName, str] = {
    "slide": "slide_mm",
    "pan": "pan_deg",
    "tilt": "tilt_deg",
    "roll": "roll_deg",
    "focus": "focus_mm",
    "zoom": "zoom_mm",
}


def positions(
    plan: Plan, timing: Schedule, frames: int, stack_mm: tuple[float, ...] = (), far: Far = NOTHING_FAR
) -> dict[str, Floats]:
    """Where each axis stands at each frame, shape (frames,): still in the handles, eased between the keyframes.

    A focus motor that goes through a stack begins each frame at its near end.
    """
    made = keyed(plan, timing, frames)
    if plan.move.follow is not None and plan.move.follow.every_frame:
        made |= {name: _held(plan, name, values) for name, values in following(plan, made, far).items()}
    if isinstance(plan.move.visits, Stations):
        made = {name: np.full(frames, values[0]) for name, values in visited(plan, made).items()}
    return made | {"focus": np.full(frames, stack_mm[0])} if stack_mm else made


def keyed(plan: Plan, timing: Schedule, frames: int) -> dict[str, Floats]:
    """Each axis through its keyframes alone, whatever is followed on top; still in the handles."""
    pad = (timing.span.first, frames - 1 - timing.span.last)
    return {axis.name: np.pad(axis_path(plan, axis, timing), pad, mode="edge") for axis in plan.rig.axes}


def axis_path(plan: Plan, axis: Axis, timing: Schedule) -> Floats:
    """An axis along the move, through its keyframes; a lens ring is eased in turns of the ring."""
    values = np.array([at(plan, key, axis.name) for key in plan.move.keyframes])
    if not axis.on_lens:
        return timing.along(values)
    ring = tuple((mark.turn_deg, mark.value_mm) for mark in axis.marks)
    way = timing.along(rings.turned(values, ring, axis.name == "focus"))
    return rings.set_to(way, ring, axis.name == "focus")


def driven(plan: Plan, places: dict[str, Floats]) -> dict[str, Floats]:
    """Positions as the drives have them: lens rings in degrees of their turn, all else as it is."""
    made = dict(places)
    for axis in plan.rig.axes:
        if axis.on_lens and axis.name in places:
            made[axis.name] = ring_turns(axis, places[axis.name])
    return made


def ring_turns(axis: Axis, values: Floats) -> Floats:
    """The turn of a lens ring for what the lens is set to."""
    ring = tuple((mark.turn_deg, mark.value_mm) for mark in axis.marks)
    return rings.turned(values, ring, axis.name == "focus")


def ring_values(axis: Axis, turns: Floats) -> Floats:
    """What a lens ring is set to at these turns of it."""
    ring = tuple((mark.turn_deg, mark.value_mm) for mark in axis.marks)
    return rings.set_to(turns, ring, axis.name == "focus")


def at(plan: Plan, keyframe: Keyframe | Station, name: AxisName) -> float:
    """Where an axis stands at a keyframe, as it is typed; an empty zoom is as long as the lens."""
    value = getattr(keyframe, FIELDS[name])
    return float(plan.camera.focal_mm if value is None else value)


def field_of(axis: Axis) -> str:
    """The keyframe's field for an axis."""
    return FIELDS[axis.name]


def shown_unit(axis: Axis) -> str:
    """The unit in which an axis's positions are typed and shown."""
    return {"focus": "mm", "zoom": "focal"}.get(axis.name, axis.unit)


def key_path(plan: Plan, number: int, name: AxisName) -> str:
    """The plan's path of an axis at a keyframe."""
    return f"move.keyframes.{number}.{FIELDS[name]}"


def end_path(plan: Plan, axis: Axis) -> str:
    """The plan's path of an axis at the last keyframe."""
    return key_path(plan, len(plan.move.keyframes) - 1, axis.name)


def visited(plan: Plan, places: dict[str, Floats]) -> dict[str, Floats]:
    """Where the axes stand at each visit of a cycle, shape (visits,), for stations; else the places as they are."""
    visits = plan.move.visits
    if not isinstance(visits, Stations):
        return places
    made = {}
    for name, values in places.items():
        at_stations = [getattr(station, FIELDS[name], None) for station in visits.stations]  # type: ignore[index]
        made[name] = np.array([values[0] if value is None else value for value in at_stations], dtype=np.float64)
    return made


def _held(plan: Plan, name: str, values: Floats) -> Floats:
    axis = next(axis for axis in plan.rig.axes if axis.name == name)
    return np.clip(values, axis.low, axis.high)


def reach(axis: Axis) -> tuple[float, float]:
    """Between which positions, as they are typed, an axis reaches."""
    if not axis.on_lens:
        return axis.low, axis.high
    ring = tuple((mark.turn_deg, mark.value_mm) for mark in axis.marks)
    low, high = sorted(rings.set_to(np.array([axis.low, axis.high]), ring, axis.name == "focus").tolist())
    return low, high
