"""Which parts of a rig run by a clock of their own: nothing ties them to the one that calls the frames."""

from collections.abc import Iterator

from bridle.core.plan.document import Plan
from bridle.core.plan.kit import Phone
from bridle.core.plan.rig import AxisName
from bridle.core.plan.wired import Trigger
from bridle.core.reckon.parts import Driven, axis_parts, first_of
from bridle.core.reckon.path import at


def own_clocks(plan: Plan) -> tuple[Driven, ...]:
    """The parts that move by a clock of their own: the first moving axis of each.

    What waits for every frame is taken to fire the camera, as long as no trigger or phone says otherwise.
    """
    found: list[Driven] = []
    fires: Driven | None = None
    fired = _fired_by_the_rig(plan)
    for part in _moving(plan):
        drive = part.card.drive
        known = found if fires is None else [fires, *found]
        if drive.TOLD == "hand" or any(_one_clock(one, part) for one in known):
            continue
        if fired and fires is None and drive.stops:
            # One controller fires the camera, or the first of other movers that waits for each frame.
            fires = part
            continue
        found.append(part)
    return tuple(found)


def _one_clock(one: Driven, other: Driven) -> bool:
    """Whether two axes run by the same clock: those of one head, and all steppers, as one controller steps them."""
    if one.index == other.index or one.card.drive.TOLD == other.card.drive.TOLD == "program":
        return True
    return bool(one.card.paced_by) and one.card.paced_by == other.card.paced_by


def _moving(plan: Plan) -> Iterator[Driven]:
    parts = axis_parts(plan.kit.copies)
    # Steppers first: where there is a controller, it is that which fires.
    for part in sorted(parts.values(), key=lambda part: part.card.drive.TOLD != "program"):
        if plan.rig.axis(part.name) is not None and _goes(plan, part.name):
            yield part


def _goes(plan: Plan, name: AxisName) -> bool:
    return len({at(plan, key, name) for key in plan.move.keyframes}) > 1


def _fired_by_the_rig(plan: Plan) -> bool:
    """Whether what moves the rig fires the camera too."""
    trigger = first_of(plan.kit.copies, Trigger)
    if trigger is not None:
        return isinstance(trigger.card, Trigger) and trigger.card.source == "controller"
    return first_of(plan.kit.copies, Phone) is None
