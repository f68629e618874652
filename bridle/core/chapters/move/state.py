"""What the camera sees, as the page draws it."""

from bridle.core.chapters.answer import State


class Series(State):
    """A quantity along the frames (0-based): its values at some of them, straight lines between.

    A long one keeps its own extremes, at frames of its own. Without frames the values stand for every frame one after
    another; a single value stands for all.
    """

    frames: tuple[int, ...] = ()
    values: tuple[float, ...]


class TimeMap(State):
    """When each frame is, in seconds after the first: straight lines between these frames tell it to the millisecond.

    Where nothing is taken for a while (a night) the same frame stands twice: at the end of the slot before it, and at
    its own start. The last is the end of the shoot.
    """

    frames: tuple[int, ...]
    elapsed_s: tuple[float, ...]


class Traces(State):
    """The time map of the frames, and the position of each axis along them."""

    map: TimeMap
    axes: dict[str, Series]


class SightState(State):
    """When a mark is in the picture: runs of first and last frame (0-based), and the clock times of both."""

    index: int
    name: str
    cue: bool
    runs: tuple[tuple[int, ...], ...]
    clocks: tuple[tuple[float, ...], ...]


class ViewState(State):
    """What the camera sees. `poses` (x, z in mm; pan, tilt, roll in degrees; focal in mm), `shift_share` (of the
    width, to the next frame), `sun` (azimuth and altitude) and `crops` (left, top, width, height in shares of the
    kept picture; none where nothing is cropped) run along the frames.

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
    # At this altitude its upper edge touches the horizon.
    sun_up_deg: float
    # Between these altitudes the light of the drawn scene grows from none to all, in a straight line.
    daylight_deg: tuple[float, ...]
    crops: tuple[Series, ...]
    sights: tuple[SightState, ...]
    # Pictures in each cycle, and how far each lies beside where the move stands, by axis.
    visits: int
    beside: dict[str, tuple[float, ...]]


class MoveState(State):
    """The move drawn: nothing while the clip is open."""

    traces: Traces | None = None
    view: ViewState | None = None
