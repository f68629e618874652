"""A kind of shoot that moves, on which nothing moves."""

from collections.abc import Iterator

from bridle.core.plan.edit import Edit
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.travel import STILL
from bridle.core.snag import Fix, Snag, SnagKind, slot

NOTHING = SnagKind(
    "nothing-moves",
    "mind",
    "move",
    "This shoot is to {does}, and nothing moves yet.",
    "Put on a part that moves, and set its keyframes; or leave the camera where it stands.",
)
KINDS = (NOTHING,)
DOES = {"slide": "slide past something", "turn": "turn on the spot"}


def findings(shooting: Shooting) -> Iterator[Snag]:
    """Nothing of a shoot that is to stand still, or that nobody has called anything."""
    plan = shooting.plan
    does = DOES.get(plan.shoot.kind or "")
    if does is None or any((far > STILL).any() for far in shooting.steps.values()):
        return
    stay = Fix(
        label="Leave the camera still",
        consequence="The shoot is no longer one that moves; nothing else changes.",
        slots={},
        edits=(Edit(path="shoot.kind", value=None),),
    )
    yield NOTHING.at("move.keyframes", {"does": slot(does)}, [stay])
