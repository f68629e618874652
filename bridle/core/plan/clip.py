"""The clip section: which quantities the photographer holds (the pegs), oldest first."""

from fractions import Fraction
from typing import Literal

from pydantic import model_validator

from bridle.core.plan.values import LONGEST_S, Duration, Rational, Section

Quantity = Literal["shoot", "interval", "frames", "rate", "clip", "speed_up"]
QUANTITIES: tuple[Quantity, ...] = ("shoot", "interval", "frames", "rate", "clip", "speed_up")

# The range of each quantity: seconds, frames, frames a second, times; the low end itself is out.
RANGES: dict[str, tuple[Fraction, int, str]] = {
    "shoot": (Fraction(0), LONGEST_S, "a shoot lasts more than nothing and at most twenty years"),
    "interval": (Fraction(0), 31 * 86_400, "an interval is more than nothing and at most 31 days"),
    "frames": (Fraction(0), 10_000_000, "a shoot has from one to ten million frames"),
    "rate": (Fraction(0), 1000, "a playback rate lies above nothing and at most at 1000 a second"),
    "clip": (Fraction(0), 86_400, "a clip lasts more than nothing and at most a day"),
    "speed_up": (Fraction(0), 1_000_000_000, "a speed-up lies above nothing and at most at a milliard"),
}


class Peg(Section):
    """One held quantity with its exact value, in seconds, frames, frames a second or times."""

    quantity: Quantity
    value: Rational

    @model_validator(mode="after")
    def _within_range(self) -> "Peg":
        low, high, sentence = RANGES[self.quantity]
        if not low < self.value <= high:
            raise ValueError(sentence)
        if self.quantity == "frames" and self.value.denominator != 1:
            raise ValueError("frames are counted in whole numbers")
        return self


class Clip(Section):
    """What is held, and the step in which the interval can be dialled (0: any)."""

    pegs: tuple[Peg, ...] = ()
    interval_step_s: Duration = Fraction(1, 10)

    @model_validator(mode="after")
    def _pegged_once(self) -> "Clip":
        names = [peg.quantity for peg in self.pegs]
        if len(set(names)) != len(names):
            raise ValueError("each quantity can be held only once")
        return self
