"""The bench's API: files come in piece by piece, work is begun, watched and stopped, and its files taken away."""

import shutil
from dataclasses import asdict
from functools import partial
from pathlib import PurePath
from typing import Any

import numpy as np
from django.db import IntegrityError, transaction
from django.http import FileResponse, Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router
from ninja.params.functions import Query

from bridle.bench.source import MOST_BYTES
from bridle.core.reckon.printing import print_digest
from bridle.core.subjects.prints.gather import UNIT_MM
from bridle.server.errors import RefusedError, Trouble
from bridle.server.ids import PathId
from bridle.server.prints.models import UNFINISHED, Print, Work
from bridle.server.prints.queue import do
from bridle.server.prints.schemas import (
    Arrived,
    AskClick,
    AskWork,
    ClickTold,
    NewPrint,
    PathsTold,
    PrintLine,
    PrintTold,
    WorkTold,
)
from bridle.server.prints.worker import WORKER
from bridle.server.shoots.models import Shoot
from bridle.standins.printer.jogging import Bench

router = Router(tags=["prints"])
PIECE = 1 << 20
GONE = "The file itself is not here, only what was read of it: a copy of the data has no prints. Put it in again."
FILES = {"original": "", "change": " with stops", "trial": " trial"}


@router.get("/prints", response=list[PrintLine], operation_id="list_prints")
def list_prints(request: HttpRequest) -> Any:
    """All prints, the newest first."""
    _awake()
    return [_line(one) for one in Print.objects.select_related("shoot").order_by("-made_at", "-pk")]


@router.post("/prints", response={201: PrintLine, 409: Trouble}, operation_id="new_print")
def new_print(request: HttpRequest, asked: NewPrint) -> Any:
    """Make room for a file; its bytes come next."""
    if not 0 < asked.size <= MOST_BYTES:
        most, there = f"{MOST_BYTES / 1e6:.0f} MB", f"{asked.size / 1e6:.1f} MB"
        raise RefusedError(f"A print has at most {most}, and not nothing; this file has {there}.")
    shoot = get_object_or_404(Shoot, pk=asked.shoot_id) if asked.shoot_id else None
    kept = Print.objects.create(name=PurePath(asked.name).name[:120] or "print.gcode", size=asked.size, shoot=shoot)
    # After an older copy of the data was brought back, a number may have a folder already.
    shutil.rmtree(kept.folder, ignore_errors=True)
    kept.folder.mkdir(parents=True)
    if shutil.disk_usage(kept.folder).free < asked.size * 4:
        kept.throw_away()
        raise RefusedError("There is not enough room on the disk for this file and what is made of it.")
    kept.arriving.touch()
    return 201, _line(kept)


@router.put("/prints/{print_id}/bytes", response={200: Arrived, 409: Trouble}, operation_id="put_print_bytes")
def put_bytes(request: HttpRequest, print_id: PathId, at: int = Query(..., ge=0, le=MOST_BYTES)) -> Any:
    """The next bytes, from `at` on; told is how many are here. What is there already is written over."""
    kept = get_object_or_404(Print, pk=print_id, state="arriving")
    with kept.arriving.open("r+b") as file:
        here = file.seek(0, 2)
        if at > here:
            raise RefusedError(f"Bytes from {at:,} on would leave a gap; {here:,} are here.")
        file.seek(at)
        while piece := request.read(PIECE):
            if file.tell() + len(piece) > kept.size:
                raise RefusedError("More bytes came than the file was said to have.")
            file.write(piece)
        here = file.tell()
        file.truncate(here)
    if here == kept.size:
        _arrived(kept)
    return {"here": here}


def _arrived(kept: Print) -> None:
    """All bytes are here: the file is whole, and is read."""
    kept.arriving.replace(kept.original)
    with transaction.atomic():
        Print.objects.filter(pk=kept.pk).update(state="reading")
        plan = kept.shoot.plan if kept.shoot else None
        work = Work.objects.create(print=kept, kind="read", plan=plan)
    _begin(work)


def _awake() -> None:
    """The demo's files are made, read and proven when somebody first looks, or finds them gone."""
    for kept in Print.objects.filter(state="read").exclude(demo=""):
        if not kept.original.exists():
            Print.objects.filter(pk=kept.pk).update(state="asleep")
    for kept in Print.objects.filter(state="asleep").select_related("shoot"):
        with transaction.atomic():
            if Print.objects.filter(pk=kept.pk, state="asleep").update(state="reading"):
                work = Work.objects.create(print=kept, kind="read", plan=kept.shoot.plan if kept.shoot else None)
                transaction.on_commit(partial(_begin, work))


def _begin(work: Work) -> None:
    do(work.pk)
    WORKER.wake()


@router.get("/prints/{print_id}", response=PrintTold, operation_id="get_print")
def get_print(request: HttpRequest, print_id: PathId) -> Any:
    """A print with what was read of it."""
    _awake()
    kept = get_object_or_404(Print, pk=print_id)
    return {**_line(kept), "facts": kept.facts}


@router.delete("/prints/{print_id}", response={204: None}, operation_id="drop_print")
def drop_print(request: HttpRequest, print_id: PathId) -> Any:
    """Take a print and what was made of it away; its shoot keeps the layers as times."""
    kept = get_object_or_404(Print, pk=print_id)
    Work.objects.filter(print=kept).update(asked_stop=True)
    kept.throw_away()
    return 204, None


