"""The numbers of one cycle of a plan, and the figures that show them."""

from dataclasses import dataclass
from fractions import Fraction

from bridle.core.figure import Figure, Number, Term, figure, term
from bridle.core.plan.beat import Beat
from bridle.core.plan.document import Plan
from bridle.core.plan.rig import Axis
from bridle.core.subjects import cycle

TOLERANCE_S = 1e-9


@dataclass(frozen=True)
class Cycle:
    """One cycle against its interval, in seconds; `slowest` is the axis that all others wait for."""

    beat: Beat
    slowest: Axis
    longest_step: float
    move_s: float
    settle_s: float
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


def measure(plan: Plan, longest_steps: dict[str, float], interval: Fraction) -> Cycle:
    """The cycle of a plan whose axes take these longest steps, in this interval."""
    slowest, move_s = max(
        ((axis, step_time(axis, longest_steps[axis.name])) for axis in plan.rig.axes), key=lambda pair: pair[1]
    )
    beat = plan.beat
    # Nothing has to settle where nothing has moved.
    settle = float(beat.settle_s) if move_s else 0.0
    need = cycle.cycle_need(
        float(beat.exposure_s),
        float(beat.write_s),
        move_s,
        settle,
        wake=float(beat.wake_s),
        lag=float(beat.lag_s),
        write_while_moving=beat.write_while_moving,
    )
    least, grid = float(beat.least_margin_s), plan.clip.interval_step_s or cycle.FINEST_S
    return Cycle(
        beat=beat,
        slowest=slowest,
        longest_step=longest_steps[slowest.name],
        move_s=move_s,
        settle_s=settle,
        need_s=need,
        interval_s=interval,
        margin_s=max(float(beat.margin * interval), least),
        grid_s=grid,
        shortest_s=cycle.shortest_interval(need, float(beat.margin), least, grid),
    )


def step_time(axis: Axis, distance: float) -> float:
    """How long an axis takes for a distance, from rest to rest."""
    return cycle.step_time(distance, axis.top_speed, axis.acceleration)


def figures(one: Cycle) -> list[Figure]:
    """All figures of a cycle."""
    return [_move(one), _need(one), *_against_the_interval(one)]


def _seconds(symbol: str, label: str, value: Number) -> Term:
    return term(symbol, label, value, "s")


def _exposure(one: Cycle) -> Term:
    return term("exposure", "exposure", one.beat.exposure_s, "shutter")


def _move(one: Cycle) -> Figure:
    axis = one.slowest
    rule = cycle.step_formula(one.longest_step, axis.top_speed, axis.acceleration)
    terms = (
        term("distance", f"longest step of the {axis.name}", one.longest_step, axis.unit),
        term("speed", "top speed", axis.top_speed, f"{axis.unit}/s"),
        term("acceleration", "acceleration", axis.acceleration, f"{axis.unit}/s²"),
    )
    return figure("beat.move", "move", one.move_s, "s", rule, *terms)


def _need(one: Cycle) -> Figure:
    beat = one.beat
    rule = cycle.NEED_OVERLAP if beat.write_while_moving else cycle.NEED_IN_TURN
    terms = (
        _seconds("wake", "wake", beat.wake_s),
        _seconds("lag", "shutter lag", beat.lag_s),
        _exposure(one),
        _seconds("write", "write to card", beat.write_s),
        _seconds("move", "move", one.move_s),
        _seconds("settle", "settle", one.settle_s),
    )
    return figure("beat.need", "needed", one.need_s, "s", rule, *terms)


def _against_the_interval(one: Cycle) -> list[Figure]:
    interval = float(one.interval_s)
    whole = _seconds("interval", "interval", one.interval_s)
    need, move = _seconds("need", "needed", one.need_s), _seconds("move", "move", one.move_s)
    kept = _seconds("margin", "margin kept", one.margin_s)
    least = _seconds("least", "least margin", one.beat.least_margin_s)
    share = term("share", "margin", one.beat.margin, "share")
    grid, part = _seconds("step", "interval step", one.grid_s), term("margin", "margin", one.beat.margin, "share")
    still, spare = interval - one.move_s - one.margin_s, interval - one.need_s - one.margin_s
    exposed = float(one.beat.exposure_s / one.interval_s)
    shortest, still_label = "shortest interval that fits", "still time for the controller"
    return [
        figure("beat.margin", "margin kept", one.margin_s, "s", cycle.MARGIN, share, whole, least),
        figure("beat.spare", "spare", spare, "s", cycle.SPARE, whole, need, kept),
        figure("beat.shortest", shortest, one.shortest_s, "s", cycle.SHORTEST, need, part, least, grid),
        figure("beat.still", still_label, still, "s", cycle.STILL, whole, move, kept),
        figure("beat.share", "exposure over interval", exposed, "share", cycle.EXPOSURE_SHARE, _exposure(one), whole),
    ]
