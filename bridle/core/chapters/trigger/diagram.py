"""The wiring diagram of a chain: what fires, what couples, the lead and the camera."""

from collections.abc import Iterator
from functools import partial

from bridle.core.chapters.trigger.layout import Block, Chart, drawn
from bridle.core.chapters.trigger.state import Diagram
from bridle.core.chapters.trigger.symbols import INSIDE, said
from bridle.core.plan.document import Plan
from bridle.core.reckon.wiring import Wiring, is_driven

WIDTHS = {"source": 168.0, "coupling": 236.0, "resistor": 188.0, "camera": 176.0}
# A relay's coil and its contacts stand well apart, as they are.
OF_A_RELAY = 52.0
# Two channels stand beside one another.
SECOND = 64.0
LEFT = ("supply", "plus", "minus", "plus2", "minus2", "a")
LONGEST_WIRE = 16
LABELS = {
    "open": "normally open",
    "closed": "normally closed",
    "mic": "microphone",
    "half": "half press pin",
    "a": "one end",
    "b": "other end",
    "high": "collector",
    "low": "emitter",
}
# What the fed ends of a coupling are called; where it has two channels the second is for the half press.
FORMS = {
    "optocoupler": {"plus": "anode", "minus": "cathode"},
    "relay": {"plus": "coil +", "minus": "coil −"},
    "driven": {"plus": "input", "minus": "ground", "supply": "supply"},
}


def diagram(plan: Plan, wired: Wiring) -> Diagram:
    """The drawing of a chain, in pixels of its own."""
    blocks = tuple(_blocks(plan, wired))
    labels = {end: label(wired, end) for block in blocks for end in (*block.left, *block.right)}
    cable = wired.parts.cable
    return drawn(Chart(blocks, wired.pairs, labels, cable.name if cable else ""))


def _blocks(plan: Plan, wired: Wiring) -> Iterator[Block]:
    last = "wire" if "wire" in wired.ends else "camera"
    for part in ("source", "coupling", "resistor", last):
        if part not in wired.ends:
            continue
        ends = [f"{part}.{end}" for end in wired.ends[part]]
        is_left = [part == last or (part != "source" and end.partition(".")[2] in LEFT) for end in ends]
        name = "camera" if part == last else part
        card = getattr(wired.parts, name)
        coupling = card if name == "coupling" else None
        two = coupling is not None and coupling.channels > 1
        relay = coupling is not None and coupling.form == "relay"
        yield Block(
            part=name,
            title=card.name,
            width=WIDTHS[name] + (SECOND if two else 0.0) + (OF_A_RELAY if relay else 0.0),
            left=tuple(end for end, left in zip(ends, is_left, strict=True) if left),
            right=tuple(end for end, left in zip(ends, is_left, strict=True) if not left),
            inside=partial(INSIDE[name], wired),
            said=said(wired, name),
            copy=next((n for n, copy in enumerate(plan.kit.copies) if copy.card is card), None),
        )


def label(wired: Wiring, end: str) -> str:
    """What an end is called: a wire by its own name, with what it is where that is known."""
    part, _, name = end.partition(".")
    if part == "wire":
        number = int(name)
        role = wired.lead.roles[number] if wired.lead else None
        called_so = wired.wires[number]
        short = called_so if len(called_so) <= LONGEST_WIRE else f"{called_so[: LONGEST_WIRE - 1]}…"
        return f"{short}: {role or 'not known'}"
    if part == "coupling" and wired.parts.coupling is not None:
        own = FORMS["driven" if is_driven(wired.parts.coupling) else wired.parts.coupling.form]
        plain = name.removesuffix("2")
        said = own.get(plain) or LABELS.get(plain, plain)
        return f"{said} 2" if plain != name else said
    return LABELS.get(name, name)
