"""What nobody knows of the beat: how long an axis takes to move, where its card does not say how fast it goes."""

from collections.abc import Iterator

from bridle.core.plan.edit import Edit
from bridle.core.reckon.asked import Asked, asked_of
from bridle.core.reckon.reckoning import Shooting
from bridle.core.snag import Fix, Snag, SnagKind, slot

SPEED = SnagKind(
    "speed-not-known",
    "note",
    "clip",
    "How fast the {axis} moves is not known: the beat keeps no time for its moves.",
    "It may still be on its way when the next shutter opens. Time one move, or count on what is usual.",
)
KINDS = (SPEED,)
# What most drives of a kind do easily, by the unit of the axis; a second.
USUAL = {"mm": 10.0, "deg": 5.0}


def snags(shooting: Shooting) -> Iterator[Snag]:
    """Every axis that stops for each frame, has a speed of its own, and of which nobody has said it."""
    if shooting.plan.beat.continuous:
        return
    for asked in asked_of(shooting):
        axis = asked.axis
        if asked.wanted.sweep and axis.top_speed is None and axis.acceleration is None and _has_a_speed(asked):
            path = f"rig.axes.{shooting.plan.rig.axes.index(axis)}.top_speed"
            speed = slot(USUAL[axis.unit], f"{axis.unit}/s")
            fix = Fix(
                label="Count on {speed} for the {axis}",
                consequence="The beat keeps the time for its moves at that speed; try it before the shoot.",
                slots={"speed": speed, "axis": slot(axis.name)},
                edits=(Edit(path=path, value=USUAL[axis.unit]),),
            )
            yield SPEED.at(path, {"axis": slot(axis.name)}, [fix])


def _has_a_speed(asked: Asked) -> bool:
    return "top_speed" in asked.drive.MINDS
