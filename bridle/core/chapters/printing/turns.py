"""What becomes of the frames when a print does not simply go on: paused, out of filament, given up."""

from collections.abc import Iterator

from bridle.core.chapters.printing.state import Turn
from bridle.core.plan.document import Plan
from bridle.core.reckon.printing import pauses_of, printer_of

PAUSED = (
    "No layer is done meanwhile, so no frame is taken; whoever reaches in is in none. The next frame has what was "
    "changed. The clock goes on, and a camera that fell asleep is woken by the next press, if that is held long enough."
)
OUT = (
    "The printer pauses by itself and parks as its own settings have it. No layer is done, so no frame is taken; the "
    "clip goes on with the next layer as if nothing had been. What was missing shows as a gap in that layer."
)
OUT_FIRES = (
    "The printer pauses by itself, and here a pause is what fires: one frame more than there are layers. Strike it out "
    "afterwards, or all that follow are one off."
)
GIVEN_UP = (
    "Nothing behind that line is carried out: the last frame is that of the last layer called, and none is the "
    "finished part."
)
PRESSED = " If it happens in the middle of a stop, the head stands on the switch: back off before anything homes."
SWITCHED = " If it happens in the middle of a stop, the output stays on: send what turns it off."


def turns(plan: Plan) -> Iterator[Turn]:
    """Each turn that this print may take, with what the frames do; nothing without a printer."""
    printer, file = printer_of(plan), plan.printing.file
    if printer is None:
        return
    if file is not None and pauses_of(file):
        yield Turn(when="It pauses for a hand or a new colour", said=PAUSED)
    yield Turn(when="The filament runs out", said=OUT_FIRES if printer.fires == "pause" else OUT)
    yield Turn(
        when="It runs out and the printer does not notice",
        said="It goes on without printing: the frames come as planned, and all that follow show the same part.",
    )
    more = {"switch": PRESSED, "commands": SWITCHED if printer.fire_off else ""}.get(printer.fires, "")
    yield Turn(when="It is given up", said=GIVEN_UP + more)
