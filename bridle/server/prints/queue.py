"""The queue of long work, in SQLite beside the database; and what is done of it in a process of its own."""

from django.conf import settings
from huey import SqliteHuey

from bridle.server.prints.models import UNFINISHED, Work
from bridle.server.prints.performing import perform

QUEUE = SqliteHuey("prints", filename=str(settings.DATA / "work.sqlite3"), results=False, timeout=20)


@QUEUE.task()  # type: ignore[untyped-decorator]
def do(work_id: int) -> None:
    """One piece of work."""
    perform(work_id)


def begin_again() -> int:
    """Put all that is not finished into the queue anew: what was being done when the power went starts over."""
    QUEUE.flush()
    unfinished = Work.objects.filter(state__in=UNFINISHED).order_by("pk")
    for work in unfinished:
        do(work.pk)
    return len(unfinished)
