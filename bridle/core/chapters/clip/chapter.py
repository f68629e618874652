"""The clip: how long, how often, how many; when; and what for."""

from collections.abc import Iterator, Sequence
from fractions import Fraction
from typing import Literal

from bridle.core.chapters.answer import Answer, answer
from bridle.core.chapters.clip import events, sentence, tied
from bridle.core.chapters.clip.clock import clock_figures
from bridle.core.chapters.clip.events import event_figures, event_snags
from bridle.core.chapters.clip.roundings import Rounding
from bridle.core.chapters.clip.sentence import Sentence
from bridle.core.chapters.clip.state import ClipState, QuantityState, RoundingNote
from bridle.core.figure import Figure
from bridle.core.plan.clip import QUANTITIES
from bridle.core.plan.document import Plan
from bridle.core.plan.words import LABELS, UNITS
from bridle.core.reckon.clip import holds_of
from bridle.core.reckon.printing import layered
from bridle.core.reckon.reckoning import Reckoning, Shooting
from bridle.core.snag import Snag
from bridle.core.subjects.time.starting_points import POINTS

KINDS = (*sentence.KINDS, *events.KINDS, *tied.KINDS)


def tell(known: Reckoning) -> Answer[ClipState]:
    """The sentence, and where it can be worked out the shoot on the clock."""
    words, shooting = known.ask(_words), known.shooting
    found: list[Figure | Snag] = [*words.figures, *words.snags]
    if shooting is not None:
        found += [*shooting.every(_on_the_clock), *shooting.every(_events)]
    return answer(known.ask(_state), [*found, *known.of_plan(tied.findings)])


def _words(known: Reckoning) -> Sentence:
    return sentence.sentence(known.plan)


def _on_the_clock(shooting: Shooting) -> list[Figure]:
    return clock_figures(shooting.plan, shooting.solution, shooting.timeline)


def _events(shooting: Shooting) -> Iterator[Figure | Snag]:
    shoot = shooting.plan, shooting.solution, shooting.timeline
    yield from event_figures(*shoot)
    yield from event_snags(*shoot)


def _state(known: Reckoning) -> ClipState:
    words = known.ask(_words)
    found, quantities = known.found, _quantities(known.plan, words)
    open_or_beyond = ("frames",) if known.shooting is None and not found.missing else found.missing
    return ClipState(
        state="contradiction" if found.conflict else _solved_or_not(known, words),
        quantities=quantities,
        missing=open_or_beyond,
        rounding=tuple(_note(each) for each in words.rounding),
        subject=_subject(known.plan, quantities),
        chosen=layered(known.plan) is None and known.plan.shoot.kind != "print",
    )


def _note(each: Rounding) -> RoundingNote:
    asked, got = float(each.asked), float(each.got)
    return RoundingNote(quantity=each.quantity, asked=asked, got=got, cause=each.cause, fixes=each.fixes)


def _subject(plan: Plan, quantities: Sequence[QuantityState]) -> Literal["shorter", "within", "longer"] | None:
    point = next((point for point in POINTS if point.key == plan.clip.subject), None)
    interval = next(quantity.value for quantity in quantities if quantity.quantity == "interval")
    if point is None or interval is None:
        return None
    if interval < point.low_s:
        return "shorter"
    return "longer" if interval > point.high_s else "within"


def _solved_or_not(known: Reckoning, words: Sentence) -> Literal["solved", "too many", "free"]:
    if known.shooting:
        return "solved"
    return "too many" if words.figures else "free"


def _quantities(plan: Plan, words: Sentence) -> tuple[QuantityState, ...]:
    holds, figures = holds_of(plan), {figure.key: figure for figure in words.figures}
    made = []
    for name in QUANTITIES:
        figure, held = figures.get(f"clip.{name}"), holds.get(name)
        value = Fraction(figure.exact) if figure and figure.exact else held
        made.append(
            QuantityState(
                quantity=name,
                label=LABELS[name],
                unit=UNITS[name],
                held=held is not None,
                value=None if value is None else float(value),
                exact=None if value is None else str(value),
                asked=None if held is None else float(held),
                pulls=words.pulls.get(name, ()),
            )
        )
    return tuple(made)
