"""The field card and its cautions, as the page draws them."""

from dataclasses import dataclass, field
from typing import Literal

from bridle.core.snag import Slot


@dataclass(frozen=True, slots=True, kw_only=True)
class SettingLine:
    """One thing to dial in or to do; the figure that explains it where there is one; a direction drawn as an arrow."""

    label: str
    value: Slot
    figure: str | None
    arrow: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class SettingSheet:
    """Settings that belong to one device or one moment; `about` is the axis that they are for, or `clocks`.

    The card is one sheet of paper; a list that is too long for it stands on a second one (`number`).
    """

    title: str
    about: str = ""
    number: int = 1
    settings: tuple[SettingLine, ...]


Ready = Literal["not ready", "ready but", "ready", "past"]


@dataclass(frozen=True, slots=True, kw_only=True)
class Doubt:
    """A check that could not be made, and the figure that is missing; the chapter in which it is typed."""

    what: str
    lacks: str
    chapter: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Readiness:
    """The judgement over a shoot: its sentence with slots, what could not be checked, and what was."""

    stands: Ready
    title: str
    slots: dict[str, Slot] = field(default_factory=dict)
    doubts: tuple[Doubt, ...] = ()
    checked: str = ""


@dataclass(frozen=True, slots=True, kw_only=True)
class ReviewState:
    """Settings to dial in, cautions in plain words, and whether the shoot is ready (None: not asked)."""

    sheets: tuple[SettingSheet, ...] = ()
    cautions: tuple[str, ...] = ()
    ready: Readiness | None = None
