"""Cards of what calls, couples, feeds and lights: everything with wires on it."""

from fractions import Fraction
from typing import Annotated, Literal

from pydantic import BeforeValidator, Field

from bridle.core.plan.cards import CardBase, NonNegative, Socket, Unknown, nothing
from bridle.core.plan.outdoors import AfterCut, Schedule
from bridle.core.values import SMALLEST, Count, Duration, Line, Mass, Name, Positive, PositiveDuration, Section

Source = Literal[
    "camera timer", "wired remote", "controller", "switch", "pin", "host command", "wireless remote", "app", "computer",
    "camera board", "headset",
]  # fmt: skip
CouplingForm = Literal["optocoupler", "relay", "resistor"]


class Pin(Section):
    """A pin of a board, and what it is used for already; empty where it is free."""

    name: Name
    used_for: Line = ""


class Trigger(CardBase):
    """Who tells the camera: its limits, what it puts on its wires, and the connector of its lead.

    `delay_s` is how long it takes from its decision until its contact closes. `volts` is what a pin stands at while
    it is on, `pin_ma` the most it gives; both None where nobody has measured or read them. `supply_v` is what a supply
    pin of the board gives to what hangs on it. `presses` is how often a
    switch or a relay of its own can be pressed, `button_ohm` what a headset's button puts across its contacts.
    """

    kind: Literal["trigger"] = "trigger"
    mass_g: Mass = 60.0
    source: Source = "controller"
    shortest_s: Duration | None = Fraction(1)
    step_s: Duration | None = Fraction(1, 10)
    # The only intervals that it has, where they are a short list; and the frames that it makes beyond what it is told.
    intervals: Annotated[tuple[PositiveDuration, ...], Field(max_length=60)] = ()
    extra_frames: Count = 0
    polling_s: Duration | None = Fraction(1, 10)
    # Nothing: as many and as long as one likes.
    most_frames: Annotated[Count | None, BeforeValidator(nothing)] = None
    longest_run_s: Annotated[Duration | None, BeforeValidator(nothing)] = None
    coupling: Literal["none", "optocoupler", "relay", "switch", "resistor"] = "optocoupler"
    socket: Socket = "2.5 mm"
    delay_s: Duration = Fraction(0)
    half_press: bool = True
    volts: Annotated[float, Field(ge=SMALLEST, le=60, allow_inf_nan=False)] | None = None
    pin_ma: NonNegative | None = None
    supply_v: Annotated[float, Field(ge=SMALLEST, le=60, allow_inf_nan=False)] = 5.0
    pins: Annotated[tuple[Pin, ...], Field(max_length=40)] = ()
    presses: Unknown = None
    # How many presses the cell of a remote lasts for; whether it is fed by that.
    cell_presses: Unknown = None
    fed: Literal["its own cell", "a supply"] = "its own cell"
    button_ohm: NonNegative = 240.0
    range_mm: NonNegative | None = None
    sleeps_after_s: Duration = Fraction(0)
    link_drops: Literal["stops", "goes on by itself", "not known"] = "not known"
    # What it draws from the battery that feeds the camera too; what it can be told of hours (None: nothing at all).
    draws_w: NonNegative | None = None
    schedule: Schedule | None = None
    after_cut: AfterCut = "not known"


class Coupling(CardBase):
    """What parts two circuits and passes the press on: an optocoupler or a relay; or a resistor in series.

    The light of an optocoupler needs `needs_ma` at `forward_v`; `series_ohm` is the resistor that stands before it
    (0: none). A relay's coil draws `coil_ma` at `coil_v`; one with a driver of its own takes that from a supply pin
    and asks the pin that switches it for `needs_ma`. `contact_ohm` is what its closed contact, or the resistor, has.
    """

    kind: Literal["coupling"] = "coupling"
    mass_g: Mass = 15.0
    form: CouplingForm = "optocoupler"
    channels: Annotated[int, Field(ge=1, le=2)] = 1
    forward_v: Positive = 1.2
    needs_ma: Positive = 5.0
    series_ohm: NonNegative = 330.0
    coil_v: Positive = 5.0
    coil_ma: Positive = 70.0
    driver: bool = False
    diode: bool = True
    contact_ohm: NonNegative = 60.0
    operate_s: Duration = Fraction(0)
    release_s: Duration = Fraction(0)
    presses: Unknown = None


class Cable(CardBase):
    """A lead from what fires to the camera; one that was cut open has wires that nobody knows by their colours."""

    kind: Literal["cable"] = "cable"
    mass_g: Mass = 40.0
    from_plug: Socket = "2.5 mm"
    to_plug: Socket = "2.5 mm"
    length_mm: NonNegative = 1000.0
    ohm_per_m: NonNegative = 0.15
    # What its plug and the bend behind it need beside the camera.
    bend_mm: NonNegative | None = None
    made: Literal["bought for this camera", "cut open"] = "bought for this camera"


class PowerSupply(CardBase):
    """What feeds lamps and devices: volts, and the amperes that it gives at most."""

    kind: Literal["supply"] = "supply"
    mass_g: Mass = 250.0
    volts: Positive = 12.0
    gives_a: Positive = 2.0
    from_mains: bool = True


class Battery(CardBase):
    """A battery: volts and ampere hours, and the share of them that may be used."""

    kind: Literal["battery"] = "battery"
    mass_g: Mass = 80.0
    volts: Positive = 7.2
    amp_hours: Positive = 1.8
    usable: Annotated[float, Field(ge=SMALLEST, le=1, allow_inf_nan=False)] = 0.8
    lithium: bool = True
    # How long it charges from empty to full.
    charges_s: Duration | None = None
    # What it gives to motors at most; empty where it only feeds the camera.
    gives_a: NonNegative | None = None


class Lamp(CardBase):
    """A lamp: power, colour temperature, how long it takes to come on, how it is switched, what it runs on.

    One that runs on the mains is switched by a ready-made socket; what is inside is a qualified person's.
    """

    kind: Literal["lamp"] = "lamp"
    mass_g: Mass = 400.0
    watts: Positive = 20.0
    kelvin: Positive = 5000.0
    warm_up_s: Duration = Fraction(1)
    light: Literal["direct", "bounced"] = "direct"
    switch: Literal["level", "toggle"] = "level"
    on_after_power_up: bool = False
    volts: Positive = 12.0
    on_mains: bool = False
