"""The figures of a solved clip, each with the rule that gave it."""

from fractions import Fraction
from functools import cache

from bridle.core.chapters.words import LABELS, UNITS
from bridle.core.figure import Figure, Formula, Term, figure, term
from bridle.core.subjects import clip as solver

HELD = Formula("held", "held by a peg, as typed")


def clip_figures(
    holds: dict[str, Fraction], solution: solver.Solution, step: Fraction, spare: Fraction
) -> list[Figure]:
    """All six quantities with their working, and the same frames at the other rates."""
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
