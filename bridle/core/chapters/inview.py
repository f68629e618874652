"""When each mark is in the picture, and who has to be there when."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from bridle.core.chapters.path import end_path, key_path, positions
from bridle.core.chapters.picture import kept
from bridle.core.chapters.sighting import pan_at, poses, see_mark, tilt_at
from bridle.core.chapters.timeline import TimelineAnswer
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.marks import Mark
from bridle.core.plan.rounds import Stations
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.clip import Solution
from bridle.core.subjects.projecting import Poses, Seen

NEVER = SnagKind(
    "cue-never-seen",
    "mind",
    "move",
    "The {mark} is on the cue list and never comes into the picture.",
    "Somebody would stand in the cold for nothing.",
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
MOST_RUNS = 24


@dataclass(frozen=True)
class Sight:
    """A mark's frames in the picture, as runs of first and last (0-based), with their clock times."""

    index: int
    name: str
    cue: bool
    runs: tuple[tuple[int, int], ...]
    clocks: tuple[tuple[float, float], ...]


def runs_of(mask: np.ndarray) -> tuple[tuple[int, int], ...]:
    """First and last index of each run of true values."""
    edges = np.flatnonzero(np.diff(np.concatenate(([0], mask.astype(np.int8), [0]))))
    pairs = edges.reshape(-1, 2)
    return tuple((int(first), int(last) - 1) for first, last in pairs[:MOST_RUNS])


def in_picture(plan: Plan, at: Poses, seen: Seen, margin: float = 0.0) -> np.ndarray:
    """At which frames a point lies in the kept picture, or within a margin around it (in shares of the width)."""
    frame = kept(plan)
    half_w, half_h = frame.width_mm * (0.5 + margin), frame.height_mm / 2 + frame.width_mm * margin
    with np.errstate(invalid="ignore"):
        inside = (np.abs(seen.across() * at.focal) <= half_w) & (np.abs(seen.above() * at.focal) <= half_h)
    return inside & seen.in_front


def sights(plan: Plan, at: Poses, times: TimelineAnswer) -> tuple[Sight, ...]:
    """Every mark's time in the picture; of stations each counts, so there the marks are left out."""
    if isinstance(plan.move.visits, Stations):
        return ()
    return tuple(_sight(plan, number, mark, at, times) for number, mark in enumerate(plan.move.marks))


def _sight(plan: Plan, number: int, mark: Mark, at: Poses, times: TimelineAnswer) -> Sight:
    runs = runs_of(in_picture(plan, at, see_mark(plan, at, mark)))
    clocks = tuple((times.clock(first).timestamp(), times.clock(last).timestamp()) for first, last in runs)
    return Sight(number, mark.name, mark.cue or mark.form == "person", runs, clocks)


def answer(plan: Plan, at: Poses, solution: Solution, told: tuple[Sight, ...]) -> Iterator[Snag]:
    """Cues that nobody sees, and ends that just miss."""
    for sight in told:
        mark = plan.move.marks[sight.index]
        if not sight.cue and mark.form != "bearing":
            continue
        if sight.cue and not sight.runs:
            yield _never(plan, solution, sight, mark)
        elif _just_missed(plan, at, mark):
            yield from _beside(plan, solution, at, sight, mark)


def _just_missed(plan: Plan, at: Poses, mark: Mark) -> bool:
    last = at.at(len(at) - 1)
    seen = see_mark(plan, last, mark)
    near, inside = in_picture(plan, last, seen, JUST)[0], in_picture(plan, last, seen)[0]
    return bool(near and not inside)


def _never(plan: Plan, solution: Solution, sight: Sight, mark: Mark) -> Snag:
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
    fixes = [*_end_on(plan, solution, sight.index), leave]
    return NEVER.at(path, {"mark": slot(sight.name)}, fixes)


def _beside(plan: Plan, solution: Solution, at: Poses, sight: Sight, mark: Mark) -> Iterator[Snag]:
    last = at.at(len(at) - 1)
    seen, frame = see_mark(plan, last, mark), kept(plan)
    across = abs(float(seen.across()[0])) * float(last.focal[0]) / frame.width_mm - 0.5
    above = (abs(float(seen.above()[0])) * float(last.focal[0]) - frame.height_mm / 2) / frame.width_mm
    fixes = _end_on(plan, solution, sight.index)
    if fixes:
        slots = {"mark": slot(sight.name), "out": slot(max(across, above), "share")}
        yield BESIDE.at(end_path(plan, plan.rig.axes[-1]), slots, fixes)


def _end_on(plan: Plan, solution: Solution, index: int) -> list[Fix]:
    """The last keyframe aimed at a mark, where the head reaches that far."""
    led = plan.move.follow is not None and plan.move.follow.every_frame
    if led or plan.rig.axis("pan") is None or plan.move.legs % 2 == 0:
        return []
    edits = aimed_edits(plan, index, (len(plan.move.keyframes) - 1,))
    keys = list(plan.move.keyframes)
    for edit in edits:
        keys[-1] = keys[-1].model_copy(update={edit.path.rpartition(".")[2]: edit.value})
    tried = plan.model_copy(update={"move": plan.move.model_copy(update={"keyframes": tuple(keys)})})
    at = poses(tried, positions(tried, solution), solution.frames)
    if not in_picture(tried, at, see_mark(tried, at, plan.move.marks[index]))[-1]:
        return []
    slots = {"mark": slot(plan.move.marks[index].name)}
    told = "The last keyframe points at it; the move there becomes another one."
    return [Fix(label="End on the {mark}", consequence=told, slots=slots, edits=tuple(edits))]


def aimed_edits(plan: Plan, index: int, keys: tuple[int, ...]) -> list[Edit]:
    """The edits that point keyframes at a mark, as far as pan and tilt reach."""
    edits = []
    mark = plan.move.marks[index]
    stands = np.array([plan.move.keyframes[number].slide_mm for number in keys])
    at = poses(plan, {"slide": stands}, len(keys))
    for name, angles in (("pan", pan_at(plan, at, mark)), ("tilt", tilt_at(at, mark))):
        axis = next((axis for axis in plan.rig.axes if axis.name == name), None)
        if axis is None:
            continue
        for number, angle in zip(keys, angles, strict=True):
            inside = round(float(np.clip(angle, axis.low, axis.high)), 2)
            edits.append(Edit(path=key_path(plan, number, axis.name), value=inside))
    return edits
