"""Before the start: what to dial in where, and the cautions that belong to it."""

from collections.abc import Iterator
from dataclasses import dataclass

from bridle.core.chapters.beat import BeatAnswer
from bridle.core.chapters.drives import DrivesAnswer
from bridle.core.chapters.framings import framings
from bridle.core.chapters.path import FIELDS, PathAnswer, at, shown_unit
from bridle.core.chapters.timeline import TimelineAnswer
from bridle.core.chapters.view import ViewAnswer
from bridle.core.plan.document import Plan
from bridle.core.plan.drive import Belt, ByHand, Clockwork
from bridle.core.plan.kit import AxisCard, Battery, Mount, Support
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

    sheets: tuple[Sheet, ...] = ()
    cautions: tuple[str, ...] = ()


def answer(
    plan: Plan,
    timeline: TimelineAnswer | None,
    path: PathAnswer,
    view: ViewAnswer,
    beat: BeatAnswer | None,
    drives: DrivesAnswer,
) -> ReviewAnswer:
    """What goes on the field card; the parts that need the clip are left out while it is open."""
    sheets = [_camera(plan)]
    if timeline is not None and beat is not None:
        controller = [_controller(plan, timeline, path, beat), *_segments(plan), *_untied(plan)]
        sheets = [
            *_before(plan, timeline),
            _times(timeline),
            _camera(plan),
            *controller,
            *_drives(drives),
            *_ends(plan, path),
            *_cues(view),
        ]
        sheets += _rig_checks(plan)
    return ReviewAnswer(tuple(sheets), _cautions(plan, path))


def _before(plan: Plan, timeline: TimelineAnswer) -> list[Sheet]:
    """The errands backwards from the start, and the press."""
    told = {one.key: one.value for one in timeline.figures}
    keys = [(errand.name, f"time.errand.{number}") for number, errand in enumerate(plan.shoot.clock.errands)]
    rows = [Setting(name, slot(told[key], "instant"), key) for name, key in keys]
    if plan.shoot.clock.start_delay_s:
        rows.append(Setting("press start", slot(told["time.press"], "instant"), "time.press"))
    return [Sheet("Before", tuple(rows))] if rows else []


def _segments(plan: Plan) -> list[Sheet]:
    """What to set when, for an interval that changes."""
    rows = [
        Setting(f"segment {number + 1}", slot(one.interval_s, "s"), f"clip.segment.{number}.frames")
        for number, one in enumerate(plan.clip.ramp.segments)
    ]
    if rows and plan.clip.ramp.blend_frames:
        rows.append(Setting("blended over", slot(plan.clip.ramp.blend_frames, "frames")))
    return [Sheet("Intervals", tuple(rows))] if rows else []


def _untied(plan: Plan) -> list[Sheet]:
    """The order of starting where camera and motor have clocks of their own."""
    if plan.beat.uncoupled is None:
        return []
    rows = (
        Setting("1", slot("start the camera's timer")),
        Setting("2, after", slot(plan.beat.uncoupled.between_starts_s, "s"), "untied.first"),
        Setting("3", slot("start the motor")),
        Setting("at the end", slot("let the camera run on, then stop it"), "untied.last"),
    )
    return [Sheet("Two clocks, two starts", rows)]


def _times(timeline: TimelineAnswer) -> Sheet:
    rows = (
        Setting("first frame", slot(timeline.clock(0).timestamp(), "instant"), "time.first"),
        Setting("last frame", slot(timeline.clock(timeline.frames - 1).timestamp(), "instant"), "time.last"),
        Setting("finished", slot(timeline.clock(timeline.frames).timestamp(), "instant"), "time.finish"),
    )
    return Sheet("Times", rows)


def _camera(plan: Plan) -> Sheet:
    camera = plan.camera
    rows = (
        Setting("mode", slot("manual, raw files")),
        Setting("shutter", slot(plan.beat.exposure_s, "shutter")),
        *_bracket(plan),
        Setting("aperture", slot(camera.aperture, "f-number")),
        Setting("ISO", slot(camera.iso)),
        Setting("focal length", slot(camera.focal_mm, "focal")),
        Setting("focus", slot("manual, stabiliser off")),
        Setting("white balance", slot("fixed")),
        Setting("noise reduction", slot("on" if plan.beat.noise_reduction else "off")),
    )
    return Sheet("Camera", rows)


def _bracket(plan: Plan) -> list[Setting]:
    beat = plan.beat
    rows = []
    if beat.bracket_frames > 1:
        rows.append(
            Setting("bracket", slot(f"{beat.bracket_frames} exposures, {beat.bracket_step_stops:g} stops apart"))
        )
    if beat.stack:
        rows.append(Setting("focus from", slot(beat.stack.near_mm, "mm"), "beat.positions"))
        rows.append(Setting("focus to", slot(beat.stack.far_mm, "mm"), "beat.positions"))
    return rows


