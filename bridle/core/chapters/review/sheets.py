"""Before the start: what to dial in where."""

from collections import Counter
from collections.abc import Iterator, Sequence

from bridle.core.chapters.review.firing import bench_test, firing, to_pack
from bridle.core.chapters.review.glass import filters_to_pack
from bridle.core.chapters.review.hours import Told, hours
from bridle.core.chapters.review.lines import line, sheet, some
from bridle.core.chapters.review.positions import DriveTold, by_drive, positions
from bridle.core.chapters.review.printing import print_card, spares
from bridle.core.chapters.review.settings import camera_settings
from bridle.core.chapters.review.state import SettingLine, SettingSheet
from bridle.core.figure import Figure
from bridle.core.plan.document import Plan
from bridle.core.plan.kit import Phone, Support
from bridle.core.plan.light import LightSchool
from bridle.core.quantity import write, write_shutter
from bridle.core.reckon.changes import ChangeLine, change_lines
from bridle.core.reckon.clocks import own_clocks
from bridle.core.reckon.parts import Driven, axes_in, imager_of, programmed
from bridle.core.reckon.reckoning import Reckoning, Shooting
from bridle.core.reckon.timeline import Timeline
from bridle.core.reckon.timers import trigger_of
from bridle.core.snag import at_clock, slot
from bridle.core.subjects.motion.drives.belt import Belt
from bridle.core.subjects.motion.drives.clockwork import Clockwork
from bridle.core.subjects.motion.drives.hand import ByHand
from bridle.core.subjects.motion.drives.rated import Rated

# So many changes stand on the card; more on a second sheet, and a still longer list has a file of its own.
MOST_ON_CARD, MOST_CHANGES = 12, 60


def sheets(
    known: Reckoning, figures: dict[str, Figure], drives: Sequence[DriveTold], told: Sequence[Told]
) -> tuple[SettingSheet, ...]:
    """What goes on the field card; the parts that need the clip are left out while it is open.

    `figures` are those that the other chapters told, `drives` what each drive is told: axis, drive and words; `told`
    what is put into a controller that has to make do with rules of its own.
    """
    plan, shooting = known.plan, known.shooting
    if shooting is None:
        return (camera_settings(plan, None),)
    return (
        *_before(plan, figures),
        _times(shooting.timeline),
        camera_settings(plan, shooting),
        *_changes(shooting),
        _controller(shooting),
        *hours(plan, told),
        *_segments(plan),
        *firing(shooting),
        *print_card(plan, known.given),
        *_untied(plan, figures),
        *by_drive(shooting, figures, drives),
        *positions(shooting),
        *_menus(plan),
        *_cues(shooting),
        *_afterwards(plan),
        *_rig_checks(plan),
        *_pack(plan),
    )


def _before(plan: Plan, figures: dict[str, Figure]) -> list[SettingSheet]:
    """The errands backwards from the start, and the press."""
    keys = [(errand.name, f"time.errand.{number}") for number, errand in enumerate(plan.shoot.clock.errands)]
    rows = [
        line(f"charge the {copy.card.name}, from", slot(figures[key].value, figures[key].unit), key)
        for number, copy in enumerate(plan.kit.copies)
        if (key := f"time.charge.{number}") in figures
    ]
    rows += [line(f"{name}, from", slot(figures[key].value, figures[key].unit), key) for name, key in keys]
    if plan.shoot.clock.start_delay_s:
        rows.append(line("press start", slot(figures["time.press"].value, figures["time.press"].unit), "time.press"))
    return some("Before", rows)


def _segments(plan: Plan) -> list[SettingSheet]:
    """What to set when, for an interval that changes."""
    rows = [
        line(f"segment {number + 1}", slot(segment.interval_s, "s"), f"clip.segment.{number}.frames")
        for number, segment in enumerate(plan.changing.segments if plan.changing else ())
    ]
    if plan.changing and plan.changing.blend_frames:
        rows.append(line("blended over", slot(plan.changing.blend_frames, "frames")))
    return some("Intervals", rows)


OFF = (("start", "untied.first"), ("end", "untied.last"))


