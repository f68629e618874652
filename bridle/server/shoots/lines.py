"""The lines of the list: each worked out once for a version and kept with the shoot, each standing alone."""

import json
import logging
import math
import threading
import time
from collections.abc import Iterable
from datetime import UTC, datetime
from typing import Any, Literal, NamedTuple

import numpy as np
from django.db import DatabaseError, connection
from pydantic import ValidationError

from bridle.core.evaluate import evaluate
from bridle.core.evaluation import Evaluation
from bridle.core.plan.document import VERSION, Plan
from bridle.core.plan.upgrade import UpgradeError
from bridle.core.reckon.series import Series
from bridle.core.run.machine import ACTIVE, RunState
from bridle.core.subjects.numbers.thinning import kept_indices
from bridle.datafolder.health import why_not
from bridle.server.engine import engine
from bridle.server.rows import DAMAGED, UNFIT, Damaged, readable
from bridle.server.shoots.beside import given_kept
from bridle.server.shoots.models import Shoot
from bridle.server.shoots.schemas import LineNow, LineTold, WorstSnag
from bridle.server.turns import large
from bridle.server.worker import LINES, WORKER

LOG = logging.getLogger("bridle.shoots")
State = Literal["running", "planned", "rehearsed"]
MOST_POINTS, EVEN_POINTS = 100, 48
SHOWN = ("clip.interval", "clip.shoot", "clip.clip")
# A request works stale lines out for so long; what is left is done behind it.
AT_ONCE_S = 0.1
CANNOT = "This one cannot be worked out"


def summary_of(shoot: Shoot) -> str:
    """From which version, and by which rules, a line of a shoot would be worked out now."""
    return f"{shoot.version} {engine()}"


def refresh(shoot: Shoot) -> None:
    """Work out the line of a shoot and keep it; it says so itself where that cannot be done."""
    shoot.summary, shoot.summary_of = _told(shoot).model_dump_json(), summary_of(shoot)
    # By version, since somebody may have saved meanwhile; the version itself stays.
    kept = Shoot.objects.filter(pk=shoot.pk, version=shoot.version)
    try:
        kept.update(summary=shoot.summary, summary_of=shoot.summary_of)
    except DatabaseError:
        LOG.warning("the line of shoot %s cannot be kept; it is worked out again", shoot.pk)


def _told(shoot: Shoot) -> LineTold:
    try:
        plan = shoot.read()
        return _worked_out(shoot, plan, evaluate(plan, given=given_kept(plan)))
    except (ValidationError, UpgradeError):
        return _broken(shoot, f"{CANNOT}: its plan has values that this Bridle does not know. {_newer(shoot)}".strip())
    except Exception:
        LOG.exception("shoot %s cannot be worked out", shoot.pk)
        return _broken(shoot, f"{CANNOT}: the fault is Bridle's. Its plan is whole, and can be taken along.")


def _newer(shoot: Shoot) -> str:
    version = shoot.plan.get("bridle_plan") if isinstance(shoot.plan, dict) else None
    return "It was written by a newer Bridle." if isinstance(version, int) and version > VERSION else ""


def _broken(shoot: Shoot, said: str) -> LineTold:
    return LineTold(id=shoot.pk, name=shoot.name, broken=said)


def _worked_out(shoot: Shoot, plan: Plan, evaluation: Evaluation) -> LineTold:
    values = {quantity.quantity: quantity.value for quantity in evaluation.clip.quantities}
    solved, worst = evaluation.frames is not None, evaluation.snags[0] if evaluation.snags else None
    return LineTold(
        id=shoot.pk,
        name=shoot.name,
        place=plan.shoot.place.name,
        zone=plan.shoot.place.zone,
        start=_start(evaluation, plan.shoot.clock.at),
        frames=evaluation.frames,
        interval_s=evaluation.interval_s,
        shoot_s=values["shoot"] if solved else None,
        clip_s=values["clip"] if solved else None,
        rate=values["rate"] if solved else None,
        worst=WorstSnag(severity=worst.severity, what=worst.what, slots=worst.slots) if worst else None,
        ready=evaluation.review.ready,
        figures=tuple(evaluation.figures[key] for key in SHOWN if solved and key in evaluation.figures),
        traces=_small(evaluation),
    )


def _start(evaluation: Evaluation, held: datetime) -> datetime:
    """When the first frame is taken; what the clock holds while the clip is open."""
    first = evaluation.figures.get("time.first")
    return datetime.fromtimestamp(first.value, UTC) if first else held


def _small(evaluation: Evaluation) -> dict[str, Series]:
    """The moves for a drawing of two inches: what the eye would miss is left out, extremes are not."""
    return {name: _smaller(series) for name, series in evaluation.traces.axes.items()} if evaluation.traces else {}


