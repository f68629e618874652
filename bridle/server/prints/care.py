"""Looking after the work on prints from outside: it always ends, and always says how; what was given up is cleared."""

import json
import logging
import shutil
import time
from datetime import datetime, timedelta
from pathlib import Path

from django.conf import settings
from django.db import transaction
from django.utils import timezone

from bridle.server.house.clock import PASSED_S, passed, stamp
from bridle.server.keeping import BIN_DAYS
from bridle.server.prints.models import PRINTS, UNFINISHED, Print, Work

LOG = logging.getLogger("bridle.prints")
# Work that does not stop by itself is ended with its process after this time.
STOP_S = 8.0
MOST_DEATHS = 3
STOPPED = "Stopped. Nothing half-made is left."
GAVE_UP = (
    "Bridle's process for long work ended {count} times over this file, the last time {how}. Most likely this computer "
    "has too little memory for it. The file is untouched."
)
# An upload that nobody has gone on with for so long is given up.
GIVEN_UP = timedelta(days=1)
LEFT = "left.json"
MADE = ("change", "trial")


class PrintsCare:
    """What the server's process does for the one that does the work."""

    def __init__(self) -> None:
        """Nobody has asked for an end yet."""
        self._asked: dict[int, float] = {}

    def unfinished(self) -> bool:
        """Whether there is something to do."""
        return Work.objects.filter(state__in=UNFINISHED).exists()

    def does_not_stop(self) -> bool:
        """Whether a work goes on long after somebody has asked for its end."""
        asked = set(Work.objects.filter(state="running", asked_stop=True).values_list("pk", flat=True))
        now = time.monotonic()
        self._asked = {pk: self._asked.get(pk, now) for pk in asked}
        return any(now - since > STOP_S for since in self._asked.values())

    def after_death(self, how: str) -> None:
        """Stopped where somebody asked, given up in words after too many deaths, else begun again."""
        running = list(Work.objects.filter(state="running").select_related("print").order_by("-print__size"))
        for number, work in enumerate(running):
            # Of two that ran at once the larger is blamed.
            deaths = work.deaths + (number == 0)
            if work.asked_stop:
                close(work, "stopped", STOPPED)
            elif deaths >= MOST_DEATHS:
                close(work, "failed", GAVE_UP.format(count=deaths, how=how))
            else:
                again = f"begun again: its process ended {how}"
                Work.objects.filter(pk=work.pk, state="running").update(deaths=deaths, doing=again)


def close(work: Work, state: str, said: str) -> bool:
    """End a work from outside of it; False where it has ended already."""
    with transaction.atomic():
        unfinished = Work.objects.filter(pk=work.pk, state__in=UNFINISHED)
        if not unfinished.update(state=state, said=said, ended_at=timezone.now(), doing=""):
            return False
        if work.kind == "read":
            Print.objects.filter(pk=work.print_id, state="reading").update(state="refused", said=said)
        return True


def clear() -> None:
    """Take away uploads that were given up, what a kill has left, and folders whose print is gone for good."""
    for kept in Print.objects.filter(passed("touched_at"), state="arriving", touched_at__lt=timezone.now() - GIVEN_UP):
        LOG.info("the upload of %s was given up; what had come of it is cleared", kept.name)
        kept.throw_away()
    for kept in Print.objects.filter(state="read"):
        if not kept.works.filter(state__in=UNFINISHED).exists():
            kept.clear_halves()
            for kind in MADE:
                if (done := kept.last_done(kind)) is not None:
                    kept.clear_older(done)
    known = set(Print.objects.values_list("key", flat=True))
    for folder in _folders():
        if folder.name not in known:
            _clear_left(folder)
        elif (folder / LEFT).exists():
            (folder / LEFT).unlink(missing_ok=True)


def _folders() -> list[Path]:
    prints = Path(settings.DATA) / PRINTS
    return [one for one in prints.iterdir() if one.is_dir()] if prints.is_dir() else []


def _clear_left(folder: Path) -> None:
    """A folder without its print: a cut while it was thrown away, or an older copy of the data was brought back.

    It goes once it has been seen so for as long as things stay in the bin, by the clock and by running time.
    """
    now, ran = timezone.now(), stamp()
    try:
        left = json.loads((folder / LEFT).read_text())
        since, since_ran = datetime.fromisoformat(left["at"]), float(left["ran_s"])
    except (OSError, ValueError, TypeError, KeyError):
        (folder / LEFT).write_text(json.dumps({"at": now.isoformat(), "ran_s": ran}))
        return
    if now - since > timedelta(days=BIN_DAYS) and ran - since_ran > PASSED_S:
        shutil.rmtree(folder, ignore_errors=True)
