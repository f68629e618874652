"""Whether the changed file of a print is proven: by the bench's own record of it, not by what a plan says of itself."""

from typing import Literal

from bridle.core.given import Given, Proved
from bridle.core.plan.document import Plan
from bridle.core.reckon.printing import print_digest

Stands = Literal["none", "said", "older", "incomplete", "failed", "proven"]


def proof_now(plan: Plan, given: Given) -> Proved | None:
    """The bench's last proof of the file as it would be changed now."""
    of = print_digest(plan)
    return next((one for one in reversed(given.proofs) if one.of == of), None)


def proof_stands(plan: Plan, given: Given) -> Stands:
    """How the proof stands: `older` where what it was made with has changed, `said` where only the plan says so."""
    now, told = proof_now(plan, given), plan.printing.proof
    if now is not None:
        return now.stands
    if told is not None and told.of == print_digest(plan):
        return "said"
    return "older" if given.proofs or told is not None else "none"


def failed(plan: Plan, given: Given) -> int:
    """How much was found wrong with it; a plan that says so of itself is believed. Nought where nothing is known."""
    now, told = proof_now(plan, given), plan.printing.proof
    if now is not None:
        return max(now.failures, 1) if now.stands == "failed" else 0
    if told is not None and told.stands == "failed" and told.of == print_digest(plan):
        return max(told.failures, 1)
    return 0
