"""Ways round what a stop runs into: an axis after the other, another parking place; the proof says what is clear."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.printing import Order
from bridle.core.reckon.printing import middle, parking, printer_of, stop_of, stop_s
from bridle.core.snag import Fix, slot
from bridle.standins.printer.obstacles import Round

# So far from the end of an axis a head parks.
INWARDS_MM = 5.0
FIRST: dict[Order, Literal["X", "Y"] | None] = {"straight": None, "x first": "X", "y first": "Y"}
ORDERS: tuple[Order, ...] = ("straight", "x first", "y first")


@dataclass(frozen=True, slots=True)
class WayRound:
    """Another way: what the virtual printer tries, and what is to be changed in the plan for it."""

    round: Round
    order: Order
    park: tuple[float | None, float | None] | None = None


def rounds(plan: Plan) -> list[WayRound]:
    """All that a plan's stop could do otherwise, what changes least first."""
    return [*_ordered(plan), *_parked(plan)] if stop_of(plan) is not None else []


def _ordered(plan: Plan) -> Iterator[WayRound]:
    stop, park = plan.printing.stop, parking(plan)
    if None not in park:
        for order in ORDERS:
            if order != stop.order:
                yield WayRound(_round(plan, park, order), order)


def _parked(plan: Plan) -> Iterator[WayRound]:
    """At the ends of the axes that no switch binds, the nearest to the middle of the part first."""
    printer, at = printer_of(plan), parking(plan)
    assert printer is not None
    (mx, my), places = middle(plan), set()
    ends = ((printer.low_x_mm, printer.high_x_mm), (printer.low_y_mm, printer.high_y_mm))
    for x in _along(plan, 0, ends[0]):
        for y in _along(plan, 1, ends[1]):
            if (x, y) != at:
                places.add((x, y))
    for x, y in sorted(places, key=lambda to: (_far(to[0], mx) + _far(to[1], my), str(to))):
        yield WayRound(_round(plan, (x, y), plan.printing.stop.order), plan.printing.stop.order, (x, y))


def _far(to: float | None, middle: float) -> float:
    return 0.0 if to is None else abs(to - middle)


def _along(plan: Plan, axis: int, ends: tuple[float, float]) -> list[float | None]:
    """Where it may park along an axis: where it does, or, where the plan's own coordinate counts, at either end."""
    now = parking(plan)[axis]
    name = ("park_x_mm", "park_y_mm")[axis]
    inside = ends[0] + INWARDS_MM, ends[1] - INWARDS_MM
    return [now, *(to for to in inside if to != now and parking(_with(plan, {name: to}))[axis] == to)]


def _with(plan: Plan, update: dict[str, object]) -> Plan:
    stop = plan.printing.stop.model_copy(update=update)
    return plan.model_copy(update={"printing": plan.printing.model_copy(update={"stop": stop})})


def _round(plan: Plan, park: tuple[float | None, float | None], order: Order) -> Round:
    return Round(park, plan.printing.stop.raise_mm, FIRST[order])


def round_fixes(plan: Plan, free: Sequence[int]) -> list[Fix]:
    """For each sort of way round that is clear, the nearest."""
    clear = [one for number, one in enumerate(rounds(plan)) if number in free]
    turned = next((one for one in clear if one.park is None), None)
    parked = next((one for one in clear if one.park is not None), None)
    return [*([_turn(plan, turned)] if turned else []), *([_park(plan, parked)] if parked else [])]


LABELS: dict[Order, str] = {
    "straight": "Go straight to the parking place",
    "x first": "Go along X first, then along Y",
    "y first": "Go along Y first, then along X",
}


def _turn(plan: Plan, way: WayRound) -> Fix:
    more = round(float(stop_s(_with(plan, {"order": way.order})) - stop_s(plan)), 1)
    slower = " and takes {more} longer" if more > 0 else ""
    consequence = f"That way is clear at every stop{slower}. Make the file again afterwards."
    slots = {"more": slot(more, "s")} if slower else {}
    return Fix(LABELS[way.order], consequence, slots, (Edit(path="printing.stop.order", value=way.order),))


def _park(plan: Plan, way: WayRound) -> Fix:
    now, (x, y) = parking(plan), way.park or (None, None)
    named = [(n, to) for n, to in enumerate((x, y)) if to is not None and to != now[n]]
    at = " and ".join(f"{'XY'[n]} {to:g}" for n, to in named)
    edits = tuple(Edit(path=f"printing.stop.park_{'xy'[n]}_mm", value=to) for n, to in named)
    consequence = "The way there is clear at every stop; look at where the head is in the picture. Make the file again."
    return Fix("Park at {at} instead", consequence, {"at": slot(f"{at} mm")}, edits)
