"""Giving back to the disk what the database does not need any more."""

from django.db import connection

# So many pages at a time: each batch is a transaction of its own, and nobody waits long for it.
PAGES = 500
# Below this it is not worth it: the pages are used again soon.
LEAST_PAGES = 250
INCREMENTAL = 2


def give_back() -> int:
    """Return free pages of the database to the disk; returns how many."""
    with connection.cursor() as cursor:
        before = free = _free_pages(cursor)
        while free > LEAST_PAGES:
            cursor.execute(f"PRAGMA incremental_vacuum({PAGES})")
            cursor.fetchall()
            now = _free_pages(cursor)
            if now >= free:
                break
            free = now
    return int(before - free)


def vacuums_itself() -> bool:
    """Whether the database can give back room bit by bit; one that was made by an older Bridle cannot yet."""
    with connection.cursor() as cursor:
        cursor.execute("PRAGMA auto_vacuum")
        return bool(cursor.fetchone()[0] == INCREMENTAL)


def let_it_vacuum_itself() -> None:
    """Write the database anew, once, so that it can give back room from then on."""
    with connection.cursor() as cursor:
        cursor.execute(f"PRAGMA auto_vacuum = {INCREMENTAL}")
        cursor.execute("VACUUM")


def _free_pages(cursor: object) -> int:
    cursor.execute("PRAGMA freelist_count")  # type: ignore[attr-defined]
    return int(cursor.fetchone()[0])  # type: ignore[attr-defined]
