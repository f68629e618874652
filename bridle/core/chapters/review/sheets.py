"""Before the start: what to dial in where."""

from collections.abc import Sequence
from typing import Protocol

from bridle.core.chapters.review.state import SettingLine, SettingSheet
from bridle.core.figure import Figure
from bridle.core.plan.document import Plan
from bridle.core.plan.kit import AxisCard, Support
from bridle.core.quantity import listed, write_shutter
from bridle.core.reckon.path import at, shown_unit
from bridle.core.reckon.picture import focal_ends
from bridle.core.reckon.reckoning import Reckoning, Shooting
from bridle.core.reckon.timeline import Timeline
from bridle.core.snag import Slot, slot
from bridle.core.subjects.motion.drives.belt import Belt
from bridle.core.subjects.motion.drives.clockwork import Clockwork
from bridle.core.subjects.motion.drives.hand import ByHand

# A longer row of keyframes is in the table of steps; the card has its ends.
MOST_KEYS = 5


class DriveTold(Protocol):
    """What the drive of an axis is told."""

    @property
    def axis(self) -> str:
        """The axis."""

    @property
    def drive(self) -> str:
        """What kind of drive it is."""

    @property
    def words(self) -> str:
        """What to set, in words."""


def sheets(known: Reckoning, figures: dict[str, Figure], drives: Sequence[DriveTold]) -> tuple[SettingSheet, ...]:
    """What goes on the field card; the parts that need the clip are left out while it is open.

    `figures` are those that the other chapters told, `drives` what each drive is told: axis, drive and words.
    """
    plan, shooting = known.plan, known.shooting
    if shooting is None:
        return (_camera(plan),)
    return (
        *_before(plan, figures),
        _times(shooting.timeline),
        _camera(plan),
        _controller(shooting),
        *_segments(plan),
        *_untied(plan),
        *_drives(drives),
        *_ends(shooting),
        *_cues(shooting),
        *_rig_checks(plan),
    )


def _before(plan: Plan, figures: dict[str, Figure]) -> list[SettingSheet]:
    """The errands backwards from the start, and the press."""
    keys = [(errand.name, f"time.errand.{number}") for number, errand in enumerate(plan.shoot.clock.errands)]
    rows = [_line(name, slot(figures[key].value, "instant"), key) for name, key in keys]
    if plan.shoot.clock.start_delay_s:
        rows.append(_line("press start", slot(figures["time.press"].value, "instant"), "time.press"))
    return [_sheet("Before", tuple(rows))] if rows else []


def _segments(plan: Plan) -> list[SettingSheet]:
    """What to set when, for an interval that changes."""
    rows = [
        _line(f"segment {number + 1}", slot(segment.interval_s, "s"), f"clip.segment.{number}.frames")
        for number, segment in enumerate(plan.changing.segments if plan.changing else ())
    ]
    if plan.changing and plan.changing.blend_frames:
        rows.append(_line("blended over", slot(plan.changing.blend_frames, "frames")))
    return [_sheet("Intervals", tuple(rows))] if rows else []


def _untied(plan: Plan) -> list[SettingSheet]:
    """The order of starting where camera and motor have clocks of their own."""
    if plan.beat.uncoupled is None:
        return []
    rows = (
        _line("1", slot("start the camera's timer")),
        _line("2, after", slot(plan.beat.uncoupled.between_starts_s, "s"), "untied.first"),
        _line("3", slot("start the motor")),
        _line("at the end", slot("let the camera run on, then stop it"), "untied.last"),
    )
    return [_sheet("Two clocks, two starts", rows)]


def _times(times: Timeline) -> SettingSheet:
    rows = (
        _line("first frame", slot(times.unix_s(0), "instant"), "time.first"),
        _line("last frame", slot(times.unix_s(times.frames - 1), "instant"), "time.last"),
        _line("finished", slot(times.unix_s(times.frames), "instant"), "time.finish"),
    )
    return _sheet("Times", rows)


def _camera(plan: Plan) -> SettingSheet:
    camera = plan.camera
    rows = (
        _line("mode", slot("manual, raw files")),
        _line("shutter", slot(plan.beat.exposure_s, "shutter")),
        *_bracket(plan),
        _line("aperture", slot(camera.aperture, "f-number")),
        _line("ISO", slot(camera.iso)),
        _line("focal length", _focal(plan)),
        _line("focus", slot("manual, stabiliser off")),
        _line("white balance", slot("fixed")),
        _line("noise reduction", slot("on" if plan.beat.noise_reduction else "off")),
    )
    return _sheet("Camera", rows)


def _focal(plan: Plan) -> Slot:
    shortest, longest = focal_ends(plan)
    return slot(longest, "focal") if shortest == longest else slot(f"{shortest:g} to {longest:g} mm, as it zooms")


