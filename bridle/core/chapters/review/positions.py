"""Where the rig stands and looks, as it is driven: keyframes, stations, rows, pairs, turns, focus distances."""

from collections.abc import Iterator, Sequence
from typing import Protocol

import numpy as np

from bridle.core.chapters.review.lines import line, sheet, some
from bridle.core.chapters.review.state import SettingLine, SettingSheet
from bridle.core.figure import Figure
from bridle.core.plan.rounds import PanoramaRow, Stations
from bridle.core.quantity import spoken, write
from bridle.core.reckon.asked import asked_of
from bridle.core.reckon.exposed import focus_distances_mm, stack_positions
from bridle.core.reckon.framings import offsets
from bridle.core.reckon.path import ring_turns, shown_unit, visited
from bridle.core.reckon.picture import longest_lens
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.ways import plus_ways, sweep_of
from bridle.core.snag import at_clock, slot

# How long before a drive has to be stopped somebody is called.
ALARM_S = 120
# A carriage that is nearer than this to an end of its travel stands there.
AT_THE_END_MM = 0.5
# A longer row of keyframes, stations or pictures is in the table of steps; the card has its ends.
MOST_KEYS, MOST_STATIONS, MOST_SIDE_BY_SIDE, MOST_FOCUSED = 5, 8, 12, 12


class DriveTold(Protocol):
    """What the drive of an axis is told."""

    @property
    def axis(self) -> str:
        """The axis."""

    @property
    def drive(self) -> str:
        """What kind of drive it is."""

    @property
    def told(self) -> str:
        """Who tells it."""

    @property
    def words(self) -> str:
        """What to set, in words."""

    @property
    def stands(self) -> bool:
        """Whether it has nothing to do."""


def positions(shooting: Shooting) -> list[SettingSheet]:
    """All places at which somebody looks whether the rig stands right."""
    if isinstance(shooting.plan.move.visits, Stations):
        return [*_stations(shooting), *_focus(shooting)]
    return [*_ways(shooting), *_keyframes(shooting), *_beside(shooting), *_turns(shooting), *_focus(shooting)]


def _ways(shooting: Shooting) -> Iterator[SettingSheet]:
    """Which way the plus of each axis is, and how far it goes as a whole where no section of its own says that."""
    told = {one.axis.name for one in asked_of(shooting) if one.drive.TOLD != "program"}
    plus = plus_ways(shooting.plan)
    rows, seconds = [], 0.0
    for axis in shooting.plan.rig.axes:
        sweep = sweep_of(shooting, axis) if axis.name not in told else None
        if axis.name not in plus or (sweep is None and axis.name in told):
            continue
        rows.append(line(f"{axis.name}, plus is", slot(plus[axis.name]), None, plus[axis.name]))
        if sweep is not None:
            far = write(spoken(sweep.far, sweep.unit), sweep.unit)
            rows.append(line(f"{axis.name} goes", slot(f"{far} {sweep.way}")))
            seconds = sweep.seconds
    if seconds:
        rows.append(line("in", slot(write(spoken(seconds, "s"), "s"))))
    yield from some("Which way", rows)


def _keyframes(shooting: Shooting) -> Iterator[SettingSheet]:
    """Where every axis really stands at the frame of each keyframe: what is followed is not where it was typed."""
    count = len(shooting.plan.move.keyframes)
    numbers = [0, count - 1] if count > MOST_KEYS else range(count)
    for number in numbers:
        name = {0: "First keyframe", count - 1: "Last keyframe"}.get(number, f"Keyframe {number + 1}")
        frame = shooting.schedule.frame(number)
        yield from some(f"{name}, frame {frame + 1}", _standing(shooting, frame))


def _standing(shooting: Shooting, frame: int) -> Iterator[SettingLine]:
    by_themselves = _run_on(shooting)
    for axis in shooting.plan.rig.axes:
        # A ring that goes through a stack has a section of its own, too.
        if axis.name == "focus" and shooting.stack_mm:
            continue
        # A drive with a pace of its own has a section with where it really ends.
        if axis.name in by_themselves:
            continue
        value = round(float(shooting.positions[axis.name][frame]), 3)
        ends = axis.kind == "linear" and min(abs(value - axis.low), abs(value - axis.high)) <= AT_THE_END_MM
        said = f"{write(value, shown_unit(axis))}, its very end"
        yield line(axis.name, slot(said) if ends else slot(value, shown_unit(axis)))


def _stations(shooting: Shooting) -> Iterator[SettingSheet]:
    plan, visits = shooting.plan, shooting.plan.move.visits
    assert isinstance(visits, Stations)
    places = visited(plan, shooting.positions)
    for number, station in enumerate(visits.stations[:MOST_STATIONS]):
        rows = (
            line(axis.name, slot(round(float(places[axis.name][number]), 3), shown_unit(axis)))
            for axis in plan.rig.axes
            if axis.name != "focus" or not shooting.stack_mm
        )
        yield from some(f"Station {number + 1}: {station.name}", rows)


