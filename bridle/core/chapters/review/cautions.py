"""Cautions: what can fall, pinch, burn or drown."""

from collections.abc import Iterator

from bridle.core.plan.document import Plan
from bridle.core.plan.kit import AxisCard, Mount, Support
from bridle.core.plan.printer import Printer
from bridle.core.plan.wired import Battery, Lamp, PowerSupply
from bridle.core.reckon.framings import framings
from bridle.core.reckon.indoors import indoors
from bridle.core.reckon.path import FIELDS, at
from bridle.core.reckon.wiring import output_of, parts_of
from bridle.core.subjects.motion.drives.clockwork import Clockwork

FEW_DEGREES = 0.01
HIGH_MM = 2500
STEEP_DEG = 5


def _mounted(plan: Plan) -> Iterator[str]:
    """What can fall, let go, burn or come loose, by what the rig is made of."""
    cards = [copy.card for copy in plan.kit.copies]
    tallest = max((card.height_mm for card in cards if isinstance(card, Support)), default=0.0)
    if tallest > HIGH_MM:
        yield (
            "Height: a camera over people's heads needs a second tether to something that holds, tools on lanyards, "
            "the owner's permission, and two people. Not in wind. Ladders and masts are for those trained on them."
        )
    elif tallest and indoors(plan):
        yield "What stands on a tripod falls with it: hang a weight under it, and keep the floor around it clear."
    elif tallest:
        yield "What stands on a tripod falls with it: hang a weight under it, tether the camera near an edge or water."
    if abs(plan.rig.standing.slope_deg) >= STEEP_DEG:
        yield (
            "A steep rail lets go when the power does. Fit a brake or a counterweight, try it with the battery out "
            "before the camera is on, and keep hands and heads out of its way."
        )
    if any(isinstance(card, Mount) and card.glue for card in cards):
        yield "A glued joint carries nothing until it has cured; mind eyes, skin and fumes while it does."
    if any(isinstance(card, AxisCard) and isinstance(card.drive, Clockwork) for card in cards):
        yield "A wound spring lets go all at once: never open the turntable, and wind it with the load off."
    yield from _wired(plan)
    if any(isinstance(card, Battery) for card in cards):
        yield (
            "Batteries in a closed box: a vent, a fuse at the terminal, nothing that can short them. Have the wiring "
            "seen by somebody who knows; mains is theirs alone."
        )


def _wired(plan: Plan) -> Iterator[str]:
    """What a chain and its lamps can do."""
    parts = parts_of(plan)
    cards = [copy.card for copy in plan.kit.copies]
    output, cut = output_of(parts.source), parts.cable is not None and parts.cable.made == "cut open"
    if output in ("pin", "switch") or cut:
        yield (
            "Soldering and cutting: something over the eyes, fresh air, the iron in its stand, the work in a vice. A "
            "camera or a board is opened by somebody who knows what keeps its charge."
        )
    if plan.shoot.kind == "print" and (output == "switch" or any(isinstance(card, Printer) for card in cards)):
        yield (
            "A printer's hot and moving parts: no hand near the head while it jogs, tape and glue let go when they are "
            "warm. A print that runs by itself is looked in on."
        )
    if any(isinstance(card, PowerSupply) for card in cards):
        yield (
            "A fuse where the supply is tapped, voltage and polarity measured before anything is connected, no motor "
            "unplugged while its driver is on; a regulator gets hot enough to burn."
        )
    if any(isinstance(card, Lamp) and card.on_mains for card in cards):
        yield (
            "Lamps on the mains are switched by ready-made sockets. Whatever is wired or opened there is for a "
            "qualified person: a charge stays in it after it is unplugged."
        )


def cautions(plan: Plan) -> tuple[str, ...]:
    """What can hurt, by what the rig is made of and does."""
    stands = [
        (axis.name, at(plan, framing.stands, axis.name))
        for axis in plan.rig.axes
        for framing in framings(plan)
        if hasattr(framing.stands, FIELDS[axis.name])
    ]
    moving = any(abs(value - dict(stands)[name]) > FEW_DEGREES for name, value in stands)
    said = list(_mounted(plan))
    if moving:
        said.append(
            "A moving rig pinches and winds up leads, straps and sleeves. Hands off while it is armed; "
            "leave slack for the whole travel."
        )
    if indoors(plan):
        runs = "Lamps" if plan.shoot.kind == "print" else "Lamps and motors"
        said.append(f"{runs} that run for hours: nothing that burns near them, and somebody who looks in.")
    else:
        said.append(
            "Out of doors: know your way out and your turn-back time, by water the tide as well, and tell "
            "someone when you will be back. Legs and leads are trip hazards in the dark."
        )
    sun = "" if indoors(plan) else "Never leave the lens pointing into the sun. "
    said.append(
        f"{sun}Where people are filmed, ask, and keep to the local rules; where they differ from this card, they count."
    )
    return tuple(said)
