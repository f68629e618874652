"""What follows from a change of time on a drive whose pace is its own: a spring's sweep."""

import math

from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.reckon.asked import Asked, asked_of, miss
from bridle.core.reckon.parts import axis_parts
from bridle.core.reckon.path import end_path
from bridle.core.reckon.reckoning import shooting_of
from bridle.core.subjects.motion.drives.interface import Told

# Where the move and its spring came to the same before, to this share of the way, they are kept together.
AGREES = 0.01
DIGITS = 3


def followed(before: Plan, after: Plan, told: tuple[Told, ...] = ("spring",)) -> list[Edit]:
    """The edits that let the end of the move follow drives that are told like that, where only the time has changed.

    Nothing where the move asked something else of one already, or somebody has set the ends of the move anew.
    """
    parts = axis_parts(after.kit.copies).values()
    if not any(part.card.drive.TOLD in told for part in parts) or before.move != after.move:
        return []
    was, now = ({one.axis.name: one for one in _asked(plan)} for plan in (before, after))
    return [
        edit
        for name, asked in now.items()
        if asked.drive.TOLD in told and name in was and was[name].wanted.sweep and miss(was[name]) <= AGREES
        for edit in _ends(asked)
    ]  # fmt: skip


def _asked(plan: Plan) -> tuple[Asked, ...]:
    shooting = shooting_of(plan)
    return () if shooting is None else asked_of(shooting)


def _ends(asked: Asked) -> list[Edit]:
    goes = asked.drive.goes(asked.wanted)
    if goes is None or miss(asked) <= AGREES:
        return []
    way = asked.one_way or math.copysign(1, asked.wanted.sweep)
    end = round(asked.wanted.start + way * goes, DIGITS)
    if not asked.axis.low <= end <= asked.axis.high:
        return []
    return [Edit(path=end_path(asked.plan, asked.axis), value=end)]
