"""Whether the camera keeps up: what its buffer does over the whole shoot."""

from dataclasses import dataclass
from fractions import Fraction
from itertools import islice

import numpy as np

from bridle.core.asks.clip_offers import clip_fixes
from bridle.core.asks.pegs import no_shorter
from bridle.core.figure import Figure, figure, term
from bridle.core.plan.beat import Beat
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.quantity import write_number
from bridle.core.reckon.cycles import Cycle, cycle_at
from bridle.core.reckon.orders import visit_starts
from bridle.core.reckon.reckoning import Shooting
from bridle.core.snag import Fix, Snag, SnagKind, at_clock, slot
from bridle.core.subjects.numbers.rounding import ceil_to
from bridle.core.subjects.time import buffer, cycle

STALLS = SnagKind(
    "buffer-stalls",
    "stop",
    "clip",
    "The buffer is full after {kept}, at {clock}; {lost} of {frames} will be lost.",
    "Writing takes {writing} a frame and the interval is {interval}: the buffer of {buffer} fills up, then triggers "
    "are refused.",
)
IN_PART = SnagKind(
    "buffer-stalls-in-part",
    "stop",
    "clip",
    "The buffer is full after {kept}, at {clock}; {lost} of {frames} will not be whole, {pictures} of {all} "
    "pictures lost.",
    "Writing takes {writing} a frame and the interval is {interval}: the buffer of {buffer} fills up, then triggers "
    "are refused, within a bracket, a stack or a round too.",
)
KINDS = (STALLS, IN_PART)
# So many pictures the buffer is followed over, and so many of one frame; of more it is told what is lost at least.
MOST_PICTURES = 2_000_000
MOST_A_FRAME = 200_000


@dataclass(frozen=True)
class Stored:
    """The frame (0-based) at which the buffer stalls, where it does, with figures and snags."""

    stalls_at: int | None
    figures: list[Figure]
    snags: list[Snag]


def stored(shooting: Shooting) -> Stored:
    """What the buffer does over the whole shoot."""
    figures: list[Figure] = []
    snags: list[Snag] = []
    stall, beat = None, shooting.plan.beat
    if beat.buffer_frames:
        stall, figures, snags = _buffer(shooting)
    return Stored(stall.kept if stall else None, figures, snags)


