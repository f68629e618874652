"""The delivered picture in numbers: the crop of each frame."""

import math

import numpy as np
from numpy.typing import NDArray

from bridle.core.plan.document import Plan
from bridle.core.plan.move import Keyframe, Move
from bridle.core.plan.picture import Crop
from bridle.core.reckon.picture import Kept, kept
from bridle.core.reckon.schedule import schedule
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.time.sentence import Solution


def shares(plan: Plan, solution: Solution) -> Floats:
    """How far the crop has gone at each frame, 0 to 1: eased as the move is."""
    ends = Move(
        keyframes=(Keyframe(), Keyframe()),
        **{
            name: getattr(plan.move, name)
            for name in ("ease_in_frames", "ease_out_frames", "ease_in_s", "ease_out_s", "curve", "legs")
        },
    )
    timing = schedule(ends, plan.clip, solution)
    return np.pad(
        timing.along(np.array([0.0, 1.0])), (timing.span.first, solution.frames - 1 - timing.span.last), mode="edge"
    )


def rectangles(plan: Plan, solution: Solution) -> NDArray[np.int64]:
    """The crop of each frame in the frame's own pixels, after it has been turned level: left, top, width, height.

    Shape (frames, 4). Sides are even; the rectangle stays within what is kept.
    """
    frame, (shot_w, shot_h) = kept(plan), kept(plan).shot_px
    width, height = frame.source_px
    left, top = (shot_w - width) / 2, (shot_h - height) / 2
    if plan.move.post is None:
        one = np.array([math.floor(left), math.floor(top), width, height], dtype=np.int64)
        return np.tile(one, (solution.frames, 1))
    share = shares(plan, solution)
    start, end = plan.move.post.start, plan.move.post.end
    w = _between(start.width, end.width, share)
    # Held within the picture at its ends, it is so all the way, and goes evenly.
    first, last = _held(start), _held(end)
    across, down = (_between(a, b, share) for a, b in zip(first, last, strict=True))
    wide, high = 2 * np.floor(w * width / 2), 2 * np.floor(w * height / 2)
    x = np.clip(np.floor(left + across * width - wide / 2), 0, shot_w - wide)
    y = np.clip(np.floor(top + down * height - high / 2), 0, shot_h - high)
    return np.stack([x, y, wide, high], axis=1).astype(np.int64)


def crop_shares(plan: Plan, solution: Solution) -> Floats:
    """The crop of each frame as shares of the kept picture: left, top, width, height; (frames, 4), or (frames, 0)."""
    if plan.move.post is None:
        return np.zeros((solution.frames, 0))
    frame = kept(plan)
    (shot_w, shot_h), (width, height) = frame.shot_px, frame.source_px
    left, top = (shot_w - width) / 2, (shot_h - height) / 2
    made = rectangles(plan, solution).astype(np.float64)
    return np.asarray((made - [left, top, 0, 0]) / [width, height, width, height])


def _held(crop: Crop) -> tuple[float, float]:
    """The middle of a crop, as near to where it is asked for as the picture's edges let it come."""
    half = crop.width / 2
    return min(max(crop.across, half), 1 - half), min(max(crop.down, half), 1 - half)


def _between(start: float, end: float, share: Floats) -> Floats:
    return start * (1 - share) + end * share


def tightest_px(plan: Plan, frame: Kept) -> float:
    """Pixels across the tightest crop."""
    post = plan.move.post
    return frame.source_px[0] * (min(post.start.width, post.end.width) if post else 1.0)
