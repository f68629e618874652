"""Where the axes stand at every frame, and whether they can."""

from dataclasses import dataclass, field
from typing import Literal, NamedTuple

import numpy as np

from bridle.core.chapters.clip import ClipAnswer
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.camera import Camera
from bridle.core.plan.clip import Clip
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.move import Keyframe, Move
from bridle.core.plan.rig import Axis
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects import easing, optics
from bridle.core.subjects.clip import Solution
from bridle.core.subjects.easing import Floats

TRAVEL = SnagKind(
    "out-of-travel",
    "stop",
    "move",
    "At its {end} the {axis} would stand at {position}; it reaches from {low} to {high}.",
    "A drive without an end stop runs into its end, loses its position and with it every frame that follows.",
)
EASE = SnagKind(
    "ease-scaled",
    "note",
    "move",
    "Easing {asked_in} in and {asked_out} out is longer than the move of {steps}.",
    "Both were shortened alike, to {used_in} and {used_out}; the move never runs at an even pace.",
)
KINDS = (TRAVEL, EASE)

DISTANCE = Formula("abs(end - start)", "from keyframe to keyframe")
AIM = Formula("degrees(atan2(along - slide, away))", "the angle from square to the rail, clockwise positive")
CLIP_SECONDS = Formula("ease / rate", "frames over playback rate")


class Span(NamedTuple):
    """The first and the last frame of the move (0-based)."""

    first: int
    last: int

    @property
    def steps(self) -> int:
        """Steps from frame to frame."""
        return self.last - self.first


@dataclass(frozen=True)
class PathAnswer:
    """Positions per axis, one value a frame; none while the clip is open."""

    positions: dict[str, Floats]
    figures: list[Figure] = field(default_factory=list)
    snags: list[Snag] = field(default_factory=list)


def answer(plan: Plan, clip: ClipAnswer) -> PathAnswer:
    """The path of every axis. While the clip is open: no positions, but limits and fields of view."""
    move, rig, solution = plan.move, plan.rig, clip.solution
    snags = [snag for axis in rig.axes for snag in _travel(move, axis)]
    figures = _views(plan.camera) + _aims(move)
    if solution is None:
        return PathAnswer({}, figures, snags)
    span = move_span(plan.clip, solution.frames)
    ease = easing.fit_ease(move.ease_in_frames, move.ease_out_frames, span.steps)
    for axis in rig.axes:
        figures += _axis_figures(move, axis, span.steps, ease)
    figures += _ease_figures(move, span.steps, ease, clip)
    return PathAnswer(positions(plan, solution), figures, snags + _shortened(move, span.steps, ease))


def move_span(clip: Clip, frames: int) -> Span:
    """The frames between the handles; handles that leave nothing to move in are passed over."""
    first, last = clip.handle_in_frames, frames - 1 - clip.handle_out_frames
    return Span(first, last) if first < last else Span(0, frames - 1)


def positions(plan: Plan, solution: Solution) -> dict[str, Floats]:
    """Where each axis stands at each frame, shape (frames,): still in the handles, eased between them."""
    span = move_span(plan.clip, solution.frames)
    ease = easing.fit_ease(plan.move.ease_in_frames, plan.move.ease_out_frames, span.steps)
    share = np.pad(easing.progress(span.steps, ease), (span.first, solution.frames - 1 - span.last), mode="edge")
    return {
        axis.name: easing.between(at(plan.move.start, axis), at(plan.move.end, axis), share) for axis in plan.rig.axes
    }


def at(keyframe: Keyframe, axis: Axis) -> float:
    """Where an axis stands at a keyframe, in its unit."""
    return float(getattr(keyframe, field_of(axis)))


def field_of(axis: Axis) -> str:
    """The keyframe's field for an axis."""
    return f"{axis.name}_{axis.unit}"


def _travel(move: Move, axis: Axis) -> list[Snag]:
    found = []
    for end, keyframe in zip(("start", "end"), move.keyframes, strict=True):
        position = at(keyframe, axis)
        inside = min(max(position, axis.low), axis.high)
        if inside != position:
            found.append(_out_of_travel(axis, end, position, inside))
    return found


