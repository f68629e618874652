"""A print as it is kept: where its file lies, what was read of it; and the long work that is done on it."""

import secrets
import shutil
from pathlib import Path
from typing import ClassVar

from django.conf import settings
from django.db import models
from django.utils import timezone

from bridle.server.house.clock import stamp
from bridle.server.rows import KeptJSON
from bridle.server.shoots.models import Shoot

PRINTS = "prints"
# What a job leaves in a print's folder when its process is killed.
HALF = ("*.half", "*.half.npz", "*.cut")
# So many times the size of a file must be free for it and for what is made of it.
ROOM = 4
UNFINISHED = ("waiting", "running")


def new_key() -> str:
    """A name for a folder that no print ever had."""
    return f"p{secrets.token_hex(8)}"


class Print(models.Model):
    """A file: `arriving` until all its bytes are here, then it is read. `facts` are what a plan takes of it.

    The row says what is so, the folder only holds it: a step that was cut off between the two is made up for from
    the row. `key` names the folder, so that the folder of a number that is used again is never taken for this one.
    `touched_at` is when its last bytes came, at the running time `ran_s`.
    """

    shoot = models.ForeignKey(Shoot, on_delete=models.SET_NULL, null=True, related_name="prints")
    name = models.CharField(max_length=120)
    size = models.PositiveBigIntegerField()
    digest = models.CharField(max_length=64, blank=True, default="")
    state = models.CharField(max_length=12, default="arriving")
    said = models.TextField(blank=True, default="")
    facts = KeptJSON(null=True)
    key = models.CharField(max_length=40, default=new_key)
    demo = models.CharField(max_length=60, blank=True, default="")
    made_at = models.DateTimeField(default=timezone.now)
    touched_at = models.DateTimeField(default=timezone.now)
    ran_s = models.FloatField(default=stamp)

    @property
    def folder(self) -> Path:
        """Where its files lie."""
        return Path(settings.DATA) / PRINTS / self.key

    @property
    def original(self) -> Path:
        """The file as it came."""
        return self.folder / "original.gcode"

    @property
    def arriving(self) -> Path:
        """The bytes that are here so far."""
        return self.folder / "arriving.half"

    @property
    def whole(self) -> Path:
        """The file once all of it is here, whether it has its name already or not."""
        return self.arriving if self.state != "arriving" and not self.original.exists() else self.original

    @property
    def picture(self) -> Path:
        """Its paths, thinned, for drawing."""
        return self.folder / "picture.npz"

    def settle(self) -> None:
        """Give the bytes their name once the row says that they are all here; a cut before this is made up for."""
        if self.original.exists():
            self.arriving.unlink(missing_ok=True)
        elif self.arriving.exists():
            self.arriving.replace(self.original)

    def clear_halves(self) -> None:
        """Take away what a job that was killed has left."""
        for pattern in HALF:
            for half in self.folder.glob(pattern):
                if half != self.arriving:
                    half.unlink(missing_ok=True)

    def last_done(self, kind: str) -> "Work | None":
        """The last work of a kind that was done."""
        return self.works.filter(kind=kind, state="done").order_by("-pk").first()

    def clear_older(self, done: "Work") -> None:
        """Take away what earlier work of the same kind had made."""
        for file in self.folder.glob(f"{done.kind}*.gcode"):
            if file != done.file:
                file.unlink(missing_ok=True)

    def throw_away(self) -> None:
        """Take it and its files away for good."""
        folder = self.folder
        self.delete()
        shutil.rmtree(folder, ignore_errors=True)


class Work(models.Model):
    """Something long that is done on a print: what, on which plan, how far it is, and what came of it."""

    print = models.ForeignKey(Print, on_delete=models.CASCADE, related_name="works")
    kind = models.CharField(max_length=12)
    plan = KeptJSON(null=True)
    # What a file that came with stops is held against.
    beside = models.ForeignKey(Print, on_delete=models.SET_NULL, null=True, related_name="+")
    of = models.CharField(max_length=16, blank=True, default="")
    state = models.CharField(max_length=12, default="waiting")
    doing = models.CharField(max_length=80, blank=True, default="")
    done = models.PositiveBigIntegerField(default=0)
    out_of = models.PositiveBigIntegerField(default=0)
    asked_stop = models.BooleanField(default=False)
    said = models.TextField(blank=True, default="")
    result = KeptJSON(null=True)
    made_at = models.DateTimeField(default=timezone.now)
    ended_at = models.DateTimeField(null=True, blank=True)
    # How often its process has died over it.
    deaths = models.PositiveIntegerField(default=0)

    @property
    def makes(self) -> Path:
        """What it makes: named by its own number, so that a file is never taken for that of another proof."""
        return self.print.folder / f"{self.kind}-{self.pk}.gcode"

    @property
    def file(self) -> Path:
        """What it made; earlier versions of Bridle had one name for all of a kind."""
        before = self.print.folder / f"{self.kind}.gcode"
        return before if before.exists() and not self.makes.exists() else self.makes

    class Meta:
        """A print has one piece of work under way at the most."""

        constraints: ClassVar = [
            models.UniqueConstraint(
                fields=["print"], condition=models.Q(state__in=UNFINISHED), name="one_work_under_way"
            )
        ]
