"""A second opinion on chains: its own network from the cards, solved exactly, every state of what switches tried."""

from fractions import Fraction as F
from itertools import product
from typing import Any, NamedTuple

from bridle.core.plan.document import Plan
from bridle.core.plan.kit import Body, Phone
from bridle.core.plan.wired import Cable, Coupling, Trigger

LEAK = F(1, 10**9)


class Branch(NamedTuple):
    """From a to b: so many ohms with so many volts against the current; conducts as its rule says."""

    a: str
    b: str
    ohms: F
    volts: F = F(0)
    rule: str = "always"
    by: int = -1
    least: F = F(0)


class Sees(NamedTuple):
    """What the camera sees at rest, at half and at full press, as letters: f, s, or the ohms of a headset."""

    rest: str
    half: str
    full: str
    tied: bool


def cards(plan: Plan) -> dict[str, Any]:
    found: dict[str, Any] = {}
    for copy in plan.kit.copies:
        card = copy.card
        if isinstance(card, Coupling):
            found.setdefault("resistor" if card.form == "resistor" else "coupling", card)
        for kind, name in ((Trigger, "source"), (Cable, "cable"), (Body, "camera"), (Phone, "camera")):
            if isinstance(card, kind):
                found.setdefault(name, card)
    return found


def drives_a_pin(source: Any) -> bool:
    return source.source in ("pin", "host command") or (source.source == "controller" and source.coupling == "none")


def branches(plan: Plan, joins: list[tuple[str, str]], stage: str, roles: tuple[str | None, ...]) -> list[Branch]:
    """All parts between the nodes; a join is a wire of a millionth of an ohm."""
    there = cards(plan)
    source, camera, cable = there["source"], there["camera"], there.get("cable")
    pressed, half = stage == "full", stage in ("half", "full")
    found = [Branch(a, b, F(1, 10**6)) for a, b in joins]
    pin = drives_a_pin(source)
    if source.source == "switch":
        found.append(Branch("source.common", "source.open" if pressed else "source.closed", F(1, 5)))
    elif source.source == "headset":
        if pressed:
            found.append(Branch("source.mic", "source.ground", F(source.button_ohm)))
    elif pin:
        level = F(source.volts or 0)
        found.append(Branch("source.pin", "source.ground", F(25), level if pressed else F(0)))
        found.append(Branch("source.supply", "source.ground", F(1, 10), F(source.supply_v)))
        if source.half_press:
            found.append(Branch("source.half", "source.ground", F(25), level if half else F(0)))
    else:
        if half and source.half_press:
            found.append(Branch("source.focus", "source.ground", F(1, 5)))
        if pressed:
            found.append(Branch("source.shutter", "source.ground", F(1, 5)))
    if (card := there.get("coupling")) is not None:
        for n in ["", "2"][: card.channels]:
            found += optocoupler(card, n, len(found)) if card.form == "optocoupler" else relay(card, n, len(found))
    if (card := there.get("resistor")) is not None:
        found.append(Branch("resistor.a", "resistor.b", F(card.contact_ohm)))
    lead = F(1, 100) + (F(cable.length_mm) / 1000 * F(cable.ohm_per_m) if cable else 0)
    if camera.hears == "headset button":
        inside = {"mic": F(2200)}
        own = F(22, 10)
    else:
        inside = dict.fromkeys(
            ("focus", "shutter") if camera.hears == "half and full press" else ("shutter",), F(20000)
        )
        own = F(camera.input_v)
    for contact, ohms in inside.items():
        found.append(Branch(f"in.{contact}", "in.ground", ohms + F(1, 100), own))
    for contact in (*inside, "ground"):
        if cable is not None and cable.made == "cut open":
            found += [Branch(f"wire.{n}", f"in.{contact}", lead) for n, role in enumerate(roles) if role == contact]
        else:
            found.append(Branch(f"camera.{contact}", f"in.{contact}", lead))
    return found


def optocoupler(card: Any, n: str, at: int) -> list[Branch]:
    series = F(card.series_ohm) + 5
    light = Branch(f"coupling.plus{n}", f"coupling.minus{n}", series, F(card.forward_v), "one way")
    least = F(card.needs_ma) / 1000
    return [light, Branch(f"coupling.high{n}", f"coupling.low{n}", F(card.contact_ohm), F(1, 10), "lit", at, least)]


def relay(card: Any, n: str, at: int) -> list[Branch]:
    amps, plus, minus = F(card.coil_ma) / 1000, f"coupling.plus{n}", f"coupling.minus{n}"
    made = [Branch(plus, minus, F(card.coil_v) / amps)]
    if card.driver:
        asks = F(card.needs_ma) / 1000
        made = [
            Branch(plus, minus, F(card.coil_v) / asks),
            Branch("coupling.supply", f"coupling.top{n}", F(1, 5), F(0), "pulled", at, asks * 3 / 4),
            Branch(f"coupling.top{n}", minus, F(card.coil_v) / amps),
        ]
        at += 2
    if card.diode and not card.driver:
        made.append(Branch(f"coupling.minus{n}", f"coupling.plus{n}", F(1), F(7, 10), "one way"))
    for end, rule in (("open", "pulled"), ("closed", "let go")):
        ohms = F(card.contact_ohm)
        made.append(Branch(f"coupling.common{n}", f"coupling.{end}{n}", ohms, F(0), rule, at, amps * 3 / 4))
    return made


