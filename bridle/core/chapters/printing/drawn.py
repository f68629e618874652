"""The bed from above, as the page draws it: reach, bed, head, switch, parking place."""

from bridle.core.chapters.printing.state import BedDrawn, Box
from bridle.core.plan.document import Plan
from bridle.core.reckon.printing import middle, parking, printer_of, stop_of, switch_of
from bridle.core.reckon.printing_room import moves_head, room_of


def _corner(plan: Plan) -> tuple[float | None, float | None]:
    """Where the head turns on its way to the parking place; nothing where it goes straight there."""
    (x, y), (mx, my) = parking(plan), middle(plan)
    corners = {"x first": (mx if x is None else x, my), "y first": (mx, my if y is None else y)}
    return corners.get(plan.printing.stop.order, (None, None))


def bed(plan: Plan) -> BedDrawn | None:
    """The drawing; None without a printer."""
    printer, switch = printer_of(plan), switch_of(plan)
    if printer is None:
        return None
    room, stop, at = room_of(plan), stop_of(plan), parking(plan)
    press: list[float | None] = [None, None]
    if stop and stop.press:
        press = [at[0], at[1]]
        press["XY".index(stop.press[0])] = stop.press[1]
    body = None
    if room and switch:
        x0, x1, y0, y1 = room.body
        # What rides along is met wherever the head stands: it is drawn beside the parking place.
        other = at[1] if switch.axis == "X" else at[0]
        if room.across is None and other is not None:
            low, high = other - switch.wide_mm / 2, other + switch.wide_mm / 2
            x0, x1, y0, y1 = (x0, x1, low, high) if switch.axis == "X" else (low, high, y0, y1)
        body = Box(name=switch.name, x0=x0, x1=x1, y0=y0, y1=y1)
    return BedDrawn(
        reach=Box(name="reach", x0=printer.low_x_mm, x1=printer.high_x_mm, y0=printer.low_y_mm, y1=printer.high_y_mm),
        bed=Box(name="bed", x0=0.0, x1=printer.bed_x_mm, y0=0.0, y1=printer.bed_y_mm),
        head=tuple(
            Box(
                name=part.name,
                x0=part.left_mm,
                x1=part.right_mm,
                y0=part.front_mm,
                y1=part.back_mm,
                low=part.low_mm,
                high=part.high_mm,
            )
            for part in printer.head
        ),
        body=body,
        park_x=at[0],
        park_y=at[1],
        corner_x=_corner(plan)[0],
        corner_y=_corner(plan)[1],
        press_x=press[0],
        press_y=press[1],
        free_low=room.free[0] if room else None,
        free_high=room.free[1] if room else None,
        axis=switch.axis if switch else "",
        bed_moves=not moves_head(printer, "Y"),
    )
