"""A changed file whose proof has failed."""

from collections.abc import Iterator

from bridle.core.given import Given
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.reckon.proved import failed
from bridle.core.snag import Fix, Snag, SnagKind, slot

FAILED = SnagKind(
    "proof-failed",
    "stop",
    "print",
    "The proof of the changed file failed: {count} found.",
    "The bench lists what the virtual printer met, line by line. Change the stop, or the printer's card, and prove the "
    "file again. Print nothing that has not passed.",
)
KINDS = (FAILED,)


def findings(plan: Plan, given: Given) -> Iterator[Snag]:
    """Of the file as it would be changed now; an older proof says nothing of it."""
    count = failed(plan, given)
    if "file" not in plan.printing.by or not count:
        return
    aside = Fix(
        label="Leave the changed file aside",
        consequence="The slicer puts the stops in, by a snippet; what it makes is proven when it is brought in.",
        slots={},
        edits=(Edit(path="printing.by", value=[*(by for by in plan.printing.by if by != "file")] or ["slicer"]),),
    )
    yield FAILED.at("printing.proof", {"count": slot(count, "faults")}, [aside])