def _beside(shooting: Shooting) -> Iterator[SettingSheet]:
    """The pictures of a row or a pair, at the first frame and, where the move goes on, at the last."""
    plan = shooting.plan
    for name, aside in offsets(plan).items():
        axis, places = plan.rig.axis(name), shooting.positions.get(name)
        if axis is None or places is None or len(aside) > MOST_SIDE_BY_SIDE:
            continue
        title = "Row" if isinstance(plan.move.visits, PanoramaRow) else "Pair"
        frames = [0] if places[0] == places[-1] else [0, shooting.frames - 1]
        for frame in frames:
            rows = (
                line(f"picture {n}, {name}", slot(round(float(places[frame]) + off, 3), axis.unit))
                for n, off in enumerate(aside, 1)
            )
            yield sheet(f"{title} at frame {frame + 1}", rows)


def _turns(shooting: Shooting) -> list[SettingSheet]:
    """The frames at which a move there and back turns round."""
    legs, times = shooting.schedule.legs, shooting.timeline
    if len(legs) == 1:
        return []
    rows = (
        line(f"turn {number}, frame {leg.last + 1}", at_clock(times.unix_s(leg.last), times.start, times.zone))
        for number, leg in enumerate(legs[:-1][:MOST_KEYS], 1)
    )
    return some(f"There and back, {len(legs)} ways", rows)


def _focus(shooting: Shooting) -> list[SettingSheet]:
    """The distances of a focus stack, and the turn of the ring where a motor turns it."""
    plan = shooting.plan
    camera, axis = longest_lens(plan), plan.rig.axis("focus")
    count = stack_positions(plan.beat, camera)
    shown = range(1, count + 1) if count <= MOST_FOCUSED else (1, 2, count)
    distances = focus_distances_mm(plan.beat, camera, [number - 1 for number in shown])
    rows = []
    # Without a stack there are no distances, and so no rows.
    for number, distance in zip(shown, distances, strict=False):
        rows.append(line(f"position {number} of {count}", slot(round(distance, 1), "mm"), "beat.positions"))
        if axis is not None and axis.ring:
            turn = float(ring_turns(axis, np.array([distance]))[0])
            rows.append(line(f"ring at position {number}", slot(round(turn, 2), "deg")))
    return some("Focus stack, near to far", rows)


def by_drive(shooting: Shooting, figures: dict[str, Figure], drives: Sequence[DriveTold]) -> Iterator[SettingSheet]:
    """What a person sets on each drive that no program tells: where it sets off, what to set, where it ends."""
    for told in drives:
        if told.told == "program":
            continue
        name, ends = told.axis, figures.get(f"drive.{told.axis}.ends")
        axis = next(axis for axis in shooting.plan.rig.axes if axis.name == name)
        places, span = shooting.positions[axis.name], shooting.schedule.span
        if told.stands:
            rest = "set it once, then leave it" if told.told == "hand" else "not started"
            stood = line("stands at", slot(float(places[span.first]), shown_unit(axis)))
            yield sheet(f"The {name}: {told.drive}", [line("set it", slot(rest)), stood], name)
            continue
        rows = [
            line("set it", slot(told.words)),
            line("sets off at", slot(float(places[span.first]), shown_unit(axis))),
            *_goes(shooting, name),
        ]
        if ends is not None:
            rows.append(line("really ends at", slot(ends.value, ends.unit), ends.key))
        if name in _run_on(shooting):
            rows += _stopped(shooting)
        yield sheet(f"The {name}: {told.drive}", rows, name)


def _goes(shooting: Shooting, name: str) -> Iterator[SettingLine]:
    """The whole way as one figure with its direction; nothing where it turns round on the way."""
    for asked in asked_of(shooting):
        wanted = asked.wanted
        if wanted.axis == name and wanted.sweep and len(shooting.schedule.legs) == 1 and not wanted.between:
            far, time = write(abs(wanted.sweep), wanted.unit), write(wanted.seconds, "s")
            yield line("goes", slot(f"{far} {wanted.way} in {time}"))


def _run_on(shooting: Shooting) -> set[str]:
    """The axes that go on until somebody stops them."""
    return {one.axis.name for one in asked_of(shooting) if one.drive.runs_on and not one.wanted.stands}


def _stopped(shooting: Shooting) -> Iterator[SettingLine]:
    """When somebody has to be there to stop a drive, and when to be called."""
    times, last = shooting.timeline, shooting.schedule.span.last
    end = times.unix_s(last)
    if end - ALARM_S > times.unix_s(0):
        yield line("alarm at", at_clock(end - ALARM_S, times.start, times.zone))
    yield line("stop it at", at_clock(end, times.start, times.zone))
