"""How even the pace is: steps that show, scales that are too coarse."""

import math
from collections.abc import Iterator

from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.edit import Edit
from bridle.core.reckon.asked import Asked
from bridle.core.reckon.picture import focal_ends, kept, scale
from bridle.core.reckon.poses import nearest_mm
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.motion import steppers
from bridle.core.subjects.motion.drives.stepper import Stepper
from bridle.core.subjects.optics import lens

UNEVEN = SnagKind(
    "steps-uneven",
    "mind",
    "rig",
    "The {axis} takes {steps} steps a frame: its pace wavers by {ripple}, and a step is {pixels}.",
    "Some frames get a step more than others. Below about eight steps a frame it shows as a fine judder.",
    short="{axis}, a step: {pixels}",
)
COARSE = SnagKind(
    "scale-too-coarse",
    "note",
    "rig",
    "The scale of the {axis} is divided into {division}; the move goes {pace}.",
    "Several frames share a mark: set it every {every} frames, or pick the nearest division and accept the jumps.",
)
VISIBLE_PX = 0.5
STEP_PX = Formula("step * scale", "one step, seen at the centre of the picture")
STEP_PX_SLIDE = Formula("step * focal * width / sensor / distance", "one step, seen at the nearest mark")


def _step_px(asked: Asked) -> float | None:
    """One step of a stepper as it is seen: at the centre by a head, at the nearest mark by a slide."""
    plan, steps = asked.plan, asked.drive.steps()
    if steps is None or not asked.wanted.per_frame:
        return None
    if asked.axis.name in ("pan", "tilt"):
        return scale(plan) / steps
    near, frame = nearest_mm(plan), kept(plan)
    if asked.axis.name != "slide" or near is None:
        return None
    return lens.slide_smear_px(1 / steps, 1.0, focal_ends(plan)[1], frame.width_px, frame.width_mm, near)


def step_figures(asked: Asked) -> Iterator[Figure]:
    """One step in the picture, and how uneven the pace is."""
    pixels, steps, plan, axis = _step_px(asked), asked.drive.steps(), asked.plan, asked.axis
    if pixels is None or steps is None:
        return
    step, rule = term("step", "one step", 1 / steps, axis.unit), STEP_PX
    terms = [term("scale", "pixels per degree", scale(plan), "px/°")]
    if axis.name == "slide":
        rule, frame = STEP_PX_SLIDE, kept(plan)
        terms = [
            term("focal", "focal length", focal_ends(plan)[1], "focal"),
            term("width", "picture, across", frame.width_px, "px"),
            term("sensor", "sensor, across", frame.width_mm, "focal"),
            term("distance", "nearest mark, away from the rail", nearest_mm(plan) or 0.0, "mm"),
        ]
    yield figure(f"drive.{axis.name}.step_px", "one step in the picture", pixels, "px", rule, step, *terms)
    per_frame = asked.wanted.per_frame * steps
    share = steppers.ripple(per_frame)
    if share:
        each = term("per_frame", "steps a frame", max(1.0, per_frame), "")
        yield figure(f"drive.{axis.name}.ripple", "unevenness at most", share, "share", steppers.RIPPLE, each)


def ripples(asked: Asked) -> Iterator[Snag]:
    """A pace that wavers so that it is seen."""
    pixels, steps = _step_px(asked), asked.drive.steps()
    if pixels is None or steps is None:
        return
    per_frame = asked.wanted.per_frame * steps
    share = steppers.ripple(per_frame)
    if share and per_frame < steppers.FEW_STEPS and pixels > VISIBLE_PX:
        yield _uneven(asked, per_frame, share, pixels)


def _uneven(asked: Asked, per_frame: float, share: float, pixels: float) -> Snag:
    drive = asked.drive
    assert isinstance(drive, Stepper)
    factor = 2 ** math.ceil(math.log2(max(steppers.FEW_STEPS / per_frame, 1.0001)))
    enough = min(drive.microsteps * min(factor, 2 ** math.ceil(math.log2(pixels / VISIBLE_PX))), 100_000)
    slots = {
        "axis": slot(asked.axis.name),
        "steps": slot(per_frame),
        "ripple": slot(share, "share"),
        "pixels": slot(pixels, "px"),
        "micro": slot(enough),
    }
    fix = Fix(
        label="{micro} microsteps",
        consequence="Set on the driver; a step becomes finer, and the top speed may fall.",
        slots=slots,
        edits=(Edit(path=f"{asked.part.path}.drive.microsteps", value=enough),),
    )
    return UNEVEN.at(f"{asked.part.path}.drive.microsteps", slots, [fix])


def coarse(asked: Asked) -> Iterator[Snag]:
    """A scale so coarse that several frames share a mark."""
    division, axis, per_frame = asked.drive.division_of_scale, asked.axis, asked.wanted.per_frame
    if division is None or not 0 < per_frame < division / 2:
        return
    every = math.ceil(division / per_frame)
    finer = 10 ** math.floor(math.log10(per_frame * 2))
    slots = {
        "axis": slot(axis.name),
        "division": slot(division, axis.unit),
        "pace": slot(per_frame, f"{axis.unit}/frame"),
        "every": slot(str(every)),
        "finer": slot(finer, axis.unit),
    }
    path = f"{asked.part.path}.drive.division"
    fix = Fix(
        label="Plan with a scale of {finer}",
        consequence="A printed strip with that division can be taped over the old one.",
        slots=slots,
        edits=(Edit(path=path, value=finer),),
    )
    yield COARSE.at(path, slots, [fix])
