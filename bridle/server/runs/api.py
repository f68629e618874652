"""The runs' API: make, ask, look; and the logbook."""

from collections.abc import Callable
from datetime import datetime
from fractions import Fraction
from functools import lru_cache
from typing import Any, cast

from django.db import IntegrityError, transaction
from django.http import Http404, HttpRequest
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router, Status
from ninja.params.functions import Query

from bridle.core.plan.document import Plan
from bridle.core.reckon.changes import set_at
from bridle.core.reckon.reckoning import reckon
from bridle.core.reckon.settings import density_of
from bridle.core.reckon.timeline import instant
from bridle.core.run.events import TASK_END
from bridle.core.run.machine import RunState, due_s
from bridle.core.run.programme import LEAD_S, NotReadyError, Programme, programme
from bridle.core.run.tally import progress, tally
from bridle.datafolder.lock import TakenError
from bridle.server.errors import RefusedError, Trouble
from bridle.server.ids import MOST, PathId
from bridle.server.keeping import StaleError
from bridle.server.rows import DAMAGED, UNFIT, Damaged, each
from bridle.server.runs.driver import ensure_driven, trouble
from bridle.server.runs.models import LogEntry, Run, RunEvent
from bridle.server.runs.schemas import (
    AskRun,
    DamagedLine,
    EventLine,
    LogLine,
    LogList,
    NewRun,
    RunList,
    RunView,
    SaveNote,
    Setting,
    StaleNote,
)
from bridle.server.runs.site import site_of_run
from bridle.server.shoots.models import Shoot
from bridle.server.shoots.reading import read_kept
from bridle.server.shoots.schemas import Done
from bridle.standins.weather import WeatherName, outcome_of

router = Router(tags=["runs"])
MOST_EVENTS = 200
LOG_PAGE = 100
LONGEST_NOTE = 20_000


@router.get("/shoots/{shoot_id}/runs", response=RunList, operation_id="list_runs")
def list_runs(request: HttpRequest, shoot_id: PathId) -> Any:
    """The runs of a shoot, newest first."""
    whole, damaged = [], []
    for run in each(Run.objects.filter(shoot_id=shoot_id).order_by("-pk")[:20]):
        try:
            whole.append(_view(_sound(run), 0, events=False))
        except UNFIT:
            damaged.append(DamagedLine(id=run.pk, said=DAMAGED, under_way=_under_way(run.pk)))
    return RunList(runs=whole, damaged=damaged)


def _sound(run: Run | Damaged) -> Run:
    """A run that can be read. Raises a ValueError for one that cannot."""
    if isinstance(run, Damaged) or run.damaged:
        raise ValueError(DAMAGED)
    return run


def _under_way(run_id: int) -> bool:
    return Run.objects.filter(pk=run_id, ended_at=None).exists()


@router.post("/shoots/{shoot_id}/runs", response={201: RunView, 409: Trouble, 422: Trouble}, operation_id="new_run")
def new_run(request: HttpRequest, shoot_id: PathId, asked: NewRun) -> Any:
    """Make a run of the plan as it is kept now, and start it."""
    plan = read_kept(get_object_or_404(Shoot, pk=shoot_id, binned_at=None))
    try:
        frames = programme(plan).frames
    except NotReadyError as error:
        return Status(422, Trouble(message=f"This cannot be run yet: {error}."))
    try:
        with transaction.atomic():
            run = Run.objects.create(
                shoot_id=shoot_id,
                plan=plan.model_dump(mode="json"),
                frames=frames,
                speed=asked.speed,
                weather=asked.weather,
                comes=asked.comes,
                asked=["start"],
            )
    except IntegrityError:
        return Status(409, Trouble(message=_why_no_second(shoot_id)))
    _driven(run.pk)
    return Status(201, _view(run, 0))


def _why_no_second(shoot_id: int) -> str:
    for run in each(Run.objects.filter(shoot_id=shoot_id, ended_at=None)):
        if isinstance(run, Damaged) or run.damaged:
            return "A run of this shoot that is under way is damaged. Give it up first; its text stays."
    return "A run of this shoot is under way already."


@router.get("/runs/{run_id}", response=RunView, operation_id="look_at_run")
def look_at_run(request: HttpRequest, run_id: PathId, after: int = Query(0, ge=0, le=MOST)) -> Any:
    """Where a run is, with the events from a number on."""
    return _view(_whole(run_id), after)


