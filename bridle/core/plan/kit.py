"""The kit: a card for each thing a photographer owns, and the copies of cards that a plan was made with."""

from collections.abc import Iterator
from fractions import Fraction
from typing import Annotated, Literal

from pydantic import Field, model_validator

from bridle.core.plan.camera import Pixels
from bridle.core.plan.cards import CardBase, Holds, Joined, NonNegative, Socket, Thread, Unknown
from bridle.core.plan.outdoors import AfterCut, Box, Celsius, Panel
from bridle.core.plan.printer import HeadSwitch, Printer
from bridle.core.plan.wired import Battery, Cable, Coupling, Lamp, PowerSupply, Trigger
from bridle.core.subjects.motion.drives.belt import Belt
from bridle.core.subjects.motion.drives.every import Drive
from bridle.core.subjects.motion.drives.gear import Gear
from bridle.core.values import MOST, Count, Duration, Line, Mass, Position, Positive, PositiveDuration, Section

Stabiliser = Literal["none", "can be switched off", "always on", "not known"]
Hears = Literal["half and full press", "full press", "headset button", "nothing"]


class Imager(Joined):
    """What bodies and phones share. Times are None where nobody knows them: then a plan counts on what is usual."""

    sensor_width_mm: Positive = 36.0
    sensor_height_mm: Positive = 24.0
    picture_width_px: Pixels = 6000
    picture_height_px: Pixels = 4000
    wake_s: Duration | None = Fraction(0)
    lag_s: Duration | None = Fraction(6, 100)
    write_s: Duration | None = Fraction(6, 10)
    buffer_frames: Count | None = 0
    interval_floor_s: Duration | None = Fraction(1)
    interval_step_s: Duration | None = Fraction(1)
    sleeps_after_s: Duration = Fraction(0)
    socket: Socket = "2.5 mm"
    # What closing contacts tell it; whether a full press counts only while the half press is held.
    hears: Hears = "half and full press"
    half_first: Holds = "not known"
    least_press_s: Duration | None = Fraction(1, 10)
    input_v: Positive = 3.0
    # What it does while it has not found focus; to a phone, the key that its app fires on.
    priority: Literal["release", "focus", "not known"] = "not known"
    fires_on: Literal["volume up", "volume down", "play", "not known"] = "not known"
    # Whether these stay as they are set.
    holds_exposure: Holds = "yes"
    holds_white: Holds = "yes"
    holds_focus: Holds = "yes"
    # What a hand can set on it: a mode for shutter and ISO, raw files, its one aperture (None: any), the slowest
    # shutter of its dial (None: not known, or as long as its contact is closed).
    manual: Holds = "yes"
    raw: Holds = "yes"
    only_f: Positive | None = None
    slowest_s: PositiveDuration | None = None
    stabiliser: Stabiliser = "not known"
    # While it waits, in watts; and what a picture takes on top of that, waking and writing included, in joules.
    standby_w: NonNegative | None = None
    picture_j: NonNegative | None = None
    warmest_c: Celsius | None = None
    after_cut: AfterCut = "not known"


class Body(Imager):
    """A camera body; one with a lens built in has its focal length, and reaches to `focal_to_mm` where it zooms."""

    kind: Literal["body"] = "body"
    mass_g: Mass = 650.0
    above: Thread = "none"
    height_mm: NonNegative = 95.0
    width_mm: NonNegative = 130.0
    hole_mm: NonNegative | None = 5.5
    focal_mm: Positive | None = None
    focal_to_mm: Positive | None = None
    # How often its shutter has gone already, and how often it is rated for.
    shutter_done: Count = 0
    shutter_rated: Unknown = None


class Phone(Imager):
    """A phone with its own camera."""

    kind: Literal["phone"] = "phone"
    mass_g: Mass = 190.0
    below: Thread = "none"
    above: Thread = "none"
    height_mm: NonNegative = 75.0
    width_mm: NonNegative = 150.0
    sensor_width_mm: Positive = 7.0
    sensor_height_mm: Positive = 5.25
    picture_width_px: Pixels = 4000
    picture_height_px: Pixels = 3000
    focal_mm: Positive = 5.0
    # The camera beside its screen shows nobody what it sees, where somebody stands behind it.
    faces: Literal["back", "front"] = "back"
    socket: Socket = "none"
    hears: Hears = "nothing"
    holds_exposure: Holds = "not known"
    holds_white: Holds = "not known"
    holds_focus: Holds = "not known"
    manual: Holds = "not known"
    raw: Holds = "not known"
    only_f: Positive | None = 1.8


