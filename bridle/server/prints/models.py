"""A print as it is kept: where its file lies, what was read of it; and the long work that is done on it."""

import shutil
from pathlib import Path
from typing import ClassVar

from django.conf import settings
from django.db import models
from django.utils import timezone

from bridle.server.shoots.models import Shoot

UNFINISHED = ("waiting", "running")


class Print(models.Model):
    """A file: `arriving` until all its bytes are here, then it is read. `facts` are what a plan takes of it."""

    shoot = models.ForeignKey(Shoot, on_delete=models.SET_NULL, null=True, related_name="prints")
    name = models.CharField(max_length=120)
    size = models.PositiveBigIntegerField()
    digest = models.CharField(max_length=64, blank=True, default="")
    state = models.CharField(max_length=12, default="arriving")
    said = models.TextField(blank=True, default="")
    facts = models.JSONField(null=True)
    demo = models.CharField(max_length=60, blank=True, default="")
    made_at = models.DateTimeField(default=timezone.now)

    @property
    def folder(self) -> Path:
        """Where its files lie."""
        return Path(settings.DATA) / "prints" / str(self.pk)

    @property
    def original(self) -> Path:
        """The file as it came."""
        return self.folder / "original.gcode"

    @property
    def arriving(self) -> Path:
        """The bytes that are here so far."""
        return self.folder / "arriving.half"

    @property
    def picture(self) -> Path:
        """Its paths, thinned, for drawing."""
        return self.folder / "picture.npz"

    def made(self, kind: str) -> Path:
        """The changed file, or the trial."""
        return self.folder / f"{kind}.gcode"

    def throw_away(self) -> None:
        """Take it and its files away for good."""
        folder = self.folder
        self.delete()
        shutil.rmtree(folder, ignore_errors=True)


class Work(models.Model):
    """Something long that is done on a print: what, on which plan, how far it is, and what came of it."""

    print = models.ForeignKey(Print, on_delete=models.CASCADE, related_name="works")
    kind = models.CharField(max_length=12)
    plan = models.JSONField(null=True)
    of = models.CharField(max_length=16, blank=True, default="")
    state = models.CharField(max_length=12, default="waiting")
    doing = models.CharField(max_length=80, blank=True, default="")
    done = models.PositiveBigIntegerField(default=0)
    out_of = models.PositiveBigIntegerField(default=0)
    asked_stop = models.BooleanField(default=False)
    said = models.TextField(blank=True, default="")
    result = models.JSONField(null=True)
    made_at = models.DateTimeField(default=timezone.now)
    ended_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        """A print has one piece of work under way at the most."""

        constraints: ClassVar = [
            models.UniqueConstraint(
                fields=["print"], condition=models.Q(state__in=UNFINISHED), name="one_work_under_way"
            )
        ]
