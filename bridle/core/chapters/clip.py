"""How long, how often, how many: the clip from what is held."""

from dataclasses import dataclass, field
from fractions import Fraction
from functools import lru_cache
from typing import Literal

from bridle.core.chapters.clip_figures import clip_figures
from bridle.core.chapters.clip_ramp import RAMP_KINDS, ramp_figures, ramp_snags, ramp_solution
from bridle.core.chapters.holding import (
    PEGS_PATH,
    changed,
    holds_of,
    keep_of,
    peg,
    release,
    segments_of,
    take_over,
    within,
)
from bridle.core.chapters.words import LABELS, UNITS, listed
from bridle.core.figure import Figure
from bridle.core.plan.clip import RANGES, Clip, Peg, Quantity
from bridle.core.plan.edit import Edit
from bridle.core.snag import Fix, Slot, Snag, SnagKind, slot
from bridle.core.subjects import clip as solver
from bridle.core.subjects import pacing
from bridle.core.subjects.rounding import ceil_to, floor_to

MOST_FRAMES = 1_000_000
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
OFF_STEP = SnagKind(
    "interval-off-step",
    "mind",
    "clip",
    "An interval of {interval} cannot be dialled.",
    "The interval is set in steps of {step}; what is dialled instead changes the end of the shoot.",
)
ODD_RATE = SnagKind(
    "rate-unusual",
    "note",
    "clip",
    "{rate} is not a rate that editing programs know.",
    "The frames will be read at a rate in common use, and the clip will last accordingly.",
)
KINDS = (CONTRADICT, TOO_FEW, TOO_MANY, BEYOND, OFF_STEP, ODD_RATE, *RAMP_KINDS)

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


@dataclass(frozen=True)
class Rounding:
    """What rounding to whole frames did to a held length, in seconds."""

    quantity: Literal["shoot", "clip"]
    asked: Fraction
    got: Fraction


@dataclass(frozen=True)
class ClipAnswer:
    """The solution, or why there is none; with the pace of the frames where the interval changes."""

    solution: solver.Solution | None
    pace: pacing.Pace | None = None
    free: tuple[str, ...] = ()
    contradiction: tuple[str, ...] = ()
    rounding: tuple[Rounding, ...] = ()
    figures: list[Figure] = field(default_factory=list)
    snags: list[Snag] = field(default_factory=list)

    @property
    def missing(self) -> tuple[str, ...]:
        """The quantities that keep the other chapters from answering."""
        return self.free or self.contradiction


@lru_cache(maxsize=8)
def answer(clip: Clip) -> ClipAnswer:
    """Solve the clip, or say what contradicts or is free. The same clip stands in one plan after another of a drag."""
    if clip.ramped:
        return _ramped(clip)
    holds, keep = holds_of(clip), keep_of(clip)
    against = solver.conflict(holds, keep)
    if against is not None:
        return ClipAnswer(None, contradiction=against.names, snags=[_contradiction(clip, against)])
    free = solver.still_free(holds)
    if free:
        return ClipAnswer(None, free=free, snags=[_too_few(clip, free)])
    solution = solver.solve(holds, clip.interval_step_s, keep)
    figures = clip_figures(holds, solution, clip.interval_step_s, clip.spare)
    rounding = _roundings(holds, solution)
    limits = [*_too_many(clip, solution.frames), *_beyond(clip, solution)]
    if limits:
        return ClipAnswer(None, None, ("frames",), (), rounding, figures, limits)
    snags = [*_off_step(clip, solution), *_odd_rate(clip, solution)]
    return ClipAnswer(solution, None, (), (), rounding, figures, snags)


def _ramped(clip: Clip) -> ClipAnswer:
    """The clip of an interval that changes: frames and lengths come from its segments."""
    too_many = _too_many(clip, sum(pacing.counts(segments_of(clip))))
    if too_many:
        return ClipAnswer(None, None, ("frames",), snags=too_many)
    solution, pace = ramp_solution(clip)
    figures = ramp_figures(clip, solution, pace)
    asked = sum((one.length_s for one in clip.ramp.segments), start=Fraction(0))
    rounding = (Rounding("shoot", asked, solution.shoot),) if asked != solution.shoot else ()
    beyond = _beyond(clip, solution)
    if beyond:
        return ClipAnswer(None, None, ("frames",), (), rounding, figures, beyond)
    snags = [*ramp_snags(clip, pace), *_odd_rate(clip, solution)]
    return ClipAnswer(solution, pace, (), (), rounding, figures, snags)


