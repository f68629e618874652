"""A bought remote that a print head presses: the pads under its button, and its cell."""

from collections.abc import Iterator

from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.edit import Edit
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.soldering import pads_open, solderable
from bridle.core.reckon.wiring import parts_of
from bridle.core.snag import Fix, Snag, SnagKind, slot

PADS = SnagKind(
    "pads-not-known",
    "stop",
    "trigger",
    "Which pads of the {device} focus and which one fires is not known yet.",
    "Join them two by two with a piece of wire, its cell in and the camera on: one pair focuses, one fires. On the "
    "wrong pair no frame comes all night.",
)
EMPTIES = SnagKind(
    "remote-runs-empty",
    "stop",
    "trigger",
    "The cell of the {device} lasts for about {lasts}; this shoot needs {presses}.",
    "Long before it is empty it reaches less far, and frames go missing one by one.",
)
KINDS = (PADS, EMPTIES)
LEFT = Formula("lasts - presses", "what is left of its cell when the shoot is over")


def findings(shooting: Shooting) -> Iterator[Figure | Snag]:
    """What has to be known of a remote before a switch is soldered to it, and how long its cell lasts."""
    plan = shooting.plan
    device = solderable(plan)
    if device is not None and pads_open(plan):
        aside = Fix(
            label="Have its own button pressed",
            consequence="The head, or an arm on it, presses the remote's button. Nothing has to be soldered.",
            slots={},
            edits=(Edit(path="trigger.pads", value=None),),
        )
        yield PADS.at("trigger.pads", {"device": slot(device.name)}, [aside])
    yield from _cell(shooting)


def _cell(shooting: Shooting) -> Iterator[Figure | Snag]:
    plan, source, presses = shooting.plan, parts_of(shooting.plan).source, len(shooting.orders)
    if source is None or source.source != "wireless remote" or source.cell_presses is None or source.fed == "a supply":
        return
    lasts = term("lasts", "presses that its cell lasts for", source.cell_presses, "times")
    needed = term("presses", "presses of this shoot", presses, "times")
    yield figure("trigger.cell", "left in its cell", source.cell_presses - presses, "times", LEFT, lasts, needed)
    if presses <= source.cell_presses:
        return
    index = next(n for n, copy in enumerate(plan.kit.copies) if copy.card is source)
    fed = Fix(
        label="Feed it from a supply",
        consequence="Lead the same voltage to its cell's contacts. Measure which one is plus before you solder.",
        slots={},
        edits=(Edit(path=f"kit.copies.{index}.card.fed", value="a supply"),),
    )
    slots = {
        "device": slot(source.name),
        "lasts": slot(source.cell_presses, "presses"),
        "presses": slot(presses, "presses"),
    }
    yield EMPTIES.at(f"kit.copies.{index}.card.cell_presses", slots, [fed])
