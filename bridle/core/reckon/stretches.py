"""Stretches of frames on the clock, in words: each, or those that come day after day together."""

import itertools
from collections.abc import Iterator, Sequence
from datetime import datetime

from bridle.core.quantity import listed
from bridle.core.reckon.timeline import Timeline

Stretch = tuple[datetime, datetime]
# So many are told one by one, and so many groups of days.
FEW, MOST_GROUPS = 3, 4
# From how many days on they are told together.
LEAST_DAYS = 3


def on_the_clock(times: Timeline, runs: Sequence[tuple[int, int]]) -> str:
    """When runs of frames (first and last, 0-based) are: `from 21:05 to 22:10`, or as they come each evening."""
    stretches = [(times.clock(first), times.clock(last)) for first, last in runs]
    if not stretches:
        return ""
    several = stretches[0][0].date() != stretches[-1][1].date()
    if len(stretches) <= FEW:
        return listed([_once(stretch, several) for stretch in stretches])
    groups = list(_groups(stretches))
    said = [_together(group) for group in groups[:MOST_GROUPS]]
    left = sum(len(group) for group in groups[MOST_GROUPS:])
    return "; ".join([*said, *([f"{left} times more"] if left else [])])


def _once(stretch: Stretch, with_day: bool) -> str:
    first, last = stretch
    return f"from {_clock(first, with_day)} to {_clock(last, with_day and first.date() != last.date())}"


def _clock(at: datetime, with_day: bool) -> str:
    return f"{at:%-d %B, %H:%M}" if with_day else f"{at:%H:%M}"


def _groups(stretches: Sequence[Stretch]) -> Iterator[list[Stretch]]:
    """Stretches on one day after another, one a day."""
    group = [stretches[0]]
    for before, stretch in itertools.pairwise(stretches):
        if (stretch[0].date() - before[0].date()).days == 1:
            group.append(stretch)
        else:
            yield group
            group = [stretch]
    yield group


def _together(group: list[Stretch]) -> str:
    if len(group) < LEAST_DAYS:
        return listed([_once(stretch, True) for stretch in group])
    first, last = group[0][0], group[-1][0]
    same = (first.year, first.month) == (last.year, last.month)
    begins = f"{first:%-d}" if same else f"{first:%-d %B}" if first.year == last.year else f"{first:%-d %B %Y}"
    ends = f"{last:%-d %B}" if first.year == last.year else f"{last:%-d %B %Y}"
    earliest, latest = min(begun.time() for begun, _ in group), max(ended.time() for _, ended in group)
    return f"each {_part_of_day(group)} from {begins} to {ends}, about {earliest:%H:%M} to {latest:%H:%M}"


def _part_of_day(group: list[Stretch]) -> str:
    hours = [begun.hour for begun, _ in group]
    if all(4 <= hour < 11 for hour in hours):
        return "morning"
    if all(16 <= hour < 22 for hour in hours):
        return "evening"
    return "night" if all(hour >= 20 or hour < 5 for hour in hours) else "day"