class Lens(CardBase):
    """A lens; a zoom reaches to `focal_to_mm`."""

    kind: Literal["lens"] = "lens"
    mass_g: Mass = 350.0
    focal_mm: Positive = 35.0
    focal_to_mm: Positive | None = None
    widest_f: Positive = 2.8
    length_mm: NonNegative = 60.0
    diameter_mm: NonNegative = 65.0
    # By how much it grows when it is zoomed or focused as far as it goes.
    grows_mm: NonNegative = 0.0
    creeps: bool = False


class Beam(Section):
    """What a rail is made of: `count` rods side by side, hollow where `inner_mm` is not 0; modulus in GPa, kg/m³."""

    count: Annotated[int, Field(ge=1, le=8)] = 2
    outer_mm: Positive = 15.0
    inner_mm: NonNegative = 0.0
    modulus_gpa: Positive = 69.0
    density_kg_m3: Positive = 2700.0

    @model_validator(mode="after")
    def _hollow(self) -> "Beam":
        if self.inner_mm >= self.outer_mm:
            raise ValueError("the inside of a tube is narrower than its outside")
        return self


class FurtherAxis(Section):
    """A further axis of a head, which stands on the one before: what it turns, its limits and its drive."""

    turns: Literal["pan", "tilt", "roll"] = "tilt"
    low: Position = -60.0
    high: Position = 80.0
    top_speed: Positive | None = 15.0
    acceleration: Positive | None = 30.0
    backlash: NonNegative = 0.0
    shaft_nmm: NonNegative | None = None
    off_axis_mm: NonNegative = 0.0
    drive: Drive = Gear()

    @model_validator(mode="after")
    def _low_below_high(self) -> "FurtherAxis":
        if self.low >= self.high:
            raise ValueError(LOW_BELOW_HIGH)
        return self


LOW_BELOW_HIGH = "the lower end of the travel lies below the upper end"


class AxisCard(Joined):
    """An axis with its drive. Linear axes are rails: `length_mm` long, with a carriage of so much mass.

    A head has `more` axes than one, each of which stands on the one before; what is not said of them holds for all.
    """

    kind: Literal["axis"] = "axis"
    motion: Literal["linear", "rotary"] = "linear"
    turns: Literal["pan", "tilt", "roll", "focus", "zoom"] = "pan"
    mass_g: Mass = 1500.0
    low: Position = 0.0
    high: Position = 900.0
    top_speed: Positive | None = 25.0
    acceleration: Positive | None = 80.0
    backlash: NonNegative = 0.0
    settle_s: Duration | None = Fraction(8, 10)
    drive: Drive = Belt()
    more: Annotated[tuple[FurtherAxis, ...], Field(max_length=2)] = ()
    height_mm: NonNegative = 60.0
    below: Thread = "3/8-16"
    length_mm: NonNegative = 0.0
    carriage_mm: NonNegative = 90.0
    carriage_g: Mass = 250.0
    end_margin_mm: NonNegative = 10.0
    beam: Beam | None = None
    shaft_nmm: NonNegative | None = None
    off_axis_mm: NonNegative = 0.0
    power_w: Unknown = None
    holding_w: NonNegative | None = None
    peak_a: Unknown = None
    # A unit that runs at one pace with others, by the name of what sets it: they are one clock.
    paced_by: Line = ""

    @model_validator(mode="after")
    def _low_below_high(self) -> "AxisCard":
        if self.low >= self.high:
            raise ValueError(LOW_BELOW_HIGH)
        return self

    @model_validator(mode="after")
    def _a_head_turns(self) -> "AxisCard":
        turns = [self.turns, *(further.turns for further in self.more)]
        if self.more and (self.motion == "linear" or self.on_lens):
            raise ValueError("only a head that turns has further axes")
        if len(set(turns)) != len(turns):
            raise ValueError("each axis of a head turns another way: pan, tilt or roll")
        return self

    @property
    def on_lens(self) -> bool:
        """Whether it turns a ring of the lens."""
        return self.motion == "rotary" and self.turns in ("focus", "zoom")

    def each(self) -> Iterator[tuple[str, "AxisCard"]]:
        """Each of its axes as a card of its own, with where its figures stand in this one."""
        yield "", self
        for number, further in enumerate(self.more):
            yield f"more.{number}.", self.model_copy(update={**dict(further), "more": ()})

    @property
    def unit(self) -> str:
        """`mm` or `deg`."""
        return "mm" if self.motion == "linear" else "deg"


