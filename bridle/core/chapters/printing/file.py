"""What is wrong with a file: no layers, lines that cannot be read, commands unknown, stops of somebody else."""

import re
from collections.abc import Iterator
from fractions import Fraction

from bridle.core.chapters.printing.meaning import meant
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.printer import Printer
from bridle.core.plan.printing import Already, PrintFile
from bridle.core.quantity import listed
from bridle.core.reckon.frames.found import rate_of
from bridle.core.reckon.parts import first_of
from bridle.core.reckon.printing import MANY, even_step_mm, has_stops, layered, pauses_of, printer_of
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.prints.choose import varied

NO_PRINT = SnagKind(
    "no-print-calls",
    "stop",
    "print",
    "This shoot waits for a print to call its frames, and no print file is here yet.",
    "Without its layers nobody knows how many frames there are. Bring the file in under Print, or let the clock call.",
)
SPIRAL = SnagKind(
    "print-spiral",
    "stop",
    "print",
    "The print in “{file}” is one long spiral: it has no layers.",
    "The nozzle rises all the time, so there is no moment at which a layer is done. Slice it without the spiral, "
    "or photograph it by the clock.",
)
UNREAD = SnagKind(
    "print-lines-unread",
    "stop",
    "print",
    "{count} of “{file}” cannot be read, the first is line {line}.",
    "There stands “{stood}”; expected was {expected}. A file that was damaged on its way prints what nobody meant.",
)
UNKNOWN = SnagKind(
    "print-commands-unknown",
    "mind",
    "print",
    "Nobody here knows what {names} does.",
    "It stands in line {line} for the first time. Where a command sends the head is not known, so the proof stays "
    "incomplete. Put what the printer does at it into the printer's card, word by word.",
)
ALREADY = SnagKind(
    "print-stops-already",
    "stop",
    "print",
    "Somebody has put stops into this file already: {what}, in {layers}.",
    "Two sets of stops take two pictures a layer, and the second parks where the first did not expect it.",
)
PAUSES = SnagKind(
    "print-pauses",
    "mind",
    "print",
    "The print pauses by itself {count}, first in line {line}.",
    "While it waits for filament or a hand no frame is taken; the hand and the new colour are in the next. The clock "
    "goes on, the clip does not.",
)
TOOLS = SnagKind(
    "print-several-tools",
    "mind",
    "print",
    "The file prints with {count}.",
    "Each tool stands elsewhere on the head, and a change may park it where the switch is. Put what the printer does "
    "at each change into its card, as {names}: then the proof follows it.",
)
UNEVEN = SnagKind(
    "print-layers-vary",
    "mind",
    "print",
    "The layers differ in thickness; a frame every {every} makes the print grow in jumps.",
    "Frames at equal heights let it grow evenly.",
)
TOWER = SnagKind(
    "print-has-tower",
    "note",
    "print",
    "A tower is printed beside the part, X {x0} to {x1} and Y {y0} to {y1} mm.",
    "It is in the picture unless the lens looks past it, and a head that leaves the part goes around it or over it. It "
    "counts as printed wherever sizes are named.",
)
KINDS = (TOWER, NO_PRINT, SPIRAL, UNREAD, UNKNOWN, ALREADY, PAUSES, TOOLS, UNEVEN)
NAME = re.compile(r"[A-Za-z][A-Za-z0-9_]{0,60}")


def without(plan: Plan) -> Iterator[Snag]:
    """A print shoot whose frames wait for a print that is not here."""
    if plan.shoot.kind == "print" and plan.clip.called_by == "event":
        clock = Fix(
            label="Let the clock call the frames",
            consequence="They come at the interval, wherever the head is; it is in the picture.",
            slots={},
            edits=(Edit(path="clip.called_by", value="clock"),),
        )
        yield NO_PRINT.at("frames", {}, [clock])


def findings(plan: Plan) -> Iterator[Snag]:
    """What stands in the way, from the facts of the file."""
    file = plan.printing.file
    if file is None:
        return
    name = slot(file.name)
    if file.spiral:
        yield SPIRAL.at("printing.file", {"file": name}, [_by_the_clock(plan)])
    if file.unread:
        first = file.unread[0]
        slots = {
            "file": name,
            "count": slot(file.unread_count, "lines"),
            "line": slot(f"{first.line:,}"),
            "stood": slot(first.stood or "nothing"),
            "expected": slot(first.expected),
        }
        out = Fix(
            label="Take this file out",
            consequence="Its layers stay as times; slice it again, or fetch it again, and put that in.",
            slots={},
            edits=(Edit(path="printing.file", value=None),),
        )
        yield UNREAD.at("printing.file", slots, [out])
    yield from _unknown(plan, file)
    yield from _already(plan, file)
    yield from _further(plan, file)
    yield from _uneven(plan)
    yield from _tower(plan, file)


def _tower(plan: Plan, file: PrintFile) -> Iterator[Snag]:
    if len(file.tower_mm) < 4 or "tower" in plan.printing.meant:
        return
    slots = {name: slot(f"{at:g}") for name, at in zip(("x0", "x1", "y0", "y1"), file.tower_mm, strict=True)}
    fix = meant(plan, "tower", "Accept the tower", "It is hidden, or meant to be seen, and nothing hits it.")
    yield TOWER.at("printing.file", slots, [fix])


