"""The symbols inside the blocks of a wiring diagram, between their ends."""

from collections.abc import Iterator
from itertools import pairwise

from bridle.core.chapters.trigger.layout import Drawing, Ends
from bridle.core.chapters.trigger.state import Glyph, GlyphName, Point
from bridle.core.quantity import spoken, write
from bridle.core.reckon.wiring import Wiring

# Labels of the ends take so much of a block on either side.
LABEL, APART = 96.0, 26.0
# What stands at a pin that puts out no signal.
OF_A_PIN: dict[str, GlyphName] = {"ground": "ground", "supply": "supply"}
# A second channel stands so much further in; a coil so far from the edge.
CHANNEL, COIL = 30.0, 96.0


def _glyph(name: GlyphName, a: Point, b: Point) -> Glyph:
    return Glyph(name=name, a=a, b=b)


def _source(wired: Wiring, x: float, width: float, ends: Ends) -> list[Drawing]:
    kinds = {"buttons": _buttons, "switch": _changeover, "pin": _pins, "headset": _headset}
    return list(kinds[wired.output](x, width, {end.partition(".")[2]: at for end, at in ends.items()}))


def _buttons(x: float, width: float, ends: Ends) -> Iterator[Drawing]:
    """Each contact of a button against the ground, the one further off further in."""
    ground = ends["ground"]
    contacts = sorted((name for name in ends if name != "ground"), key=lambda name: abs(ends[name][1] - ground[1]))
    right = x + width - LABEL
    for number, name in enumerate(contacts):
        at = right - APART * (number + 0.2)
        yield _glyph("button", (at, ends[name][1]), (at, ground[1]))
        yield ends[name], (at, ends[name][1])
    yield ground, (right - APART * (len(contacts) - 0.8), ground[1])


def _changeover(x: float, width: float, ends: Ends) -> Iterator[Drawing]:
    """The arm of a switch lies on its normally closed contact until it is pressed."""
    del width
    yield from _arm(ends, ends["common"][0] - LABEL - 14, x + 22)


def _arm(ends: Ends, contact: float, pivot: float) -> Iterator[Drawing]:
    common = ends["common"]
    yield common, (pivot, common[1])
    for name in ("open", "closed"):
        yield ends[name], (contact, ends[name][1])
        yield _glyph("open" if name == "open" else "closed", (contact, ends[name][1]), (contact, ends[name][1]))
    yield _glyph("arm", (pivot, common[1]), (contact, ends["closed"][1]))


def _pins(x: float, width: float, ends: Ends) -> Iterator[Drawing]:
    at = x + width - LABEL - 16
    for name, end in ends.items():
        yield end, (at, end[1])
        yield _glyph(OF_A_PIN.get(name, "pin"), (at, end[1]), (at - 18, end[1]))


def _headset(x: float, width: float, ends: Ends) -> Iterator[Drawing]:
    """A button and its resistor, in turn, between microphone and ground."""
    mic, ground = ends["mic"], ends["ground"]
    at = x + width - LABEL - 8
    middle = (mic[1] + ground[1]) / 2
    yield mic, (at, mic[1])
    yield _glyph("button", (at, mic[1]), (at, middle))
    yield _glyph("resistor", (at, middle), (at, ground[1]))
    yield ground, (at, ground[1])


def _coupling(wired: Wiring, x: float, width: float, ends: Ends) -> list[Drawing]:
    card = wired.parts.coupling
    assert card is not None
    own = [
        {end.partition(".")[2].removesuffix("2"): at for end, at in ends.items() if end.endswith("2") == second}
        for second in (False, True)[: card.channels]
    ]
    drawn: list[Drawing] = []
    for channel in own:
        # Of two, the one that reaches over the other stands further in, on either side.
        left, right = (_further(own, channel, pair) for pair in (("plus", "minus"), _out_pair(card.form)))
        made = _light if card.form == "optocoupler" else relay
        drawn += made(x + left * CHANNEL, width - (left + right) * CHANNEL, channel)
        if card.form == "relay" and card.diode and not card.driver:
            drawn.append(_flyback(x + left * CHANNEL, channel))
    return drawn


def _out_pair(form: str) -> tuple[str, str]:
    return ("high", "low") if form == "optocoupler" else ("open", "closed")


def _further(channels: list[Ends], one: Ends, pair: tuple[str, str]) -> int:
    """How many of the other channels reach less far up and down."""
    reach = [abs(channel[pair[0]][1] - channel[pair[1]][1]) for channel in channels]
    mine = channels.index(one)
    return sum(other < reach[mine] or (other == reach[mine] and n < mine) for n, other in enumerate(reach))


