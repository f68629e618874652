"""Doing a piece of work: with its progress kept, stopped when somebody asks, whole or not at all."""

import dataclasses
import logging
import time
from collections.abc import Sequence
from typing import Any

import numpy as np
from django.db import DatabaseError, transaction
from django.utils import timezone

from bridle.bench.facts import NoLayersError, file_facts, layer_source
from bridle.bench.jobs import Made, NotReadyError, digest_of, make_changed, make_trial, prove_file, read_print
from bridle.bench.telling import fixes_of, said, summary, why
from bridle.core.plan.document import Plan
from bridle.core.plan.upgrade import plan_from
from bridle.core.reckon.printing import print_digest
from bridle.core.subjects.parking.blocks import AlteredError
from bridle.core.subjects.prints.found import Inspection
from bridle.core.subjects.prints.pieces import NoTextError
from bridle.datafolder.health import why_no_file
from bridle.demo.lantern import lantern
from bridle.server.prints.models import UNFINISHED, Print, Work
from bridle.server.prints.shooting import shoot_of
from bridle.server.shoots.models import Shoot
from bridle.standins.printer.proof import JUDGE, Failure

LOG = logging.getLogger("bridle.prints")
TELL_S = 0.25
REFUSED = (NoTextError, AlteredError, NotReadyError, NoLayersError)


class StoppedError(Exception):
    """Somebody has asked for an end."""


class _Telling:
    """Keeps how far the work is, some times a second, and hears whether it is to stop."""

    def __init__(self, work: Work) -> None:
        self.work, self.last = work, 0.0

    def __call__(self, what: str, done: int, of: int) -> None:
        now = time.monotonic()
        if now - self.last < TELL_S and what == self.work.doing:
            return
        self.last, self.work.doing = now, what
        kept = Work.objects.filter(pk=self.work.pk)
        kept.update(doing=what, done=done, out_of=of)
        if not kept.filter(asked_stop=False).exists():
            raise StoppedError


def perform(work_id: int) -> None:
    """Do it, unless it was stopped or taken away before it began; what fails is told at the work.

    Raises a DatabaseError where nothing can be kept: then it is still to be done.
    """
    work = Work.objects.filter(pk=work_id, state__in=UNFINISHED).select_related("print").first()
    if work is None:
        return
    Work.objects.filter(pk=work_id).update(state="running")
    try:
        work.print.clear_halves()
        result = DOES[work.kind](work, _Telling(work))
        _end(work, "done", "", result)
        work.print.clear_older(work)
    except StoppedError:
        _end(work, "stopped", "Stopped. Nothing half-made is left.", None)
    except REFUSED as error:
        _end(work, "failed", _sentence(error), None)
    except OSError as error:
        LOG.warning("work %s: %s", work_id, error)
        _end(work, "failed", f"{why_no_file(error)[1]} What is kept is untouched.", None)
    except DatabaseError:
        raise
    except Exception:
        LOG.exception("work %s failed", work_id)
        _end(work, "failed", "The fault is Bridle's, and is in its log. The file is untouched.", None)


def _sentence(error: Exception) -> str:
    text = str(error)
    return text[:1].upper() + text[1:] + ("" if text.endswith(".") else ".")


def _end(work: Work, state: str, told: str, result: Any) -> None:
    with transaction.atomic():
        kept = Work.objects.filter(pk=work.pk, state__in=UNFINISHED)
        ended = kept.update(state=state, said=told, result=result, ended_at=timezone.now(), doing="")
        if not ended:
            return
        if work.kind == "change" and state == "done" and work.print.shoot_id is not None:
            # What the list says of it was worked out without this proof.
            Shoot.objects.filter(pk=work.print.shoot_id).update(summary_of="")
        if work.kind == "read" and state != "done":
            Print.objects.filter(pk=work.print_id).update(state="refused", said=told)
        if work.kind == "read" and state == "done" and work.print.demo:
            _prove_the_demo(work.print)


def _prove_the_demo(kept: Print) -> None:
    if kept.shoot is not None:
        plan = kept.shoot.read()
        Work.objects.create(print=kept, kind="change", plan=kept.shoot.plan, of=print_digest(plan))


