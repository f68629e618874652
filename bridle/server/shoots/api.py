"""The shoots' API: list, open, save, evaluate, and files to take along."""

import json
from collections.abc import Iterator
from typing import Any

from django.apps import apps
from django.core.serializers.json import DjangoJSONEncoder
from django.db import transaction
from django.db.models import F, Prefetch
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router, Status
from ninja.errors import HttpError
from ninja.params.functions import Query
from pydantic import ValidationError

from bridle.core.asks.changes import MakeEdits, make
from bridle.core.evaluate import evaluate
from bridle.core.figure import Figure
from bridle.core.foreseen import foreseen
from bridle.core.lists import frame
from bridle.core.lists.sides import side_by_side
from bridle.core.older import changed
from bridle.core.plan.document import VERSION, Plan
from bridle.core.plan.edit import Edit, PathError, difference
from bridle.core.plan.new import new_plan
from bridle.core.quantity import QuantityError
from bridle.core.subjects.time.starting_points import POINTS
from bridle.formats.plan_json import LARGEST_BYTES, PlanFileError, read_with_version
from bridle.server.errors import ChangeRefusedError, RefusedError, Trouble, body_of
from bridle.server.house.models import House
from bridle.server.ids import PathId
from bridle.server.keeping import BIN_DAYS, StaleError
from bridle.server.rows import Damaged, each
from bridle.server.shoots.lines import lines
from bridle.server.shoots.models import Shoot, keep
from bridle.server.shoots.reading import read_kept
from bridle.server.shoots.runs import RUNS
from bridle.server.shoots.schemas import (
    Ask,
    AskDrag,
    AskForesee,
    AskFrame,
    AskWorking,
    Done,
    Dragged,
    ForeseenLine,
    FrameTold,
    NewShoot,
    Opened,
    Save,
    Saved,
    ShootList,
    Stale,
    StartingPointLine,
    Told,
    UpgradedPlan,
)
from bridle.server.shoots.sent import brief, evaluated, sent, sent_json
from bridle.server.shoots.sought import folded, holds
from bridle.server.turns import turn

router = Router(tags=["shoots"])
ANOTHER = "This number belongs to another shoot now: other data is here than when this one was opened."


def _opened(shoot: Shoot) -> dict[str, Any]:
    """What is told of a shoot beside its plan and its evaluation."""
    return {
        "id": shoot.pk,
        "identity": shoot.identity,
        "data": House.objects.values_list("identity", flat=True).first() or "",
        "version": shoot.version,
        "changed_at": shoot.changed_at,
        "binned": shoot.binned_at is not None,
    }


def _open(shoot: Shoot, status: int = 200, version: object = None) -> HttpResponse:
    """A shoot as `Opened`, put together from JSON that is there already; `version` is that of the file it came from."""
    plan = read_kept(shoot)
    written = version or (shoot.plan.get("bridle_plan") if isinstance(shoot.plan, dict) else None)
    told = {**_opened(shoot), "changed": _changed(written, plan)}
    head = json.dumps(told, cls=DjangoJSONEncoder)[:-1]
    evaluation_json = sent_json(shoot, plan).decode()
    return _json(f'{head}, "plan": {plan.model_dump_json()}, "evaluation": {evaluation_json}}}', status)


def _changed(version: object, plan: Plan) -> list[str]:
    """The figures that are others now than in the version that wrote a plan; today's is not worked out for it."""
    if version == VERSION:
        return []
    with turn(plan):
        return changed(version, plan, evaluate(plan))


def _keep(plan: Plan) -> Shoot:
    """Keep a new shoot, once it is sure that it can be worked out."""
    with turn(plan):
        evaluate(plan)
    return keep(plan)


def _json(content: str, status: int = 200) -> HttpResponse:
    return HttpResponse(content, content_type="application/json", status=status)


@router.get("/shoots", response=ShootList, operation_id="list_shoots")
def list_shoots(request: HttpRequest, find: str = Query("", max_length=400), binned: bool = False) -> Any:
    """Shoots whose name, place, subject or notes hold every word that is looked for."""
    order = F("binned_at").desc() if binned else F("changed_at").desc()
    runs = apps.get_model("runs", "Run").objects.defer("plan")
    shoots = (
        Shoot.objects.filter(binned_at__isnull=not binned)
        .defer("plan")
        .prefetch_related(Prefetch("runs", queryset=runs), "runs__entry")
        .order_by(order, "-pk")
    )
    found = [shoot for shoot in each(shoots) if _holds(shoot, find)]
    in_bin = Shoot.objects.filter(binned_at__isnull=False).count()
    listed = b",".join(lines(found)).decode()
    return _json(f'{{"shoots": [{listed}], "in_bin": {in_bin}, "bin_days": {BIN_DAYS}}}')


