"""The hours of a long run on the field card: from when to when, by which rules, and what its controller is told."""

from collections.abc import Sequence
from datetime import date

from bridle.core.chapters.review.lines import line, sheet, some
from bridle.core.chapters.review.state import SettingSheet
from bridle.core.plan.document import Plan
from bridle.core.plan.frames import Windows
from bridle.core.plan.hours import day_said, rule_said
from bridle.core.snag import slot

# A run of a controller: when it is told, and its entries by name and value.
Told = tuple[str, Sequence[tuple[str, str]]]
# So many rules and runs stand on the card; more of them on the list of visits.
MOST_RULES, MOST_RUNS = 6, 2


def hours(plan: Plan, told: Sequence[Told]) -> list[SettingSheet]:
    """Nothing of a shoot without work windows."""
    frames = plan.frames
    if not isinstance(frames, Windows):
        return []
    days = slot(_span(frames.first, frames.last))
    rules = [line(f"rule {number}", slot(rule_said(rule))) for number, rule in enumerate(frames.rules[:MOST_RULES], 1)]
    more = len(frames.rules) - MOST_RULES
    if more > 0:
        rules.append(line("and", slot(f"{more} more in the plan")))
    off = [line("off", slot(_span(one.first, one.last))) for one in frames.off[:MOST_RULES]]
    runs = [
        sheet(
            f"Put into the controller, {said[:1].lower()}{said[1:]}",
            (line(name, slot(value)) for name, value in entries),
        )
        for said, entries in told[:MOST_RUNS]
    ]
    if len(told) > MOST_RUNS:
        runs += some("Put in later", [line("at visits", slot(f"{len(told) - MOST_RUNS} times, on the list of visits"))])
    return [*some("Hours", [line("days", days), *rules, *off]), *runs]


def _span(first: date, last: date) -> str:
    return day_said(first) if first == last else f"{day_said(first)} to {day_said(last)}"
