"""What the bench's API takes and tells."""

from datetime import datetime
from typing import Literal

from ninja import Schema
from pydantic import Field

from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.frames import Layers
from bridle.core.plan.printing import PrintFile
from bridle.core.snag import Slot

Kind = Literal["read", "change", "trial", "prove"]


class FixTold(Schema):
    """What can be done about a failure."""

    label: str
    consequence: str
    slots: dict[str, Slot]
    edits: tuple[Edit, ...]


class FailureTold(Schema):
    """What a proof found wrong, with its line, the layer, and where the nozzle was."""

    kind: str
    said: str
    why: str
    line: int
    layer: int | None
    at: tuple[float, ...] | None
    fixes: tuple[FixTold, ...] = ()


class ProofTold(Schema):
    """How a proof came out."""

    stands: Literal["proven", "incomplete", "failed"]
    said: str
    failures: tuple[FailureTold, ...]
    failed: int
    # What is no fault; proofs that were kept before this was told have none.
    minds: tuple[FailureTold, ...] = ()
    unknown: tuple[str, ...]
    presses: int
    due: int
    stopped_s: float
    longest_wait_s: float
    longest_wait_line: int
    pauses: tuple[int, ...]
    bytes: int
    # Of the file that was proven; earlier proofs were kept without.
    digest: str = ""


class WorkTold(Schema):
    """A piece of work: how far it is, or what came of it."""

    id: int
    kind: Kind
    of: str
    state: Literal["waiting", "running", "done", "stopped", "failed"]
    doing: str
    done: int
    out_of: int
    said: str
    result: ProofTold | None
    made_at: datetime
    ended_at: datetime | None


class Facts(Schema):
    """What was read of a file."""

    file: PrintFile
    frames: Layers | None
    seconds: float
    purge_mm: float


class PrintLine(Schema):
    """A print in the list; `here` are the bytes that have arrived, `twin` an older one with the very same bytes."""

    id: int
    name: str
    digest: str
    size: int
    here: int
    state: Literal["asleep", "arriving", "reading", "read", "refused", "damaged"]
    said: str
    twin: str
    shoot_id: int | None
    shoot_name: str
    made_at: datetime
    layers: int | None
    height_mm: float | None
    seconds: float | None
    works: tuple[WorkTold, ...]


class PrintTold(PrintLine):
    """A print with what was read of it."""

    facts: Facts | None


class NewPrint(Schema):
    """A file that is about to come."""

    name: str
    size: int
    shoot_id: int | None = None


class Arrived(Schema):
    """How many bytes are here."""

    here: int


class AskWork(Schema):
    """Work on a print, with the plan as it stands; `beside` is the print whose file a proof is held against."""

    kind: Kind
    plan: Plan | None = None
    beside: int | None = None


class PathsTold(Schema):
    """How the paths of a print are cut into layers: corners a layer; the ways before the first and after the last.

    The corners themselves come as 16-bit numbers, x, y and whether it is printed up to there, in `unit_mm`.
    """

    counts: tuple[int, ...]
    start: tuple[tuple[float, ...], ...]
    end: tuple[tuple[float, ...], ...]
    unit_mm: float


class AskClick(Schema):
    """A jog of the simulated printer: how its axis is made, where the head stands, how far it is to go."""

    low: float = Field(ge=-2000, le=2000)
    high: float = Field(ge=-2000, le=2000)
    side: Literal["low", "high"]
    beyond: float = Field(gt=0, le=100)
    lets_go: float = Field(gt=0, le=100)
    seed: int = Field(ge=0, le=2**31)
    at: float = Field(ge=-4000, le=4000)
    by: float = Field(ge=-500, le=500)
    down: bool = False
    broken: bool = False


class ClickTold(Schema):
    """Where the head stands then, and what was heard."""

    at: float
    heard: Literal["nothing", "click", "let go", "broken", "limit"]
    down: bool