def _light(x: float, width: float, ends: Ends) -> Iterator[Drawing]:
    plus, minus, high, low = (ends[name] for name in ("plus", "minus", "high", "low"))
    led, out = x + LABEL - 14, x + width - LABEL + 4
    yield _glyph("resistor", (led - 34, plus[1]), (led, plus[1]))
    yield plus, (led - 34, plus[1])
    yield _glyph("led", (led, plus[1]), (led, minus[1]))
    yield minus, (led, minus[1])
    yield _glyph("transistor", (out, high[1]), (out, low[1]))
    yield high, (out, high[1])
    yield low, (out, low[1])
    middle = (plus[1] + minus[1] + high[1] + low[1]) / 4
    yield _glyph("light", (led + 14, middle), (out - 16, middle))


def relay(x: float, width: float, ends: Ends) -> Iterator[Drawing]:
    """A coil between plus and minus; its arm lies on the normally closed contact."""
    plus, minus = ends["plus"], ends["minus"]
    coil = x + COIL
    yield _glyph("coil", (coil, plus[1]), (coil, minus[1]))
    for end in (plus, minus):
        yield end, (coil, end[1])
    if supply := ends.get("supply"):
        # The supply stands over the coil: what the input lets onto it.
        yield supply, (coil - 30, supply[1]), (coil - 30, plus[1] - 8)
    yield from _arm(ends, x + width - LABEL - 14, x + width - LABEL - 44)


def _flyback(x: float, ends: Ends) -> Glyph:
    """The diode over a coil lies the other way: it takes what the coil gives back when it is let go."""
    at = x + COIL - 30
    return _glyph("diode", (at, ends["minus"][1]), (at, ends["plus"][1]))


def _resistor(wired: Wiring, x: float, width: float, ends: Ends) -> list[Drawing]:
    del wired
    a, b = ends["resistor.a"], ends["resistor.b"]
    left, right = x + 62, x + width - 76
    drawn: list[Drawing] = [(a, (left, a[1])), _glyph("resistor", (left, a[1]), (right, a[1]))]
    drawn.append(((right, a[1]), (right, b[1]), b) if a[1] != b[1] else ((right, a[1]), b))
    return drawn


def _camera(wired: Wiring, x: float, width: float, ends: Ends) -> list[Drawing]:
    """The plug in the camera: a ring of it for each contact or wire."""
    del wired
    at = x + width - 34
    rows = sorted(y for _, y in ends.values())
    drawn: list[Drawing] = [((x, y), (at, y)) for y in rows]
    if rows:
        drawn.append(_glyph("plug", (at, rows[0]), (at, rows[-1])))
    drawn += [_glyph("ring", (at, (a + b) / 2), (at, (a + b) / 2)) for a, b in pairwise(rows)]
    return drawn


def said(wired: Wiring, part: str) -> str:
    """What a part has in figures, to be written below its block."""
    return {"source": _source_said, "coupling": _coupling_said, "resistor": _resistor_said, "camera": _camera_said}[
        part
    ](wired)


def _say(value: float, unit: str) -> str:
    return write(spoken(value, unit), unit)


def _source_said(wired: Wiring) -> str:
    card = wired.parts.source
    assert card is not None
    if wired.output == "pin":
        return "voltage not read" if card.volts is None else f"{_say(card.volts, 'V')} when it is on"
    return _say(card.button_ohm, "Ω") if wired.output == "headset" else ""


def _coupling_said(wired: Wiring) -> str:
    card = wired.parts.coupling
    assert card is not None
    if card.form == "optocoupler":
        return f"{_say(card.series_ohm, 'Ω')} before its light"
    return (
        f"a driver of its own, coil {_say(card.coil_v, 'V')}, {_say(card.coil_ma, 'mA')}"
        if card.driver
        else f"coil {_say(card.coil_v, 'V')}, {_say(card.coil_ma, 'mA')}"
    )


def _resistor_said(wired: Wiring) -> str:
    card = wired.parts.resistor
    assert card is not None
    return _say(card.contact_ohm, "Ω")


def _camera_said(wired: Wiring) -> str:
    card = wired.parts.camera
    assert card is not None
    return "" if card.socket == "none" else f"socket {card.socket}"


INSIDE = {"source": _source, "coupling": _coupling, "resistor": _resistor, "camera": _camera}
