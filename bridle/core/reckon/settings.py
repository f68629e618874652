"""What is set at each frame, in any of the three schools, and how far that is off what the scene wants."""

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from bridle.core.plan.document import Plan
from bridle.core.subjects.light import dials, ramp
from bridle.core.subjects.light.dials import STEPS_A_STOP, Dial
from bridle.core.subjects.light.ramp import Limits, Settings
from bridle.core.subjects.numbers.arrays import Floats

# An automatic exposure scatters by about so much from frame to frame: what the meter makes of what comes into view.
SCATTER_STOPS = 1 / 3


@dataclass(frozen=True)
class Followed:
    """Settings by frame that follow the light of the scene.

    `longest` is the slowest shutter that beat and stars leave each frame, in steps of its dial; `density` what filters
    take, in stops; `leftover` what is to be added in the edit.
    """

    limits: Limits
    settings: Settings
    longest: NDArray[np.int64]
    density: Floats
    leftover: Floats

    @cached_property
    def ev(self) -> Floats:
        """The exposure value that is set, filters included."""
        return np.asarray(self.settings.ev100 + self.density)

    @cached_property
    def shutter_s(self) -> Floats:
        """How long the shutter really is open, in seconds."""
        return np.asarray(2.0 ** (self.settings.shutter / self.settings.a_stop))

    @cached_property
    def changes(self) -> NDArray[np.int64]:
        """The frames (0-based) at which a hand, or the camera, has to change something; filters count too."""
        filters = np.flatnonzero(np.diff(self.density)) + 1
        return np.union1d(ramp.changes(self.settings), filters)

    @cached_property
    def outside(self) -> NDArray[np.bool_]:
        """At which frames the limits have run out."""
        return ramp.outside(self.leftover, self.settings.a_stop)

    def true(self, dial: Dial, frame: int) -> float:
        """What is really set at a frame: seconds, ISO, or the f-number."""
        steps = getattr(self.settings, dial)[frame]
        return dials.true(dial, int(steps), self.settings.a_stop)

    def label(self, dial: Dial, frame: int) -> float:
        """What is dialled at a frame."""
        steps = getattr(self.settings, dial)[frame]
        return dials.label(dial, int(steps), self.settings.a_stop)

    def labels(self, dial: Dial, frames: NDArray[np.int64]) -> list[float]:
        """What is dialled at some frames, one entry each."""
        steps, which = np.unique(getattr(self.settings, dial)[frames], return_inverse=True)
        engraved = np.array([dials.label(dial, one, self.settings.a_stop) for one in steps.tolist()])
        labels: list[float] = engraved[which].tolist()
        return labels


def limits_of(plan: Plan) -> Limits:
    """The limits of a plan; what does not follow the light stays as camera and beat have it."""
    light, camera = plan.light, plan.camera
    a_stop = STEPS_A_STOP[light.step]
    held: dict[Dial, float] = {
        "shutter": float(plan.beat.exposure_s), "iso": float(camera.iso), "aperture": camera.aperture
    }  # fmt: skip
    marks = {dial: dials.label(dial, dials.nearest(dial, value, a_stop), a_stop) for dial, value in held.items()}
    ends: dict[Dial, tuple[float, float]] = {
        "shutter": (float(light.shutter_short_s), float(light.shutter_long_s)),
        "iso": (light.iso_low, light.iso_high),
        "aperture": (light.aperture_wide, light.aperture_narrow),
    }
    ranges = {dial: ends[dial] if dial in light.order else (marks[dial], marks[dial]) for dial in held}
    return ramp.limits(ranges["shutter"], ranges["iso"], ranges["aperture"], light.order, light.step)


def density_of(plan: Plan, frames: int) -> Floats:
    """What the filters take at each frame, in stops."""
    stops = np.zeros(frames)
    for one in plan.light.densities:
        stops[one.first_frame - 1 : one.last_frame] += one.stops
    return stops


def follow(plan: Plan, wanted_ev: Floats, longest: NDArray[np.int64]) -> Followed:
    """The settings of a plan that follow what is wanted, frame by frame."""
    within, density = limits_of(plan), density_of(plan, len(wanted_ev))
    settings = ramp.follow(wanted_ev - density, within, longest)
    return Followed(within, settings, longest, density, settings.ev100 + density - wanted_ev)


def scatter_stops(frames: int) -> Floats:
    """How an automatic exposure strays from frame to frame, in stops: made up, and the same each time."""
    return np.random.default_rng(frames).uniform(-SCATTER_STOPS, SCATTER_STOPS, frames)


def locked_ev(plan: Plan) -> float:
    """The exposure value of what camera and beat have set, without filters."""
    return dials.ev100(float(plan.beat.exposure_s), plan.camera.iso, plan.camera.aperture)
