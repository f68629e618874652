"""The drive's program: G-code that a motion controller runs by itself, firing the camera at every picture.

Moves carry inverse-time feeds (`G93`: how many of a move go into a minute), because only these mean the same on
every controller where millimetres and degrees move together.
"""

import math
from collections.abc import Callable, Iterator
from typing import TypeAlias

import numpy as np

from bridle.core.plan.document import Plan
from bridle.core.plan.rig import Axis
from bridle.core.reckon.changes import change_lines
from bridle.core.reckon.cycles import Cycle
from bridle.core.reckon.firing import fired_s
from bridle.core.reckon.framings import visits_a_cycle
from bridle.core.reckon.orders import Orders, unmarked
from bridle.core.reckon.parts import programmed
from bridle.core.reckon.reckoning import Shooting, reckon
from bridle.core.reckon.travel import RUN_UP, approach
from bridle.core.subjects.time.cycle import step_time
from bridle.formats.change_list import said
from bridle.formats.nothing import NothingToWriteError

Notes: TypeAlias = Callable[[Orders, int], Iterator[str]]
# Feeds are rounded so that no axis goes faster than it may.
SHORTEST_S, FINEST_S = 0.01, 0.001
# What a watch shows, and the error of a clock that is to show by then.
SEEN_S, WRONG = 2.0, 0.001


def program(plan: Plan) -> Iterator[str]:
    """The program line by line. Raises `NothingToWriteError` at once."""
    shooting = reckon(plan).shooting
    if shooting is None:
        raise NothingToWriteError("the clip leaves something open, so there is nothing to tell the drives")
    if not plan.rig.axes:
        raise NothingToWriteError("the rig has no axes, so there is no program for a controller")
    if not programmed(plan):
        raise NothingToWriteError("nothing on this rig is told by a program: the field card says what to set instead")
    if unknown := next((axis.name for axis in programmed(plan) if axis.top_speed is None), None):
        raise NothingToWriteError(f"nobody has said how fast the {unknown} may go, so no move of it can be timed")
    if plan.beat.continuous and visits_a_cycle(plan) > 1:
        raise NothingToWriteError("several places in each cycle need stops, and this move never stops")
    say = shooting.orders
    if ring := unmarked(plan, say):
        raise NothingToWriteError(f"the {ring} ring has no marks, so nobody knows how far its motor has to turn")
    notes = _settings(shooting)
    body = _running(plan, say, notes) if plan.beat.continuous else _stepping(plan, shooting.cycle, say, notes)
    return (f"{line}\n" for line in [*_head(plan, say), *body, *_foot()])


def _head(plan: Plan, say: Orders) -> Iterator[str]:
    yield f"; {_plain(plan.shoot.name)}"
    kind = "continuous: it runs through, firing on the way" if plan.beat.continuous else "shoot, move, shoot"
    yield f"; {len(say)} pictures in {say.end_s:.0f} s, {kind}"
    if plan.clip.backwards:
        yield "; the footage is played in reverse: the clip begins with the last frame"
    for axis in programmed(plan):
        unit = "mm" if axis.unit == "mm" else "degrees"
        low, high = say.motor[axis.name].min(), say.motor[axis.name].max()
        hung = ", hung upside down" if axis.hung else ""
        lean = f", leaned {axis.lean_deg:g} degrees towards {axis.lean_toward_deg:g}" if axis.lean_deg else ""
        yield f"; {axis.called}: {axis.name}, {unit}, from {low:.4f} to {high:.4f}{hung}{lean}"
        yield f";    set the controller to {_counted_on(axis)}"
    yield "; Before it starts: every axis at its reference, nothing in the way, hands off. Watch the first ten frames."
    yield from _clock_check(say)
    yield "G21 ; millimetres"
    yield "G90 ; absolute positions"
    yield "G93 ; every move says how many of it go into a minute"
    yield _off(plan)
    yield from _approach(plan, say)


