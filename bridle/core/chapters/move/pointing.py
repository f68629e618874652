"""The head pointed at a followed mark: the fewest keyframes, the ends of a plain drive, or every frame."""

import numpy as np

from bridle.core.asks.naming import besides
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.move import Keyframe, Move
from bridle.core.plan.rig import AxisName
from bridle.core.quantity import listed
from bridle.core.reckon.asked import misses_more
from bridle.core.reckon.parts import axis_parts
from bridle.core.reckon.poses import following
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.schedule import Schedule
from bridle.core.reckon.travel import overreach
from bridle.core.snag import Fix, slot
from bridle.core.subjects.numbers.arrays import Floats

# A mark may drift by this share of the width until it shows.
LIMIT_SHARE = 0.005
MOST_BETWEEN = 12
# Angles are set to this many digits.
DIGITS = 2
# What the fixes leave as it is, and say so.
SLIDE: tuple[AxisName, ...] = ("slide",)


def pointed(shooting: Shooting) -> list[Fix]:
    """The head pointed at the mark, as far as its drives can be told that."""
    aimed = _with_keyframes(shooting)
    return [*aimed, *([] if aimed else _both_ends(shooting)), *_at_every_frame(shooting)]


def _with_keyframes(shooting: Shooting) -> list[Fix]:
    """The fewest evenly spaced keyframes between those that stand that bring the error under the limit."""
    plan = shooting.plan
    if plan.rig.axis("pan") is None:
        return []
    for between in range(_most_between(plan) + 1):
        move = followed_by_keyframes(shooting, between)
        if move is None:
            return []
        tried = shooting.tried(move=move)
        found = tried.tracked
        if found is not None and found.leaves is None and found.error <= LIMIT_SHARE and not _farther(shooting, tried):
            return [_keyframes_fix(plan, found.error, move, between)]
    return []


def _points(plan: Plan) -> int | None:
    """How many places one after the other what turns the camera can be sent to; None for any number."""
    parts = axis_parts(plan.kit.copies)
    most = [parts[name].card.drive.most_points for name in ("pan", "tilt") if name in parts]
    return min((points for points in most if points is not None), default=None)


