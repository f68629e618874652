"""Doing a piece of work: with its progress kept, stopped when somebody asks, whole or not at all."""

import dataclasses
import logging
import time
from typing import Any

import numpy as np
from django.db import transaction
from django.utils import timezone

from bridle.bench.facts import NoLayersError, file_facts, layer_source
from bridle.bench.jobs import Made, NotReadyError, digest_of, make_changed, make_trial, prove_file, read_print
from bridle.bench.telling import fix_of, said, summary, why
from bridle.core.plan.document import Plan
from bridle.core.plan.upgrade import plan_from
from bridle.core.reckon.printing import print_digest
from bridle.core.subjects.parking.blocks import AlteredError
from bridle.core.subjects.prints.found import Inspection
from bridle.core.subjects.prints.pieces import NoTextError
from bridle.demo.lantern import lantern
from bridle.server.prints.models import Print, Work
from bridle.server.prints.shooting import shoot_of

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
    """Do it, unless it was stopped or taken away before it began. Never raises: what fails is told at the work."""
    work = Work.objects.filter(pk=work_id, state__in=("waiting", "running")).select_related("print").first()
    if work is None:
        return
    Work.objects.filter(pk=work_id).update(state="running")
    try:
        result = DOES[work.kind](work, _Telling(work))
        _end(work, "done", "", result)
    except StoppedError:
        _end(work, "stopped", "Stopped. Nothing half-made is left.", None)
    except REFUSED as error:
        _end(work, "failed", _sentence(error), None)
    except Exception:
        LOG.exception("work %s failed", work_id)
        _end(work, "failed", "The fault is Bridle's, and is in its log. The file is untouched.", None)


def _sentence(error: Exception) -> str:
    text = str(error)
    return text[:1].upper() + text[1:] + ("" if text.endswith(".") else ".")


def _end(work: Work, state: str, told: str, result: Any) -> None:
    with transaction.atomic():
        kept = Work.objects.filter(pk=work.pk)
        kept.update(state=state, said=told, result=result, ended_at=timezone.now(), doing="")
        if work.kind == "read" and state != "done":
            Print.objects.filter(pk=work.print_id).update(state="refused", said=told)


def _read(work: Work, told: _Telling) -> dict[str, Any]:
    """Read a file: facts into the print, its paths beside it, and a shoot where it has none."""
    kept = work.print
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
        kept.refresh_from_db()
        if kept.shoot is None and layers is not None:
            kept.shoot = shoot_of(kept.name, facts, layers)
        kept.state, kept.said, kept.facts, kept.digest = "read", "", told_facts, facts.digest
        kept.save()
    if kept.demo and kept.shoot is not None:
        plan = kept.shoot.read()
        after = Work(print=kept, kind="change", plan=kept.shoot.plan, of=print_digest(plan))
        after.result = _change(after, told)
        after.state, after.ended_at = "done", timezone.now()
        after.save()
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
    return _made(make_changed(work.print.original, work.print.made("change"), _plan(work), told))


def _trial(work: Work, told: _Telling) -> dict[str, Any]:
    return _made(make_trial(work.print.original, work.print.made("trial"), _plan(work), told))


def _prove(work: Work, told: _Telling) -> dict[str, Any]:
    """The file as it came, with the stops that a slicer wrote into it."""
    path, plan = work.print.original, _plan(work)
    return _made(Made(path, path.stat().st_size, 0, prove_file(path, plan, told)))


def _plan(work: Work) -> Plan:
    if work.plan is None:
        raise NotReadyError("a stop needs a plan")
    return plan_from(work.plan)


def _made(made: Made) -> dict[str, Any]:
    """What came of it, as the page shows it."""
    proof = made.proof
    failures = [
        {
            "kind": one.kind,
            "said": said(one),
            "why": why(one),
            "line": one.line,
            "layer": one.layer,
            "at": one.at,
            "fix": _fix(one),
        }
        for one in proof.failures[:40]
    ]
    return {
        "stands": proof.stands,
        "said": summary(proof),
        "failures": failures,
        "failed": len(proof.failures),
        "unknown": list(proof.unknown),
        "presses": proof.presses,
        "due": proof.due,
        "stopped_s": proof.stopped_s,
        "longest_wait_s": proof.longest_wait_s,
        "longest_wait_line": proof.longest_wait_line,
        "pauses": list(proof.pauses[:20]),
        "bytes": made.size,
    }


def _fix(failure: Any) -> dict[str, Any] | None:
    fix = fix_of(failure)
    if fix is None:
        return None
    return {**dataclasses.asdict(fix), "edits": [edit.model_dump(mode="json") for edit in fix.edits]}


DOES = {"read": _read, "change": _change, "trial": _trial, "prove": _prove}
