"""The lamps beside a chain, each on a small diagram of its own: what switches it, and what it hangs on."""

from collections.abc import Iterator

from bridle.core.chapters.trigger.layout import Block, Chart, Drawing, Ends, drawn
from bridle.core.chapters.trigger.state import Diagram, Glyph
from bridle.core.chapters.trigger.symbols import OF_A_PIN, relay
from bridle.core.plan.document import Plan
from bridle.core.plan.wired import Lamp
from bridle.core.quantity import listed, spoken, write
from bridle.core.reckon.calls import Switched, relays_of
from bridle.core.reckon.wiring import parts_of

LABELS = {
    "board.ground": "ground",
    "board.supply": "supply",
    "switch.plus": "input",
    "switch.minus": "ground",
    "switch.supply": "supply",
    "switch.open": "normally open",
    "switch.closed": "normally closed",
    "switch.common": "common",
    "lamp.lamp": "lamp",
    "lamp.supply": "supply",
    "lamp.one": "button",
    "lamp.other": "button",
    "socket.plus": "signal +",
    "socket.minus": "signal −",
}
# The pin only tells the relay board; its coil takes its current from a supply pin.
FED = (("board.pin", "switch.plus"), ("board.ground", "switch.minus"), ("board.supply", "switch.supply"))


def lamp_circuits(plan: Plan) -> Iterator[Diagram]:
    """A diagram for each lamp that is switched with the frames."""
    for group in relays_of(plan):
        yield drawn(_chart(plan, group))


def _chart(plan: Plan, group: tuple[Switched, ...]) -> Chart:
    index, lamp, use = group[0]
    labels = {**LABELS, "board.pin": f"pin {use.pin}" if use.pin else "a pin"}
    if lamp.on_mains:
        fed = ("board.pin", "socket.plus"), ("board.ground", "socket.minus")
        return Chart((_board(plan, False), _socket(lamp)), fed, labels)
    if lamp.switch == "toggle":
        across = ("switch.open", "lamp.one"), ("switch.common", "lamp.other")
        return Chart((_board(plan), _relay(lamp), _button(index, lamp)), (*FED, *across), labels)
    # What is dark for the frame alone hangs on the contact that is closed while nothing is switched.
    contact = "closed" if use.lit == "between frames" else "open"
    in_series = (f"switch.{contact}", "lamp.lamp"), ("switch.common", "lamp.supply")
    lamps = [lamp for _, lamp, _ in group]
    return Chart((_board(plan), _relay(*lamps), _lamp(index, *lamps)), (*FED, *in_series), labels)


def _board(plan: Plan, feeds: bool = True) -> Block:
    source = parts_of(plan).source
    title = source.name if source is not None else "what switches it"
    ends = ("board.supply", "board.pin", "board.ground") if feeds else ("board.pin", "board.ground")
    return Block("board", title, 168.0, (), ends, _pins)


def _pins(x: float, width: float, ends: Ends) -> list[Drawing]:
    at = x + width - 112
    drawn_: list[Drawing] = []
    for name, end in ends.items():
        glyph = OF_A_PIN.get(name.removeprefix("board."), "pin")
        drawn_ += [(end, (at, end[1])), Glyph(name=glyph, a=(at, end[1]), b=(at - 18, end[1]))]
    return drawn_


def _relay(*lamps: Lamp) -> Block:
    lamp = lamps[0]
    volts, amps = _say(lamp.volts, "V"), _say(sum(one.watts / one.volts for one in lamps), "A")
    title = f"relay board, for {volts} and {amps} or more"
    if lamp.switch == "toggle":
        title = "relay across its push button"
    right = "switch.open", "switch.closed", "switch.common"
    return Block("switch", title, 288.0, ("switch.supply", "switch.plus", "switch.minus"), right, _switched)


def _say(value: float, unit: str) -> str:
    return write(spoken(value, unit), unit)


def _switched(x: float, width: float, ends: Ends) -> list[Drawing]:
    return list(relay(x, width, {end.partition(".")[2]: at for end, at in ends.items()}))


def _lamp(index: int, *lamps: Lamp) -> Block:
    said = "a fuse at the supply" if len(lamps) == 1 else "side by side, a fuse at the supply"
    return Block(
        "lamp", listed([lamp.name for lamp in lamps]), 200.0, ("lamp.lamp", "lamp.supply"), (), _in_series, said, index
    )


def _in_series(x: float, width: float, ends: Ends) -> list[Drawing]:
    """The lamp, its supply and a fuse in one loop."""
    lamp, supply = ends["lamp.lamp"], ends["lamp.supply"]
    far = x + width - 34
    return [
        (lamp, (x + 76, lamp[1])),
        Glyph(name="lamp", a=(x + 76, lamp[1]), b=(x + 96, lamp[1])),
        ((x + 96, lamp[1]), (far, lamp[1])),
        Glyph(name="battery", a=(far, lamp[1]), b=(far, supply[1])),
        (supply, (x + 76, supply[1])),
        Glyph(name="fuse", a=(x + 76, supply[1]), b=(x + 106, supply[1])),
        ((x + 106, supply[1]), (far, supply[1])),
    ]


def _button(index: int, lamp: Lamp) -> Block:
    said = "each press turns it over"
    return Block("lamp", lamp.name, 176.0, ("lamp.one", "lamp.other"), (), _across, said, index)


def _across(x: float, width: float, ends: Ends) -> list[Drawing]:
    one, other = ends["lamp.one"], ends["lamp.other"]
    at = x + width - 50
    return [(one, (at, one[1])), Glyph(name="button", a=(at, one[1]), b=(at, other[1])), (other, (at, other[1]))]


def _socket(lamp: Lamp) -> Block:
    title, ends = f"ready-made switched socket: {lamp.name}", ("socket.plus", "socket.minus")
    return Block("socket", title, 250.0, ends, (), _shut, "what is inside is for a qualified person")


def _shut(x: float, width: float, ends: Ends) -> list[Drawing]:
    del width
    return [(at, (x + 84, at[1])) for at in ends.values()]
