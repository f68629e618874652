"""Drives that run by the clock: they neither wait for a frame nor change their pace."""

from collections.abc import Iterator

from bridle.core.plan.edit import Edit
from bridle.core.reckon.asked import Asked
from bridle.core.reckon.path import at
from bridle.core.snag import Fix, Slot, Snag, SnagKind, slot

NO_STOP = SnagKind(
    "drive-cannot-stop",
    "stop",
    "rig",
    "The {axis} runs on: its {drive} cannot stop for each frame.",
    "Shoot-move-shoot needs a drive that waits. One that just runs is for continuous moves, and short exposures.",
)
NO_EASE = SnagKind(
    "drive-cannot-ease",
    "mind",
    "rig",
    "The {axis} eases over {frames}, but its {drive} has one pace only.",
    "The move starts and ends abruptly; ease it in the edit, or leave handles to cut into.",
)
BY_EVENT = SnagKind(
    "clock-driven-axis",
    "stop",
    "rig",
    "An event calls the frames, but the {drive} of the {axis} runs by the clock.",
    "The drive goes on while the next frame is still waited for: the framing comes out of step with the frames.",
)
ONE_WAY = SnagKind(
    "drive-goes-straight",
    "stop",
    "rig",
    "The move of the {axis} has turns or stops, but its {drive} goes one way at one pace.",
    "It starts, and goes on until it is stopped: nothing between the first keyframe and the last can be asked of it.",
)


GOING_ON = Fix(
    label="Move all the time",
    consequence="Every frame is taken while the axis runs; keep the exposure short.",
    slots={},
    edits=(Edit(path="beat.school", value="continuous"),),
)
GOING_ON_ALONE = Fix(
    label="Move all the time, one picture a cycle",
    consequence="Every frame is taken while the axis runs, so there is no going round; keep the exposure short.",
    slots={},
    edits=(*GOING_ON.edits, Edit(path="move.visits", value=None)),
)
AT_ONE_PACE = Fix(
    label="No ease",
    consequence="The move runs at one pace from its first frame to its last.",
    slots={},
    edits=tuple(
        Edit(path=f"move.ease_{end}", value=value)
        for end, value in (("in_frames", 0), ("out_frames", 0), ("in_s", None), ("out_s", None))
    ),
)
BY_THE_CLOCK = Fix(
    label="Let the clock call the frames",
    consequence="Frames come at the interval, whether the event has happened or not.",
    slots={},
    edits=(Edit(path="clip.called_by", value="clock"),),
)


def by_the_clock(asked: Asked) -> Iterator[Snag]:
    """What a drive cannot do that runs by the clock: it neither waits for a frame nor changes its pace."""
    axis, plan = asked.axis, asked.plan
    slots = {"axis": slot(axis.name), "drive": slot(asked.drive.NAME)}
    if not plan.beat.continuous and not asked.drive.stops:
        yield NO_STOP.at("beat.school", slots, [GOING_ON if plan.move.visits is None else GOING_ON_ALONE])
    if asked.drive.most_points is not None and not _straight(asked, asked.drive.most_points):
        yield _only_straight(asked, slots)
    eased = sum(asked.shooting.schedule.eases_asked)
    if eased and not asked.drive.eases:
        yield NO_EASE.at("move.ease_in_frames", {**slots, "frames": slot(eased, "frames")}, [AT_ONE_PACE])
    if plan.clip.called_by == "event" and asked.drive.runs_on:
        yield BY_EVENT.at("clip.called_by", slots, [BY_THE_CLOCK])


def _straight(asked: Asked, points: int) -> bool:
    """Whether the move of this axis is one way through so many places at most, but for the ease."""
    move, name = asked.plan.move, asked.axis.name
    keys = [at(asked.plan, key, name) for key in move.keyframes]
    led = move.follow is not None and move.follow.every_frame and name in ("pan", "tilt")
    holds = any(key.hold_frames for key in (move.start, move.end))
    return len(keys) <= points and move.legs == 1 and move.visits is None and not led and not holds


def _only_straight(asked: Asked, slots: dict[str, Slot]) -> Snag:
    move = asked.plan.move
    ends = [key.model_copy(update={"hold_frames": 0}).model_dump(mode="json") for key in (move.start, move.end)]
    edits = [Edit(path="move.keyframes", value=ends), Edit(path="move.legs", value=1)]
    if move.visits is not None:
        edits.append(Edit(path="move.visits", value=None))
    if move.follow is not None and move.follow.every_frame:
        edits.append(Edit(path="move.follow.every_frame", value=False))
    fix = Fix(
        label="Straight from the first keyframe to the last",
        consequence="All other keyframes, ways back and rounds are left out, on every axis.",
        slots={},
        edits=tuple(edits),
    )
    return ONE_WAY.at("move.keyframes", slots, [fix])
