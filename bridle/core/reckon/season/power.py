"""What a long run lives on: the battery stepped through every hour, with sun and the worst of weather."""

from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from bridle.core.plan.document import Plan
from bridle.core.plan.outdoors import Panel
from bridle.core.plan.season import Climate, Powering
from bridle.core.plan.wired import Battery, PowerSupply
from bridle.core.reckon.season.draws import Draw
from bridle.core.reckon.season.hours import HOUR_S, Hours
from bridle.core.subjects.light import sky
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.power.charge import Charged, cold_share, stepped
from bridle.core.subjects.power.panel import on_panel_w_m2

FedBy = Literal["nothing", "battery", "panel", "mains"]
DAY_H = 24
YEAR_DAYS = 365
MONTHS = 12


@dataclass(frozen=True)
class Supply:
    """What feeds it: the largest battery of the kit, a panel, the mains; with their places in the kit."""

    by: FedBy
    battery: Battery | None
    battery_at: int | None
    panel: Panel | None
    panel_at: int | None


@dataclass(frozen=True)
class Powered:
    """Watt hours of a long run; arrays have one entry an hour; `shares` has a row for each consumer.

    `gained` is that of the weather that is reckoned with, its cloudy days (from `cloudy_hour` on) in it. `usable_wh` is
    what the battery gives in the cold and at its age, `cold` the share that the cold leaves. `charged` is what becomes
    of it while nobody comes.
    """

    supply: Supply
    draws: tuple[Draw, ...]
    shares: Floats
    drawn: Floats
    gained: Floats
    cold: float
    usable_wh: float
    cloudy_hour: int | None
    charged: Charged

    @property
    def missing(self) -> tuple[tuple[str, str, float], ...]:
        """The fields of cards that nobody knows: where they stand, their unit, what is usual."""
        return tuple(one for draw in self.draws for one in draw.missing)

    @property
    def by_draw_w(self) -> Floats:
        """Watts on average of each consumer."""
        return self.shares.mean(axis=1) if len(self.shares) else np.zeros(0)

    @property
    def average_w(self) -> float:
        """Watts on average, with what nobody knows left out."""
        return float(self.drawn.mean()) if len(self.drawn) else 0.0

    @property
    def lasts_h(self) -> float | None:
        """When the battery is empty while nobody comes, in hours from the first frame; None where it never is."""
        return None if self.charged.empty_at is None else self._emptied(self.charged.empty_at)

    def _emptied(self, hour: int) -> float:
        lost = float(self.drawn[hour] - self.gained[hour])
        return hour + (self.charged.levels[hour] / lost if lost > 0 else 0.0)

    def runs_out_h(self, full_at_h: float) -> float:
        """When a battery without a panel is empty that was full at an hour; infinite if not in this season."""
        sums = np.concatenate(([0.0], np.cumsum(self.drawn)))
        hours = np.arange(len(sums), dtype=np.float64)
        spent = float(np.interp(full_at_h, hours, sums)) + self.usable_wh
        return float("inf") if spent >= sums[-1] else float(np.interp(spent, sums, hours))


def supply_of(plan: Plan) -> Supply:
    """What feeds a plan's camera."""
    batteries = [(n, copy.card) for n, copy in enumerate(plan.kit.copies) if isinstance(copy.card, Battery)]
    panels = [(n, copy.card) for n, copy in enumerate(plan.kit.copies) if isinstance(copy.card, Panel)]
    mains = any(isinstance(copy.card, PowerSupply) and copy.card.from_mains for copy in plan.kit.copies)
    battery_at, battery = max(batteries, key=lambda one: one[1].volts * one[1].amp_hours, default=(None, None))
    panel_at, panel = panels[0] if panels else (None, None)
    by: FedBy = "mains" if mains else "nothing" if battery is None else "panel" if panel is not None else "battery"
    return Supply(by, battery, battery_at, panel, panel_at)


def powered(plan: Plan, hours: Hours, draws: tuple[Draw, ...]) -> Powered:
    """The battery of a long run, hour by hour."""
    return _powered(supply_of(plan), plan.season.powering, plan.season.climate, hours, draws)


@lru_cache(maxsize=8)
def _powered(supply: Supply, power: Powering, climate: Climate, hours: Hours, draws: tuple[Draw, ...]) -> Powered:
    shares = np.array([draw.hourly_wh(hours) for draw in draws]).reshape(len(draws), hours.count)
    drawn = shares.sum(axis=0)
    cold = 1.0
    if supply.battery is not None and climate.coldest_c is not None:
        cold = cold_share(supply.battery.lithium, climate.coldest_c)
    usable = usable_wh(supply.battery, power, cold)
    clear = clear_wh(supply.panel, power, hours) if supply.by == "panel" else np.zeros(hours.count)
    gained, cloudy = clear * climate.usual, None
    if supply.by == "mains":
        gained = drawn.copy()
    elif clear.any() and climate.cloudy_days:
        gained, cloudy = _clouded(gained, clear * climate.cloudy, drawn, usable, climate, hours)
    charged = stepped(gained.tolist(), drawn.tolist(), usable)
    return Powered(supply, draws, shares, drawn, gained, cold, usable, cloudy, charged)


def usable_wh(battery: Battery | None, power: Powering, cold: float) -> float:
    """What a battery gives at its age and in the cold, in Wh; nothing without one."""
    if battery is None:
        return 0.0
    return battery.volts * battery.amp_hours * battery.usable * (1 - float(power.aged)) * cold


