"""The bench's own record of proofs, as an evaluation is given it."""

from bridle.core.given import Proved
from bridle.core.plan.document import Plan
from bridle.server.prints.models import Work
from bridle.standins.printer.proof import JUDGE

MOST = 20


def proofs_of(plan: Plan) -> tuple[Proved, ...]:
    """The proofs of changed files of a plan's print, the last one last; nothing that an earlier judge has said."""
    file = plan.printing.file
    if file is None or plan.frames.source != "layers":
        return ()
    done = Work.objects.filter(kind="change", state="done", print__digest=file.digest).order_by("-pk")[:MOST]
    return tuple(_proved(work) for work in reversed(done) if _counts(work))


def _counts(work: Work) -> bool:
    return isinstance(work.result, dict) and work.result.get("judge") == JUDGE and work.ended_at is not None


def _proved(work: Work) -> Proved:
    assert isinstance(work.result, dict) and work.ended_at is not None
    told = work.result
    return Proved(
        of=work.of,
        stands=told["stands"],
        on=work.ended_at.date(),
        failures=told["failed"],
        changed=told.get("digest", ""),
    )