def _holds(shoot: Shoot | Damaged, find: str) -> bool:
    """Whether it is what is looked for; what cannot be read is shown unless something is looked for."""
    return not find.strip() if isinstance(shoot, Damaged) else holds([shoot.sought, *_notes(shoot)], find)


def _notes(shoot: Shoot) -> Iterator[str]:
    """What was written about it in the logbook."""
    for run in shoot.runs.all():
        if hasattr(run, "entry") and run.entry.note:
            yield folded(run.entry.note)


@router.post("/shoots", response={201: Opened, 422: Trouble}, operation_id="new_shoot")
def new_shoot(request: HttpRequest, asked: NewShoot) -> Any:
    """A new shoot with sound defaults."""
    return _open(_keep(new_plan(asked.name, asked.subject, asked.place, asked.zone, asked.start, asked.kind)), 201)


@router.post("/shoots/import", response={201: Opened, 413: Trouble, 422: Trouble}, operation_id="import_shoot")
def import_shoot(request: HttpRequest) -> Any:
    """A new shoot from a plan file, sent as it is. A plan that is not valid is not kept."""
    size = request.headers.get("Content-Length") or "0"
    if size.isdigit() and int(size) > LARGEST_BYTES:
        said = f"This file has {int(size) / 1e6:.1f} MB; a plan has at most {LARGEST_BYTES // 1_000_000} MB."
        return Status(413, Trouble(message=said))
    plan, version = read_with_version(_sent_plan(request))
    return _open(_keep(plan), 201, version)


def _sent_plan(request: HttpRequest) -> bytes:
    try:
        return body_of(request)
    except ValueError as error:
        raise PlanFileError("A plan is sent as it is, as JSON text, not as a form.") from error


@router.get("/shoots-by-identity/{identity}", response=Done, operation_id="find_shoot")
def find_shoot(request: HttpRequest, identity: str) -> Any:
    """The number that a shoot has here, if it is here."""
    return Done(id=get_object_or_404(Shoot, identity=identity[:40]).pk)


@router.post("/plans/upgrade", response={200: UpgradedPlan, 413: Trouble, 422: Trouble}, operation_id="upgrade_plan")
def upgrade_plan(request: HttpRequest) -> Any:
    """A plan of any version, sent as it is, as one of today's. Nothing is kept."""
    plan, version = read_with_version(_sent_plan(request))
    return UpgradedPlan(plan=plan, changed=_changed(version, plan))


@router.get("/shoots/{shoot_id}", response=Opened, operation_id="open_shoot")
def open_shoot(request: HttpRequest, shoot_id: PathId) -> Any:
    """A shoot with all that follows from its plan."""
    return _open(get_object_or_404(Shoot, pk=shoot_id))


@router.put("/shoots/{shoot_id}", response={200: Saved, 409: Stale, 422: Trouble}, operation_id="save_shoot")
def save_shoot(request: HttpRequest, shoot_id: PathId, save: Save) -> Any:
    """Save a plan. Refused with both sides told when another window has saved in between."""
    shoot = get_object_or_404(Shoot, pk=shoot_id)
    if save.identity and save.identity != shoot.identity:
        raise HttpError(404, ANOTHER)
    try:
        kept = shoot.put(save.plan, save.version)
    except StaleError as stale:
        assert isinstance(stale.kept, Shoot)
        return _stale(stale.kept, save.plan)
    return Saved(version=kept.version, changed_at=kept.changed_at)


def _stale(kept: Shoot, mine: Plan) -> HttpResponse:
    theirs = read_kept(kept)
    with turn(theirs):
        evaluation = sent(evaluated(theirs))
    stale = Stale.model_construct(
        message="This shoot was saved from another window in the meantime. Nothing was overwritten.",
        kept=Opened.model_construct(**_opened(kept), changed=[], plan=theirs, evaluation=evaluation),
        differences=difference(theirs, mine),
        sides=side_by_side(mine, theirs),
    )
    return _json(stale.model_dump_json(), 409)


