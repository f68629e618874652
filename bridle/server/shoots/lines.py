"""A shoot as a line of the list: its span drawn small, its figures, its worst snag."""

from datetime import UTC, datetime

from bridle.core.evaluation import Evaluation, Traces
from bridle.server.shoots.models import Shoot, evaluated
from bridle.server.shoots.schemas import ShootLine

MOST_POINTS = 120
SHOWN = ("clip.interval", "clip.shoot", "clip.clip")


def line(shoot: Shoot) -> ShootLine:
    """The line of one shoot; its runs should have been prefetched."""
    told = evaluated(shoot.pk, shoot.version, shoot.changed_at.timestamp())
    head = shoot.read().shoot
    state, taken = _progress(shoot)
    values = {quantity.quantity: quantity.value for quantity in told.clip.quantities}
    solved = told.frames is not None
    return ShootLine(
        id=shoot.pk,
        name=head.name,
        place=head.place.name,
        zone=head.place.zone,
        start=_start(told, head.clock.at),
        state=state,
        frames=told.frames,
        interval_s=told.interval_s,
        shoot_s=values["shoot"] if solved else None,
        clip_s=values["clip"] if solved else None,
        rate=values["rate"] if solved else None,
        taken=taken,
        worst=told.snags[0] if told.snags else None,
        figures=[told.figures[key] for key in SHOWN if solved and key in told.figures],
        traces=_small(told),
        binned_at=shoot.binned_at,
    )


def _start(told: Evaluation, held: datetime) -> datetime:
    """When the first frame is taken; what the clock holds while the clip is open."""
    first = told.figures.get("time.first")
    return datetime.fromtimestamp(first.value, UTC) if first else held


def _progress(shoot: Shoot):  # type: ignore[no-untyped-def]
    """Running while a run is under way, done when the last one took every frame, else planned."""
    runs = sorted(shoot.runs.all(), key=lambda run: run.pk)
    running = next((run for run in runs if run.active), None)
    if running:
        return "running", running.read_state().taken
    ended = [run for run in runs if run.ended_at]
    if ended:
        state = ended[-1].read_state()
        return ("done" if state.phase == "finished" else "planned"), state.taken
    return "planned", None


def _small(told: Evaluation) -> Traces | None:
    if told.traces is None:
        return None
    every = max(1, len(told.traces.frames) // MOST_POINTS)
    picked = sorted({*range(0, len(told.traces.frames), every), len(told.traces.frames) - 1})
    axes = {name: tuple(values[i] for i in picked) for name, values in told.traces.axes.items()}
    elapsed = tuple(told.traces.elapsed_s[i] for i in picked)
    return Traces(frames=tuple(told.traces.frames[i] for i in picked), elapsed_s=elapsed, axes=axes)
