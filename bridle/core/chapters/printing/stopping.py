"""What is wrong with the stop itself: oozing, dripping, a bed gone cold, two sets at once."""

from collections.abc import Iterator

from bridle.core.given import Given
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.printer import Printer
from bridle.core.reckon.parts import first_of
from bridle.core.reckon.printing import layered, parking, printer_of, stop_of, stop_s, wait_s
from bridle.core.reckon.proved import proof_stands
from bridle.core.snag import Fix, Snag, SnagKind, slot

OOZES = SnagKind(
    "stop-oozes",
    "mind",
    "print",
    "The filament is drawn back {back} before the head leaves; a {extruder} extruder wants about {usual}.",
    "What is left in the nozzle runs out on the way, and leaves a string and a drop at every frame.",
)
GRINDS = SnagKind(
    "stop-grinds",
    "mind",
    "print",
    "The filament is drawn back {back}; a direct extruder wants about {usual}.",
    "So much, some hundred times in the same place, grinds the filament and pulls it soft into the cold.",
)
RAISES = SnagKind(
    "stop-raises",
    "mind",
    "print",
    "The head is raised {raise_mm} before it leaves the part.",
    "That takes {seconds} a frame, and it drips while it climbs. At the layer's own height it leaves the part wiped.",
)
THINGS = SnagKind(
    "stop-hits-neighbours",
    "stop",
    "print",
    "{count} are printed one after another, and the head leaves at the height of the one at work.",
    "Those that are done stand higher, and lie in its way.",
)
INFILL = SnagKind(
    "stop-no-infill",
    "mind",
    "print",
    "The stop is to stand before the infill, and the file says for {missing} where that begins.",
    "There the stop stands at the end of the layer, and its drop may show on the wall.",
)
IDLE = SnagKind(
    "stop-heater-off",
    "stop",
    "print",
    "One stop takes {stop}; the {printer} turns its heaters off after {idle} without a move.",
    "The print goes on with a cold nozzle, or not at all.",
)
TWICE = SnagKind(
    "stop-delivered-twice",
    "stop",
    "print",
    "The stops reach the printer in {count} at once.",
    "Each of them parks and presses: two pictures a layer, and the clip is twice as long as planned.",
)
RINGING = SnagKind(
    "camera-on-printer",
    "mind",
    "print",
    "The camera stands on the printer, and nothing waits until it has come to rest.",
    "When the head stops, the frame of the printer rings, and the camera with it.",
)
NOWHERE = SnagKind(
    "stop-parks-anywhere",
    "stop",
    "print",
    "Nothing says where along {axis} the head stands while a picture is taken.",
    "It would stay where each layer happens to end: the print jumps about in the clip.",
)
KINDS = (NOWHERE, OOZES, GRINDS, RAISES, THINGS, INFILL, IDLE, TWICE, RINGING)
USUAL_MM = {"direct": 0.8, "long tube": 5.0}
LEAST_MM = {"direct": 0.3, "long tube": 3.0}
MOST_DIRECT_MM = 3.0
CLEAR_MM = 1.0
# So far from the end of an axis a head is parked.
PARK_SHARE = 0.1


def findings(plan: Plan, given: Given) -> Iterator[Snag]:
    """What to mind in the stop; nothing without a printer."""
    yield from _delivered(plan)
    if printer_of(plan) is None:
        return
    yield from _parks(plan)
    yield from _drawn_back(plan)
    yield from _raised(plan, given)
    yield from _infill(plan)
    yield from _idle(plan)
    yield from _ringing(plan)


def _parks(plan: Plan) -> Iterator[Snag]:
    # Before the switch's place is known, one of the axes is not.
    if stop_of(plan) is None:
        return
    fixes = parking_fixes(plan)
    for axis, fix in fixes.items():
        yield NOWHERE.at(fix.edits[0].path, {"axis": slot(axis)}, [fix])


def parking_fixes(plan: Plan) -> dict[str, Fix]:
    """A place to park along each axis that has none."""
    printer, at = printer_of(plan), parking(plan)
    if printer is None:
        return {}
    reach = {"X": (printer.low_x_mm, printer.high_x_mm), "Y": (printer.low_y_mm, printer.high_y_mm)}
    fixes = {}
    for (axis, (low, high)), to in zip(reach.items(), at, strict=True):
        if to is None:
            there = round(high - PARK_SHARE * (high - low))
            edit = Edit(path=f"printing.stop.park_{axis.lower()}_mm", value=float(there))
            consequence = "The same place for every picture; look at it under The bed."
            fixes[axis] = Fix("Park at {there}", consequence, {"there": slot(f"{axis} {there} mm")}, (edit,))
    return fixes


def _put(label: str, consequence: str, path: str, value: float | str, unit: str = "mm") -> Fix:
    return Fix(
        label=label,
        consequence=consequence,
        slots={"to": slot(value, unit) if not isinstance(value, str) else slot(value)},
        edits=(Edit(path=path, value=value),),
    )


