"""Runs with their events, the devices' own memory, and the logbook."""

import json
from dataclasses import asdict, fields
from typing import ClassVar

from django.db import models
from django.utils import timezone
from pydantic import TypeAdapter

from bridle.core.plan.document import Plan
from bridle.core.plan.upgrade import plan_from
from bridle.core.run.machine import ACTIVE, RunState
from bridle.server.keeping import Kept
from bridle.server.rows import UNFIT, KeptJSON
from bridle.server.shoots.models import Shoot

AS_FAST_AS_IT_GOES = 0

# What every state has had from the first version on; what came later begins with its default.
LEAST = {"phase", "taken"}
STATE = {field.name: field for field in fields(RunState)}
STATE_READ = TypeAdapter(RunState)


def ready() -> dict[str, object]:
    """The state of a run that has not been started, as JSON."""
    return asdict(RunState())


class Run(models.Model):
    """One run of a plan, which it keeps a copy of: it outlives its shoot. `now_s` is simulated time at `saved_at`."""

    shoot = models.ForeignKey(Shoot, on_delete=models.SET_NULL, null=True, related_name="runs")
    plan = KeptJSON()
    state = KeptJSON(default=ready)
    now_s = models.FloatField(default=0.0)
    speed = models.PositiveIntegerField(default=60)
    asked = KeptJSON(default=list)
    events_count = models.PositiveIntegerField(default=0)
    frames = models.PositiveIntegerField()
    # Under which weather the stand-in camera takes its pictures.
    weather = models.CharField(max_length=20, default="as planned")
    # Whether somebody comes to it as it is planned, or only when a person ticks a visit off.
    comes = models.BooleanField(default=True)
    made_at = models.DateTimeField(default=timezone.now)
    saved_at = models.DateTimeField(default=timezone.now)
    ended_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        """A shoot has one run under way at the most."""

        constraints: ClassVar = [
            models.UniqueConstraint(fields=["shoot"], condition=models.Q(ended_at=None), name="one_run_under_way")
        ]

    def read_plan(self) -> Plan:
        """The plan that is run."""
        return plan_from(self.plan)

    def read_state(self) -> RunState:
        """Where the run is. Raises a ValueError where that cannot be told from what is kept."""
        kept = self.state
        if not isinstance(kept, dict) or not kept.keys() >= LEAST or kept.keys() - STATE.keys():
            raise ValueError(f"the state of run {self.pk} is damaged")
        return STATE_READ.validate_json(json.dumps(kept), strict=True)

    @property
    def wishes(self) -> list[str]:
        """What was asked for and is not done yet, oldest first."""
        return [one for one in self.asked if isinstance(one, str)] if isinstance(self.asked, list) else []

    @property
    def damaged(self) -> bool:
        """Whether it cannot be told any more where it is, or of what plan it is."""
        try:
            self.read_state()
            self.read_plan()
        except UNFIT:
            return True
        return False

    @property
    def active(self) -> bool:
        """Whether the run has been started and has not ended."""
        return self.read_state().phase in ACTIVE


class RunEvent(models.Model):
    """An entry of the event log, in simulated seconds since the start."""

    run = models.ForeignKey(Run, on_delete=models.CASCADE, related_name="events")
    number = models.PositiveIntegerField()
    at_s = models.FloatField()
    kind = models.CharField(max_length=20)
    frame = models.PositiveIntegerField(null=True)
    seconds = models.FloatField(null=True)
    said = models.CharField(max_length=160, blank=True, default="")

    class Meta:
        """Numbered without gaps; a frame is taken once."""

        ordering: ClassVar = ["number"]
        constraints: ClassVar = [
            models.UniqueConstraint(fields=["run", "number"], name="events_numbered_once"),
            models.UniqueConstraint(fields=["run", "frame"], condition=models.Q(kind="taken"), name="frame_taken_once"),
        ]


class StandInCamera(models.Model):
    """The simulated camera's own card: it is written when the shutter closes, before the run hears of it."""

    run = models.OneToOneField(Run, on_delete=models.CASCADE, related_name="camera")
    frames = models.PositiveIntegerField(default=0)


class LogEntry(Kept):
    """One entry of the logbook: what was planned, what was taken, and a note."""

    run = models.OneToOneField(Run, on_delete=models.SET_NULL, null=True, related_name="entry")
    name = models.CharField(max_length=120)
    outcome = models.CharField(max_length=20)
    planned_frames = models.PositiveIntegerField()
    taken_frames = models.PositiveIntegerField()
    planned_s = models.FloatField()
    taken_s = models.FloatField()
    delayed_s = models.FloatField()
    late_frames = models.PositiveIntegerField()
    restarts = models.PositiveIntegerField()
    clip_planned_s = models.FloatField()
    clip_taken_s = models.FloatField()
    # Pictures that make one frame of the clip: the places of a cycle.
    visits = models.PositiveIntegerField(default=1)
    note = models.TextField(blank=True, default="")
    CONTENT: ClassVar[tuple[str, ...]] = ("note",)