def solved(parts: list[Branch], on: tuple[bool, ...]) -> tuple[dict[str, F], list[F]]:
    """Voltages of the nodes and the current of each branch, exactly; every circuit has one node at nought."""
    nodes = sorted({end for part in parts for end in (part.a, part.b)})
    groups = {node: node for node in nodes}
    for part in parts:
        one, other = groups[part.a], groups[part.b]
        groups = {node: one if group == other else group for node, group in groups.items()}
    free = [node for node in nodes if groups[node] != node]
    index = {node: number for number, node in enumerate(free)}
    rows = [[F(0)] * (len(free) + 1) for _ in free]
    for part, conducts in zip(parts, on, strict=True):
        through = 1 / part.ohms if conducts else LEAK
        drive = part.volts * through if conducts else F(0)
        for end, other, sign in ((part.a, part.b, 1), (part.b, part.a, -1)):
            if end in index and part.a != part.b:
                row = rows[index[end]]
                row[index[end]] += through
                if other in index:
                    row[index[other]] -= through
                row[-1] += sign * drive
    for pivot in range(len(free)):
        filled = next(number for number in range(pivot, len(free)) if rows[number][pivot])
        rows[pivot], rows[filled] = rows[filled], rows[pivot]
        rows[pivot] = [value / rows[pivot][pivot] for value in rows[pivot]]
        for number in range(len(free)):
            if number != pivot and rows[number][pivot]:
                scale = rows[number][pivot]
                rows[number] = [a - scale * b for a, b in zip(rows[number], rows[pivot], strict=True)]
    volts = {node: rows[index[node]][-1] if node in index else F(0) for node in nodes}
    amps = [
        (volts[p.a] - volts[p.b] - p.volts) / p.ohms if conducts else F(0)
        for p, conducts in zip(parts, on, strict=True)
    ]
    return volts, amps


def holds(parts: list[Branch], on: tuple[bool, ...], volts: dict[str, F], amps: list[F]) -> bool:
    """Whether each part does what its rule says."""
    for part, conducts in zip(parts, on, strict=True):
        across = volts[part.a] - volts[part.b]
        fits = {
            "always": conducts,
            "one way": conducts == (across > part.volts),
            "lit": conducts == (across > part.volts and amps[part.by] >= part.least),
            "pulled": conducts == (abs(amps[part.by]) >= part.least),
            "let go": conducts == (abs(amps[part.by]) < part.least),
        }[part.rule]
        if not fits:
            return False
    return True


def at_rest(parts: list[Branch]) -> list[dict[str, F]]:
    """The voltages of every state that holds together."""
    free = [n for n, part in enumerate(parts) if part.rule != "always"]
    found = []
    for chosen in product((False, True), repeat=len(free)):
        states = dict(zip(free, chosen, strict=True))
        on = tuple(states.get(n, True) for n in range(len(parts)))
        volts, amps = solved(parts, on)
        if holds(parts, on, volts, amps):
            found.append(volts)
    return found


def reach(parts: list[Branch], start: str) -> set[str]:
    seen, edge = {start}, [start]
    while edge:
        here = edge.pop()
        for part in parts:
            for end, other in ((part.a, part.b), (part.b, part.a)):
                if end == here and other not in seen:
                    seen.add(other)
                    edge.append(other)
    return seen


def sees(plan: Plan, joins: list[tuple[str, str]], roles: tuple[str | None, ...] = ()) -> Sees | None:
    """What the camera sees; None where some stage has no state that holds together, or several."""
    there, told, tied = cards(plan), [], False
    driven = drives_a_pin(there["source"])
    for stage in ("rest", "half", "full"):
        parts = branches(plan, joins, stage, roles)
        states = at_rest(parts)
        if len(states) != 1:
            return None
        tied = tied or (driven and "source.ground" in reach(parts, "in.ground"))
        told.append(letters(there["camera"], states[0]))
    return Sees(told[0], told[1], told[2], tied)


def letters(camera: Any, volts: dict[str, F]) -> str:
    if camera.hears == "headset button":
        across = volts["in.mic"] - volts["in.ground"]
        if across >= F(22, 10) * F(999, 1000):
            return ""
        return f"{float(F(2200) * max(across, F(0)) / (F(22, 10) - across)):.0f}"
    own = F(camera.input_v)
    contacts = ("focus", "shutter") if camera.hears == "half and full press" else ("shutter",)
    return "".join(name[0] for name in contacts if volts[f"in.{name}"] - volts["in.ground"] < own * 3 / 10)
