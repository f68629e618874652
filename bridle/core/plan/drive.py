"""What makes an axis move: one type for each kind of drive, as its card describes it."""

from typing import Annotated, Literal

from pydantic import Field, model_validator

from bridle.core.values import Name, Positive, Section

Whole = Annotated[int, Field(ge=1, le=100_000)]
Torque = Annotated[float, Field(ge=0, le=1e6, allow_inf_nan=False)]
Efficiency = Annotated[float, Field(gt=0, le=1, allow_inf_nan=False)]


class Stepper(Section):
    """What all stepper drives share: the motor's steps, and its torques in N·mm (none: not known).

    `correction` is what calibration found: measured steps per unit over computed ones.
    """

    full_steps: Whole = 200
    microsteps: Whole = 16
    torque_nmm: Torque | None = None
    detent_nmm: Torque | None = None
    efficiency: Efficiency = 0.9
    correction: Annotated[float, Field(ge=0.1, le=10, allow_inf_nan=False)] = 1.0


class Belt(Stepper):
    """A stepper on a toothed belt."""

    kind: Literal["belt"] = "belt"
    pitch_mm: Positive = 2.0
    teeth: Whole = 20


class Screw(Stepper):
    """A stepper on a lead screw."""

    kind: Literal["screw"] = "screw"
    lead_mm: Positive = 8.0
    efficiency: Efficiency = 0.4


class Gear(Stepper):
    """A stepper that turns something through a gear."""

    kind: Literal["gear"] = "gear"
    ratio: Positive = 9.0


class Clockwork(Section):
    """A spring: a fixed rate in one direction until it has run down. It cannot stop."""

    kind: Literal["clockwork"] = "clockwork"
    rate_deg_min: Positive = 6.0
    longest_run_s: Positive = 3600.0
    clockwise: bool = True


class SpeedKey(Section):
    """A speed key of a rated drive and its rate at setting 1, in degrees a minute."""

    name: Name
    base_deg_min: Positive


class Rated(Section):
    """A mount whose rate is a number in a menu: `rate = base(key) × setting`."""

    kind: Literal["rated"] = "rated"
    keys: Annotated[tuple[SpeedKey, ...], Field(min_length=1, max_length=12)] = (SpeedKey(name="1", base_deg_min=0.25),)
    low_setting: Positive = 0.1
    high_setting: Positive = 99.0
    setting_step: Positive = 0.1
    runs_while_held: bool = False


class SwitchCode(Section):
    """A position of the speed switch, and how long the whole travel takes there, in seconds."""

    code: Name
    run_s: Positive


class SteppedSpeed(Section):
    """A home-made drive with a table of run times for its whole travel."""

    kind: Literal["stepped"] = "stepped"
    codes: Annotated[tuple[SwitchCode, ...], Field(min_length=1, max_length=64)] = (
        SwitchCode(code="1", run_s=600),
        SwitchCode(code="2", run_s=1200),
        SwitchCode(code="3", run_s=2400),
        SwitchCode(code="4", run_s=4800),
    )


class DialPoint(Section):
    """A calibrated position of a dial: how long the whole travel takes there, in seconds."""

    dial: Annotated[float, Field(ge=-1000, le=1000, allow_inf_nan=False)]
    run_s: Positive


class Dial(Section):
    """A dial without units: some positions are calibrated, the rest lies between them."""

    kind: Literal["dial"] = "dial"
    points: Annotated[tuple[DialPoint, ...], Field(min_length=2, max_length=40)] = (
        DialPoint(dial=0, run_s=300),
        DialPoint(dial=10, run_s=3600),
    )
    moves_first: bool = True

    @model_validator(mode="after")
    def _rising(self) -> "Dial":
        dials = [point.dial for point in self.points]
        if sorted(set(dials)) != dials:
            raise ValueError("calibrated dial positions rise from one to the next")
        return self


class ByHand(Section):
    """Somebody sets the scale between frames, to the nearest of its divisions (mm or degrees)."""

    kind: Literal["hand"] = "hand"
    division: Positive = 1.0


Drive = Annotated[
    Belt | Screw | Gear | Clockwork | Rated | SteppedSpeed | Dial | ByHand,
    Field(discriminator="kind"),
]
STEPPERS = (Belt, Screw, Gear)
