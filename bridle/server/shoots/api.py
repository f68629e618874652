"""The shoots' API: find, open, change, save, duplicate, bin, import and export."""

from collections.abc import Callable, Iterator
from typing import Any

from django.db.models import F
from django.http import HttpRequest, HttpResponse, StreamingHttpResponse
from django.shortcuts import get_object_or_404
from django.utils.text import slugify
from ninja import Router, Status
from pydantic import ValidationError

from bridle.core.changes import make
from bridle.core.chapters import moment
from bridle.core.chapters.sides import side_by_side
from bridle.core.evaluate import evaluate
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, PathError, difference
from bridle.core.plan.new import new_plan
from bridle.core.quantity import QuantityError
from bridle.core.subjects.starting_points import POINTS
from bridle.formats.crop_table import write_crops
from bridle.formats.drive_program import NoAxesError, program
from bridle.formats.frame_table import NoFramesError, write_frames
from bridle.formats.plan_json import LARGEST_BYTES, read_plan, write_plan
from bridle.formats.step_table import write_steps
from bridle.server.errors import ChangeRefusedError, Trouble
from bridle.server.keeping import BIN_DAYS, StaleError
from bridle.server.shoots.lines import line
from bridle.server.shoots.models import Shoot, evaluated, keep
from bridle.server.shoots.schemas import (
    Ask,
    AskFrame,
    Done,
    FrameTold,
    NewShoot,
    Opened,
    Save,
    Saved,
    ShootList,
    Stale,
    StartingPointLine,
    Told,
)

router = Router(tags=["shoots"])


def _opened(shoot: Shoot) -> Opened:
    told = evaluated(shoot.pk, shoot.version, shoot.changed_at.timestamp())
    return Opened(
        id=shoot.pk,
        version=shoot.version,
        changed_at=shoot.changed_at,
        binned=shoot.binned_at is not None,
        plan=shoot.read(),
        evaluation=told,
    )


def _json(content: str, status: int = 200) -> HttpResponse:
    return HttpResponse(content, content_type="application/json", status=status)


@router.get("/shoots", response=ShootList, operation_id="list_shoots")
def list_shoots(request: HttpRequest, find: str = "", binned: bool = False) -> Any:
    """Shoots whose name, place or subject holds every word that is looked for."""
    shoots = Shoot.objects.filter(binned_at__isnull=not binned).prefetch_related("runs")
    for word in find.split()[:8]:
        shoots = shoots.filter(plan__shoot__icontains=word)
    order = F("binned_at").desc() if binned else F("changed_at").desc()
    lines = [line(shoot) for shoot in shoots.order_by(order)]
    in_bin = Shoot.objects.filter(binned_at__isnull=False).count()
    return ShootList(shoots=lines, in_bin=in_bin, bin_days=BIN_DAYS)


@router.post("/shoots", response={201: Opened, 422: Trouble}, operation_id="new_shoot")
def new_shoot(request: HttpRequest, asked: NewShoot) -> Any:
    """A new shoot with sound defaults."""
    return Status(201, _opened(keep(new_plan(asked.name, asked.subject, asked.place, asked.zone, asked.start))))


@router.post("/shoots/import", response={201: Opened, 413: Trouble, 422: Trouble}, operation_id="import_shoot")
def import_shoot(request: HttpRequest) -> Any:
    """A new shoot from a plan file, sent as it is. A plan that is not valid is not kept."""
    size = int(request.headers.get("Content-Length") or 0)
    if size > LARGEST_BYTES:
        said = f"This file has {size / 1e6:.1f} MB; a plan has at most {LARGEST_BYTES // 1_000_000} MB."
        return Status(413, Trouble(message=said))
    return Status(201, _opened(keep(read_plan(request.body))))


@router.get("/shoots/{shoot_id}", response=Opened, operation_id="open_shoot")
def open_shoot(request: HttpRequest, shoot_id: int) -> Any:
    """A shoot with all that follows from its plan."""
    return _json(_opened(get_object_or_404(Shoot, pk=shoot_id)).model_dump_json())


@router.put("/shoots/{shoot_id}", response={200: Saved, 409: Stale, 422: Trouble}, operation_id="save_shoot")
def save_shoot(request: HttpRequest, shoot_id: int, save: Save) -> Any:
    """Save a plan. Refused with both sides told when another window has saved in between."""
    shoot = get_object_or_404(Shoot, pk=shoot_id)
    try:
        kept = shoot.put(save.plan, save.version)
    except StaleError as stale:
        assert isinstance(stale.kept, Shoot)
        said = "This shoot was saved from another window in the meantime. Nothing was overwritten."
        kept_plan = stale.kept.read()
        sides = side_by_side(save.plan, kept_plan)
        differing = difference(kept_plan, save.plan)
        return Status(409, Stale(message=said, kept=_opened(stale.kept), differences=differing, sides=sides))
    return Saved(version=kept.version, changed_at=kept.changed_at)


