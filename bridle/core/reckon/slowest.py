"""The slowest shutter that each frame may have: what its beat leaves free, and how far the stars may be drawn out."""

import numpy as np
from numpy.typing import NDArray

from bridle.core.plan.document import Plan
from bridle.core.reckon.exposed import exposed_for, exposures, seconds_of
from bridle.core.reckon.focusing import driven_stack_mm
from bridle.core.reckon.picture import longest_lens
from bridle.core.reckon.rooms import room_left_s, waking_and_exposing_s
from bridle.core.reckon.scene import Scene
from bridle.core.reckon.starfield import fastest
from bridle.core.reckon.timeline import Timeline
from bridle.core.subjects.light import dials
from bridle.core.subjects.light.ramp import Limits
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.optics.projecting import Poses

Steps = NDArray[np.int64]
# Stars are in the picture from here on.
STARS_DEG = -6.0
# The sky turns and the camera goes slowly: so many frames are looked at, and lines drawn between them.
MOST_LOOKS = 200


def by_beat(plan: Plan, within: Limits, times: Timeline, settling: Floats) -> Steps:
    """The slowest shutter, in steps of the dial, that the beat of each frame has room for; its fastest where none fits.

    `settling` is moving and settling after each exposure, shape (visits, frames).
    """
    found = np.full(times.frames, within.shutter.low)
    open_ = np.ones(times.frames, dtype=bool)
    driven = bool(driven_stack_mm(plan, times.frames))
    for steps in range(within.shutter.high, within.shutter.low, -1):
        beat = exposed_for(plan.beat, seconds_of(dials.true("shutter", steps, within.a_stop)))
        exposing = exposures(beat, longest_lens(plan), driven)
        left = room_left_s(beat, exposing, times.rooms_s, settling)
        fits = open_ & (left + 1e-9 >= waking_and_exposing_s(beat, exposing, len(settling)))
        found[fits] = steps
        open_ &= ~fits
        if not open_.any():
            break
    return found


def by_stars(plan: Plan, within: Limits, at: Poses, scene: Scene) -> Steps:
    """The slowest shutter, in steps, with which no star in the picture is drawn out further than it may be."""
    most = within.shutter.high
    dark = scene.sun_deg < STARS_DEG
    pixels, where = plan.light.stars_px, plan.shoot.place.latitude_deg
    if pixels is None or where is None or plan.rig.normal_bearing_deg is None or not dark.any():
        return np.full(len(at), most)
    longest = longest_star_s(plan, at, pixels, where, dark)
    steps = np.floor(np.log2(longest) * within.a_stop + 1e-9)
    return np.where(dark, np.clip(steps, within.shutter.low, most), most).astype(np.int64)


def longest_star_s(
    plan: Plan, at: Poses, pixels: float, latitude_deg: float, dark: NDArray[np.bool_] | None = None
) -> Floats:
    """How long the shutter may be open at each frame until a star is drawn out so far, in the part that counts.

    In seconds; infinite where no sky is in that part. Only what it says of the `dark` frames counts, where they are
    given: the others are not looked at.
    """
    picked = np.unique(np.linspace(0, len(at) - 1, min(len(at), MOST_LOOKS)).astype(np.int64))
    longest, looked = np.full(len(picked), np.inf), np.ones(len(picked), dtype=bool)
    if dark is not None:
        near = np.searchsorted(picked, np.flatnonzero(dark), side="right")
        looked = np.isin(np.arange(len(picked)), np.concatenate((near - 1, near)))
    speed = fastest(plan, at.some(picked[looked]), latitude_deg, plan.light.stars_in).px_s
    with np.errstate(divide="ignore"):
        longest[looked] = np.where(np.isnan(speed), np.inf, pixels / np.nan_to_num(speed))
    if len(picked) == len(at):
        return longest
    # Between two that are looked at the shorter one holds for both.
    sooner = np.minimum(longest[:-1], longest[1:])
    return np.asarray(np.append(sooner, longest[-1])[np.searchsorted(picked, np.arange(len(at)), side="right") - 1])
