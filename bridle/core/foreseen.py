"""What a fix would bring with it: the snags that there would be then and are not now; and whether less is wrong."""

from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass

from bridle.core.evaluate import evaluate_after
from bridle.core.evaluation import Evaluation
from bridle.core.knowing import Run
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import apply
from bridle.core.snag import SEVERITIES, Severity, Slot, Snag

# Behind a camera that listens to nothing nobody knows what else is wrong: its fix may bring that to light.
HIDES = frozenset(("camera-hears-no-contact",))
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
    """Of a snag (by its kind and place): what each of its fixes would bring, and whether it helps, in their order.

    A fix helps where less is wrong afterwards; so no chain of such fixes leads back to where it began.
    """

    code: str
    path: str
    brings: tuple[tuple[Brought, ...], ...]
    helps: tuple[bool, ...]


def foreseen(plan: Plan, before: Run | None = None) -> list[Foreseen]:
    """What each fix of each snag of a plan would bring; what an earlier run has worked out is taken over."""
    now, run = evaluate_after(before, plan)
    return [_foreseen(plan, now, run, snag) for snag in now.snags if snag.fixes]


def _foreseen(plan: Plan, now: Evaluation, run: Run, snag: Snag) -> Foreseen:
    # What a fix does not touch is taken over from what there is now.
    after = [evaluate_after(run, apply(plan, fix.edits)[0])[0] for fix in snag.fixes]
    brings = tuple(tuple(brought(now, then)) for then in after)
    return Foreseen(snag.code, snag.path, brings, tuple(lessens(now, then) for then in after))


def brought(now: Evaluation, after: Evaluation) -> Iterable[Brought]:
    """The snags that a plan would have then, of a kind of which it has fewer now."""
    had = Counter(snag.code for snag in now.snags)
    for snag in _more(after.snags, had):
        if snag.severity in TOLD:
            yield Brought(snag.code, snag.severity, snag.what, snag.slots)


def lessens(now: Evaluation, after: Evaluation) -> bool:
    """Whether less is wrong after a fix: no stop that was not there before, and fewer of the worst that is told.

    Compared as stops, then minds, then notes. What is wrong with a shoot whose clip is open nobody knows yet: to know
    its frames is less wrong in any case.
    """
    if now.frames is None and after.frames is not None:
        return True
    if _hides(now) and not _hides(after):
        return True
    stops = (snag for snag in after.snags if snag.severity == "stop")
    had = Counter(snag.code for snag in now.snags if snag.severity == "stop")
    return not any(_more(stops, had)) and weight(after) < weight(now)


def _hides(told: Evaluation) -> bool:
    return any(snag.code in HIDES for snag in told.snags)


def weight(told: Evaluation) -> tuple[int, ...]:
    """How much is wrong: whether the clip is open, then stops, minds, notes."""
    counts = Counter(snag.severity for snag in told.snags)
    return (told.frames is None, *(counts[severity] for severity in SEVERITIES))


def _more(snags: Iterable[Snag], had: Counter[str]) -> Iterable[Snag]:
    """The snags of a kind beyond as many as there were."""
    left = had.copy()
    for snag in snags:
        if left[snag.code]:
            left[snag.code] -= 1
        else:
            yield snag
