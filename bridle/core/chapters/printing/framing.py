"""Framing a print anew: aimed, nearer, farther, upright, the head parked elsewhere; each tried before it is offered."""

import math
from collections.abc import Iterator
from dataclasses import replace

import numpy as np

from bridle.core.asks.naming import Said, besides
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.core.reckon.path import key_path
from bridle.core.reckon.printing import chosen, layered, parking, printer_of
from bridle.core.reckon.printing_view import Standing, Views, sharp_of_part, views
from bridle.core.snag import Fix, slot

FARTHER = tuple(1 + n / 20 for n in range(1, 61))
NEARER = tuple(1 - n / 20 for n in range(1, 13))
NARROWEST = 16.0
MOST_TRIED = 300


def height_at(plan: Plan, frame: int) -> float:
    """How high the part is at a frame (from 0), mm."""
    frames = layered(plan)
    assert frames is not None
    return frames.z_mm[chosen(frames)[frame] - 1]


def fixes(plan: Plan, place: Standing) -> Iterator[Fix]:
    """What brings all of the part into every picture: the camera aimed anew, or the part farther away as well."""
    if not _free_to_aim(plan, place):
        return
    aimed, edits = _aimed(plan, place)
    if _fits(plan, aimed):
        more, named = _besides(plan, edits)
        yield Fix(
            label="Aim the camera at the middle of the finished part",
            consequence=f"Every keyframe turns by as much; the empty bed lies low in the picture at first.{more}",
            slots=named,
            edits=edits,
        )
    for share in FARTHER:
        far = _round(place.y * share)
        farther, turned = _aimed(plan, moved(plan, place, far))
        if _fits(plan, farther):
            more, named = _besides(plan, turned)
            yield Fix(
                label="Stand the part {far} away, and aim at its middle",
                consequence=f"All of it is in every picture, and smaller.{more}",
                slots={"far": slot(far, "mm"), **named},
                edits=(_away(plan, place, far), *turned),
            )
            return


def without_head(plan: Plan, place: Standing, seen: Views) -> Iterator[Fix]:
    """What takes the parked head out of the picture and keeps the part in it."""
    yield from _parked_farther(plan, place)
    if seen.out.any():
        return
    for turned in dict.fromkeys(((), _upright(plan))):
        held = apply(plan, list(turned))[0] if turned else plan
        for share in (1.0, *NEARER):
            far = _round(place.y * share) if share < 1 else place.y
            near, aimed = (
                _aimed(plan, moved(plan, place, far)) if _free_to_aim(plan, place) else (moved(plan, place, far), ())
            )
            if _fits(held, near) and not views(held, near).head_in.any() and _can_be_sharp(held, near):
                yield _nearer(plan, near, share < 1, turned, aimed)
                break


def _upright(plan: Plan) -> tuple[Edit, ...]:
    """A level camera held upright, for an upright clip."""
    if plan.camera.upright or plan.picture.shape not in ("as shot", "16:9"):
        return ()
    shape = (Edit(path="picture.shape", value="9:16"),) if plan.picture.shape == "16:9" else ()
    return (Edit(path="camera.upright", value=True), *shape)


def sharp_from_afar(plan: Plan, place: Standing, deep: float) -> Iterator[Fix]:
    """Where no aperture is enough: focus that is put right, or the distance from which all of it is sharp."""
    if "focus" in {axis.name for axis in plan.rig.axes}:
        ahead = round(float(place.ahead[0]), 1)
        if sharp_of_part(plan, replace(place, focus=np.array([ahead])), plan.camera.aperture)[0] >= deep - 1e-6:
            keys = range(len(plan.move.keyframes))
            yield Fix(
                label="Focus at {far} in every keyframe",
                consequence="That is the middle of the part.",
                slots={"far": slot(ahead, "mm")},
                edits=tuple(Edit(path=key_path(plan, n, "focus"), value=ahead) for n in keys),
            )
        return
    for n in range(1, 80):
        far = _round(place.y * 1.08**n)
        if sharp_of_part(plan, moved(plan, place, far), plan.camera.aperture)[0] >= deep - 1e-6:
            yield Fix(
                label="Stand the camera {enough} away",
                consequence="All of the part is sharp then, and smaller in the picture.",
                slots={"enough": slot(far, "mm")},
                edits=(_away(plan, place, far),),
            )
            return


def moved(plan: Plan, place: Standing, far: float) -> Standing:
    """The part at another distance; what no motor focuses is focused on it anew."""
    there = replace(place, y=far)
    return there if plan.rig.axis("focus") is not None else replace(there, focus=there.ahead[:1])


def _round(far: float) -> float:
    return math.ceil(far / 10) * 10.0