@router.post("/prints/{print_id}/work", response={201: WorkTold, 409: Trouble}, operation_id="begin_print_work")
def begin_work(request: HttpRequest, print_id: PathId, asked: AskWork) -> Any:
    """Begin a piece of work; refused while another is under way on the same file."""
    kept = get_object_or_404(Print, pk=print_id)
    if not kept.original.exists():
        raise RefusedError(GONE if kept.state == "read" else "This file is not whole yet.")
    plan = asked.plan
    try:
        with transaction.atomic():
            work = Work.objects.create(
                print=kept,
                kind=asked.kind,
                plan=plan.model_dump(mode="json") if plan else None,
                of=print_digest(plan) if plan else "",
            )
            if asked.kind == "read":
                Print.objects.filter(pk=kept.pk).update(state="reading")
    except IntegrityError as error:
        raise RefusedError("Something is being done on this file already.") from error
    _begin(work)
    return 201, _work(work)


@router.post("/prints/work/{work_id}/stop", response=WorkTold, operation_id="stop_print_work")
def stop_work(request: HttpRequest, work_id: PathId) -> Any:
    """Ask for an end; what has not begun yet ends at once."""
    work = get_object_or_404(Work, pk=work_id)
    Work.objects.filter(pk=work_id, state__in=UNFINISHED).update(asked_stop=True)
    if Work.objects.filter(pk=work_id, state="waiting").update(
        state="stopped", said="Stopped.", ended_at=timezone.now()
    ):
        Print.objects.filter(pk=work.print_id, state="reading").update(
            state="refused", said="Stopped before it was read."
        )
    work.refresh_from_db()
    return _work(work)


@router.post("/bench/jog", response=ClickTold, operation_id="jog_to_switch")
def jog(request: HttpRequest, asked: AskClick) -> Any:
    """Jog the simulated printer towards its switch."""
    sign = 1 if asked.side == "high" else -1
    bench = Bench(asked.low, asked.high, sign, asked.beyond, asked.lets_go, asked.seed)
    return asdict(bench.jog(asked.at, asked.by, asked.down, asked.broken))


@router.get("/prints/{print_id}/paths", response=PathsTold, operation_id="get_print_paths")
def get_paths(request: HttpRequest, print_id: PathId) -> Any:
    """How the paths are cut into layers."""
    picture = _picture(print_id)
    return {
        "counts": picture["counts"].tolist(),
        "start": picture["start"].round(2).tolist(),
        "end": picture["end"].round(2).tolist(),
        "unit_mm": UNIT_MM,
    }


@router.get("/prints/{print_id}/points", operation_id="get_print_points")
def get_points(request: HttpRequest, print_id: PathId) -> HttpResponse:
    """The corners, as 16-bit numbers."""
    return HttpResponse(_picture(print_id)["points"].astype("<i2").tobytes(), content_type="application/octet-stream")


def _picture(print_id: int) -> Any:
    kept = get_object_or_404(Print, pk=print_id)
    if not kept.picture.exists():
        raise Http404
    with np.load(kept.picture) as found:
        return {name: found[name] for name in found.files}


@router.get("/prints/{print_id}/file/{kind}", operation_id="get_print_file")
def get_file(request: HttpRequest, print_id: PathId, kind: str) -> FileResponse:
    """The file as it came, the changed one, or the trial; what is not proven says so in its name."""
    kept = get_object_or_404(Print, pk=print_id)
    if kind not in FILES:
        raise Http404
    path = kept.original if kind == "original" else kept.made(kind)
    if not path.exists():
        raise Http404
    name = PurePath(kept.name)
    return FileResponse(
        path.open("rb"),
        as_attachment=True,
        filename=f"{name.stem}{FILES[kind]}{_doubt(kept, kind)}{name.suffix or '.gcode'}",
    )


def _doubt(kept: Print, kind: str) -> str:
    if kind == "original":
        return ""
    last = kept.works.filter(kind=kind, state="done").order_by("-pk").first()
    return "" if last and last.result and last.result["stands"] == "proven" else " UNPROVEN"


def _line(kept: Print) -> dict[str, Any]:
    facts = kept.facts or {}
    frames = facts.get("frames") or {}
    heights = frames.get("z_mm") or []
    whole, gone = kept.state != "arriving", kept.state == "read" and not kept.original.exists()
    return {
        "id": kept.pk,
        "name": kept.name,
        "digest": kept.digest,
        "size": kept.size,
        "here": kept.size if whole else (kept.arriving.stat().st_size if kept.arriving.exists() else 0),
        "state": "refused" if gone else kept.state,
        "said": GONE if gone else kept.said,
        "shoot_id": kept.shoot_id,
        "shoot_name": kept.shoot.name if kept.shoot else "",
        "made_at": kept.made_at,
        "layers": len(frames.get("layers_s", [])) if frames else None,
        "height_mm": max(heights) if heights else None,
        "seconds": facts.get("seconds"),
        "works": [_work(work) for work in kept.works.order_by("-pk")[:6]],
    }


def _work(work: Work) -> dict[str, Any]:
    result = work.result if work.result and "stands" in work.result else None
    names = ("kind", "of", "state", "doing", "done", "out_of", "said", "made_at", "ended_at")
    return {"id": work.pk, "result": result, **{name: getattr(work, name) for name in names}}
