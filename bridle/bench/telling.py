"""What a proof found, in words, and what to do about it."""

from bridle.core.plan.edit import Edit
from bridle.core.snag import Fix
from bridle.standins.printer.proof import Failure, Proof

SAID = {
    "missing": "No press comes where this layer is done.",
    "more": "It presses once too often: {about}.",
    "wrong layer": "It presses {about}.",
    "not released": "The press is not let go: {about}.",
    "too short": "The head leaves before the picture is taken: {about}.",
    "touch": "The {about} touches the body of the switch, and breaks it.",
    "beyond": "{about} is sent beyond its limits.",
    "path": "What is printed is not what the file printed before: its {about} differs.",
    "pushed": "In the end {about} of filament is out of balance.",
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
    "path": "State is not what it was after a stop: modes, feed rate or place.",
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
    return WHY.get(failure.kind, "")


def fix_of(failure: Failure) -> Fix | None:
    """What can be done about it at once."""
    if failure.kind == "too short":
        return Fix(
            label="Wait as long as the picture takes",
            consequence="Lag, exposure and a tenth of a second; make the file again afterwards.",
            slots={},
            edits=(Edit(path="trigger.dwell_s", value=None),),
        )
    return None


def summary(proof: Proof) -> str:
    """A proof in a sentence."""
    if proof.stands == "proven":
        return f"Proven: {proof.presses:,} presses, one at each of {proof.due:,} layers; nothing is touched."
    if proof.stands == "incomplete":
        names = ", ".join(proof.unknown[:5])
        return f"Incomplete: nothing wrong was found, but nobody knows what {names} does."
    count = len(proof.failures)
    return f"Not proven: {count:,} {'thing is' if count == 1 else 'things are'} wrong."
