"""Cards put into a plan, and taken out: the edits that bring their figures in."""

from bridle.core.asks.moving import moved
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, dump, look
from bridle.core.plan.kit import Copy, Support
from bridle.core.plan.rig import Axis
from bridle.core.reckon.parts import AXIS_FIELDS, axis_parts, bound, first_of, limits_of

# What belongs to the axis as it stands and not to its card.
OF_THE_AXIS = ("letter", "ring", "hung", "lean_deg", "lean_toward_deg")


def fit(plan: Plan, copies: tuple[Copy, ...]) -> list[Edit]:
    """The edits that give a plan these copies. What was typed over a card before stays as it was typed."""
    before = {link.path: link.value for link in bound(plan.kit.copies, plan.rig.axes)}
    data = dump(plan)
    kept = [Edit(path="kit.copies", value=[copy.model_dump(mode="json") for copy in copies])]
    axes = _fitted_axes(plan, copies)
    if axes is not None:
        kept.append(Edit(path="rig.axes", value=[axis.model_dump(mode="json") for axis in axes]))
        kept += moved(plan, axes, copies)
    for link in bound(copies, ()):
        standing = look(data, link.path)
        if standing != link.value and (link.path not in before or before[link.path] == standing):
            kept.append(Edit(path=link.path, value=link.value))
    return kept


def _fitted_axes(plan: Plan, copies: tuple[Copy, ...]) -> list[Axis] | None:
    """The axes of a rig that is put together from cards; None while there is only a camera, or nothing."""
    parts, before = axis_parts(copies), axis_parts(plan.kit.copies)
    if not parts and first_of(copies, Support) is None:
        return None
    old = {link.path: link.value for link in bound(plan.kit.copies, plan.rig.axes)}
    made = []
    for name, part in parts.items():
        card, values = part.card, limits_of(part.card)
        standing = plan.rig.axis(name)
        if standing is not None and name in before:
            number = plan.rig.axes.index(standing)
            for field in AXIS_FIELDS:
                if getattr(standing, field) != old[f"rig.axes.{number}.{field}"]:
                    values[field] = getattr(standing, field)
        if values["low"] >= values["high"]:
            values |= {"low": card.low, "high": card.high}
        # What no card knows stays as it was read off or typed.
        own = {field: getattr(standing, field) for field in OF_THE_AXIS} if standing is not None else {}
        made.append(Axis(name=name, kind=card.motion, **values, **own))
    return made
