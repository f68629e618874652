"""What the camera sees of a print: from the empty bed to the finished part, in the picture and in focus."""

import math
from collections.abc import Iterator

import numpy as np

from bridle.core.chapters.printing import framing
from bridle.core.chapters.printing.meaning import meant
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.reckon.picture import kept
from bridle.core.reckon.printing_view import Standing, Views, part_mm, sharp_of_part, standing, views
from bridle.core.reckon.reckoning import Reckoning, Shooting
from bridle.core.reckon.sky import UP_DEG
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.optics import depth

LARGE = SnagKind(
    "print-not-in-picture",
    "stop",
    "print",
    "The finished part is {part_wide} wide and {part_high} high; the picture takes in {wide} by {high}.",
    "What fits at the first layers grows out of the picture. Frame the finished part, not the empty bed.",
)
LEAVES = SnagKind(
    "print-leaves-picture",
    "stop",
    "print",
    "Not all of the part is in the picture in {count}, first in frame {first}, when it is {height} high.",
    "The camera was put up for another height, or turns away from it. Frame the finished part, not the empty bed.",
)
HEAD = SnagKind(
    "print-head-in-picture",
    "mind",
    "print",
    "The parked head stands in the picture, in {count}.",
    "It rises beside the part in the whole clip, and it is what the eye goes to.",
)
SHALLOW = SnagKind(
    "print-out-of-focus",
    "mind",
    "print",
    "Of the depth of {deep} that the part has, {sharp} is sharp.",
    "Focus stays where it was set, on the middle of the part at the parking place. The rest is soft.",
)
DAYLIGHT = SnagKind(
    "print-in-daylight",
    "mind",
    "print",
    "The sun is up in {count} of {all}.",
    "What comes through a window wanders over the part and grows brighter and darker from layer to layer. Shut it out, "
    "and let lamps stay as they are.",
)
KINDS = (LARGE, LEAVES, HEAD, SHALLOW, DAYLIGHT)
ROOM = 1.1
STOPS = (2.8, 4.0, 5.6, 8.0, 11.0, 16.0)
WIDE = Formula(
    "sensor * distance * (focus - focal) / (focal * focus)",
    "what a lens takes in; focused close up it stands further out than its focal length, and takes in less",
)
SHARP = Formula("far - near", "between the nearest and the farthest that is sharp")


def findings(known: Reckoning) -> Iterator[Figure | Snag]:
    """What is in the picture, in focus and in the sun; nothing while nobody knows where the part stands."""
    plan, shooting = known.plan, known.shooting
    if shooting is not None:
        yield from _daylight(plan, shooting)
    place = standing(plan, shooting)
    if place is None:
        return
    seen = views(plan, place)
    # Of what lies behind the lens, or within its focal length, nothing is taken in and nothing sharp.
    before = bool((place.ahead > place.at.focal).all())
    if before:
        yield _wide(plan, place)
    if place.mark is not None:
        yield from _leaves(plan, place, seen)
    else:
        yield from _large(plan, place)
    yield from _head(plan, place, seen)
    if before:
        yield from _sharp(plan, place)


def _wide(plan: Plan, place: Standing) -> Figure:
    """Where the picture takes in least."""
    ahead, image, focal, focus = np.broadcast_arrays(place.ahead, place.image, place.at.lens, place.focus)
    at = int(np.argmin(ahead / image))
    side = kept(plan).width_mm
    return figure(
        "printing.wide", "the picture takes in", side * float(ahead[at] / image[at]), "mm", WIDE,
        term("sensor", "sensor, as wide as the clip shows", side, "mm"),
        term("distance", "from lens to part", float(ahead[at]), "mm"),
        term("focus", "focused at", float(focus[at]), "mm"),
        term("focal", "focal length", float(focal[at]), "mm"),
    )  # fmt: skip


