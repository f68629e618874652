"""What the camera's timer and the trigger cannot do: intervals too short for them, too many frames, too long a run."""

from collections.abc import Iterator
from dataclasses import dataclass, field
from fractions import Fraction

from bridle.core.chapters.beat_measure import slots_of
from bridle.core.chapters.clip import ClipAnswer, at_most, clip_fixes
from bridle.core.chapters.fitting import first_of
from bridle.core.chapters.holding import no_shorter, within
from bridle.core.plan.document import Plan
from bridle.core.plan.kit import Body, Copy, Phone, Trigger
from bridle.core.snag import Snag, SnagKind, slot
from bridle.core.subjects import cycle
from bridle.core.subjects.rounding import ceil_to

FLOOR = SnagKind(
    "below-interval-floor",
    "stop",
    "clip",
    "The {device} cannot go under {floor}; the interval is {interval}.",
    "It drops frames without a word, and the clip runs short.",
)
LIMIT = SnagKind(
    "trigger-gives-up",
    "stop",
    "clip",
    "The {device} stops after {limit}; the shoot has {asked}.",
    "It counts to its end and stops in the middle of the night.",
)
KINDS = (FLOOR, LIMIT)


@dataclass(frozen=True)
class TimerAnswer:
    """Snags of the devices that call the frames."""

    figures: list[None] = field(default_factory=list)
    snags: list[Snag] = field(default_factory=list)


def answer(plan: Plan, clip: ClipAnswer) -> TimerAnswer:
    """What stands in the way; nothing while the clip is open or no card is there."""
    if clip.solution is None:
        return TimerAnswer()
    shortest = float(slots_of(clip.solution, clip.pace).min())
    found = [snag for copy, floor in _floors(plan) for snag in _below(plan, copy, floor, shortest)]
    trigger = first_of(plan.kit.copies, Trigger)
    if trigger is not None and isinstance(trigger.card, Trigger):
        found += _gives_up(plan, trigger.card, clip)
    return TimerAnswer([], found)


def _floors(plan: Plan) -> Iterator[tuple[Copy, Fraction]]:
    camera, trigger = first_of(plan.kit.copies, Body, Phone), first_of(plan.kit.copies, Trigger)
    if camera is not None and isinstance(camera.card, Body | Phone):
        yield camera, camera.card.interval_floor_s
    if trigger is not None and isinstance(trigger.card, Trigger):
        yield trigger, trigger.card.shortest_s


def _below(plan: Plan, copy: Copy, floor: Fraction, shortest: float) -> Iterator[Snag]:
    if shortest >= float(floor) - 1e-9:
        return
    clip = plan.clip
    # What can be dialled, and not under the floor.
    fitting = ceil_to(floor, clip.interval_step_s or cycle.FINEST_S)
    fixes = clip_fixes(clip, "Beat of {fitting}", no_shorter(clip, fitting), {"fitting": slot(fitting, "s")})
    slots = {"device": slot(copy.card.name), "floor": slot(floor, "s"), "interval": slot(shortest, "s")}
    yield FLOOR.at(f"kit.copies.{plan.kit.copies.index(copy)}", slots, fixes)


def _gives_up(plan: Plan, trigger: Trigger, clip: ClipAnswer) -> Iterator[Snag]:
    solution = clip.solution
    assert solution is not None
    if trigger.most_frames and solution.frames > trigger.most_frames:
        most = Fraction(trigger.most_frames)
        slots = {"device": slot(trigger.name), "limit": slot(most, "frames"), "asked": slot(solution.frames, "frames")}
        fewer = within(plan.clip, "frames", most)
        fixes = clip_fixes(plan.clip, "Hold {limit}", fewer, {"limit": slot(most, "frames")})
        yield LIMIT.at("clip.frames", slots, fixes)
    if trigger.longest_run_s and solution.shoot > trigger.longest_run_s:
        longest = trigger.longest_run_s
        slots = {"device": slot(trigger.name), "limit": slot(longest, "s"), "asked": slot(solution.shoot, "s")}
        shorter = at_most(plan.clip, longest)
        fixes = clip_fixes(plan.clip, "Watch for {limit}", shorter, {"limit": slot(longest, "s")})
        yield LIMIT.at("clip.shoot", slots, fixes)