@router.post("/shoots/{shoot_id}/duplicate", response={201: Opened}, operation_id="duplicate_shoot")
def duplicate_shoot(request: HttpRequest, shoot_id: int) -> Any:
    """A copy of a shoot, under a name of its own."""
    plan = get_object_or_404(Shoot, pk=shoot_id).read()
    name = f"{plan.shoot.name[:112]}, copy"
    return Status(201, _opened(keep(plan.model_copy(update={"shoot": plan.shoot.model_copy(update={"name": name})}))))


@router.post("/shoots/{shoot_id}/bin", response=Done, operation_id="bin_shoot")
def bin_shoot(request: HttpRequest, shoot_id: int) -> Any:
    """Put a shoot into the bin."""
    get_object_or_404(Shoot, pk=shoot_id).to_bin()
    return Done(id=shoot_id)


@router.post("/shoots/{shoot_id}/back", response=Done, operation_id="unbin_shoot")
def unbin_shoot(request: HttpRequest, shoot_id: int) -> Any:
    """Take a shoot out of the bin."""
    get_object_or_404(Shoot, pk=shoot_id).back()
    return Done(id=shoot_id)


@router.post("/evaluate", response={200: Told, 422: Trouble}, operation_id="evaluate")
def evaluate_plan(request: HttpRequest, ask: Ask) -> Any:
    """Make changes to a plan and tell what follows. Nothing is kept."""
    plan = ask.plan
    undo: list[Edit] = []
    for change in ask.changes:
        try:
            plan, back = make(plan, [change])
        except (QuantityError, PathError, ValidationError, ValueError) as error:
            raise ChangeRefusedError(_path(change), error) from error
        undo = back + undo
    return _json(Told(plan=plan, undo=undo, evaluation=evaluate(plan)).model_dump_json())


@router.get("/starting-points", response=list[StartingPointLine], operation_id="starting_points")
def list_starting_points(request: HttpRequest) -> Any:
    """The intervals to start from, by subject, with the reason."""
    return POINTS


@router.post("/frame", response={200: FrameTold, 422: Trouble}, operation_id="look_at_frame")
def look_at_frame(request: HttpRequest, ask: AskFrame) -> Any:
    """One frame with its working, for the slip that a person opens on it."""
    return FrameTold(figures=moment.answer(ask.plan, ask.frame))


def _path(change: Any) -> str:
    return str(getattr(change, "path", None) or f"clip.{getattr(change, 'quantity', 'pegs')}")


def plan_file(request: HttpRequest, shoot_id: int) -> HttpResponse:
    """The plan as a JSON file to keep."""
    plan = get_object_or_404(Shoot, pk=shoot_id).read()
    response = _json(write_plan(plan))
    response["Content-Disposition"] = f'attachment; filename="{_slug(plan.shoot.name)}.bridle.json"'
    return response


# What can be taken along for devices and encoders: who writes it, and what the file is called.
FILES: dict[str, tuple[Callable[[Plan], Iterator[str]], str, str]] = {
    "frames.csv": (write_frames, "-frames.csv", "text/csv"),
    "steps.csv": (write_steps, "-steps.csv", "text/csv"),
    "crops.csv": (write_crops, "-crops.csv", "text/csv"),
    "program.gcode": (program, ".gcode", "text/plain"),
}


def lines_file(request: HttpRequest, shoot_id: int, kind: str) -> HttpResponse | StreamingHttpResponse:
    """A file of lines made from the plan: frame table, steps, crops, or the drive's program."""
    plan = get_object_or_404(Shoot, pk=shoot_id).read()
    write, ending, media = FILES[kind]
    try:
        lines = write(plan)
    except (NoFramesError, NoAxesError) as error:
        return HttpResponse(f"Nothing to write yet: {error}.", status=409, content_type="text/plain; charset=utf-8")
    response = StreamingHttpResponse(lines, content_type=f"{media}; charset=utf-8")
    response["Content-Disposition"] = f'attachment; filename="{_slug(plan.shoot.name)}{ending}"'
    return response


def _slug(name: str) -> str:
    return slugify(name) or "shoot"
