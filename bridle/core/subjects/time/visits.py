"""Visits merged: nobody climbs twice for what could have been done at once, and nothing is done too late."""

import math
from bisect import bisect_right
from collections.abc import Callable, Mapping, Sequence
from typing import NamedTuple

# A task that was done at a time (or begun then) is due again by what this gives; infinite where it never is.
Due = Callable[[float], float]
MOST_VISITS = 400


class Visit(NamedTuple):
    """When somebody comes and what is done; `late` was due before, `off_wish`: no wished day was left."""

    at: float
    tasks: tuple[str, ...]
    late: tuple[str, ...] = ()
    off_wish: bool = False


def merged(
    due: Mapping[str, Due], start: float, end: float, wished: Sequence[float], possible: Sequence[float],
    arranged: Sequence[float] = (),
) -> list[Visit]:  # fmt: skip
    """The fewest visits between start and end that keep every deadline, each as late as it can be.

    `wished` are the moments at which somebody would come, `possible` those at which somebody could; both rise. At an
    arranged moment somebody comes anyhow. A task is put off to the next visit where it is in time for it.
    """
    done = dict.fromkeys(due, start)
    made: list[Visit] = []
    at = start
    waiting = [moment for moment in arranged if start < moment < end]
    while len(made) < MOST_VISITS:
        deadlines = {task: again(done[task]) for task, again in due.items()}
        next_due = min(deadlines.values(), default=end)
        chosen, off_wish = _latest(wished, possible, at, next_due)
        if waiting and (waiting[0] <= chosen or next_due >= end):
            chosen, off_wish = waiting.pop(0), False
        elif next_due >= end or chosen >= end:
            break
        tasks = _tasks(due, deadlines, chosen, wished, possible, end)
        if tasks or off_wish or chosen in arranged:
            late = tuple(task for task in due if deadlines[task] < chosen)
            made.append(Visit(chosen, tasks, late, off_wish))
        done |= dict.fromkeys(tasks, chosen)
        at = chosen
    return made


def _latest(wished: Sequence[float], possible: Sequence[float], after: float, due: float) -> tuple[float, bool]:
    """The last wished moment in time, else the last possible one, else the first one that comes, late as it is."""
    for moments, off in ((wished, False), (possible, True)):
        at = bisect_right(moments, due)
        if at and moments[at - 1] > after:
            return moments[at - 1], off
    ahead = bisect_right(possible, after)
    return (possible[ahead] if ahead < len(possible) else math.inf), True


def _tasks(
    due: Mapping[str, Due], deadlines: Mapping[str, float], at: float, wished: Sequence[float],
    possible: Sequence[float], end: float,
) -> tuple[str, ...]:  # fmt: skip
    """What is done at a visit: all that would be too late at the next one, if all were done at this."""
    next_due = min((again(at) for again in due.values()), default=end)
    following, _ = _latest(wished, possible, at, next_due)
    if next_due >= end:
        following = end
    return tuple(task for task in due if deadlines[task] < min(following, end))
