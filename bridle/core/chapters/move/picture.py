"""The delivered picture: whether it is enlarged, and the move that is made by cropping."""

import math
from collections.abc import Iterator
from dataclasses import replace

from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.picture import Crop
from bridle.core.reckon.crops import tightest_px
from bridle.core.reckon.picture import SHAPES, Kept, kept
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.optics import cropping

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


def findings(plan: Plan) -> Iterator[Figure | Snag]:
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


def _kept_figures(plan: Plan, frame: Kept) -> Iterator[Figure]:
    if plan.picture.level_deg:
        yield _levelled(plan, frame)
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


def _levelled(plan: Plan, frame: Kept) -> Figure:
    """What levelling leaves of each side of the picture that would be kept without it."""
    (wide, high), turn = frame.shot_px, plan.picture.level_deg
    across, upright = SHAPES.get(plan.picture.shape, frame.shot_px)
    level, turned = (cropping.largest(wide, high, across, upright, angle)[0] for angle in (0.0, turn))
    terms = [
        term("width", "picture, across", wide, "px"),
        term("height", "picture, upright", high, "px"),
        term("turn", "turned by", abs(turn), "deg"),
    ]
    rule = cropping.LEVELLED
    if plan.picture.shape in SHAPES:
        rule = cropping.LEVELLED_IN_SHAPE
        terms += [term("across", "shape, across", across, ""), term("upright", "shape, upright", upright, "")]
    return figure("picture.levelled", "kept of each side", turned / level, "share", rule, *terms)


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
