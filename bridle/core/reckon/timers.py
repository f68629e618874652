"""What the camera and the trigger of a plan can do at all: how soon a frame follows the last, how many, how long."""

from collections.abc import Iterator
from fractions import Fraction

from bridle.core.plan.document import Plan
from bridle.core.plan.kit import Body, Copy, Phone
from bridle.core.plan.wired import Trigger
from bridle.core.reckon.parts import axis_parts, first_of
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.travel import times_alone


def floors(plan: Plan) -> Iterator[tuple[Copy, Fraction]]:
    """The camera, the trigger and what moves, each with the shortest interval that it keeps up with."""
    camera, trigger = first_of(plan.kit.copies, Body, Phone), first_of(plan.kit.copies, Trigger)
    if camera is not None and isinstance(camera.card, Body | Phone) and camera.card.interval_floor_s is not None:
        yield camera, camera.card.interval_floor_s
    if trigger is not None and isinstance(trigger.card, Trigger) and trigger.card.shortest_s is not None:
        yield trigger, trigger.card.shortest_s
    for part in axis_parts(plan.kit.copies).values():
        if part.card.drive.shortest_s is not None and not part.within:
            yield part.copy, part.card.drive.shortest_s


def trigger_of(plan: Plan) -> Trigger | None:
    """The trigger's card."""
    found = first_of(plan.kit.copies, Trigger)
    return found.card if found is not None and isinstance(found.card, Trigger) else None


def keeps_up(shooting: Shooting) -> bool:
    """Whether the beat fits, every axis has the time for its steps, and camera and trigger do every frame."""
    rooms, continuous = shooting.timeline.rooms_s, shooting.plan.beat.continuous
    for axis in shooting.plan.rig.axes:
        if float((times_alone(axis, shooting.steps[axis.name], continuous) / rooms).max()) >= 1:
            return False
    shortest, trigger = float(rooms.min()), trigger_of(shooting.plan)
    if shooting.cycle.over_s or any(shortest < float(floor) - 1e-9 for _, floor in floors(shooting.plan)):
        return False
    if trigger is None:
        return True
    too_many = trigger.most_frames and shooting.frames > trigger.most_frames
    too_long = trigger.longest_run_s and shooting.solution.shoot > trigger.longest_run_s
    return not (too_many or too_long)
