"""Whether a hand is quick enough: how often something has to be set anew, and how soon again."""

from collections.abc import Iterator

import numpy as np

from bridle.core.asks.trying import with_light
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.edit import Edit
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.settings import Followed
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.light import ramp
from bridle.core.subjects.light.dials import STEPS_A_STOP, Step

BUSY = SnagKind(
    "hand-too-slow",
    "note",
    "light",
    "In its ten busiest minutes {often} fall due, the closest two {gap} apart.",
    "A hand in the dark takes some ten seconds for one, between two frames, without touching the framing. A program or "
    "a camera that does it by itself has no such limit.",
)
APERTURE = SnagKind(
    "aperture-flickers",
    "mind",
    "light",
    "The aperture changes {often} in this ramp.",
    "An iris does not close twice alike: the picture jumps by some tenths of a stop, and its depth of field changes.",
)
KINDS = (BUSY, APERTURE)
WINDOW_S = 600.0
# More than so many changes in ten minutes, or two of them closer than so, is more than a hand does unseen.
MOST_CHANGES, CLOSEST_S = 8, 15.0
OFTEN = Formula("changes", "changes that fall into the ten minutes with most of them")
GAP = Formula("later - sooner", "from one change to the next, where they follow most closely")


def findings(shooting: Shooting) -> Iterator[Figure | Snag]:
    """How quick a hand has to be; and an aperture that takes part."""
    followed = shooting.followed
    if followed is None or not len(followed.changes):
        return
    at = shooting.timeline.starts_s[followed.changes]
    often, gap = ramp.pace(at, WINDOW_S)
    yield figure(
        "light.pace", "changes in ten minutes, at most", often, "", OFTEN, term("changes", "of them", often, "")
    )
    if gap is not None:
        closest = int(np.diff(at).argmin())
        ends = (
            term("later", "the later one, after the first frame", float(at[closest + 1]), "s"),
            term("sooner", "the one before", float(at[closest]), "s"),
        )
        yield figure("light.gap", "closest two changes", gap, "s", GAP, *ends)
    if shooting.plan.light.school != "ramped":
        return
    if gap is not None and (often > MOST_CHANGES or gap < CLOSEST_S):
        slots = {"often": slot(f"{often} changes"), "gap": slot(gap, "s")}
        yield BUSY.at("light.step", slots, list(_coarser(shooting)))
    opened = int(np.count_nonzero(np.diff(followed.settings.aperture)))
    if opened:
        said = slot({1: "once", 2: "twice"}.get(opened, f"{opened} times"))
        yield APERTURE.at("light.order", {"often": said}, list(_held(shooting, followed)))


def _coarser(shooting: Shooting) -> Iterator[Fix]:
    """Steps of half a stop, or of a whole one: fewer changes, and more left for the edit."""
    finer = STEPS_A_STOP[shooting.plan.light.step]
    steps: tuple[Step, ...] = ("half", "full")
    for step in steps:
        if STEPS_A_STOP[step] >= finer:
            continue
        tried = with_light(shooting, step=step).followed
        assert tried is not None
        often, gap = ramp.pace(shooting.timeline.starts_s[tried.changes], WINDOW_S)
        if often > MOST_CHANGES or (gap is not None and gap < CLOSEST_S):
            continue
        if bool(tried.outside.any()) and not bool(shooting.followed and shooting.followed.outside.any()):
            continue
        yield Fix(
            label=f"Steps of {'half a' if step == 'half' else 'a whole'} stop",
            consequence="{often} in the ten busiest minutes; up to {left} left for the edit.",
            slots={
                "often": slot(f"{often} change{'' if often == 1 else 's'}"),
                "left": slot(0.5 / STEPS_A_STOP[step], "stops"),
            },
            edits=(Edit(path="light.step", value=step),),
        )
        return


def _held(shooting: Shooting, followed: Followed) -> Iterator[Fix]:
    """The aperture left as the camera has it; what that costs is told."""
    light = shooting.plan.light
    order = [dial for dial in light.order if dial != "aperture"] or ["shutter"]
    tried = with_light(shooting, order=tuple(order)).followed
    assert tried is not None
    more = int(tried.outside.sum()) - int(followed.outside.sum())
    said = "The depth of field stays." if more <= 0 else "{more} more lie beyond the limits of shutter and ISO then."
    yield Fix(
        label="Hold the aperture at {aperture}",
        consequence=said,
        slots={"aperture": slot(shooting.plan.camera.aperture, "f-number"), "more": slot(max(more, 0), "frames")},
        edits=(Edit(path="light.order", value=list(order)),),
    )
