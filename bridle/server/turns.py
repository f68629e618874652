"""Large shoots take their turns: however many of them are asked for, a small request does not wait for them.

All threads of a process share one interpreter. Eight large evaluations side by side are no faster than one after
another, and whoever comes between them waits for each; a few at a time leave every other moment to the small ones.
"""

import threading
from collections.abc import Iterator
from contextlib import contextmanager

from bridle.core.plan.document import Plan
from bridle.core.reckon.clip import solved

# More frames than this are a large shoot; so is any season of work windows.
LARGE_FRAMES = 5_000
# Arrays let go of the interpreter for a part of the time: two at a time, and no more.
AT_ONCE = 2
# So many may wait for their turn. A page asks for one at a time.
MOST_WAITING = 12
LONGEST_WAIT_S = 60.0
BUSY = "Too much is being worked out just now. Nothing is lost; try again in a moment."


class BusyError(Exception):
    """Too many large ones are waiting already."""


class Turns:
    """A few at a time; the others wait, up to a number and for a time."""

    def __init__(self) -> None:
        """Nobody has a turn."""
        self._one = threading.Semaphore(AT_ONCE)
        self._lock = threading.Lock()
        self.waiting = 0

    @contextmanager
    def take(self) -> Iterator[None]:
        """Wait for a turn, and have it. Raises `BusyError`."""
        with self._lock:
            if self.waiting >= MOST_WAITING:
                raise BusyError(BUSY)
            self.waiting += 1
        try:
            got = self._one.acquire(timeout=LONGEST_WAIT_S)
        finally:
            with self._lock:
                self.waiting -= 1
        if not got:
            raise BusyError(BUSY)
        try:
            yield
        finally:
            self._one.release()


TURNS = Turns()


def large(plan: Plan) -> bool:
    """Whether working a plan out takes long."""
    if plan.frames.source == "windows":
        return True
    solution, _ = solved(plan)
    return solution is not None and solution.frames > LARGE_FRAMES


@contextmanager
def turn(plan: Plan) -> Iterator[None]:
    """At once for a small shoot; a large one waits for its turn. Raises `BusyError`."""
    if not large(plan):
        yield
        return
    with TURNS.take():
        yield
