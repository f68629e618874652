"""Keeping a run: its state, its events and, at its end, the logbook entry, all in one transaction."""

from collections.abc import Sequence
from dataclasses import asdict

from django.db import transaction
from django.utils import timezone

from bridle.core.reckon.clip import solved
from bridle.core.run.events import Note
from bridle.core.run.machine import RunState
from bridle.core.run.programme import LEAD_S, Programme
from bridle.server.runs.models import LogEntry, Run, RunEvent

ENDED = ("finished", "stopped")


def record(
    run: Run, programme: Programme, state: RunState, now_s: float, notes: Sequence[Note], heard: bool = False
) -> None:
    """Keep a state with the notes that led to it; ends the run and logs it when the state is an end.

    `heard`: it comes of the oldest request, which is crossed off with it.
    A run that has taken every frame ends with the slot of the last one, on its own clock too.
    """
    with transaction.atomic():
        RunEvent.objects.bulk_create(
            RunEvent(
                run=run,
                number=run.events_count + i,
                at_s=now_s,
                kind=note.kind,
                frame=note.frame,
                seconds=note.seconds,
                said=note.said,
            )
            for i, note in enumerate(notes)
        )
        run.events_count += len(notes)
        if state.phase == "finished":
            now_s = max(now_s, programme.end_s + state.shift_s)
        run.state, run.now_s, run.saved_at = asdict(state), now_s, timezone.now()
        if state.phase in ENDED and run.ended_at is None:
            run.ended_at = run.saved_at
            _log(run, programme, state, now_s)
        run.save(update_fields=["events_count", "state", "now_s", "saved_at", "ended_at"])
        if heard:
            now = Run.objects.only("asked").get(pk=run.pk)
            Run.objects.filter(pk=run.pk).update(asked=now.wishes[1:])


def _log(run: Run, programme: Programme, state: RunState, now_s: float) -> LogEntry:
    """What was planned, and what the run's clock says."""
    plan = run.read_plan()
    solution, _missing = solved(plan)
    assert solution is not None  # a run was made from it
    counts = {kind: run.events.filter(kind=kind).count() for kind in ("late", "restart")}
    return LogEntry.objects.create(
        run=run,
        name=plan.shoot.name,
        outcome=state.phase,
        planned_frames=run.frames,
        taken_frames=state.taken,
        planned_s=programme.end_s - LEAD_S,
        taken_s=max(0.0, now_s - LEAD_S),
        delayed_s=state.shift_s,
        late_frames=counts["late"],
        restarts=counts["restart"],
        clip_planned_s=float(solution.clip),
        clip_taken_s=float(solution.clip * (state.taken // programme.visits) / solution.frames),
        visits=programme.visits,
    )
