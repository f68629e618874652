"""A shoot as it is kept: its plan and a name to find it by."""

from functools import lru_cache
from typing import ClassVar

from django.db import models

from bridle.core.evaluate import evaluate
from bridle.core.evaluation import Evaluation
from bridle.core.plan.document import Plan
from bridle.core.plan.upgrade import plan_from
from bridle.server.keeping import Kept, Revision

__all__ = ["Revision", "Shoot", "evaluated"]


class Shoot(Kept):
    """One plan. `name` is a copy for finding; `demo` names the demo file it was made from, if any."""

    name = models.CharField(max_length=120)
    plan = models.JSONField()
    demo = models.CharField(max_length=60, blank=True, default="")
    CONTENT: ClassVar[tuple[str, ...]] = ("name", "plan")

    def read(self) -> Plan:
        """The plan as a typed value."""
        return plan_from(self.plan)

    def put(self, plan: Plan, version: int) -> "Shoot":
        """Save a plan made from a version. Raises `StaleError`."""
        return self.save_from(version, name=plan.shoot.name, plan=plan.model_dump(mode="json"))


def keep(plan: Plan, demo: str = "") -> Shoot:
    """Keep a new shoot."""
    return Shoot.objects.create(name=plan.shoot.name, plan=plan.model_dump(mode="json"), demo=demo)


@lru_cache(maxsize=2000)
def evaluated(shoot_id: int, version: int, changed: float) -> Evaluation:
    """The evaluation of a kept version; a version never changes, so it is worked out once."""
    return evaluate(Shoot.objects.get(pk=shoot_id).read())
