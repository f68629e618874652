"""What the camera sees of a print: from the empty bed to the finished part, in the picture and in focus."""

import math
from collections.abc import Iterator

from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.reckon.picture import kept
from bridle.core.reckon.printing import layered
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.optics import depth

LARGE = SnagKind(
    "print-not-in-picture",
    "stop",
    "print",
    "The finished part is {part_wide} wide and {part_high} high; the picture takes in {wide} by {high}.",
    "What fits at the first layers grows out of the picture. Frame the finished part, not the empty bed.",
)
SHALLOW = SnagKind(
    "print-out-of-focus",
    "mind",
    "print",
    "Of the depth of {deep} that the part has, {sharp} is sharp.",
    "Focus stays where it was set, on the middle of the part at the parking place. The rest is soft in every frame.",
)
KINDS = (LARGE, SHALLOW)
ROOM = 1.1
STOPS = (2.8, 4.0, 5.6, 8.0, 11.0, 16.0)
WIDE = Formula("sensor * distance / focal", "what a lens takes in, far against its focal length")
SHARP = Formula("far - near", "between the nearest and the farthest that is sharp")


def findings(plan: Plan) -> Iterator[Figure | Snag]:
    """What is in the picture and in focus; nothing while nobody has measured the distance to the part."""
    far, file, frames = plan.printing.distance_mm, plan.printing.file, layered(plan)
    if far is None or file is None or frames is None or not frames.z_mm:
        return
    camera = plan.camera
    wide, high = (side * far / camera.focal_mm for side in _sensor(plan))
    x0, x1, y0, y1 = file.extents_mm
    # Nobody says from which side it is seen: the larger side counts.
    part_wide, part_high, deep = max(x1 - x0, y1 - y0), max(frames.z_mm), max(x1 - x0, y1 - y0)
    yield figure(
        "printing.wide",
        "the picture takes in",
        wide,
        "mm",
        WIDE,
        term("sensor", "sensor, as wide as the clip shows", _sensor(plan)[0], "mm"),
        term("distance", "from lens to part", far, "mm"),
        term("focal", "focal length", camera.focal_mm, "mm"),
    )
    if part_wide > wide or part_high > high:
        yield _large(plan, (wide, high), (part_wide, part_high))
    near_mm, far_mm = depth.limits_mm(far, camera.focal_mm, camera.aperture, camera.circle_mm)
    if math.isinf(far_mm):
        return
    terms = (term("near", "nearest that is sharp", near_mm, "mm"), term("far", "farthest that is sharp", far_mm, "mm"))
    yield figure("printing.sharp", "sharp over", far_mm - near_mm, "mm", SHARP, *terms)
    if far_mm - near_mm < deep:
        yield _shallow(plan, far, deep, far_mm - near_mm)


def _sensor(plan: Plan) -> tuple[float, float]:
    """The part of the sensor that the clip shows, wide and high, mm."""
    shown = kept(plan)
    return shown.width_mm, shown.height_mm


def _large(plan: Plan, takes: tuple[float, float], part: tuple[float, float]) -> Snag:
    far = plan.printing.distance_mm or 0.0
    enough = math.ceil(far * max(part[0] / takes[0], part[1] / takes[1]) * ROOM / 10) * 10.0
    fix = Fix(
        label="Stand the camera {far} away",
        consequence="The finished part fits, with a tenth to spare around it.",
        slots={"far": slot(enough, "mm")},
        edits=(Edit(path="printing.distance_mm", value=enough),),
    )
    slots = {
        "part_wide": slot(part[0], "mm"),
        "part_high": slot(part[1], "mm"),
        "wide": slot(takes[0], "mm"),
        "high": slot(takes[1], "mm"),
    }
    return LARGE.at("printing.distance_mm", slots, [fix])


def _shallow(plan: Plan, far: float, deep: float, sharp: float) -> Snag:
    camera = plan.camera
    slots = {"deep": slot(deep, "mm"), "sharp": slot(sharp, "mm")}
    for aperture in (stop for stop in STOPS if stop > camera.aperture):
        if _sharp_mm(plan, far, aperture) >= deep:
            fix = Fix(
                label="Stop down to {aperture}",
                consequence="All of the part is sharp then; the exposure gets longer by as much.",
                slots={"aperture": slot(aperture, "f-number")},
                edits=(Edit(path="camera.aperture", value=aperture),),
            )
            return SHALLOW.at("camera.aperture", slots, [fix])
    enough = next(
        (
            step
            for n in range(1, 80)
            if _sharp_mm(plan, step := math.ceil(far * (1 + n / 10) / 10) * 10.0, camera.aperture) >= deep
        ),
        None,
    )
    away = Fix(
        label="Stand the camera {enough} away",
        consequence="All of the part is sharp then, and smaller in the picture.",
        slots={"enough": slot(enough or far, "mm")},
        edits=(Edit(path="printing.distance_mm", value=enough),),
    )
    return SHALLOW.at("camera.aperture", slots, [away])


def _sharp_mm(plan: Plan, far: float, aperture: float) -> float:
    near_mm, far_mm = depth.limits_mm(far, plan.camera.focal_mm, aperture, plan.camera.circle_mm)
    return far_mm - near_mm
