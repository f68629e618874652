"""Links without a wire, or over a long one: how far they reach, and what happens when they drop."""

from collections.abc import Iterator

from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.kit import Phone
from bridle.core.plan.wired import Trigger
from bridle.core.reckon.parts import first_of
from bridle.core.reckon.wiring import parts_of
from bridle.core.snag import Fix, Snag, SnagKind, slot

FAR = SnagKind(
    "out-of-range",
    "stop",
    "trigger",
    "The {device} reaches {reach}; the camera stands {distance} away.",
    "Maker's figures hold across an open field: walls, bodies and wet leaves halve them.",
)
DROPS = SnagKind(
    "link-may-drop",
    "mind",
    "trigger",
    "When the link of the {device} drops, {drops}.",
    "A phone that goes away, another transmitter, a cell that is empty: nobody stands there to see it.",
)
KINDS = (FAR, DROPS)

LINKED = ("wireless remote", "app", "camera board", "computer")
SAFE_SHARE = 0.5
DROPPING = {"stops": "it stops calling frames", "not known": "nobody knows what it does"}


def findings(plan: Plan) -> Iterator[Snag]:
    """What a link may do; nothing where the picture is taken by what calls it."""
    source = parts_of(plan).source
    if source is None or source.source not in LINKED:
        return
    own = source.source == "app" and first_of(plan.kit.copies, Phone) is not None
    if own:
        return
    index = next(n for n, copy in enumerate(plan.kit.copies) if copy.card is source)
    yield from _far(plan, source)
    if source.link_drops in DROPPING:
        fix = Fix(
            label="Plan with one that goes on by itself",
            consequence="The camera's side counts the frames, and the link is for looking in; try it: switch it off.",
            slots={},
            edits=(Edit(path=f"kit.copies.{index}.card.link_drops", value="goes on by itself"),),
        )
        slots = {"device": slot(source.name), "drops": slot(DROPPING[source.link_drops])}
        yield DROPS.at(f"kit.copies.{index}.card.link_drops", slots, [fix])


def _far(plan: Plan, source: Trigger) -> Iterator[Snag]:
    distance = plan.trigger.distance_mm
    if distance is None or source.range_mm is None or distance <= source.range_mm:
        return
    near = round(source.range_mm * SAFE_SHARE)
    fix = Fix(
        label="Stand {near} from the camera",
        consequence="Half of what it reaches; a repeater, or a lead, where that cannot be.",
        slots={"near": slot(near, "mm")},
        edits=(Edit(path="trigger.distance_mm", value=float(near)),),
    )
    slots = {"device": slot(source.name), "reach": slot(source.range_mm, "mm"), "distance": slot(distance, "mm")}
    yield FAR.at("trigger.distance_mm", slots, [fix])
