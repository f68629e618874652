"""The light as the page draws it."""

from dataclasses import dataclass
from typing import Literal

from bridle.core.plan.light import LightSchool
from bridle.core.reckon.changes import ChangeLine
from bridle.core.reckon.series import Series
from bridle.core.reckon.twilight import Dark
from bridle.core.subjects.light.dials import Dial


@dataclass(frozen=True, slots=True, kw_only=True)
class BandDrawn:
    """A stretch of the clock that is as dark throughout, in seconds after the first frame."""

    dark: Dark
    from_s: float
    to_s: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Fall:
    """The light over the clock: exposure values at ISO 100 at seconds after the first frame, straight lines between.

    `ev` renders the scene as it is, `wanted` lets its night look darker. Of a shoot over weeks it is told `by_frame`:
    what lies between two of these moments is not on a line.
    """

    at_s: tuple[float, ...]
    ev: tuple[float, ...]
    wanted: tuple[float, ...]
    by_frame: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Flight:
    """What the camera is set to: an exposure value from each of some frames (0-based) on, filters included."""

    frames: tuple[int, ...]
    ev: tuple[float, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class SchoolDrawn:
    """A school as it would come out: stops too bright and too dark at their worst, and frames beyond mending.

    `measured` is false where a locked exposure is taken as right for the first frame, as no test says more.
    """

    school: LightSchool
    here: bool
    suits: str
    over_stops: float
    under_stops: float
    outside: int
    changes: int
    risk: str
    measured: bool
    flight: Flight


@dataclass(frozen=True, slots=True, kw_only=True)
class ProofDrawn:
    """A test exposure: when (seconds after the first frame), its exposure value, and how far off it is afterwards."""

    at_s: float
    ev: float
    off_stops: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Capped:
    """Frames (0-based, both included) whose slowest shutter is not the limit's: by beat or by stars."""

    first: int
    last: int
    by: Literal["beat", "stars"]
    shutter_s: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Reached:
    """The exposure values over which a dial follows the light, between the marks that its limits leave it."""

    dial: Dial
    from_ev: float
    to_ev: float


@dataclass(frozen=True, slots=True, kw_only=True)
class LightState:
    """What lights the scene and what is set. `missing` says what nobody has told; then nothing else is known.

    `changes` are the first of a list that is told whole elsewhere; `bright` is by how many stops the picture of each
    frame is brighter than right, `leftover` what is to be added to it in the edit, `shutter_s` how long each frame is
    exposed. `reach` is where each dial follows, one after another from the brightest light on.
    """

    missing: tuple[Literal["place", "daylight", "clip"], ...] = ()
    bands: tuple[BandDrawn, ...] = ()
    fall: Fall | None = None
    schools: tuple[SchoolDrawn, ...] = ()
    changes: tuple[ChangeLine, ...] = ()
    capped: tuple[Capped, ...] = ()
    proofs: tuple[ProofDrawn, ...] = ()
    bright: Series | None = None
    leftover: Series | None = None
    shutter_s: Series | None = None
    reach: tuple[Reached, ...] = ()