def solved(clip: Clip) -> tuple[solver.Solution | None, tuple[str, ...]]:
    """The solution alone, or the quantities that contradict or are free; without figures and snags."""
    if clip.ramped:
        few = sum(pacing.counts(segments_of(clip))) <= MOST_FRAMES
        return (ramp_solution(clip)[0], ()) if few else (None, ("frames",))
    holds, keep = holds_of(clip), keep_of(clip)
    against = solver.conflict(holds, keep)
    missing = against.names if against else solver.still_free(holds)
    return (None, missing) if missing else (solver.solve(holds, clip.interval_step_s, keep), ())


def _roundings(holds: dict[str, Fraction], solution: solver.Solution) -> tuple[Rounding, ...]:
    shoot = Rounding("shoot", holds.get("shoot", solution.shoot), solution.shoot)
    clip = Rounding("clip", holds.get("clip", solution.clip), solution.clip)
    return tuple(one for one in (shoot, clip) if one.asked != one.got)


def outcome(clip: Clip, edits: list[Edit]) -> tuple[str, dict[str, Slot]]:
    """What a change of pegs makes of the clip, as a sentence with slots."""
    after = changed(clip, edits)
    solution, missing = solved(after)
    if solution is None:
        return f"Leaves {listed([LABELS[name] for name in missing])} open.", {}
    released = set(holds_of(clip)) - set(holds_of(after))
    pulled = f"{listed([LABELS[n] for n in sorted(released)]).capitalize()} no longer held. " if released else ""
    slots = {f"new_{name}": slot(solution.value(name), UNITS[name]) for name in solver.NAMES}
    return pulled + "{new_frames}, one every {new_interval}, {new_shoot} on site, {new_clip} of clip.", slots


def clip_fix(clip: Clip, label: str, edits: list[Edit], slots: dict[str, Slot]) -> Fix:
    """A fix that changes the pegs, with what it makes of the clip."""
    consequence, more = outcome(clip, edits)
    return Fix(label=label, consequence=consequence, slots={**slots, **more}, edits=tuple(edits))


def clip_fixes(clip: Clip, label: str, edits: list[Edit], slots: dict[str, Slot]) -> list[Fix]:
    """The fix that makes these edits; none where there are no edits to make."""
    return [clip_fix(clip, label, edits, slots)] if edits else []


def at_most(clip: Clip, longest: Fraction) -> list[Edit]:
    """The pegs or segments with which the shoot lasts no longer, whatever the rounding does; none for nought."""
    if longest <= RANGES["shoot"][0]:
        return []
    for shoot in (longest, longest * Fraction(9, 10), longest / 2):
        edits = within(clip, "shoot", shoot)
        solution, _ = solved(changed(clip, edits))
        if edits and solution is not None and solution.shoot <= longest:
            return edits
    # The rate alone is kept; the shoot is shared among a usual number of frames.
    pegs = [Peg(quantity="rate", value=holds_of(clip).get("rate", Fraction(25)))]
    pegs += [Peg(quantity="shoot", value=longest), Peg(quantity="frames", value=Fraction(100))]
    return [Edit(path=PEGS_PATH, value=[one.model_dump(mode="json") for one in pegs])]


def _contradiction(clip: Clip, against: solver.Conflict) -> Snag:
    holds = holds_of(clip)
    unit = UNITS[against.quantity]
    slots = {name: slot(holds[name], UNITS[name]) for name in against.names}
    slots |= {"one": slot(against.first_value, unit), "other": slot(against.second_value, unit)}
    first, second = (_GROUPS[group] for group in (against.first, against.second))
    said = CONTRADICT.what.replace("{first}", f"{first} ({{one}})").replace("{second}", f"{second} ({{other}})")
    fixes = [_pull(clip, names) for names in _resolving(clip, against.names)]
    return CONTRADICT.at("clip.pegs", slots, fixes).model_copy(update={"what": said})


