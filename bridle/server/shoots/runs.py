"""What was worked out last, from which the next evaluation takes over what has not changed."""

import threading
from collections import deque
from collections.abc import Iterable
from typing import cast

from bridle.core.evaluate import evaluate_after
from bridle.core.evaluation import Evaluation
from bridle.core.given import NOTHING, Given
from bridle.core.knowing import Run
from bridle.core.plan.document import Plan
from bridle.core.subjects.numbers.thinning import SOME
from bridle.core.views import Basis

# Several pages may be open.
MOST_RUNS, MOST_DRAGGED = 6, 2
MOST_BYTES = 96_000_000
# A plan that differs in no more fields than this is the same one, edited.
NEAR = 4


class Runs:
    """The last few runs, the one used last at the end. Safe to use from several threads.

    A drag asks for less than a sheet: where both were held alike, what a drag left out would be worked out anew when
    the hand rests, and the steps of a drag would push out the sheets that others look at.
    """

    def __init__(self, most: int = MOST_RUNS, most_bytes: int = MOST_BYTES) -> None:
        """Hold so many runs of whole sheets, and about so many bytes with those of drags."""
        self._whole: deque[Run] = deque(maxlen=most)
        self._dragged: deque[Run] = deque(maxlen=MOST_DRAGGED)
        self._most_bytes = most_bytes
        self._lock = threading.Lock()

    def evaluate(
        self, plan: Plan, points: int = SOME, aside: bool = True, lit: bool = False, given: Given = NOTHING
    ) -> Evaluation:
        """What a plan comes to, with all taken over that has not changed since the plan that is most like it."""
        evaluation, run = evaluate_after(self.nearest(plan, given, aside), plan, points, aside, lit, given)
        self._hold(run, self._whole if aside else self._dragged)
        return evaluation

    def nearest(self, plan: Plan, given: Given = NOTHING, whole: bool = True) -> Run | None:
        """The run of the plan that is most like this one; None where nothing is held.

        For a `whole` sheet a drag of the same plan only where no sheet is of it.
        """
        basis = Basis(plan, given)
        with self._lock:
            sheets, drags = list(reversed(self._whole)), list(reversed(self._dragged))
        nearest, least = _least(basis, sheets if whole else [*drags, *sheets])
        if whole and (nearest is None or least > NEAR):
            other, fewer = _least(basis, drags)
            nearest = other if other is not None and (nearest is None or fewer < least) else nearest
        return nearest

    def _hold(self, run: Run, among: "deque[Run]") -> None:
        with self._lock:
            among.append(run)
            while self.held_bytes() > self._most_bytes and (self._dragged or self._whole):
                (self._dragged or self._whole).popleft()

    @property
    def count(self) -> int:
        """How many are held."""
        return len(self._whole) + len(self._dragged)

    def held_bytes(self) -> int:
        """What all of them hold; what several share counts once."""
        runs = (*self._whole, *self._dragged)
        return sum({id(memo): memo.size for run in runs for memo in run.memos().values()}.values())


def _least(basis: Basis, runs: Iterable[Run]) -> tuple[Run | None, int]:
    """The run that differs in the fewest fields, and in how many; the first that is near enough."""
    nearest, least = None, 0
    for run in runs:
        fields = basis.differs(cast(Basis, run.inputs)).bit_count()
        if nearest is None or fields < least:
            nearest, least = run, fields
        if least <= NEAR:
            break
    return nearest, least


RUNS = Runs()
