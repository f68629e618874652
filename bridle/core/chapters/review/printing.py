"""What the field card says of a print: which layers, where it presses, how the file was proven."""

from collections.abc import Iterator

from bridle.core.chapters.review.lines import line, some
from bridle.core.chapters.review.state import SettingLine, SettingSheet
from bridle.core.plan.document import Plan
from bridle.core.reckon.printing import layered, print_digest, printer_of, stop_of, switch_of
from bridle.core.snag import slot

STANDS = {"proven": "proven", "incomplete": "proof incomplete", "failed": "its proof failed"}


def print_card(plan: Plan) -> list[SettingSheet]:
    """A section of its own for a layered shoot."""
    return some("Print", list(_lines(plan)))


def _lines(plan: Plan) -> Iterator[SettingLine]:
    frames, stop, switch = layered(plan), stop_of(plan), switch_of(plan)
    if frames is None:
        return
    if frames.equal_mm:
        yield line("a frame every", slot(frames.equal_mm, "mm"), "printing.frames")
    else:
        yield line("a frame every", slot(frames.every, "layers"), "printing.frames")
    if stop is not None and stop.press is not None and switch is not None:
        yield line("it presses at", slot(f"{stop.press[0]} {round(stop.press[1], 2):g} mm"))
        if switch.read_on:
            yield line("the click, read on", slot(f"{switch.read_on.day} {switch.read_on:%b %Y}; again after a refit"))
    if plan.printing.file is not None:
        yield line("the file", slot(_proven(plan)))


def _proven(plan: Plan) -> str:
    proof, by = plan.printing.proof, plan.printing.by
    if by != ("file",):
        return "stops by the slicer or the host: print the trial, count its frames"
    if proof is None:
        return "not proven yet"
    if proof.of != print_digest(plan):
        return "proven before the last change: once more"
    return f"{STANDS[proof.stands]}, {proof.on.day} {proof.on:%b %Y}"


def spares(plan: Plan) -> Iterator[str]:
    """What is at hand when a switch is jogged to."""
    printer = printer_of(plan)
    if printer is not None and printer.fires == "switch" and switch_of(plan) is not None:
        yield "a spare switch"
