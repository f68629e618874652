"""One beat as the page draws it, and both schools side by side."""

from dataclasses import dataclass
from typing import Literal

from bridle.core.plan.beat import BeatSchool


@dataclass(frozen=True, slots=True, kw_only=True)
class BeatPart:
    """One arc of the beat ring, in seconds from the start of the interval; on the `wires` track is who presses."""

    name: str
    label: str
    start_s: float
    length_s: float
    track: Literal["outer", "inner", "wires"]
    path: str | None
    figure: str | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class BeatDrawn:
    """The tightest beat against its slot, in seconds; `over_s` is by how much it does not fit, margin included.

    `character` is how its motion will look, going by the share of the interval that is exposed; `stepped` is whether a
    motor goes through the positions of a focus stack.
    """

    interval_s: float
    frame: int
    need_s: float
    over_s: float
    character: Literal["staccato", "flowing"]
    stepped: bool
    parts: tuple[BeatPart, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class BeatOf:
    """The tightest beat of those with one exposure, in seconds."""

    exposure_s: float
    beat: BeatDrawn


@dataclass(frozen=True, slots=True, kw_only=True)
class SchoolState:
    """Shoot-move-shoot or continuous, as it would come out; its figures are keyed `school.<school>.…`.

    `smear_px` is 0 where nothing moves while the shutter is open, and empty where the distance is not known.
    """

    school: BeatSchool
    here: bool
    suits: str
    smear_px: float | None
    risk: str


@dataclass(frozen=True, slots=True, kw_only=True)
class BeatState:
    """The beat, both schools, and the frame (0-based) at which the buffer stalls; nothing while the clip is open.

    Where the exposure follows the light, `each` is the tightest beat of every exposure there is.
    """

    beat: BeatDrawn | None = None
    each: tuple[BeatOf, ...] = ()
    schools: tuple[SchoolState, ...] = ()
    stalls_at: int | None = None
