"""The ramp: which settings follow the light from frame to frame, within limits, in steps of the camera's dials.

Exposure is counted in whole steps of light taken: shutter and ISO upwards, the aperture downwards as its number grows.
What a frame wants decides alone what it gets, so that a ramp reversed in time is the ramp of the reversed light.
"""

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from bridle.core.figure import Formula
from bridle.core.subjects.light.dials import STEPS_A_STOP, Dial, Step, at_least, at_most
from bridle.core.subjects.numbers.arrays import Floats

Steps = NDArray[np.int64]
# The leftover of what is within the limits is at most half a step; so much beyond that is float noise.
NOISE = 1e-9
LEFTOVER = Formula(
    "set - wanted", "the exposure value that is set less the one that is wanted: stops to add in the edit"
)


class Range(NamedTuple):
    """Where a setting may go, in steps of its dial, both ends included."""

    low: int
    high: int


class Limits(NamedTuple):
    """Ranges of the three settings, which of them follows the light first, and how many steps a stop has."""

    shutter: Range
    iso: Range
    aperture: Range
    order: tuple[Dial, ...]
    a_stop: int


class Settings(NamedTuple):
    """What is set at each frame, in steps of the dials; shape (frames,)."""

    shutter: Steps
    iso: Steps
    aperture: Steps
    a_stop: int

    @property
    def ev100(self) -> Floats:
        """The exposure value of each."""
        return np.asarray((self.aperture - self.shutter - self.iso) / self.a_stop)


def limits(
    shutter_s: tuple[float, float],
    iso: tuple[float, float],
    aperture: tuple[float, float],
    order: Sequence[Dial],
    step: Step,
) -> Limits:
    """Limits as marks of the dials that lie within them. A setting that does not follow has both ends alike."""
    a_stop = STEPS_A_STOP[step]

    def within(dial: Dial, low: float, high: float) -> Range:
        first, last = at_least(dial, low, a_stop), at_most(dial, high, a_stop)
        return Range(min(first, last), last)

    return Limits(
        within("shutter", *shutter_s), within("iso", *iso), within("aperture", *aperture), tuple(order), a_stop
    )


def follow(wanted_ev: Floats, within: Limits, longest: Steps | None = None) -> Settings:
    """The settings nearest to what each frame wants (`EV100`), `longest` being the slowest shutter it may have.

    The first in the order gives until it is at its end, then the next. Halves go towards less light.
    """
    ranges = {"shutter": within.shutter, "iso": within.iso, "aperture": within.aperture}
    shutter, frames = within.shutter, len(wanted_ev)
    slowest = np.full(frames, shutter.high) if longest is None else np.clip(longest, shutter.low, shutter.high)
    least = shutter.low + within.iso.low - within.aperture.high
    left = np.ceil(-wanted_ev * within.a_stop - 0.5 - NOISE).astype(np.int64) - least
    given: dict[str, Steps] = {}
    for dial in within.order:
        room = slowest - shutter.low if dial == "shutter" else ranges[dial].high - ranges[dial].low
        given[dial] = np.clip(left, 0, room)
        left = left - given[dial]
    none = np.zeros(frames, dtype=np.int64)
    return Settings(
        shutter=shutter.low + given.get("shutter", none),
        iso=within.iso.low + given.get("iso", none),
        aperture=within.aperture.high - given.get("aperture", none),
        a_stop=within.a_stop,
    )


def outside(leftover: Floats, a_stop: int) -> NDArray[np.bool_]:
    """At which frames the limits have run out: more is left over than half a step."""
    return np.asarray(np.abs(leftover) > 0.5 / a_stop + 1e-6)


def changes(settings: Settings) -> NDArray[np.int64]:
    """The frames (0-based) at which something is set that was not set before; the first one is none."""
    each = (settings.shutter, settings.iso, settings.aperture)
    changed = np.zeros(len(settings.shutter) - 1, dtype=bool)
    for steps in each:
        changed |= steps[1:] != steps[:-1]
    return np.flatnonzero(changed) + 1


def pace(at_s: Floats, window_s: float = 600.0) -> tuple[int, float | None]:
    """How many changes fall into the ten minutes that have most of them, and the shortest time between two.

    `at_s` are their moments, rising; no time where there are fewer than two.
    """
    if not len(at_s):
        return 0, None
    within = np.searchsorted(at_s, at_s + window_s, side="left") - np.arange(len(at_s))
    return int(within.max()), float(np.diff(at_s).min()) if len(at_s) > 1 else None
