"""What is wrong before the first layer and behind the last: ways that pass the switch, macros that nobody can read."""

from collections.abc import Iterator

from bridle.core.chapters.printing.meaning import meant
from bridle.core.chapters.printing.reaching import at_mm, moved
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.printer import Printer
from bridle.core.plan.printing import OfTheSwitch
from bridle.core.quantity import listed
from bridle.core.reckon.parts import first_of
from bridle.core.reckon.printing import printer_of, switch_of
from bridle.core.reckon.printing_ends import End, Passed, passed, told_macros
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.prints.way import has_conditions

TOUCHES = SnagKind(
    "start-meets-switch",
    "stop",
    "print",
    "{what} sends the head to {axis} {to}, where it touches the {switch}.",
    "The switch would break {when}. Fit it {fitted}, or move it out of the way.",
)
PRESSES = SnagKind(
    "start-presses-switch",
    "mind",
    "print",
    "{what} sends the head to {axis} {to}, where it presses the {switch}: one frame more, {when}.",
    "{then} Strike that frame out, or fit the switch {fitted}.",
)
CONDITIONS = SnagKind(
    "macro-has-conditions",
    "mind",
    "print",
    "Nobody here can read what {names} does: its text has conditions in it.",
    "Only the printer works those out, so the proof stays incomplete. Put the lines that it comes to for this print "
    "into the printer's card.",
)
KINDS = (TOUCHES, PRESSES, CONDITIONS)
WHEN = {"start": "before the first layer", "end": "after the last layer"}
FITTED = {"start": "after the start", "end": "so that it comes off before the end"}
THEN = {"start": "All later frames are then one off.", "end": "The clip then ends on a frame too many."}
ABSENT: dict[End, tuple[OfTheSwitch, str, str]] = {
    "start": (
        "switch on later",
        "Fit the switch after the start",
        "While the first layer is printed, from the far side.",
    ),
    "end": (
        "switch off early",
        "Take the switch off before the end",
        "After the last frame, before the head goes on.",
    ),
}
STRUCK: dict[End, tuple[OfTheSwitch, str, str]] = {
    "start": ("first frames out", "Strike that frame out", "It is the first of the clip and shows an empty bed."),
    "end": ("last frames out", "Strike that frame out", "It is the last of the clip."),
}


def findings(plan: Plan) -> Iterator[Snag]:
    """What somebody has not answered yet; one of a kind at a time, the start first."""
    for kind, one in (
        (TOUCHES, next((one for one in _open(plan) if one.touches), None)),
        (PRESSES, next((one for one in _open(plan) if not one.touches), None)),
    ):
        switch = switch_of(plan)
        if one is not None and switch is not None:
            slots = {
                "what": slot(one.what),
                "to": at_mm(one.to),
                "axis": slot(switch.axis),
                "switch": slot(switch.name),
                "when": slot(WHEN[one.end]),
                "fitted": slot(FITTED[one.end]),
                "then": slot(THEN[one.end]),
            }
            fixes = [meant(plan, *ABSENT[one.end])]
            fixes += (
                [meant(plan, *STRUCK[one.end])]
                if kind is PRESSES and not one.stays
                else [moved(plan, "out of the way")]
            )
            yield kind.at("printing.file", slots, fixes)
    yield from _unreadable(plan)


def _open(plan: Plan) -> Iterator[Passed]:
    told = plan.printing.meant
    for one in passed(plan):
        if ABSENT[one.end][0] not in told and (one.touches or one.stays or STRUCK[one.end][0] not in told):
            yield one


def _unreadable(plan: Plan) -> Iterator[Snag]:
    printer, found = printer_of(plan), first_of(plan.kit.copies, Printer)
    if printer is None or found is None:
        return
    called: tuple[End, End] = ("start", "end")
    names = [name for end in called for name, text in told_macros(plan, end) if has_conditions(text)]
    if not names:
        return
    macros = [
        {"name": one.name, "text": "; looked up: it moves nothing" if one.name in names else one.text}
        for one in printer.macros
    ]
    fix = Fix(
        label="I have looked it up: it moves nothing",
        consequence="Its text in the printer's card is replaced by that; the proof takes your word for it.",
        slots={},
        edits=(Edit(path=f"kit.copies.{plan.kit.copies.index(found)}.card.macros", value=macros),),
    )
    yield CONDITIONS.at("printing.file", {"names": slot(listed(names))}, [fix])
