"""Room about the switch and the head: where the switch's body is, and where the nozzle must not go because of it."""

from dataclasses import dataclass

from bridle.core.plan.document import Plan
from bridle.core.plan.printer import HeadPart, HeadSwitch, Printer
from bridle.core.reckon.printing import chosen, layered, printer_of, sign_of, switch_of

Span = tuple[float, float]


@dataclass(frozen=True, slots=True)
class Room:
    """The switch's body in the plane of the bed, and the part of the head that would touch it first.

    `body` is x, X, y, Y; `free` the lowest and highest position along the switch's axis at which no part of the head
    touches its body, where the other axes allow it to; `across` and `up` the spans of the other axis and of the height
    in which it is met, nothing where it is met anywhere.
    """

    body: tuple[float, float, float, float]
    free: Span
    across: Span | None
    up: Span | None
    first: str


def moves_head(printer: Printer, axis: str) -> bool:
    """Whether the head goes along an axis, and not the bed."""
    return axis in printer.moves.partition(",")[0]


def met_along(printer: Printer, switch: HeadSwitch, axis: str) -> bool:
    """Whether a move along an axis brings the head nearer to the switch."""
    if switch.rides == "bed":
        return True
    return moves_head(printer, axis) if switch.rides == "frame" else axis == switch.axis


def face_mm(printer: Printer, switch: HeadSwitch) -> float:
    """How far the part that presses stands out from the nozzle towards the switch, with its sign."""
    faces = [_span(part, switch.axis)[sign_of(switch) > 0] for part in printer.head if part.presses]
    return (max(faces) if sign_of(switch) > 0 else min(faces)) if faces else 0.0


def room_of(plan: Plan) -> Room | None:
    """What is known of the room about the switch; None while its coordinate is not read."""
    printer, switch = printer_of(plan), switch_of(plan)
    if printer is None or switch is None or switch.clicks_mm is None or printer.fires != "switch":
        return None
    sign = sign_of(switch)
    near = switch.clicks_mm + sign * switch.beyond_mm + face_mm(printer, switch)
    body = sorted((near, near + sign * switch.deep_mm))
    other = "Y" if switch.axis == "X" else "X"
    across = (switch.across_mm - switch.wide_mm / 2, switch.across_mm + switch.wide_mm / 2)
    parts = [part for part in printer.head if _beside(part, switch, printer, other)]
    reach = [_span(part, switch.axis) for part in parts]
    edges = [near - (span[1] if sign > 0 else span[0]) for span in reach]
    edge = (min(edges) if sign > 0 else max(edges)) if edges else near
    first = parts[edges.index(edge)].name if edges else ""
    low, high = (-1e4, edge) if sign > 0 else (edge, 1e4)
    up = switch.up_mm
    return Room(
        body=(body[0], body[1], *across) if switch.axis == "X" else (*across, body[0], body[1]),
        free=(low, high),
        across=across if met_along(printer, switch, other) else None,
        up=(up - switch.tall_mm / 2, up + switch.tall_mm / 2) if met_along(printer, switch, "Z") else None,
        first=first,
    )


def _span(part: HeadPart, axis: str) -> Span:
    return (part.left_mm, part.right_mm) if axis == "X" else (part.front_mm, part.back_mm)


def _beside(part: HeadPart, switch: HeadSwitch, printer: Printer, other: str) -> bool:
    """Whether a part can meet the body at all: where neither height nor the other axis change, as they are."""
    if not met_along(printer, switch, "Z"):
        low, high = switch.middle_mm - switch.tall_mm / 2, switch.middle_mm + switch.tall_mm / 2
        if part.high_mm <= low or part.low_mm >= high:
            return False
    if not met_along(printer, switch, other):
        low, high = _span(part, other)
        return low < switch.wide_mm / 2 and high > -switch.wide_mm / 2
    return True


def unreached(plan: Plan) -> tuple[int, int, int] | None:
    """Where the switch is met at one height only: how many chosen layers miss it, and the lowest and highest of them.

    None where every chosen layer reaches it, or heights are not known.
    """
    room, frames = room_of(plan), layered(plan)
    if room is None or room.up is None or frames is None or not frames.z_mm:
        return None
    low, high = room.up
    missed = [n for n in chosen(frames) if not low <= frames.z_mm[n - 1] + plan.printing.stop.raise_mm <= high]
    return (len(missed), missed[0], missed[-1]) if missed else None