def _drawn_back(plan: Plan) -> Iterator[Snag]:
    printer, stop = printer_of(plan), plan.printing.stop
    if printer is None or stop.by_firmware:
        return
    usual = USUAL_MM[printer.extruder]
    slots = {"back": slot(stop.back_mm, "mm"), "usual": slot(usual, "mm")}
    fix = _put(
        "Draw the filament back {to}",
        "Then look at the trial for strings, and change it by tenths.",
        "printing.stop.back_mm",
        usual,
    )
    if stop.back_mm < LEAST_MM[printer.extruder]:
        yield OOZES.at("printing.stop.back_mm", {**slots, "extruder": slot(_word(printer.extruder))}, [fix])
    elif printer.extruder == "direct" and stop.back_mm > MOST_DIRECT_MM:
        yield GRINDS.at("printing.stop.back_mm", slots, [fix])


def _word(extruder: str) -> str:
    return "direct" if extruder == "direct" else "long-tube"


def _raised(plan: Plan, given: Given) -> Iterator[Snag]:
    printer, stop, file, frames = printer_of(plan), plan.printing.stop, plan.printing.file, layered(plan)
    several = file is not None and file.things > 1
    if several and file is not None and frames is not None and frames.z_mm:
        needed = round(max(frames.z_mm) - min(frames.z_mm) + CLEAR_MM, 1)
        # Where the proof has found every way clear, nothing lies in it.
        if stop.raise_mm < needed - 0.05 and proof_stands(plan, given) != "proven":
            fix = _put(
                "Raise the head {to} first",
                "Slow, and it drips; but it clears what stands.",
                "printing.stop.raise_mm",
                needed,
            )
            yield THINGS.at("printing.stop.raise_mm", {"count": slot(file.things, "objects")}, [fix])
    elif stop.raise_mm > 0 and printer is not None:
        seconds = 2 * stop.raise_mm / printer.top_z_mm_s
        fix = _put("Leave at the layer's height", "Faster by what the climb takes.", "printing.stop.raise_mm", 0.0)
        slots = {"raise_mm": slot(stop.raise_mm, "mm"), "seconds": slot(seconds, "s")}
        yield RAISES.at("printing.stop.raise_mm", slots, [fix])


def _infill(plan: Plan) -> Iterator[Snag]:
    file, frames = plan.printing.file, layered(plan)
    if file is None or frames is None or plan.printing.stop.where != "infill":
        return
    without = len(frames.layers_s) - file.infills
    # The bottom and the top of many a print have none; it is worth a word where most layers have none.
    if without * 2 > len(frames.layers_s):
        fix = _put("Stop at the end of the layer", "The same place in every layer.", "printing.stop.where", "end")
        yield INFILL.at("printing.stop.where", {"missing": slot(without, "layers")}, [fix])


def _idle(plan: Plan) -> Iterator[Snag]:
    printer = printer_of(plan)
    if printer is None or printer.idle_s is None or stop_s(plan) <= printer.idle_s:
        return
    slots = {"stop": slot(stop_s(plan), "s"), "idle": slot(printer.idle_s, "s"), "printer": slot(printer.name)}
    shorter = plan.model_copy(update={"trigger": plan.trigger.model_copy(update={"dwell_s": None})})
    fixes = []
    if plan.trigger.dwell_s is not None and stop_s(shorter) <= printer.idle_s:
        fixes.append(
            Fix(
                label="Wait only as long as the picture takes",
                consequence="{wait} instead: lag, exposure and a tenth of a second.",
                slots={"wait": slot(wait_s(shorter), "s")},
                edits=(Edit(path="trigger.dwell_s", value=None),),
            )
        )
    found = first_of(plan.kit.copies, Printer)
    if found is not None:
        longer = stop_s(plan) + 60
        fixes.append(
            Fix(
                label="Have the printer wait {longer}",
                consequence="Set it in the printer's own menu; its card says so here.",
                slots={"longer": slot(longer, "s")},
                edits=(Edit(path=f"kit.copies.{plan.kit.copies.index(found)}.card.idle_s", value=str(longer)),),
            )
        )
    yield IDLE.at("trigger.dwell_s", slots, fixes)


def _delivered(plan: Plan) -> Iterator[Snag]:
    ways = plan.printing.by
    if len(set(ways)) < 2:
        return
    fix = Fix(
        label="Only the changed file",
        consequence="Empty the slicer's field and the host's commands, or they act all the same.",
        slots={},
        edits=(Edit(path="printing.by", value=["file"]),),
    )
    yield TWICE.at("printing.by", {"count": slot(len(set(ways)), "ways")}, [fix])


def _ringing(plan: Plan) -> Iterator[Snag]:
    if plan.printing.camera_rides != "on the printer" or plan.printing.stop.settle_s > 0:
        return
    fix = Fix(
        label="Wait {settle} before each press",
        consequence="About what a light frame takes to come to rest; look at the trial for doubled edges.",
        slots={"settle": slot(0.5, "s")},
        edits=(Edit(path="printing.stop.settle_s", value="1/2"),),
    )
    yield RINGING.at("printing.stop.settle_s", {}, [fix])
