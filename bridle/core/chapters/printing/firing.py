"""What is wrong with how a stop fires: a command that lets go too soon, lamps that nothing switches, a pause."""

from collections.abc import Iterator

from bridle.core.chapters.printing.meaning import meant
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.printer import Printer
from bridle.core.quantity import listed
from bridle.core.reckon.calls import lamps_of
from bridle.core.reckon.parts import first_of
from bridle.core.reckon.printing import ahead_s, chosen, layered, printer_of
from bridle.core.snag import Fix, Snag, SnagKind, slot

TOO_SHORT = SnagKind(
    "command-lets-go-too-soon",
    "stop",
    "print",
    "The {printer} holds the contact for {hold} at its command; the camera wants {ahead} before it fires.",
    "It is let go before the camera is awake, or before the half press has done its work: no frame is taken.",
)
DARK = SnagKind(
    "stop-leaves-lamps-dark",
    "mind",
    "print",
    "The {lamps} {are} to be lit for the frame alone, and no stop switches {them}.",
    "In a print the stop is what switches lamps: by the commands for lamps on the printer's card.",
)
WAITS = SnagKind(
    "pause-waits",
    "mind",
    "print",
    "Each stop is a pause: {count} somebody, or the print's host, has to let it go on.",
    "The head stands over its parking place until then, and the part cools. Nobody presses a button at three in the "
    "morning: have the host take the frame and go on by itself, or fire by a command.",
)
KINDS = (TOO_SHORT, DARK, WAITS)


def findings(plan: Plan) -> Iterator[Snag]:
    """What to mind where commands fire; nothing without a printer."""
    printer, found = printer_of(plan), first_of(plan.kit.copies, Printer)
    if printer is None or found is None:
        return
    yield from _held(plan, printer, f"kit.copies.{plan.kit.copies.index(found)}.card")
    yield from _lit(plan, printer)
    frames = layered(plan)
    if printer.fires == "pause" and frames is not None and "resumes" not in plan.printing.meant:
        fix = meant(plan, "resumes", "The host goes on by itself", "Try it with a trial of ten layers first.")
        yield WAITS.at("kit.copies", {"count": slot(_times(len(chosen(frames))))}, [fix])


def _times(count: int) -> str:
    return "once" if count == 1 else f"{count:,} times"


def _held(plan: Plan, printer: Printer, card: str) -> Iterator[Snag]:
    ahead = ahead_s(plan)
    if printer.fires != "commands" or printer.fire_off or printer.hold_s is None or float(printer.hold_s) >= ahead:
        return
    slots = {"printer": slot(printer.name), "hold": slot(printer.hold_s, "s"), "ahead": slot(ahead, "s")}
    longer = Fix(
        label="Set its hold to {ahead}",
        consequence="Where its settings let you; else take a pair of commands, on and off.",
        slots={"ahead": slots["ahead"]},
        edits=(Edit(path=f"{card}.hold_s", value=str(ahead)),),
    )
    yield TOO_SHORT.at(f"{card}.hold_s", slots, [longer])


def _lit(plan: Plan, printer: Printer) -> Iterator[Snag]:
    """Lamps that stay on between frames too are nobody's business here."""
    if printer.lamp_on:
        return
    dark = [lamp.name for _, lamp, use in lamps_of(plan) if use is not None and use.lit == "for the frame"]
    if not dark:
        return
    edits = tuple(
        Edit(path=f"trigger.lamps.{number}.lit", value="always")
        for number, use in enumerate(plan.trigger.lamps)
        if use.lit == "for the frame"
    )
    slots = {
        "lamps": slot(listed(dark)),
        "are": slot("is" if len(dark) == 1 else "are"),
        "them": slot("it" if len(dark) == 1 else "them"),
    }
    fix = Fix("Leave the lamps on", "Lit through the whole print, between frames too.", {}, edits)
    yield DARK.at("trigger.lamps", slots, [fix])