def _whole(run_id: int) -> Run:
    """A run that can be read. Raises `RefusedError` for one that cannot."""
    found = next(each(Run.objects.filter(pk=run_id)), None)
    if found is None:
        raise Http404
    try:
        return _sound(found)
    except ValueError as error:
        raise RefusedError(DAMAGED) from error


@router.post("/runs/{run_id}/give-up", response={200: Done, 409: Trouble}, operation_id="give_up_run")
def give_up_run(request: HttpRequest, run_id: PathId) -> Any:
    """Put an end to a run that is damaged, so that another can begin; its row stays as it is."""
    found = next(each(Run.objects.filter(pk=run_id)), None)
    if found is None:
        raise Http404
    if isinstance(found, Run) and not found.damaged:
        raise RefusedError("This run is whole: stop it instead.")
    Run.objects.filter(pk=run_id, ended_at=None).update(ended_at=timezone.now())
    return Done(id=run_id)


@router.post("/runs/{run_id}/ask", response={200: RunView, 409: Trouble}, operation_id="ask_run")
def ask_run(request: HttpRequest, run_id: PathId, asked: AskRun) -> Any:
    """Ask a run to pause, go on or stop, or to take another speed."""
    with transaction.atomic():
        run = get_object_or_404(Run, pk=run_id)
        if run.ended_at is not None:
            raise RefusedError("This run has ended; nothing can be asked of it any more.")
        if run.damaged:
            raise RefusedError(DAMAGED)
        if asked.what and run.wishes[-1:] != [asked.what]:
            run.asked = [*run.wishes, asked.what]
        if asked.speed is not None:
            run.speed = asked.speed
        run.save(update_fields=["asked", "speed"])
    _driven(run.pk)
    return _view(run, run.events_count)


def _driven(run_id: int) -> None:
    try:
        ensure_driven(run_id)
    except TakenError as error:
        raise RefusedError(str(error)) from error


@router.get("/log", response=LogList, operation_id="list_log")
def list_log(request: HttpRequest, before: int | None = Query(None, ge=1, le=MOST)) -> Any:
    """The logbook, newest first, a page at a time."""
    entries = LogEntry.objects.filter(binned_at=None).select_related("run").order_by("-pk")
    if before is not None:
        entries = entries.filter(pk__lt=before)
    numbers = list(entries.values_list("pk", flat=True)[: LOG_PAGE + 1])
    page = numbers[:LOG_PAGE]
    whole, damaged = [], []
    for entry in each(entries.filter(pk__in=page)):
        try:
            whole.append(_entry(entry))
        except UNFIT:
            damaged.append(DamagedLine(id=entry.pk, said=DAMAGED))
    return LogList(entries=whole, damaged=damaged, before=page[-1] if numbers[LOG_PAGE:] else None)


@router.get("/log/{entry_id}", response=LogLine, operation_id="look_at_entry")
def look_at_entry(request: HttpRequest, entry_id: PathId) -> Any:
    """One entry of the logbook."""
    return _entry(get_object_or_404(LogEntry, pk=entry_id))


@router.put("/log/{entry_id}", response={200: LogLine, 409: StaleNote, 422: Trouble}, operation_id="save_note")
def save_note(request: HttpRequest, entry_id: PathId, save: SaveNote) -> Any:
    """Keep the note of an entry."""
    if len(save.note) > LONGEST_NOTE:
        said = f"A note has at most {LONGEST_NOTE} characters; this one has {len(save.note)}."
        return Status(422, Trouble(message=said))
    entry = get_object_or_404(LogEntry, pk=entry_id)
    try:
        kept = entry.save_from(save.version, note=save.note)
    except StaleError as stale:
        assert isinstance(stale.kept, LogEntry)
        said = "This note was saved from another window in the meantime. Nothing was overwritten."
        return Status(409, StaleNote(message=said, kept=_entry(stale.kept)))
    return _entry(kept)


def _entry(entry: LogEntry | Damaged) -> LogLine:
    if isinstance(entry, Damaged):
        raise ValueError(DAMAGED)
    shoot_id = entry.run.shoot_id if entry.run else None
    values = {name: getattr(entry, name) for name in LogLine.model_fields if hasattr(entry, name)}
    figures = tally(
        entry.planned_frames,
        entry.taken_frames,
        entry.planned_s,
        entry.taken_s,
        entry.clip_planned_s,
        entry.visits,
    )
    return LogLine(**values, shoot_id=shoot_id, made_at=entry.created_at, figures=figures)


@lru_cache(maxsize=32)
def _programme(run_id: int) -> tuple[Plan, Programme]:
    """The plan of a run never changes, so its programme is made once."""
    plan = Run.objects.get(pk=run_id).read_plan()
    return plan, programme(plan)


