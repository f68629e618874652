"""Plans worked out one after another in a test: an edited one takes over what the edit does not touch."""

from bridle.core.evaluate import evaluate_after
from bridle.core.evaluation import Evaluation
from bridle.core.knowing import Run
from bridle.core.plan.document import Plan


class Following:
    """Evaluations of plans that are much alike, each from the one before it."""

    def __init__(self, plan: Plan | None = None) -> None:
        """Begin with a plan, or with the first that is asked."""
        self.run: Run | None = None
        if plan is not None:
            self.told = self(plan)

    def __call__(self, plan: Plan) -> Evaluation:
        """The evaluation of a plan; the next one is worked out from it."""
        self.told, self.run = evaluate_after(self.run, plan)
        return self.told

    def beside(self, plan: Plan) -> Evaluation:
        """The evaluation of a plan that is only tried: the next one goes on from the one before."""
        return evaluate_after(self.run, plan)[0]
