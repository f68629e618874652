"""What the camera sees, as the page draws it."""

from bridle.core.chapters.answer import State


class Traces(State):
    """Elapsed time and positions of each axis at some frames (0-based), at most about a thousand.

    One position stands for all where an axis stays where it is.
    """

    frames: tuple[int, ...]
    elapsed_s: tuple[float, ...]
    axes: dict[str, tuple[float, ...]]


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
    kept picture) have one entry for each frame of the traces, or one for all where nothing changes.

    `keyframes` are the frames (0-based) at which the keyframes stand on the first leg, `legs` those at which the
    legs begin and end. `kept_mm` is the kept part of the sensor, `delivered_px` the size of the clip.
    """

    kept_mm: tuple[float, ...]
    delivered_px: tuple[int, ...]
    keyframes: tuple[int, ...]
    legs: tuple[int, ...]
    poses: dict[str, tuple[float, ...]]
    shift_share: tuple[float, ...]
    sun: dict[str, tuple[float, ...]] | None
    crops: tuple[tuple[float, ...], ...]
    sights: tuple[SightState, ...]
    # Pictures in each cycle, and how far each lies beside where the move stands, by axis.
    visits: int
    beside: dict[str, tuple[float, ...]]


class MoveState(State):
    """The move drawn: nothing while the clip is open."""

    traces: Traces | None = None
    view: ViewState | None = None
