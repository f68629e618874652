"""A shoot made of a print: its layers call the frames. Which printer it is printed on is asked for, never guessed."""

from datetime import UTC, datetime, timedelta
from pathlib import PurePath

from bridle.core.plan.clip import Peg
from bridle.core.plan.frames import Layers
from bridle.core.plan.new import new_plan
from bridle.core.plan.printing import PrintFile, Printing
from bridle.core.reckon.frames.found import USUAL_RATE
from bridle.server.shoots.models import Shoot, keep


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
            }
        )
    )
