"""Before the start: what to dial in where, and the cautions that belong to it."""

from dataclasses import dataclass

from bridle.core.chapters.beat import BeatAnswer
from bridle.core.chapters.path import PathAnswer, at
from bridle.core.chapters.timeline import TimelineAnswer
from bridle.core.plan.document import Plan
from bridle.core.snag import Slot, slot

FEW_DEGREES = 0.01


@dataclass(frozen=True)
class Setting:
    """One thing to dial in or to do; the figure that explains it where there is one."""

    label: str
    value: Slot
    figure: str | None = None


@dataclass(frozen=True)
class Sheet:
    """Settings that belong to one device or one moment."""

    title: str
    settings: tuple[Setting, ...]


@dataclass(frozen=True)
class ReviewAnswer:
    """The settings by device, and cautions in plain words."""

    sheets: tuple[Sheet, ...]
    cautions: tuple[str, ...]


def answer(plan: Plan, timeline: TimelineAnswer | None, path: PathAnswer, beat: BeatAnswer | None) -> ReviewAnswer:
    """What goes on the field card; the parts that need the clip are left out while it is open."""
    sheets = [_camera(plan)]
    if timeline is not None and beat is not None:
        sheets = [_times(timeline), _camera(plan), _controller(plan, timeline, beat), *_ends(plan)]
    return ReviewAnswer(tuple(sheets), _cautions(plan, path))


def _times(timeline: TimelineAnswer) -> Sheet:
    rows = (
        Setting("first frame", slot(timeline.clock(0).timestamp(), "instant")),
        Setting("last frame", slot(timeline.clock(timeline.frames - 1).timestamp(), "instant"), "time.last"),
        Setting("finished", slot(timeline.clock(timeline.frames).timestamp(), "instant"), "time.finish"),
    )
    return Sheet("Times", rows)


def _camera(plan: Plan) -> Sheet:
    camera = plan.camera
    rows = (
        Setting("mode", slot("manual, raw files")),
        Setting("shutter", slot(plan.beat.exposure_s, "shutter")),
        Setting("aperture", slot(camera.aperture, "f-number")),
        Setting("ISO", slot(camera.iso)),
        Setting("focal length", slot(camera.focal_mm, "mm")),
        Setting("focus", slot("manual, stabiliser off")),
        Setting("white balance", slot("fixed")),
        Setting("noise reduction", slot("off")),
    )
    return Sheet("Camera", rows)


def _controller(plan: Plan, timeline: TimelineAnswer, beat: BeatAnswer) -> Sheet:
    rows = (
        Setting("interval", slot(timeline.interval_s, "s"), "clip.interval"),
        Setting("frames", slot(timeline.frames, "frames"), "clip.frames"),
        Setting(
            "still time, if it asks",
            slot(max(0.0, float(beat.cycle.interval_s) - beat.cycle.move_s - beat.cycle.margin_s), "s"),
            "beat.still",
        ),
        Setting("ease in", slot(plan.move.ease_in_frames, "frames")),
        Setting("ease out", slot(plan.move.ease_out_frames, "frames")),
    )
    return Sheet("Controller", rows)


def _ends(plan: Plan) -> list[Sheet]:
    ends = (("First keyframe", plan.move.start), ("Last keyframe", plan.move.end))
    return [
        Sheet(title, tuple(Setting(axis.name, slot(at(key, axis), axis.unit)) for axis in plan.rig.axes))
        for title, key in ends
    ]


def _cautions(plan: Plan, path: PathAnswer) -> tuple[str, ...]:
    moving = any(abs(at(plan.move.end, axis) - at(plan.move.start, axis)) > FEW_DEGREES for axis in plan.rig.axes)
    said = []
    if moving:
        said.append(
            "A moving rig pinches and winds up leads, straps and sleeves. Hands off while it is armed; "
            "leave slack for the whole travel."
        )
    said.append(
        "Out of doors: know your way out and your turn-back time, by water the tide as well, and tell "
        "someone when you will be back. Legs and leads are trip hazards in the dark."
    )
    said.append(
        "Never leave the lens pointing into the sun. Where people are filmed, ask, and keep to the local "
        "rules; where they differ from this card, they count."
    )
    return tuple(said)
