"""What the camera's timer and the trigger cannot do: intervals too short for them, too many frames, too long a run."""

from collections.abc import Iterator
from fractions import Fraction

from bridle.core.asks.clip_offers import at_most, clip_fixes
from bridle.core.asks.pegs import no_shorter, within
from bridle.core.plan.document import Plan
from bridle.core.plan.frames import Windows
from bridle.core.plan.kit import Copy
from bridle.core.plan.wired import Trigger
from bridle.core.quantity import listed, write
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
NOT_LISTED = SnagKind(
    "interval-not-listed",
    "stop",
    "clip",
    "The {device} cannot be set to {interval}: it offers {listed}.",
    "What its menu does not list cannot be set.",
)
KINDS = (FLOOR, LIMIT, NOT_LISTED)
# So many intervals of a list are named.
MOST_LISTED = 8


def findings(shooting: Shooting) -> Iterator[Snag]:
    """What stands in the way; nothing where no card is there."""
    plan = shooting.plan
    shortest = float(shooting.timeline.rooms_s.min())
    for copy, floor in floors(plan):
        yield from _below(plan, copy, floor, shortest)
    trigger = trigger_of(plan)
    if trigger is not None and trigger.intervals:
        yield from _listed(plan, trigger, shooting.solution.interval)
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


def _listed(plan: Plan, trigger: Trigger, interval: Fraction) -> Iterator[Snag]:
    """An interval that is not on the short list of what calls the frames; the nearest ones that are."""
    if plan.frames.source != "even" or interval in trigger.intervals:
        return
    known = sorted(trigger.intervals)
    near = sorted(sorted(known, key=lambda one: abs(one - interval))[:2])
    fixes = [
        fix
        for one in near
        for fix in clip_fixes(plan, "Set it to {fitting}", within(plan, "interval", one), {"fitting": slot(one, "s")})
    ]
    said = [write(one, "s") for one in known[:MOST_LISTED]]
    more = [f"{len(known) - MOST_LISTED} more"] if len(known) > MOST_LISTED else []
    slots = {
        "device": slot(trigger.name),
        "interval": slot(interval, "s"),
        "listed": slot(listed([*said, *more])),
    }
    yield NOT_LISTED.at("clip.interval", slots, fixes)


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