def _buffer(shooting: Shooting) -> tuple[buffer.Stall | None, list[Figure], list[Snag]]:
    plan, times = shooting.plan, shooting.timeline
    beat, densest = plan.beat, _densest(shooting)
    exposing = densest.exposures
    slots, write = times.rooms_s, float(beat.write_s)
    count = exposing.pictures * len(shooting.cycle.travels_s)
    pictures = term("count", "pictures a frame", count, "")
    one = term("write", "write to card", beat.write_s, "s")
    made = [figure("buffer.needed", "writing, a frame", count * write, "s", buffer.NEEDED, pictures, one)]
    shortest, starts = float(slots.min()), _starts_s(densest)
    if _rests(beat, starts, shortest):
        return None, made, []
    terms = (
        term("buffer", "pictures that the buffer takes", beat.buffer_frames, ""),
        pictures,
        term("interval", "shortest interval", shortest, "s"),
        term("write", "writing, a frame", count * write, "s"),
    )
    if count * write > shortest:
        estimate = buffer.estimate(shortest, count * write, beat.buffer_frames, count)
        made.append(figure("buffer.estimate", "buffer lasts for about", estimate, "frames", buffer.ESTIMATE, *terms))
    followed = min(times.frames, max(1, MOST_PICTURES // count))
    stall = buffer.simulate(slots[:followed].tolist(), write, beat.buffer_frames, starts)
    if stall is None:
        return None, made, []
    least = "at least " if followed < times.frames or count > MOST_A_FRAME else ""
    slots_said = {
        "kept": slot(stall.kept, "frames"),
        "clock": at_clock(times.unix_s(stall.kept), times.start, times.zone),
        "lost": slot(least + write_number(stall.lost)) if least else slot(stall.lost),
        "frames": slot(times.frames, "frames"),
        "writing": slot(count * write, "s"),
        "interval": slot(shortest, "s"),
        "buffer": slot(beat.buffer_frames, "frames"),
    }
    if count > 1:
        pictures_lost = slot(least + write_number(stall.pictures, 9)) if least else slot(stall.pictures)
        slots_said["buffer"] = slot(f"{beat.buffer_frames} pictures")
        slots_said |= {"pictures": pictures_lost, "all": slot(count * times.frames)}
    kind = IN_PART if count > 1 else STALLS
    return stall, made, [kind.at("beat.buffer_frames", slots_said, _slower(shooting, count))]


def _rests(beat: Beat, starts: list[float], interval_s: float) -> bool:
    """Whether each frame finds the buffer empty and leaves it so: then none is refused, however many there are."""
    write = float(beat.write_s)
    alone = buffer.simulate([interval_s], write, beat.buffer_frames, starts)
    return alone is None and buffer.written_by(starts, write) <= interval_s


def _densest(shooting: Shooting) -> Cycle:
    """Of exposures that follow the light the shortest: its pictures come closest upon one another."""
    open_ = shooting.shuttered
    if len(open_.kinds) == 1:
        return shooting.cycle
    return cycle_at(shooting.plan, int(open_.exposed_s.argmin()), shooting.timeline, shooting.steps, open_)


def _starts_s(of: Cycle) -> list[float]:
    """When the pictures of a frame are begun, so many at most, in seconds after its first."""
    every = (visit + start for visit in visit_starts(of).tolist() for start in of.exposures.starts_s())
    return list(islice(every, MOST_A_FRAME))


def _slower(shooting: Shooting, count: int) -> list[Fix]:
    """An interval in which everything is written.

    Where a frame alone fills the buffer its pictures further apart; where neither helps one picture a frame.
    """
    plan, beat = shooting.plan, shooting.plan.beat
    if count > MOST_A_FRAME:
        return [_single(plan)]
    needed = ceil_to(count * beat.write_s, plan.clip.interval_step_s or cycle.FINEST_S)
    if not _stalls(shooting, beat, float(needed)):
        return clip_fixes(plan, "Beat of {needed}", no_shorter(plan, needed), {"needed": slot(needed, "s")})
    apart: dict[str, object] = {"bracket_gap_s": max(beat.bracket_gap_s, beat.write_s)}
    edits = [Edit(path="beat.bracket_gap_s", value=str(apart["bracket_gap_s"]))]
    if beat.stack:
        stack = beat.stack.model_copy(update={"settle_s": max(beat.stack.settle_s, beat.write_s)})
        edits.append(Edit(path="beat.stack.settle_s", value=str(stack.settle_s)))
        apart |= {"stack": stack}
    if not _stalls(shooting, beat.model_copy(update=apart), float(needed)):
        held = no_shorter(plan, needed)
        said = "Each picture is written before the next is taken. The frame takes that much longer."
        label, slots = "Gaps of {gap}, beat of {needed}", {"gap": slot(beat.write_s, "s"), "needed": slot(needed, "s")}
        return [Fix(label=label, consequence=said, slots=slots, edits=(*edits, *held))] if held else []
    settled = _settled(shooting, beat)
    if settled and not _stalls(shooting, beat.model_copy(update={"settle_s": settled}), float(needed)):
        edit = Edit(path="beat.settle_s", value=str(settled))
        said = "Each picture of the round is written before the next is taken; the round takes that much longer."
        label, slots = "Let it settle for {settled} at each place", {"settled": slot(settled, "s")}
        return [Fix(label=label, consequence=said, slots=slots, edits=(edit,))]
    return [_single(plan)]


def _settled(shooting: Shooting, beat: Beat) -> Fraction | None:
    """How long a round has to settle so that its pictures come no closer than they are written; None without one."""
    if len(shooting.cycle.travels_s) < 2:
        return None
    closest = float(np.diff(_starts_s(_densest(shooting.tried(beat=beat)))).min())
    return ceil_to(float(beat.settle_s) + max(0.0, float(beat.write_s) - closest), cycle.FINEST_S)


def _stalls(shooting: Shooting, beat: Beat, interval_s: float) -> bool:
    """Whether a buffer fills up all the same, with one frame every so often."""
    tried, rooms = _densest(shooting.tried(beat=beat)), shooting.timeline.rooms_s
    starts = _starts_s(tried)
    followed = min(len(rooms), max(1, MOST_PICTURES // len(starts)))
    slots = np.maximum(rooms[:followed], interval_s).tolist()
    return buffer.simulate(slots, float(beat.write_s), beat.buffer_frames, starts) is not None


def _single(plan: Plan) -> Fix:
    """No bracket, no stack and no round: the one picture of a frame always fits into a buffer."""
    edits = [Edit(path="beat.bracket_frames", value=1), Edit(path="beat.bracket_times_s", value=[])]
    edits += [Edit(path="beat.stack", value=None), Edit(path="move.visits", value=None)]
    needed = ceil_to(plan.beat.write_s, plan.clip.interval_step_s or cycle.FINEST_S)
    edits += no_shorter(plan, max(needed, Fraction(0))) if needed else []
    said = "No bracket, no stack, no round: the camera writes one picture before the next frame comes."
    return Fix(label="One picture a frame", consequence=said, slots={}, edits=tuple(edits))
