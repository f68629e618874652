"""What the head does before the first layer and behind the last, and whether the switch stands in its way there."""

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from bridle.core.plan.document import Plan
from bridle.core.plan.printer import HeadSwitch, Printer
from bridle.core.plan.printing import PrintFile
from bridle.core.reckon.printing import printer_of, sign_of, switch_of
from bridle.core.reckon.printing_room import Room, Span, room_of
from bridle.core.subjects.prints.way import Point, has_conditions, way_of

End = Literal["start", "end"]
FAR = 1e4


@dataclass(frozen=True, slots=True)
class Passed:
    """A way that passes the switch: at which end of the file, whose, whether it touches its body, how far (mm).

    `stays`: it ends on the switch.
    """

    end: End
    what: str
    touches: bool
    to: float
    stays: bool


def told_macros(plan: Plan, end: End) -> Iterator[tuple[str, str]]:
    """The printer's own macros with their texts that a file calls before its first layer or behind its last."""
    printer, file = printer_of(plan), plan.printing.file
    if printer is None or file is None:
        return
    called = {one.name.upper(): one.line for one in file.already if not one.layers}
    for macro in printer.macros:
        line = called.get(macro.name.upper())
        if line is not None and (line * 2 > file.lines) == (end == "end"):
            yield macro.name, macro.text


def passed(plan: Plan) -> list[Passed]:
    """The ways outside of the print that pass the switch, the start first; nothing while its place is not read."""
    printer, switch, room, file = printer_of(plan), switch_of(plan), room_of(plan), plan.printing.file
    if printer is None or switch is None or room is None or file is None:
        return []
    return list(_passed(plan, printer, switch, room, file))


def _passed(plan: Plan, printer: Printer, switch: HeadSwitch, room: Room, file: PrintFile) -> Iterator[Passed]:
    home = (printer.home_x_mm, printer.home_y_mm, 0.0)
    ends: tuple[tuple[End, str, tuple[tuple[float, ...], ...]], ...] = (
        ("start", "The start of the file", file.start_way), ("end", "The end of the file", file.end_way),
    )  # fmt: skip
    for end, what, way in ends:
        texts = [(name, way_of(text, home)) for name, text in told_macros(plan, end) if not has_conditions(text)]
        if end == "start" and (file.homes or any(homes for _, (_, homes) in texts)) and room.across is None:
            yield from _met(_homing(switch, home), end, "Homing", switch, room)
        yield from _met(way, end, what, switch, room)
        for name, (goes, _) in texts:
            yield from _met(goes, end, f"The printer's own {name}", switch, room)


def _homing(switch: HeadSwitch, home: Point) -> tuple[Point, ...]:
    """From beside the switch to where the axis is at home; the other axes may stand anywhere."""
    free = -sign_of(switch) * FAR
    return ((free, home[1], 0.0), home) if switch.axis == "X" else ((home[0], free, 0.0), home)


def _met(way: tuple[tuple[float, ...], ...], end: End, what: str, switch: HeadSwitch, room: Room) -> Iterator[Passed]:
    assert switch.clicks_mm is not None
    sign = sign_of(switch)
    click, edge = switch.clicks_mm * sign, (room.free[1] if sign > 0 else room.free[0]) * sign
    # A way of one place is that place.
    fars = [_far(a, b, switch, room, sign) for a, b in pairwise((*way[:1], *way))]
    far = max(fars, default=-FAR)
    if far >= min(click, edge):
        stays = end == "end" and _far(way[-1], way[-1], switch, room, sign) >= click
        yield Passed(end, what, far > edge, far * sign, stays)


def _far(a: tuple[float, ...], b: tuple[float, ...], switch: HeadSwitch, room: Room, sign: int) -> float:
    """How far a straight goes towards the switch where it is level with it, mm; far away where it never is."""
    n = "XY".index(switch.axis)
    first, last = 0.0, 1.0
    for m, span in ((1 - n, room.across), (2, room.up)):
        if span is not None:
            first, last = _within(a[m], b[m], span, first, last)
    if first > last:
        return -FAR
    return max(a[n] * sign + (b[n] - a[n]) * sign * share for share in (first, last))


def _within(a: float, b: float, span: Span, first: float, last: float) -> tuple[float, float]:
    """The shares of a straight between which it lies in a span."""
    if abs(b - a) < 1e-9:
        return (first, last) if span[0] <= a <= span[1] else (1.0, 0.0)
    enter, leave = sorted(((span[0] - a) / (b - a), (span[1] - a) / (b - a)))
    return max(first, enter), min(last, leave)
