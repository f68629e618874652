"""Keeping a run: its state, its events and, at its end, the logbook entry, all in one transaction."""

from collections.abc import Sequence
from dataclasses import asdict

from django.db import transaction
from django.utils import timezone

from bridle.core.evaluate import answers
from bridle.core.run.events import Note
from bridle.core.run.machine import RunState
from bridle.server.runs.models import LogEntry, Run, RunEvent

ENDED = ("finished", "stopped")


def record(run: Run, state: RunState, now_s: float, notes: Sequence[Note]) -> None:
    """Keep a state with the notes that led to it; ends the run and logs it when the state is an end."""
    with transaction.atomic():
        RunEvent.objects.bulk_create(
            RunEvent(
                run=run, number=run.events_count + i, at_s=now_s, kind=note.kind, frame=note.frame, seconds=note.seconds
            )
            for i, note in enumerate(notes)
        )
        run.events_count += len(notes)
        run.state, run.now_s, run.saved_at = asdict(state), now_s, timezone.now()
        if state.phase in ENDED and run.ended_at is None:
            run.ended_at = run.saved_at
            _log(run, state, now_s)
        run.save(update_fields=["events_count", "state", "now_s", "saved_at", "ended_at"])


def _log(run: Run, state: RunState, now_s: float) -> LogEntry:
    plan = run.read_plan()
    solution = answers(plan).clip.solution
    assert solution is not None  # a run was made from it
    counts = {kind: run.events.filter(kind=kind).count() for kind in ("late", "restart")}
    return LogEntry.objects.create(
        run=run,
        name=plan.shoot.name,
        outcome=state.phase,
        planned_frames=run.frames,
        taken_frames=state.taken,
        planned_s=float(solution.shoot),
        taken_s=float(state.taken * solution.interval) + state.shift_s,
        delayed_s=state.shift_s,
        late_frames=counts["late"],
        restarts=counts["restart"],
        clip_planned_s=float(solution.clip),
        clip_taken_s=float(state.taken / solution.rate),
    )
