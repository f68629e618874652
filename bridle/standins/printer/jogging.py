"""A simulated printer to jog to its switch: it clicks, lets go, and breaks where one jogs too far."""

import random
from dataclasses import dataclass
from typing import Literal

Heard = Literal["nothing", "click", "let go", "broken", "limit"]
# From its end it stands so far inwards, at the least and at the most.
NEAREST_MM, FARTHEST_MM = 2.5, 9.0
PLAY_MM = 0.04


@dataclass(frozen=True, slots=True)
class Jogged:
    """Where the head stands after a jog, what was heard on the way, whether the switch is down."""

    at: float
    heard: Heard
    down: bool


@dataclass(frozen=True, slots=True)
class Bench:
    """An axis from `low` to `high` (mm) with a switch near one end; `seed` says where, which nobody is told."""

    low: float
    high: float
    sign: int
    beyond: float
    lets_go: float
    seed: int

    @property
    def clicks(self) -> float:
        """Where it clicks."""
        inwards = random.Random(self.seed).uniform(NEAREST_MM, FARTHEST_MM)
        return self.high - inwards if self.sign > 0 else self.low + inwards

    def jog(self, at: float, by: float, down: bool, broken: bool) -> Jogged:
        """Go by so many mm from where the head stands. A belt never stops twice at quite the same place."""
        if broken:
            return Jogged(at, "broken", down)
        to = min(max(at + by, self.low), self.high)
        click = self.clicks + random.Random(f"{self.seed} {at:.3f} {by:.3f}").uniform(-PLAY_MM, PLAY_MM) / 2
        past = self.sign * (to - click)
        if past >= self.beyond:
            return Jogged(to, "broken", True)
        if not down and past >= 0:
            return Jogged(to, "click", True)
        if down and past < -self.lets_go:
            return Jogged(to, "let go", False)
        return Jogged(to, "limit" if to != at + by else "nothing", down)
