"""What the chapter Long run tells the page."""

from dataclasses import dataclass


@dataclass(slots=True, kw_only=True)
class RuleTold:
    """A rule as a sentence, its hours as they are typed, what it has of what it claims (hours), and its frames."""

    said: str
    opens: str
    closes: str
    claims_h: float
    has_h: float
    frames: int


@dataclass(slots=True, kw_only=True)
class SeasonState:
    """Where work windows call the frames: the rules, and what they come to.

    `first` is the first day of the calendar (ISO 8601), `per_day` the frames of each day from there on. `inked` are the
    windows day by day, four numbers each: the day (from 0), from which minute of its clock, to which, and the rule.
    `sun` are sunrise and sunset (minutes of the clock, −1 where there is none) of every seventh day; empty where nobody
    knows the place. `off` says of each day whether it is one off.
    """

    scheduled: bool = False
    rules: tuple[RuleTold, ...] = ()
    first: str = ""
    per_day: tuple[int, ...] = ()
    inked: tuple[int, ...] = ()
    sun: tuple[int, ...] = ()
    off: tuple[bool, ...] = ()
