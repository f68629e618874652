"""Fixes that several families of snags share: joined as it belongs, another coupling, a resistor that fits."""

from collections.abc import Iterator
from typing import Literal

from bridle.core.asks.shelf import made
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.core.plan.kit import Copy, Phone
from bridle.core.plan.wired import Coupling, Trigger
from bridle.core.reckon.circuit import LED_OHM, PIN_OHM
from bridle.core.reckon.hearing import Hearing, hearing
from bridle.core.reckon.parts import free_key
from bridle.core.snag import Fix, slot
from bridle.core.subjects.circuits.headset import OHMS

JOINS = "trigger.joins"
# Resistors as they are sold, in ohms: twelve to a decade.
DECADE = (10, 12, 15, 18, 22, 27, 33, 39, 47, 56, 68, 82)
SOLD = tuple(value * 10**power for power in range(4) for value in DECADE)
# A light is fed so many times what it needs, so that it still conducts when it is old and cold.
SURELY = 1.5
DRIVER_MA = 4.0
LIGHT = (
    "Put an optocoupler between",
    "It passes the press on as light: no current of one device reaches the other; {ohms} before.",
)
RELAY = (
    "Put a relay board with a driver between",
    "Its contact is joined to nothing else: no current of one device reaches the other. Its coil is one for {coil}.",
)
KEYED = "A resistor of {ohms} in the lead makes it a button of a headset."


def works(plan: Plan, edits: tuple[Edit, ...]) -> bool:
    """Whether the camera takes a frame then, parted from all other supplies."""
    found = hearing(apply(plan, edits)[0])
    return found is not None and found.verdict == "takes" and not found.tied and not _foreign(found)


def _foreign(found: Hearing) -> bool:
    return any(seen.foreign_v > 0 for seen in found.stages.values())


def as_it_belongs(plan: Plan) -> Iterator[Fix]:
    """All ends joined as the parts say, where a frame comes of that."""
    edits = (Edit(path=JOINS, value=None),)
    if plan.trigger.joins is not None and works(plan, edits):
        yield Fix(
            label="Join it as it belongs",
            consequence="Each press goes to its own contact, and the grounds together; the drawing shows every joint.",
            slots={},
            edits=edits,
        )


def parted(plan: Plan) -> Iterator[Fix]:
    """An optocoupler put between, a relay where a phone listens, or what is there used alone."""
    yield from as_it_belongs(plan)
    if any(isinstance(copy.card, Coupling) and copy.card.form != "resistor" for copy in plan.kit.copies):
        return
    volts = _pin_volts(plan)
    light = Coupling(name="an optocoupler", series_ohm=_series(plan, Coupling(name="one")))
    # What a light switches keeps some tenths of a volt: a phone takes that for another button of a headset.
    relay = _usual("relay", coil_v=volts)
    lit, fed, pressed = {"ohms": slot(light.series_ohm, "Ω")}, {"coil": slot(volts, "V")}, RELAY
    for key in _key_resistor(plan):
        fed, pressed = {**fed, "ohms": slot(key.contact_ohm, "Ω")}, (RELAY[0], f"{RELAY[1]} {KEYED}")
    for card, (label, consequence), slots in ((light, LIGHT, lit), (relay, pressed, fed)):
        edits = _between(plan, card)
        if works(plan, edits):
            yield Fix(label=label, consequence=consequence, slots=slots, edits=edits)
            return


def _between(plan: Plan, card: Coupling) -> tuple[Edit, ...]:
    """A coupling taken on, with the resistor that a phone asks for behind a relay, and all joined as it belongs."""
    relay = card.form == "relay"
    keys = tuple(_key_resistor(plan)) if relay else ()
    copies = [copy for copy in plan.kit.copies if not keys or copy.card.kind != "coupling"]
    ones = [Copy(key=free_key(plan.kit.copies, one.name), card=one) for one in (card, *keys)]
    taken = Edit(path="kit.copies", value=[copy.model_dump(mode="json") for copy in (*copies, *ones)])
    fed = [one for one in _supplied(apply(plan, [taken])[0], card.coil_v) if one.path != JOINS] if relay else []
    couple = Edit(path="beat.couple_s", value=str(card.operate_s) if relay else "0")
    return (taken, *fed, Edit(path=JOINS, value=None), couple)


def _key_resistor(plan: Plan) -> Iterator[Coupling]:
    """The resistor by which a phone knows the key of a headset on which its app fires."""
    for copy in plan.kit.copies:
        if isinstance(copy.card, Phone) and copy.card.fires_on in OHMS:
            yield _usual("resistor", contact_ohm=OHMS[copy.card.fires_on])


def _usual(like: Literal["relay", "resistor"], **changed: float) -> Coupling:
    card = made(like)
    assert isinstance(card, Coupling)
    return card.model_copy(update=changed)


def _pin_volts(plan: Plan) -> float:
    """What the pin that fires puts out; as the usual board's while nobody has read it."""
    return next((c.card.volts for c in plan.kit.copies if c.card.kind == "trigger"), None) or 3.3


def _series(plan: Plan, card: Coupling) -> float:
    """The largest resistor as sold with which the light is surely lit."""
    most = (_pin_volts(plan) - card.forward_v) / (card.needs_ma * SURELY / 1000) - LED_OHM - PIN_OHM
    return float(max((ohms for ohms in SOLD if ohms <= most), default=SOLD[0]))


def resistor(plan: Plan, index: int, card: Coupling) -> Iterator[Fix]:
    """A resistor before the light with which it is lit, and the pin is not asked for more than it gives."""
    ohms = _series(plan, card)
    edits = (Edit(path=f"kit.copies.{index}.card.series_ohm", value=ohms),)
    if ohms != card.series_ohm and works(plan, edits):
        yield Fix(
            label="Put {ohms} before it",
            consequence="The light gets half as much again as it needs.",
            slots={"ohms": slot(ohms, "Ω")},
            edits=edits,
        )


def _supplied(plan: Plan, volts: float) -> Iterator[Edit]:
    """The supply pin that feeds such a board, and the wire to it."""
    for index, copy in enumerate(plan.kit.copies):
        if isinstance(copy.card, Trigger) and copy.card.supply_v < volts:
            yield Edit(path=f"kit.copies.{index}.card.supply_v", value=volts)
    if plan.trigger.joins is not None:
        ends = {end for join in plan.trigger.joins for end in (join.a, join.b)}
        if "coupling.supply" not in ends:
            joins = [join.model_dump(mode="json") for join in plan.trigger.joins]
            yield Edit(path=JOINS, value=[*joins, {"a": "source.supply", "b": "coupling.supply"}])


def driven(plan: Plan, index: int, volts: float) -> Iterator[Fix]:
    """A relay board that feeds its own coil, and asks a pin for a few milliamperes."""
    base = f"kit.copies.{index}.card"
    edits = (
        Edit(path=f"{base}.driver", value=True),
        Edit(path=f"{base}.needs_ma", value=DRIVER_MA),
        Edit(path=f"{base}.coil_v", value=volts),
        *_supplied(plan, volts),
    )
    if works(plan, edits):
        yield Fix(
            label="Take a relay board with a driver, for {volts}",
            consequence="Its coil is fed from the supply; the pin gives {needs}.",
            slots={"volts": slot(volts, "V"), "needs": slot(DRIVER_MA, "mA")},
            edits=edits,
        )
