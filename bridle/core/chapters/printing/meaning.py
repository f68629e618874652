"""What somebody knows of and wants so: put away for good by saying it."""

from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.printing import Meant
from bridle.core.snag import Fix


def meant(plan: Plan, what: Meant, label: str, consequence: str) -> Fix:
    """The answer that something is meant."""
    edits = (Edit(path="printing.meant", value=[*plan.printing.meant, what]),)
    return Fix(label=label, consequence=consequence, slots={}, edits=edits)
