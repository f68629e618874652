"""Days as a person turns them on a calendar: a weekday of a rule, a day off, the ends of days off."""

from datetime import date, timedelta
from typing import Literal

from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, PathError, dump, look
from bridle.core.plan.frames import DaysOff, Windows

WEEK = range(7)
DAY = timedelta(days=1)
OFF = "frames.off"


def turn_weekday(plan: Plan, path: str, day: int) -> list[Edit]:
    """The edits that put a day of the week (0 is Monday) into a list or take it out; the last one stays.

    Raises `PathError` where no weekdays stand.
    """
    standing = look(dump(plan), path)
    if not path.endswith("weekdays") or not isinstance(standing, list) or day not in WEEK:
        raise PathError(f"there are no days of the week at “{path}”")
    turned = [one for one in WEEK if (one in standing) != (one == day)]
    return [Edit(path=path, value=turned or standing)]


def turn_day(plan: Plan, day: date) -> list[Edit]:
    """The edits that leave a day out of the calendar, joined to unnamed days off beside it; or that bring it back.

    Raises `PathError` without work windows.
    """
    off = _windows(plan).off
    one = next((days for days in off if days.first <= day <= days.last), None)
    if one is not None:
        parts = [one.model_copy(update={"last": day - DAY}), one.model_copy(update={"first": day + DAY})]
        left = [part for part in parts if part.first <= part.last]
        return _put([part for days in off for part in (left if days is one else [days])])
    before = next((days for days in off if not days.name and days.last == day - DAY), None)
    after = next((days for days in off if not days.name and days.first == day + DAY), None)
    joined = DaysOff(first=before.first if before else day, last=after.last if after else day)
    return _put([*(days for days in off if days is not before and days is not after), joined])


def stretch(plan: Plan, number: int, end: Literal["first", "last"], day: date) -> list[Edit]:
    """The edits that move an end of days off; it takes the other along where they would change places."""
    off = _windows(plan).off
    if number >= len(off):
        raise PathError("there are no such days off")
    one = off[number]
    first, last = (day, max(day, one.last)) if end == "first" else (min(day, one.first), day)
    fresh = one.model_copy(update={"first": first, "last": last})
    return _put([fresh if n == number else days for n, days in enumerate(off)])


def _windows(plan: Plan) -> Windows:
    if not isinstance(plan.frames, Windows):
        raise PathError("days off are those of work windows, and nothing else calls frames by the day")
    return plan.frames


def _put(off: list[DaysOff]) -> list[Edit]:
    return [Edit(path=OFF, value=[days.model_dump(mode="json") for days in off])]
