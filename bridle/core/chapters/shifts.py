"""How fast the picture passes: from frame to frame, over the whole move, and near against far."""

import math
from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction

import numpy as np

from bridle.core.chapters.clip import clip_fix, solved
from bridle.core.chapters.holding import changed, within
from bridle.core.chapters.lessening import lessened, still
from bridle.core.chapters.path import positions
from bridle.core.chapters.picture import kept
from bridle.core.chapters.sighting import nearest_mm, placed, poses
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.marks import Mark
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects import projecting
from bridle.core.subjects.clip import Solution
from bridle.core.subjects.easing import Floats
from bridle.core.subjects.projecting import Flow

QUICK_SHARE, STROBES_SHARE, SEEN_SHARE = 0.006, 0.012, 0.01
QUICK = SnagKind(
    "move-quick",
    "note",
    "move",
    "From frame {frame} to the next the picture passes by {shift}, {share} of its width.",
    "Played at {rate} something crosses the picture in {cross}. Slower than seven seconds nobody sees single frames.",
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
    "So little does not look like a move but like a tripod that gave way.",
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


@dataclass(frozen=True)
class Shift:
    """Pixels from each frame to the next, at the worst of centre and both edges; which frame is worst, and where."""

    px: Floats
    worst: int
    at: str
    parts: dict[str, tuple[float, float]]

    @property
    def most(self) -> float:
        """The largest shift in pixels."""
        return float(self.px[self.worst]) if len(self.px) else 0.0


def steps_between(at: projecting.Poses) -> dict[str, Floats]:
    """The signed steps of the camera from each frame to the next, by axis; what does not move is left out."""
    ways = {"slide": at.x, "rise": at.z, "pan": at.pan, "tilt": at.tilt, "roll": at.roll, "zoom": at.focal}
    steps = {name: np.diff(values) for name, values in ways.items()}
    return {name: step for name, step in steps.items() if len(step) and np.any(np.abs(step) > 1e-12)}


def shift(plan: Plan, at: projecting.Poses) -> Shift:
    """The shift from frame to frame, linear axes seen at the nearest mark."""
    frames, frame = len(at), kept(plan)
    steps, per_mm = steps_between(at), frame.width_px / frame.width_mm
    before = projecting.Poses(*(getattr(at, name)[:-1] for name in ("x", "z", "pan", "tilt", "roll", "focal")))
    half = frame.width_mm / 2 / before.focal
    spots = {"centre": 0 * half, "left edge": -half, "right edge": half}
    flows = {name: projecting.flow(before, steps, u, 0 * u, nearest_mm(plan)) for name, u in spots.items()}
    px = {name: each.total(before.focal) * per_mm * np.ones(frames - 1) for name, each in flows.items()}
    if frames < 2:
        return Shift(np.zeros(0), 0, "centre", {})
    spot = max(px, key=lambda name: float(px[name].max()))
    worst = int(np.argmax(px[spot]))
    parts = _parts(flows[spot], worst, float(before.focal[worst]) * per_mm)
    return Shift(np.max(list(px.values()), axis=0), worst, spot, parts)


def _parts(told: Flow, frame: int, scale: float) -> dict[str, tuple[float, float]]:
    return {
        name: (float(told.across[name][frame]) * scale, float(told.up[name][frame]) * scale) for name in told.across
    }


def share_of_width(plan: Plan, places: dict[str, Floats], frames: int) -> float:
    """The largest shift from frame to frame as a share of the width."""
    return shift(plan, poses(plan, places, frames)).most / kept(plan).width_px


def answer(plan: Plan, places: dict[str, Floats], solution: Solution, told: Shift) -> Iterator[Figure | Snag]:
    """Figures and snags of how the picture passes."""
    width = kept(plan).width_px
    yield from _figures(told, width)
    yield from _parallax(plan, places, solution)
    total = float(told.px.sum())
    if told.most > QUICK_SHARE * width:
        yield _too_fast(plan, solution, told)
    elif 0.01 < total < SEEN_SHARE * width:
        yield _tiny(plan, total, width)


def _figures(told: Shift, width: int) -> Iterator[Figure]:
    names = list(told.parts)
    across, up = " + ".join(f"{name}_x" for name in names) or "nothing", " + ".join(f"{name}_y" for name in names)
    rule = Formula(
        f"sqrt(({across})**2 + ({up or 'nothing'})**2)",
        "optical flow: what each axis shifts across and up, added up; linear axes at the nearest mark",
    )
    terms = [
        term(f"{name}_{way}", f"by the {name}, {said}", value, "px")
        for name in names
        for way, said, value in (("x", "across", told.parts[name][0]), ("y", "up", told.parts[name][1]))
    ]
    if not names:
        terms = [term("nothing", "no axis moves", 0.0, "px")]
    worst = math.hypot(sum(part[0] for part in told.parts.values()), sum(part[1] for part in told.parts.values()))
    label = f"shift from frame {told.worst + 1} to the next, {told.at}"
    yield figure("view.shift", label, worst, "px", rule, *terms)
    sides = (term("shift", label, worst, "px"), term("width", "picture, across", width, "px"))
    yield figure("view.shift_share", "shift a frame", worst / width, "share", SHARE, *sides)


SHARE = Formula("shift / width", "in shares of the width")


def _crossing(solution: Solution, share: float) -> float:
    return 1 / share / float(solution.rate)


def _too_fast(plan: Plan, solution: Solution, told: Shift) -> Snag:
    width = kept(plan).width_px
    share = told.most / width
    slots = {
        "frame": slot(str(told.worst + 1)),
        "shift": slot(told.most, "px"),
        "share": slot(share, "share"),
        "cross": slot(_crossing(solution, share), "s"),
        "rate": slot(solution.rate, "rate"),
    }

    def calm(tried: Plan) -> bool:
        return share_of_width(tried, positions(tried, solution), solution.frames) <= QUICK_SHARE

    # Focus alone does not shift the picture.
    axes = [axis for axis in plan.rig.axes if axis.name != "focus"]
    fixes = [*_more_frames(plan, solution, share), *lessened(plan, axes, calm)]
    kind = STROBES if share > STROBES_SHARE else QUICK
    return kind.at("move.keyframes", slots, fixes)


def _more_frames(plan: Plan, solution: Solution, share: float) -> list[Fix]:
    """More frames for the same move: each goes a smaller step."""
    frames = solution.frames
    for _ in range(MOST_TRIES):
        frames = math.ceil(frames * share / QUICK_SHARE * 1.02) + 1
        if frames > 100_000:
            return []
        edits = within(plan.clip, "frames", Fraction(frames))
        if not edits:
            return []
        after, _missing = solved(changed(plan.clip, edits))
        if after is None:
            return []
        tried = plan.model_copy(update={"clip": changed(plan.clip, edits)})
        share = share_of_width(tried, positions(tried, after), after.frames)
        if share <= QUICK_SHARE:
            return [clip_fix(plan.clip, "{frames} frames", edits, {"frames": slot(after.frames)})]
    return []


def _tiny(plan: Plan, total: float, width: int) -> Snag:
    fix = Fix(
        label="Leave the camera still",
        consequence="Every keyframe becomes as the first; nothing has to settle, and nothing can go wrong on the rail.",
        slots={},
        edits=still(plan),
    )
    slots = {"shift": slot(total, "px"), "share": slot(total / width, "share")}
    return TINY.at("move.keyframes", slots, [fix] if fix.edits else [])


def _parallax(plan: Plan, places: dict[str, Floats], solution: Solution) -> Iterator[Figure | Snag]:
    marks = placed(plan)
    if "slide" not in places or not marks:
        return
    frame, focal = kept(plan), plan.camera.focal_mm
    travel = float(np.ptp(poses(plan, places, solution.frames).x))
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
        yield _unseen(plan, travel, px, 1 / far)


def _unseen(plan: Plan, travel: float, px: float, beyond: float) -> Snag:
    frame = kept(plan)
    scale = plan.camera.focal_mm * frame.width_px / frame.width_mm * travel
    near = math.floor(1 / (1.2 * SEEN_SHARE * frame.width_px / scale + beyond))
    middle = sum(key.slide_mm for key in plan.move.keyframes) / len(plan.move.keyframes)
    fixes = []
    if near >= 1 and len(plan.move.marks) < 40:
        mark = Mark(name="something near", form="post", x_mm=round(middle), y_mm=near, width_mm=min(100, near / 4))
        marks = [one.model_dump(mode="json") for one in (*plan.move.marks, mark)]
        fixes.append(
            Fix(
                label="Look for something {near} away",
                consequence="It goes on the drawing as a mark; a branch, a wall, a stone. Put it where it really is.",
                slots={"near": slot(near, "mm")},
                edits=(Edit(path="move.marks", value=marks),),
            )
        )
    slide = plan.rig.axis("slide")
    if slide is not None:
        fixes += lessened(plan, (slide,), lambda tried: len({key.slide_mm for key in tried.move.keyframes}) == 1)
    slots = {"travel": slot(travel, "mm"), "parallax": slot(px, "px")}
    return UNSEEN.at("move.keyframes", slots, fixes)
