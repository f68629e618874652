"""What the camera's timer and the trigger cannot do: intervals too short for them, too many frames, too long a run."""

from collections.abc import Iterator
from fractions import Fraction

from bridle.core.asks.clip_offers import at_most, clip_fixes
from bridle.core.asks.pegs import no_shorter, within
from bridle.core.plan.document import Plan
from bridle.core.plan.frames import Windows
from bridle.core.plan.kit import Copy
from bridle.core.plan.wired import Trigger
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.timers import floors, trigger_of
from bridle.core.snag import Snag, SnagKind, slot
from bridle.core.subjects.numbers.rounding import ceil_to
from bridle.core.subjects.time import cycle
from bridle.core.subjects.time.sentence import Solution

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
    "It counts to its end and stops before the shoot is over.",
)
KINDS = (FLOOR, LIMIT)


def findings(shooting: Shooting) -> Iterator[Snag]:
    """What stands in the way; nothing where no card is there."""
    plan = shooting.plan
    shortest = float(shooting.timeline.rooms_s.min())
    for copy, floor in floors(plan):
        yield from _below(plan, copy, floor, shortest)
    trigger = trigger_of(plan)
    # Between work windows it is started again at a visit: the long run says when.
    if trigger is not None and not isinstance(plan.frames, Windows):
        yield from _gives_up(plan, trigger, shooting.solution)


def _below(plan: Plan, copy: Copy, floor: Fraction, shortest: float) -> Iterator[Snag]:
    if shortest >= float(floor) - 1e-9:
        return
    # What can be dialled, and not under the floor.
    fitting = ceil_to(floor, plan.clip.interval_step_s or cycle.FINEST_S)
    fixes = clip_fixes(plan, "Beat of {fitting}", no_shorter(plan, fitting), {"fitting": slot(fitting, "s")})
    slots = {"device": slot(copy.card.name), "floor": slot(floor, "s"), "interval": slot(shortest, "s")}
    yield FLOOR.at(f"kit.copies.{plan.kit.copies.index(copy)}", slots, fixes)


def _gives_up(plan: Plan, trigger: Trigger, solution: Solution) -> Iterator[Snag]:
    if trigger.most_frames and solution.frames > trigger.most_frames:
        most = Fraction(trigger.most_frames)
        slots = {"device": slot(trigger.name), "limit": slot(most, "frames"), "asked": slot(solution.frames, "frames")}
        fewer = within(plan, "frames", most)
        fixes = clip_fixes(plan, "Hold {limit}", fewer, {"limit": slot(most, "frames")})
        yield LIMIT.at("clip.frames", slots, fixes)
    if trigger.longest_run_s and solution.shoot > trigger.longest_run_s:
        longest = trigger.longest_run_s
        slots = {"device": slot(trigger.name), "limit": slot(longest, "s"), "asked": slot(solution.shoot, "s")}
        shorter = at_most(plan, longest)
        fixes = clip_fixes(plan, "Watch for {limit}", shorter, {"limit": slot(longest, "s")})
        yield LIMIT.at("clip.shoot", slots, fixes)
