"""A camera that nothing fires."""

from collections.abc import Iterator

from bridle.core.asks.chain import Taken, put
from bridle.core.asks.shelf import made
from bridle.core.plan.document import Plan
from bridle.core.plan.kit import Body
from bridle.core.reckon.asked import Asked, asked_of
from bridle.core.reckon.parts import first_of, source_copy
from bridle.core.reckon.reckoning import Shooting
from bridle.core.snag import Fix, Snag, SnagKind, slot

NOBODY = SnagKind(
    "nothing-fires",
    "stop",
    "trigger",
    "Nothing fires the {camera}: no trigger is on the rig.",
    "Frames come from a timer, a remote, a controller or a switch. Put on what you use, or the camera's own timer.",
)
KINDS = (NOBODY,)


def findings(shooting: Shooting) -> Iterator[Snag]:
    """A body without a trigger, where nothing that moves it waits for each frame and so could fire it."""
    plan = shooting.plan
    camera = first_of(plan.kit.copies, Body)
    if camera is None or source_copy(plan.kit.copies) is not None or plan.clip.school != "stills":
        return
    if plan.beat.tied or plan.beat.uncoupled is not None or any(_waits(asked) for asked in asked_of(shooting)):
        return
    yield NOBODY.at("kit.copies", {"camera": slot(camera.card.name)}, [own_timer(plan)])


def _waits(asked: Asked) -> bool:
    """Whether what moves the rig can fire the camera: what waits for each frame, and is no hand."""
    return asked.drive.stops and asked.drive.TOLD != "hand"


def own_timer(plan: Plan) -> Fix:
    """The camera's own timer in place of whatever fires it."""
    card = made("trigger", "the camera's own timer").model_copy(
        update={"source": "camera timer", "mass_g": 0.0, "coupling": "none", "socket": "none"}
    )
    return Fix(
        label="Use the camera's own timer",
        consequence="It calls every frame; set its interval and its number of frames as the field card says.",
        slots={},
        edits=tuple(put(plan, (Taken(card=card),))),
    )