def _away(plan: Plan, place: Standing, far: float) -> Edit:
    """The part so far away, to its middle: by its mark, or as the distance that is measured."""
    if place.mark is None:
        return Edit(path="printing.distance_mm", value=far)
    mark = plan.move.marks[place.mark]
    front = far - (mark.depth_mm / 2 if mark.form == "block" else 0.0)
    return Edit(path=f"move.marks.{place.mark}.y_mm", value=round(front, 1))


def _free_to_aim(plan: Plan, place: Standing) -> bool:
    """Whether the keyframes say where the camera looks; a distance alone takes it as aimed."""
    led = plan.move.follow is not None and plan.move.follow.every_frame
    return place.mark is not None and not led


def _aimed(plan: Plan, place: Standing) -> tuple[Standing, tuple[Edit, ...]]:
    """The camera turned as a whole so that its first frame looks at the middle of the finished part."""
    at = place.at
    away = place.x - float(at.x[0]), place.y, place.bed + place.high / 2 - float(at.z[0])
    turns = {
        "pan": math.degrees(math.atan2(away[0], away[1])) - float(at.pan[0]),
        "tilt": math.degrees(math.atan2(away[2], math.hypot(away[0], away[1]))) - float(at.tilt[0]),
    }
    by = {name: round(turn, 2) for name, turn in turns.items() if _may_turn(plan, name, turn)}
    edits = tuple(
        Edit(path=key_path(plan, n, name), value=round(getattr(key, f"{name}_deg") + turn, 2))  # type: ignore[arg-type]
        for name, turn in by.items()
        for n, key in enumerate(plan.move.keyframes)
        if abs(turn) >= 0.01
    )
    turned = replace(at, pan=at.pan + by.get("pan", 0.0), tilt=at.tilt + by.get("tilt", 0.0))
    return replace(place, at=turned), edits


def _may_turn(plan: Plan, name: str, turn: float) -> bool:
    """Whether every keyframe stays within what the axis reaches."""
    axis = next((axis for axis in plan.rig.axes if axis.name == name), None)
    angles = [getattr(key, f"{name}_deg") + turn for key in plan.move.keyframes]
    return axis is None or all(axis.low <= angle <= axis.high for angle in angles)


def _fits(plan: Plan, place: Standing) -> bool:
    """Whether the part is in every picture: tried on some frames first."""
    every = len(place.at)
    few = np.unique(np.linspace(0, every - 1, MOST_TRIED).astype(np.int64))
    return not (every > MOST_TRIED and views(plan, place, few).out.any()) and not views(plan, place).out.any()


def _can_be_sharp(plan: Plan, place: Standing) -> bool:
    """Whether some aperture has all of it sharp: or nearness is paid for with softness, and would be undone again."""
    far = sharp_of_part(plan, place, NARROWEST)[0]
    return far >= sharp_of_part(plan, place, 1000.0)[0] - 1e-6


def _nearer(plan: Plan, near: Standing, moves: bool, turned: tuple[Edit, ...], aimed: tuple[Edit, ...]) -> Fix:
    more, named = _besides(plan, aimed)
    shaped = " The clip becomes upright too." if len(turned) > 1 else ""
    consequence = f"The head is beside the picture then, and all of the part in it.{shaped}{more}"
    if not moves:
        label = "Hold the camera upright" if turned else "Aim the camera at the middle of the finished part"
        return Fix(label=label, consequence=consequence, slots=named, edits=(*turned, *aimed))
    label = "Hold it upright, and the part {far} away" if turned else "The part {far} away, and aimed at its middle"
    edits = (*turned, _away(plan, near, near.y), *aimed)
    return Fix(label=label, consequence=consequence, slots={"far": slot(near.y, "mm"), **named}, edits=edits)


def _besides(plan: Plan, edits: tuple[Edit, ...]) -> Said:
    """What the edits write into the keyframes, in words."""
    return besides(plan, apply(plan, list(edits))[0].move) if edits else ("", {})


def _parked_farther(plan: Plan, place: Standing) -> Iterator[Fix]:
    """A head that presses nothing may be parked anywhere."""
    printer, (x, _) = printer_of(plan), parking(plan)
    if printer is None or printer.fires == "switch" or x is None or plan.printing.seen_from in ("left", "right"):
        return
    for to in sorted({printer.low_x_mm, printer.high_x_mm}, key=lambda end: abs(end - x)):
        stop = plan.printing.stop.model_copy(update={"park_x_mm": to})
        parked = plan.model_copy(update={"printing": plan.printing.model_copy(update={"stop": stop})})
        if not views(parked, place).head_in.any():
            yield Fix(
                label="Park at X {to}",
                consequence="At the end of the axis, beside the picture.",
                slots={"to": slot(f"{to:g} mm")},
                edits=(Edit(path="printing.stop.park_x_mm", value=to),),
            )
            return
