"""A printer's card as the reader's limits and as the virtual printer."""

from bridle.core.plan.document import Plan
from bridle.core.plan.printer import HeadPart, HeadSwitch, Printer
from bridle.core.reckon.printing import printer_of, sign_of, stop_of, switch_of
from bridle.core.subjects.prints.found import Motion
from bridle.standins.printer.model import Key, Model, Part

# What a card says of the filament's mode.
APART: dict[str, bool | None] = {"yes": True, "no": False, "not known": None}


def motion_of(printer: Printer | None) -> Motion:
    """How fast a printer is; usual figures where there is no card."""
    if printer is None:
        return Motion()
    return Motion(
        top=(printer.top_mm_s, printer.top_mm_s, printer.top_z_mm_s),
        push_top=printer.top_push_mm_s,
        print_a=printer.print_mm_s2,
        travel_a=printer.travel_mm_s2,
        corner=printer.corner_mm_s,
        home=(printer.home_x_mm, printer.home_y_mm, 0.0),
        apart=APART[printer.filament_apart],
    )


def model_of(plan: Plan, apart: bool = False) -> Model:
    """The virtual printer of a plan; raises ValueError without a printer's card.

    `apart` is whether `G90` and `G91` leave the filament's mode alone, where the card does not say.
    """
    printer, switch, stop = printer_of(plan), switch_of(plan), stop_of(plan)
    if printer is None:
        raise ValueError("a proof needs the printer's card")
    return Model(
        low=(printer.low_x_mm, printer.low_y_mm, 0.0),
        high=(printer.high_x_mm, printer.high_y_mm, printer.high_z_mm),
        home=(printer.home_x_mm, printer.home_y_mm, 0.0),
        head_moves=printer.moves.partition(",")[0].removeprefix("head "),
        top=(printer.top_mm_s, printer.top_mm_s, printer.top_z_mm_s),
        gain=printer.travel_mm_s2,
        parts=tuple(_part(part) for part in printer.head),
        key=_key(switch) if printer.fires == "switch" and switch else None,
        on=stop.on if stop else (),
        off=stop.off if stop else (),
        lamps=(*stop.before, *stop.after) if stop else (),
        rest=(*stop.off, *stop.after) if stop else (),
        probes=_probes(printer),
        apart=apart if APART[printer.filament_apart] is None else bool(APART[printer.filament_apart]),
        macros={macro.name: macro.text for macro in printer.macros if macro.text.strip()},
    )


def _part(part: HeadPart) -> Part:
    sides = part.left_mm, part.right_mm, part.front_mm, part.back_mm, part.low_mm, part.high_mm
    return Part(part.name, sides, part.presses)


def _key(switch: HeadSwitch) -> Key | None:
    if switch.clicks_mm is None:
        return None
    return Key(
        axis=switch.axis,
        sign=sign_of(switch),
        clicks=switch.clicks_mm,
        beyond=switch.beyond_mm,
        lets_go=switch.lets_go_mm,
        at=(switch.across_mm, switch.up_mm),
        size=(switch.deep_mm, switch.wide_mm, switch.tall_mm),
        about=(0.0, switch.middle_mm),
        rides=switch.rides,
    )


def _probes(printer: Printer) -> tuple[float, float, float, float] | None:
    found = (printer.probe_from_x_mm, printer.probe_to_x_mm, printer.probe_from_y_mm, printer.probe_to_y_mm)
    return (found[0], found[1], found[2], found[3]) if None not in found else None  # type: ignore[return-value]
