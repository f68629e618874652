"""The clip section: which quantities the photographer holds (the pegs), and how the frames are shared out."""

from fractions import Fraction
from typing import Annotated, Literal

from pydantic import Field, model_validator

from bridle.core.values import LONGEST_S, Count, Duration, PositiveDuration, Rational, Section, Share

Quantity = Literal["shoot", "interval", "frames", "rate", "clip", "speed_up"]
QUANTITIES: tuple[Quantity, ...] = ("shoot", "interval", "frames", "rate", "clip", "speed_up")
School = Literal["stills", "movie", "video"]

LONGEST_INTERVAL_S = 31 * 86_400
# The range of each quantity: seconds, frames, frames a second, times; the low end itself is out.
RANGES: dict[str, tuple[Fraction, int, str]] = {
    "shoot": (Fraction(0), LONGEST_S, "a shoot lasts more than nothing and at most twenty years"),
    "interval": (Fraction(0), LONGEST_INTERVAL_S, "an interval is more than nothing and at most 31 days"),
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


class Crossing(Section):
    """How long the subject takes to cross the picture, and how long it should take on screen, in seconds."""

    cross_s: PositiveDuration
    screen_s: PositiveDuration


class Trial(Section):
    """Two frames taken so far apart show the subject moved by so many pixels; wanted is so much from frame to frame."""

    apart_s: PositiveDuration
    moved_px: Annotated[Rational, Field(gt=0, le=100_000)]
    step_px: Annotated[Rational, Field(gt=0, le=100_000)]


class Clip(Section):
    """What is held, the step in which the interval can be dialled (0: any), and what the edit asks for.

    Handles are still frames before the move starts and after it ends; `spare` is the share of frames to cull.
    Frames called by an event come `event_spread` earlier or later than the interval says. Where the footage is played
    `backwards`, the clip begins with the last frame.
    """

    pegs: tuple[Peg, ...] = ()
    interval_step_s: Duration = Fraction(1, 10)
    handle_in_frames: Count = 0
    handle_out_frames: Count = 0
    spare: Share = Fraction(0)
    school: School = "stills"
    called_by: Literal["clock", "event"] = "clock"
    event_spread: Share = Fraction(1, 5)
    backwards: bool = False
    subject: Annotated[str, Field(max_length=40)] = ""
    crossing: Crossing | None = None
    trial: Trial | None = None

    @model_validator(mode="after")
    def _pegged_once(self) -> "Clip":
        names = [peg.quantity for peg in self.pegs]
        if len(set(names)) != len(names):
            raise ValueError("each quantity can be held only once")
        return self
