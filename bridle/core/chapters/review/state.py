"""The field card and its cautions, as the page draws them."""

from bridle.core.chapters.answer import State
from bridle.core.snag import Slot


class SettingLine(State):
    """One thing to dial in or to do; the figure that explains it where there is one."""

    label: str
    value: Slot
    figure: str | None


class SettingSheet(State):
    """Settings that belong to one device or one moment."""

    title: str
    settings: tuple[SettingLine, ...]


class ReviewState(State):
    """Settings to dial in, and cautions in plain words."""

    sheets: tuple[SettingSheet, ...] = ()
    cautions: tuple[str, ...] = ()
