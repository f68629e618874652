"""What was worked out last, from which the next evaluation takes over what has not changed."""

import threading
from collections import deque
from typing import cast

from bridle.core.evaluate import evaluate_after
from bridle.core.evaluation import Evaluation
from bridle.core.given import NOTHING, Given
from bridle.core.knowing import Run
from bridle.core.plan.document import Plan
from bridle.core.subjects.numbers.thinning import SOME
from bridle.core.views import Basis

# Several pages may be open, and a drag asks for less than a sheet.
MOST_RUNS = 6
MOST_BYTES = 96_000_000
# A plan that differs in no more fields than this is the same one, edited.
NEAR = 4


class Runs:
    """The last few runs, the one used last at the end. Safe to use from several threads."""

    def __init__(self, most: int = MOST_RUNS, most_bytes: int = MOST_BYTES) -> None:
        """Hold so many runs, and about so many bytes."""
        self._held: deque[Run] = deque(maxlen=most)
        self._most_bytes = most_bytes
        self._lock = threading.Lock()

    def evaluate(
        self, plan: Plan, points: int = SOME, aside: bool = True, lit: bool = False, given: Given = NOTHING
    ) -> Evaluation:
        """What a plan comes to, with all taken over that has not changed since the plan that is most like it."""
        evaluation, run = evaluate_after(self.nearest(plan, given), plan, points, aside, lit, given)
        self._hold(run)
        return evaluation

    def nearest(self, plan: Plan, given: Given = NOTHING) -> Run | None:
        """The run of the plan that is most like this one; None where nothing is held."""
        basis = Basis(plan, given)
        with self._lock:
            held = list(reversed(self._held))
        nearest, least = None, 0
        for run in held:
            fields = basis.differs(cast(Basis, run.inputs)).bit_count()
            if nearest is None or fields < least:
                nearest, least = run, fields
            if least <= NEAR:
                break
        return nearest

    def _hold(self, run: Run) -> None:
        with self._lock:
            self._held.append(run)
            while self._held and self.held_bytes() > self._most_bytes:
                self._held.popleft()

    @property
    def count(self) -> int:
        """How many are held."""
        return len(self._held)

    def held_bytes(self) -> int:
        """What all of them hold; what several share counts once."""
        return sum({id(memo): memo.size for run in self._held for memo in run.memos().values()}.values())

    def forget(self) -> None:
        """Forget everything."""
        with self._lock:
            self._held.clear()


RUNS = Runs()