def _untied(plan: Plan, figures: dict[str, Figure]) -> list[SettingSheet]:
    """The order of starting where camera and motor have clocks of their own."""
    if plan.beat.uncoupled is None:
        return []
    between = plan.beat.uncoupled.between_starts_s
    movers = [f"start the {_started(part)}" for part in own_clocks(plan)] or ["start the motor"]
    rows = (
        line("first", slot("start the camera's timer")),
        *(line(f"{write(between * n, 's')} later", slot(start)) for n, start in enumerate(movers, 1)),
        line("at the end", slot("let the camera run on, then stop it")),
        *(line(f"off the plan at the {end}", slot(figures[key].value, "frames"), key) for end, key in OFF),
    )
    count = {1: "Two", 2: "Three"}.get(len(movers), str(len(movers) + 1))
    return [sheet(f"{count} clocks, {count.lower()} starts", rows, "clocks")]


def _started(part: Driven) -> str:
    """What somebody presses start on: one controller for all steppers."""
    return "controller" if part.card.drive.TOLD == "program" else part.copy.card.name


def _times(times: Timeline) -> SettingSheet:
    rows = (
        line("first frame", at_clock(times.unix_s(0), times.start, times.zone), "time.first"),
        line("last frame", at_clock(times.unix_s(times.frames - 1), times.start, times.zone), "time.last"),
        line("finished", at_clock(times.unix_s(times.frames), times.start, times.zone), "time.finish"),
    )
    return sheet("Times", rows)


def _changes(shooting: Shooting) -> list[SettingSheet]:
    """What a hand sets at which minute; of a longer list the card has the first, the rest is a list of its own."""
    school, times = shooting.plan.light.school, shooting.timeline
    if school == "ramped" and shooting.followed is None:
        return []
    # Of an exposure that the camera finds by itself, and of a locked one, the filters alone are a hand's work.
    changes = [
        change for change in change_lines(shooting) if change.moved and (school == "ramped" or "filter" in change.moved)
    ]
    rows = [
        line(f"frame {change.frame + 1}, {_clock(times, change.frame)}", slot(_moved(change, school)))
        for change in changes[:MOST_CHANGES]
    ]
    if len(changes) > MOST_CHANGES:
        rows.append(line("and on", slot(f"{len(changes) - MOST_CHANGES} more in the list of changes")))
    if len(rows) <= MOST_ON_CARD:
        return [sheet("Changes of setting", rows, "changes")] if rows else []
    first = line("the first", slot(f"{rows[0].label}: {rows[0].value.value}"))
    count = line("in all", slot(f"{len(changes)}, listed on sheet 2"))
    return [sheet("Changes of setting", [first, count], "changes"), sheet("Changes of setting", rows, "changes", 2)]


def _clock(times: Timeline, frame: int) -> str:
    """A clock time in the words of the card's own column; with its day where that is another."""
    at = at_clock(times.unix_s(frame), times.start, times.zone)
    return write(float(at.value), at.unit, times.zone)


def _moved(change: ChangeLine, school: LightSchool) -> str:
    """What is set anew by hand, and nothing else."""
    filtered = f"filter of {change.density:g} stops on" if change.density else "filter off"
    each = {
        "shutter": write_shutter(change.shutter_s),
        "iso": f"ISO {change.iso:g}",
        "aperture": f"f/{change.aperture:g}",
        "filter": filtered,
    }
    return ", ".join(each[name] for name in change.moved if school == "ramped" or name == "filter")


def _controller(shooting: Shooting) -> SettingSheet:
    plan, times, cycle = shooting.plan, shooting.timeline, shooting.cycle
    ease_in, ease_out = shooting.schedule.eases_asked
    how = line("works by", slot("continuous move" if plan.beat.continuous else "shoot, move, shoot"))
    rows = [
        *([how] if plan.rig.axes else []),
        line("interval" if times.even else "mean interval", slot(times.interval_s, "s"), "clip.interval"),
        _frames_told(plan, times.frames),
        *bench_test(shooting),
    ]
    if not _programmed(plan):
        return sheet("The shoot", rows)
    rows += [
        line("still time, if it asks", slot(cycle.still_s, "s"), "beat.still"),
        line("ease in", slot(ease_in, "frames")),
        line("ease out", slot(ease_out, "frames")),
    ]
    return sheet("Controller", rows)


