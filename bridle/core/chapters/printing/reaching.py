"""What is wrong with the switch: not read, out of reach, pushed too far, met by the print, missed by a layer."""

from collections.abc import Iterator

from bridle.core.asks.fitting import fit
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.printer import HeadSwitch, Printer
from bridle.core.plan.wired import Trigger
from bridle.core.quantity import write_number
from bridle.core.reckon.parts import first_of
from bridle.core.reckon.printing import layered, printer_of, sign_of, switch_of
from bridle.core.reckon.printing_room import room_of, unreached
from bridle.core.snag import Fix, Slot, Snag, SnagKind, slot
from bridle.core.subjects.prints.choose import every_nth

REFITTED = SnagKind(
    "switch-refitted",
    "stop",
    "print",
    "The {switch} was fitted anew after its coordinate was read.",
    "A millimetre is enough to miss it, or to break it. Press and release by hand, then read it again.",
)
TOO_FAR = SnagKind(
    "switch-pushed-too-far",
    "stop",
    "print",
    "The head pushes {over} beyond the click; the {switch} can be pushed {beyond}.",
    "It breaks, or comes off, at the first frame.",
)
BARELY = SnagKind(
    "switch-barely-pressed",
    "mind",
    "print",
    "The head pushes {over} beyond the click.",
    "Wear and heat move the click by tenths: one day it is not reached, and that frame is missing.",
)
REACH = SnagKind(
    "switch-out-of-reach",
    "stop",
    "print",
    "To press, {axis} has to go to {to}; the {printer} goes to {limit}.",
    "It stops at its limit, and no frame is ever taken. Move the switch inwards, and read its coordinate again.",
)
HELD = SnagKind(
    "switch-not-let-go",
    "stop",
    "print",
    "The head backs off {off} from the click; the {switch} lets go after {lets_go}.",
    "It stays pressed from the first frame on, and the camera hears one press in all.",
)
IN_THE_WAY = SnagKind(
    "print-meets-switch",
    "stop",
    "print",
    "The print reaches to {print_to} along {axis}; from {free} on the {part} touches the {switch}.",
    "The head meets it while it prints: it presses at random, and breaks.",
)
HEIGHT = SnagKind(
    "switch-at-one-height",
    "stop",
    "print",
    "The {switch} is met at one height only; {missed} of those chosen miss it, the last at a height of {height}.",
    "It stands on the {rides}, and the head rises with the print. Fix it to what rises with the head, or choose the "
    "layers that reach it.",
)
TAPED = SnagKind(
    "switch-held-by-tape",
    "mind",
    "print",
    "The {switch} is only {fixed}.",
    "Near a warm bed tape and glue give, magnets grow weak, and every press pushes with {force}. Screw or clamp it.",
)
TWICE = SnagKind(
    "switch-on-two-cards",
    "note",
    "print",
    "The {switch} and the {trigger} may be one switch with two cards.",
    "If it is one, keep the card that says where the head meets it.",
)
KINDS = (TWICE, REFITTED, TOO_FAR, BARELY, REACH, HELD, IN_THE_WAY, HEIGHT, TAPED)
LEAST_OVER_MM = 0.2
FIXED = {"taped": "held by tape", "glued": "glued", "magnet": "held by a magnet"}


def findings(plan: Plan) -> Iterator[Snag]:
    """What stands in the way of a press; nothing where commands fire."""
    printer, switch = printer_of(plan), switch_of(plan)
    if printer is None or switch is None or printer.fires != "switch":
        return
    yield from _fixed(plan, switch)
    yield from _twice(plan, switch)
    if switch.clicks_mm is None:
        return
    yield from _read(plan, switch)
    yield from _pushed(plan, switch)
    yield from _reached(plan, printer, switch)
    yield from _met(plan, switch)
    yield from _height(plan, switch)


def _twice(plan: Plan, switch: HeadSwitch) -> Iterator[Snag]:
    copies = plan.kit.copies
    found = first_of(copies, Trigger)
    if found is None or not isinstance(found.card, Trigger) or found.card.source != "switch":
        return
    fix = Fix(
        label="Keep one: take off the {trigger}",
        consequence="The switch that the head meets fires the camera. Do the bench test again.",
        slots={"trigger": slot(found.card.name)},
        edits=tuple(fit(plan, tuple(copy for copy in copies if copy is not found))),
    )
    slots = {"switch": slot(switch.name), "trigger": slot(found.card.name)}
    yield TWICE.at("kit.copies", slots, [fix])


def at_mm(position: float) -> Slot:
    """A position of a printer's axis: always in millimetres, whatever its reader measures in."""
    return slot(f"{write_number(round(position, 2))} mm")


def _place(plan: Plan) -> str:
    found = first_of(plan.kit.copies, HeadSwitch)
    assert found is not None
    return f"kit.copies.{plan.kit.copies.index(found)}"


def _card(plan: Plan, label: str, consequence: str, **values: object) -> Fix:
    """A change of the switch's card, as it is in this plan."""
    place = _place(plan)
    edits = tuple(Edit(path=f"{place}.card.{name}", value=value) for name, value in values.items())
    return Fix(label=label, consequence=consequence, slots={}, edits=edits)


def _read(plan: Plan, switch: HeadSwitch) -> Iterator[Snag]:
    if switch.refitted_on and (switch.read_on is None or switch.refitted_on > switch.read_on):
        since = _card(
            plan, "It was read again on that day", "Say so only where it was.", read_on=switch.refitted_on.isoformat()
        )
        yield REFITTED.at(_place(plan), {"switch": slot(switch.name)}, [since])


