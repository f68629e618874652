"""The rig as the page draws it, and what its drives are told."""

from dataclasses import dataclass, field

from bridle.core.plan.rig import AxisName
from bridle.core.subjects.motion.drives.interface import Told


@dataclass(frozen=True, slots=True, kw_only=True)
class DriveState:
    """What the drive of an axis is told, in words; its figures are keyed `drive.<axis>.…`.

    `one_way`: whether it turns one way only, so that hanging it upside down changes the way. `told` is who tells it:
    a controller's program, a setting made before the start, a spring, or a hand. One that `stands` is not started.
    """

    axis: str
    drive: str
    told: Told
    words: str
    one_way: bool
    stands: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class RigPart:
    """A part of the rig as drawn: its middle from the first support, its foot above the ground, in mm.

    `joint` says how it sits on what is below.
    """

    index: int
    key: str
    name: str
    kind: str
    form: str
    x_mm: float
    y_mm: float
    width_mm: float
    height_mm: float
    mass_g: float
    rides: bool
    joint: str
    bad: bool
    weakest: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class RigDrawn:
    """The rig from the side. Two ends each: where the carriage comes to in the move, and what holds."""

    parts: tuple[RigPart, ...]
    carriage_mm: tuple[float, ...]
    # Where the carriage may come to at all, and the centre of mass (along, up) with it there; straight in between.
    ends_mm: tuple[float, ...]
    centre_mm: tuple[tuple[float, ...], ...]
    # The slide positions below and above which it tips, an unlevel base included.
    tips_mm: tuple[float | None, ...]
    # Whether it tips somewhere along the move.
    tips: bool
    hold_mm: tuple[float, ...]
    slope_deg: float


@dataclass(frozen=True, slots=True, kw_only=True)
class RigState:
    """The rig as it stands, where the plan has parts that join; every drive of the move; the axes' program letters.

    `lacks` is what a rig of this kind is still without. `ways` say which way the plus of each axis goes. `level` is
    where a level camera looks while a leaned pan turns all round: bearings from -180 to 180 and heights, in degrees;
    empty where it stands upright.
    """

    standing: RigDrawn | None = None
    drives: tuple[DriveState, ...] = ()
    programmed: tuple[AxisName, ...] = ()
    marked: tuple[AxisName, ...] = ()
    letters: dict[str, str] = field(default_factory=dict)
    ways: dict[str, str] = field(default_factory=dict)
    lacks: tuple[str, ...] = ()
    level: tuple[tuple[float, ...], ...] = ()