class Support(Joined):
    """What stands on the ground: a tripod with its feet on a circle, a mast, a clamp; or a table, or the ground itself.

    Only a tripod stands on feet that it can tip over; the others hold by themselves.
    """

    kind: Literal["support"] = "support"
    form: Literal["tripod", "mast", "clamp", "table", "ground"] = "tripod"
    mass_g: Mass = 2000.0
    below: Thread = "none"
    above: Thread = "3/8-16"
    height_mm: NonNegative = 1200.0
    feet_radius_mm: NonNegative = 450.0
    carries_g: Mass | None = 6000.0
    screw_mm: NonNegative | None = 5.0
    # The tube that sways in the wind, and how much of it stands free above what holds it.
    tube: Beam | None = None
    free_mm: NonNegative | None = None

    @property
    def on_feet(self) -> bool:
        """Whether it can tip over its feet."""
        return self.form == "tripod"

    @property
    def bare(self) -> bool:
        """Whether what it carries simply stands on it, without a thread."""
        return self.form in ("table", "ground")


class Mount(Joined):
    """A plate, bush, spacer, bracket or clamp between two joints; `glue` says that it is stuck on."""

    kind: Literal["mount"] = "mount"
    form: Literal["plate", "bush", "spacer", "bracket", "ball head"] = "plate"
    mass_g: Mass = 80.0
    height_mm: NonNegative = 12.0
    offset_mm: NonNegative = 0.0
    glue: bool = False


class StorageCard(CardBase):
    """A memory card: gigabytes, and megabytes written in a second."""

    kind: Literal["card"] = "card"
    mass_g: Mass = 2.0
    gigabytes: Positive = 64.0
    write_mb_s: Positive = 60.0


class Filter(CardBase):
    """A filter: how many stops it takes, and its thread in millimetres; or a lens clipped on in front.

    A clip-on lens makes the focal length `factor` times as long, and leaves `clear` of each side of the picture.
    """

    kind: Literal["filter"] = "filter"
    mass_g: Mass = 30.0
    effect: Literal["neutral density", "polariser", "graduated", "clear", "clip-on lens"] = "neutral density"
    stops: NonNegative = 3.0
    thread_mm: Positive = 67.0
    factor: Positive = 1.0
    clear: Annotated[float, Field(ge=0.5, le=1, allow_inf_nan=False)] = 1.0


AnyCard = (
    Body | Phone | Lens | AxisCard | Support | Mount | Trigger | Battery | StorageCard | Lamp | Filter
    | Coupling | Cable | PowerSupply | Printer | HeadSwitch | Panel | Box
)  # fmt: skip
Card = Annotated[AnyCard, Field(discriminator="kind")]
CardKind = Literal[
    "body", "lens", "axis", "support", "mount", "trigger", "battery", "card", "lamp", "filter", "phone", "coupling",
    "cable", "supply",
    "printer", "head switch", "panel", "box",
]  # fmt: skip
CARD_TYPES: dict[str, type[AnyCard]] = {
    "body": Body,
    "lens": Lens,
    "axis": AxisCard,
    "support": Support,
    "mount": Mount,
    "trigger": Trigger,
    "battery": Battery,
    "card": StorageCard,
    "lamp": Lamp,
    "filter": Filter,
    "phone": Phone,
    "coupling": Coupling,
    "cable": Cable,
    "supply": PowerSupply,
    "printer": Printer,
    "head switch": HeadSwitch,
    "panel": Panel,
    "box": Box,
}


class Copy(Section):
    """A card as it was when it came into the plan; `card_id` and `version` find it on the shelf, if it is there."""

    key: Annotated[str, Field(pattern=r"^[a-z0-9-]{1,40}$")]
    card_id: Annotated[int, Field(ge=-MOST, le=MOST)] | None = None
    version: Annotated[int, Field(ge=0, le=MOST)] = 0
    card: Card


class Kit(Section):
    """The copies of a plan. Those that join stand in the order of the rig, from the ground to the camera."""

    copies: Annotated[tuple[Copy, ...], Field(max_length=60)] = ()

    @model_validator(mode="after")
    def _one_key_each(self) -> "Kit":
        keys = [copy.key for copy in self.copies]
        if len(set(keys)) != len(keys):
            raise ValueError("each copy in the kit has a key of its own")
        return self
