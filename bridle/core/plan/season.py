"""The season section: what a camera that stays for weeks to years lives on, and how often somebody comes."""

from datetime import date
from fractions import Fraction
from typing import Annotated, Literal

from pydantic import Field, model_validator

from bridle.core.plan.cards import NonNegative
from bridle.core.plan.frames import DAY_MIN, Weekday
from bridle.core.plan.outdoors import Celsius
from bridle.core.values import Count, Duration, Name, Positive, Section, Share

Share01 = Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)]
Days = Annotated[int, Field(ge=1, le=3660)]
MOST_CLOUDY_DAYS = 60


class Storing(Section):
    """Where the frames go: megabytes of a picture (None: nobody has weighed one), and the share of a card kept free.

    File numbers stand at `counter_at` and start again after `counter_last`. Every frame is kept in `copies` places.
    """

    frame_mb: Positive | None = None
    reserve: Share = Fraction(1, 10)
    counter_at: Count = 0
    counter_last: Annotated[int, Field(ge=99, le=10_000_000)] = 9999
    copies: Annotated[int, Field(ge=1, le=9)] = 2


class Powering(Section):
    """What the battery gives it to: volts of the camera, what makes them, when the heater runs.

    A `timer` cuts the camera's power between work windows. `aged` is what years have taken of the battery. Behind the
    mains it bridges cuts of `outage_s`. Panels look `toward_deg` (a bearing), tilted by `tilt_deg` from the ground.
    """

    camera_v: Positive = 7.4
    regulator: Literal["none", "linear", "switching"] = "switching"
    timer: bool = False
    heater: Literal["never", "always", "at night", "below the dew point"] = "never"
    aged: Share = Fraction(1, 5)
    outage_s: Duration = Fraction(6 * 3600)
    panels: Annotated[int, Field(ge=1, le=40)] = 1
    tilt_deg: Annotated[float, Field(ge=0, le=90, allow_inf_nan=False)] = 60.0
    toward_deg: Annotated[float, Field(ge=0, le=360, allow_inf_nan=False)] = 180.0


class Climate(Section):
    """What the weather does there: temperatures (None: nobody knows), wind, and how much sun comes through.

    A usual day gives `usual` of what a clear one would; `cloudy_days` in a row give `cloudy`, beginning on a day that
    somebody names, or else on the worst. Of a night the glass is colder than the dew point for a share `dewy`.
    """

    coldest_c: Celsius | None = None
    warmest_c: Celsius | None = None
    wind_m_s: Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)] = 25.0
    usual: Share01 = 0.5
    cloudy: Share01 = 0.1
    cloudy_days: Annotated[int, Field(ge=0, le=MOST_CLOUDY_DAYS)] = 7
    cloudy_from: date | None = None
    dewy: Share01 = 0.4

    @model_validator(mode="after")
    def _cold_before_warm(self) -> "Climate":
        if self.coldest_c is not None and self.warmest_c is not None and self.coldest_c > self.warmest_c:
            raise ValueError("the coldest night is not warmer than the warmest day")
        return self


class Visiting(Section):
    """When somebody can come, and what is done then however full card and battery are.

    At `at_min` of the clock, on these weekdays, moved into daylight where `by_day` says so. None: never for its own
    sake. So many days of frames may be lost before anybody notices (`may_lose_days`), so far may the clock be off.
    """

    weekdays: Annotated[tuple[Weekday, ...], Field(min_length=1, max_length=7)] = (0, 1, 2, 3, 4, 5, 6)
    at_min: Annotated[int, Field(ge=0, lt=DAY_MIN)] = 600
    by_day: bool = True
    takes_s: Duration = Fraction(2700)
    swaps_battery: bool = True
    camera_out: bool = False
    clean_days: Days | None = None
    may_lose_days: Days | None = None
    clock_off_s: Duration = Fraction(120)
    arranged: Annotated[tuple[date, ...], Field(max_length=200)] = ()


class Aim(Section):
    """How far the picture had moved when somebody compared it with the reference frame, after a visit.

    In pixels of the picture, to the right and downwards, and in degrees clockwise; it holds from that day on.
    """

    on: date
    across_px: Annotated[float, Field(ge=-20_000, le=20_000, allow_inf_nan=False)] = 0.0
    down_px: Annotated[float, Field(ge=-20_000, le=20_000, allow_inf_nan=False)] = 0.0
    turned_deg: Annotated[float, Field(ge=-45, le=45, allow_inf_nan=False)] = 0.0


class Obstacle(Section):
    """Something that will stand in the view: how high it is on a day, how fast it grows, how far it is, from when.

    What `belongs` to the picture is drawn into no doubt.
    """

    name: Name
    from_day: date
    to_day: date | None = None
    tall_mm: NonNegative = 2000.0
    grows_mm_month: Annotated[float, Field(ge=0, le=100_000, allow_inf_nan=False)] = 0.0
    away_mm: Positive = 10_000.0
    belongs: bool = False


class Season(Section):
    """The long run."""

    storing: Storing = Storing()
    powering: Powering = Powering()
    climate: Climate = Climate()
    visiting: Visiting = Visiting()
    aims: Annotated[tuple[Aim, ...], Field(max_length=200)] = ()
    obstacles: Annotated[tuple[Obstacle, ...], Field(max_length=20)] = ()
