"""The numbers of one cycle of a plan, and the figures that show them."""

from dataclasses import dataclass
from fractions import Fraction

import numpy as np

from bridle.core.chapters import path
from bridle.core.chapters.travels import longest_steps, travel_times
from bridle.core.figure import Figure, Number, Term, figure, term
from bridle.core.plan.beat import Beat
from bridle.core.plan.camera import Camera
from bridle.core.plan.document import Plan
from bridle.core.plan.rig import Axis
from bridle.core.subjects import cycle, optics
from bridle.core.subjects.clip import Solution
from bridle.core.subjects.easing import Floats
from bridle.core.subjects.pacing import Pace

TOLERANCE_S = 1e-9
TIE = 1e-12


@dataclass(frozen=True)
class Exposures:
    """What the shutter does in one cycle: times in seconds, counts of exposures."""

    positions: int
    pictures: int
    factor: float
    total_s: float
    gaps_s: float
    refocus_s: float
    dark_in_gaps_s: float
    dark_last_s: float
    processing_s: float
    longest_s: float

    @property
    def busy_s(self) -> float:
        """From the first shutter to the last one's end."""
        return self.total_s + self.gaps_s


@dataclass(frozen=True)
class Cycle:
    """The tightest cycle of a shoot against its slot, in seconds; `frame` (0-based) is the one that has it.

    `slowest` is the axis that all others wait for (none where nothing can move), `step` its distance there.
    `travels_s` are the moves of the cycle, from place to place and on to the next cycle; a plain move has one.
    `move_s` is the longest of them; `between_s` is what lies between the exposures of a round.
    """

    beat: Beat
    frame: int
    exposures: Exposures
    slowest: Axis | None
    step: float
    travels_s: tuple[float, ...]
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


def exposures(beat: Beat, camera: Camera) -> Exposures:
    """Bracket, focus stack and noise reduction of one cycle."""
    positions = stack_positions(beat, camera)
    factor = cycle.bracket_factor(beat.bracket_frames, beat.bracket_step_stops)
    total, exposure = float(beat.exposure_s) * factor * positions, float(beat.exposure_s)
    longest = exposure * cycle.longest_of_bracket(beat.bracket_frames, beat.bracket_step_stops)
    # Brackets end on their longest exposure, and its dark frame alone overlaps the move.
    dark_last = longest if beat.noise_reduction else 0.0
    dark_in_gaps = total - dark_last if beat.noise_reduction else 0.0
    refocus = float(beat.stack.move_s + beat.stack.settle_s) if beat.stack else 0.0
    gaps = positions * (beat.bracket_frames - 1) * float(beat.bracket_gap_s) + (positions - 1) * refocus + dark_in_gaps
    processing = dark_last + float(beat.merge_s)
    pictures = positions if beat.merge_s else positions * beat.bracket_frames
    return Exposures(positions, pictures, factor, total, gaps, refocus, dark_in_gaps, dark_last, processing, longest)


def stack_positions(beat: Beat, camera: Camera) -> int:
    """Focus positions of a cycle: 1 without a stack, and where the near end cannot be focused at all."""
    stack = beat.stack
    if stack is None or stack.near_mm <= camera.focal_mm:
        return 1
    overlap, circle = float(stack.overlap), camera.circle_mm
    return optics.stack_positions(stack.near_mm, stack.far_mm, overlap, camera.focal_mm, camera.aperture, circle)


def slots_of(solution: Solution, pace: Pace | None) -> Floats:
    """The slot of each frame in seconds."""
    return np.full(solution.frames, float(solution.interval)) if pace is None else pace.intervals_s()


def measure(
    plan: Plan,
    solution: Solution,
    pace: Pace | None,
    school: str | None = None,
    places: dict[str, Floats] | None = None,
) -> Cycle:
    """The tightest cycle of a plan, in its own school or another; `places` where they are known already."""
    beat = plan.beat if school is None else plan.beat.model_copy(update={"school": school})
    slots = slots_of(solution, pace)
    steps = longest_steps(plan, path.positions(plan, solution) if places is None else places)
    travels = travel_times(plan, steps, solution.frames)
    moving = travels * (not beat.continuous)
    told = exposures(beat, plan.camera)
    write = 0.0 if beat.buffer_frames else float(beat.write_s)
    settling = moving + np.where(moving > 0, float(beat.settle_s), 0.0)
    store = told.processing_s + write
    together = np.maximum(store, settling) if beat.write_while_moving else store + settling
    margins = np.maximum(float(beat.margin) * slots, float(beat.least_margin_s))
    # Among frames that are as tight, the one with the longest move is shown.
    frame = int(np.argmin(slots - together.sum(axis=0) - margins - TIE * moving.max(axis=0)))
    visit = int(np.argmax(travels[:, frame]))
    slowest = max(plan.rig.axes, key=lambda axis: _alone(axis, steps, visit, frame), default=None)
    step = float(steps[slowest.name][visit, frame]) if slowest else 0.0
    return _cycle(plan, beat, told, solution, pace, frame, slowest, step, tuple(moving[:, frame].tolist()))