@router.post("/shoots/{shoot_id}/duplicate", response={201: Opened}, operation_id="duplicate_shoot")
def duplicate_shoot(request: HttpRequest, shoot_id: PathId) -> Any:
    """A copy of a shoot, under a name of its own."""
    plan = read_kept(get_object_or_404(Shoot, pk=shoot_id))
    name = f"{plan.shoot.name[:112]}, copy"
    return _open(_keep(plan.model_copy(update={"shoot": plan.shoot.model_copy(update={"name": name})})), 201)


@router.post("/shoots/{shoot_id}/bin", response={200: Done, 409: Trouble}, operation_id="bin_shoot")
def bin_shoot(request: HttpRequest, shoot_id: PathId) -> Any:
    """Put a shoot into the bin; not while a run of it is under way."""
    with transaction.atomic():
        shoot = get_object_or_404(Shoot, pk=shoot_id)
        if shoot.runs.filter(ended_at=None).exists():
            raise RefusedError("A run of this shoot is under way. Stop the run first; then it can go to the bin.")
        shoot.to_bin()
    return Done(id=shoot_id)


@router.post("/shoots/{shoot_id}/back", response=Done, operation_id="unbin_shoot")
def unbin_shoot(request: HttpRequest, shoot_id: PathId) -> Any:
    """Take a shoot out of the bin."""
    get_object_or_404(Shoot, pk=shoot_id).back()
    return Done(id=shoot_id)


def _made(ask: Ask) -> tuple[Plan, list[Edit]]:
    """The changed plan, and the edits that undo the changes. Raises `ChangeRefusedError`."""
    plan = ask.plan
    undo: list[Edit] = []
    for change in ask.changes:
        try:
            plan, back = make(plan, [change])
        except (QuantityError, PathError, ValidationError, ValueError) as error:
            raise ChangeRefusedError(_path(change), error) from error
        undo = back + undo
    return plan, undo


@router.post("/evaluate", response={200: Told, 422: Trouble}, operation_id="evaluate")
def evaluate_plan(request: HttpRequest, ask: Ask) -> Any:
    """Make changes to a plan and tell what follows. Nothing is kept."""
    plan, undo = _made(ask)
    with turn(plan):
        answer = Told.model_construct(plan=plan, undo=undo, evaluation=sent(evaluated(plan)))
        return _json(answer.model_dump_json())


@router.post("/drag", response={200: Dragged, 422: Trouble}, operation_id="drag")
def drag(request: HttpRequest, ask: AskDrag) -> Any:
    """As `evaluate`, while something is dragged: what is drawn and the figures that stand on the sheet, no more."""
    plan, undo = _made(ask)
    with turn(plan):
        answer = Dragged.model_construct(plan=plan, undo=undo, brief=brief(plan, ask.lit, ask.windows))
        return _json(answer.model_dump_json())


@router.post("/working", response={200: Figure, 422: Trouble}, operation_id="working")
def working(request: HttpRequest, ask: AskWorking) -> Any:
    """The working of one figure of a plan."""
    with turn(ask.plan):
        found = RUNS.evaluate(ask.plan).figures.get(ask.key)
    if found is None:
        raise ChangeRefusedError("key", ValueError("this figure does not stand on the sheet any more"))
    return found


@router.post("/foresee", response=list[ForeseenLine], operation_id="foresee")
def foresee(request: HttpRequest, ask: AskForesee) -> Any:
    """What each fix of each snag of a plan would bring with it. Nothing is kept."""
    with turn(ask.plan):
        return foreseen(ask.plan, RUNS.nearest(ask.plan))


@router.get("/starting-points", response=list[StartingPointLine], operation_id="starting_points")
def list_starting_points(request: HttpRequest) -> Any:
    """The intervals to start from, by subject, with the reason."""
    return POINTS


@router.post("/frame", response={200: FrameTold, 422: Trouble}, operation_id="look_at_frame")
def look_at_frame(request: HttpRequest, ask: AskFrame) -> Any:
    """One frame with its working, for the slip that a person opens on it."""
    with turn(ask.plan):
        return FrameTold(figures=frame.answer(ask.plan, ask.frame))


def _path(change: Any) -> str:
    """The place that a change is meant for; what has none is called by what it does."""
    if isinstance(change, MakeEdits):
        return change.edits[0].path if change.edits else ""
    quantity = getattr(change, "quantity", None)
    return f"clip.{quantity}" if quantity else str(getattr(change, "path", change.do))
