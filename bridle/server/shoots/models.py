"""A shoot as it is kept: its plan, a name and words to find it by, and what its line in the list says."""

from typing import Any, ClassVar

from django.db import models

from bridle.core.plan.document import Plan
from bridle.core.plan.upgrade import plan_from
from bridle.server.house.models import new_identity
from bridle.server.keeping import Kept, Revision
from bridle.server.rows import KeptJSON
from bridle.server.shoots.sought import sought

__all__ = ["Revision", "Shoot", "keep"]


class Shoot(Kept):
    """One plan. `name` is a copy for finding; `demo` names the demo file it was made from, if any.

    `identity` is the shoot's own, whatever its number: a number can be another shoot's in other data, or after an older
    copy was brought back. `summary` is the line of the list as JSON text, worked out from the version and by the rules
    in `summary_of`.
    """

    name = models.CharField(max_length=120)
    plan = KeptJSON()
    demo = models.CharField(max_length=60, blank=True, default="")
    identity = models.CharField(max_length=40, default=new_identity, editable=False)
    sought = models.TextField(default="", editable=False)
    summary = models.TextField(default="", editable=False)
    summary_of = models.CharField(max_length=60, default="", editable=False)
    CONTENT: ClassVar[tuple[str, ...]] = ("name", "plan")

    def save(self, *args: Any, **options: Any) -> None:
        """Keep the words to find it by in step."""
        self.sought = sought(self.plan, self.name)
        super().save(*args, **options)

    def read(self) -> Plan:
        """The plan as a typed value. Raises a ValidationError where this Bridle cannot read it."""
        return plan_from(self.plan)

    def put(self, plan: Plan, version: int) -> "Shoot":
        """Save a plan made from a version. Raises `StaleError`."""
        return self.save_from(version, name=plan.shoot.name, plan=plan.model_dump(mode="json"))


def keep(plan: Plan, demo: str = "") -> Shoot:
    """Keep a new shoot."""
    return Shoot.objects.create(name=plan.shoot.name, plan=plan.model_dump(mode="json"), demo=demo)
