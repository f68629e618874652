"""Where the switch could go, compared before anything is glued: homing, start, heights, travel, bed that is lost."""

from collections.abc import Iterator
from dataclasses import replace

from bridle.core.chapters.printing.state import SwitchPlace
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.kit import Copy, Kit
from bridle.core.plan.printer import HeadSwitch, Printer
from bridle.core.reckon.parts import first_of
from bridle.core.reckon.printing import printer_of, sign_of, stop_s, switch_of
from bridle.core.reckon.printing_room import moves_head, room_of, unreached

# So far from the end of the axis it would click: room to push it, and to see it.
INWARDS_MM = 3.0
PLACES = (
    ("gantry", "X", "high"), ("gantry", "X", "low"), ("frame", "X", "high"), ("frame", "X", "low"),
    ("frame", "Y", "high"), ("frame", "Y", "low"), ("bed", "X", "high"), ("bed", "X", "low"),
)  # fmt: skip


def places(plan: Plan) -> Iterator[SwitchPlace]:
    """Each place that this printer has, with what speaks against it; nothing where commands fire."""
    printer = printer_of(plan)
    if printer is None or printer.fires != "switch":
        return
    for rides, axis, side in PLACES:
        if axis == "Y" and not moves_head(printer, "Y"):
            continue
        low, high = _reach(printer, axis)
        clicks = high - INWARDS_MM if side == "high" else low + INWARDS_MM
        standing = switch_of(plan)
        base = standing or HeadSwitch(name="a switch")
        here = standing is not None and (standing.rides, standing.axis, standing.side) == (rides, axis, side)
        values = {"rides": rides, "axis": axis, "side": side, "clicks_mm": clicks}
        found = _judged(_with(plan, base.model_copy(update=values)), printer, here)
        yield found if here else replace(found, edits=_moved(plan, rides, axis, side))


def _reach(printer: Printer, axis: str) -> tuple[float, float]:
    return (printer.low_x_mm, printer.high_x_mm) if axis == "X" else (printer.low_y_mm, printer.high_y_mm)


def _with(plan: Plan, switch: HeadSwitch) -> Plan:
    kept = tuple(copy for copy in plan.kit.copies if not isinstance(copy.card, HeadSwitch))
    return plan.model_copy(update={"kit": Kit(copies=(*kept, Copy(key="a-switch-to-be", card=switch)))})


def _judged(plan: Plan, printer: Printer, here: bool) -> SwitchPlace:
    switch, room = switch_of(plan), room_of(plan)
    assert switch is not None and switch.clicks_mm is not None and room is not None
    high = sign_of(switch) > 0
    home = printer.home_x_mm if switch.axis == "X" else printer.home_y_mm
    bed = printer.bed_x_mm if switch.axis == "X" else printer.bed_y_mm
    free = room.free[1] if high else room.free[0]
    missed = unreached(plan)
    return SwitchPlace(
        rides=switch.rides,
        axis=switch.axis,
        side=switch.side,
        homing=home >= switch.clicks_mm if high else home <= switch.clicks_mm,
        start=_start_meets(plan, switch, high),
        unreached=missed[0] if missed else 0,
        stop_s=float(stop_s(plan)),
        lost_mm=max(0.0, bed - free if high else free),
        here=here,
    )


def _moved(plan: Plan, rides: str, axis: str, side: str) -> tuple[Edit, ...]:
    """The plan's switch at another place: where it clicks there nobody has read yet."""
    found = first_of(plan.kit.copies, HeadSwitch)
    if found is None:
        return ()
    card = f"kit.copies.{plan.kit.copies.index(found)}.card"
    values = {"rides": rides, "axis": axis, "side": side, "clicks_mm": None, "read_on": None}
    return tuple(Edit(path=f"{card}.{name}", value=value) for name, value in values.items())


def _start_meets(plan: Plan, switch: HeadSwitch, high: bool) -> bool:
    """Whether a move before the first layer goes as far as the click."""
    file = plan.printing.file
    if file is None or len(file.start_mm) < 4 or switch.clicks_mm is None:
        return False
    low_at, high_at = file.start_mm[:2] if switch.axis == "X" else file.start_mm[2:4]
    return high_at >= switch.clicks_mm if high else low_at <= switch.clicks_mm
