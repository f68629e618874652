"""A small network of resistors, supplies, diodes and contacts that others close: what stands where, what flows.

Every supply has an inside resistance and every diode a forward voltage, so that a network is linear once it is known
which diodes conduct and which contacts are closed; that is found by trying, from all open.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

import numpy as np

from bridle.core.figure import Formula

LED = Formula("(level - forward) / (series + inside) * 1000", "what is left of the level over all resistance in turn")
COIL = Formula("level / (volts / current * 1000 + inside) * 1000", "the coil's own resistance, and that of the pin")

# How often what conducts is tried anew; a network that never comes to rest is told as such.
MOST_ROUNDS = 40
# What does not conduct lets through so little, in siemens; so nothing hangs in the air.
LEAK_S = 1e-9


@dataclass(frozen=True)
class Resistor:
    """So many ohms between two nodes; a wire has few, a coil many. `name` finds its current again."""

    a: str
    b: str
    ohms: float
    name: str = ""


@dataclass(frozen=True)
class Supply:
    """So many volts of `plus` over `minus`, behind an inside resistance."""

    plus: str
    minus: str
    volts: float
    ohms: float
    name: str = ""


@dataclass(frozen=True)
class Diode:
    """Conducts from anode to cathode above its forward voltage. One that is `lit_by` only while that current flows."""

    anode: str
    cathode: str
    volts: float
    ohms: float
    name: str = ""
    lit_by: str = ""
    at_least_a: float = 0.0


@dataclass(frozen=True)
class Contact:
    """A contact that is closed by a current (either way) of at least so much, or opened by it."""

    a: str
    b: str
    ohms: float
    by: str
    at_least_a: float
    closes: bool = True


Element = Resistor | Supply | Diode | Contact


@dataclass(frozen=True)
class Solved:
    """Volts of every node against one of its own part of the network, amperes by name; `rests` where it settles."""

    volts: dict[str, float]
    amps: dict[str, float]
    parts: dict[str, int]
    rests: bool

    def across(self, a: str, b: str) -> float | None:
        """Volts of one node over another; None where nothing joins them, or one of them is not there."""
        if self.parts.get(a) is None or self.parts.get(a) != self.parts.get(b):
            return None
        return self.volts[a] - self.volts[b]

    def joined(self, a: str, b: str) -> bool:
        """Whether the two belong to one circuit."""
        return self.parts.get(a) is not None and self.parts.get(a) == self.parts.get(b)


def solve(elements: Sequence[Element]) -> Solved:
    """The network at rest. Raises ValueError for a resistance that is not positive."""
    if any(one.ohms <= 0 for one in elements):
        raise ValueError("every part of a network has a resistance above nought")
    parts = _parts(elements)
    on = [isinstance(one, Resistor | Supply) or (isinstance(one, Contact) and not one.closes) for one in elements]
    for _ in range(MOST_ROUNDS):
        volts = _volts(elements, on, parts)
        amps = _amps(elements, on, volts)
        after = [_conducts(one, volts, amps, was) for one, was in zip(elements, on, strict=True)]
        if after == on:
            return Solved(volts, amps, parts, True)
        on = after
    return Solved(volts, amps, parts, False)


def _ends(one: Element) -> tuple[str, str]:
    if isinstance(one, Supply):
        return one.plus, one.minus
    return (one.anode, one.cathode) if isinstance(one, Diode) else (one.a, one.b)


def _parts(elements: Iterable[Element]) -> dict[str, int]:
    """Which nodes belong together, whatever conducts just now: a number for each."""
    member: dict[str, set[str]] = {}
    for one in elements:
        a, b = _ends(one)
        together = member.get(a, {a}) | member.get(b, {b})
        for node in together:
            member[node] = together
    groups: dict[int, int] = {}
    return {node: groups.setdefault(id(group), len(groups)) for node, group in member.items()}


def _volts(elements: Sequence[Element], on: Sequence[bool], parts: dict[str, int]) -> dict[str, float]:
    """Node voltages: conductances times voltages are the currents fed in (Kirchhoff)."""
    nodes = {node: number for number, node in enumerate(parts)}
    conductance, fed = np.zeros((len(nodes), len(nodes))), np.zeros(len(nodes))
    for one, conducting in zip(elements, on, strict=True):
        a, b = (nodes[end] for end in _ends(one))
        through = 1 / one.ohms if conducting else LEAK_S
        conductance[a, a] += through
        conductance[b, b] += through
        conductance[a, b] -= through
        conductance[b, a] -= through
        drives = one.volts * through if conducting and isinstance(one, Supply | Diode) else 0.0
        fed[a] += drives
        fed[b] -= drives
    # Each part stands on its own: one node of it counts as nought.
    for node in _one_of_each(parts):
        conductance[nodes[node]] = 0
        conductance[nodes[node], nodes[node]] = 1
        fed[nodes[node]] = 0
    solved = np.linalg.solve(conductance, fed)
    return {node: float(solved[number]) for node, number in nodes.items()}


def _one_of_each(parts: dict[str, int]) -> Iterable[str]:
    return {part: node for node, part in parts.items()}.values()


def _amps(elements: Sequence[Element], on: Sequence[bool], volts: dict[str, float]) -> dict[str, float]:
    found = {}
    for one, conducting in zip(elements, on, strict=True):
        if isinstance(one, Contact) or not one.name:
            continue
        a, b = _ends(one)
        across = volts[a] - volts[b]
        drive = one.volts if isinstance(one, Supply | Diode) else 0.0
        found[one.name] = (across - drive) / one.ohms if conducting else 0.0
    return found


def _conducts(one: Element, volts: dict[str, float], amps: dict[str, float], was: bool) -> bool:
    if isinstance(one, Contact):
        return (abs(amps.get(one.by, 0.0)) >= one.at_least_a) == one.closes
    if isinstance(one, Diode):
        if one.lit_by and amps.get(one.lit_by, 0.0) < one.at_least_a:
            return False
        across = volts[one.anode] - volts[one.cathode]
        # Conducting it stays so while current flows the right way; blocking it starts at its forward voltage.
        return across > one.volts if not was else (across - one.volts) / one.ohms > 0
    return True
