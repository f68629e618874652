"""A print and its stops: which layers call a frame, what one stop does and how long it takes."""

import hashlib
import json
import math
from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache
from typing import get_args

from bridle.core.plan.document import Plan
from bridle.core.plan.frames import Layers
from bridle.core.plan.printer import HeadSwitch, Printer
from bridle.core.plan.printing import Already, OfTheSwitch, PrintFile
from bridle.core.reckon.parts import first_of
from bridle.core.subjects.motion.trapezoid import lone_s
from bridle.core.subjects.parking.stop import Stop
from bridle.core.subjects.prints.choose import equal_heights, every_nth

MINUTE_S = 60
OF_THE_SWITCH = get_args(OfTheSwitch)
STAYS = ("hold", "back off", "wait")
FINEST_MM = 0.01
# In so many layers something is no accident.
MANY = 3


@dataclass(frozen=True, slots=True)
class Step:
    """A step of the stop: what is done, how far (mm, nothing where it only takes time), how long, seconds."""

    what: str
    far_mm: float | None
    seconds: float


def layered(plan: Plan) -> Layers | None:
    """The layers of a print that call the frames; None with any other source of frames."""
    return plan.frames if isinstance(plan.frames, Layers) else None


@lru_cache(maxsize=16)
def chosen(frames: Layers) -> tuple[int, ...]:
    """The layers (from 1) at which a frame is taken; the last of them is always one."""
    count = len(frames.layers_s)
    if frames.equal_mm and frames.z_mm:
        return tuple(equal_heights(frames.z_mm, frames.equal_mm, frames.first_layer, frames.last_layer))
    return tuple(every_nth(count, frames.every, frames.first_layer, frames.last_layer))


def has_stops(file: PrintFile) -> bool:
    """Whether somebody has put stops into a file: parks or firings in several layers; waits may be for cooling."""
    return file.parks >= MANY or any(one.sort in ("fire", "pause") and one.layers >= MANY for one in file.already)


def pauses_of(file: PrintFile) -> list[Already]:
    """What pauses a print now and then, and not at every layer."""
    return [one for one in file.already if one.sort == "pause" and one.layers < MANY]


def even_step_mm(frames: Layers) -> float:
    """The step of height at which equal heights come to as many frames as there are, mm; nought without heights."""
    if not frames.z_mm:
        return 0.0
    return max(FINEST_MM, round((frames.z_mm[-1] - frames.z_mm[0]) / max(1, len(chosen(frames)) - 1), 2))


def printer_of(plan: Plan) -> Printer | None:
    """The printer's card."""
    found = first_of(plan.kit.copies, Printer)
    return found.card if found is not None and isinstance(found.card, Printer) else None


def switch_of(plan: Plan) -> HeadSwitch | None:
    """The card of the switch that the head meets."""
    found = first_of(plan.kit.copies, HeadSwitch)
    return found.card if found is not None and isinstance(found.card, HeadSwitch) else None


def ahead_s(plan: Plan) -> float:
    """How long a press is held before it counts: until the camera is awake, or the half press has done its work."""
    return float(max(plan.beat.wake_s, plan.beat.half_s))


def picture_s(plan: Plan) -> float:
    """From the press to the end of the last exposure of a frame, seconds."""
    beat, exposures = plan.beat, plan.beat.bracket_s
    return ahead_s(plan) + float(beat.heard_s) + sum(exposures) + float(beat.bracket_gap_s) * (len(exposures) - 1)


def wait_s(plan: Plan) -> float:
    """How long the head waits after it has let go: as the trigger says, or as the picture takes and a tenth more."""
    if plan.trigger.dwell_s is not None:
        return float(plan.trigger.dwell_s)
    return math.ceil((picture_s(plan) + 0.1) * 10 - 1e-9) / 10


def held_s(plan: Plan) -> float:
    """How long the switch is held down, or the output stays on."""
    return float(plan.beat.press_s) + ahead_s(plan)


def parking(plan: Plan) -> tuple[float | None, float | None]:
    """Where the head stands while a picture is taken; along the switch's axis so far before it."""
    stop, printer, switch = plan.printing.stop, printer_of(plan), switch_of(plan)
    x = stop.park_x_mm if stop.park_x_mm is not None else printer.park_x_mm if printer else None
    y = stop.park_y_mm if stop.park_y_mm is not None else printer.park_y_mm if printer else None
    if printer and printer.fires == "switch" and switch and switch.clicks_mm is not None:
        before = switch.clicks_mm - sign_of(switch) * stop.off_mm
        across = switch.across_mm if switch.rides != "gantry" else None
        if switch.axis == "X":
            return before, across if across is not None and _head_moves(printer, switch, "Y") else y
        return across if across is not None and _head_moves(printer, switch, "X") else x, before
    return x, y


def _head_moves(printer: Printer, switch: HeadSwitch, axis: str) -> bool:
    """Whether the switch is only met where another axis stands right."""
    return switch.rides == "bed" or axis in printer.moves.partition(",")[0]


def sign_of(switch: HeadSwitch) -> int:
    """In which direction the head goes to press."""
    return 1 if switch.side == "high" else -1


