"""What a fix would bring with it: the snags that there would be then and are not now."""

from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass

from bridle.core.evaluate import evaluate
from bridle.core.evaluation import Evaluation
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import apply
from bridle.core.snag import Fix, Severity, Slot, Snag

# A note is no reason to think twice about a fix.
TOLD: tuple[Severity, ...] = ("stop", "mind")


@dataclass(frozen=True, slots=True)
class Brought:
    """A snag that a fix would bring: its kind and its sentence with slots."""

    code: str
    severity: Severity
    what: str
    slots: dict[str, Slot]


@dataclass(frozen=True, slots=True)
class Foreseen:
    """Of a snag (by its kind and place): what each of its fixes would bring, in their order."""

    code: str
    path: str
    brings: tuple[tuple[Brought, ...], ...]


def foreseen(plan: Plan) -> list[Foreseen]:
    """What each fix of each snag of a plan would bring."""
    now = evaluate(plan)
    return [
        Foreseen(snag.code, snag.path, tuple(brought(plan, now, fix) for fix in snag.fixes))
        for snag in now.snags
        if snag.fixes
    ]


def brought(plan: Plan, now: Evaluation, fix: Fix) -> tuple[Brought, ...]:
    """The snags that a plan would have after a fix, of a kind of which it has fewer now."""
    after, _ = apply(plan, fix.edits)
    had = Counter(snag.code for snag in now.snags)
    return tuple(
        Brought(snag.code, snag.severity, snag.what, snag.slots)
        for snag in _more(evaluate(after).snags, had)
        if snag.severity in TOLD
    )


def _more(snags: Iterable[Snag], had: Counter[str]) -> Iterable[Snag]:
    """The snags of a kind beyond as many as there were."""
    left = had.copy()
    for snag in snags:
        if left[snag.code]:
            left[snag.code] -= 1
        else:
            yield snag
