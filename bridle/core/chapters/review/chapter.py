"""Before the start: what to dial in where, and the cautions that belong to it."""

from collections.abc import Sequence

from bridle.core.chapters.answer import Answer
from bridle.core.chapters.review.cautions import cautions
from bridle.core.chapters.review.hours import Told
from bridle.core.chapters.review.positions import DriveTold
from bridle.core.chapters.review.readiness import readiness
from bridle.core.chapters.review.sheets import sheets
from bridle.core.chapters.review.state import ReviewState
from bridle.core.figure import Figure
from bridle.core.given import Given
from bridle.core.reckon.reckoning import Reckoning
from bridle.core.snag import Snag


def tell(
    known: Reckoning,
    figures: dict[str, Figure],
    drives: Sequence[DriveTold],
    told: Sequence[Told],
    snags: Sequence[Snag],
    given: Given,
) -> Answer[ReviewState]:
    """The field card and the judgement, from what the other chapters have told.

    `told` are the runs of a controller that has to make do with rules of its own.
    """
    state = ReviewState(
        sheets=sheets(known, figures, drives, told, given),
        cautions=cautions(known.plan),
        ready=readiness(known, snags, given),
    )
    return Answer(state, [], [])