def _resolving(clip: Clip, names: tuple[str, ...]) -> list[tuple[str, ...]]:
    """The single pegs whose release ends the contradiction; where none does, the rest of one side together."""
    holds, keep = holds_of(clip), keep_of(clip)
    singles = [(name,) for name in names if _agree(holds, (name,), keep)]
    pairs = [(a, b) for i, a in enumerate(clip.pegs) for b in clip.pegs[i + 1 :]]
    return singles or [(a.quantity, b.quantity) for a, b in pairs if _agree(holds, (a.quantity, b.quantity), keep)]  # type: ignore[return-value]


def _agree(holds: dict[str, Fraction], without: tuple[str, ...], keep: Fraction) -> bool:
    return solver.conflict({name: value for name, value in holds.items() if name not in without}, keep) is None


def _pull(clip: Clip, names: tuple[str, ...]) -> Fix:
    edits: list[Edit] = []
    rest = clip
    for name in names:
        edits = release(rest, name)
        rest = changed(clip, edits)
    return clip_fix(clip, f"Pull the peg of the {listed([LABELS[name] for name in names])}", edits, {})


def _too_few(clip: Clip, free: tuple[str, ...]) -> Snag:
    after = clip
    added: dict[str, Slot] = {}
    edits: list[Edit] = []
    for name, value in _PROPOSALS:
        if name not in solver.known(holds_of(after)):
            edits, added[name] = peg(after, name, value), slot(value, UNITS[name])
            after = changed(clip, edits)
    label = "Hold " + listed([f"the {LABELS[name]} at {{{name}}}" for name in added])
    slots = {"free": slot(listed([LABELS[name] for name in free]))}
    return TOO_FEW.at("clip.pegs", slots, [clip_fix(clip, label, edits, added)])


def _too_many(clip: Clip, frames: int) -> list[Snag]:
    if frames <= MOST_FRAMES:
        return []
    fewer = {"fewer": slot(FEWER_FRAMES, "frames")}
    fixes = clip_fixes(clip, "Hold {fewer}", within(clip, "frames", Fraction(FEWER_FRAMES)), fewer)
    return [TOO_MANY.at("clip.frames", {"frames": slot(frames, "frames")}, fixes)]


def _beyond(clip: Clip, solution: solver.Solution) -> list[Snag]:
    """Quantities that follow from what is held, but that no shoot can have."""
    found = []
    for name, proposed in _PROPOSALS:
        low, high, limit = RANGES[name]
        if name != "frames" and not low < solution.value(name) <= high:
            slots = {"name": slot(LABELS[name]), "value": slot(solution.value(name), UNITS[name])}
            slots["limit"] = slot(limit[0].upper() + limit[1:])
            label = f"Hold the {LABELS[name]} at {{proposed}}"
            usual = {"proposed": slot(proposed, UNITS[name])}
            fixes = clip_fixes(clip, label, within(clip, name, proposed), usual)
            found.append(BEYOND.at(f"clip.{name}", slots, fixes))
    return found


def _off_step(clip: Clip, solution: solver.Solution) -> list[Snag]:
    step = clip.interval_step_s
    if step == 0 or (solution.interval / step).denominator == 1:
        return []
    slots = {"interval": slot(solution.interval, "s"), "step": slot(step, "s")}
    fixes: list[Fix] = []
    for value in dict.fromkeys((floor_to(solution.interval, step), ceil_to(solution.interval, step))):
        if value > 0:
            fixes += clip_fixes(clip, "Dial {dial}", within(clip, "interval", value), {"dial": slot(value, "s")})
    return [OFF_STEP.at("clip.interval", slots, fixes)]


def _odd_rate(clip: Clip, solution: solver.Solution) -> list[Snag]:
    if solution.rate in solver.RATES:
        return []
    rate = solver.nearest_rate(solution.rate)
    fix = clip_fix(clip, "Play at {usual}", take_over(clip, "rate", rate), {"usual": slot(rate, "rate")})
    return [ODD_RATE.at("clip.rate", {"rate": slot(solution.rate, "rate")}, [fix])]
