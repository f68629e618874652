"""From what fires to the camera: the ends of the parts, how they are joined, and the network that comes of it.

Nodes are called by their ends. Behind the plug of a lead stand the camera's own contacts; what the lead has in ohms
lies between the two.
"""

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass
from typing import Literal

from bridle.core.plan.document import Plan
from bridle.core.plan.kit import Body, Imager, Phone
from bridle.core.plan.trigger import Join, Sounded
from bridle.core.plan.wired import Cable, Coupling, Trigger
from bridle.core.reckon.parts import first_of, source_of
from bridle.core.subjects.circuits.contacts import Named, Reading, Role, Thing, named, questions

# What a source has on its wires: contacts, a changeover contact, a pin that is driven, a button of a headset, nothing.
Output = Literal["buttons", "switch", "pin", "headset", "nothing"]
BOARDS = ("pin", "host command")
OUTPUTS: dict[str, Output] = {
    "wired remote": "buttons", "wireless remote": "buttons", "controller": "buttons", "switch": "switch", "pin": "pin",
    "host command": "pin", "headset": "headset",
}  # fmt: skip


@dataclass(frozen=True)
class Parts:
    """The cards of a chain, as far as they are there."""

    source: Trigger | None
    coupling: Coupling | None
    resistor: Coupling | None
    cable: Cable | None
    camera: Imager | None


@dataclass(frozen=True)
class Wiring:
    """A chain put together: its parts, the ends that each has, what is joined, what each wire of a cut lead is."""

    parts: Parts
    output: Output
    ends: dict[str, tuple[str, ...]]
    joins: tuple[Join, ...]
    lead: Named | None = None
    switch: Named | None = None
    wires: tuple[str, ...] = ()

    @property
    def pairs(self) -> tuple[tuple[str, str], ...]:
        """The joins as pairs of ends."""
        return tuple((join.a, join.b) for join in self.joins)


def parts_of(plan: Plan) -> Parts:
    """The cards that make the chain: of each the first."""
    copies = plan.kit.copies
    couplings = [copy.card for copy in copies if isinstance(copy.card, Coupling)]
    cable, camera = first_of(copies, Cable), first_of(copies, Body, Phone)
    return Parts(
        source=source_of(copies),
        coupling=next((card for card in couplings if card.form != "resistor"), None),
        resistor=next((card for card in couplings if card.form == "resistor"), None),
        cable=cable.card if cable is not None and isinstance(cable.card, Cable) else None,
        camera=camera.card if camera is not None and isinstance(camera.card, Body | Phone) else None,
    )


def output_of(source: Trigger | None) -> Output:
    """What a source has on its wires."""
    if source is None:
        return "nothing"
    if source.source == "controller" and source.coupling == "none":
        return "pin"
    return OUTPUTS.get(source.source, "nothing")


def presses(plan: Plan) -> bool:
    """Whether something presses the camera's contacts."""
    parts = parts_of(plan)
    return output_of(parts.source) != "nothing" and parts.camera is not None and parts.camera.hears != "nothing"


def sounded(thing: Thing, what: Sounded | None) -> Named | None:
    """What the wires are, as far as the readings say."""
    if what is None:
        return None
    stages = ("rest", "full") if thing == "switch" else ("rest", "half", "full")
    asked = {one.ask for one in questions(thing, len(what.wires))}
    fits = [one for one in what.readings if one.stage in stages and one.ask in asked]
    return named(thing, len(what.wires), [Reading(one.ask, one.stage, one.a, one.b, one.yes) for one in fits])


def wiring(plan: Plan) -> Wiring | None:
    """The chain of a plan; None while there is nothing that fires over wires, or no camera that listens to any."""
    parts = parts_of(plan)
    output = output_of(parts.source)
    if parts.source is None or output == "nothing" or parts.camera is None or parts.camera.hears == "nothing":
        return None
    cut = parts.cable is not None and parts.cable.made == "cut open"
    lead = sounded("release", plan.trigger.lead) if cut else None
    wires = plan.trigger.lead.wires if cut and plan.trigger.lead else ()
    ends = _ends(parts, output, cut, wires)
    every = {f"{part}.{end}" for part, names in ends.items() for end in names}
    own = plan.trigger.joins
    joins = tuple(_belonging(parts, output, ends, lead)) if own is None else own
    standing = tuple(join for join in joins if {join.a, join.b} <= every)
    switch = sounded("switch", plan.trigger.switch) if output == "switch" else None
    return Wiring(parts, output, ends, standing, lead, switch, wires)


def _ends(parts: Parts, output: Output, cut: bool, wires: tuple[str, ...]) -> dict[str, tuple[str, ...]]:
    """The ends that the parts have, in the order in which they are drawn."""
    half = parts.source is not None and parts.source.half_press
    sources: dict[Output, tuple[str, ...]] = {
        "buttons": ("focus", "shutter", "ground") if half else ("shutter", "ground"),
        "switch": ("open", "closed", "common"),
        "pin": ("half", "pin", "ground") if half else ("pin", "ground"),
        "headset": ("mic", "ground"),
        "nothing": (),
    }
    found = {"source": sources[output]}
    if output == "pin" and is_driven(parts.coupling):
        found["source"] = (*sources[output], "supply")
    if parts.coupling is not None:
        found["coupling"] = tuple(_coupling_ends(parts.coupling))
    if parts.resistor is not None:
        found["resistor"] = ("a", "b")
    if cut:
        found["wire"] = tuple(str(number) for number in range(len(wires)))
    else:
        found["camera"] = contacts_of(parts.camera)
    return found