def stop_of(plan: Plan) -> Stop | None:
    """The stop as it goes into the file; None while the printer, or where its switch clicks, is not known."""
    printer, switch, how = printer_of(plan), switch_of(plan), plan.printing.stop
    if printer is None:
        return None
    press = None
    if printer.fires == "switch":
        if switch is None or switch.clicks_mm is None:
            return None
        press = (switch.axis, switch.clicks_mm + sign_of(switch) * how.over_mm)
    return Stop(
        park=parking(plan),
        press=press,
        held_s=held_s(plan),
        wait_s=wait_s(plan),
        back_mm=how.back_mm,
        back_feed=how.back_mm_s * MINUTE_S,
        by_firmware=how.by_firmware,
        travel_feed=how.travel_mm_s * MINUTE_S,
        press_feed=how.press_mm_s * MINUTE_S,
        raise_mm=how.raise_mm,
        raise_feed=printer.top_z_mm_s * MINUTE_S,
        order=how.order,
        on=printer.fire_on if printer.fires == "commands" else ("M0",) if printer.fires == "pause" else (),
        off=printer.fire_off if printer.fires == "commands" else (),
        before=printer.lamp_on,
        after=printer.lamp_off,
        warm_s=float(plan.beat.warm_s) if printer.lamp_on else 0.0,
        settle_s=float(how.settle_s),
    )


def steps_of(plan: Plan) -> tuple[Step, ...]:
    """What one stop does, with its times, from the middle of the print; nothing while the stop is not known."""
    stop, printer = stop_of(plan), printer_of(plan)
    if stop is None or printer is None:
        return ()
    how, gain = plan.printing.stop, printer.travel_mm_s2
    legs, speed = legs_mm(plan), min(how.travel_mm_s, printer.top_mm_s)
    far, travel = sum(legs), sum(lone_s(leg, speed, gain) for leg in legs)
    found = [Step("draw back", how.back_mm, how.back_mm / how.back_mm_s)] if how.back_mm and not how.by_firmware else []
    if how.raise_mm:
        found.append(Step("raise", how.raise_mm, how.raise_mm / printer.top_z_mm_s))
    found.append(Step("travel", far, travel))
    if stop.before and stop.warm_s:
        found.append(Step("lamps warm up", None, stop.warm_s))
    if stop.settle_s:
        found.append(Step("settle", None, stop.settle_s))
    if stop.press:
        along = how.off_mm + how.over_mm
        found.append(Step("press", along, lone_s(along, how.press_mm_s, gain)))
        found.append(Step("hold", None, stop.held_s))
        found.append(Step("back off", along, lone_s(along, how.press_mm_s, gain)))
    elif stop.off:
        found.append(Step("hold", None, stop.held_s))
    found.append(Step("wait", None, stop.wait_s))
    found.append(Step("return", far, travel))
    if how.raise_mm:
        found.append(Step("lower", how.raise_mm, how.raise_mm / printer.top_z_mm_s))
    if how.back_mm and not how.by_firmware:
        found.append(Step("prime", how.back_mm, how.back_mm / how.back_mm_s))
    return tuple(found)


def stays_s(plan: Plan) -> float | None:
    """From the press that counts to the head's leaving, seconds: what is left of the hold, backing off, the wait.

    None where no stop is known.
    """
    steps = steps_of(plan)
    return sum(step.seconds for step in steps if step.what in STAYS) - ahead_s(plan) if steps else None


def middle(plan: Plan) -> tuple[float, float]:
    """The middle of what is printed, or of the bed."""
    file, printer = plan.printing.file, printer_of(plan)
    if file is not None:
        x0, x1, y0, y1 = file.extents_mm
        return (x0 + x1) / 2, (y0 + y1) / 2
    return (printer.bed_x_mm / 2, printer.bed_y_mm / 2) if printer else (0.0, 0.0)


def legs_mm(plan: Plan) -> tuple[float, ...]:
    """How far it is from the middle of the print to the parking place: straight there, or along one axis at a time."""
    x, y = parking(plan)
    mx, my = middle(plan)
    along = abs((mx if x is None else x) - mx), abs((my if y is None else y) - my)
    return (math.hypot(*along),) if plan.printing.stop.order == "straight" else along


def switch_told(plan: Plan) -> list[OfTheSwitch]:
    """What somebody has said of the switch, or of the frames it takes, before and after the print."""
    return [one for one in OF_THE_SWITCH if one in plan.printing.meant]


def stop_s(plan: Plan) -> Fraction:
    """How long one stop takes, in whole milliseconds; nought while it is not known."""
    return Fraction(round(sum(step.seconds for step in steps_of(plan)) * 1000), 1000)


def print_digest(plan: Plan) -> str:
    """Sixteen letters that stay the same as long as the changed file would: file, printer, switch, stop, choice."""
    told = plan.printing.file
    printer, switch, frames, stop = printer_of(plan), switch_of(plan), layered(plan), stop_of(plan)
    cards = [card.model_dump(mode="json", exclude={"menu"}) if card else None for card in (printer, switch)]
    choice = [*chosen(frames)] if frames else []
    text = json.dumps(
        [told.digest if told else "", cards, repr(stop), choice, plan.printing.stop.where, sorted(switch_told(plan))]
    )
    return hashlib.sha256(text.encode()).hexdigest()[:16]
