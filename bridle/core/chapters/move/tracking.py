"""Tracking: the fewest keyframes that keep a followed mark in its place."""

from collections.abc import Iterator

import numpy as np

from bridle.core.chapters.move.pointing import LIMIT_SHARE, least_drift, pointed
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.edit import Edit
from bridle.core.reckon.path import key_path
from bridle.core.reckon.picture import kept
from bridle.core.reckon.poses import WANTED, see_mark, tilt_at
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.tracking import Tracked
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.numbers.rounding import first_peak

DRIFTS = SnagKind(
    "mark-drifts",
    "mind",
    "move",
    "The {mark} drifts {error} of the width off its place, most at frame {frame}.",
    "Between keyframes the head turns at a pace of its own, not at that of the mark; above half a percent it shows.",
)
LOST = SnagKind(
    "mark-behind",
    "stop",
    "move",
    "At frame {frame} the {mark} is behind the camera: it cannot be followed.",
    "The head would have to turn all the way round to keep it in the picture.",
)
LEAVES = SnagKind(
    "mark-leaves",
    "mind",
    "move",
    "At frame {frame} the {mark} is out of the picture, {way}.",
    "A head that follows across does not see how high a thing stands; what is followed should be seen.",
)
DRIFTS_ON = SnagKind(
    "mark-drifts-on-the-way",
    "note",
    "move",
    "The {mark} drifts {error} of the width off its place between the two ends, most at frame {frame}.",
    "This head goes from end to end at one pace, and no other ends do better; a head that takes keyframes would.",
)
KINDS = (DRIFTS, DRIFTS_ON, LOST, LEAVES)
# Within this share of the least drift there is, the ends stand as well as they can.
NEARLY = 1.05
ERROR = Formula(
    "abs(focal * right / ahead / width - wanted)",
    "right of the axis over ahead along it, as the lens sees it, against where it is wanted",
)
HEIGHT = Formula(
    "abs(focal_this * up_this / ahead_this - focal_first * up_first / ahead_first) / width",
    "above the axis over ahead along it, as the lens sees it, against where the first frame has it",
)


def findings(shooting: Shooting) -> Iterator[Figure | Snag]:
    """Figures and snags of the mark that is followed."""
    plan, found = shooting.plan, shooting.tracked
    if found is None:
        return
    assert plan.move.follow is not None
    mark = plan.move.marks[plan.move.follow.mark]
    if np.isnan(found.error):
        slots = {"mark": slot(mark.name), "frame": slot(str(found.worst + 1))}
        fix = Fix(
            label="Follow nothing",
            consequence="The camera goes from keyframe to keyframe, as they are typed.",
            slots={},
            edits=(Edit(path="move.follow", value=None),),
        )
        yield LOST.at("move.follow", slots, [fix])
        return
    yield _error_figure(shooting, found)
    yield _height_figure(shooting, found)
    if found.leaves is not None:
        yield _leaves(shooting, found.leaves)
    elif found.error > LIMIT_SHARE:
        yield _drifts(shooting, found)


def _leaves(shooting: Shooting, frame: int) -> Snag:
    plan, at = shooting.plan, shooting.poses.at(frame)
    assert plan.move.follow is not None
    mark = plan.move.marks[plan.move.follow.mark]
    seen, focal, view = see_mark(plan, at, mark), float(at.focal[0]), kept(plan)
    right, up = float(seen.across()[0]) * focal / view.width_mm, float(seen.above()[0]) * focal / view.height_mm
    way = (
        ("above it" if up > 0 else "below it")
        if abs(up) > abs(right)
        else ("to the right" if right > 0 else "to the left")
    )
    slots = {"frame": slot(str(frame + 1)), "mark": slot(mark.name), "way": slot(way)}
    fixes = [*pointed(shooting), *_tilted(shooting), _let_go()]
    return LEAVES.at("move.follow", slots, fixes)


