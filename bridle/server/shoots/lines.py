"""The lines of the list: each worked out once for a version and kept with the shoot, each standing alone."""

import json
import logging
import math
import queue
import threading
import time
from collections.abc import Iterable
from datetime import UTC, datetime
from typing import Literal, NamedTuple

import numpy as np
from django.db import DatabaseError, connection
from pydantic import ValidationError

from bridle.core.evaluate import evaluate
from bridle.core.evaluation import Evaluation
from bridle.core.plan.document import VERSION, Plan
from bridle.core.plan.upgrade import UpgradeError
from bridle.core.reckon.series import Series
from bridle.core.subjects.numbers.thinning import kept_indices
from bridle.server.engine import engine
from bridle.server.shoots.models import Shoot
from bridle.server.shoots.schemas import LineNow, LineTold, WorstSnag

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
        return _worked_out(shoot, plan, evaluate(plan))
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


def lines(shoots: Iterable[Shoot]) -> list[bytes]:
    """Each shoot's line as JSON; the runs should have been prefetched. What is out of date is said to be."""
    until = time.monotonic() + AT_ONCE_S
    return [_line(shoot, until) for shoot in shoots]


def _line(shoot: Shoot, until: float) -> bytes:
    fresh = shoot.summary_of == summary_of(shoot)
    if not fresh and (time.monotonic() < until or not shoot.summary):
        refresh(shoot)
        fresh = True
    elif not fresh:
        BEHIND.redo(shoot.pk)
    progress = _progress(shoot)
    since = progress.rehearsed_at is not None and shoot.changed_at > progress.rehearsed_at
    past = _ended(shoot) < time.time()
    now = LineNow(**progress._asdict(), changed_since=since, stale=not fresh, binned_at=shoot.binned_at, past=past)
    # What was kept is JSON already: what holds only now is put in at its end.
    return (shoot.summary[:-1] + "," + now.model_dump_json()[1:]).encode()


def _ended(shoot: Shoot) -> float:
    """When the last frame of a shoot was to be taken, as Unix time; never, while nobody knows."""
    told = json.loads(shoot.summary)
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
    runs = sorted(shoot.runs.all(), key=lambda run: run.pk)
    running = next((run for run in runs if run.active), None)
    if running:
        return Progress("running", running.read_state().taken, None)
    ended = [run for run in runs if run.ended_at]
    if not ended:
        return Progress("planned", None, None)
    state = ended[-1].read_state()
    if state.phase != "finished":
        return Progress("planned", state.taken, None)
    return Progress("rehearsed", state.taken, ended[-1].ended_at)


class Behind:
    """Works lines out behind the requests, one after another, in a thread of its own once it is let."""

    def __init__(self) -> None:
        """Not let yet: commands and tests have no server behind which to work."""
        self.let = False
        self._waiting: queue.SimpleQueue[int] = queue.SimpleQueue()
        self._known: set[int] = set()
        self._lock = threading.Lock()

    def start(self) -> None:
        """Let it work."""
        self.let = True
        threading.Thread(target=self._work, name="lines", daemon=True).start()

    def redo(self, shoot_id: int) -> None:
        """Work a line out soon; once is enough."""
        with self._lock:
            if self.let and shoot_id not in self._known:
                self._known.add(shoot_id)
                self._waiting.put(shoot_id)

    def _work(self) -> None:
        while True:
            shoot_id = self._waiting.get()
            with self._lock:
                self._known.discard(shoot_id)
            try:
                shoot = Shoot.objects.filter(pk=shoot_id).first()
                if shoot is not None and shoot.summary_of != summary_of(shoot):
                    refresh(shoot)
            except Exception:
                LOG.exception("the line of shoot %s is not done", shoot_id)
            finally:
                if self._waiting.empty():
                    connection.close()
            # People's requests come first.
            time.sleep(0.005)


BEHIND = Behind()
