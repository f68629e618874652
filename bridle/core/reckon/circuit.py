"""The network of a chain at one stage of a press: what each part is made of, between its ends."""

from collections.abc import Iterator

from bridle.core.plan.kit import Imager
from bridle.core.plan.trigger import Join
from bridle.core.plan.wired import Coupling
from bridle.core.reckon.wiring import Parts, Wiring, called, contacts_of, is_driven
from bridle.core.subjects.circuits.contacts import Stage
from bridle.core.subjects.circuits.network import Contact, Diode, Element, Resistor, Supply

# A closed contact, a plug and a pin have about so many ohms; a camera pulls its contacts up through so many.
CONTACT_OHM, PIN_OHM, PULL_UP_OHM, JOINT_OHM, SUPPLY_OHM = 0.2, 25.0, 20_000.0, 0.01, 0.1
# A phone feeds its headset's microphone.
BIAS_V, BIAS_OHM = 2.2, 2_200.0
LED_OHM, CONDUCTS_V, FLYBACK_V, FLYBACK_OHM = 5.0, 0.1, 0.7, 1.0
# A relay pulls in at three quarters of its nominal current.
PULLS_IN = 0.75


def lead_ohm(wired: Wiring) -> float:
    """What one wire of the lead has, in ohms."""
    cable = wired.parts.cable
    return JOINT_OHM + (cable.length_mm / 1000 * cable.ohm_per_m if cable else 0.0)


def network(wired: Wiring, stage: Stage) -> tuple[Element, ...]:
    """The network while the source rests, half presses or fully presses."""
    parts = [*_source(wired, stage), *_coupling(wired.parts), *_lead(wired), *_camera(wired.parts.camera)]
    return tuple(_joined(parts, wired.joins))


def _source(wired: Wiring, stage: Stage) -> Iterator[Element]:
    card = wired.parts.source
    assert card is not None
    if wired.output == "buttons":
        if stage != "rest" and card.half_press:
            yield Resistor("source.focus", "source.ground", CONTACT_OHM)
        if stage == "full":
            yield Resistor("source.shutter", "source.ground", CONTACT_OHM)
    elif wired.output == "switch":
        yield Resistor("source.open" if stage == "full" else "source.closed", "source.common", CONTACT_OHM)
    elif wired.output == "headset" and stage == "full":
        yield Resistor("source.mic", "source.ground", max(card.button_ohm, CONTACT_OHM))
    elif wired.output == "pin":
        on = card.volts or 0.0
        yield Supply("source.pin", "source.ground", on if stage == "full" else 0.0, PIN_OHM, "pin")
        if card.half_press:
            yield Supply("source.half", "source.ground", on if stage != "rest" else 0.0, PIN_OHM, "half")
        if is_driven(wired.parts.coupling):
            yield Supply("source.supply", "source.ground", card.supply_v, SUPPLY_OHM, "supply")


def _coupling(parts: Parts) -> Iterator[Element]:
    card = parts.coupling
    for number in ("", "2")[: card.channels if card else 0]:
        assert card is not None
        yield from _light(card, number) if card.form == "optocoupler" else _relay(card, number)
    if parts.resistor is not None:
        yield Resistor("resistor.a", "resistor.b", max(parts.resistor.contact_ohm, JOINT_OHM))


def _light(card: Coupling, number: str) -> Iterator[Element]:
    """An optocoupler: its light behind a resistor; what it lights conducts one way."""
    led = f"coupling.led{number}"
    yield Resistor(f"coupling.plus{number}", led, max(card.series_ohm, JOINT_OHM))
    yield Diode(led, f"coupling.minus{number}", card.forward_v, LED_OHM, f"led{number}")
    high, low = f"coupling.high{number}", f"coupling.low{number}"
    out = max(card.contact_ohm, JOINT_OHM)
    yield Diode(high, low, CONDUCTS_V, out, lit_by=f"led{number}", at_least_a=card.needs_ma / 1000)


def coil_a(card: Coupling) -> float:
    """What a relay's coil draws at its nominal voltage, in amperes."""
    return card.coil_ma / 1000


def driver_a(card: Coupling) -> float:
    """What the driver of a relay board asks the pin for that switches it, in amperes."""
    return card.needs_ma / 1000


def _relay(card: Coupling, number: str) -> Iterator[Element]:
    plus, minus, common = (f"coupling.{end}{number}" for end in ("plus", "minus", "common"))
    if card.driver:
        # Its input asks for a little; with that it lets the supply onto the coil.
        yield Resistor(plus, minus, card.coil_v / driver_a(card), f"input{number}")
        yield Contact(
            "coupling.supply", f"coupling.fed{number}", CONTACT_OHM, f"input{number}", PULLS_IN * driver_a(card)
        )
        yield Resistor(f"coupling.fed{number}", minus, card.coil_v / coil_a(card), f"coil{number}")
    else:
        yield Resistor(plus, minus, card.coil_v / coil_a(card), f"coil{number}")
    if card.diode and not card.driver:
        yield Diode(minus, plus, FLYBACK_V, FLYBACK_OHM, f"flyback{number}")
    closed, pulls = max(card.contact_ohm, JOINT_OHM), PULLS_IN * coil_a(card)
    yield Contact(common, f"coupling.open{number}", closed, f"coil{number}", pulls)
    yield Contact(common, f"coupling.closed{number}", closed, f"coil{number}", pulls, closes=False)


def _lead(wired: Wiring) -> Iterator[Element]:
    """From the plug, or the wires of a lead cut open, to the contacts inside the camera."""
    if wired.lead is not None:
        for number, role in enumerate(wired.lead.roles):
            if role is not None and role in contacts_of(wired.parts.camera):
                yield Resistor(f"wire.{number}", f"inside.{role}", lead_ohm(wired))
        return
    for contact in contacts_of(wired.parts.camera):
        yield Resistor(f"camera.{contact}", f"inside.{contact}", lead_ohm(wired))


def _camera(camera: Imager | None) -> Iterator[Element]:
    contacts = contacts_of(camera)
    assert camera is not None
    if "mic" in contacts:
        yield Supply("inside.volts", "inside.ground", BIAS_V, JOINT_OHM)
        yield Resistor("inside.volts", "inside.mic", BIAS_OHM)
        return
    yield Supply("inside.volts", "inside.ground", camera.input_v, JOINT_OHM)
    for contact in contacts[:-1]:
        yield Resistor("inside.volts", f"inside.{contact}", PULL_UP_OHM)


def _joined(elements: list[Element], joins: tuple[Join, ...]) -> Iterator[Element]:
    name = called((join.a, join.b) for join in joins)
    for one in elements:
        if isinstance(one, Supply):
            yield Supply(name(one.plus), name(one.minus), one.volts, one.ohms, one.name)
        elif isinstance(one, Diode):
            ends = name(one.anode), name(one.cathode)
            yield Diode(*ends, one.volts, one.ohms, one.name, one.lit_by, one.at_least_a)
        elif isinstance(one, Contact):
            yield Contact(name(one.a), name(one.b), one.ohms, one.by, one.at_least_a, one.closes)
        else:
            yield Resistor(name(one.a), name(one.b), one.ohms, one.name)
