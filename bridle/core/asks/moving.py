"""What a part that is put on does to the move, and what is left of it when the part is taken off."""

from collections.abc import Iterable, Mapping

from pydantic import JsonValue

from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.kit import AxisCard, Copy
from bridle.core.plan.rig import Axis, AxisName
from bridle.core.reckon.asked import seconds_of
from bridle.core.reckon.parts import Driven, axis_parts
from bridle.core.reckon.path import FIELDS
from bridle.core.reckon.reckoning import shooting_of
from bridle.core.subjects.motion.drives.interface import Wanted

# Which share of a rail a move begins with, and how far a head turns: enough to be seen, and clear of both ends.
RAIL_FROM, RAIL_TO = 1 / 9, 7 / 9
PAN_DEG = 20.0
DIGITS = {"mm": 0, "deg": 1}


def moved(plan: Plan, axes: Iterable[Axis], copies: tuple[Copy, ...]) -> list[Edit]:
    """The edits that give what comes new a motion that its drive can do, and take away that of what goes.

    `plan` is as it was before, `axes` and `copies` as they will be. What moves already is left as it is.
    """
    before, after = {axis.name for axis in plan.rig.axes}, {axis.name: axis for axis in axes}
    fitted = plan.model_copy(update={"rig": plan.rig.model_copy(update={"axes": tuple(after.values())})})
    made = [edit for name in sorted(before - after.keys()) for edit in _still(plan, name)]
    parts = axis_parts(copies)
    for name, axis in after.items():
        if name not in before and name in parts and not _moves(plan, name):
            made += _motion(fitted, axis, parts[name].card)
    return [*made, *_paced(plan, parts)]


def _moves(plan: Plan, name: AxisName) -> bool:
    return len({getattr(key, FIELDS[name]) for key in plan.move.keyframes}) > 1


def _still(plan: Plan, name: AxisName) -> list[Edit]:
    """As the first keyframe has it, all along; without a rail at nought."""
    keys = plan.move.keyframes
    value = 0.0 if name == "slide" else getattr(keys[0], FIELDS[name])
    return [_key(n, name, value) for n, key in enumerate(keys) if getattr(key, FIELDS[name]) != value]


def _key(number: int, name: AxisName, value: JsonValue) -> Edit:
    return Edit(path=f"move.keyframes.{number}.{FIELDS[name]}", value=value)


def _motion(plan: Plan, axis: Axis, card: AxisCard) -> list[Edit]:
    """From the first keyframe to the last, evenly over those between; nothing for what is set and stays."""
    if axis.name not in ("slide", "pan"):
        return []
    low, high = _ends(axis)
    last = len(plan.move.keyframes) - 1
    start, end = _as_it_goes(plan, axis, card, low, high)
    return [_key(n, axis.name, round(start + (end - start) * n / last, DIGITS[axis.unit])) for n in range(last + 1)]


def _ends(axis: Axis) -> tuple[float, float]:
    whole = axis.high - axis.low
    if axis.unit == "mm":
        return axis.low + whole * RAIL_FROM, axis.low + whole * RAIL_TO
    middle, half = min(max(0.0, axis.low), axis.high), min(PAN_DEG, whole) / 2
    middle = min(max(middle, axis.low + half), axis.high - half)
    return middle - half, middle + half


def _as_it_goes(plan: Plan, axis: Axis, card: AxisCard, low: float, high: float) -> tuple[float, float]:
    """The ends as its drive can do them: its own way round, and as far as it goes in the time of the move."""
    way = -card.drive.one_way if axis.hung else card.drive.one_way
    start, end = (high, low) if way < 0 else (low, high)
    shooting = shooting_of(plan)
    if shooting is None:
        return start, end
    seconds, travel, steps = seconds_of(shooting), axis.high - axis.low, shooting.schedule.span.steps
    wanted = Wanted(
        axis=axis.name,
        unit=axis.unit,
        start=start,
        sweep=end - start,
        seconds=seconds,
        per_frame=abs(end - start),
        travel=travel,
        hung=axis.hung,
        frames=steps + 1,
        interval_s=seconds / max(steps, 1),
    )
    goes = card.drive.goes(wanted)
    if goes is None or not goes:
        return start, end
    goes = min(goes, travel)
    begin = min(max(start, axis.low), axis.high - goes) if way >= 0 else max(min(start, axis.high), axis.low + goes)
    return begin, begin + goes * (way or 1)


def _paced(plan: Plan, parts: Mapping[AxisName, Driven]) -> list[Edit]:
    """What a drive with a pace of its own asks for, when the first of such comes onto the rig.

    No ease, as it has none, unless somebody has drawn a move before; and to move all the time, where it cannot stop
    for each frame.
    """
    drives, stood = ([part.card.drive for part in each.values()] for each in (parts, axis_parts(plan.kit.copies)))
    made = []
    still = not any(_moves(plan, axis.name) for axis in plan.rig.axes)
    if still and not all(drive.eases for drive in drives) and all(drive.eases for drive in stood):
        made += [Edit(path=f"move.ease_{end}_frames", value=0) for end in ("in", "out")]
    if not all(drive.stops for drive in drives) and all(drive.stops for drive in stood):
        made.append(Edit(path="beat.school", value="continuous"))
    return made
