"""The sentence where the source itself counts the frames: work windows, and the layers of a print."""

from fractions import Fraction

from bridle.core.chapters.clip import even
from bridle.core.chapters.clip.even import HELD, at_other_rates, spare_term
from bridle.core.figure import Figure, Formula, Term, figure, term
from bridle.core.plan.clip import Quantity
from bridle.core.plan.document import Plan
from bridle.core.plan.frames import Windows
from bridle.core.plan.words import LABELS, UNITS
from bridle.core.reckon.clip import holds_of
from bridle.core.snag import Snag
from bridle.core.subjects.time import sentence as solver

COUNTED = {
    "windows": Formula("counted", "the whole slots of all work windows, one after another"),
    "layers": Formula("counted", "the layers of the print that call a frame"),
}
LASTS = Formula("lasts", "from the first frame to the end of the last one's slot, gaps between included")
EVERY = Formula("every", "as it is set within each window")
MEAN = Formula("shoot / frames", "the mean interval: the print over its frames")


def figures(plan: Plan, solution: solver.Solution) -> list[Figure]:
    """The six quantities with their working."""
    rate = term("rate", LABELS["rate"], solution.rate, "rate")
    frames = term("frames", LABELS["frames"], solution.frames, "frames")
    interval = term("interval", LABELS["interval"], solution.interval, "s")
    spare = (spare_term(plan.clip.spare),) if plan.clip.spare else ()
    rules = {
        "frames": (COUNTED[plan.frames.source], term("counted", "frames, counted", solution.frames, "frames")),
        "shoot": (LASTS, term("lasts", "it lasts", solution.shoot, "s")),
        "interval": _interval(plan, solution, frames),
        "rate": (HELD, term("held", "playback rate, held", solution.rate, "rate")),
        "clip": (solver.CLIP_KEPT if spare else solver.CLIP, frames, rate, *spare),
        "speed_up": (solver.SPEED_UP, interval, rate),
    }
    labels = LABELS | _interval_named(plan)
    made = [
        figure(f"clip.{name}", labels[name], solution.value(name), UNITS[name], *rule) for name, rule in rules.items()
    ]
    return [*made, *at_other_rates(solution)]


def _interval_named(plan: Plan) -> dict[Quantity, str]:
    """Layers take as long as they take, and a rule of work windows may have an interval of its own."""
    if isinstance(plan.frames, Windows):
        own = any(rule.every_s is not None for rule in plan.frames.rules)
        return {"interval": "interval, where a rule has none of its own"} if own else {}
    return {"interval": "mean interval"}


def _interval(plan: Plan, solution: solver.Solution, frames: Term) -> tuple[Formula, *tuple[Term, ...]]:
    if plan.frames.source == "windows":
        return EVERY, term("every", LABELS["interval"], solution.interval, "s")
    return MEAN, term("shoot", LABELS["shoot"], solution.shoot, "s"), frames


def asked(plan: Plan) -> dict[str, Fraction]:
    """Of work windows the frames or the clip that are held; layers have the last word."""
    return {name: value for name, value in holds_of(plan).items() if name in ("frames", "clip")}


def snags(plan: Plan, solution: solver.Solution) -> list[Snag]:
    """An interval that cannot be dialled; what else there is to mind belongs to prints and long runs."""
    return even.snags(plan, solution) if isinstance(plan.frames, Windows) else []
