"""Whether the camera still looks where it did: shifts from the reference frame, the picture that all frames share."""

import math
from collections.abc import Iterator
from dataclasses import dataclass

from bridle.core.chapters.season.state import AimTold
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.hours import day_said
from bridle.core.reckon.picture import kept
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.optics import cropping

EATEN = SnagKind(
    "aim-eats-picture",
    "mind",
    "season",
    "Registered on one another the frames leave {left} of picture across; the clip is delivered {wanted} wide.",
    "The camera was moved at visits. What is left is enlarged, and softer than the rest could be.",
)
KINDS = (EATEN,)
FAR = Formula("sqrt(across**2 + down**2)", "how far it has moved, in pixels as they are shot")
TURNED = Formula("degrees(atan(far * sensor / wide / focal))", "at the middle of the picture")
LEFT = Formula("(wide - most_right - most_left) * kept", "what all frames show, less what levelling them takes")


@dataclass(frozen=True)
class Registered:
    """What all frames share, in pixels as they are shot, and where it begins in a frame that has not moved."""

    width: float
    height: float
    left: float
    top: float
    keep: float


def registered(plan: Plan) -> Registered:
    """What is left of the picture when all frames are laid on one another."""
    wide, high = kept(plan).shot_px
    across = [0.0, *(aim.across_px for aim in plan.season.aims)]
    down = [0.0, *(aim.down_px for aim in plan.season.aims)]
    width, height = max(0.0, wide - max(across) + min(across)), max(0.0, high - max(down) + min(down))
    turn = max((abs(aim.turned_deg) for aim in plan.season.aims), default=0.0)
    if not width or not height:
        return Registered(0.0, 0.0, 0.0, 0.0, 0.0)
    inner, tall = cropping.largest(width, height, width, height, turn)
    return Registered(inner, tall, -min(across) + (width - inner) / 2, -min(down) + (height - tall) / 2, inner / width)


def aims(plan: Plan) -> Iterator[AimTold]:
    """Each shift in pixels and degrees, and where the shared picture lies in the frames from that day on."""
    shared = registered(plan)
    for aim in plan.season.aims:
        far = math.hypot(aim.across_px, aim.down_px)
        yield AimTold(
            on=aim.on.isoformat(),
            said=day_said(aim.on),
            far_px=far,
            far_deg=_degrees(plan, far),
            left_px=round(shared.left + aim.across_px),
            top_px=round(shared.top + aim.down_px),
        )


def _degrees(plan: Plan, pixels: float) -> float:
    camera = plan.camera
    return math.degrees(math.atan(pixels * camera.sensor_width_mm / camera.picture_width_px / camera.focal_mm))


def findings(plan: Plan) -> Iterator[Figure | Snag]:
    """Each shift, and the shared picture; nothing while nobody has compared."""
    if plan.season.aims:
        yield from _shared(plan)


def _shared(plan: Plan) -> Iterator[Figure | Snag]:
    shared, frame = registered(plan), kept(plan)
    across = [0.0, *(aim.across_px for aim in plan.season.aims)]
    terms = (
        term("wide", "as it is shot", frame.shot_px[0], "px"),
        term("most_right", "most to the right", max(across), "px"),
        term("most_left", "most to the left", -min(across), "px"),
        term("kept", "kept by levelling", shared.keep, "share"),
    )
    yield figure("aim.left", "left of the picture, across", shared.width, "px", LEFT, *terms)
    for number, aim in enumerate(plan.season.aims):
        far = math.hypot(aim.across_px, aim.down_px)
        parts = term("across", "across", aim.across_px, "px"), term("down", "down", aim.down_px, "px")
        yield figure(f"aim.{number}.far", "moved by", far, "px", FAR, *parts)
        camera = plan.camera
        lens = (
            term("far", "moved by", far, "px"),
            term("sensor", "sensor", camera.sensor_width_mm, "mm"),
            term("wide", "width", camera.picture_width_px, "px"),
            term("focal", "focal length", camera.focal_mm, "focal"),
        )
        yield figure(f"aim.{number}.deg", "turned by", _degrees(plan, far), "deg", TURNED, *lens)
    if plan.picture.width_px is None or shared.width >= frame.width_px:
        return
    less = cropping.even(max(16.0, shared.width))
    fix = Fix(
        label="Deliver {less}",
        consequence="Every frame fills that without being enlarged.",
        slots={"less": slot(less, "px")},
        edits=(Edit(path="picture.width_px", value=less),),
    )
    slots = {"left": slot(round(shared.width), "px"), "wanted": slot(frame.width_px, "px")}
    yield EATEN.at("picture.width_px", slots, [fix] if shared.width >= less else [_again()])


def _again() -> Fix:
    return Fix(
        label="Leave these comparisons out",
        consequence="Frames after the camera was moved are another clip.",
        slots={},
        edits=(Edit(path="season.aims", value=[]),),
    )
