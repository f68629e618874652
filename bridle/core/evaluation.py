"""The evaluation: all that a plan tells, gathered from the chapters' own states."""

from pydantic import BaseModel, ConfigDict

from bridle.core.chapters.beat.state import BeatDrawn, BeatOf, SchoolState
from bridle.core.chapters.clip.state import ClipState
from bridle.core.chapters.light.state import LightState
from bridle.core.chapters.move.state import Traces, ViewState
from bridle.core.chapters.printing.state import PrintingState
from bridle.core.chapters.review.state import ReviewState
from bridle.core.chapters.rig.state import DriveState, RigDrawn
from bridle.core.chapters.season.state import SeasonState
from bridle.core.chapters.trigger.state import TriggerState
from bridle.core.figure import Figure
from bridle.core.lists.origins import Origin
from bridle.core.plan.rig import AxisName
from bridle.core.snag import Snag


class Evaluation(BaseModel):
    """Everything about a shoot. Figures by key; snags with the worst first; `stalls_at` is a frame (0-based).

    `standing` are the chapters and leaves, of those that are folded away otherwise, that this shoot has a use for.

    `programmed` are the axes that a controller's program moves, `marked` those that a hand sets.
    """

    model_config = ConfigDict(frozen=True)

    frames: int | None
    interval_s: float | None
    clip: ClipState
    beat: BeatDrawn | None
    beats: tuple[BeatOf, ...]
    schools: tuple[SchoolState, ...]
    stalls_at: int | None
    rig: RigDrawn | None
    drives: tuple[DriveState, ...]
    standing: tuple[str, ...]
    programmed: tuple[AxisName, ...]
    marked: tuple[AxisName, ...]
    letters: dict[str, str]
    ways: dict[str, str]
    lacks: tuple[str, ...]
    level: tuple[tuple[float, ...], ...]
    traces: Traces | None
    view: ViewState | None
    light: LightState
    trigger: TriggerState
    printing: PrintingState
    season: SeasonState
    review: ReviewState
    origins: dict[str, Origin]
    figures: dict[str, Figure]
    snags: tuple[Snag, ...]