def _frames_told(plan: Plan, frames: int) -> SettingLine:
    """The frames to set: fewer than are wanted, where what counts them makes some more than it is told."""
    trigger = trigger_of(plan)
    extra = trigger.extra_frames if trigger is not None else 0
    if not extra:
        return line("frames", slot(frames, "frames"), "clip.frames")
    told = f"set {max(frames - extra, 0):,}".replace(",", " ")
    return line("frames", slot(f"{told}: it makes {extra} more, {write(frames, 'frames')} in all"), "clip.frames")


def _menus(plan: Plan) -> Iterator[SettingSheet]:
    """The steps through the menu of each device that has some on its card."""
    for copy in plan.kit.copies:
        steps = (line(f"{number}.", slot(step)) for number, step in enumerate(copy.card.menu, 1))
        yield from some(f"Menu of the {copy.card.name}", steps)


def _programmed(plan: Plan) -> bool:
    """Whether a controller runs something: a stepper, or axes of which no card says how they are driven."""
    return bool(programmed(plan))


def _cues(shooting: Shooting) -> list[SettingSheet]:
    """Who, or what, has to be in its place from when on."""
    times = shooting.timeline
    cues = [sight for sight in shooting.sights if sight.cue and sight.clocks]
    rows = tuple(line(sight.name, at_clock(sight.clocks[0][0], times.start, times.zone)) for sight in cues)
    return some("In their place from", rows)


def _rig_checks(plan: Plan) -> list[SettingSheet]:
    """What to do on the rig before framing, by what it is made of."""
    cards = [copy.card for copy in plan.kit.copies]
    axes = [part.card for part in axes_in(plan.kit.copies)]
    rows = []
    pan = plan.rig.axis("pan")
    if pan is not None and pan.lean_deg:
        lean, toward = (write(value, "deg") for value in (pan.lean_deg, pan.lean_toward_deg))
        rows.append(line("pan", slot(f"leaned by {lean}, its top towards its own {toward}")))
    if axes and _programmed(plan):
        rows.append(line("each axis", slot("jog it: which is it in the finder, and which way is plus")))
    if any(isinstance(card.drive, Belt) for card in axes):
        rows.append(line("belt", slot("tight, screws locked; once more after the first runs")))
    if any(card.motion == "linear" for card in axes):
        rows.append(line("rail", slot("clean, no play, runs freely; the carriage at its start, clear of both ends")))
        rows.append(line("leads", slot("slack for the whole travel, no tight bend, tied where they pull")))
    if any(isinstance(card.drive, ByHand | Clockwork) for card in axes):
        rows.append(line("turned by hand", slot("its place is unknown then: set it to its mark again")))
    if any(card.peak_a for card in axes):
        rows.append(
            line("supply", slot("voltage and polarity measured before it is connected; drivers set to the motors"))
        )
    if sum(isinstance(card, Support) for card in cards) > 1:
        rows.append(line("two supports", slot("rocks on four points? level, tighten, level again")))
    return some("On the rig, before framing", rows)


def _afterwards(plan: Plan) -> list[SettingSheet]:
    """What the edit has to know."""
    rows = [line("footage", slot("played in reverse; what moves in it goes backwards"))] if plan.clip.backwards else []
    rows += [line(axis.name, slot("hung upside down")) for axis in plan.rig.axes if axis.hung]
    return some("Not to forget", rows)


def _for_the_way_of_working(plan: Plan) -> Iterator[str]:
    """What no card names and nobody works without."""
    drives = [part.card.drive for part in axes_in(plan.kit.copies)]
    if any(isinstance(drive, Rated) and drive.runs_while_held for drive in drives):
        yield "a clamp that holds its button down"
    camera = imager_of(plan.kit.copies)
    if isinstance(camera, Phone) and camera.faces == "front":
        yield "a mirror to frame by"


def _pack(plan: Plan) -> list[SettingSheet]:
    """Everything that the plan is made with, what fixes have put on it too."""
    names = Counter(copy.card.name for copy in plan.kit.copies)
    packed = [name if count == 1 else f"{name} ({count})" for name, count in names.items()]
    packed += [*filters_to_pack(plan), *to_pack(plan), *spares(plan), *_for_the_way_of_working(plan)]
    return some("Pack", [line("□", slot(" · ".join(packed)))] if packed else [])