def clear_wh(panel: Panel | None, power: Powering, hours: Hours) -> Floats:
    """What all panels give under a clear sky, Wh in each hour; nothing where nobody knows the place."""
    if panel is None or hours.sun_azimuth is None or hours.sun_altitude is None:
        return np.zeros(hours.count)
    day_of_year = hours.day(0).timetuple().tm_yday + np.arange(hours.count) / DAY_H
    light = on_panel_w_m2(hours.sun_azimuth, hours.sun_altitude, day_of_year, power.tilt_deg, power.toward_deg)
    return np.asarray(light * panel.watts * panel.usable * power.panels / 1000)


def _clouded(
    usual: Floats, cloudy: Floats, drawn: Floats, full: float, climate: Climate, hours: Hours
) -> tuple[Floats, int | None]:
    """What the panel gives with a run of cloudy days in it: on the day that is named, or where it takes it lowest."""
    first = hours.day(0)
    if climate.cloudy_from is not None:
        begins = DAY_H * (climate.cloudy_from - first).days
    else:
        begins = worst_start(usual, cloudy, drawn, full, climate.cloudy_days)
    ends = begins + DAY_H * climate.cloudy_days
    if ends <= 0 or begins >= len(usual):
        return usual, None
    low = max(0, begins)
    made = usual.copy()
    made[low:ends] = cloudy[low:ends]
    return made, low


def worst_start(usual: Floats, cloudy: Floats, drawn: Floats, full: float, days: int) -> int:
    """The hour (a multiple of 24) from which so many cloudy days empty the battery soonest.

    Where none do, from which they leave the least charge that is ever in it; what the battery would owe counts below
    nothing. What the clouds have taken is made up again by what would run over without them: so nothing has to be
    stepped but the cloudy days themselves.
    """
    count, run = len(usual), DAY_H * days
    begins = np.arange(0, count, DAY_H)
    base, over = _levels(usual - drawn, full)
    lowest, emptied, lacks = _under_clouds(begins, base, np.asarray(cloudy - drawn), full, run)
    ends = np.minimum(begins + run, count)
    owed = lacks + np.append(0.0, over)[ends]
    # In it after the clouds, as long as it lacks something: what is in it without them, less what it still lacks.
    filled = base + over
    caught_up = np.maximum(ends, np.searchsorted(over, owed, side="left"))
    least = np.append(np.minimum.accumulate(base[::-1])[::-1], full)
    lowest = np.minimum(lowest, least[caught_up])
    still = _least_between(filled, ends, caught_up) - owed
    lowest = np.minimum(lowest, still)
    empties = np.append(np.minimum.accumulate(np.where(base <= 0, np.arange(count), count)[::-1])[::-1], count)
    emptied = np.minimum(emptied, empties[caught_up])
    for one in np.flatnonzero(still <= 0).tolist():
        first = int(np.argmax(filled[ends[one] : caught_up[one]] <= owed[one]))
        emptied[one] = min(emptied[one], ends[one] + first)
    # What is empty before the clouds come is so from any later beginning on.
    emptied = np.where(empties[0] < begins, np.minimum(emptied, empties[0]), emptied)
    return int(begins[int(np.lexsort((np.round(lowest, 9), emptied))[0])])


def _levels(net: Floats, full: float) -> tuple[Floats, Floats]:
    """What is in a battery that begins full after each hour, and what has run over by then in all."""
    level, spilt, levels, over = full, 0.0, [], []
    for more in net.tolist():
        level += more
        if level > full:
            spilt += level - full
            level = full
        levels.append(level)
        over.append(spilt)
    return np.array(levels), np.array(over)


def _under_clouds(
    begins: NDArray[np.int64], base: Floats, net: Floats, full: float, run: int
) -> tuple[Floats, NDArray[np.int64], Floats]:
    """For each beginning: the least during its cloudy hours, when it is empty in them, and what it lacks at their end.

    Shapes (beginnings,). Beyond the last hour nothing is taken or given.
    """
    count = len(net)
    hours = np.minimum(begins[:, None] + np.arange(run), count)
    summed = np.cumsum(np.append(net, 0.0)[hours], axis=1)
    begun = np.append(full, base)[begins]
    # From the highest that it could be: full before an hour, or as it began.
    capped = np.minimum.accumulate(np.minimum(full - summed, begun[:, None]), axis=1)
    level = summed + capped
    inside = hours < count
    level[~inside] = np.inf
    lowest = np.minimum(full, level.min(axis=1))
    below = level <= 0
    emptied = np.where(below.any(axis=1), begins + below.argmax(axis=1), count)
    last = np.minimum(begins + run, count) - 1
    return lowest, emptied, base[last] - level[np.arange(len(begins)), last - begins]


def _least_between(values: Floats, first: NDArray[np.int64], end: NDArray[np.int64]) -> Floats:
    """The least of the values from each `first` to before its `end`; infinite where there are none."""
    padded = np.append(values, np.inf)
    found = np.minimum.reduceat(padded, np.column_stack((first, end)).ravel())[::2]
    return np.where(first < end, found, np.inf)


@lru_cache(maxsize=8)
def year_of_light(
    latitude: float, longitude: float, year: int, tilt_deg: float, toward_deg: float
) -> tuple[float, ...]:
    """What falls on a panel under a clear sky in each month of a year, in kWh a day and m²: hour by hour."""
    from_s = (np.datetime64(f"{year}-01-01") - np.datetime64("1970-01-01")) / np.timedelta64(1, "s")
    at: Floats = float(from_s) + HOUR_S * np.arange(0.5, YEAR_DAYS * DAY_H)
    azimuth, altitude = sky.sun(latitude, longitude, at)
    day = 1 + np.arange(len(at)) / DAY_H
    light = on_panel_w_m2(azimuth, altitude, day, tilt_deg, toward_deg)
    month = (at.astype("datetime64[s]").astype("datetime64[M]").astype(int)) % MONTHS
    return tuple(float(light[month == number].mean() * DAY_H / 1000) for number in range(MONTHS))
