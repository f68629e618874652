"""What an older plan comes to now and came to something else before, in words."""

from bridle.core.evaluation import Evaluation
from bridle.core.plan.changed import CHANGES
from bridle.core.plan.document import VERSION, Plan
from bridle.core.quantity import write


def changed(version: object, plan: Plan, evaluation: Evaluation) -> list[str]:
    """A sentence for each reason for which a plan that was written in a version has other figures now."""
    if not isinstance(version, int) or isinstance(version, bool) or not 1 <= version < VERSION:
        return []
    said = []
    for change in CHANGES:
        key = next((key for key in change.keys if key in evaluation.figures), None)
        if not change.since <= version <= change.upto or key is None or not change.only(plan):
            continue
        figure = evaluation.figures[key]
        before = change.was(plan, figure.value)
        was = "" if before is None else f", {write(before, figure.unit)} before"
        now = f"{write(figure.value, figure.unit)} now{was}" if change.sure else f"{write(figure.value, figure.unit)}"
        doubt = "" if change.sure else "It may have been another figure before. "
        said.append(f"{_capital(figure.label)}: {now}. {doubt}{_capital(change.why)}.")
    return said


def _capital(text: str) -> str:
    return text[:1].upper() + text[1:]
