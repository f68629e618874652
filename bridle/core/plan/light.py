"""The light section: what lights the scene, in which school it is exposed, and how far the settings may go."""

from fractions import Fraction
from typing import Annotated, Literal

from pydantic import Field, model_validator

from bridle.core.subjects.light.dials import Dial, Step
from bridle.core.values import SMALLEST, Instant, Positive, PositiveDuration, Section

LightSchool = Literal["locked", "ramped", "automatic"]
StarsIn = Literal["centre", "middle", "corner"]
Iso = Annotated[int, Field(ge=1, le=10_000_000)]
Stops = Annotated[float, Field(ge=0, le=20, allow_inf_nan=False)]


class Proof(Section):
    """A test exposure that looked right at a known time; `density_stops` is what a filter took."""

    at: Instant
    shutter_s: PositiveDuration = Fraction(1, 125)
    iso: Iso = 100
    aperture: Positive = 8.0
    density_stops: Stops = 0.0


class Density(Section):
    """A neutral-density filter that is on from one frame to another (counted from 1; empty: to the end)."""

    stops: Annotated[float, Field(ge=SMALLEST, le=20, allow_inf_nan=False)] = 3.0
    first_frame: Annotated[int, Field(ge=1, le=10_000_000)] = 1
    last_frame: Annotated[int, Field(ge=1, le=10_000_000)] | None = None

    @model_validator(mode="after")
    def _on_before_off(self) -> "Density":
        if self.last_frame is not None and self.last_frame < self.first_frame:
            raise ValueError("a filter is put on before it is taken off")
        return self


class Light(Section):
    """Locked, ramped or automatic; the scene's light; and the limits within which settings follow it.

    `daylight` says whether the sky lights the scene; empty: as the kind of shoot has it. `cloud_stops` is what cloud
    takes of sun and moon, `town_lx` what lamps add; the scene may be darker than open ground by `offset_stops`.
    Proofs shift the whole curve instead. `night_stops` is by how much a night should look darker than day. `stars_px`
    is how far a star may be drawn out (empty: as far as it likes), in the part of the picture that counts,
    `stars_in`: its centre, its middle two thirds, or all of it out to the corners. A frame may be `over_stops` too
    bright or `under_stops` too dark and still be mended. Settings that are not in the order stand as camera and beat
    have them.
    """

    school: LightSchool = "locked"
    daylight: bool | None = None
    cloud_stops: Annotated[float, Field(ge=0, le=4, allow_inf_nan=False)] = 0.0
    town_lx: Annotated[float, Field(ge=0, le=100_000, allow_inf_nan=False)] = 0.0
    offset_stops: Annotated[float, Field(ge=-10, le=10, allow_inf_nan=False)] = 0.0
    proofs: Annotated[tuple[Proof, ...], Field(max_length=2)] = ()
    night_stops: Annotated[float, Field(ge=0, le=6, allow_inf_nan=False)] = 1.0
    step: Step = "third"
    order: Annotated[tuple[Dial, ...], Field(min_length=1, max_length=3)] = ("shutter", "iso")
    shutter_short_s: PositiveDuration = Fraction(1, 4000)
    shutter_long_s: PositiveDuration = Fraction(15)
    iso_low: Iso = 100
    iso_high: Iso = 3200
    aperture_wide: Positive = 2.8
    aperture_narrow: Positive = 11.0
    stars_px: Annotated[float, Field(ge=SMALLEST, le=1000, allow_inf_nan=False)] | None = 2.0
    stars_in: StarsIn = "middle"
    over_stops: Stops = 2.0
    under_stops: Stops = 4.0
    densities: Annotated[tuple[Density, ...], Field(max_length=6)] = ()
    # What the lamps hang on and how warm they look; the air, where somebody has measured it; a lens that is warmed.
    mains_hz: Literal[50, 60] | None = None
    lamp_k: Annotated[float, Field(ge=1000, le=20_000, allow_inf_nan=False)] = 2700.0
    air_c: Annotated[float, Field(ge=-60, le=60, allow_inf_nan=False)] | None = None
    humidity: Annotated[float, Field(ge=SMALLEST, le=1, allow_inf_nan=False)] | None = None
    heater: bool = False

    @model_validator(mode="after")
    def _each_once(self) -> "Light":
        if len(set(self.order)) != len(self.order):
            raise ValueError("each setting stands in the order once")
        return self

    @model_validator(mode="after")
    def _low_below_high(self) -> "Light":
        if self.shutter_short_s > self.shutter_long_s:
            raise ValueError("the shortest shutter time is not longer than the longest")
        if self.iso_low > self.iso_high:
            raise ValueError("the lowest ISO is not above the highest")
        if self.aperture_wide > self.aperture_narrow:
            raise ValueError("the widest aperture has the smaller f-number")
        return self
