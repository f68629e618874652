"""Frames that a controller takes besides the planned ones, and those that it misses, as CSV."""

from collections.abc import Iterator
from datetime import UTC, datetime
from zoneinfo import ZoneInfo

from bridle.core.plan.document import Plan
from bridle.core.reckon.reckoning import reckon
from bridle.core.reckon.season.season import staying
from bridle.core.reckon.season.told import in_its_own_words, told_frames
from bridle.formats.csv_lines import csv_line
from bridle.formats.nothing import NothingToWriteError

HEADER = ["clock", "utc", "frame"]


def write_told(plan: Plan) -> Iterator[str]:
    """The table, line by line, in the order of time. Raises `NothingToWriteError` where nothing is told otherwise."""
    shooting = reckon(plan).shooting
    stay = staying(shooting) if shooting else None
    if shooting is None or stay is None or in_its_own_words(plan) is None:
        raise NothingToWriteError("what calls the frames is told the windows as they are, or there are none")
    found = told_frames(plan, shooting.timeline, stay.menus).compared
    rows = [(at, "besides") for at in found.surplus.tolist()] + [(at, "missed") for at in found.missing.tolist()]
    return _lines(sorted(rows), ZoneInfo(plan.shoot.place.zone))


def _lines(rows: list[tuple[float, str]], zone: ZoneInfo) -> Iterator[str]:
    yield csv_line(HEADER)
    for at, what in rows:
        moment = datetime.fromtimestamp(round(at), UTC)
        yield csv_line([moment.astimezone(zone).isoformat(), moment.isoformat(), what])