def _counted_on(axis: Axis) -> str:
    """What the controller has to be set to for the waits of the program to come out."""
    unit = "mm" if axis.unit == "mm" else "degrees"
    speed = f"top speed {axis.fastest:g} {unit}/s"
    return speed if axis.acceleration is None else f"{speed}, acceleration {axis.acceleration:g} {unit}/s^2"


def _clock_check(say: Orders) -> Iterator[str]:
    """The frame by which a clock that is wrong by a thousandth, or a wrong acceleration, shows on a watch."""
    picture = min(int(np.searchsorted(say.due_s, SEEN_S / WRONG)), len(say) - 1)
    after, off = float(say.due_s[picture]), max(1.0, round(float(say.due_s[picture]) * WRONG))
    minutes, seconds = divmod(round(after), 60)
    yield f"; Clock check: frame {say.frame[picture] + 1} is due {minutes} min {seconds} s after frame 1."
    yield f"; If it is {off:g} s early or late, correct the controller's clock or its acceleration."


def _plain(text: str) -> str:
    """Text for a comment: brackets and semicolons end or nest one on some controllers."""
    return "".join(char if char.isascii() and char not in "();%" and char.isprintable() else " " for char in text)


def _foot() -> Iterator[str]:
    yield "M2"


def _on(plan: Plan) -> str:
    control = plan.rig.controller
    return f"M64 P{control.output}" if control.shutter == "digital output" else "M8"


def _off(plan: Plan) -> str:
    control = plan.rig.controller
    return f"M65 P{control.output}" if control.shutter == "digital output" else "M9"


def _number(value: float) -> str:
    """Five decimals: well below any step, and no minus nought."""
    return f"{round(value, 5) + 0.0:.5f}"


def _approach(plan: Plan, say: Orders) -> Iterator[str]:
    """To the first position from the side from which the move goes on, slowly."""
    before: dict[str, float] = {}
    first: dict[str, float] = {}
    for axis in programmed(plan):
        heading = approach(axis, say.targets[axis.name])
        first[axis.name] = float(say.motor[axis.name][0])
        before[axis.name] = first[axis.name] - heading * (RUN_UP[axis.unit] + axis.backlash)
    yield "; to the first position, always from the same side"
    # Nobody knows where it stands: as long as its whole travel takes.
    longest = max((axis.high - axis.low) / axis.fastest for axis in programmed(plan))
    yield _move(plan, before, max(longest, SHORTEST_S))
    yield _move(plan, first, max(_seconds(plan, before, first) * 2, SHORTEST_S))


def _seconds(plan: Plan, start: dict[str, float], end: dict[str, float]) -> float:
    """The time that the slowest axis takes at its top speed."""
    return max(abs(end[axis.name] - start[axis.name]) / axis.fastest for axis in programmed(plan))


def _move(plan: Plan, to: dict[str, float], seconds: float) -> str:
    words = " ".join(f"{axis.called}{_number(to[axis.name])}" for axis in programmed(plan) if axis.name in to)
    # Rounded down: a hair slower, never faster. Nine digits, so that long slots do not add up to minutes.
    digits = max(0, 8 - math.floor(math.log10(60 / seconds)))
    feed = math.floor(60 / seconds * 10**digits) / 10**digits
    return f"G1 {words} F{feed:.{digits}f}"


def _takes_s(move: str) -> float:
    """How long a written move takes."""
    return 60 / float(move.rpartition("F")[2])


def _from_rest_s(plan: Plan, start: dict[str, float], end: dict[str, float], steady_s: float) -> float:
    """How long a written move takes from rest to rest, all axes together: the least lively one sets the ramps."""
    far = {axis: abs(end[axis.name] - start[axis.name]) for axis in programmed(plan)}
    liveliest = min((axis.liveliest / way for axis, way in far.items() if way), default=math.inf)
    return step_time(1.0, 1 / steady_s, liveliest)


def _dwell(seconds: float) -> Iterator[str]:
    if seconds > 0.0005:
        yield f"G4 P{seconds:.3f}"


def _at(say: Orders, axes: tuple[Axis, ...], picture: int) -> dict[str, float]:
    # As they are written, so that the time a move is given holds for what is told.
    return {axis.name: float(_number(float(say.motor[axis.name][picture]))) for axis in axes}


