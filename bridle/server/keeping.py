"""Keeping things: versions against silent overwriting, a revision for every save, a bin for what is deleted."""

from datetime import datetime, timedelta
from typing import Any, ClassVar, Self

from django.db import models, transaction
from django.utils import timezone

from bridle.server.house.clock import passed, stamp
from bridle.server.revisions import DAY, superfluous
from bridle.server.rows import PackedJSON

BIN_DAYS = 30
# Old revisions are thinned at every so many saves of a thing, and at each start.
THIN_EVERY = 20


class StaleError(Exception):
    """Someone else has saved in between; carries what is kept now."""

    def __init__(self, kept: "Kept") -> None:
        """Remember what is kept now."""
        super().__init__(f"version {kept.version} is newer")
        self.kept = kept


class Kept(models.Model):
    """Something a person made: it has a version that rises with every save, and can lie in the bin."""

    version = models.PositiveIntegerField(default=1)
    created_at = models.DateTimeField(default=timezone.now)
    changed_at = models.DateTimeField(default=timezone.now)
    binned_at = models.DateTimeField(null=True, blank=True)
    # The running time at which it came into the bin.
    binned_ran_s = models.FloatField(default=0.0)
    # The fields that a save may change and a revision keeps.
    CONTENT: ClassVar[tuple[str, ...]] = ()

    class Meta:
        """No table of its own."""

        abstract = True

    def save_from(self, version: int, **content: Any) -> Self:
        """Save content that was made from a version; keeps the old as a revision. Raises `StaleError`.

        What is kept already is no conflict, whatever version it was made from: the answer may have been lost.
        """
        with transaction.atomic():
            now = type(self)._default_manager.select_for_update().get(pk=self.pk)
            old = {name: getattr(now, name) for name in self.CONTENT}
            if all(old[name] == value for name, value in content.items()):
                return now
            if now.version != version:
                raise StaleError(now)
            Revision.objects.create(
                kind=now.kind_name(),
                kept_id=self.pk,
                version=now.version,
                made_at=now.changed_at,
                ran_s=stamp(),
                content=old,
            )
            for name, value in content.items():
                setattr(now, name, value)
            now.version += 1
            now.changed_at = timezone.now()
            now.save()
            if now.version % THIN_EVERY == 0:
                thin(now.revisions())
            return now

    @classmethod
    def kind_name(cls) -> str:
        """Under which name its revisions are kept."""
        return cls._meta.label_lower

    def revisions(self) -> models.QuerySet["Revision"]:
        """What it was before, newest first."""
        return Revision.objects.filter(kind=self.kind_name(), kept_id=self.pk).order_by("-version")

    def to_bin(self) -> None:
        """Put it into the bin; nothing is deleted."""
        type(self)._default_manager.filter(pk=self.pk).update(binned_at=timezone.now(), binned_ran_s=stamp())

    def back(self) -> None:
        """Take it out of the bin."""
        type(self)._default_manager.filter(pk=self.pk).update(binned_at=None)


class Revision(models.Model):
    """What a kept thing was before a save; `made_at` is when it had been saved, `ran_s` when it became a revision."""

    kind = models.CharField(max_length=60)
    kept_id = models.BigIntegerField()
    version = models.PositiveIntegerField()
    made_at = models.DateTimeField()
    ran_s = models.FloatField(default=0.0)
    content = PackedJSON()

    class Meta:
        """One row for each version of a thing."""

        app_label = "shoots"
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["kind", "kept_id", "version"], name="one_row_a_revision")
        ]


def thin(revisions: models.QuerySet[Revision], now: datetime | None = None) -> int:
    """Delete the revisions of one thing that are too many for their age; returns how many."""
    now = now or timezone.now()
    old = revisions.filter(made_at__lt=now - DAY).values_list("pk", "made_at")
    return Revision.objects.filter(passed("made_at"), pk__in=superfluous(old, now)).delete()[0]


def thin_all() -> int:
    """Thin the revisions of everything that is kept; returns how many were deleted."""
    before = timezone.now() - DAY
    things = Revision.objects.filter(made_at__lt=before).values_list("kind", "kept_id").distinct().order_by()
    return sum(thin(Revision.objects.filter(kind=kind, kept_id=number)) for kind, number in things)


def empty_bin(model: type[Kept]) -> int:
    """Delete for good what has lain in the bin for longer than it is kept there, its revisions too; returns how many.

    Runs and log entries hold what they need themselves, and stay.
    """
    before = timezone.now() - timedelta(days=BIN_DAYS)
    with transaction.atomic():
        old = model._default_manager.filter(passed("binned_at", "binned_ran_s"), binned_at__lt=before)
        gone = list(old.values_list("pk", flat=True))
        Revision.objects.filter(kind=model.kind_name(), kept_id__in=gone).delete()
        model._default_manager.filter(pk__in=gone).delete()
    return len(gone)
