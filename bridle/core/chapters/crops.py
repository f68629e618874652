"""The delivered picture: what is kept, whether it is enlarged, and the move that is made by cropping."""

import math
from collections.abc import Iterator
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from bridle.core.chapters.picture import Kept, kept
from bridle.core.chapters.schedule import schedule
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.move import Keyframe, Move
from bridle.core.plan.picture import Crop
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects import cropping
from bridle.core.subjects.clip import Solution
from bridle.core.subjects.easing import Floats

ENLARGED = SnagKind(
    "picture-enlarged",
    "mind",
    "move",
    "{kept} are kept across, and {delivered} delivered: the picture is enlarged {times}.",
    "What is not in the frame cannot be put there; it comes out soft, and noise grows with it.",
)
SOFT = SnagKind(
    "lens-soft",
    "note",
    "move",
    "The lens fills {lens} across, the clip has {delivered}.",
    "More pixels than the lens can draw only make bigger files.",
)
KINDS = (ENLARGED, SOFT)
LEAST_PX = 16
TIGHTEST = Formula("source * share", "pixels of the frame that the tightest crop has across")
TIMES = Formula("delivered / source", "delivered pixels over those that are there")


def shares(plan: Plan, solution: Solution) -> Floats:
    """How far the crop has gone at each frame, 0 to 1: eased as the move is."""
    ends = Move(
        keyframes=(Keyframe(), Keyframe()),
        **{
            name: getattr(plan.move, name)
            for name in ("ease_in_frames", "ease_out_frames", "ease_in_s", "ease_out_s", "curve", "legs")
        },
    )
    told = schedule(ends, plan.clip, solution)
    return np.pad(
        told.along(np.array([0.0, 1.0])), (told.span.first, solution.frames - 1 - told.span.last), mode="edge"
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
    across, down = (_between(a, b, share) for a, b in ((start.across, end.across), (start.down, end.down)))
    across, down = (np.clip(middle, w / 2, 1 - w / 2) for middle in (across, down))
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


def _between(start: float, end: float, share: Floats) -> Floats:
    return start * (1 - share) + end * share


def answer(plan: Plan) -> Iterator[Figure | Snag]:
    """Figures and snags of what is kept."""
    frame = kept(plan)
    yield from _kept_figures(plan, frame)
    tightest = tightest_px(plan, frame)
    if tightest < frame.width_px - 1:
        yield _enlarged(plan, frame, tightest)
    lens = plan.camera.lens_px
    if lens is not None and lens < frame.width_px - 1 and tightest >= frame.width_px - 1:
        slots = {"lens": slot(lens, "px"), "delivered": slot(frame.width_px, "px")}
        yield SOFT.at("picture.width_px", slots, [_deliver(lens)])


def tightest_px(plan: Plan, frame: Kept) -> float:
    """Pixels across the tightest crop."""
    post = plan.move.post
    return frame.source_px[0] * (min(post.start.width, post.end.width) if post else 1.0)


def _kept_figures(plan: Plan, frame: Kept) -> Iterator[Figure]:
    shot_w, shot_h = frame.shot_px
    share = cropping.levelled_share(shot_w, shot_h, plan.picture.level_deg)
    if plan.picture.level_deg:
        sides = (term("width", "picture, across", shot_w, "px"), term("height", "picture, upright", shot_h, "px"))
        turn = term("turn", "turned by", abs(plan.picture.level_deg), "deg")
        yield figure("picture.levelled", "kept of each side", share, "share", cropping.LEVELLED, *sides, turn)
    tightest = tightest_px(plan, frame)
    delivered = term("delivered", "delivered, across", frame.width_px, "px")
    source = term("source", "pixels kept, across", frame.source_px[0], "px")
    yield figure(
        "picture.headroom",
        "headroom",
        frame.source_px[0] / frame.width_px,
        "times",
        cropping.HEADROOM,
        replace(source, symbol="kept"),
        delivered,
    )
    if plan.move.post:
        each = term("share", "width of the tightest crop", tightest / frame.source_px[0], "share")
        yield figure("picture.tightest", "tightest crop, across", tightest, "px", TIGHTEST, source, each)


def _deliver(px: float) -> Fix:
    width = max(LEAST_PX, cropping.even(px))
    return Fix(
        label="Deliver {width} across",
        consequence="The clip becomes smaller, and as sharp as it can be.",
        slots={"width": slot(width, "px")},
        edits=(Edit(path="picture.width_px", value=width),),
    )


def _enlarged(plan: Plan, frame: Kept, tightest: float) -> Snag:
    slots = {
        "kept": slot(math.floor(tightest), "px"),
        "delivered": slot(frame.width_px, "px"),
        "times": slot(frame.width_px / max(tightest, 1e-9), "times"),
    }
    fixes = [_deliver(tightest)] if tightest >= LEAST_PX else []
    post, needed = plan.move.post, frame.width_px / frame.source_px[0]
    if post is not None and needed <= 1:
        share = min(1.0, math.ceil(needed * 1000) / 1000)
        wider = {
            name: Crop(across=crop.across, down=crop.down, width=max(crop.width, share))
            for name, crop in (("start", post.start), ("end", post.end))
        }
        fixes.append(
            Fix(
                label="Crop to {share} at the least",
                consequence="The move goes in less far, and keeps its sharpness.",
                slots={"share": slot(share, "share")},
                edits=(
                    Edit(
                        path="move.post",
                        value={name: crop.model_dump(mode="json") for name, crop in wider.items()},
                    ),
                ),
            )
        )
    return ENLARGED.at("picture.width_px", slots, fixes)
