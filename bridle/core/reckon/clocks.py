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
    found: dict[int, Driven] = {}
    fired = _fired_by_the_rig(plan)
    for part in _moving(plan):
        drive = part.card.drive
        if drive.TOLD == "hand" or part.index in found:
            continue
        if fired and drive.stops:
            # One controller fires the camera; steppers share it, of other movers it is the first.
            fired = drive.TOLD == "program"
            continue
        found[part.index] = part
    return tuple(found.values())


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
