"""Snags: what is wrong or worth minding, why, and fixes that work."""

import re
from dataclasses import dataclass
from datetime import date, datetime
from fractions import Fraction
from typing import Literal
from zoneinfo import ZoneInfo

from bridle.core.plan.edit import Edit
from bridle.core.quantity import spoken, write

# Plain dataclasses, as figures are: an evaluation makes a hundred of them, and each would be checked once more.
Severity = Literal["stop", "mind", "note"]
# To write the changed file of a print, and to prove it.
Work = Literal["", "prove"]
SEVERITIES: tuple[Severity, ...] = ("stop", "mind", "note")


@dataclass(frozen=True, slots=True)
class Slot:
    """A value named in a sentence: a number with its unit, or a word."""

    value: float | str
    unit: str = ""


@dataclass(frozen=True, slots=True)
class Fix:
    """What can be done, what it will change, and the edits that do it."""

    label: str
    consequence: str
    slots: dict[str, Slot]
    edits: tuple[Edit, ...]


@dataclass(frozen=True, slots=True)
class Snag:
    """One finding. `what` and `why` are sentences with `{slots}` in them; `path` is the place in the plan.

    `work` is what takes it away and is no change of the plan; whoever shows the snag begins it.
    `short` says it in a few words where the move suffers it, for the foot of the plan drawing; empty for all others.
    """

    code: str
    severity: Severity
    chapter: str
    path: str
    what: str
    why: str
    slots: dict[str, Slot]
    fixes: tuple[Fix, ...]
    short: str = ""
    work: Work = ""


@dataclass(frozen=True)
class SnagKind:
    """A kind of snag, declared once in its chapter; docs/snags.md is written from these."""

    code: str
    severity: Severity
    chapter: str
    what: str
    why: str
    short: str = ""
    work: Work = ""

    def at(self, path: str, slots: dict[str, Slot], fixes: list[Fix]) -> Snag:
        """A snag of this kind at a place of the plan."""
        return Snag(
            code=self.code,
            severity=self.severity,
            chapter=self.chapter,
            path=path,
            what=self.what,
            why=self.why,
            slots=slots,
            fixes=tuple(fixes),
            short=self.short,
            work=self.work,
        )


def slot(value: float | Fraction | str, unit: str = "") -> Slot:
    """A slot from a number or a word."""
    return Slot(value=value if isinstance(value, str) else float(value), unit=unit)


def at_clock(unix_s: float, start: datetime, zone: str) -> Slot:
    """A clock time as a slot: with its day, and with its year, where the shoot starts on another day or in another."""
    here = ZoneInfo(zone)
    return slot(unix_s, clock_unit(datetime.fromtimestamp(unix_s, here).date(), start.astimezone(here).date()))


def clock_unit(day: date, start: date) -> Literal["instant", "moment", "dated"]:
    """What a clock time has to be told with: nothing, its day, or its day and year."""
    if day == start:
        return "instant"
    return "moment" if day.year == start.year else "dated"


# “The my head”, “a the rail”: what somebody has called a card begins like that.
TWO_ARTICLES = re.compile(r"\b([Tt]he|[Aa]n?) ((?i:my|our|your|his|her|their|the|an?))(?= )")


def fill(sentence: str, slots: dict[str, Slot], zone: str = "UTC") -> str:
    """The sentence with its slots written out; a name that brings an article or an owner along needs no other."""
    words = {
        name: s.value if isinstance(s.value, str) else write(spoken(s.value, s.unit), s.unit, zone)
        for name, s in slots.items()
    }
    said = TWO_ARTICLES.sub(_one_article, sentence.format_map(words))
    # A name that somebody has given begins a sentence as anything else does.
    return said[:1].upper() + said[1:] if sentence.startswith("{") and sentence.endswith(".") else said


def _one_article(found: re.Match[str]) -> str:
    return found[2].capitalize() if found[1][0].isupper() else found[2]


def worst(snags: list[Snag]) -> list[Snag]:
    """The snags, those that stop a shoot first; order within a severity is kept."""
    return sorted(snags, key=lambda snag: SEVERITIES.index(snag.severity))
