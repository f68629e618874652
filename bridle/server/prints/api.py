"""The bench's API: files come in piece by piece, work is begun, watched and stopped, and its files taken away."""

import logging
import os
import shutil
from collections.abc import Iterator
from dataclasses import asdict
from pathlib import PurePath
from typing import Any

import numpy as np
from django.conf import settings
from django.db import IntegrityError, transaction
from django.http import FileResponse, Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router
from ninja.params.functions import Query

from bridle.bench.source import MOST_BYTES
from bridle.core.reckon.printing import print_digest
from bridle.core.subjects.prints.units import UNIT_MM
from bridle.server.errors import RefusedError, Trouble
from bridle.server.house.clock import stamp
from bridle.server.ids import PathId
from bridle.server.prints.care import STOPPED, close
from bridle.server.prints.models import ROOM, UNFINISHED, Print, Work
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
from bridle.server.rows import DAMAGED, UNFIT, Damaged, each, readable
from bridle.server.shoots.models import Shoot
from bridle.server.worker import PRINTS, WORKER
from bridle.standins.printer.jogging import Bench

LOG = logging.getLogger("bridle.prints")
router = Router(tags=["prints"])
PIECE = 1 << 20
GONE = "The file itself is not here, only what was read of it: a copy of the data has no prints. Put it in again."
FILES = {"original": "", "change": " with stops", "trial": " trial"}


@router.get("/prints", response=list[PrintLine], operation_id="list_prints")
def list_prints(request: HttpRequest) -> Any:
    """All prints, the newest first."""
    WORKER.wake(PRINTS)
    return [_told(one) for one in each(Print.objects.select_related("shoot").order_by("-made_at", "-pk"))]


def _told(kept: Print | Damaged) -> PrintLine:
    try:
        if isinstance(kept, Print):
            return PrintLine.model_validate(_line(kept))
    except UNFIT as error:
        LOG.warning("print %s cannot be read: %s", kept.pk, error)
    return damaged_line(kept.pk)


@router.post("/prints", response={201: PrintLine, 409: Trouble}, operation_id="new_print")
def new_print(request: HttpRequest, asked: NewPrint) -> Any:
    """Make room for a file; its bytes come next."""
    if not 0 < asked.size <= MOST_BYTES:
        most, there = f"{MOST_BYTES / 1e6:.0f} MB", f"{asked.size / 1e6:.1f} MB"
        raise RefusedError(f"A print has at most {most}, and not nothing; this file has {there}.")
    shoot = get_object_or_404(Shoot, pk=asked.shoot_id) if asked.shoot_id else None
    if shutil.disk_usage(settings.DATA).free < asked.size * ROOM:
        raise RefusedError("There is not enough room on the disk for this file and what is made of it.")
    name = PurePath(asked.name).name[:120] or "print.gcode"
    return 201, _line(Print.objects.create(name=name, size=asked.size, shoot=shoot))


@router.put("/prints/{print_id}/bytes", response={200: Arrived, 409: Trouble}, operation_id="put_print_bytes")
def put_bytes(request: HttpRequest, print_id: PathId, at: int = Query(..., ge=0, le=MOST_BYTES)) -> Any:
    """The next bytes, from `at` on; told is how many are here.

    What has arrived already is answered like what just arrived: the answer may have been lost on its way.
    """
    kept = get_object_or_404(Print, pk=print_id)
    if kept.state != "arriving":
        return {"here": kept.size}
    here = _written(kept, at, request)
    touched = Print.objects.filter(pk=kept.pk, state="arriving")
    if here < kept.size:
        touched.update(touched_at=timezone.now(), ran_s=stamp())
    else:
        _arrived(kept)
    return {"here": here}


def _written(kept: Print, at: int, request: HttpRequest) -> int:
    """Write the bytes of a request into the print's file, for good; returns how many are here then."""
    kept.folder.mkdir(parents=True, exist_ok=True)
    with os.fdopen(os.open(kept.arriving, os.O_RDWR | os.O_CREAT, 0o600), "r+b") as file:
        here = file.seek(0, 2)
        if at > here:
            raise RefusedError(f"Bytes from {at:,} on would leave a gap; {here:,} are here.")
        file.seek(at)
        while piece := request.read(PIECE):
            if file.tell() + len(piece) > kept.size:
                raise RefusedError("More bytes came than the file was said to have.")
            file.write(piece)
        here = max(here, file.tell())
        file.flush()
        os.fsync(file.fileno())
    return here


def _arrived(kept: Print) -> None:
    """All bytes are here: the row says so first, together with the work on it; the file gets its name after that."""
    with transaction.atomic():
        if Print.objects.filter(pk=kept.pk, state="arriving").update(state="reading"):
            Work.objects.create(print=kept, kind="read", plan=kept.shoot.plan if kept.shoot else None)
    WORKER.wake()