def _fixed(plan: Plan, switch: HeadSwitch) -> Iterator[Snag]:
    if switch.fixed in FIXED:
        slots = {"switch": slot(switch.name), "fixed": slot(FIXED[switch.fixed]), "force": slot(switch.force_n, "N")}
        screwed = _card(
            plan, "It is clamped now", "Press it ten times by hand, and read its coordinate again.", fixed="clamped"
        )
        yield TAPED.at(_place(plan), slots, [screwed])


def _pushed(plan: Plan, switch: HeadSwitch) -> Iterator[Snag]:
    stop = plan.printing.stop
    middle = round(min(0.5, switch.beyond_mm / 3), 2)
    slots = {"over": slot(stop.over_mm, "mm"), "beyond": slot(switch.beyond_mm, "mm"), "switch": slot(switch.name)}
    fix = Fix(
        label="Push {over} beyond the click",
        consequence="A third of its way at most: it clicks for sure, and has room left.",
        slots={"over": slot(middle, "mm")},
        edits=(Edit(path="printing.stop.over_mm", value=middle),),
    )
    if stop.over_mm >= switch.beyond_mm:
        yield TOO_FAR.at("printing.stop.over_mm", slots, [fix])
    elif stop.over_mm < min(LEAST_OVER_MM, middle) - 1e-9:
        yield BARELY.at("printing.stop.over_mm", {"over": slots["over"]}, [fix])
    if stop.off_mm <= switch.lets_go_mm:
        away = round(switch.lets_go_mm + 5, 1)
        off = Fix(
            label="Back the head off {off}",
            consequence="It has let go by then, and the head stands clear of it.",
            slots={"off": slot(away, "mm")},
            edits=(Edit(path="printing.stop.off_mm", value=away),),
        )
        slots = {"off": slot(stop.off_mm, "mm"), "lets_go": slot(switch.lets_go_mm, "mm"), "switch": slot(switch.name)}
        yield HELD.at("printing.stop.off_mm", slots, [off])


def moved(plan: Plan, where: str) -> Fix:
    """The switch is put elsewhere: then nobody knows where it clicks."""
    return _card(plan, f"It is moved {where}", "Where it clicks is open then, until it is read again.", clicks_mm=None)


def _reached(plan: Plan, printer: Printer, switch: HeadSwitch) -> Iterator[Snag]:
    assert switch.clicks_mm is not None
    low, high = (printer.low_x_mm, printer.high_x_mm) if switch.axis == "X" else (printer.low_y_mm, printer.high_y_mm)
    to = switch.clicks_mm + sign_of(switch) * plan.printing.stop.over_mm
    if not low <= to <= high:
        limit = high if to > high else low
        slots = {
            "axis": slot(switch.axis),
            "to": at_mm(to),
            "limit": at_mm(limit),
            "printer": slot(printer.name),
        }
        yield REACH.at(_place(plan), slots, [moved(plan, "inwards")])


def _met(plan: Plan, switch: HeadSwitch) -> Iterator[Snag]:
    room, file = room_of(plan), plan.printing.file
    if room is None or file is None or (room.up is not None and not _at_these_heights(plan, room.up)):
        return
    x0, x1, y0, y1 = file.extents_mm
    along, across = ((x0, x1), (y0, y1)) if switch.axis == "X" else ((y0, y1), (x0, x1))
    if room.across is not None and (across[1] < room.across[0] or across[0] > room.across[1]):
        return
    high = sign_of(switch) > 0
    print_to, free = (along[1], room.free[1]) if high else (along[0], room.free[0])
    if (print_to > free) if high else (print_to < free):
        slots = {
            "print_to": at_mm(print_to),
            "free": at_mm(free),
            "axis": slot(switch.axis),
            "part": slot(room.first),
            "switch": slot(switch.name),
        }
        yield IN_THE_WAY.at(_place(plan), slots, [moved(plan, "outwards")])


def _at_these_heights(plan: Plan, up: tuple[float, float]) -> bool:
    frames = layered(plan)
    return frames is None or not frames.z_mm or any(up[0] <= z <= up[1] for z in frames.z_mm)


def _height(plan: Plan, switch: HeadSwitch) -> Iterator[Snag]:
    missed, frames, room = unreached(plan), layered(plan), room_of(plan)
    if missed is None or frames is None or room is None or room.up is None:
        return
    slots = {
        "missed": slot(missed[0], "layers"),
        "height": slot(frames.z_mm[missed[2] - 1], "mm"),
        "rides": slot(switch.rides),
        "switch": slot(switch.name),
    }
    reached = [n for n, z in enumerate(frames.z_mm, 1) if room.up[0] <= z + plan.printing.stop.raise_mm <= room.up[1]]
    fixes = []
    if reached and every_nth(reached[-1], frames.every, reached[0], reached[-1]) and not frames.equal_mm:
        fixes.append(
            Fix(
                label="Only the layers that reach it",
                consequence="From a height of {from_mm} to {to_mm}; the rest of the print is not in the clip.",
                slots={
                    "from_mm": slot(frames.z_mm[reached[0] - 1], "mm"),
                    "to_mm": slot(frames.z_mm[reached[-1] - 1], "mm"),
                },
                edits=(
                    Edit(path="frames.first_layer", value=reached[0]),
                    Edit(path="frames.last_layer", value=reached[-1]),
                ),
            )
        )
    beam = _card(
        plan, "It is fixed to the beam that rises", "Read again where it clicks.", rides="gantry", clicks_mm=None
    )
    yield HEIGHT.at("frames.first_layer", slots, [*fixes, beam])
