"""Who has to be there when, and ends that just miss."""

from collections.abc import Iterator

from bridle.core.asks.aiming import aimed_edits
from bridle.core.asks.naming import besides
from bridle.core.chapters.move.passing import strobes_anew
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.marks import Mark
from bridle.core.plan.rounds import Stations
from bridle.core.reckon.asked import misses_more
from bridle.core.reckon.path import end_path
from bridle.core.reckon.picture import kept
from bridle.core.reckon.poses import see_mark
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.sights import Sight, visited
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.optics.projecting import Poses

NEVER = SnagKind(
    "cue-never-seen",
    "mind",
    "move",
    "The {mark} is on the cue list and never comes into the picture.",
    "It would be put there, or stand there and wait, for nothing.",
)
BESIDE = SnagKind(
    "ends-beside",
    "note",
    "move",
    "The move ends just beside the {mark}: it is {out} of the width outside the picture.",
    "An end that just misses what it was made for looks like a mistake.",
)
KINDS = (NEVER, BESIDE)
# Outside by less than this share of the width counts as just missed.
JUST = 0.3


def findings(shooting: Shooting) -> Iterator[Snag]:
    """Cues that nobody sees, and ends that just miss."""
    plan = shooting.plan
    for sight in shooting.sights:
        mark = plan.move.marks[sight.index]
        if not sight.cue and mark.form != "bearing":
            continue
        if sight.cue and not sight.runs:
            yield _never(shooting, sight, mark)
        elif not isinstance(plan.move.visits, Stations):
            yield from _beside(shooting, sight, mark)


def _loses_another(shooting: Shooting, tried: Shooting) -> bool:
    """Whether somebody who was in the picture would wait for nothing then."""
    seen = {sight.index for sight in tried.sights if sight.runs}
    return any(sight.cue and sight.runs and sight.index not in seen for sight in shooting.sights)


def _never(shooting: Shooting, sight: Sight, mark: Mark) -> Snag:
    path = f"move.marks.{sight.index}"
    off = [Edit(path=f"{path}.cue", value=False)]
    if mark.form == "person":
        off.append(Edit(path=f"{path}.form", value="post"))
    leave = Fix(
        label="Take it off the cue list",
        consequence="It stays on the drawing.",
        slots={},
        edits=tuple(off),
    )
    fixes = [*_end_on(shooting, sight.index), leave]
    return NEVER.at(path, {"mark": slot(sight.name)}, fixes)


def _beside(shooting: Shooting, sight: Sight, mark: Mark) -> Iterator[Snag]:
    """The last pictures have it just outside all of them."""
    last = shooting.poses.at(shooting.frames - 1)
    out = min(_outside(shooting.plan, at, mark) for at in visited(shooting.plan, last))
    fixes = _end_on(shooting, sight.index) if 0 < out <= JUST else []
    if fixes:
        slots = {"mark": slot(sight.name), "out": slot(out, "share")}
        yield BESIDE.at(end_path(shooting.plan, shooting.plan.rig.axes[-1]), slots, fixes)


def _outside(plan: Plan, at: Poses, mark: Mark) -> float:
    """How far outside the picture a mark lies, in shares of the width; below 0 within it, infinite behind the lens."""
    seen, frame, focal = see_mark(plan, at, mark), kept(plan), float(at.focal[0])
    if not seen.in_front[0]:
        return float("inf")
    across = abs(float(seen.across()[0])) * focal / frame.width_mm - 0.5
    above = (abs(float(seen.above()[0])) * focal - frame.height_mm / 2) / frame.width_mm
    return max(across, above)


def _end_on(shooting: Shooting, index: int) -> list[Fix]:
    """The last keyframe aimed at a mark, where the head reaches that far."""
    plan = shooting.plan
    led = plan.move.follow is not None and plan.move.follow.every_frame
    if led or isinstance(plan.move.visits, Stations) or plan.rig.axis("pan") is None or plan.move.legs % 2 == 0:
        return []
    edits = aimed_edits(plan, index, (len(plan.move.keyframes) - 1,))
    keys = list(plan.move.keyframes)
    for edit in edits:
        keys[-1] = keys[-1].model_copy(update={edit.path.rpartition(".")[2]: edit.value})
    tried = shooting.tried(move=plan.move.model_copy(update={"keyframes": tuple(keys)}))
    if not tried.seeing[index].inside[-1] or _loses_another(shooting, tried):
        return []
    if strobes_anew(shooting, tried) or misses_more(shooting, tried):
        return []
    more, named = besides(plan, tried.plan.move)
    slots = {"mark": slot(plan.move.marks[index].name), **named}
    consequence = f"The last keyframe points at it.{more}"
    return [Fix(label="End on the {mark}", consequence=consequence, slots=slots, edits=tuple(edits))]