def _alone(axis: Axis, steps: dict[str, Floats], visit: int, frame: int) -> float:
    """How long an axis takes by itself for one move of a cycle."""
    return cycle.step_time(float(steps[axis.name][visit, frame]), axis.top_speed, axis.acceleration)


def _cycle(
    plan: Plan,
    beat: Beat,
    told: Exposures,
    solution: Solution,
    pace: Pace | None,
    frame: int,
    slowest: Axis | None,
    step: float,
    travels: tuple[float, ...],
) -> Cycle:
    # Nothing has to settle where nothing has moved.
    move_s = max(travels)
    settle, write = float(beat.settle_s) if move_s else 0.0, 0.0 if beat.buffer_frames else float(beat.write_s)
    need, between = cycle.round_need(
        told.total_s,
        told.processing_s + write,
        [move + (settle if move else 0.0) for move in travels],
        wake=float(beat.wake_s),
        each=float(beat.lag_s) + told.gaps_s,
        write_while_moving=beat.write_while_moving,
    )
    interval = solution.interval if pace is None else Fraction(int(np.diff(pace.starts_ms)[frame]), 1000)
    least, grid = float(beat.least_margin_s), plan.clip.interval_step_s or cycle.FINEST_S
    return Cycle(
        beat=beat,
        frame=frame,
        exposures=told,
        slowest=slowest,
        step=step,
        travels_s=travels,
        between_s=between,
        move_s=move_s,
        settle_s=settle,
        write_s=write,
        need_s=need,
        interval_s=interval,
        margin_s=max(float(beat.margin * interval), least),
        grid_s=grid,
        shortest_s=cycle.shortest_interval(need, float(beat.margin), least, grid),
    )


def figures(one: Cycle, camera: Camera, prefix: str = "beat") -> list[Figure]:
    """All figures of a cycle, under a prefix of their own."""
    return [*_exposing(one, camera, prefix), *_moving(one, prefix), needed(one, prefix), *against(one, prefix)]


def _seconds(symbol: str, label: str, value: Number) -> Term:
    return term(symbol, label, value, "s")


def _exposing(one: Cycle, camera: Camera, prefix: str) -> list[Figure]:
    beat, told = one.beat, one.exposures
    count = term("count", "exposures in a bracket", beat.bracket_frames, "")
    step = term("step", "from one to the next", beat.bracket_step_stops, "stops")
    bracket = (cycle.BRACKET, step, count) if beat.bracket_step_stops else (cycle.BRACKET_EVEN, count)
    positions = term("positions", "focus positions", told.positions, "")
    gaps = (
        positions,
        count,
        _seconds("gap", "gap in the bracket", beat.bracket_gap_s),
        _seconds("refocus", "focus move and settle", told.refocus_s),
        _seconds("dark", "dark frames in between", told.dark_in_gaps_s),
    )
    exposure = term("exposure", "exposure", beat.exposure_s, "shutter")
    factor = term("bracket", "sum of the bracket, in exposures", told.factor, "")
    processing = (_seconds("dark", "last dark frame", told.dark_last_s), _seconds("merge", "merging", beat.merge_s))
    made = [
        figure(f"{prefix}.bracket", "sum of the bracket, in exposures", told.factor, "", *bracket),
        figure(f"{prefix}.exposures", "exposures", told.total_s, "s", cycle.EXPOSURES, exposure, factor, positions),
        figure(f"{prefix}.gaps", "gaps", told.gaps_s, "s", cycle.GAPS, *gaps),
        figure(f"{prefix}.processing", "processing", told.processing_s, "s", cycle.PROCESSING, *processing),
    ]
    return made + _stack(one, camera, prefix)