def _controller(plan: Plan, timeline: TimelineAnswer, path: PathAnswer, beat: BeatAnswer) -> Sheet:
    rows = (
        Setting("works by", slot("continuous move" if plan.beat.continuous else "shoot, move, shoot")),
        Setting("mean interval" if timeline.pace else "interval", slot(timeline.interval_s, "s"), "clip.interval"),
        Setting("frames", slot(timeline.frames, "frames"), "clip.frames"),
        Setting(
            "still time, if it asks",
            slot(max(0.0, float(beat.cycle.interval_s) - sum(beat.cycle.travels_s) - beat.cycle.margin_s), "s"),
            "beat.still",
        ),
        Setting("ease in", slot(path.schedule.eases_asked[0] if path.schedule else 0, "frames")),
        Setting("ease out", slot(path.schedule.eases_asked[1] if path.schedule else 0, "frames")),
    )
    return Sheet("Controller", rows)


def _ends(plan: Plan, path: PathAnswer) -> list[Sheet]:
    """Where the axes stand at each keyframe; of a long row of them, which is in the table of steps, at its ends."""
    keys = [(_title(plan, path, number), key) for number, key in enumerate(plan.move.keyframes)]
    if len(keys) > MOST_KEYS:
        keys = [keys[0], keys[-1]]
    return [
        Sheet(
            title,
            tuple(Setting(axis.name, slot(at(plan, key, axis.name), shown_unit(axis))) for axis in plan.rig.axes),
        )
        for title, key in keys
    ]


MOST_KEYS = 5


def _title(plan: Plan, path: PathAnswer, number: int) -> str:
    name = {0: "First keyframe", len(plan.move.keyframes) - 1: "Last keyframe"}.get(number, f"Keyframe {number + 1}")
    return f"{name}, frame {path.schedule.frame(number) + 1}" if path.schedule else name


def _cues(view: ViewAnswer) -> list[Sheet]:
    """Who, or what, has to be in its place from when on."""
    rows = tuple(Setting(one.name, slot(one.clocks[0][0], "instant")) for one in view.sights if one.cue and one.clocks)
    return [Sheet("In their place from", rows)] if rows else []


HIGH_MM = 2500
STEEP_DEG = 5


def _mounted(plan: Plan) -> Iterator[str]:
    """What can fall, let go, burn or come loose, by what the rig is made of."""
    cards = [copy.card for copy in plan.kit.copies]
    tallest = max((card.height_mm for card in cards if isinstance(card, Support)), default=0.0)
    if tallest > HIGH_MM:
        yield (
            "Height: a camera over people's heads needs a second tether to something that holds, tools on lanyards, "
            "the owner's permission, and two people. Not in wind. Ladders and masts are for those trained on them."
        )
    elif tallest:
        yield "What stands on a tripod falls with it: hang a weight under it, tether the camera near an edge or water."
    if abs(plan.rig.standing.slope_deg) >= STEEP_DEG:
        yield (
            "A steep rail lets go when the power does. Fit a brake or a counterweight, try it with the battery out "
            "before the camera is on, and keep hands and heads out of its way."
        )
    if any(isinstance(card, Mount) and card.glue for card in cards):
        yield "A glued joint carries nothing until it has cured; mind eyes, skin and fumes while it does."
    if any(isinstance(card, AxisCard) and isinstance(card.drive, Clockwork) for card in cards):
        yield "A wound spring lets go all at once: never open the turntable, and wind it with the load off."
    if any(isinstance(card, Battery) for card in cards):
        yield (
            "Batteries in a closed box: a vent, a fuse at the terminal, nothing that can short them. Have the wiring "
            "seen by somebody who knows; mains is theirs alone."
        )


def _rig_checks(plan: Plan) -> list[Sheet]:
    """What to do on the rig before framing, by what it is made of."""
    cards = [copy.card for copy in plan.kit.copies]
    axes = [card for card in cards if isinstance(card, AxisCard)]
    rows = []
    if axes:
        rows.append(Setting("each axis", slot("jog it: which is it in the finder, and which way is plus")))
    if any(isinstance(card.drive, Belt) for card in axes):
        rows.append(Setting("belt", slot("tight, screws locked; once more after the first runs")))
    if any(card.motion == "linear" for card in axes):
        rows.append(Setting("rail", slot("clean, no play, runs freely; the carriage at its start, clear of both ends")))
        rows.append(Setting("leads", slot("slack for the whole travel, no tight bend, tied where they pull")))
    if any(isinstance(card.drive, ByHand | Clockwork) for card in axes):
        rows.append(Setting("turned by hand", slot("its place is unknown then: set it to its mark again")))
    if any(card.peak_a for card in axes):
        rows.append(
            Setting("supply", slot("voltage and polarity measured before it is connected; drivers set to the motors"))
        )
    if sum(isinstance(card, Support) for card in cards) > 1:
        rows.append(Setting("two supports", slot("rocks on four points? level, tighten, level again")))
    return [Sheet("On the rig, before framing", tuple(rows))] if rows else []


def _drives(drives: DrivesAnswer) -> list[Sheet]:
    """What a person sets on a drive; a stepper is told by its controller."""
    rows = tuple(Setting(one.axis, slot(one.words)) for one in drives.drives if not one.drive.startswith("stepper"))
    return [Sheet("Drives", rows)] if rows else []


def _cautions(plan: Plan, path: PathAnswer) -> tuple[str, ...]:
    stands = [
        (axis.name, at(plan, one.stands, axis.name))
        for axis in plan.rig.axes
        for one in framings(plan)
        if hasattr(one.stands, FIELDS[axis.name])
    ]
    moving = any(abs(value - dict(stands)[name]) > FEW_DEGREES for name, value in stands)
    said = list(_mounted(plan))
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
