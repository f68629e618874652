"""Before the start: what to dial in where, and the cautions that belong to it."""

from collections.abc import Sequence

from bridle.core.chapters.answer import Answer
from bridle.core.chapters.review.cautions import cautions
from bridle.core.chapters.review.positions import DriveTold
from bridle.core.chapters.review.sheets import sheets
from bridle.core.chapters.review.state import ReviewState
from bridle.core.figure import Figure
from bridle.core.reckon.reckoning import Reckoning


def tell(known: Reckoning, figures: dict[str, Figure], drives: Sequence[DriveTold]) -> Answer[ReviewState]:
    """The field card, from what the other chapters have told."""
    state = ReviewState(sheets=sheets(known, figures, drives), cautions=cautions(known.plan))
    return Answer(state, [], [])