def _large(plan: Plan, place: Standing) -> Iterator[Snag]:
    """Seen from a distance that was measured: whether the part is larger than what the picture takes in."""
    if "framing" in plan.printing.meant:
        return
    shown, (across, _, part_high) = kept(plan), part_mm(plan)
    focal, image = float(place.at.focal[0]), float(place.image[0])
    wide, high = (side * place.y / image for side in (shown.width_mm, shown.height_mm))
    if across <= wide and part_high <= high:
        return
    # So far that the part, drawn smaller by the room around it, fits onto the sensor: s = f · (1 + part / sensor).
    larger = max(across / shown.width_mm, part_high / shown.height_mm) * ROOM
    enough = math.ceil(focal * (1 + larger) / 10) * 10.0
    fix = Fix(
        label="Stand the camera {far} away",
        consequence="The finished part fits, with a tenth to spare around it.",
        slots={"far": slot(enough, "mm")},
        edits=(Edit(path="printing.distance_mm", value=enough),),
    )
    slots = {
        "part_wide": slot(across, "mm"),
        "part_high": slot(part_high, "mm"),
        "wide": slot(wide, "mm"),
        "high": slot(high, "mm"),
    }
    yield LARGE.at("printing.distance_mm", slots, [fix])


def _leaves(plan: Plan, place: Standing, seen: Views) -> Iterator[Snag]:
    """Seen where the move's scene has it: whether it is in every picture, at the height that it has by then."""
    out = np.flatnonzero(seen.out)
    if not len(out) or "framing" in plan.printing.meant:
        return
    slots = {
        "count": slot(len(out), "frames"),
        "first": slot(f"{out[0] + 1:,}"),
        "height": slot(framing.height_at(plan, int(out[0])), "mm"),
    }
    fine = meant(plan, "framing", "It is to be so", "What leaves the picture is not in the clip.")
    yield LEAVES.at(f"move.marks.{place.mark}", slots, [*framing.fixes(plan, place), fine])


def _head(plan: Plan, place: Standing, seen: Views) -> Iterator[Snag]:
    inside = int(seen.head_in.sum())
    if not inside or "head" in plan.printing.meant:
        return
    fine = meant(plan, "head", "It may be seen", "It stands still in every frame, and only rises.")
    yield HEAD.at(
        "printing.seen_from", {"count": slot(inside, "frames")}, [*framing.without_head(plan, place, seen), fine]
    )


def _sharp(plan: Plan, place: Standing) -> Iterator[Figure | Snag]:
    camera, deep = plan.camera, part_mm(plan)[1]
    sharp, at = sharp_of_part(plan, place, camera.aperture)
    focal, focus = (float(np.broadcast_to(one, place.ahead.shape)[at]) for one in (place.at.focal, place.focus))
    near_mm, far_mm = depth.limits_mm(focus, focal, camera.aperture, camera.circle)
    if math.isfinite(far_mm):
        ends = (
            term("near", "nearest that is sharp", near_mm, "mm"),
            term("far", "farthest that is sharp", far_mm, "mm"),
        )
        yield figure("printing.sharp", "sharp over", far_mm - near_mm, "mm", SHARP, *ends)
    if sharp < deep - 1e-6:
        slots = {"deep": slot(deep, "mm"), "sharp": slot(sharp, "mm")}
        yield SHALLOW.at("camera.aperture", slots, list(_deeper(plan, place, deep)))


def _deeper(plan: Plan, place: Standing, deep: float) -> Iterator[Fix]:
    """The first aperture at which all of it is sharp, else the distance from which it is."""
    for aperture in (stop for stop in STOPS if stop > plan.camera.aperture):
        if sharp_of_part(plan, place, aperture)[0] >= deep - 1e-6:
            yield Fix(
                label="Stop down to {aperture}",
                consequence="All of the part is sharp then; the exposure gets longer by as much.",
                slots={"aperture": slot(aperture, "f-number")},
                edits=(Edit(path="camera.aperture", value=aperture),),
            )
            return
    yield from framing.sharp_from_afar(plan, place, deep)


def _daylight(plan: Plan, shooting: Shooting) -> Iterator[Snag]:
    """The sun over the horizon while it prints, as long as nobody has said that it is shut out."""
    if shooting.sun is None or plan.light.daylight is False:
        return
    up = int((shooting.sun.altitude > UP_DEG).sum())
    if up:
        out = Fix(
            label="Daylight is shut out",
            consequence="The lamps alone light it; look at the first frames with them off: they have to be black.",
            slots={},
            edits=(Edit(path="light.daylight", value=False),),
        )
        slots = {"count": slot(up, "frames"), "all": slot(f"{shooting.frames:,}")}
        yield DAYLIGHT.at("light.daylight", slots, [out])
