"""What a proof found, in words, and what to do about it."""

import math
from collections.abc import Sequence

from bridle.bench.rounds import round_fixes
from bridle.core.chapters.printing.meaning import meant
from bridle.core.chapters.printing.starting import ABSENT, STRUCK
from bridle.core.chapters.printing.stopping import parking_fixes
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.snag import Fix, slot
from bridle.standins.printer.proof import Failure, Proof

# So far above what stands there the head goes.
CLEAR_MM = 1.0
SAID = {
    "across": "It prints from the parking place on: a line across to the part.",
    "own travel": "The file itself travels lower than what stands there.",
    "unsure": "Where the head stands before it homes is not known; {about} may meet the switch on its way home.",
    "put on later": "The switch is not fitted yet: it would be pressed or touched {times} before the first layer.",
    "taken off": "The switch is gone by then: the end would press or touch it {times}.",
    "struck out": "{about} presses the switch: {frames}, to be struck out.",
    "left held": "After the last layer, {about} leaves the switch held down.",
    "missing": "No press comes where this layer is done.",
    "more": "It presses once too often: {about}.",
    "wrong layer": "It presses {about}.",
    "not released": "The press is not let go: {about}.",
    "let go early": "The press is let go {about}.",
    "strikes": "The {about} runs into what is printed already.",
    "purge": "The {about} brushes over what was laid down before the first layer.",
    "hasty": "The output is switched while the head may still be moving: “{about}”. Nothing waits for it before.",
    "oozes": "Filament is pushed out beside the print: {about}.",
    "state": "The stop leaves something otherwise than it found it: {about}.",
    "too short": "The head leaves before the picture is taken: {about}.",
    "touch": "The {about} touches the body of the switch, and breaks it.",
    "beyond": "{about} is sent beyond its limits.",
    "path": "What is printed is not what the file printed before: {about}.",
    "pushed": "What is drawn back is not what comes back: {about}.",
    "unreadable": "A printer cannot read this line: “{about}”.",
    "checksum": "The checksum of this line does not fit: “{about}”.",
    "number": "The line numbers are out of order: {about}.",
    "held": "It prints while the camera's switch is held down.",
    "elsewhere": "The head presses at another place than before: {about}.",
    "wait": "The printer waits too long: {about}.",
}
OUTSIDE = {
    "start": "Before the first layer, {about} presses the switch: {frames}.",
    "end": "After the last layer, {about} presses the switch: {frames}.",
}
WHY_OUTSIDE = {
    "start": "Fit the switch after the start, or move it out of the way.",
    "end": "Take the switch off before the end, or move it out of the way.",
}
OF_THE_SWITCH = ("more", "touch", "held", "left held")
WHY = {
    "across": "Nothing takes the head back before the next printed move. Use the changed file instead.",
    "own travel": "No stop has to do with it. Look at this place in the slicer's preview.",
    "unsure": "Move the head away from the switch by hand before you start.",
    "put on later": "Fit it while the first layer is printed.",
    "taken off": "Take it off after the last picture.",
    "touch": "Move the switch, park elsewhere, or take the move out of the start sequence.",
    "missing": "A frame is missing at this layer.",
    "beyond": "It stops at its limit and loses its place. Look at the printer's limits on its card.",
    "path": "From here on the part is another one. Line {original:,} of the original is the one it should be.",
    "pushed": "The seam has too much filament here, or too little.",
    "oozes": "It drips onto the part or the bed.",
    "state": "What comes after it is printed with other settings.",
    "hasty": "Put M400 before it.",
    "strikes": "Raise the head before it travels, or park it elsewhere.",
    "purge": "Raise the head before it travels.",
    "elsewhere": "The head, or the print under it, jumps in the clip.",
    "unreadable": "Take the file again from the slicer.",
}


def said(failure: Failure) -> str:
    """A failure as a sentence."""
    pressing = failure.kind == "more" and failure.when != "print"
    told = OUTSIDE[failure.when] if pressing else SAID[failure.kind]
    frames = "one frame more" if failure.count == 1 else f"{failure.count:,} frames more"
    times = "once" if failure.count == 1 else f"{failure.count:,} times"
    text = told.format(about=failure.about or "at the end", frames=frames, times=times)
    counted = "{frames}" in told or "{times}" in told or failure.count == 1
    return text[0].upper() + text[1:] + ("" if counted else f" {failure.count:,} times in all.")


def why(failure: Failure) -> str:
    """What it means, or what to do; empty where the sentence says it all."""
    if failure.kind in OF_THE_SWITCH and failure.when != "print":
        return WHY_OUTSIDE[failure.when]
    return WHY.get(failure.kind, "").format(original=failure.original)


def fixes_of(failure: Failure, plan: Plan, free: Sequence[int] = ()) -> list[Fix]:
    """What can be done about it at once, with the stop as the plan has it; `free` are ways round that are clear."""
    if failure.kind == "too short":
        wait = Edit(path="trigger.dwell_s", value=None)
        consequence = "Lag, exposure and a tenth of a second; make the file again afterwards."
        return [Fix("Wait as long as the picture takes", consequence, {}, (wait,))]
    if failure.kind == "elsewhere":
        return list(parking_fixes(plan).values())
    if failure.kind in ("strikes", "purge"):
        high = float(math.ceil(plan.printing.stop.raise_mm + failure.above + CLEAR_MM))
        raised = Edit(path="printing.stop.raise_mm", value=high)
        consequence = "It goes over what stands there, and each stop takes longer. Make the file again afterwards."
        over = Fix("Raise the head by {high} first", consequence, {"high": slot(high, "mm")}, (raised,))
        return [*round_fixes(plan, free), over]
    if failure.kind in OF_THE_SWITCH and failure.when != "print":
        # What is touched breaks, whoever strikes its frames out.
        answers = [ABSENT[failure.when], *([STRUCK[failure.when]] if failure.kind == "more" else [])]
        return [meant(plan, *one) for one in answers]
    return []


def summary(proof: Proof) -> str:
    """A proof in a sentence."""
    if proof.stands == "proven":
        out = f" {proof.struck:,} more {'is' if proof.struck == 1 else 'are'} to be struck out." if proof.struck else ""
        return (
            f"Proven: {proof.presses:,} presses, one at each of {proof.due:,} layers; every printed move is the "
            f"original's, and nothing stands in the way.{out}"
        )
    if proof.stands == "incomplete":
        if not proof.compared:
            return (
                "Not proven: presses and clearances are right; the print itself was not compared, as its original is "
                "not here."
            )
        names = ", ".join(proof.unknown[:5])
        return f"Incomplete: nothing wrong was found, but this is not known here: {names}."
    count = len(proof.failures)
    return f"Not proven: {count:,} {'thing is' if count == 1 else 'things are'} wrong."
