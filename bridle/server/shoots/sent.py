"""What an evaluation is on its way to the page: figures without their workings, and less of it while one drags."""

import time
from dataclasses import dataclass
from typing import Any

from ninja import Schema

from bridle.core.chapters.beat.state import BeatDrawn
from bridle.core.chapters.clip.state import ClipState
from bridle.core.chapters.light.state import LightState
from bridle.core.chapters.move.state import Traces, ViewState
from bridle.core.chapters.season.state import SeasonState
from bridle.core.evaluate import ASIDE, dragged_windows
from bridle.core.evaluation import Evaluation
from bridle.core.figure import Figure
from bridle.core.plan.document import Plan
from bridle.core.snag import Slot, Work
from bridle.server.remembered import Remembered
from bridle.server.shoots.beside import given_kept, given_now
from bridle.server.shoots.models import Shoot
from bridle.server.shoots.runs import RUNS
from bridle.server.turns import turn

# While something is dragged, lines are drawn through so many points.
DRAGGED_POINTS = 120
MOST_BYTES = 32_000_000
DAY_S = 86_400


@dataclass(frozen=True, slots=True)
class Shown:
    """A figure as it stands on the sheet; its working is asked for by its key when it is opened."""

    label: str
    value: float
    unit: str
    exact: str | None = None


class Sent(Evaluation):
    """An evaluation whose figures come without their workings."""

    figures: dict[str, Shown]  # type: ignore[assignment]


class Noticed(Schema):
    """A snag without its fixes."""

    code: str
    severity: str
    chapter: str
    path: str
    what: str
    why: str
    slots: dict[str, Slot]
    short: str
    work: Work


class Brief(Schema):
    """What is drawn, and the figures that stand on the sheet: what is sent while something is dragged."""

    frames: int | None
    interval_s: float | None
    clip: ClipState
    beat: BeatDrawn | None
    traces: Traces | None
    view: ViewState | None
    light: LightState
    figures: dict[str, Shown]
    snags: list[Noticed]
    # What work windows come to, while they are what is dragged; None: as it was told last.
    season: SeasonState | None
    # The snags that were not looked for, by code or by chapter (“light/”): these stay as they were told last.
    aside: list[str]


def shown(figures: dict[str, Figure]) -> dict[str, Shown]:
    """The figures without their workings."""
    return {key: Shown(figure.label, figure.value, figure.unit, figure.exact) for key, figure in figures.items()}


def sent(evaluation: Evaluation) -> Sent:
    """An evaluation for the page."""
    parts: dict[str, Any] = {name: getattr(evaluation, name) for name in Evaluation.model_fields}
    return Sent.model_construct(**{**parts, "figures": shown(evaluation.figures)})


def brief(plan: Plan, lit: bool = False, windows: bool = False) -> Brief:
    """A plan evaluated for a drag; `lit` where the drawing of the light is to follow, `windows` the calendar."""
    if windows:
        evaluation = dragged_windows(plan, DRAGGED_POINTS)
    else:
        evaluation = RUNS.evaluate(plan, DRAGGED_POINTS, aside=False, lit=lit)
    parts: dict[str, Any] = {name: getattr(evaluation, name) for name in Brief.model_fields if name != "aside"}
    snags = [
        Noticed.model_construct(**{n: getattr(snag, n) for n in Noticed.model_fields}) for snag in evaluation.snags
    ]
    return Brief.model_construct(
        **{
            **parts,
            "figures": shown(evaluation.figures),
            "snags": snags,
            "season": evaluation.season if windows else None,
            "aside": list(ASIDE),
        }
    )


# A version of a shoot never changes, so what is sent of it is worked out once.
_REMEMBERED = Remembered(MOST_BYTES)


def sent_json(shoot: Shoot, plan: Plan) -> bytes:
    """What is sent of a kept version, as JSON."""
    # By the day too: a shoot that was to come may be past since; and by what the bench has proven.
    key = (shoot.pk, shoot.version, shoot.changed_at.timestamp(), int(time.time() // DAY_S), given_kept(plan))
    return _REMEMBERED.get(key, lambda: _worked_out(plan))


def _worked_out(plan: Plan) -> bytes:
    with turn(plan):
        return sent(evaluated(plan)).model_dump_json().encode()


def evaluated(plan: Plan) -> Evaluation:
    """What a plan comes to as it is asked now."""
    return RUNS.evaluate(plan, given=given_now(plan))
