"""The shoot on the clock: first and last frame, finish, press, errands."""

from collections.abc import Iterator
from datetime import datetime
from typing import TypeAlias

from bridle.core.figure import Figure, Formula, Term, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.wired import Battery
from bridle.core.reckon.timeline import Timeline, instant
from bridle.core.snag import clock_unit
from bridle.core.subjects.time.sentence import Solution

FIRST_HELD = Formula("held", "held by the clock, as typed")
OPENS = Formula("opens", "the first work window opens then")
FIRST = Formula("finish - shoot", "the finish is held: the shoot ends there")
LAST = Formula("start + (frames - 1) * interval", "the last shutter opens one interval before the end")
LAST_RAMPED = Formula("finish - last", "the last shutter opens one slot before the end")
FINISH = Formula("start + frames * interval", "every frame owns one slot, the last one too")
FINISH_RAMPED = Formula("start + shoot", "the slots of all frames, one after another")
PRESS = Formula("start - delay", "the delay runs from the press to the first frame")
EARLIEST = Formula("start + shoot * (1 - spread)", "if every frame is called that much early")
LATEST = Formula("start + shoot * (1 + spread)", "if every frame is called that much late")

CHARGE = Formula("next - length", "full before the first errand")
# A formula with its terms.
Rule: TypeAlias = "tuple[Formula, *tuple[Term, ...]]"


def clock_figures(plan: Plan, solution: Solution, times: Timeline) -> list[Figure]:
    """First and last frame, finish, press, errands, and how far the finish may come early or late."""
    return [
        *_ends(plan, solution, times),
        *_press(plan, times.start),
        *_charging(plan, times.start),
        *_range(plan, solution, times.start),
    ]


def unit(at: datetime, start: datetime) -> str:
    """A clock time of the day on which the shoot starts, or with its own day, or with that and its year."""
    return clock_unit(at.astimezone(start.tzinfo).date(), start.date())


def at_term(symbol: str, label: str, at: datetime) -> Term:
    """An instant as a term of a formula."""
    return term(symbol, label, at.timestamp(), "instant")


def _ends(plan: Plan, solution: Solution, times: Timeline) -> Iterator[Figure]:
    """When the first frame, the last one, and the end are."""
    start, finish, last = times.start, times.clock(times.frames), times.clock(times.frames - 1)
    shoot, first = term("shoot", "shoot length", solution.shoot, "s"), at_term("start", "first frame", start)
    frames, interval = (
        term("frames", "frames", times.frames, "frames"),
        term("interval", "interval", times.interval_s, "s"),
    )
    held = (FIRST_HELD, at_term("held", f"{plan.shoot.clock.holds}, held", plan.shoot.clock.at))
    starts: Rule = held
    ends: Rule = (FINISH, first, frames, interval) if times.even else (FINISH_RAMPED, first, shoot)
    if plan.frames.source == "windows":
        starts = (OPENS, at_term("opens", "first work window opens", start))
    elif plan.shoot.clock.holds == "finish":
        starts, ends = (FIRST, at_term("finish", "finish, held", finish), shoot), held
    slot = term("last", "slot of the last frame", finish.timestamp() - last.timestamp(), "s")
    opens: Rule = (
        (LAST, first, frames, interval) if times.even else (LAST_RAMPED, at_term("finish", "finish", finish), slot)
    )
    yield figure("time.first", "first frame", start.timestamp(), "instant", *starts)
    yield figure("time.last", "last frame", last.timestamp(), unit(last, start), *opens)
    yield figure("time.finish", "finished", finish.timestamp(), unit(finish, start), *ends)


def _press(plan: Plan, start: datetime) -> Iterator[Figure]:
    """When to press start, and the errands before it, counted backwards."""
    clock, zone = plan.shoot.clock, plan.shoot.place.zone
    delay = term("delay", "start delay", clock.start_delay_s, "s")
    at = instant(start, -clock.start_delay_s, zone)
    yield figure(
        "time.press",
        "press start",
        at.timestamp(),
        unit(at, start),
        PRESS,
        at_term("start", "first frame", start),
        delay,
    )
    after = "press start"
    for number in reversed(range(len(clock.errands))):
        errand = clock.errands[number]
        rule = Formula("next - length", f"done before it is time to {after}")
        terms = (at_term("next", after, at), term("length", errand.name, errand.length_s, "s"))
        at, after = instant(at, -errand.length_s, zone), errand.name
        yield figure(f"time.errand.{number}", errand.name, at.timestamp(), unit(at, start), rule, *terms)


def _charging(plan: Plan, start: datetime) -> Iterator[Figure]:
    """When each battery has to go onto its charger, to be full before the first errand."""
    clock, zone = plan.shoot.clock, plan.shoot.place.zone
    before = instant(start, -clock.start_delay_s - sum(one.length_s for one in clock.errands), zone)
    for number, copy in enumerate(plan.kit.copies):
        if not isinstance(copy.card, Battery) or not copy.card.charges_s:
            continue
        at = instant(before, -copy.card.charges_s, zone)
        terms = (
            at_term("next", "the first errand", before),
            term("length", f"the {copy.card.name} charges in", copy.card.charges_s, "s"),
        )
        label = f"charge the {copy.card.name}"
        yield figure(f"time.charge.{number}", label, at.timestamp(), unit(at, start), CHARGE, *terms)


def _range(plan: Plan, solution: Solution, start: datetime) -> Iterator[Figure]:
    """The earliest and the latest finish where an event calls the frames."""
    if plan.clip.called_by == "clock" and plan.frames.source != "layers":
        return
    spread = plan.clip.event_spread
    terms = (
        at_term("start", "first frame", start),
        term("shoot", "shoot length", solution.shoot, "s"),
        term("spread", "frames come early or late by", spread, "share"),
    )
    for name, label, rule, factor in (
        ("earliest", "finished at the earliest", EARLIEST, 1 - spread),
        ("latest", "finished at the latest", LATEST, 1 + spread),
    ):
        at = instant(start, solution.shoot * factor, plan.shoot.place.zone)
        yield figure(f"time.{name}", label, at.timestamp(), unit(at, start), rule, *terms)
