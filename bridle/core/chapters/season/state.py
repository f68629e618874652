"""What the chapter Long run tells the page."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True, kw_only=True)
class RuleTold:
    """A rule as a sentence, its hours as they are typed, what it has of what it claims (hours), and its frames."""

    said: str
    opens: str
    closes: str
    claims_h: float
    has_h: float
    frames: int


@dataclass(frozen=True, slots=True, kw_only=True)
class DrawTold:
    """A consumer: watts on average and its share of all; `known` says whether its card has what that needs."""

    name: str
    watts: float
    share: float
    known: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class EntryTold:
    """An entry of a menu: what it is called, and what is put in."""

    name: str
    value: str


@dataclass(frozen=True, slots=True, kw_only=True)
class VisitTold:
    """A visit: when (Unix seconds, its day in ISO 8601, as it is said), what is done, brought and looked at.

    `late` are tasks that were due before; `off_wish` says that no wished day was left. `entries` are put into the
    controller's menu then.
    """

    at_s: float
    day: str
    said: str
    tasks: tuple[str, ...]
    brings: tuple[str, ...]
    checks: tuple[str, ...]
    opens_box: bool
    camera_out: bool
    off_wish: bool
    late: tuple[str, ...]
    entries: tuple[EntryTold, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class LevelsTold:
    """The two levels of a season, day by day, as parts in a thousand.

    `charge` is the lowest of each day, empty where nobody knows what is drawn; `fill` is how full the card is at the
    end of each day, empty without a card; `reserve` is what is kept free of it. `cloudy` are the first and the last of
    the cloudy days that are reckoned with; empty without a panel.
    """

    charge: tuple[int, ...] = ()
    fill: tuple[int, ...] = ()
    reserve: int = 0
    cloudy: tuple[int, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class MonthTold:
    """Of a month: what the panels give on a usual day and what is drawn on one, in Wh."""

    name: str
    given: float
    drawn: float


@dataclass(frozen=True, slots=True, kw_only=True)
class MenuTold:
    """The entries of a run, from one visit to another."""

    said: str
    entries: tuple[EntryTold, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class CountTold:
    """So many frames for a reason."""

    reason: str
    frames: int


@dataclass(frozen=True, slots=True, kw_only=True)
class TellingTold:
    """What a controller with rules of its own is told: its name, the runs, frames taken besides and missed."""

    name: str
    menus: tuple[MenuTold, ...]
    surplus: tuple[CountTold, ...]
    missing: tuple[CountTold, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class AimTold:
    """A comparison with the reference frame: its day, how far the picture had moved (pixels, degrees).

    The picture that all frames share begins at these pixels of the frames from that day on.
    """

    on: str
    said: str
    far_px: float
    far_deg: float
    left_px: int
    top_px: int


@dataclass(frozen=True, slots=True, kw_only=True)
class ObstacleTold:
    """Something that will stand in the view: from when (empty: never), its share at the end, in how many frames."""

    name: str
    enters: str
    share: float
    frames: int


@dataclass(frozen=True, slots=True, kw_only=True)
class GlareTold:
    """Days on which the sun stands in the picture, and between which minutes of the clock."""

    said: str
    days: int
    from_min: int
    to_min: int


@dataclass(frozen=True, slots=True, kw_only=True)
class SeasonState:
    """A long run; and where work windows call the frames, the rules and what they come to.

    `first` is the first day of the calendar (ISO 8601), `per_day` the frames of each day from there on. `inked` are the
    windows day by day, four numbers each: the day (from 0), from which minute of its clock, to which, and the rule.
    `sun` are sunrise and sunset (minutes of the clock, −1 where there is none) of every seventh day; empty where nobody
    knows the place. `off` says of each day whether it is one off. `fed_by` is what feeds it.
    """

    scheduled: bool = False
    long: bool = False
    rules: tuple[RuleTold, ...] = ()
    first: str = ""
    per_day: tuple[int, ...] = ()
    inked: tuple[int, ...] = ()
    sun: tuple[int, ...] = ()
    off: tuple[bool, ...] = ()
    fed_by: str = ""
    draws: tuple[DrawTold, ...] = ()
    levels: LevelsTold | None = None
    months: tuple[MonthTold, ...] = ()
    visits: tuple[VisitTold, ...] = ()
    telling: TellingTold | None = None
    aims: tuple[AimTold, ...] = ()
    obstacles: tuple[ObstacleTold, ...] = ()
    glare: tuple[GlareTold, ...] | None = None
