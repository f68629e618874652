"""What a controller that nobody watches does by itself: its clock drifts, and the power comes back after a cut."""

from collections.abc import Iterator

from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.kit import Body, Phone
from bridle.core.plan.wired import Trigger
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.season.visits import MILLION, schedule_of
from bridle.core.snag import Fix, Snag, SnagKind, slot

UNTRIED = SnagKind(
    "restart-not-tried",
    "note",
    "season",
    "Nobody knows what the {device} does when the power comes back.",
    "A cut of a second can end a shoot of months: pull the plug once, at home, while it is running.",
)
STAYS_OFF = SnagKind(
    "does-not-restart",
    "mind",
    "season",
    "After a power cut the {device} {does}.",
    "No frame is right from then on until somebody comes.",
)
OVERWRITES = SnagKind(
    "numbers-overwrite",
    "stop",
    "season",
    "After a power cut the {device} numbers its files from the beginning and writes over those that are there.",
    "Of the weeks before nothing is left on the card.",
)
KINDS = (UNTRIED, STAYS_OFF, OVERWRITES)
DRIFT = Formula("ppm * shoot / 1000000", "so many seconds in a million")
DOES = {"forgets its settings": "has forgotten its settings", "stays off": "stays off"}


def findings(shooting: Shooting) -> Iterator[Figure | Snag]:
    """The clock, and each device that has to come back."""
    plan = shooting.plan
    schedule = schedule_of(plan)
    if schedule is not None and schedule.clock_ppm is not None:
        length = float(shooting.timeline.end_s)
        terms = term("ppm", "its clock", schedule.clock_ppm, "ppm"), term("shoot", "shoot length", length, "s")
        drift = schedule.clock_ppm * length / MILLION
        yield figure("season.drift", "its clock is off at the end by up to", drift, "s", DRIFT, *terms)
    yield from _cuts(plan)


def _cuts(plan: Plan) -> Iterator[Snag]:
    seen: set[str] = set()
    for index, copy in enumerate(plan.kit.copies):
        card = copy.card
        if not isinstance(card, Body | Phone | Trigger) or card.kind in seen:
            continue
        seen.add(card.kind)
        path, named = f"kit.copies.{index}.card", {"device": slot(card.name)}
        if card.after_cut == "not known":
            yield UNTRIED.at(f"{path}.after_cut", named, [_tried(path)])
        elif card.after_cut != "goes on":
            slots = {**named, "does": slot(DOES[card.after_cut])}
            yield STAYS_OFF.at(f"{path}.after_cut", slots, [_another(path)])
        if isinstance(card, Trigger) and card.schedule is not None and card.schedule.numbers == "overwrite":
            yield OVERWRITES.at(f"{path}.schedule.numbers", named, [_numbers(path)])


def _tried(path: str) -> Fix:
    return Fix(
        label="Tried: it goes on with its settings",
        consequence="Only if somebody has pulled the plug while it was running.",
        slots={},
        edits=(Edit(path=f"{path}.after_cut", value="goes on"),),
    )


def _another(path: str) -> Fix:
    return Fix(
        label="Plan with one that goes on by itself",
        consequence="Another device, or one that is kept running through cuts by a battery of its own.",
        slots={},
        edits=(Edit(path=f"{path}.after_cut", value="goes on"),),
    )


def _numbers(path: str) -> Fix:
    return Fix(
        label="Its files have the date in their names",
        consequence="Where its menu has that: then no name comes twice.",
        slots={},
        edits=(Edit(path=f"{path}.schedule.numbers", value="go on"),),
    )
