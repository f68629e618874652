"""Drives runs on the stand-ins: a thread for each run that is under way, paced by simulated time.

What a run must not forget is kept before anything follows from it. The order for a frame is: the camera
writes its own count, then the run records the frame. A server that is killed in between asks the camera.
"""

import logging
import threading
import time

from django.db import DatabaseError, close_old_connections, connection

from bridle.core.run.events import Asked, CutOff, Event, Note, Restarted, Shot, Visited
from bridle.core.run.machine import ACTIVE, RunState, step
from bridle.core.run.programme import LEAD_S, Programme, programme
from bridle.datafolder.health import why_not
from bridle.server.held import hold
from bridle.server.rows import readable
from bridle.server.runs.book import ENDED, record
from bridle.server.runs.models import AS_FAST_AS_IT_GOES, Run, StandInCamera
from bridle.server.runs.site import CUT_S, site_of_run
from bridle.standins.bench import Bench, new_bench

LOG = logging.getLogger("bridle.runs")
# How long a run waits before it looks again whether somebody asked for something.
LOOK_S = 0.5
# What is said of a visit at which nothing was due.
LOOKED = "a look"

_wake: dict[int, threading.Event] = {}
_lock = threading.Lock()
# Runs of which it cannot be told where they are: nobody can drive them, and they say so themselves.
_damaged: set[int] = set()
# Why the last try to drive a run ended; in memory, since the disk may be what is wrong.
_trouble: dict[int, str] = {}


def trouble(run_id: int) -> str:
    """Why a run is not driven just now; empty while all is well."""
    return _trouble.get(run_id, "")


def ensure_driven(run_id: int) -> None:
    """Wake the run's thread, or start one. Raises `TakenError` where another server has the data."""
    hold()
    with _lock:
        if run_id not in _wake:
            _wake[run_id] = threading.Event()
            threading.Thread(target=_drive, args=(run_id,), name=f"run {run_id}", daemon=True).start()
        _wake[run_id].set()


def resume_all() -> list[int]:
    """Go on with every run that is under way, or was asked to start, and that no thread drives; returns which."""
    left = [run.pk for run in readable(Run.objects.filter(ended_at=None)) if run.pk not in _wake and _goes_on(run)]
    for run_id in left:
        ensure_driven(run_id)
    return left


def _goes_on(run: Run) -> bool:
    if run.pk in _damaged:
        return False
    if run.damaged:
        _damaged.add(run.pk)
        LOG.error("run %s is damaged: it cannot be told where it is, and does not go on", run.pk)
        return False
    return run.active or bool(run.wishes)


def _drive(run_id: int) -> None:
    try:
        close_old_connections()
        Drive(run_id, _wake[run_id]).go()
        _trouble.pop(run_id, None)
    except DatabaseError as error:
        _trouble[run_id] = f"This run stands still: {why_not(error)[1]}"
        LOG.warning("run %s: %s", run_id, error)
    except Exception:
        _trouble[run_id] = "This run stood still through a fault of Bridle's, which is in its log. It is tried again."
        LOG.exception("run %s stopped with an error; it goes on from its last frame", run_id)
    finally:
        # Whatever is left to do, the watch finds.
        with _lock:
            del _wake[run_id]
        connection.close()


class Drive:
    """One run being driven: state machine and bench, in step with the row in the database."""

    def __init__(self, run_id: int, wake: threading.Event) -> None:
        """Take the run up where it was left."""
        self.wake = wake
        self.run = Run.objects.get(pk=run_id)
        self.camera, _ = StandInCamera.objects.get_or_create(run=self.run)
        self.programme: Programme = programme(self.run.read_plan())
        self.state: RunState = self.run.read_state()
        place = self.programme.place(min(self.state.frame, self.programme.frames - 1))
        self.bench: Bench = new_bench(
            self.programme, self.camera.frames, place, self.run.now_s, site_of_run(self.run, self.programme)
        )
        if self.run.comes and self.programme.stay is not None:
            start = self.programme.start.timestamp()
            came = set(self.run.events.filter(kind="visit").values_list("at_s", flat=True))
            due = ((visit.at - start + LEAD_S, visit.tasks) for visit in self.programme.stay.coming.visits)
            self.bench.expect((at_s, tuple(tasks) or (LOOKED,)) for at_s, tasks in due if at_s not in came)
        self.speed = self.run.speed

    def go(self) -> None:
        """Drive until the run has ended, or is neither under way nor asked to be."""
        if self.state.phase in ACTIVE:
            self._handle(Restarted(self.camera.frames))
        while self.state.phase not in ENDED:
            self._hear()
            if self.state.phase in ENDED or self.state.phase == "ready":
                return
            if self._wait():
                self._next()

    def _hear(self) -> None:
        """Do what people asked for since the last look, oldest first; the speed is read along with it.

        A request is crossed off in the transaction that keeps what came of it: it is neither lost nor done twice.
        """
        self.wake.clear()
        row = Run.objects.only("asked", "speed").get(pk=self.run.pk)
        self.speed = row.speed
        for asked in row.wishes:
            self._handle(self._asked(asked), heard=True)

    def _asked(self, what: str) -> Event:
        """What a person asks for; a visit ticked off and a cut happen to the site as well."""
        site, now_s = self.bench.site, self.bench.now_s - LEAD_S
        if what == "visit":
            if site is not None:
                site.visit(now_s, ())
            return Visited(())
        if what == "cut":
            if site is not None:
                site.cut(now_s, CUT_S)
            return CutOff(CUT_S)
        return Asked(what)  # type: ignore[arg-type]  # one of what the API takes

    def _wait(self) -> bool:
        """Let simulated time run up to the next event; False if something was asked, or there is none yet."""
        due = self.bench.next_at()
        if self.speed == AS_FAST_AS_IT_GOES:
            if due is None:
                self.wake.wait(LOOK_S)
            return due is not None
        left = LOOK_S if due is None else min(LOOK_S, max(0.0, due - self.bench.now_s) / self.speed)
        began = time.monotonic()
        self.wake.wait(left)
        passed = self.bench.now_s + (time.monotonic() - began) * self.speed
        if due is not None and passed >= due:
            return True
        self.bench.now_s = passed
        return False

    def _next(self) -> None:
        event = self.bench.pop()
        if isinstance(event, Shot):
            StandInCamera.objects.filter(pk=self.camera.pk).update(frames=self.bench.camera.frames)
        self._handle(event)

    def _handle(self, event: Event, heard: bool = False) -> None:
        before = self.state
        self.state, commands = step(self.programme, before, event, self.bench.now_s)
        notes = [command for command in commands if isinstance(command, Note)]
        if heard or notes or _wishes(self.state) != _wishes(before):
            record(self.run, self.programme, self.state, self.bench.now_s, notes, heard)
            _trouble.pop(self.run.pk, None)
        for command in commands:
            self.bench.obey(command)


def _wishes(state: RunState) -> tuple[bool, bool]:
    return state.pause_asked, state.stop_asked