def _stack(one: Cycle, camera: Camera, prefix: str) -> list[Figure]:
    stack = one.beat.stack
    if stack is None or stack.near_mm <= camera.focal_mm:
        return []
    hyper = optics.hyperfocal_mm(camera.focal_mm, camera.aperture, camera.circle_mm)
    focal = term("focal", "focal length", camera.focal_mm, "focal")
    lens = (
        term("f_number", "aperture", camera.aperture, "f-number"),
        term("circle", "circle of confusion", camera.circle_mm, "mm"),
    )
    ends = (term("near", "near", stack.near_mm, "mm"), term("far", "far", stack.far_mm, "mm"))
    rest = (
        term("overlap", "overlap", stack.overlap, "share"),
        focal,
        term("hyper", "hyperfocal distance", hyper, "mm"),
    )
    return [
        figure(f"{prefix}.hyperfocal", "hyperfocal distance", hyper, "mm", optics.HYPERFOCAL, focal, *lens),
        figure(f"{prefix}.positions", "focus positions", one.exposures.positions, "", optics.STACK, *ends, *rest),
    ]


def _moving(one: Cycle, prefix: str) -> list[Figure]:
    axis = one.slowest
    if axis is None or one.beat.continuous:
        return []
    rule = cycle.step_formula(one.step, axis.top_speed, axis.acceleration)
    terms = (
        term(
            "distance",
            f"longest step of the {axis.name}{', backlash included' if axis.backlash else ''}",
            one.step,
            axis.unit,
        ),
        term("speed", "top speed", axis.top_speed, f"{axis.unit}/s"),
        term("acceleration", "acceleration", axis.acceleration, f"{axis.unit}/s²"),
    )
    return [figure(f"{prefix}.move", "move", one.move_s, "s", rule, *terms)]


def needed(one: Cycle, prefix: str) -> Figure:
    """What the cycle needs, as a figure."""
    beat, told = one.beat, one.exposures
    terms = [
        _seconds("wake", "wake", beat.wake_s),
        _seconds("lag", "shutter lag", beat.lag_s),
        _seconds("exposures", "exposures", told.total_s),
        _seconds("gaps", "gaps", told.gaps_s),
        _seconds("processing", "processing", told.processing_s),
        _seconds("write", "write, as the buffer takes it" if beat.buffer_frames else "write to card", one.write_s),
    ]
    visits = len(one.travels_s)
    if visits > 1:
        places = term("visits", "places in a cycle", visits, "")
        between = _seconds("between", "between the exposures", one.between_s)
        kept = [each for each in terms if each.symbol not in ("processing", "write")]
        return figure(f"{prefix}.need", "needed", one.need_s, "s", cycle.NEED_ROUND, places, *kept, between)
    if beat.continuous:
        return figure(f"{prefix}.need", "needed", one.need_s, "s", cycle.NEED_FLOWING, *terms)
    terms += [_seconds("move", "move", one.move_s), _seconds("settle", "settle", one.settle_s)]
    rule = cycle.NEED_OVERLAP if beat.write_while_moving else cycle.NEED_IN_TURN
    return figure(f"{prefix}.need", "needed", one.need_s, "s", rule, *terms)


def against(one: Cycle, prefix: str) -> list[Figure]:
    """The cycle against its slot, as figures."""
    interval, moves = float(one.interval_s), sum(one.travels_s)
    whole = _seconds("interval", "interval", one.interval_s)
    need, move = _seconds("need", "needed", one.need_s), _seconds("move", "all moves of a cycle", moves)
    kept = _seconds("margin", "margin kept", one.margin_s)
    least = _seconds("least", "least margin", one.beat.least_margin_s)
    share = term("share", "margin", one.beat.margin, "share")
    grid, part = _seconds("step", "interval step", one.grid_s), term("margin", "margin", one.beat.margin, "share")
    still, spare = interval - moves - one.margin_s, interval - one.need_s - one.margin_s
    opened = one.exposures.total_s * len(one.travels_s)
    exposed, open_s = opened / interval, _seconds("exposures", "exposures of a cycle", opened)
    shortest, still_label = "shortest interval that fits", "still time for the controller"
    return [
        figure(f"{prefix}.margin", "margin kept", one.margin_s, "s", cycle.MARGIN, share, whole, least),
        figure(f"{prefix}.spare", "spare", spare, "s", cycle.SPARE, whole, need, kept),
        figure(f"{prefix}.shortest", shortest, one.shortest_s, "s", cycle.SHORTEST, need, part, least, grid),
        figure(f"{prefix}.still", still_label, still, "s", cycle.STILL, whole, move, kept),
        figure(f"{prefix}.share", "exposure over interval", exposed, "share", cycle.EXPOSURE_SHARE, open_s, whole),
    ]
