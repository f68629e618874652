"""A focus stack and the motor on the focus ring: how far the ring reaches, who steps, what the keyframes are for."""

from collections.abc import Iterator

from bridle.core.plan.beat import Stack
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.rig import Axis
from bridle.core.reckon.asked import cannot_stop
from bridle.core.reckon.exposed import stack_positions
from bridle.core.reckon.focusing import MOST_ORDERS
from bridle.core.reckon.path import reach
from bridle.core.reckon.picture import longest_lens
from bridle.core.reckon.reckoning import Shooting
from bridle.core.snag import Fix, Snag, SnagKind, slot

OUT = SnagKind(
    "stack-out-of-ring",
    "stop",
    "clip",
    "The stack goes from {near} to {far}; turned by its motor the focus ring reaches from {low} to {high}.",
    "Beyond its last mark the ring stands still, and those pictures are all focused alike.",
)
RUNNING = SnagKind(
    "stack-needs-stops",
    "mind",
    "clip",
    "The move never stops, so the focus motor is not told the {positions} positions of the stack.",
    "Going through a stack takes a stop of its own for each picture. As it is, the camera has to step by itself.",
)
MANY = SnagKind(
    "stack-not-driven",
    "mind",
    "clip",
    "{positions} focus positions in each of {frames} are more than a drive is told here.",
    "Up to {most} pictures are told one by one. As it is, the camera has to step by itself.",
)
HELD = SnagKind(
    "stack-holds-focus",
    "note",
    "clip",
    "The stack says where the focus ring stands; the focus of the keyframes is not driven.",
    "It goes from near to far in every frame, and back to near for the next.",
)
KINDS = (OUT, RUNNING, MANY, HELD)
HAIR = 1e-9


def snags(shooting: Shooting) -> Iterator[Snag]:
    """What a motor on the ring and a stack have to do with one another; nothing where there is not both."""
    plan, axis, stack = shooting.plan, shooting.plan.rig.axis("focus"), shooting.plan.beat.stack
    positions = stack_positions(plan.beat, longest_lens(plan))
    if axis is None or stack is None or positions == 1:
        return
    if plan.beat.continuous:
        yield RUNNING.at("beat.stack", {"positions": slot(positions)}, _stopping(shooting))
    elif not shooting.stack_mm:
        slots = {"positions": slot(positions), "frames": slot(shooting.frames, "frames"), "most": slot(MOST_ORDERS)}
        yield MANY.at("beat.stack", slots, [_without()])
    else:
        yield from _out(plan, axis, stack)
        yield from _held(plan)


def _stopping(shooting: Shooting) -> list[Fix]:
    stop = Fix(
        label="Shoot, move, shoot",
        consequence="The rig stands still while the ring goes through the stack; each frame needs the time for it.",
        slots={},
        edits=(Edit(path="beat.school", value="shoot-move-shoot"),),
    )
    return [_without()] if cannot_stop(shooting) else [stop, _without()]


def _without() -> Fix:
    return Fix(
        label="No focus stack",
        consequence="One focus for each frame, as the keyframes have it.",
        slots={},
        edits=(Edit(path="beat.stack", value=None),),
    )


def _out(plan: Plan, axis: Axis, stack: Stack) -> Iterator[Snag]:
    """A stack that begins nearer or ends further than the ring can be turned to."""
    low, high = reach(axis)
    near, far = max(stack.near_mm, low), min(stack.far_mm, high)
    if near <= stack.near_mm * (1 + HAIR) and far >= stack.far_mm * (1 - HAIR):
        return
    slots = {
        name: slot(value, "mm")
        for name, value in (("near", stack.near_mm), ("far", stack.far_mm), ("low", low), ("high", high))
    }
    fixes = [_without()]
    if near < far:
        edits = (Edit(path="beat.stack.far_mm", value=far), Edit(path="beat.stack.near_mm", value=near))
        consequence = "As far as the ring reaches; what lies beyond is not sharp."
        slots_said = {"nearer": slot(near, "mm"), "further": slot(far, "mm")}
        fixes.insert(0, Fix("Stack from {nearer} to {further}", consequence, slots_said, edits))
    yield OUT.at("beat.stack.near_mm", slots, fixes)


def _held(plan: Plan) -> Iterator[Snag]:
    """Keyframes that pull focus, while the stack has the ring."""
    keys = plan.move.keyframes
    if len({key.focus_mm for key in keys}) == 1:
        return
    edits = tuple(
        Edit(path=f"move.keyframes.{n}.focus_mm", value=keys[0].focus_mm)
        for n, key in enumerate(keys)
        if key.focus_mm != keys[0].focus_mm
    )
    same = Fix(
        label="One focus for all keyframes",
        consequence="Nothing changes in what is driven while there is a stack.",
        slots={},
        edits=edits,
    )
    yield HELD.at("beat.stack", {}, [same, _without()])