def _tilted(shooting: Shooting) -> list[Fix]:
    """The whole head tilted to the middle of where the mark is seen, where that keeps it in the picture all along."""
    plan, tilt = shooting.plan, shooting.plan.rig.axis("tilt")
    assert plan.move.follow is not None
    if tilt is not None and plan.move.follow.every_frame:
        return []
    up = tilt_at(plan, shooting.poses, plan.move.marks[plan.move.follow.mark])
    middle = round(float(up.min() + up.max()) / 2, 1)
    low, high = (tilt.low, tilt.high) if tilt else (-90.0, 90.0)
    keys = tuple(key.model_copy(update={"tilt_deg": middle}) for key in plan.move.keyframes)
    if not low <= middle <= high:
        return []
    after = shooting.tried(move=plan.move.model_copy(update={"keyframes": keys})).tracked
    if after is None or after.leaves is not None or np.isnan(after.error):
        return []
    edits = tuple(Edit(path=key_path(plan, n, "tilt"), value=middle) for n in range(len(keys)))
    consequence = "The camera looks that high all along; the horizon moves in the picture."
    return [Fix(label="Tilt to {tilt}", consequence=consequence, slots={"tilt": slot(middle, "deg")}, edits=edits)]


def _error_figure(shooting: Shooting, found: Tracked) -> Figure:
    plan, follow, worst = shooting.plan, shooting.plan.move.follow, found.worst
    assert follow is not None
    mark, at = plan.move.marks[follow.mark], shooting.poses.at(worst)
    seen = see_mark(plan, at, mark)
    terms = (
        term("focal", "focal length", float(at.focal[0]), "focal"),
        term("right", f"{mark.name}, right of the axis at frame {worst + 1}", float(seen.right[0]), "mm"),
        term("ahead", f"{mark.name}, ahead along the axis", float(seen.ahead[0]), "mm"),
        term("width", "sensor, across", kept(plan).width_mm, "focal"),
        term("wanted", "wanted right of the centre", WANTED[follow.across], "share"),
    )
    return figure("track.error", f"{mark.name} off its place", found.error, "share", ERROR, *terms)


def _height_figure(shooting: Shooting, found: Tracked) -> Figure:
    """How far it rises or sinks in the picture, at most: against where the first frame has it."""
    plan, follow = shooting.plan, shooting.plan.move.follow
    assert follow is not None
    mark = plan.move.marks[follow.mark]
    terms, worst = [term("width", "sensor, across", kept(plan).width_mm, "focal")], first_peak(found.up)
    for name, frame in (("this", worst), ("first", 0)):
        at = shooting.poses.at(frame)
        seen = see_mark(plan, at, mark)
        terms += [
            term(f"focal_{name}", f"focal length at frame {frame + 1}", float(at.focal[0]), "focal"),
            term(f"up_{name}", f"{mark.name}, above the axis at frame {frame + 1}", float(seen.up[0]), "mm"),
            term(f"ahead_{name}", f"{mark.name}, ahead along the axis", float(seen.ahead[0]), "mm"),
        ]
    label = f"{mark.name} rises or sinks by"
    return figure("track.height", label, float(found.up[worst]), "share", HEIGHT, *terms)


def _drifts(shooting: Shooting, found: Tracked) -> Snag:
    plan = shooting.plan
    assert plan.move.follow is not None
    mark = plan.move.marks[plan.move.follow.mark]
    slots = {"mark": slot(mark.name), "error": slot(found.error, "share"), "frame": slot(str(found.worst + 1))}
    least = least_drift(shooting)
    if least is not None and least.tracked is not None and found.error <= least.tracked.error * NEARLY:
        return DRIFTS_ON.at("move.follow", slots, [_let_go()])
    fixes = [*pointed(shooting), _let_go()]
    return DRIFTS.at("move.follow", slots, fixes)


def _let_go() -> Fix:
    return Fix(
        label="Let it drift",
        consequence="The mark is no longer followed; the move stays as it is.",
        slots={},
        edits=(Edit(path="move.follow", value=None),),
    )
