"""Keeping things: versions against silent overwriting, a revision for every save, a bin for what is deleted."""

from datetime import timedelta
from typing import Any, ClassVar, Self

from django.db import models, transaction
from django.utils import timezone

BIN_DAYS = 30


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
    # The fields that a save may change and a revision keeps.
    CONTENT: ClassVar[tuple[str, ...]] = ()

    class Meta:
        """No table of its own."""

        abstract = True

    def save_from(self, version: int, **content: Any) -> Self:
        """Save content that was made from a version; keeps the old as a revision. Raises `StaleError`."""
        with transaction.atomic():
            now = type(self)._default_manager.select_for_update().get(pk=self.pk)
            if now.version != version:
                raise StaleError(now)
            old = {name: getattr(now, name) for name in self.CONTENT}
            if all(old[name] == value for name, value in content.items()):
                return now
            Revision.objects.create(
                kind=self._meta.label_lower, kept_id=self.pk, version=now.version, made_at=now.changed_at, content=old
            )
            for name, value in content.items():
                setattr(now, name, value)
            now.version += 1
            now.changed_at = timezone.now()
            now.save()
            return now

    def to_bin(self) -> None:
        """Put it into the bin; nothing is deleted."""
        type(self)._default_manager.filter(pk=self.pk).update(binned_at=timezone.now())

    def back(self) -> None:
        """Take it out of the bin."""
        type(self)._default_manager.filter(pk=self.pk).update(binned_at=None)


class Revision(models.Model):
    """What a kept thing was before a save."""

    kind = models.CharField(max_length=60)
    kept_id = models.BigIntegerField()
    version = models.PositiveIntegerField()
    made_at = models.DateTimeField()
    content = models.JSONField()

    class Meta:
        """One row for each version of a thing."""

        app_label = "shoots"
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["kind", "kept_id", "version"], name="one_row_a_revision")
        ]


def empty_bin(model: type[Kept]) -> int:
    """Delete for good what has lain in the bin for longer than it is kept there; returns how many."""
    before = timezone.now() - timedelta(days=BIN_DAYS)
    return model._default_manager.filter(binned_at__lt=before).delete()[0]
