"""The bench test with the simulated camera."""

from typing import Annotated, Any

from django.http import HttpRequest
from ninja import Router, Schema
from pydantic import Field

from bridle.core.plan.document import Plan
from bridle.core.reckon.reckoning import reckon
from bridle.core.reckon.signals import signal
from bridle.server.errors import ChangeRefusedError, Trouble
from bridle.standins.listener import Fault, tried

router = Router(tags=["trigger"])


class AskTrial(Schema):
    """A plan, how often to press, and what is wrong with the simulated camera."""

    plan: Plan
    asked: Annotated[int, Field(ge=1, le=100_000)]
    fault: Fault = "none"


class TrialTold(Schema):
    """How many frames came, the first press (from 0) that brought none, and why it did not."""

    came: int
    lost: int
    first_lost: int | None
    why: str


@router.post("/trigger/try", response={200: TrialTold, 422: Trouble}, operation_id="try_trigger")
def try_trigger(request: HttpRequest, ask: AskTrial) -> Any:
    """Press so often, a beat apart, with the simulated camera at the end of the chain. Nothing is kept."""
    shooting = reckon(ask.plan).shooting
    if shooting is None or shooting.hearing is None:
        raise ChangeRefusedError("trigger", ValueError("nothing presses the contacts of this camera"))
    cycle, beat = shooting.cycle, shooting.plan.beat
    busy = float(beat.lag_s) + cycle.exposures.busy_s + cycle.exposures.processing_s + cycle.write_s
    found = tried(signal(ask.plan, shooting.hearing), ask.asked, float(cycle.interval_s), busy, ask.fault)
    first = found.lost[0] if found.lost else None
    return TrialTold(came=found.came, lost=len(found.lost), first_lost=first, why=_sentence(found.why))


def _sentence(why: str) -> str:
    return f"{why[:1].upper()}{why[1:]}." if why else ""
