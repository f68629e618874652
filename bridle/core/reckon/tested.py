"""How a chain was tried on the bench, and whether that still holds."""

import hashlib
import json
import math
from dataclasses import dataclass
from typing import Literal

from bridle.core.figure import Formula
from bridle.core.plan.document import Plan
from bridle.core.plan.trigger import Trial
from bridle.core.reckon.calls import lamps_of
from bridle.core.reckon.wiring import parts_of

PRESSES = Formula(
    "ceil(ln(1 - certainty) / ln(1 - may_miss / frames))",
    "so many presses without a miss: were more missed than that, so long a run would be that unlikely",
)
What = Literal["one press", "ten presses", "with the rig", "lamp", "many presses"]
Stand = Literal["passed", "missed", "fewer", "older", "simulated", "never"]
# What of the plan makes a chain another one.
OF_THE_CHAIN = ("lead", "switch", "pads", "joins", "pin", "lamps")
OF_THE_BEAT = ("half_s", "press_s")
# What a chain is not tried for: what a part is called and weighs, and what it draws or does when nobody is there.
ALIKE = (
    "name", "note", "typed", "measured", "mass_g", "standby_w", "picture_j", "warmest_c", "after_cut", "draws_w",
    "schedule", "shutter_done", "shutter_rated", "manual", "raw", "only_f", "slowest_s", "stabiliser", "menu",
    "cell_presses", "fed",
)  # fmt: skip


LATER = {"supply_v", "intervals", "extra_frames", "bend_mm", "faces"}


@dataclass(frozen=True)
class Step:
    """One test of the bench: how many presses it asks for, how it stands, and the last time it was done."""

    what: What
    asked: int
    stand: Stand
    last: Trial | None


def chain_digest(plan: Plan) -> str:
    """Sixteen letters that stay the same as long as the chain does."""
    parts = vars(parts_of(plan))
    cards = {name: card.model_dump(mode="json", exclude=set(ALIKE)) for name, card in parts.items() if card is not None}
    # What came to the cards later says nothing new where it is as it always was.
    for name, card in cards.items():
        fields = type(parts[name]).model_fields
        for field in LATER & card.keys():
            if getattr(parts[name], field) == fields[field].default:
                del card[field]
    chain = plan.trigger.model_dump(mode="json", include=set(OF_THE_CHAIN))
    if chain["pads"] is None:
        del chain["pads"]
    for use in chain["lamps"]:
        if use["levels"] == [1.0]:
            del use["levels"]
    beat = plan.beat.model_dump(mode="json", include=set(OF_THE_BEAT))
    text = json.dumps([cards, chain, beat], sort_keys=True)
    return hashlib.sha256(text.encode()).hexdigest()[:16]


def may_miss(plan: Plan, frames: int) -> int:
    """How many frames of the shoot may fail to come: what was said, else one in a hundred."""
    return min(frames, plan.trigger.may_miss or max(1, frames // 100))


def presses_needed(frames: int, missed: int, certainty: float) -> int:
    """So many presses without a miss make it that certain that no more are missed; 1 where all may be."""
    if missed >= frames:
        return 1
    return math.ceil(math.log(1 - certainty) / math.log(1 - missed / frames))


def steps(plan: Plan, frames: int) -> tuple[Step, ...]:
    """The tests in their order, each with how it stands."""
    many = presses_needed(frames, may_miss(plan, frames), float(plan.trigger.certainty))
    asked: list[tuple[What, int]] = [("one press", 1), ("ten presses", 10), ("with the rig", 10)]
    if any(use is not None and use.lit != "always" for _, _, use in lamps_of(plan)):
        asked.append(("lamp", 10))
    asked.append(("many presses", many))
    digest = chain_digest(plan)
    return tuple(_step(plan, what, count, digest) for what, count in asked)


def _step(plan: Plan, what: What, asked: int, digest: str) -> Step:
    last = next((trial for trial in reversed(plan.trigger.trials) if trial.what == what), None)
    return Step(what, asked, _stand(last, asked, digest), last)


def _stand(last: Trial | None, asked: int, digest: str) -> Stand:
    if last is None:
        return "never"
    if last.of and last.of != digest:
        return "older"
    if last.came != last.asked:
        return "missed"
    if last.asked < asked:
        return "fewer"
    return "simulated" if last.simulated else "passed"


def stands(plan: Plan, frames: int) -> Stand:
    """How the chain stands as a whole: the worst of its tests."""
    order: tuple[Stand, ...] = ("missed", "older", "never", "fewer", "simulated", "passed")
    return min((step.stand for step in steps(plan, frames)), key=order.index)
