"""How the picture passes: from frame to frame, over the whole move, and near against far."""

import math
from collections.abc import Iterator
from fractions import Fraction

import numpy as np

from bridle.core.asks.clip_offers import clip_fix
from bridle.core.asks.move_offers import lessened, still
from bridle.core.asks.pegs import changed, within
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.marks import Mark
from bridle.core.reckon.asked import spoilt
from bridle.core.reckon.passing import CENTRE, Place, Shift
from bridle.core.reckon.picture import kept
from bridle.core.reckon.poses import placed
from bridle.core.reckon.reckoning import Shooting, shooting_of
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.optics import shifts

QUICK_SHARE, STROBES_SHARE, SEEN_SHARE = 0.006, 0.012, 0.01
QUICK = SnagKind(
    "move-quick",
    "note",
    "move",
    "From frame {frame} to the next the picture passes by {shift}, {share} of its width.",
    "Played at {rate} something crosses the picture in {cross}. At 0.6 % of the width or less from one frame to the "
    "next, nobody sees single frames.",
)
STROBES = SnagKind(
    "move-strobes",
    "mind",
    "move",
    "From frame {frame} to the next the picture jumps by {shift}, {share} of its width: it strobes.",
    "Each frame shows as one of its own, most of all with the short exposures of stills. Something crosses the "
    "picture in {cross}, at {rate}.",
)
TINY = SnagKind(
    "move-too-small",
    "note",
    "move",
    "The whole move passes the picture by {shift}, {share} of its width.",
    "So little does not look like a move but like something that gave way.",
)
UNSEEN = SnagKind(
    "slide-unseen",
    "note",
    "move",
    "Along {travel} of slide the near passes the far by {parallax} only.",
    "A slide lives from something near that moves over something far. With nothing near it looks like no slide.",
)
KINDS = (QUICK, STROBES, TINY, UNSEEN)
PARALLAX = Formula(
    "focal * width / sensor * travel * (1 / near - reciprocal)",
    "how far the nearest mark passes the furthest one, or the horizon, while the carriage travels",
)
MOST_TRIES = 4


def findings(shooting: Shooting) -> Iterator[Figure | Snag]:
    """Figures and snags of how the picture passes."""
    plan, shift = shooting.plan, shooting.shift
    width = kept(plan).width_px
    yield from _figures(shift, width)
    yield from _parallax(shooting)
    total = float(shift.px.sum())
    if shift.most > QUICK_SHARE * width:
        yield _too_fast(shooting)
    elif shift.known and 0.01 < total < SEEN_SHARE * width:
        yield _tiny(plan, total, width)


def _figures(shift: Shift, width: int) -> Iterator[Figure]:
    """The shift at the worst place of the picture, and at its centre; nothing where nothing moves."""
    worst, middle = shift.place(shift.worst), shift.place(shift.worst, (CENTRE,))
    if not worst.parts:
        return
    alone = "" if shift.known else ", by turning alone"
    yield _shifted("view.shift", shift.worst, worst, alone)
    if worst.name != middle.name:
        yield _shifted("view.shift.centre", shift.worst, middle, alone)
    sides = (term("shift", "shift a frame", worst.px, "px"), term("width", "picture, across", width, "px"))
    yield figure("view.shift_share", "shift a frame", worst.px / width, "share", SHARE, *sides)


def _shifted(key: str, step: int, place: Place, alone: str) -> Figure:
    rule = Formula(shifts.expression(place.parts), FLOW)
    label = f"shift from frame {step + 1} to the next, {place.name}{alone}"
    return figure(key, label, place.px, "px", rule, *shifts.terms(place.parts))


FLOW = "optical flow: what each axis shifts across and up, added up; linear axes at the nearest mark, or far behind it"
SHARE = Formula("shift / width", "in shares of the width")


def _crossing(shooting: Shooting) -> float:
    """How long something takes across the picture in the clip, at the pace of the worst step."""
    shift = shooting.shift
    frames = shift.crossing_frames(shift.worst) or kept(shooting.plan).width_px / shift.most
    return frames / float(shooting.solution.rate)


def _too_fast(shooting: Shooting) -> Snag:
    plan, solution, shift = shooting.plan, shooting.solution, shooting.shift
    width = kept(plan).width_px
    share = shift.most / width
    slots = {
        "frame": slot(str(shift.worst + 1)),
        "shift": slot(shift.most, "px"),
        "share": slot(share, "share"),
        "cross": slot(_crossing(shooting), "s"),
        "rate": slot(solution.rate, "rate"),
    }

    def calm(tried: Shooting) -> bool:
        return _share_of_width(tried) <= QUICK_SHARE

    # Focus alone does not shift the picture.
    axes = [axis for axis in plan.rig.axes if axis.name != "focus"]
    fixes = [*_more_frames(shooting, share), *lessened(shooting, axes, calm)]
    kind = STROBES if share > STROBES_SHARE else QUICK
    return kind.at("move.keyframes", slots, fixes)


