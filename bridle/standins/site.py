"""A simulated site of months: a battery under the sky, a panel, a card, cuts of the power, and somebody who comes.

It steps its own hours with its own weather, and knows the plan only by what hangs on its wires.
"""

from dataclasses import dataclass

import numpy as np

from bridle.core.plan.document import Plan
from bridle.core.plan.kit import Body, Phone
from bridle.core.plan.wired import Trigger
from bridle.core.reckon.season.hours import HOUR_S
from bridle.core.reckon.season.power import clear_wh
from bridle.core.reckon.season.season import Staying
from bridle.core.reckon.season.visits import CARD, CHARGE
from bridle.core.subjects.numbers.arrays import Floats
from bridle.standins.weather import DARK_FROM, DARK_TO

# A camera that has gone off for want of charge comes back when so much of it is there again.
COMES_BACK = 0.1
# Days are brighter and darker than usual by so much at most.
UNEVEN = 0.6
DAY_H = 24


@dataclass
class Site:
    """`level_wh` is the charge (None: nobody knows what is drawn); seconds count from the first planned frame."""

    stay: Staying
    gained: Floats
    holds: float | None
    comes_back: bool
    level_wh: float | None = None
    hour: int = 0
    at_s: float = 0.0
    off: str = ""
    cut_until_s: float = -1.0
    swapped: int = 0
    lost: int = 0

    def to(self, at_s: float) -> None:
        """Let the hours go by until a moment."""
        while (self.hour + 1) * HOUR_S <= at_s and self.hour < self.stay.hours.count:
            self._step()
        self.at_s = max(self.at_s, at_s)
        if self.off == "the power is cut" and self.at_s >= self.cut_until_s:
            self.off = "" if self.comes_back else "it stayed off after the power was cut"

    def _step(self) -> None:
        """One hour: what the sun gives, less what is drawn by what is on."""
        power = self.stay.power
        if self.level_wh is not None:
            drawn = 0.0 if self.off else float(power.drawn[self.hour])
            level = self.level_wh + float(self.gained[self.hour]) - drawn
            self.level_wh = min(power.usable_wh, max(0.0, level))
            if level <= 0 and not self.off:
                self.off = "the battery is empty"
            elif self.off == "the battery is empty" and self.level_wh >= COMES_BACK * power.usable_wh:
                self.off = "" if self.comes_back else "it stayed off after the battery was empty"
        self.hour += 1

    def why_not(self, at_s: float) -> str:
        """Why no frame is taken at a moment; empty where one is."""
        self.to(at_s)
        if self.off:
            return self.off
        return "the card is full" if self.fill is not None and self.fill >= 1 else ""

    def missed(self) -> None:
        """A frame that did not come is not on the card."""
        self.lost += 1

    def visit(self, at_s: float, tasks: tuple[str, ...]) -> None:
        """Somebody comes: swaps what is to be swapped, and switches on what has stayed off."""
        self.to(at_s)
        if CARD in tasks or not tasks:
            self.swapped, self.lost = self._taken_by(at_s), 0
        if self.level_wh is not None and (CHARGE in tasks or not tasks):
            self.level_wh = self.stay.power.usable_wh
        if self.cut_until_s < at_s and (self.level_wh is None or self.level_wh > 0):
            self.off = ""

    def cut(self, at_s: float, seconds: float) -> None:
        """The power fails for so long; behind the mains the battery bridges as much of it as it can."""
        self.to(at_s)
        bridged = 0.0
        busiest = float(self.stay.power.drawn.max())
        if self.stay.power.supply.by == "mains" and busiest:
            bridged = self.stay.power.usable_wh / busiest * HOUR_S
        if seconds > bridged:
            self.off, self.cut_until_s = "the power is cut", at_s + seconds

    def _taken_by(self, at_s: float) -> int:
        return int(np.searchsorted(self.stay.hours.starts_s, at_s))

    @property
    def charge(self) -> float | None:
        """The share of the charge that is left; None where nobody knows what is drawn, or nothing is stored."""
        full = self.stay.power.usable_wh
        return None if self.level_wh is None or not full else self.level_wh / full

    @property
    def fill(self) -> float | None:
        """The share of the card that is full; None without one."""
        if not self.holds:
            return None
        return min(1.0, max(0.0, (self._taken_by(self.at_s) - self.swapped - self.lost) / self.holds))


def site_of(plan: Plan, stay: Staying, weather: str, seed: int) -> Site:
    """The site of a plan at its start: a full battery and an empty card."""
    power = stay.power
    known = not power.missing and power.supply.by in ("battery", "panel", "mains") and power.usable_wh > 0
    holds = stay.store.holds / (1 - float(plan.season.storing.reserve)) if stay.store.holds else None
    after = [copy.card.after_cut for copy in plan.kit.copies if isinstance(copy.card, Body | Phone | Trigger)]
    return Site(
        stay=stay,
        gained=_gained(plan, stay, weather, seed),
        holds=holds,
        comes_back=all(one == "goes on" for one in after),
        level_wh=power.usable_wh if known else None,
    )


def _gained(plan: Plan, stay: Staying, weather: str, seed: int) -> Floats:
    """What the sun gives in each hour: days that are brighter or darker than usual, or the plan's own."""
    power, climate, count = stay.power, plan.season.climate, stay.hours.count
    if power.supply.by != "panel" or weather == "as planned":
        return power.gained
    clear = clear_wh(power.supply.panel, plan.season.powering, stay.hours)
    days = np.random.default_rng(seed).uniform(1 - UNEVEN, 1 + UNEVEN, count // DAY_H + 1)
    share = np.clip(climate.usual * days, 0.0, 1.0).repeat(DAY_H)[:count]
    if weather == "dark weeks":
        share[int(DARK_FROM * count) : int(DARK_TO * count)] = climate.cloudy
    return np.asarray(clear * share)
