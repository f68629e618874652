"""The two levels of a season, day by day: charge and card, with what visits do to them."""

from collections.abc import Iterator, Sequence
from itertools import pairwise

import numpy as np

from bridle.core.chapters.season.powering import MONTHS, months_wh
from bridle.core.chapters.season.state import DrawTold, LevelsTold, MonthTold
from bridle.core.plan.document import Plan
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.season.hours import HOUR_S
from bridle.core.reckon.season.season import Staying
from bridle.core.reckon.season.visits import CARD

WHOLE = 1000
DAY_H = 24


def draws(stay: Staying) -> Iterator[DrawTold]:
    """Each consumer with its share."""
    watts = stay.power.by_draw_w
    total = float(watts.sum()) or 1.0
    for draw, one in zip(stay.power.draws, watts.tolist(), strict=True):
        yield DrawTold(name=draw.name, watts=one, share=one / total, known=not draw.missing)


def levels(shooting: Shooting, stay: Staying, begins: Sequence[int]) -> LevelsTold:
    """Charge and card over the days that begin (and the last of them ends) at these Unix times."""
    return LevelsTold(
        charge=tuple(_charge(stay, begins)),
        fill=tuple(_fill(shooting, stay, begins)),
        reserve=round(float(shooting.plan.season.storing.reserve) * WHOLE),
        cloudy=tuple(_cloudy(shooting.plan, stay, begins)),
    )


def _charge(stay: Staying, begins: Sequence[int]) -> Iterator[int]:
    power = stay.power
    if power.missing or not power.usable_wh:
        return
    every = np.array(stay.coming.charged.levels) / power.usable_wh * WHOLE
    for low, high in pairwise(begins):
        first = max(0, int((low - stay.hours.start_s) // HOUR_S))
        last = min(len(every), int((high - stay.hours.start_s) // HOUR_S) + 1)
        here = every[first:last]
        if not len(here):
            return
        yield round(float(here.min()))


def _fill(shooting: Shooting, stay: Staying, begins: Sequence[int]) -> Iterator[int]:
    store = stay.store
    if not store.holds:
        return
    starts = stay.hours.start_s + stay.hours.starts_s
    taken = np.searchsorted(starts, np.array(begins[1:], dtype=np.float64))
    swapped = np.searchsorted(starts, np.array(stay.coming.at(CARD)))
    before = np.concatenate(([0], swapped))
    at = np.searchsorted(np.array([begins[0], *stay.coming.at(CARD)]), np.array(begins[1:]), side="right") - 1
    room = store.holds / (1 - float(shooting.plan.season.storing.reserve))
    for frames, number in zip(taken.tolist(), at.tolist(), strict=True):
        yield round((frames - int(before[max(0, number)])) / room * WHOLE)


def _cloudy(plan: Plan, stay: Staying, begins: Sequence[int]) -> Iterator[int]:
    hour = stay.power.cloudy_hour
    if hour is None:
        return
    day = int(np.searchsorted(np.array(begins), stay.hours.start_s + hour * HOUR_S, side="right")) - 1
    yield from (day, min(len(begins) - 2, day + plan.season.climate.cloudy_days - 1))


def months(plan: Plan, stay: Staying) -> Iterator[MonthTold]:
    """What the panels give and what is drawn, month by month."""
    if stay.power.supply.by != "panel" or stay.power.missing:
        return
    drawn = stay.power.average_w * DAY_H
    for month, given in months_wh(plan, stay).items():
        yield MonthTold(name=MONTHS[month], given=given, drawn=drawn)