def _read(work: Work, told: _Telling) -> dict[str, Any]:
    """Read a file: facts into the print, its paths beside it, and a shoot where it has none."""
    kept = work.print
    kept.settle()
    if kept.demo and not kept.original.exists():
        told("making the demo's file", 0, kept.size)
        _generate(kept)
    plan = plan_from(work.plan) if work.plan else None
    found = read_print(kept.original, plan, told)
    facts = file_facts(found, kept.name, digest_of(kept.original))
    layers = layer_source(found) if found.layers else None
    _keep_picture(kept, found)
    told("keeping what was read", kept.size, kept.size)
    told_facts = {
        "file": facts.model_dump(mode="json"),
        "frames": layers.model_dump(mode="json") if layers else None,
        "seconds": found.seconds,
        "purge_mm": found.purge,
    }
    with transaction.atomic():
        if not Print.objects.filter(pk=kept.pk).exists():
            raise StoppedError
        kept.refresh_from_db()
        if kept.shoot is None and layers is not None:
            kept.shoot = shoot_of(kept.name, facts, layers)
        kept.state, kept.said, kept.facts, kept.digest = "read", "", told_facts, facts.digest
        kept.save()
    return {"layers": len(found.layers)}


def _generate(kept: Print) -> None:
    """The demo's file, from its generator."""
    kept.folder.mkdir(parents=True, exist_ok=True)
    kept.arriving.write_text("".join(lantern()), encoding="ascii")
    kept.arriving.replace(kept.original)


def _keep_picture(kept: Print, found: Inspection) -> None:
    half = kept.picture.with_name("picture.half.npz")
    np.savez(
        half,
        points=np.concatenate(
            [found.points[n, :count] for n, count in enumerate(found.kept)] or [np.empty((0, 3), np.int16)]
        ),
        counts=found.kept,
        start=found.start_path,
        end=found.end_path,
    )
    half.replace(kept.picture)


def _change(work: Work, told: _Telling) -> dict[str, Any]:
    plan = _plan(work)
    return _made(make_changed(work.print.original, work.makes, plan, told), plan)


def _trial(work: Work, told: _Telling) -> dict[str, Any]:
    plan = _plan(work)
    return _made(make_trial(work.print.original, work.makes, plan, told), plan)


def _prove(work: Work, told: _Telling) -> dict[str, Any]:
    """The file as it came, with the stops that a slicer wrote into it; beside its original, where that is here."""
    path, plan = work.print.original, _plan(work)
    original = work.beside.original if work.beside else None
    if original is not None and not original.exists():
        raise NotReadyError("the original is not on the bench any more; put it in again")
    return _made(Made(path, path.stat().st_size, 0, prove_file(path, plan, told, original)), plan)


def _plan(work: Work) -> Plan:
    if work.plan is None:
        raise NotReadyError("a stop needs a plan")
    return plan_from(work.plan)


def _made(made: Made, plan: Plan) -> dict[str, Any]:
    """What came of it, as the page shows it."""
    proof = made.proof
    return {
        "stands": proof.stands,
        "said": summary(proof),
        "failures": [_told(one, plan, proof.free) for one in proof.failures[:40]],
        "failed": len(proof.failures),
        "minds": [_told(one, plan, proof.free) for one in proof.minds[:10]],
        "unknown": list(proof.unknown),
        "presses": proof.presses,
        "due": proof.due,
        "stopped_s": proof.stopped_s,
        "longest_wait_s": proof.longest_wait_s,
        "longest_wait_line": proof.longest_wait_line,
        "pauses": list(proof.pauses[:20]),
        "bytes": made.size,
        "judge": JUDGE,
        "digest": digest_of(made.path),
    }


def _told(one: Failure, plan: Plan, free: Sequence[int]) -> dict[str, Any]:
    fixes = [
        {**dataclasses.asdict(fix), "edits": [edit.model_dump(mode="json") for edit in fix.edits]}
        for fix in fixes_of(one, plan, free)
    ]
    return {
        "kind": one.kind,
        "said": said(one),
        "why": why(one),
        "line": one.line,
        "layer": one.layer,
        "at": one.at,
        "fixes": fixes,
    }


DOES = {"read": _read, "change": _change, "trial": _trial, "prove": _prove}