def _out_of_travel(axis: Axis, end: str, position: float, inside: float) -> Snag:
    path = f"move.{end}.{field_of(axis)}"
    slots = {
        "end": slot(end),
        "axis": slot(axis.name),
        "position": slot(position, axis.unit),
        "low": slot(axis.low, axis.unit),
        "high": slot(axis.high, axis.unit),
    }
    fix = Fix(
        label="Stop at {inside}",
        consequence="The {axis} ends its travel {short} earlier; the framing there changes.",
        slots={
            "inside": slot(inside, axis.unit),
            "axis": slot(axis.name),
            "short": slot(abs(position - inside), axis.unit),
        },
        edits=(Edit(path=path, value=inside),),
    )
    return TRAVEL.at(path, slots, [fix])


def _shortened(move: Move, steps: int, ease: easing.Ease) -> list[Snag]:
    if not ease.scaled:
        return []
    fit_in, fit_out = int(ease.frames_in), int(ease.frames_out)
    slots = {
        "asked_in": slot(move.ease_in_frames, "frames"),
        "asked_out": slot(move.ease_out_frames, "frames"),
        "steps": slot(steps, "frames"),
        "used_in": slot(ease.frames_in, "frames"),
        "used_out": slot(ease.frames_out, "frames"),
    }
    edits = (Edit(path="move.ease_in_frames", value=fit_in), Edit(path="move.ease_out_frames", value=fit_out))
    fix = Fix(
        label="Ease {fit_in} in and {fit_out} out",
        consequence="The move stays as drawn now.",
        slots={"fit_in": slot(fit_in, "frames"), "fit_out": slot(fit_out, "frames")},
        edits=edits,
    )
    return [EASE.at("move.ease_in_frames", slots, [fix])]


def _axis_figures(move: Move, axis: Axis, steps: int, ease: easing.Ease) -> list[Figure]:
    start, end = at(move.start, axis), at(move.end, axis)
    distance = abs(end - start)
    ends = (term("start", "start", start, axis.unit), term("end", "end", end, axis.unit))
    pace = (
        term("distance", "distance", distance, axis.unit),
        term("steps", "steps between frames", steps, ""),
        term("ease_in", "ease in", ease.frames_in, "frames"),
        term("ease_out", "ease out", ease.frames_out, "frames"),
    )
    cruise = easing.cruise(distance, steps, ease)
    return [
        figure(f"move.{axis.name}.distance", f"{axis.name} travels", distance, axis.unit, DISTANCE, *ends),
        figure(
            f"move.{axis.name}.cruise",
            f"{axis.name} at cruise",
            cruise,
            f"{axis.unit}/frame",
            easing.CRUISE if steps else easing.STANDING,
            *pace,
        ),
    ]


def _ease_figures(move: Move, steps: int, ease: easing.Ease, clip: ClipAnswer) -> list[Figure]:
    assert clip.solution is not None
    rate = term("rate", "playback rate", clip.solution.rate, "rate")
    ends: tuple[tuple[Literal["in", "out"], float], ...] = (("in", ease.frames_in), ("out", ease.frames_out))
    return [
        figure(
            f"move.ease_{end}",
            f"ease {end}, in the clip",
            used / float(clip.solution.rate),
            "s",
            CLIP_SECONDS,
            term("ease", f"ease {end}, as used", used, "frames"),
            rate,
        )
        for end, used in ends
    ]


def _aims(move: Move) -> list[Figure]:
    """The pan that points at each mark, from both ends of the move."""
    return [
        figure(
            f"move.aim.{number}.{end}",
            f"pan at the {end} that points at the {mark.name}",
            optics.aim_deg(keyframe.slide_mm, mark.x_mm, mark.y_mm),
            "deg",
            AIM,
            term("along", "mark, along the rail", mark.x_mm, "mm"),
            term("slide", f"slide at the {end}", keyframe.slide_mm, "mm"),
            term("away", "mark, away from the rail", mark.y_mm, "mm"),
        )
        for number, mark in enumerate(move.marks)
        for end, keyframe in zip(("start", "end"), move.keyframes, strict=True)
    ]


def _views(camera: Camera) -> list[Figure]:
    focal = term("focal", "focal length", camera.focal_mm, "focal")
    sides = (("across", camera.sensor_width_mm), ("upright", camera.sensor_height_mm))
    return [
        figure(
            f"view.{side}",
            f"field of view, {side}",
            optics.field_of_view_deg(sensor, camera.focal_mm),
            "deg",
            optics.FIELD_OF_VIEW,
            term("sensor", f"sensor, {side}", sensor, "focal"),
            focal,
        )
        for side, sensor in sides
    ]
