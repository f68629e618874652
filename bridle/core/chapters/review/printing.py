"""What the field card says of a print: which layers, where it parks and presses, how the file was proven."""

from collections.abc import Iterator

from bridle.core.chapters.review.lines import line, some
from bridle.core.chapters.review.state import SettingLine, SettingSheet
from bridle.core.given import Given
from bridle.core.plan.document import Plan
from bridle.core.plan.printer import HeadSwitch
from bridle.core.plan.printing import OfTheSwitch
from bridle.core.quantity import write
from bridle.core.reckon.printing import layered, printer_of, stop_of, switch_of, switch_told
from bridle.core.reckon.proved import Stands, proof_now, proof_stands
from bridle.core.reckon.soldering import joined_pads, solderable
from bridle.core.snag import slot
from bridle.core.subjects.parking.stop import Stop

STANDS: dict[Stands, str] = {
    "none": "not proven yet",
    "said": "the plan says that it is proven; it was not proven here",
    "older": "proven before the last change: once more",
    "incomplete": "proof incomplete",
    "failed": "its proof failed",
    "proven": "proven",
}
FIXED = {"gantry": "on the gantry, beside the head", "frame": "on the frame", "bed": "on the bed"}
WHEN: dict[OfTheSwitch, str] = {
    "switch on later": "from the first layer on: fit it after the start",
    "switch off early": "until the last frame: take it off before the head goes home",
}
OUT: dict[OfTheSwitch, str] = {
    "first frames out": "those before the first layer",
    "last frames out": "those after the last layer",
}
WAY = {"x first": "along X, then along Y", "y first": "along Y, then along X"}
# So many letters tell a file from any other that lies on the same card.
LETTERS = 8


def print_card(plan: Plan, given: Given) -> list[SettingSheet]:
    """A section of its own for a layered shoot."""
    return some("Print", list(_lines(plan, given)))


def _lines(plan: Plan, given: Given) -> Iterator[SettingLine]:
    frames, stop = layered(plan), stop_of(plan)
    if frames is None:
        return
    if frames.equal_mm:
        yield line("a frame every", slot(frames.equal_mm, "mm"), "printing.frames")
    else:
        yield line("a frame every", slot(frames.every, "layers"), "printing.frames")
    if stop is not None:
        yield from _stop(plan, stop, switch_of(plan))
    if plan.printing.file is not None:
        yield from _file(plan, given)


def _stop(plan: Plan, stop: Stop, switch: HeadSwitch | None) -> Iterator[SettingLine]:
    places = [f"{letter} {round(at, 2):g}" for letter, at in zip("XY", stop.park, strict=True) if at is not None]
    if places:
        yield line("the head parks at", slot(f"{', '.join(places)} mm"))
    if stop.order in WAY:
        yield line("its way there", slot(WAY[stop.order]))
    back = "as the printer's own retraction does" if stop.by_firmware else write(stop.back_mm, "mm")
    yield line("draws back", slot(back))
    if stop.raise_mm:
        yield line("rises by", slot(stop.raise_mm, "mm"))
    if stop.press is not None and switch is not None:
        yield line("it presses at", slot(f"{stop.press[0]} {round(stop.press[1], 2):g} mm"))
        yield line("the switch is fixed", slot(FIXED[switch.rides]))
        yield from _pads(plan)
        yield from _ends(plan)
    printer = printer_of(plan)
    if stop.press is not None or stop.off:
        yield line("held down for", slot(stop.held_s, "s"))
    elif printer is not None and printer.fires == "commands" and printer.hold_s is not None:
        yield line("the command holds for", slot(printer.hold_s, "s"))
    if printer is not None and printer.fires == "pause":
        goes_on = "the print's host" if "resumes" in plan.printing.meant else "somebody, at every frame"
        yield line("who lets it go on", slot(goes_on))
    yield line("then it waits", slot(stop.wait_s, "s"))
    if stop.press is not None and switch is not None and switch.read_on:
        yield line("the click, read on", slot(f"{switch.read_on.day} {switch.read_on:%b %Y}; again after a refit"))


def _pads(plan: Plan) -> Iterator[SettingLine]:
    """Where the switch is soldered to, in a bought remote."""
    remote, found = solderable(plan), joined_pads(plan)
    if remote is not None and found is not None:
        yield line("its common contact goes to", slot(f"{found[0]} of the {remote.name}"))
        yield line("its open contact goes to", slot(found[1]))


def _ends(plan: Plan) -> Iterator[SettingLine]:
    """When the switch is there, and which frames are none of the print's."""
    told = switch_told(plan)
    when = [WHEN[one] for one in told if one in WHEN]
    if when:
        yield line("the switch is there", slot(", ".join(when)))
    out = [OUT[one] for one in told if one in OUT]
    if out:
        yield line("frames to strike out", slot(" and ".join(out)))


def _file(plan: Plan, given: Given) -> Iterator[SettingLine]:
    file = plan.printing.file
    assert file is not None
    if plan.printing.by != ("file",):
        yield line("the file", slot("stops by the slicer or the host: print the trial, count its frames"))
        return
    proof, stands = proof_now(plan, given), proof_stands(plan, given)
    on = f", {proof.on.day} {proof.on:%b %Y}" if proof is not None else ""
    yield line("the changed file", slot(f"{file.name.rpartition('.')[0] or file.name} with stops"))
    if proof is not None and proof.changed:
        yield line("its digest begins", slot(proof.changed[:LETTERS]))
    yield line("it is", slot(f"{STANDS[stands]}{on}"))


def spares(plan: Plan) -> Iterator[str]:
    """What is at hand when a switch is jogged to."""
    printer = printer_of(plan)
    if printer is not None and printer.fires == "switch" and switch_of(plan) is not None:
        yield "a spare switch"
