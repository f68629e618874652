"""Fixes that a plan can hold: whatever a card says, no fix leads beyond what may stand in a plan."""

from collections.abc import Iterable, Iterator
from dataclasses import replace

from pydantic import JsonValue, ValidationError

from bridle.core.plan.document import Plan
from bridle.core.plan.edit import PathError, apply
from bridle.core.snag import Fix, Snag

# Places with a narrower bound than these are minded where their fixes are made; trying each would cost much.
LARGE, LARGE_AS_TEXT = 9_999.0, 31 * 86_400.0
# Between these a date may stand in a plan.
YEARS = (1990, 2150)


def only_holdable(plan: Plan, snags: Iterable[Snag]) -> Iterator[Snag]:
    """The snags, without the fixes that cannot be made."""
    for snag in snags:
        if any(_large(fix) for fix in snag.fixes):
            snag = replace(snag, fixes=tuple(fix for fix in snag.fixes if not _large(fix) or _holds(plan, fix)))
        yield snag


def _large(fix: Fix) -> bool:
    return any(_beyond(edit.value) for edit in fix.edits)


def _beyond(value: JsonValue) -> bool:
    """Whether a large number, or a date far off, stands somewhere in a value; exact ones stand as text."""
    if isinstance(value, dict):
        return any(_beyond(each) for each in value.values())
    if isinstance(value, list):
        return any(_beyond(each) for each in value)
    if isinstance(value, str):
        year, dash, _ = value.partition("-")
        if dash and len(year) == 4 and year.isdigit():
            return not YEARS[0] < int(year) < YEARS[1]
        whole, _, part = value.partition("/")
        return whole.isdigit() and int(whole) > LARGE_AS_TEXT * int(part if part.isdigit() else 1)
    return isinstance(value, int | float) and abs(value) > LARGE


def _holds(plan: Plan, fix: Fix) -> bool:
    try:
        apply(plan, fix.edits)
    except (PathError, ValidationError):
        return False
    return True
