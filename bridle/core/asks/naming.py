"""What a fix writes besides what its label names: said in its words, so that nobody loses what was typed."""

from collections.abc import Collection, Sequence

from bridle.core.plan.document import Plan
from bridle.core.plan.move import Move
from bridle.core.plan.rig import AXIS_NAMES, AxisName
from bridle.core.quantity import spoken
from bridle.core.reckon.path import at
from bridle.core.snag import Slot, slot

UNITS = {"slide": "mm", "pan": "deg", "tilt": "deg", "roll": "deg", "focus": "mm", "zoom": "focal"}
ROUNDS = {"row": "The row of pictures", "stereo": "The pair of pictures", "stations": "The round of stations"}
# Closer together than this is how figures are rounded.
SAME = 5e-3
Said = tuple[str, dict[str, Slot]]


def besides(plan: Plan, move: Move, told: Collection[AxisName] = (), kept: Sequence[int] | None = None) -> Said:
    """What another move changes on axes that are not `told`, on what is followed and on rounds: sentences with slots.

    `kept` are the numbers that the plan's keyframes have in the other move; empty: the same.
    """
    sentences, slots = [], dict[str, Slot]()
    numbers = range(len(plan.move.keyframes)) if kept is None else kept
    for name in AXIS_NAMES:
        said, named = _axis(plan, move, name, numbers) if name not in told else ("", {})
        sentences.append(said)
        slots |= named
    said, named = _followed(plan, move)
    sentences += [said, _rounds(plan, move)]
    return "".join(f" {one}" for one in sentences if one), slots | named


def _axis(plan: Plan, move: Move, name: AxisName, numbers: Sequence[int]) -> Said:
    """An axis whose keyframes stand elsewhere then."""
    pairs = [
        (number, at(plan, key, name), at(plan, move.keyframes[other], name))
        for number, (key, other) in enumerate(zip(plan.move.keyframes, numbers, strict=False))
        if other < len(move.keyframes)
    ]
    changed = [one for one in pairs if abs(one[1] - one[2]) > SAME]
    if not changed:
        return "", {}
    number, before, after = changed[0]
    goes, slots = _goes(name, before, after)
    if len(changed) == 1:
        return f"The {name} of the {_ordinal(number, len(pairs))} keyframe {goes}.", slots
    if len(changed) == len(pairs) and all(abs(b - before) + abs(a - after) <= SAME for _, b, a in changed):
        return f"The {name} {goes} in every keyframe.", slots
    most = max(abs(a - b) for _, b, a in changed)
    return f"The {name} changes by up to {{{name}_by}}.", {f"{name}_by": slot(most, UNITS[name])}


def _goes(name: str, before: float, after: float) -> Said:
    """From where to where; by how much, where both are said with the same figures."""
    unit = UNITS[name]
    if spoken(before, unit) == spoken(after, unit):
        return f"changes by {{{name}_by}}", {f"{name}_by": slot(abs(after - before), unit)}
    return f"goes from {{{name}_from}} to {{{name}_to}}", {
        f"{name}_from": slot(before, unit), f"{name}_to": slot(after, unit),
    }  # fmt: skip


def _ordinal(number: int, count: int) -> str:
    if number == count - 1:
        return "last"
    return {0: "first", 1: "second", 2: "third"}.get(number, f"{number + 1}th")


def _followed(plan: Plan, move: Move) -> Said:
    """A mark that is no longer followed, or no longer at every frame."""
    before, after = plan.move.follow, move.follow
    if before is None or before == after:
        return "", {}
    name = {"followed": slot(plan.move.marks[before.mark].name)}
    if after is None:
        return "“{followed}” is no longer followed.", name
    if before.every_frame and not after.every_frame:
        return "“{followed}” is no longer followed at every frame.", name
    return "", {}


def _rounds(plan: Plan, move: Move) -> str:
    before, after = plan.move.visits, move.visits
    if before is None or after == before:
        return ""
    said = ROUNDS[before.kind]
    return f"{said} is left out." if after is None else f"{said} moves closer together."