def _smaller(series: Series) -> Series:
    values = np.array(series.values)
    if len(values) <= MOST_POINTS:
        picked = np.arange(len(values))
    else:
        even = np.linspace(0, len(values) - 1, EVEN_POINTS).astype(int)
        picked = np.union1d(kept_indices(values, MOST_POINTS // 2), even)
    frames = np.array(series.frames or range(len(values)))
    return Series(
        frames=tuple(frames[picked].tolist()) if len(values) > 1 else (),
        values=tuple(np.round(values[picked], 2).tolist()),
    )


def lines(shoots: Iterable[Shoot | Damaged]) -> list[bytes]:
    """Each shoot's line as JSON; the runs should have been prefetched. What is out of date is said to be."""
    until = time.monotonic() + AT_ONCE_S
    told = [_line(shoot, until) for shoot in shoots]
    if any(line.waits for line in told):
        WORKER.wake(LINES)
    return [line.text for line in told]


class _Line(NamedTuple):
    text: bytes
    waits: bool = False


def _line(shoot: Shoot | Damaged, until: float) -> _Line:
    if isinstance(shoot, Damaged):
        return _Line(damaged_line(shoot.pk))
    try:
        return _line_of(shoot, until)
    except UNFIT:
        LOG.exception("the line of shoot %s cannot be read", shoot.pk)
        return _Line(damaged_line(shoot.pk, shoot.name))


def damaged_line(pk: int, name: str = "") -> bytes:
    """The line of a shoot whose row cannot be read."""
    now = LineNow(state="planned", taken=None, rehearsed_at=None, changed_since=False, stale=False, binned_at=None,
                  past=False, damaged=True)  # fmt: skip
    return _joined(LineTold(id=pk, name=name or f"Shoot number {pk}", broken=DAMAGED).model_dump_json(), now)


def _soon(shoot: Shoot) -> bool:
    """Whether a line is worked out quickly enough for a request to wait for it."""
    try:
        return not large(shoot.read())
    except UNFIT:
        return True


def _line_of(shoot: Shoot, until: float) -> _Line:
    told = _kept_line(shoot)
    fresh = shoot.summary_of == summary_of(shoot) and told is not None
    if not fresh and time.monotonic() < until and _soon(shoot):
        refresh(shoot)
        told, fresh = _kept_line(shoot), True
    summary = shoot.summary
    if told is None:
        summary = LineTold(id=shoot.pk, name=shoot.name).model_dump_json()
    progress = _progress(shoot)
    since = progress.rehearsed_at is not None and shoot.changed_at > progress.rehearsed_at
    past = _ended(told or {}) < time.time()
    now = LineNow(**progress._asdict(), changed_since=since, stale=not fresh, binned_at=shoot.binned_at, past=past)
    return _Line(_joined(summary, now), waits=not fresh)


def _joined(told: str, now: LineNow) -> bytes:
    """What was kept is JSON already: what holds only now is put in at its end."""
    return (told[:-1] + "," + now.model_dump_json()[1:]).encode()


def _kept_line(shoot: Shoot) -> dict[str, Any] | None:
    """The line that is kept with a shoot; None where there is none, or it is damaged."""
    try:
        told = json.loads(shoot.summary)
        LineTold.model_validate(told)
    except ValueError:
        return None
    return told if shoot.summary.startswith("{") and shoot.summary.endswith("}") else None


def _ended(told: dict[str, Any]) -> float:
    """When the last frame of a shoot was to be taken, as Unix time; never, while nobody knows."""
    if not told.get("start") or told.get("shoot_s") is None:
        return math.inf
    return float(datetime.fromisoformat(told["start"]).timestamp() + told["shoot_s"])


class Progress(NamedTuple):
    """How far a shoot has come: its state, the frames taken by its last run, and when that was a whole rehearsal."""

    state: State
    taken: int | None
    rehearsed_at: datetime | None


def _progress(shoot: Shoot) -> Progress:
    """Running while a run is under way, rehearsed when the last one took every frame, else planned.

    Every run is on the stand-ins: none of them is the shoot itself.
    """
    runs = [(run, state) for run in sorted(shoot.runs.all(), key=lambda run: run.pk) if (state := _state(run))]
    running = next((state for _, state in runs if state.phase in ACTIVE), None)
    if running:
        return Progress("running", running.taken, None)
    ended = [(run, state) for run, state in runs if run.ended_at]
    if not ended:
        return Progress("planned", None, None)
    last, state = ended[-1]
    if state.phase != "finished":
        return Progress("planned", state.taken, None)
    return Progress("rehearsed", state.taken, last.ended_at)


def _state(run: Any) -> RunState | None:
    """Where a run is; None for one that is damaged, which says so among the runs."""
    try:
        return run.read_state()  # type: ignore[no-any-return]
    except UNFIT:
        return None


def redo_all(wanted: threading.Event) -> None:
    """Work out whatever line is out of date, each time it is wanted: in the process for long work, one by one."""
    while True:
        wanted.wait()
        wanted.clear()
        try:
            redo()
        except DatabaseError as error:
            LOG.warning("the lines of the list wait: %s", why_not(error)[1])
        except Exception:
            LOG.exception("the lines of the list wait")
        finally:
            connection.close()


def redo() -> int:
    """Work out the lines that are out of date; returns how many."""
    done = 0
    for pk in outdated():
        for shoot in readable(Shoot.objects.filter(pk=pk)):
            refresh(shoot)
            done += 1
    return done


def outdated() -> list[int]:
    """The shoots whose line is out of date, those that were changed last first."""
    rules = engine()
    told = Shoot.objects.order_by("-changed_at").values_list("pk", "version", "summary_of")
    return [pk for pk, version, of in told if of != f"{version} {rules}"]
