"""What a chapter answers: its state for the page, its figures and its snags.

All of it is plain dataclasses, frozen, as the next evaluation may take them over. They are made by the hundreds:
checking each would cost a tenth of the time.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Generic, TypeVar

from bridle.core.figure import Figure
from bridle.core.snag import Snag

S = TypeVar("S")


@dataclass(frozen=True)
class Answer(Generic[S]):
    """A chapter's answer."""

    state: S
    figures: list[Figure]
    snags: list[Snag]


def answer(state: S, findings: Iterable[Figure | Snag]) -> Answer[S]:
    """An answer from figures and snags as they come; each keeps its order."""
    figures: list[Figure] = []
    snags: list[Snag] = []
    for finding in findings:
        if isinstance(finding, Figure):
            figures.append(finding)
        else:
            snags.append(finding)
    return Answer(state, figures, snags)