def is_driven(card: Coupling | None) -> bool:
    """Whether it is a relay whose own driver takes the coil's current from a supply pin."""
    return card is not None and card.form == "relay" and card.driver


def _coupling_ends(card: Coupling) -> Iterator[str]:
    if is_driven(card):
        yield "supply"
    ins = ("plus", "minus")
    outs = ("high", "low") if card.form == "optocoupler" else ("open", "closed", "common")
    for names in (ins, outs):
        for number in ("", "2")[: card.channels]:
            yield from (f"{name}{number}" for name in names)


def contacts_of(camera: Imager | None) -> tuple[str, ...]:
    """The contacts of a camera's input."""
    if camera is None or camera.hears == "nothing":
        return ()
    if camera.hears == "headset button":
        return "mic", "ground"
    return ("focus", "shutter", "ground") if camera.hears == "half and full press" else ("shutter", "ground")


def _belonging(parts: Parts, output: Output, ends: dict[str, tuple[str, ...]], lead: Named | None) -> Iterator[Join]:
    """All joined as it belongs: each press to its contact, the grounds together, each circuit for itself."""
    fed = output == "pin" and parts.coupling is not None
    if fed:
        yield from _feeding(ends)
    for contact, end in _pressing(parts, output, ends, fed):
        for there in _at(contact, ends, lead):
            yield from _through(contact, end, there, parts)


def _feeding(ends: dict[str, tuple[str, ...]]) -> Iterator[Join]:
    """A pin feeds the light or the coil."""
    channels = [("pin", "")]
    if "plus2" in ends["coupling"] and "half" in ends["source"]:
        channels.insert(0, ("half", "2"))
    if "supply" in ends["coupling"] and "supply" in ends["source"]:
        yield Join(a="source.supply", b="coupling.supply")
    for pin, number in channels:
        yield Join(a=f"source.{pin}", b=f"coupling.plus{number}")
        yield Join(a="source.ground", b=f"coupling.minus{number}")


def _pressing(
    parts: Parts, output: Output, ends: dict[str, tuple[str, ...]], fed: bool
) -> Iterator[tuple[Role | Literal["mic"], str]]:
    """Which contact of the camera is pressed by which end."""
    full, ground, half = _out(parts, output, ends, fed)
    if parts.camera is not None and parts.camera.hears == "headset button":
        yield "mic", full
        yield "ground", ground[0]
        return
    if half is not None:
        yield "focus", half
    elif parts.camera is not None and parts.camera.half_first != "no":
        # One press has to do: both contacts at once.
        yield "focus", full
    yield "shutter", full
    yield from (("ground", end) for end in ground)


def _out(
    parts: Parts, output: Output, ends: dict[str, tuple[str, ...]], fed: bool
) -> tuple[str, tuple[str, ...], str | None]:
    """The ends for the full press, the ground, and the half press where it has one of its own."""
    if fed:
        relay = parts.coupling is not None and parts.coupling.form == "relay"
        high, low = ("open", "common") if relay else ("high", "low")
        two = "plus2" in ends["coupling"] and "half" in ends["source"]
        grounds = (f"coupling.{low}", f"coupling.{low}2") if two else (f"coupling.{low}",)
        return f"coupling.{high}", grounds, f"coupling.{high}2" if two else None
    if output == "switch":
        return "source.open", ("source.common",), None
    full = {"pin": "source.pin", "headset": "source.mic"}.get(output, "source.shutter")
    half = "source.half" if output == "pin" else "source.focus"
    has_half = half.partition(".")[2] in ends["source"]
    return full, ("source.ground",), half if has_half else None


def _at(contact: str, ends: dict[str, tuple[str, ...]], lead: Named | None) -> Iterator[str]:
    """Where a contact of the camera is got at: at the plug, or at the wires that are known to be it."""
    if lead is not None:
        yield from (f"wire.{number}" for number, role in enumerate(lead.roles) if role == contact)
    elif contact in ends.get("camera", ()):
        yield f"camera.{contact}"


def _through(contact: str, end: str, there: str, parts: Parts) -> Iterator[Join]:
    """A press of a headset goes through its resistor, where one is there."""
    if contact == "mic" and parts.resistor is not None:
        yield Join(a=end, b="resistor.a")
        yield Join(a="resistor.b", b=there)
    else:
        yield Join(a=end, b=there)


def called(joins: Iterable[tuple[str, str]]) -> Callable[[str], str]:
    """Ends that are joined are one node, called by the first of them: gives each end's node."""
    first: dict[str, str] = {}

    def name(node: str) -> str:
        while node in first:
            node = first[node]
        return node

    for one, other in joins:
        a, b = name(one), name(other)
        if a != b:
            first[b] = a
    return name
