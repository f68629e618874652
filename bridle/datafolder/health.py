"""Whether the database can be used; if not, one sentence that names what is wrong and what to do."""

import errno
import sqlite3
from contextlib import closing
from pathlib import Path

from bridle.datafolder.where import database

RESTORE = "Bring a copy back: bridle restore FILE"
# A table that every database of Bridle has.
SIGN = "shoots_shoot"
DAMAGED = "The database is damaged. Nothing was overwritten. Stop Bridle and bring a copy back: bridle restore FILE."
EMPTY = "The database is empty: its tables are gone. Nothing was overwritten. Bring a copy back: bridle restore FILE."
FULL = "The disk is full. Nothing that was kept is lost; make room, and Bridle goes on by itself."
READ_ONLY = "The database cannot be written to. Nothing kept is lost; let its owner write to its file and its folder."
READ_ONLY_FOLDER = "Bridle may not write into its folder. Nothing kept is lost; let its owner write there."
AWAY = "The database cannot be opened. Look whether its folder is still there and may be read."
BUSY = "The database is busy. Try again in a moment."
FAILED = "The disk does not take or give the data (an input or output error). Look at the disk before anything else."
# What SQLite says, in its own words, and what that means: status and sentence.
MEANINGS = (
    ("disk is full", 507, FULL),
    ("readonly", 503, READ_ONLY),
    ("read-only", 503, READ_ONLY),
    ("unable to open", 503, AWAY),
    ("malformed", 503, DAMAGED),
    ("not a database", 503, DAMAGED),
    ("locked", 503, BUSY),
    ("no such table", 503, EMPTY),
    ("no such column", 503, EMPTY),
    ("i/o error", 503, FAILED),
)


class UnwellError(Exception):
    """The database cannot be used; the message says why, and what to do."""


def why_not(error: BaseException) -> tuple[int, str]:
    """An HTTP status and a sentence for an error of the database."""
    said = str(error).lower()
    for words, status, sentence in MEANINGS:
        if words in said:
            return status, sentence
    return 503, "The database cannot be used just now. Bridle's log says why."


def why_no_file(error: OSError) -> tuple[int, str]:
    """An HTTP status and a sentence for a file that cannot be written or read."""
    if error.errno in (errno.ENOSPC, errno.EDQUOT):
        return 507, FULL
    if error.errno in (errno.EACCES, errno.EPERM, errno.EROFS):
        return 503, READ_ONLY_FOLDER
    if error.errno == errno.EIO:
        return 503, FAILED
    name = error.filename or "A file"
    if error.errno in (errno.EEXIST, errno.ENOTDIR):
        return 503, f"{name} is in the way: a folder of Bridle's should be there. Move it aside."
    if error.errno == errno.EISDIR:
        return 503, f"{name} is in the way: a file of Bridle's should be there, no folder. Move it aside."
    return 503, f"{name} cannot be used: {(error.strerror or str(error)).lower()}."


def check(folder: Path) -> bool:
    """Look at the database before it is used; False where there is none yet. Raises `UnwellError`. Writes nothing."""
    file = database(folder)
    try:
        if not file.exists():
            return False
        if file.is_dir():
            raise UnwellError(f"{file} is a folder; Bridle's database should be there. Move it aside.")
        if file.stat().st_size == 0:
            raise UnwellError(f"{file} is empty, with nothing in it. {_instead(folder)}")
        _look_inside(file)
    except sqlite3.Error as error:
        _, said = why_not(error)
        raise UnwellError(f"{file} is damaged. {_instead(folder)}" if said == DAMAGED else f"{file}: {said}") from error
    except OSError as error:
        raise UnwellError(f"{file} cannot be looked at: {error.strerror}. Let its owner read it.") from error
    return True


def _look_inside(file: Path) -> None:
    with closing(sqlite3.connect(f"{file.as_uri()}?mode=ro", uri=True, timeout=5)) as opened:
        found = opened.execute("PRAGMA quick_check(1)").fetchone()[0]
        if found != "ok":
            raise sqlite3.DatabaseError("malformed")
        if not opened.execute("SELECT 1 FROM sqlite_master WHERE name = ?", (SIGN,)).fetchone():
            raise UnwellError(f"{file} has none of Bridle's tables. {_instead(file.parent)}")


def writable(folder: Path) -> None:
    """Make sure that the database can be written to, or the disk is merely full. Raises `UnwellError`."""
    try:
        with closing(sqlite3.connect(database(folder), timeout=5)) as opened:
            opened.execute("PRAGMA user_version").fetchone()
            opened.execute("BEGIN IMMEDIATE")
            opened.execute("CREATE TABLE bridle_probe (x)")
            opened.execute("ROLLBACK")
    except sqlite3.Error as error:
        # What is there can still be looked at: a full disk keeps nobody from reading.
        if why_not(error)[1] == FULL:
            return
        raise UnwellError(f"{database(folder)}: {why_not(error)[1]}") from error


def _instead(folder: Path) -> str:
    return f"Nothing was overwritten. {_newest(folder)}; or move the file away, and Bridle begins anew."


def _newest(folder: Path) -> str:
    copies = sorted((folder / "copies").rglob("*.sqlite3"), key=lambda copy: copy.name)
    return f"Bring the newest copy back: bridle restore {copies[-1]}" if copies else RESTORE