def _bracket(plan: Plan) -> list[SettingLine]:
    beat = plan.beat
    rows = []
    if beat.bracket_times_s:
        times = listed([write_shutter(float(time)) for time in beat.bracket_times_s])
        rows.append(_line("bracket", slot(times), "beat.bracket"))
    elif beat.bracket_frames > 1:
        rows.append(_line("bracket", slot(f"{beat.bracket_frames} exposures, {beat.bracket_step_stops:g} stops apart")))
    if beat.stack:
        rows.append(_line("focus from", slot(beat.stack.near_mm, "mm"), "beat.positions"))
        rows.append(_line("focus to", slot(beat.stack.far_mm, "mm"), "beat.positions"))
    return rows


def _controller(shooting: Shooting) -> SettingSheet:
    plan, times, cycle = shooting.plan, shooting.timeline, shooting.cycle
    still = max(0.0, float(cycle.interval_s) - sum(cycle.travels_s) - cycle.margin_s)
    ease_in, ease_out = shooting.schedule.eases_asked
    rows = (
        _line("works by", slot("continuous move" if plan.beat.continuous else "shoot, move, shoot")),
        _line("interval" if times.even else "mean interval", slot(times.interval_s, "s"), "clip.interval"),
        _line("frames", slot(times.frames, "frames"), "clip.frames"),
        _line("still time, if it asks", slot(still, "s"), "beat.still"),
        _line("ease in", slot(ease_in, "frames")),
        _line("ease out", slot(ease_out, "frames")),
    )
    return _sheet("Controller", rows)


def _ends(shooting: Shooting) -> list[SettingSheet]:
    """Where the axes stand at each keyframe; of a long row of them, which is in the table of steps, at its ends."""
    plan = shooting.plan
    keys = [(_title(shooting, number), key) for number, key in enumerate(plan.move.keyframes)]
    if len(keys) > MOST_KEYS:
        keys = [keys[0], keys[-1]]
    return [
        _sheet(
            title,
            tuple(_line(axis.name, slot(at(plan, key, axis.name), shown_unit(axis))) for axis in plan.rig.axes),
        )
        for title, key in keys
    ]


def _title(shooting: Shooting, number: int) -> str:
    last = len(shooting.plan.move.keyframes) - 1
    name = {0: "First keyframe", last: "Last keyframe"}.get(number, f"Keyframe {number + 1}")
    return f"{name}, frame {shooting.schedule.frame(number) + 1}"


def _cues(shooting: Shooting) -> list[SettingSheet]:
    """Who, or what, has to be in its place from when on."""
    cues = [sight for sight in shooting.sights if sight.cue and sight.clocks]
    rows = tuple(_line(sight.name, slot(sight.clocks[0][0], "instant")) for sight in cues)
    return [_sheet("In their place from", rows)] if rows else []


def _rig_checks(plan: Plan) -> list[SettingSheet]:
    """What to do on the rig before framing, by what it is made of."""
    cards = [copy.card for copy in plan.kit.copies]
    axes = [card for card in cards if isinstance(card, AxisCard)]
    rows = []
    if axes:
        rows.append(_line("each axis", slot("jog it: which is it in the finder, and which way is plus")))
    if any(isinstance(card.drive, Belt) for card in axes):
        rows.append(_line("belt", slot("tight, screws locked; once more after the first runs")))
    if any(card.motion == "linear" for card in axes):
        rows.append(_line("rail", slot("clean, no play, runs freely; the carriage at its start, clear of both ends")))
        rows.append(_line("leads", slot("slack for the whole travel, no tight bend, tied where they pull")))
    if any(isinstance(card.drive, ByHand | Clockwork) for card in axes):
        rows.append(_line("turned by hand", slot("its place is unknown then: set it to its mark again")))
    if any(card.peak_a for card in axes):
        rows.append(
            _line("supply", slot("voltage and polarity measured before it is connected; drivers set to the motors"))
        )
    if sum(isinstance(card, Support) for card in cards) > 1:
        rows.append(_line("two supports", slot("rocks on four points? level, tighten, level again")))
    return [_sheet("On the rig, before framing", tuple(rows))] if rows else []


def _drives(drives: Sequence[DriveTold]) -> list[SettingSheet]:
    """What a person sets on a drive; a stepper is told by its controller."""
    rows = tuple(_line(drive.axis, slot(drive.words)) for drive in drives if not drive.drive.startswith("stepper"))
    return [_sheet("Drives", rows)] if rows else []


def _line(label: str, value: Slot, figure: str | None = None) -> SettingLine:
    return SettingLine(label=label, value=value, figure=figure)


def _sheet(title: str, settings: tuple[SettingLine, ...]) -> SettingSheet:
    return SettingSheet(title=title, settings=settings)
