"""What a proof found, in words, and what to do about it."""

import math

from bridle.core.plan.edit import Edit
from bridle.core.snag import Fix, slot
from bridle.standins.printer.proof import Failure, Proof

# So far above what stands there the head goes.
CLEAR_MM = 1.0
SAID = {
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
WHY = {
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
    "elsewhere": "The head jumps in the clip.",
    "unreadable": "Take the file again from the slicer.",
}


def said(failure: Failure) -> str:
    """A failure as a sentence."""
    text = SAID[failure.kind].format(about=failure.about or "at the end")
    again = f" {failure.count:,} times in all." if failure.count > 1 else ""
    return text[0].upper() + text[1:] + again


def why(failure: Failure) -> str:
    """What it means, or what to do; empty where the sentence says it all."""
    return WHY.get(failure.kind, "").format(original=failure.original)


def fix_of(failure: Failure, raised_mm: float = 0.0) -> Fix | None:
    """What can be done about it at once, where the stop already raises the head by so much."""
    if failure.kind == "too short":
        return Fix(
            label="Wait as long as the picture takes",
            consequence="Lag, exposure and a tenth of a second; make the file again afterwards.",
            slots={},
            edits=(Edit(path="trigger.dwell_s", value=None),),
        )
    if failure.kind in ("strikes", "purge"):
        high = float(math.ceil(raised_mm + failure.above + CLEAR_MM))
        return Fix(
            label="Raise the head by {high} first",
            consequence="It goes over what stands there, and each stop takes longer. Make the file again afterwards.",
            slots={"high": slot(high, "mm")},
            edits=(Edit(path="printing.stop.raise_mm", value=high),),
        )
    return None


def summary(proof: Proof) -> str:
    """A proof in a sentence."""
    if proof.stands == "proven":
        return (
            f"Proven: {proof.presses:,} presses, one at each of {proof.due:,} layers; every printed move is the "
            "original's, and nothing stands in the way."
        )
    if proof.stands == "incomplete":
        if not proof.compared:
            return (
                "Not proven: presses and clearances are right; the print itself was not compared, as its original is "
                "not here."
            )
        names = ", ".join(proof.unknown[:5])
        return f"Incomplete: nothing wrong was found, but nobody knows what {names} does."
    count = len(proof.failures)
    return f"Not proven: {count:,} {'thing is' if count == 1 else 'things are'} wrong."
