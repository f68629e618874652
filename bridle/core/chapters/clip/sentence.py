"""How long, how often, how many: the clip from what is held."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from fractions import Fraction
from typing import Protocol

from bridle.core.asks.clip_offers import clip_fix, clip_fixes
from bridle.core.asks.pegs import changed, hold_only, peg, release, take_over, within
from bridle.core.chapters.clip import changing, counted, even
from bridle.core.chapters.clip.roundings import KINDS as ROUNDING_KINDS
from bridle.core.chapters.clip.roundings import Rounding, overrun, roundings
from bridle.core.figure import Figure
from bridle.core.plan.clip import QUANTITIES, RANGES, Quantity
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.words import LABELS, UNITS
from bridle.core.quantity import listed
from bridle.core.reckon.clip import find, holds_of, solved
from bridle.core.reckon.frames import windows
from bridle.core.reckon.frames.found import keep_of
from bridle.core.snag import Fix, Slot, Snag, SnagKind, slot
from bridle.core.subjects.time import sentence as solver
from bridle.core.subjects.time.sentence import Solution

FEWER_FRAMES = 100_000
CONTRADICT = SnagKind(
    "holds-contradict",
    "stop",
    "clip",
    "These pegs cannot all hold: {first} against {second}.",
    "No whole number of frames meets them within half a frame. Pull one peg and it follows from the others.",
)
TOO_FEW = SnagKind(
    "holds-too-few",
    "stop",
    "clip",
    "Still free: {free}.",
    "Three independent figures fix the rest; what is held so far leaves more than one answer.",
)
TOO_MANY = SnagKind(
    "too-many-frames",
    "stop",
    "clip",
    "{frames} are more than one shoot can hold here.",
    "Bridle works out up to a million frames; no card, shutter or clip has use for more.",
)
BEYOND = SnagKind(
    "beyond-range",
    "stop",
    "clip",
    "The {name} would come to {value}.",
    "{limit}.",
)
ODD_RATE = SnagKind(
    "rate-unusual",
    "note",
    "clip",
    "{rate} is not a rate that editing programs know.",
    "The frames will be read at a rate in common use, and the clip will last accordingly.",
)
KINDS = (CONTRADICT, TOO_FEW, TOO_MANY, BEYOND, *ROUNDING_KINDS, *even.KINDS, ODD_RATE, *changing.KINDS)
# What a group of holds is called in a contradiction.
_GROUPS = {
    ("frames",): "the held {frames}",
    ("clip", "rate"): "{clip} of clip at {rate}",
    ("shoot", "interval"): "{shoot} with one frame every {interval}",
    ("shoot", "rate", "speed_up"): "{shoot} at {rate}, {speed_up} faster than life",
    (
        "clip",
        "speed_up",
        "interval",
    ): "{clip} of clip, {speed_up} faster than life, one frame every {interval}",
    ("speed_up",): "the held {speed_up}",
    ("interval", "rate"): "one frame every {interval} at {rate}",
    ("shoot",): "the held {shoot}",
    ("interval",): "one frame every {interval} of the windows",
    ("speed_up", "clip"): "{clip} of clip, {speed_up} faster than life",
}
# What is proposed for a free quantity, the most usual first.
_PROPOSALS: tuple[tuple[Quantity, Fraction], ...] = (
    ("rate", Fraction(25)),
    ("interval", Fraction(10)),
    ("clip", Fraction(20)),
    ("shoot", Fraction(3600)),
    ("frames", Fraction(500)),
    ("speed_up", Fraction(250)),
)


class Told(Protocol):
    """How the sentence is told of a source of frames."""

    def figures(self, plan: Plan, solution: Solution) -> list[Figure]:
        """The six quantities with their working."""

    def asked(self, plan: Plan) -> dict[str, Fraction]:
        """The lengths that were asked for."""

    def snags(self, plan: Plan, solution: Solution) -> list[Snag]:
        """What to mind about the intervals."""


TOLD: dict[str, Told] = {"even": even, "changing": changing, "windows": counted, "layers": counted}


@dataclass(frozen=True)
class Sentence:
    """The sentence as it is told: what rounding did to held lengths (asked, got), figures and snags.

    `pulls` are the pegs that give way to each free quantity when it is typed over.
    """

    rounding: tuple[Rounding, ...] = ()
    figures: tuple[Figure, ...] = ()
    snags: tuple[Snag, ...] = ()
    pulls: Mapping[Quantity, tuple[Quantity, ...]] = field(default_factory=dict)


def sentence(plan: Plan) -> Sentence:
    """The sentence of a plan."""
    found, teller = find(plan), TOLD[plan.frames.source]
    if found.conflict is not None:
        return Sentence(snags=(_contradiction(plan, found.conflict),))
    if found.too_many and found.solution is None:
        return Sentence(snags=(_too_many(plan, found.frames),))
    if found.solution is None:
        # Why no window holds a frame is told where the windows are.
        return Sentence(snags=() if plan.frames.source == "windows" else (_too_few(plan, found.free),))
    figures, rounding = (
        tuple(teller.figures(plan, found.solution)),
        tuple(roundings(plan, teller.asked(plan), found.solution)),
    )
    limits = [_too_many(plan, found.frames)] if found.too_many else []
    limits += [_beyond(plan, found.solution, name) for name in found.beyond]
    if limits:
        return Sentence(rounding, figures, tuple(limits))
    snags = *teller.snags(plan, found.solution), *overrun(plan, teller.asked(plan), found.solution)
    return Sentence(rounding, figures, (*snags, *_odd_rate(plan, found.solution)), _pulls(plan, found.solution))


def _pulls(plan: Plan, solution: Solution) -> dict[Quantity, tuple[Quantity, ...]]:
    """Of an even interval or windows: which pegs give way to each quantity that is not held, typed over as it is."""
    if plan.frames.source not in ("even", "windows"):
        return {}
    held, made = holds_of(plan), {}
    for name in QUANTITIES:
        if name not in held:
            after = holds_of(changed(plan, within(plan, name, solution.value(name))))
            made[name] = tuple(other for other in QUANTITIES if other in held and other not in after)
    return made


def _contradiction(plan: Plan, against: solver.Conflict) -> Snag:
    holds = holds_of(plan)
    unit = UNITS[against.quantity]
    slots = {name: slot(holds[name], UNITS[name]) for name in against.names}
    slots |= {"one": slot(against.first_value, unit), "other": slot(against.second_value, unit)}
    first, second = (_GROUPS[group] for group in (against.first, against.second))
    said = CONTRADICT.what.replace("{first}", f"{first} ({{one}})").replace("{second}", f"{second} ({{other}})")
    fixes = [_pull(plan, names) for names in _resolving(plan, against.names)]
    return replace(CONTRADICT.at("clip.pegs", slots, fixes), what=said)


def _resolving(plan: Plan, names: tuple[str, ...]) -> list[tuple[str, ...]]:
    """The single pegs whose release ends the contradiction; where none does, the rest of one side together."""
    holds, keep = holds_of(plan), keep_of(plan.clip)
    if plan.frames.source == "windows":
        return [(name,) for name in names if name in windows.HELD and _agree_in_windows(plan, name)]
    singles = [(name,) for name in names if _agree(holds, (name,), keep)]
    pairs = [(a, b) for i, a in enumerate(plan.clip.pegs) for b in plan.clip.pegs[i + 1 :]]
    return singles or [(a.quantity, b.quantity) for a, b in pairs if _agree(holds, (a.quantity, b.quantity), keep)]  # type: ignore[return-value]


def _agree_in_windows(plan: Plan, without: str) -> bool:
    return find(changed(plan, release(plan, without))).conflict is None


def _agree(holds: dict[str, Fraction], without: tuple[str, ...], keep: Fraction) -> bool:
    return solver.conflict({name: value for name, value in holds.items() if name not in without}, keep) is None


def _pull(plan: Plan, names: tuple[str, ...]) -> Fix:
    edits: list[Edit] = []
    rest = plan
    for name in names:
        edits = release(rest, name)
        rest = changed(plan, edits)
    return clip_fix(plan, f"Pull the peg of the {listed([LABELS[name] for name in names])}", edits, {})


def _too_few(plan: Plan, free: tuple[str, ...]) -> Snag:
    after = plan
    added: dict[str, Slot] = {}
    edits: list[Edit] = []
    for name, value in _PROPOSALS:
        if name not in solver.known(holds_of(after)):
            edits, added[name] = peg(after, name, value), slot(value, UNITS[name])
            after = changed(plan, edits)
    label = "Hold " + listed([f"the {LABELS[name]} at {{{name}}}" for name in added])
    slots = {"free": slot(listed([LABELS[name] for name in free]))}
    return TOO_FEW.at("clip.pegs", slots, [clip_fix(plan, label, edits, added)])


def _too_many(plan: Plan, frames: int) -> Snag:
    fewer = {"fewer": slot(FEWER_FRAMES, "frames")}
    fixes = clip_fixes(plan, "Hold {fewer}", within(plan, "frames", Fraction(FEWER_FRAMES)), fewer)
    return TOO_MANY.at("clip.frames", {"frames": slot(frames, "frames")}, fixes)


def _beyond(plan: Plan, solution: Solution, name: Quantity) -> Snag:
    """A quantity that follows from what is held, but that no shoot can have."""
    limit, proposed = RANGES[name][2], dict(_PROPOSALS)[name]
    slots = {"name": slot(LABELS[name]), "value": slot(solution.value(name), UNITS[name])}
    slots["limit"] = slot(limit[0].upper() + limit[1:])
    usual = {"proposed": slot(proposed, UNITS[name])}
    fixes = clip_fixes(plan, f"Hold the {LABELS[name]} at {{proposed}}", within(plan, name, proposed), usual)
    return BEYOND.at(f"clip.{name}", slots, fixes)


def _odd_rate(plan: Plan, solution: Solution) -> list[Snag]:
    if solution.rate in solver.RATES:
        return []
    rate = solver.nearest_rate(solution.rate)
    edits = take_over(plan, "rate", rate)
    if solved(changed(plan, edits))[0] is None:
        # What is held leaves no other rate: the frames and their interval stay, and the clip follows.
        edits = hold_only({"rate": rate, "frames": Fraction(solution.frames), "interval": solution.interval})
    fixes = clip_fixes(plan, "Play at {usual}", edits, {"usual": slot(rate, "rate")})
    return [ODD_RATE.at("clip.rate", {"rate": slot(solution.rate, "rate")}, fixes)]