@lru_cache(maxsize=32)
def _pictures(run_id: int) -> Callable[[int], Setting]:
    """What the camera of a run is set to at each frame, and how that picture comes out under the run's weather."""
    run = Run.objects.get(pk=run_id)
    shooting = reckon(run.read_plan()).shooting
    assert shooting is not None  # there is a programme
    seen = outcome_of(shooting, cast(WeatherName, run.weather))
    density = density_of(shooting.plan, shooting.frames)

    def at(frame: int) -> Setting:
        shutter, iso, aperture = set_at(shooting, frame)
        return Setting(
            frame=frame,
            shutter_s=shutter,
            iso=iso,
            aperture=aperture,
            density=float(density[frame]),
            bright=None if seen is None else round(float(seen.bright[frame]), 3),
            metered_ev=None if seen is None else round(float(seen.metered_ev[frame]), 1),
        )

    return at


def _view(run: Run, after: int, events: bool = True) -> RunView:
    plan, planned = _programme(run.pk)
    state = run.read_state()
    now = _now_s(run, state)
    # A run that is held up falls further behind with every second; what is left stays the same.
    stands_still = state.phase in ("paused", "fault")
    held_up = max(0.0, now - due_s(planned, state, state.frame)) if stands_still else 0.0
    rate = 0.0 if run.ended_at or state.phase == "ready" else float(run.speed)
    end = planned.end_s + state.shift_s + held_up
    following = min(state.frame, planned.frames - 1)
    rows = list(run.events.filter(number__gte=max(after, run.events_count - MOST_EVENTS))) if events else []
    return RunView(
        id=run.pk,
        shoot_id=run.shoot_id,
        phase=state.phase,
        outdated=run.shoot is not None and run.shoot.plan != run.plan,
        speed=run.speed,
        frames=planned.frames,
        taken=state.taken,
        missed=state.missed,
        now_s=now,
        delayed_s=state.shift_s + held_up,
        next_due_s=due_s(planned, state, state.frame) if state.frame < planned.frames else None,
        left_s=0.0 if run.ended_at else max(0.0, end - now),
        clock_rate=rate,
        left_rate=0.0 if stands_still else rate,
        finish=_clock(plan, planned, end),
        clock=_clock(plan, planned, now),
        position=planned.place(following),
        weather=run.weather,
        **_lives_on(run, planned, now),
        setting=_pictures(run.pk)(max(0, min(state.frame, planned.frames) - 1) // planned.visits),
        units={axis.name: axis.unit for axis in plan.rig.axes},
        figures=progress(
            planned.start.timestamp(),
            planned.frames,
            planned.mean_interval_s,
            state.shift_s,
            held_up,
            _clock(plan, planned, now).timestamp(),
        ),
        trouble=trouble(run.pk),
        pending=_pending(run, state),
        entry_id=getattr(getattr(run, "entry", None), "pk", None),
        events_count=run.events_count,
        events=[_line(plan, planned, row) for row in rows],
    )


def _lives_on(run: Run, planned: Programme, now: float) -> dict[str, Any]:
    """What battery and card have, where the camera stays."""
    site = site_of_run(run, planned)
    if site is None:
        return {"stays": False, "comes": run.comes, "charge": None, "fill": None}
    site.to(now - LEAD_S)
    return {"stays": True, "comes": run.comes, "charge": site.charge, "fill": site.fill}


def _pending(run: Run, state: RunState) -> list[str]:
    """What was asked for and is not done yet, oldest first."""
    held = [name for name, asked in (("pause", state.pause_asked), ("stop", state.stop_asked)) if asked]
    return [*held, *(asked for asked in run.wishes if asked not in held)]


def _now_s(run: Run, state: RunState) -> float:
    """Simulated time goes on between two saves, at the run's own speed."""
    if run.ended_at or state.phase == "ready":
        return run.now_s
    return run.now_s + (timezone.now() - run.saved_at).total_seconds() * run.speed


def _clock(plan: Plan, planned: Programme, at_s: float) -> datetime:
    return instant(planned.start, Fraction(at_s - LEAD_S), plan.shoot.place.zone)


def _line(plan: Plan, planned: Programme, row: RunEvent) -> EventLine:
    return EventLine(
        number=row.number,
        clock=_clock(plan, planned, row.at_s),
        kind=row.kind,
        frame=row.frame,
        seconds=row.seconds,
        said=row.said.replace(TASK_END, "; "),
    )
