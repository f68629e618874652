"""Which revisions stay: all of a day, then one an hour, one a day, one a week."""

from collections.abc import Iterable
from datetime import datetime, timedelta

HOUR, DAY, WEEK = timedelta(hours=1), timedelta(days=1), timedelta(weeks=1)
# Up to this age one is kept in every so long a time; older ones by the week.
STEPS = ((DAY, timedelta(0)), (WEEK, HOUR), (8 * WEEK, DAY))


def step_at(age: timedelta) -> timedelta:
    """How far apart the revisions of an age lie; nought where each is kept."""
    return next((step for oldest, step in STEPS if age <= oldest), WEEK)


def superfluous(made: Iterable[tuple[int, datetime]], now: datetime) -> list[int]:
    """The numbers of those revisions (number, when it was made) that need not be kept; the last of each time stays."""
    seen: set[tuple[timedelta, int]] = set()
    gone = []
    for number, at in sorted(made, key=lambda one: one[1], reverse=True):
        step = step_at(now - at)
        if not step:
            continue
        time = (step, int(at.timestamp() // step.total_seconds()))
        if time in seen:
            gone.append(number)
        seen.add(time)
    return gone
