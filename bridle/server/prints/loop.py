"""The long work one after another: the table of works is the queue, so the two cannot disagree."""

import logging
import shutil
import threading

from django.conf import settings
from django.db import DatabaseError, connection, transaction

from bridle.datafolder.health import why_not
from bridle.server.prints.models import ROOM, UNFINISHED, Print, Work
from bridle.server.prints.performing import perform

LOG = logging.getLogger("bridle.prints")
LOOK_S = 0.5
# A file beyond this is a large one: its proof takes some seconds at least.
LARGE = 8_000_000
# While nothing can be kept, the work is tried again so often.
AGAIN_S = 5.0


def next_work(large: bool | None = None) -> int | None:
    """The oldest work that is not finished: what was being done when the power went starts over.

    `large`: only that on large files, or on all others; None: on any.
    """
    waiting = Work.objects.filter(state__in=UNFINISHED)
    if large is not None:
        waiting = waiting.filter(print__size__gt=LARGE) if large else waiting.filter(print__size__lte=LARGE)
    return waiting.order_by("pk").values_list("pk", flat=True).first()


def wake_demos() -> None:
    """The demo's files are made, read and proven once somebody has looked at the prints, or finds them gone."""
    for kept in Print.objects.filter(state__in=("asleep", "read")).exclude(demo="").select_related("shoot"):
        if kept.state == "read" and kept.original.exists():
            continue
        # A demo is not worth a full disk.
        if shutil.disk_usage(settings.DATA).free < kept.size * ROOM:
            continue
        with transaction.atomic():
            if Work.objects.filter(print=kept, state__in=UNFINISHED).exists():
                continue
            if Print.objects.filter(pk=kept.pk, state=kept.state).update(state="reading"):
                Work.objects.create(print=kept, kind="read", plan=kept.shoot.plan if kept.shoot else None)


def do_all(looked: threading.Event, ended: threading.Event, large: bool | None = None) -> None:
    """Do what there is to do, and wait for more, until the end; `looked`: somebody is looking at the prints.

    One who does the large files and one who does the others: nobody waits a quarter of an hour for ten seconds' work,
    and two large files are never in memory at once.
    """
    while not ended.is_set():
        try:
            if looked.is_set():
                looked.clear()
                wake_demos()
            work_id = next_work(large)
            if work_id is not None:
                perform(work_id)
                continue
            pause = LOOK_S
        except DatabaseError as error:
            LOG.warning("long work waits: %s", why_not(error)[1])
            pause = AGAIN_S
        finally:
            connection.close()
        looked.wait(pause)
