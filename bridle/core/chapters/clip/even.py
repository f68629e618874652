"""The sentence of an even interval: its figures, each with the rule that gave it, and an interval no dial has."""

from fractions import Fraction
from functools import cache

from bridle.core.asks.clip_offers import clip_fixes
from bridle.core.asks.pegs import within
from bridle.core.figure import Figure, Formula, Term, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.words import LABELS, UNITS
from bridle.core.reckon.clip import holds_of
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.numbers.rounding import ceil_to, floor_to
from bridle.core.subjects.time import sentence as solver

HELD = Formula("held", "held by a peg, as typed")


OFF_STEP = SnagKind(
    "interval-off-step",
    "mind",
    "clip",
    "An interval of {interval} cannot be dialled.",
    "The interval is set in steps of {step}; what is dialled instead changes the end of the shoot.",
)
KINDS = (OFF_STEP,)


def figures(plan: Plan, solution: solver.Solution) -> list[Figure]:
    """All six quantities with their working, and the same frames at the other rates."""
    holds, step, spare = holds_of(plan), plan.clip.interval_step_s, plan.clip.spare
    keep = 1 - spare
    formulas = {
        "shoot": solver.SHOOT,
        "interval": solver.INTERVAL_SPEED if "speed_up" in holds else solver.INTERVAL_SHARED,
        "frames": solver.frames_formula(solution, keep),
        "rate": solver.rate_formula(holds, keep),
        "clip": solver.CLIP_KEPT if spare else solver.CLIP,
        "speed_up": solver.SPEED_UP,
    }
    made = [_figure(name, formulas[name], holds, solution, step, spare) for name in solver.NAMES]
    return [*made, *at_other_rates(solution), *_kept(solution, spare)]


def _kept(solution: solver.Solution, spare: Fraction) -> list[Figure]:
    """What is left for the clip once the spare frames have been culled."""
    frames = term("frames", "frames shot", solution.frames, "frames")
    said = spare_term(spare)
    return (
        [figure("clip.kept", "frames in the clip", solution.kept, "frames", solver.KEPT, frames, said)] if spare else []
    )


def spare_term(spare: Fraction) -> Term:
    """The share of spare frames."""
    return term("spare", "frames to cull", spare, "share")


def at_other_rates(solution: solver.Solution) -> list[Figure]:
    """The same frames read at every other rate in use."""
    frames = term("frames", "frames in the clip", solution.kept, "frames")
    return [
        figure(
            f"clip.at.{rate}",
            f"the same frames at {float(rate):.6g} a second",
            solution.kept / rate,
            "s",
            solver.SAME_FRAMES,
            frames,
            term("other", "other rate", rate, "rate"),
        )
        for rate in solver.RATES
        if rate != solution.rate
    ]


def _figure(
    name: str, formula: Formula, holds: dict[str, Fraction], solution: solver.Solution, step: Fraction, spare: Fraction
) -> Figure:
    value = solution.value(name)
    if holds.get(name) == value:
        said = term("held", f"{LABELS[name]}, held", value, UNITS[name])
        return figure(f"clip.{name}", LABELS[name], value, UNITS[name], HELD, said)
    asked = name == "frames" or name == "rate" or (name == "interval" and formula is solver.INTERVAL_SHARED)
    values = {
        other: holds.get(other, solution.value(other)) if asked else solution.value(other) for other in solver.NAMES
    }
    terms = [_term(other, values[other]) for other in solver.NAMES if _uses(formula, other)]
    if _uses(formula, "step"):
        terms.append(term("step", "interval step", step, "s"))
    if _uses(formula, "spare"):
        terms.append(spare_term(spare))
    return figure(f"clip.{name}", LABELS[name], value, UNITS[name], formula, *terms)


@cache
def _uses(formula: Formula, name: str) -> bool:
    return name in compile(formula.expression, "formula", "eval").co_names


def _term(name: str, value: Fraction) -> Term:
    return term(name, LABELS[name], value, UNITS[name])


def asked(plan: Plan) -> dict[str, Fraction]:
    """What was asked for and may have been rounded: both lengths, and the speed-up."""
    return {name: value for name, value in holds_of(plan).items() if name in ("shoot", "clip", "speed_up")}


def snags(plan: Plan, solution: solver.Solution) -> list[Snag]:
    """An interval that cannot be dialled."""
    step = plan.clip.interval_step_s
    if step == 0 or (solution.interval / step).denominator == 1:
        return []
    slots = {"interval": slot(solution.interval, "s"), "step": slot(step, "s")}
    fixes: list[Fix] = []
    for value in dict.fromkeys((floor_to(solution.interval, step), ceil_to(solution.interval, step))):
        if value > 0:
            fixes += clip_fixes(plan, "Dial {dial}", within(plan, "interval", value), {"dial": slot(value, "s")})
    return [OFF_STEP.at("clip.interval", slots, fixes)]
