"""Making the lines and sections of the field card."""

from collections.abc import Iterable

from bridle.core.chapters.review.state import SettingLine, SettingSheet
from bridle.core.snag import Slot


def line(label: str, value: Slot, figure: str | None = None, arrow: str = "") -> SettingLine:
    """One thing to dial in or to do, with the figure that explains it, and a direction to be drawn."""
    return SettingLine(label=label, value=value, figure=figure, arrow=arrow)


def sheet(title: str, settings: Iterable[SettingLine], about: str = "", number: int = 1) -> SettingSheet:
    """A section of the card, on its first or its second sheet."""
    return SettingSheet(title=title, about=about, number=number, settings=tuple(settings))


def some(title: str, settings: Iterable[SettingLine]) -> list[SettingSheet]:
    """A section where there is anything to put into it."""
    made = tuple(settings)
    return [sheet(title, made)] if made else []
