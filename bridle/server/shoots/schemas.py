"""What the shoots' API takes and gives."""

from datetime import datetime
from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field

from bridle.core.changes import AnyChange
from bridle.core.chapters.sides import Side
from bridle.core.evaluation import Evaluation, Traces
from bridle.core.figure import Figure
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.values import Instant, Line, Name, Zone
from bridle.core.snag import Snag


class NewShoot(Schema):
    """The three questions: what it is called, what is filmed, where and when."""

    name: Name
    subject: Line = ""
    place: Line = ""
    zone: Zone = "UTC"
    start: Instant


class Opened(Schema):
    """A kept shoot with its plan and all that follows from it."""

    id: int
    version: int
    changed_at: datetime
    binned: bool
    plan: Plan
    evaluation: Evaluation


class Save(Schema):
    """A plan to keep, and the version it was made from."""

    version: int
    plan: Plan


class Saved(Schema):
    """The version that is kept now."""

    version: int
    changed_at: datetime


class Stale(Schema):
    """Someone else saved in between: what is kept now, and how it differs from what was sent."""

    message: str
    kept: Opened
    differences: list[Edit]
    sides: list[Side]


class Ask(Schema):
    """A plan and the changes to make to it, one after another."""

    plan: Plan
    changes: Annotated[tuple[AnyChange, ...], Field(max_length=50)] = ()


class Told(Schema):
    """The changed plan, the edits that undo the changes, and the evaluation."""

    plan: Plan
    undo: list[Edit]
    evaluation: Evaluation


class AskFrame(Schema):
    """A plan, and the frame (0-based) that is looked at."""

    plan: Plan
    frame: Annotated[int, Field(ge=0, le=10_000_000)]


class FrameTold(Schema):
    """When a frame is taken and where the axes stand, with the working."""

    figures: list[Figure]


class ShootLine(Schema):
    """A shoot in the list."""

    id: int
    name: str
    place: str
    zone: str
    start: datetime
    state: Literal["running", "planned", "done"]
    frames: int | None
    interval_s: float | None
    shoot_s: float | None
    clip_s: float | None
    rate: float | None
    taken: int | None
    worst: Snag | None
    figures: list[Figure]
    traces: Traces | None
    binned_at: datetime | None


class ShootList(Schema):
    """The shoots that were found, and how many lie in the bin."""

    shoots: list[ShootLine]
    in_bin: int
    bin_days: int


class StartingPointLine(Schema):
    """A subject, the interval that suits it from low to high, and why."""

    key: str
    name: str
    low_s: int
    high_s: int
    reason: str


class Done(Schema):
    """A plain answer."""

    id: int