def _most_between(plan: Plan) -> int:
    """How many keyframes may come into each gap, as far as the drives can be told them."""
    points, gaps = _points(plan), len(plan.move.keyframes) - 1
    return MOST_BETWEEN if points is None else max(0, min(MOST_BETWEEN, (points - 1) // gaps - 1))


def least_drift(shooting: Shooting) -> Shooting | None:
    """The move between the two ends with which the mark drifts least, for a head that goes at a pace of its own.

    None for any other head, and where such ends are out of reach or the drive does another sweep.
    """
    plan, follow = shooting.plan, shooting.plan.move.follow
    if follow is None or _points(plan) is None or len(plan.move.keyframes) != 2 or plan.rig.axis("pan") is None:
        return None
    free = plan.move.model_copy(update={"follow": follow.model_copy(update={"every_frame": False})})
    led = following(plan, shooting.tried(move=free).positions, shooting.skies)
    keys = [key.model_dump() for key in free.keyframes]
    for name, wanted in led.items():
        ends = _least_apart(_progress(shooting, free, name), wanted)
        for key, end in zip(keys, ends, strict=True):
            key[f"{name}_deg"] = round(end, DIGITS) + 0.0
    tried = shooting.tried(
        move=free.model_copy(update={"keyframes": tuple(Keyframe.model_validate(key) for key in keys)})
    )
    found = tried.tracked
    if found is None or found.leaves is not None or np.isnan(found.error):
        return None
    return None if _farther(shooting, tried) or misses_more(shooting, tried) else tried


def _both_ends(shooting: Shooting) -> list[Fix]:
    """Of a head that goes from one end to the other at its own pace: the two ends between which it drifts least."""
    plan, tried = shooting.plan, least_drift(shooting)
    if tried is None or plan.move.follow is None:
        return []
    move, found = tried.plan.move, tried.tracked
    assert found is not None
    more, named = besides(plan, move, SLIDE)
    edits = [Edit(path="move.keyframes", value=move.model_dump(mode="json")["keyframes"])]
    if plan.move.follow.every_frame:
        edits.append(Edit(path="move.follow.every_frame", value=False))
    return [
        Fix(
            label="Aim both ends so that it drifts least",
            consequence=f"It drifts {{after}} at most then; this head goes from end to end at one pace.{more}",
            slots={"after": slot(found.error, "share"), **named},
            edits=tuple(edits),
        )
    ]


def _progress(shooting: Shooting, move: Move, name: str) -> Floats:
    """How far along its way an axis is at each frame, from 0 at the first keyframe to 1 at the last."""
    keys = tuple(key.model_copy(update={f"{name}_deg": float(n)}) for n, key in enumerate(move.keyframes))
    return shooting.tried(move=move.model_copy(update={"keyframes": keys})).positions[name]


def _least_apart(progress: Floats, wanted: Floats) -> tuple[float, float]:
    """The two ends of a way whose largest distance from what is wanted is smallest, found by thirds: it is convex."""

    def spread(sweep: float) -> float:
        rest = wanted - sweep * progress
        return float(rest.max() - rest.min())

    whole = float(np.ptp(wanted)) * 2 + 1e-6
    low, high = -whole, whole
    for _ in range(100):
        third = (high - low) / 3
        low, high = (low, high - third) if spread(low + third) < spread(high - third) else (low + third, high)
    sweep = (low + high) / 2
    rest = wanted - sweep * progress
    start = float(rest.max() + rest.min()) / 2
    return start, start + sweep


def _farther(shooting: Shooting, tried: Shooting) -> bool:
    """Whether another move, with what a round adds beside it, goes further beyond an axis's travel."""
    return overreach(tried.plan, tried.stops) > overreach(shooting.plan, shooting.stops) + 1e-6


def _keyframes_fix(plan: Plan, error: float, move: Move, between: int) -> Fix:
    added = len(move.keyframes) - len(plan.move.keyframes)
    label = "Add {added}" if added else "Aim the keyframes at it"
    more, named = besides(plan, move, SLIDE, [n * (between + 1) for n in range(len(plan.move.keyframes))])
    edits = [Edit(path="move.keyframes", value=move.model_dump(mode="json")["keyframes"])]
    if move.follow is not None:
        edits.append(Edit(path="move.follow.every_frame", value=False))
    return Fix(
        label=label,
        consequence=f"Every keyframe points at it, and it drifts {{after}} at most. The slide goes as before.{more}",
        slots={"added": slot(f"{added} keyframe{'s' if added > 1 else ''}"), "after": slot(error, "share"), **named},
        edits=tuple(edits),
    )


def followed_by_keyframes(shooting: Shooting, between: int) -> Move | None:
    """The move with so many keyframes more in each gap, all of them aimed; None where there is no room for them."""
    move, timing = shooting.plan.move, shooting.schedule
    plain = move.model_copy(update={"follow": move.follow and move.follow.model_copy(update={"every_frame": False})})
    still = shooting.tried(move=plain)
    places, aimed = still.positions, following(still.plan, still.positions, shooting.skies)
    steps = _even_steps(timing, between)
    if steps is None or len(steps) > 60:
        return None
    keys = []
    for step, number in steps:
        frame = timing.span.first + round(step)
        own = plain.keyframes[number] if number is not None else _standing(places, frame)
        angles = {f"{name}_deg": round(float(values[frame]), DIGITS) for name, values in aimed.items()}
        keys.append(own.model_copy(update=angles))
    return plain.model_copy(update={"keyframes": tuple(keys)})


def _even_steps(timing: Schedule, between: int) -> list[tuple[float, int | None]] | None:
    """Steps of the leg with the number of the keyframe that stands there, the new ones evenly in each gap."""
    made: list[tuple[float, int | None]] = []
    last = len(timing.arrive) - 1
    for number in range(last):
        made.append((float(timing.arrive[number]), number))
        low, high = float(timing.leave[number]), float(timing.arrive[number + 1])
        inner = [float(round(low + (high - low) * n / (between + 1))) for n in range(1, between + 1)]
        if inner and (inner[0] <= low or inner[-1] >= high or len(set(inner)) < len(inner)):
            return None
        made += [(step, None) for step in inner]
    return [*made, (float(timing.arrive[last]), last)]


def _standing(places: dict[str, Floats], frame: int) -> Keyframe:
    """A keyframe without a frame of its own, where the axes stand at a frame; it falls evenly between the others."""
    units = {"slide": "mm", "pan": "deg", "tilt": "deg", "roll": "deg", "focus": "mm", "zoom": "mm"}
    return Keyframe.model_validate({f"{name}_{units[name]}": float(values[frame]) for name, values in places.items()})


def _at_every_frame(shooting: Shooting) -> list[Fix]:
    """The pan computed for each frame, where the head can reach all of it."""
    plan, follow = shooting.plan, shooting.plan.move.follow
    if follow is None or follow.every_frame or plan.rig.axis("pan") is None or _points(plan) is not None:
        return []
    every = plan.move.model_copy(update={"follow": follow.model_copy(update={"every_frame": True})})
    tried = shooting.tried(move=every)
    found = tried.tracked
    if found is None or found.leaves is not None or not found.error <= LIMIT_SHARE or _farther(shooting, tried):
        return []
    led = [str(axis.name) for axis in plan.rig.axes if axis.name in ("pan", "tilt")]
    are, their = ("is", "its") if len(led) == 1 else ("are", "their")
    return [
        Fix(
            label="Follow it at every frame",
            consequence=f"The {listed(led)} {are} worked out for each frame and told to the drive so; {their} "
            "keyframes no longer count.",
            slots={},
            edits=(Edit(path="move.follow.every_frame", value=True),),
        )
    ]