def strobes_anew(before: Shooting, after: Shooting) -> bool:
    """Whether another move passes by too quickly, where the one before did not."""
    return _share_of_width(after) > QUICK_SHARE >= _share_of_width(before)


def _share_of_width(shooting: Shooting) -> float:
    """The largest shift from frame to frame as a share of the width."""
    return shooting.shift.most / kept(shooting.plan).width_px


def _more_frames(shooting: Shooting, share: float) -> list[Fix]:
    """More frames for the same move: each goes a smaller step."""
    plan, frames = shooting.plan, shooting.frames
    for _ in range(MOST_TRIES):
        frames = math.ceil(frames * share / QUICK_SHARE * 1.02) + 1
        if frames > 100_000:
            return []
        edits = within(plan, "frames", Fraction(frames))
        after = shooting_of(changed(plan, edits)) if edits else None
        if after is None:
            return []
        share = _share_of_width(after)
        if share <= QUICK_SHARE and spoilt(shooting, after):
            return []
        if share <= QUICK_SHARE:
            return [clip_fix(plan, "{frames} frames", edits, {"frames": slot(after.frames)})]
    return []


def _tiny(plan: Plan, total: float, width: int) -> Snag:
    fix = Fix(
        label="Leave the camera still",
        consequence="Every keyframe becomes as the first; nothing has to settle, and nothing can go wrong on the way.",
        slots={},
        edits=still(plan),
    )
    slots = {"shift": slot(total, "px"), "share": slot(total / width, "share")}
    return TINY.at("move.keyframes", slots, [fix] if fix.edits else [])


def _parallax(shooting: Shooting) -> Iterator[Figure | Snag]:
    plan, marks = shooting.plan, placed(shooting.plan)
    if "slide" not in shooting.positions or not marks:
        return
    frame, focal = kept(plan), _focal_on_the_way(shooting)
    travel = float(np.ptp(shooting.poses.x))
    near, far = min(mark.y_mm for mark in marks), max(mark.y_mm for mark in marks)
    beyond = 1 / far if far > near else 0.0
    px = focal * frame.width_px / frame.width_mm * travel * (1 / near - beyond)
    terms = (
        term("focal", "focal length", focal, "focal"),
        term("width", "picture, across", frame.width_px, "px"),
        term("sensor", "sensor, across", frame.width_mm, "focal"),
        term("travel", "the carriage travels", travel, "mm"),
        term("near", "nearest mark, away from the rail", near, "mm"),
        term("reciprocal", "one over the furthest (0: the horizon)", beyond, "1/mm"),
    )
    yield figure("view.parallax", "near passes far by", px, "px", PARALLAX, *terms)
    if travel > 0 and px < SEEN_SHARE * frame.width_px:
        # Whatever is put nearer makes the furthest mark the far one, also where there was only that one.
        yield _unseen(shooting, travel, px, 1 / far)


def _focal_on_the_way(shooting: Shooting) -> float:
    """The focal length while the carriage travels: with a zoom the mean of each step's, by how far the step goes."""
    at = shooting.poses
    steps = np.abs(np.diff(at.x))
    whole = float(steps.sum())
    return float((at.focal[:-1] * steps).sum() / whole) if whole else float(at.focal[0])


def _stands_on_rail(tried: Shooting) -> bool:
    return len({key.slide_mm for key in tried.plan.move.keyframes}) == 1


def _unseen(shooting: Shooting, travel: float, px: float, beyond: float) -> Snag:
    plan, frame = shooting.plan, kept(shooting.plan)
    scale = _focal_on_the_way(shooting) * frame.width_px / frame.width_mm * travel
    near = math.floor(1 / (1.2 * SEEN_SHARE * frame.width_px / scale + beyond))
    middle = sum(key.slide_mm for key in plan.move.keyframes) / len(plan.move.keyframes)
    fixes = []
    if near >= 1 and len(plan.move.marks) < 40:
        mark = Mark(name="something near", form="post", x_mm=round(middle), y_mm=near, width_mm=min(100, near / 4))
        marked = shooting.tried(move=plan.move.model_copy(update={"marks": (*plan.move.marks, mark)}))
        marks = [one.model_dump(mode="json") for one in marked.plan.move.marks]
        # So near that it rushes past is no help.
        if not strobes_anew(shooting, marked):
            fixes.append(
                Fix(
                    label="Look for something {near} off the rail",
                    consequence="A branch, a wall, a stone: it goes on the drawing as a mark. Put it where it is.",
                    slots={"near": slot(near, "mm")},
                    edits=(Edit(path="move.marks", value=marks),),
                )
            )
    slide = plan.rig.axis("slide")
    if slide is not None:
        fixes += lessened(shooting, (slide,), _stands_on_rail)
    slots = {"travel": slot(travel, "mm"), "parallax": slot(px, "px")}
    return UNSEEN.at("move.keyframes", slots, fixes)
