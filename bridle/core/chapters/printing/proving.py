"""A changed file whose proof has failed, and one that has none."""

from collections.abc import Iterator

from bridle.core.given import Given
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.reckon.printing import stop_of
from bridle.core.reckon.proved import Stands, failed, proof_stands
from bridle.core.snag import Fix, Snag, SnagKind, slot

FAILED = SnagKind(
    "proof-failed",
    "stop",
    "print",
    "The proof of the changed file failed: {count} found.",
    "The bench lists what the virtual printer met, line by line. Change the stop, or the printer's card, and prove the "
    "file again. Print nothing that has not passed.",
    work="prove",
)
MISSING = SnagKind(
    "print-not-proven",
    "mind",
    "print",
    "The changed file {how}.",
    "A stop in the wrong place drags the nozzle through the part. Write the file and prove it, under File and proof, "
    "before anything is printed.",
    work="prove",
)
KINDS = (FAILED, MISSING)
HOW: dict[Stands, str] = {
    "none": "has not been proven yet",
    "older": "was proven before the last change",
    "said": "is called proven by the plan, but was not proven here",
    "incomplete": "has a proof that is not complete",
}


def findings(plan: Plan, given: Given) -> Iterator[Snag]:
    """Of the file as it would be changed now; an older proof says nothing of it."""
    if "file" not in plan.printing.by:
        return
    aside = Fix(
        label="Leave the changed file aside",
        consequence="The slicer puts the stops in, by a snippet; what it makes is proven when it is brought in.",
        slots={},
        edits=(Edit(path="printing.by", value=[*(by for by in plan.printing.by if by != "file")] or ["slicer"]),),
    )
    count, stands = failed(plan, given), proof_stands(plan, given)
    if count:
        yield FAILED.at("printing.proof", {"count": slot(count, "faults")}, [aside])
    elif stands in HOW and stop_of(plan) is not None and plan.printing.file is not None:
        yield MISSING.at("printing.proof", {"how": slot(HOW[stands])}, [aside])
