"""The tightest cycle of a shoot against its slot."""

from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction

import numpy as np

from bridle.core.plan.beat import Beat
from bridle.core.plan.document import Plan
from bridle.core.plan.rig import Axis
from bridle.core.reckon.exposed import Exposures, Shuttered
from bridle.core.reckon.focusing import driven_stack_mm
from bridle.core.reckon.rooms import room_left_s, waking_and_exposing_s
from bridle.core.reckon.timeline import Timeline
from bridle.core.reckon.travel import settle_times, travel_times
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.numbers.rounding import first_peak
from bridle.core.subjects.time import cycle

TOLERANCE_S = 1e-9


@dataclass(frozen=True)
class Cycle:
    """The tightest cycle of a shoot against its slot, in seconds; `frame` (0-based) is the one that has it.

    `slowest` is the axis that all others wait for (none where nothing can move), `step` its distance there.
    `travels_s` are the moves of the cycle, from place to place and on to the next cycle, `settles_s` what each needs
    to settle; a plain move has one. `positions` of them at each place are a stack that a motor steps through (0: none).
    `move_s` is the longest of them; `between_s` is what lies between the exposures of a round.
    """

    beat: Beat
    frame: int
    exposures: Exposures
    slowest: Axis | None
    step: float
    travels_s: tuple[float, ...]
    settles_s: tuple[float, ...]
    positions: int
    between_s: float
    move_s: float
    settle_s: float
    write_s: float
    need_s: float
    interval_s: Fraction
    margin_s: float
    grid_s: Fraction
    shortest_s: Fraction

    @property
    def over_s(self) -> float:
        """By how much need and margin overrun the interval; 0 where they fit."""
        over = self.need_s + self.margin_s - float(self.interval_s)
        return over if over > TOLERANCE_S else 0.0

    @property
    def still_s(self) -> float:
        """How long the rig stands still in the interval, settling included: what some controllers and menus ask for."""
        return max(0.0, float(self.interval_s) - sum(self.travels_s) - self.margin_s)

    @property
    def exposed_s(self) -> float:
        """How long the shutter is open in the cycle, all its exposures together."""
        return self.exposures.total_s * len(self.travels_s)

    @property
    def staccato(self) -> bool:
        """Whether so little of the interval is exposed that the clip will look like single pictures."""
        return self.exposed_s / float(self.interval_s) < cycle.STACCATO_BELOW


def tightest(plan: Plan, beat: Beat, times: Timeline, steps: dict[str, Floats], open_: Shuttered) -> Cycle:
    """The tightest cycle of a plan, with its own beat or another.

    `steps` are how far each drive goes after each exposure, shape (visits, frames); `open_` what the shutter does.
    """
    travels = travel_times(plan, steps, times.frames)
    positions = len(driven_stack_mm(plan, times.frames))
    moving = travels * (not beat.continuous)
    settling = settle_times(beat, steps, moving, positions)
    short = _short_s(beat, times, moving + settling, open_)
    # Among frames that are as tight, the one with the longest move is shown; what all share does not decide.
    tight = np.flatnonzero(short >= short.max() - TOLERANCE_S)
    frame = int(tight[first_peak(moving.max(axis=0)[tight])])
    return _at(plan, frame, times, steps, open_, positions)


def _short_s(beat: Beat, times: Timeline, settling: Floats, open_: Shuttered) -> Floats:
    """How much more each frame's cycle needs than its beat leaves, in seconds; shape (frames,)."""
    visits, asked = len(settling), waking_and_exposing_s
    if len(open_.kinds) == 1:
        only = open_.kinds[0]
        return np.asarray(asked(beat, only, visits) - room_left_s(beat, only, times.rooms_s, settling))
    short = np.empty(times.frames)
    for number, kind in enumerate(open_.kinds):
        here = open_.which == number
        left = room_left_s(beat, kind, times.rooms_s[here], settling[:, here])
        short[here] = asked(beat, kind, visits) - left
    return short


def tightest_of_each(
    plan: Plan, beat: Beat, times: Timeline, steps: dict[str, Floats], open_: Shuttered
) -> Iterator[Cycle]:
    """Of each exposure there is, from the shortest on, the tightest cycle that has it."""
    travels = travel_times(plan, steps, times.frames)
    positions = len(driven_stack_mm(plan, times.frames))
    moving = travels * (not beat.continuous)
    short = _short_s(beat, times, moving + settle_times(beat, steps, moving, positions), open_)
    for number in range(len(open_.kinds)):
        here = np.flatnonzero(open_.which == number)
        yield _at(plan, int(here[first_peak(short[here])]), times, steps, open_, positions)


def cycle_at(plan: Plan, frame: int, times: Timeline, steps: dict[str, Floats], open_: Shuttered) -> Cycle:
    """The cycle of one frame (0-based) against its slot."""
    return _at(plan, frame, times, steps, open_, len(driven_stack_mm(plan, times.frames)))


def _at(plan: Plan, frame: int, times: Timeline, steps: dict[str, Floats], open_: Shuttered, positions: int) -> Cycle:
    beat, here = open_.beat(frame), {name: far[:, frame : frame + 1] for name, far in steps.items()}
    travels = travel_times(plan, here, 1)
    moving = travels * (not beat.continuous)
    settling = settle_times(beat, here, moving, positions)
    visit = first_peak(travels[:, 0])
    slowest = max(plan.rig.axes, key=lambda axis: _alone(axis, here, visit), default=None)
    step = float(here[slowest.name][visit, 0]) if slowest else 0.0
    grid = plan.clip.interval_step_s or cycle.FINEST_S
    travelled = tuple(zip(moving[:, 0].tolist(), settling[:, 0].tolist(), strict=True))
    return _cycle(beat, open_.of(frame), frame, times.room_s(frame), grid, slowest, step, travelled, positions)


def _alone(axis: Axis, steps: dict[str, Floats], visit: int) -> float:
    """How long an axis takes by itself for one move of a cycle."""
    return cycle.step_time(float(steps[axis.name][visit, 0]), axis.fastest, axis.liveliest)


def _cycle(
    beat: Beat,
    exposing: Exposures,
    frame: int,
    interval: Fraction,
    grid: Fraction,
    slowest: Axis | None,
    step: float,
    travelled: tuple[tuple[float, float], ...],
    positions: int,
) -> Cycle:
    travels, settles = zip(*travelled, strict=True)
    write = 0.0 if beat.buffer_frames else float(beat.write_s)
    need, between = cycle.round_need(
        exposing.total_s,
        exposing.processing_s + write,
        [move + settle for move, settle in travelled],
        wake=float(beat.ready_s),
        each=float(beat.heard_s) + exposing.gaps_s,
        write_while_moving=beat.write_while_moving,
    )
    least = float(beat.least_margin_s)
    return Cycle(
        beat=beat,
        frame=frame,
        exposures=exposing,
        slowest=slowest,
        step=step,
        travels_s=travels,
        settles_s=settles,
        positions=positions,
        between_s=between,
        move_s=max(travels),
        settle_s=max(settles),
        write_s=write,
        need_s=need,
        interval_s=interval,
        margin_s=max(float(beat.margin * interval), least),
        grid_s=grid,
        shortest_s=cycle.shortest_interval(need, float(beat.margin), least, grid),
    )
