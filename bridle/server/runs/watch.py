"""Looks after the runs, and after the house: what died is driven again, what is old is thinned out."""

import logging
import threading
import time
from collections.abc import Callable
from typing import TypeVar

from django.db import DatabaseError, connection

from bridle.datafolder.health import why_no_file
from bridle.server.house.clock import RUNNING, newest_of
from bridle.server.house.room import give_back
from bridle.server.keeping import Revision, empty_bin, thin_all
from bridle.server.kit.models import KitCard
from bridle.server.prints.care import clear
from bridle.server.runs.driver import resume_all
from bridle.server.runs.models import Run
from bridle.server.shoots.models import Shoot

LOG = logging.getLogger("bridle.runs")
LOOK_S = 2.0
T = TypeVar("T")
TIDY_S = 6 * 3600.0
# Each by itself: what cannot be done does not keep the others from being done.
TIDIES: tuple[Callable[[], object], ...] = (
    lambda: empty_bin(Shoot),
    lambda: empty_bin(KitCard),
    thin_all,
    clear,
    give_back,
)


class Watch:
    """Looks every two seconds whether a run that is under way is still driven."""

    def start(self) -> list[int]:
        """Tidy up, go on with what was under way, and keep looking; returns the runs that go on."""
        tried(_count)
        self._tidy()
        going = resume_all()
        threading.Thread(target=self._look, name="watch", daemon=True).start()
        return going

    def _look(self) -> None:
        tidied = time.monotonic()
        while True:
            time.sleep(LOOK_S)
            tried(_resume)
            tried(RUNNING.look)
            if time.monotonic() - tidied > TIDY_S:
                tidied = time.monotonic()
                self._tidy()
            connection.close()

    def _tidy(self) -> None:
        for tidy in TIDIES:
            tried(tidy)


def _count() -> None:
    RUNNING.start(newest_of((Shoot, "changed_at"), (Revision, "made_at"), (Run, "saved_at")))


def _resume() -> None:
    for run_id in resume_all():
        LOG.warning("run %s was no longer driven, and goes on", run_id)


def tried(does: Callable[[], T]) -> T | None:
    """Do something that can wait: what keeps it from being done is written down, and ends nothing else."""
    try:
        return does()
    except DatabaseError as error:
        LOG.warning("this can wait, and is tried again: %s", error)
    except OSError as error:
        LOG.warning("this can wait, and is tried again: %s", why_no_file(error)[1])
    except Exception:
        LOG.exception("this can wait, and is tried again")
    return None
