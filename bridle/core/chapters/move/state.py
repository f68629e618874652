"""What the camera sees, as the page draws it."""

from dataclasses import dataclass
from typing import Literal

from bridle.core.reckon.series import Series
from bridle.core.reckon.sights import Sight


@dataclass(frozen=True, slots=True, kw_only=True)
class TimeMap:
    """When each frame is, in seconds after the first: straight lines between these frames tell it to the millisecond.

    Where nothing is taken for a while (a night) the same frame stands twice: at the end of the slot before it, and at
    its own start. The last is the end of the shoot.
    """

    frames: tuple[int, ...]
    elapsed_s: tuple[float, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Traces:
    """The time map of the frames, and the position of each axis along them."""

    map: TimeMap
    axes: dict[str, Series]


@dataclass(frozen=True, slots=True, kw_only=True)
class BodySeen:
    """When sun or moon stand in the picture, in words; blank where they never do."""

    name: Literal["sun", "moon"]
    frames: int
    words: str


@dataclass(frozen=True, slots=True)
class SkyMark:
    """Where a mark stands that goes with the sky: its number, its bearing from north and its altitude, in degrees."""

    index: int
    azimuth: Series
    altitude: Series


@dataclass(frozen=True, slots=True, kw_only=True)
class ViewState:
    """What the camera sees. `poses` (x, z in mm; pan, tilt, roll in degrees; focal in mm), `shift_share` (of the
    width, to the next frame), `sun` and `moon` (azimuth and altitude) and `crops` (left, top, width, height in shares
    of the kept picture; none where nothing is cropped) run along the frames.

    `keyframes` are the frames (0-based) at which the keyframes stand on the first leg, `legs` those at which the
    legs begin and end. `kept_mm` is the kept part of the sensor, `delivered_px` the size of the clip.
    """

    kept_mm: tuple[float, ...]
    delivered_px: tuple[int, ...]
    keyframes: tuple[int, ...]
    legs: tuple[int, ...]
    poses: dict[str, Series]
    shift_share: Series
    sun: dict[str, Series] | None
    moon: dict[str, Series] | None
    bodies: tuple[BodySeen, ...]
    skies: tuple[SkyMark, ...]
    # At this altitude its upper edge touches the horizon.
    sun_up_deg: float
    # Between these altitudes the light of the drawn scene grows from none to all, in a straight line.
    daylight_deg: tuple[float, ...]
    crops: tuple[Series, ...]
    sights: tuple[Sight, ...]
    # Pictures in each cycle, and how far each lies beside where the move stands, by axis.
    visits: int
    beside: dict[str, tuple[float, ...]]


@dataclass(frozen=True, slots=True, kw_only=True)
class MoveState:
    """The move drawn: nothing while the clip is open."""

    traces: Traces | None = None
    view: ViewState | None = None