def _unknown(plan: Plan, file: PrintFile) -> Iterator[Snag]:
    printer = printer_of(plan)
    known = {macro.name.upper() for macro in printer.macros if macro.text.strip()} if printer else set()
    names = [one for one in file.already if one.sort in ("unknown", "probe") and not _known(one, known, plan)]
    if names:
        said = listed([one.name for one in names[:4]])
        slots = {"names": slot(said), "line": slot(f"{min(one.line for one in names):,}")}
        yield UNKNOWN.at("printing.file", slots, list(_moves_nothing(plan, names)))


def _by_the_clock(plan: Plan) -> Fix:
    """A frame every so often for as long as the print takes."""
    frames = layered(plan)
    shoot = sum(frames.layers_s) if frames else Fraction(3600)
    interval = max(Fraction(1), Fraction(round(shoot / 300)))
    pegs = (("rate", rate_of(plan)), ("interval", interval), ("shoot", max(shoot, interval)))
    return Fix(
        label="Photograph it by the clock, every {interval}",
        consequence="The head is in the picture, and elsewhere in each; about 300 frames.",
        slots={"interval": slot(interval, "s")},
        edits=(
            Edit(path="frames", value={"source": "even"}),
            Edit(path="clip.pegs", value=[{"quantity": name, "value": str(value)} for name, value in pegs]),
            Edit(path="clip.called_by", value="clock"),
        ),
    )


def _moves_nothing(plan: Plan, names: list[Already]) -> Iterator[Fix]:
    """Somebody has looked it up: put into the printer's card."""
    found, printer = first_of(plan.kit.copies, Printer), printer_of(plan)
    if found is None or printer is None:
        return
    told = {one.name for one in names}
    kept = [macro.model_dump(mode="json") for macro in printer.macros if macro.name not in told]
    fresh = [{"name": one.name, "text": "; looked up: it moves nothing"} for one in names]
    if any(not NAME.fullmatch(one.name) for one in names):
        return
    yield Fix(
        label="I have looked it up: it moves nothing",
        consequence="It goes into the printer's card; the proof takes your word for it.",
        slots={},
        edits=(Edit(path=f"kit.copies.{plan.kit.copies.index(found)}.card.macros", value=[*kept, *fresh]),),
    )


def _known(one: Already, macros: set[str], plan: Plan) -> bool:
    """Whether a macro of the printer says what a command does, or its card where levelling goes."""
    printer = printer_of(plan)
    probes = printer is not None and printer.probe_to_x_mm is not None and one.name == "G29"
    return one.name.upper() in macros or probes


def _already(plan: Plan, file: PrintFile) -> Iterator[Snag]:
    """Parks and firings in several layers; waits alone may be for cooling."""
    if plan.printing.second_set:
        return
    if not has_stops(file):
        return
    fires = [one for one in file.already if one.sort in ("fire", "pause", "wait", "message") and one.layers >= MANY]
    telling = [one for one in fires if one.sort in ("fire", "pause")]
    what = [f"{one.name} {_often(one.count)}" for one in fires[:3]]
    if file.parks >= MANY:
        what.append("the head sent to one place outside of the print")
    layers = max([one.layers for one in telling] + [file.parks])
    fix = Fix(
        label="Put ours in beside them",
        consequence="Both sets stand in the file then. Better take the first out where the file was sliced.",
        slots={},
        edits=(Edit(path="printing.second_set", value=True),),
    )
    yield ALREADY.at("printing.file", {"what": slot(listed(what)), "layers": slot(layers, "layers")}, [fix])


def _further(plan: Plan, file: PrintFile) -> Iterator[Snag]:
    """Pauses and tools, until somebody says that they are meant."""
    known = plan.printing.meant
    pauses = pauses_of(file)
    if pauses and "pauses" not in known:
        slots = {"count": slot(_often(sum(one.count for one in pauses))), "line": slot(f"{pauses[0].line:,}")}
        fix = meant(
            plan, "pauses", "They are meant", "The frames wait as the print does; the run waits for its layers."
        )
        yield PAUSES.at("printing.file", slots, [fix])
    printer = printer_of(plan)
    told = {macro.name.upper() for macro in printer.macros if macro.text.strip()} if printer else set()
    names = [f"T{number}" for number in file.tools]
    if len(file.tools) > 1 and "tools" not in known and not told.issuperset(names):
        fix = meant(plan, "tools", "I have watched a change of tool", "Where it parks, the switch is not in its way.")
        yield TOOLS.at(
            "printing.file", {"count": slot(len(file.tools), "tools"), "names": slot(listed(names[:4]))}, [fix]
        )


def _often(count: int) -> str:
    return "once" if count == 1 else f"{count:,} times"


def _uneven(plan: Plan) -> Iterator[Snag]:
    frames = layered(plan)
    if frames is None or frames.equal_mm or not frames.z_mm or not varied(frames.z_mm):
        return
    if plan.printing.file is not None and plan.printing.file.things > 1:
        return
    step = even_step_mm(frames)
    fix = Fix(
        label="A frame every {step} of height",
        consequence="About as many frames, at equal heights; the last is the finished part as before.",
        slots={"step": slot(step, "mm")},
        edits=(Edit(path="frames.equal_mm", value=step),),
    )
    yield UNEVEN.at("frames.every", {"every": slot(frames.every, "layers")}, [fix])