@router.get("/prints/{print_id}", response=PrintTold, operation_id="get_print")
def get_print(request: HttpRequest, print_id: PathId) -> Any:
    """A print with what was read of it."""
    WORKER.wake(PRINTS)
    kept = get_object_or_404(Print, pk=print_id)
    return {**_line(kept), "facts": _facts(kept)}


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
    if kept.state in ("read", "refused"):
        kept.settle()
    if not kept.original.exists():
        raise RefusedError(GONE if kept.state == "read" else "This file is not whole yet.")
    plan = asked.plan
    beside = get_object_or_404(Print, pk=asked.beside) if asked.beside and asked.kind == "prove" else None
    try:
        with transaction.atomic():
            work = Work.objects.create(
                print=kept,
                kind=asked.kind,
                beside=beside,
                plan=plan.model_dump(mode="json") if plan else None,
                of=print_digest(plan) if plan else "",
            )
            if asked.kind == "read":
                Print.objects.filter(pk=kept.pk).update(state="reading")
    except IntegrityError as error:
        raise RefusedError("Something is being done on this file already.") from error
    WORKER.wake()
    return 201, _work(work)


@router.post("/prints/work/{work_id}/stop", response=WorkTold, operation_id="stop_print_work")
def stop_work(request: HttpRequest, work_id: PathId) -> Any:
    """Ask for an end; what has not begun yet ends at once."""
    work = get_object_or_404(Work, pk=work_id)
    Work.objects.filter(pk=work_id, state__in=UNFINISHED).update(asked_stop=True)
    if work.state == "waiting":
        close(work, "stopped", STOPPED)
    WORKER.wake()
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
    work = None if kind == "original" else kept.last_done(kind)
    path = kept.whole if kind == "original" else work.file if work else None
    if path is None or not path.exists():
        raise Http404
    name = PurePath(kept.name)
    return FileResponse(
        path.open("rb"),
        as_attachment=True,
        filename=f"{name.stem}{FILES[kind]}{_doubt(work) if work else ''}{name.suffix or '.gcode'}",
    )


def _doubt(work: Work) -> str:
    """What the name of a file says where its own proof does not stand."""
    return "" if isinstance(work.result, dict) and work.result.get("stands") == "proven" else " UNPROVEN"


def _facts(kept: Print) -> dict[str, Any] | None:
    return kept.facts if isinstance(kept.facts, dict) else None


def _line(kept: Print) -> dict[str, Any]:
    facts = _facts(kept) or {}
    frames = facts.get("frames") or {}
    heights = frames.get("z_mm") or []
    whole, gone = kept.state != "arriving", kept.state == "read" and not kept.original.exists()
    return {
        "id": kept.pk,
        "name": kept.name,
        "digest": kept.digest,
        "size": kept.size,
        "here": kept.size if whole else (kept.arriving.stat().st_size if kept.arriving.exists() else 0),
        "state": "refused" if gone and not kept.demo else kept.state,
        "said": GONE if gone and not kept.demo else kept.said,
        "twin": _twin(kept),
        "shoot_id": kept.shoot_id,
        "shoot_name": kept.shoot.name if kept.shoot else "",
        "made_at": kept.made_at,
        "layers": len(frames.get("layers_s", [])) if frames else None,
        "height_mm": max(heights) if heights else None,
        "seconds": facts.get("seconds"),
        "works": list(_works(kept)),
    }


def _twin(kept: Print) -> str:
    """The name of an older print with the very same bytes; empty where there is none."""
    if not kept.digest or kept.state != "read":
        return ""
    same = Print.objects.filter(digest=kept.digest, size=kept.size, state="read", pk__lt=kept.pk).order_by("pk").first()
    return "" if same is None else (same.shoot.name if same.shoot else same.name)


def damaged_line(pk: int) -> PrintLine:
    """A print whose row cannot be read, as a line of its own."""
    return PrintLine(id=pk, name=f"Print number {pk}", digest="", size=0, here=0, state="damaged", said=DAMAGED,
                     twin="", shoot_id=None, shoot_name="", made_at=timezone.now(), layers=None, height_mm=None,
                     seconds=None, works=())  # fmt: skip


def _works(kept: Print) -> Iterator[WorkTold]:
    """The last work on a print; what is damaged of it is left out, and the print stays."""
    for work in readable(kept.works.order_by("-pk")[:6]):
        try:
            yield WorkTold.model_validate(_work(work))
        except UNFIT as error:
            LOG.warning("work %s cannot be read: %s", work.pk, error)


def _work(work: Work) -> dict[str, Any]:
    result = work.result if isinstance(work.result, dict) and "stands" in work.result else None
    names = ("kind", "of", "state", "doing", "done", "out_of", "said", "made_at", "ended_at")
    return {"id": work.pk, "result": result, **{name: getattr(work, name) for name in names}}
