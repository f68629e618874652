"""Running time, which no wrong clock can change; and what may be cleared while the clock is in doubt.

A clock that is far ahead would make everything old at once. So where it has jumped by more than a day, what was
written before is cleared only once the server itself has run for a day since: that much is sure to have passed.
"""

import threading
import time
from collections.abc import Callable, Iterable
from datetime import datetime, timedelta

from django.db import models
from django.db.models import Q
from django.utils import timezone

from bridle.server.house.models import House

JUMP = timedelta(days=1)
PASSED_S = 24 * 3600.0
# Running time is written down so often; a kill loses no more of it.
WRITE_S = 60.0


class RunningTime:
    """Seconds in which a server ran, over all its starts. Only the process that has the data counts them on."""

    def __init__(self, monotonic: Callable[[], float] = time.monotonic) -> None:
        """Not counting yet."""
        self._monotonic = monotonic
        self._began: float | None = None
        self._base = 0.0
        self._written = 0.0
        self._lock = threading.Lock()

    def now_s(self) -> float:
        """Running time so far; what was written last, where another process counts."""
        if self._began is None:
            return House.objects.values_list("ran_s", flat=True).first() or 0.0
        return self._base + self._monotonic() - self._began

    def start(self, newest: Iterable[datetime]) -> None:
        """Count from here on; `newest` are times at which something was written, for data that was never served."""
        house = House.objects.first() or House()
        if house.seen_at is None:
            house.seen_at = max(newest, default=None)
        self._base, self._began = house.ran_s, self._monotonic()
        self._look(house)

    def look(self) -> None:
        """Notice a jump since the last look, and write the time down now and then. Raises DatabaseError."""
        with self._lock:
            if self._began is not None and self._monotonic() - self._written >= WRITE_S:
                self._look(House.objects.get())

    def _look(self, house: House) -> None:
        now, ran = timezone.now(), self.now_s()
        passed = timedelta(seconds=ran - house.ran_s)
        if house.seen_at is not None and now - house.seen_at - passed > JUMP:
            house.jumped_ran_s, house.jumped_from, house.jumped_to = ran, house.seen_at, now
            house.jump_read = False
        house.ran_s, house.seen_at = ran, now
        house.save()
        self._written = self._monotonic()


RUNNING = RunningTime()


def passed(at_field: str, ran_field: str = "ran_s") -> Q:
    """Rows whose age the clock may be believed on: when they came about, by the clock and in running time."""
    house = House.objects.first()
    if house is None or house.jumped_ran_s is None:
        return Q()
    after = Q(**{f"{ran_field}__gte": house.jumped_ran_s, f"{at_field}__gte": house.jumped_to})
    return after | Q(**{f"{ran_field}__lte": RUNNING.now_s() - PASSED_S})


def stamp() -> float:
    """The running time for a row that is written now."""
    return RUNNING.now_s()


def newest_of(*columns: tuple[type[models.Model], str]) -> list[datetime]:
    """The newest time in each of these columns."""
    found = (model._default_manager.aggregate(newest=models.Max(field))["newest"] for model, field in columns)
    return [one for one in found if one is not None]
