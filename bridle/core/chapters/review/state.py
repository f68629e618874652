"""The field card and its cautions, as the page draws them."""

from dataclasses import dataclass

from bridle.core.snag import Slot


@dataclass(slots=True, kw_only=True)
class SettingLine:
    """One thing to dial in or to do; the figure that explains it where there is one."""

    label: str
    value: Slot
    figure: str | None


@dataclass(slots=True, kw_only=True)
class SettingSheet:
    """Settings that belong to one device or one moment; `about` is the axis that they are for, or `clocks`."""

    title: str
    about: str = ""
    settings: tuple[SettingLine, ...]


@dataclass(slots=True, kw_only=True)
class ReviewState:
    """Settings to dial in, and cautions in plain words."""

    sheets: tuple[SettingSheet, ...] = ()
    cautions: tuple[str, ...] = ()
