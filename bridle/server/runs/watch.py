"""Looks after the runs, and after the house: what died is driven again, what is old is thinned out."""

import logging
import threading
import time

from django.db import DatabaseError, connection

from bridle.server.keeping import empty_bin, thin_all
from bridle.server.kit.models import KitCard
from bridle.server.runs.driver import resume_all
from bridle.server.shoots.models import Shoot

LOG = logging.getLogger("bridle.runs")
LOOK_S = 2.0
TIDY_S = 6 * 3600.0


class Watch:
    """Looks every two seconds whether a run that is under way is still driven."""

    def start(self) -> list[int]:
        """Tidy up, go on with what was under way, and keep looking; returns the runs that go on."""
        self._tidy()
        going = resume_all()
        threading.Thread(target=self._look, name="watch", daemon=True).start()
        return going

    def _look(self) -> None:
        tidied = time.monotonic()
        while True:
            time.sleep(LOOK_S)
            try:
                for run_id in resume_all():
                    LOG.warning("run %s was no longer driven, and goes on", run_id)
                if time.monotonic() - tidied > TIDY_S:
                    tidied = time.monotonic()
                    self._tidy()
            except DatabaseError as error:
                LOG.warning("the runs cannot be looked after just now: %s", error)
            finally:
                connection.close()

    def _tidy(self) -> None:
        try:
            empty_bin(Shoot)
            empty_bin(KitCard)
            thin_all()
        except DatabaseError as error:
            LOG.warning("what is old cannot be thinned out just now: %s", error)
