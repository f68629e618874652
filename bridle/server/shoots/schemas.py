"""What the shoots' API takes and gives."""

from datetime import datetime
from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field

from bridle.core.asks.changes import AnyChange
from bridle.core.chapters.review.state import Readiness
from bridle.core.figure import Figure
from bridle.core.lists.sides import Side
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.shoot import ShootKind
from bridle.core.reckon.series import Series
from bridle.core.snag import Slot
from bridle.core.values import Instant, Line, Name, Zone
from bridle.server.shoots.sent import Brief, Sent


class NewShoot(Schema):
    """The three questions: what it is called, what is filmed, where and when; and what kind of shoot it is."""

    kind: ShootKind = "slide"
    name: Name
    subject: Line = ""
    place: Line = ""
    zone: Zone = "UTC"
    start: Instant


class Opened(Schema):
    """A kept shoot with its plan and all that follows from it; `data` is the identity of the data that it lies in.

    `changed` are the figures that are others now than in the older version of Bridle that wrote the plan.
    """

    id: int
    identity: str
    data: str
    version: int
    changed_at: datetime
    binned: bool
    changed: list[str]
    plan: Plan
    evaluation: Sent


class Save(Schema):
    """A plan to keep, the version it was made from, and of which shoot it is, whatever its number."""

    version: int
    plan: Plan
    identity: Annotated[str, Field(max_length=40)] = ""


class UpgradedPlan(Schema):
    """A plan of any version as one of today's, and the figures that are others now."""

    plan: Plan
    changed: list[str]


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


class AskDrag(Ask):
    """The same while something is dragged; `lit` where the drawing of the light follows, `windows` the calendar."""

    lit: bool = False
    windows: bool = False


class Told(Schema):
    """The changed plan, the edits that undo the changes, and the evaluation."""

    plan: Plan
    undo: list[Edit]
    evaluation: Sent


class Dragged(Schema):
    """The changed plan, the edits that undo the changes, and what is drawn while one drags."""

    plan: Plan
    undo: list[Edit]
    brief: Brief


class AskWorking(Schema):
    """A plan, and the key of a figure of its evaluation."""

    plan: Plan
    key: Annotated[str, Field(max_length=200)]


class AskFrame(Schema):
    """A plan, and the frame (0-based) that is looked at."""

    plan: Plan
    frame: Annotated[int, Field(ge=0, le=10_000_000)]


class AskForesee(Schema):
    """A plan whose fixes are looked at before one is taken."""

    plan: Plan


class BroughtLine(Schema):
    """A snag that a fix would bring."""

    code: str
    severity: str
    what: str
    slots: dict[str, Slot]


class ForeseenLine(Schema):
    """Of a snag: what each of its fixes would bring, and whether less is wrong afterwards, in their order."""

    code: str
    path: str
    brings: list[list[BroughtLine]]
    helps: list[bool]


class FrameTold(Schema):
    """When a frame is taken and where the axes stand, with the working."""

    figures: list[Figure]


class WorstSnag(Schema):
    """The snag that a line of the list names."""

    severity: str
    what: str
    slots: dict[str, Slot]


class LineTold(Schema):
    """What of a line follows from the plan. `broken` says why a shoot cannot be worked out."""

    id: int
    name: str
    place: str = ""
    zone: str = "UTC"
    start: datetime | None = None
    frames: int | None = None
    interval_s: float | None = None
    shoot_s: float | None = None
    clip_s: float | None = None
    rate: float | None = None
    worst: WorstSnag | None = None
    ready: Readiness | None = None
    figures: tuple[Figure, ...] = ()
    # The moves drawn small, by axis.
    traces: dict[str, Series] = Field(default_factory=dict)
    broken: str = ""


class LineNow(Schema):
    """What of a line holds only now; `stale` says that the rest of it is being worked out, anew or for the first time.

    `rehearsed_at` is when its last run took every frame on the stand-ins; `changed_since` whether the plan has
    changed after that; `past` whether its last frame was to be taken before now.
    """

    state: Literal["running", "planned", "rehearsed"]
    taken: int | None
    rehearsed_at: datetime | None
    changed_since: bool
    stale: bool
    binned_at: datetime | None
    past: bool
    # Its row cannot be read: its text can be taken along.
    damaged: bool = False


class ShootLine(LineTold, LineNow):
    """A shoot in the list."""


class ShootList(Schema):
    """The shoots that were found, and how many lie in the bin."""

    shoots: list[ShootLine]
    in_bin: int
    bin_days: int


class PlanThen(Schema):
    """A plan as it was once, and what follows from it."""

    version: int
    made_at: datetime
    plan: Plan
    evaluation: Sent


class BringBack(Schema):
    """The plan as it stands, to be brought back to what it was."""

    plan: Plan


class Back(Schema):
    """The edits that make a plan into what it was, and where the two differ."""

    edits: list[Edit]
    sides: list[Side]


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
