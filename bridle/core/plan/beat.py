"""The beat section: what one interval has to hold, in seconds, and in which school."""

from fractions import Fraction
from typing import Annotated, Literal

from pydantic import Field, model_validator

from bridle.core.values import SMALLEST, Count, Duration, PositiveDuration, Section, Share

BeatSchool = Literal["shoot-move-shoot", "continuous"]


class Stack(Section):
    """Several exposures a frame at stepped focus distances, from near to far, with the focus move in between."""

    near_mm: Annotated[float, Field(ge=SMALLEST, le=1e6, allow_inf_nan=False)]
    far_mm: Annotated[float, Field(ge=SMALLEST, le=1e6, allow_inf_nan=False)]
    overlap: Share = Fraction(1, 5)
    move_s: Duration = Fraction(1, 2)
    settle_s: Duration = Fraction(1, 2)

    @model_validator(mode="after")
    def _near_before_far(self) -> "Stack":
        if self.near_mm >= self.far_mm:
            raise ValueError("the near end of a focus stack lies before its far end")
        return self


class Uncoupled(Section):
    """The camera on its own timer, the motor on its own: so long between the two starts, and clocks that drift."""

    between_starts_s: Duration = Fraction(20)
    drift_ppm: Annotated[float, Field(ge=0, le=100_000, allow_inf_nan=False)] = 50.0


class Beat(Section):
    """Times of one cycle; the margin is a share of the interval, never less than the least margin.

    A bracket is `bracket_frames` exposures, each `bracket_step_stops` longer than the one before around the middle
    one; or, where there are any, `bracket_times_s` one after another, as the camera calls them.
    Before the full press, which lasts `press_s`, the half press is held for `half_s` and lamps warm up for `warm_s`;
    what calls takes `call_s` until its contact closes, and what couples `couple_s` more.
    A buffer of 0 frames means that the camera refuses a trigger while it writes.
    """

    school: BeatSchool = "shoot-move-shoot"
    wake_s: Duration = Fraction(0)
    half_s: Duration = Fraction(0)
    warm_s: Duration = Fraction(0)
    call_s: Duration = Fraction(0)
    couple_s: Duration = Fraction(0)
    lag_s: Duration = Fraction(6, 100)
    press_s: PositiveDuration = Fraction(1, 5)
    exposure_s: PositiveDuration = Fraction(1, 60)
    bracket_frames: Annotated[int, Field(ge=1, le=15)] = 1
    bracket_step_stops: Annotated[float, Field(ge=0, le=5, allow_inf_nan=False)] = 0.0
    bracket_times_s: Annotated[tuple[PositiveDuration, ...], Field(max_length=15)] = ()
    bracket_gap_s: Duration = Fraction(1, 4)
    noise_reduction: bool = False
    merge_s: Duration = Fraction(0)
    write_s: Duration = Fraction(6, 10)
    buffer_frames: Count = 0
    settle_s: Duration = Fraction(8, 10)
    write_while_moving: bool = True
    margin: Share = Fraction(1, 10)
    least_margin_s: Duration = Fraction(1, 10)
    stack: Stack | None = None
    uncoupled: Uncoupled | None = None
    # Somebody says that what runs by a clock of its own is tied to the camera all the same.
    tied: bool = False

    @property
    def continuous(self) -> bool:
        """Whether the axes never stop."""
        return self.school == "continuous"

    @property
    def ready_s(self) -> Fraction:
        """What goes ahead of the full press, at the same time: waking, the half press, lamps that warm up."""
        return max(self.wake_s, self.half_s, self.warm_s)

    @property
    def heard_s(self) -> Fraction:
        """From the full press that is decided on to the open shutter."""
        return self.call_s + self.couple_s + self.lag_s

    @property
    def bracket_s(self) -> tuple[float, ...]:
        """The exposures of a bracket in the order they are taken, in seconds; one where nothing is bracketed."""
        if self.bracket_times_s:
            return tuple(float(time) for time in self.bracket_times_s)
        exposure, middle = float(self.exposure_s), (self.bracket_frames - 1) / 2
        return tuple(exposure * 2 ** (self.bracket_step_stops * (j - middle)) for j in range(self.bracket_frames))
