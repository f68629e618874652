"""A shoot made of a print: its layers call the frames; a printer and a switch come along where the kit has just one."""

from datetime import UTC, datetime, timedelta
from pathlib import PurePath

from bridle.core.plan.clip import Peg
from bridle.core.plan.frames import Layers
from bridle.core.plan.kit import Copy, Kit
from bridle.core.plan.new import new_plan
from bridle.core.plan.printing import PrintFile, Printing
from bridle.core.reckon.frames.found import USUAL_RATE
from bridle.server.kit.models import KitCard
from bridle.server.shoots.models import Shoot, keep

ALONG = ("printer", "head switch")


def shoot_of(name: str, file: PrintFile, layers: Layers) -> Shoot:
    """Keep a new shoot whose frames are called by these layers."""
    start = (datetime.now(UTC) + timedelta(hours=1)).replace(minute=0, second=0, microsecond=0)
    called = PurePath(name).stem.replace("_", " ").replace("-", " ").strip()[:100] or "a print"
    plan = new_plan(called[:1].upper() + called[1:], "", "", "UTC", start, "print")
    return keep(
        plan.model_copy(
            update={
                # Every layer, until somebody asks for less: what that comes to stands beside the choice.
                "frames": layers,
                "printing": Printing(file=file),
                "clip": plan.clip.model_copy(update={"pegs": (Peg(quantity="rate", value=USUAL_RATE),)}),
                "kit": Kit(copies=(*plan.kit.copies, *_along(plan.kit))),
            }
        )
    )


def _along(kit: Kit) -> list[Copy]:
    """The only printer and the only switch of the kit."""
    there = {copy.card.kind for copy in kit.copies}
    found = []
    for kind in ALONG:
        cards = list(KitCard.objects.filter(binned_at=None, kind=kind))
        if len(cards) == 1 and kind not in there:
            found.append(
                Copy(key=kind.replace(" ", "-"), card_id=cards[0].pk, version=cards[0].version, card=cards[0].read())
            )
    return found