def _moved(before: dict[str, float], after: dict[str, float]) -> dict[str, float]:
    return {name: value for name, value in after.items() if _number(value) != _number(before[name])}


def _stepping(plan: Plan, one: Cycle, say: Orders, notes: Notes) -> Iterator[str]:
    """Fire, expose, move, and wait for the next: each from when it is due, so that nothing adds up.

    Where the beat does not fit the camera stores and the rig settles first; the rest of the grid moves with it.
    """
    axes, pulse = programmed(plan), float(plan.rig.controller.pulse_s)
    yield from _dwell(one.settle_s or float(plan.beat.settle_s))
    lasting = float(plan.beat.heard_s) + say.busy_s
    if not plan.beat.write_while_moving:
        lasting = lasting + say.processing_s + one.write_s
    # `over` is what rounding has made the waits too long: the next one takes it back, so that none adds up in a round.
    spent, over, fires = 0.0, 0.0, fired_s(say, one)
    for picture in range(len(say)):
        # The first of a cycle finds the camera asleep: nothing moves until it has woken and exposed.
        still = max(float(lasting[picture]) + (0.0 if say.visit[picture] else float(plan.beat.ready_s)), pulse)
        called = say.called(picture)
        yield from notes(say, picture)
        yield f"; frame {say.frame[picture] + 1}" + (f", {called}" if called else "")
        yield _on(plan)
        yield f"G4 P{pulse:.3f}"
        yield _off(plan)
        spent += pulse
        last = picture + 1 == len(say)
        here, there = _at(say, axes, picture), _at(say, axes, picture if last else picture + 1)
        going = _moved(here, there)
        if going or last:
            wait = max(still - pulse - over, 0.0)
            yield from _dwell(wait)
            over = round(wait, 3) - wait
            spent += round(wait, 3)
        if last:
            return
        if going:
            # A move as short as a hair is not given longer than the plan gives it.
            least = min(SHORTEST_S, max(float(say.move_s[picture]), FINEST_S))
            line = _move(plan, going, max(_seconds(plan, here, there), least))
            yield line
            spent += _from_rest_s(plan, here, there, _takes_s(line))
        wait = float(fires[picture + 1]) - spent
        yield from _dwell(wait)
        spent += round(max(wait, 0.0), 3)
        if not say.visit[picture + 1]:
            # The next frame begins on the grid.
            over = 0.0


def _settings(shooting: Shooting) -> Notes:
    """What is dialled in on the camera before a picture, as a note: the controller cannot do it."""
    lines = {change.frame: change for change in change_lines(shooting)}

    def notes(say: Orders, picture: int) -> Iterator[str]:
        change = lines.get(int(say.frame[picture]))
        if change is not None and not say.visit[picture]:
            yield f"; camera: {said(change)}"

    return notes


def _running(plan: Plan, say: Orders, notes: Notes) -> Iterator[str]:
    """One run: a move for each slot, its output switched on with its start and off a moment later.

    Each ends when the next is due, so that what a written feed leaves out adds up to nothing.
    """
    axes, pulse = programmed(plan), float(plan.rig.controller.pulse_s)
    output = plan.rig.controller.output
    spent = 0.0
    for picture in range(len(say)):
        last = picture + 1 == len(say)
        yield from notes(say, picture)
        slot = (say.end_s if last else float(say.due_s[picture + 1])) - spent
        here = _at(say, axes, picture)
        there = here if last else _at(say, axes, picture + 1)
        share = min(pulse, slot / 2) / slot
        between = {name: at + (there[name] - at) * share for name, at in here.items()}
        yield f"; frame {say.frame[picture] + 1}"
        pressed, goes_on = _move(plan, between, slot * share), _move(plan, there, slot * (1 - share))
        yield f"M62 P{output}"
        yield pressed
        yield f"M63 P{output}"
        yield goes_on
        spent += _takes_s(pressed) + _takes_s(goes_on)
