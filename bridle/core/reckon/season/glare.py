"""On which days of a season the sun stands in the picture, whether a frame is taken then or not."""

from dataclasses import dataclass
from datetime import UTC, date, datetime
from functools import lru_cache
from itertools import groupby
from zoneinfo import ZoneInfo

import numpy as np

from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.season.hours import Hours
from bridle.core.reckon.sky import in_the_picture, sun_at
from bridle.core.subjects.numbers.arrays import Floats

# The sun goes two and a half degrees in this time: less than the picture of any lens that stays for months.
EVERY_S = 600


@dataclass(frozen=True)
class Glare:
    """A stretch of days on which the sun comes into the picture, and between which hours (minutes of the clock)."""

    first: date
    last: date
    from_min: int
    to_min: int

    @property
    def days(self) -> int:
        """How many days there are."""
        return (self.last - self.first).days + 1


def glares(shooting: Shooting, hours: Hours) -> tuple[Glare, ...] | None:
    """All stretches, as the camera stands at its first frame; None where nobody knows the place, or where it looks."""
    if hours.sun_altitude is None or shooting.plan.rig.normal_bearing_deg is None:
        return None
    at = _moments(hours.start_s, hours.count)
    sun = sun_at(shooting.plan, at)
    if sun is None:
        return None
    seen = in_the_picture(shooting.plan, shooting.poses.some(np.zeros(len(at), dtype=np.int64)), sun)
    return tuple(_stretches(at[seen], ZoneInfo(hours.zone)))


@lru_cache(maxsize=4)
def _moments(start_s: float, count: int) -> Floats:
    return np.asarray(start_s + np.arange(0.0, count * 3600.0, EVERY_S))


def _stretches(at: Floats, zone: ZoneInfo) -> list[Glare]:
    clocks = [datetime.fromtimestamp(moment, UTC).astimezone(zone) for moment in at.tolist()]
    made: list[Glare] = []
    for day, each in groupby(clocks, key=lambda clock: clock.date()):
        minutes = [clock.hour * 60 + clock.minute for clock in each]
        one = Glare(day, day, min(minutes), max(minutes) + EVERY_S // 60)
        if made and (day - made[-1].last).days == 1:
            before = made.pop()
            one = Glare(before.first, day, min(before.from_min, one.from_min), max(before.to_min, one.to_min))
        made.append(one)
    return made
