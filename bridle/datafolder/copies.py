"""Copies of the database: made while it is in use, brought back when it is not; the last ones are kept."""

import os
import sqlite3
from contextlib import closing
from datetime import UTC, datetime
from pathlib import Path

from bridle.datafolder.health import SIGN, UnwellError, why_not
from bridle.datafolder.where import BESIDE, database, for_its_owner_only

FOLDER = "copies"
KEPT = 3


def backup(folder: Path, to: Path) -> None:
    """Copy the database into a file that is not there yet; it may be in use. Raises `UnwellError`, FileExistsError."""
    source = database(folder)
    if not source.exists():
        raise UnwellError(f"There is no database in {folder} yet, so there is nothing to copy.")
    if to.exists():
        raise FileExistsError(f"{to} is there already; a copy overwrites nothing. Name another file.")
    _copy(source, to)


def restore(folder: Path, source: Path) -> Path | None:
    """Put a copy in the place of the database; what was there is copied first. Returns that copy, if there was any.

    Nobody may use the database meanwhile: take the lock first. Raises `UnwellError`.
    """
    _is_ours(source)
    for_its_owner_only(folder)
    before = set_aside(folder, "before-restore")
    aside = database(folder).with_suffix(".restored")
    aside.unlink(missing_ok=True)
    _copy(source, aside)
    for ending in BESIDE:
        database(folder).with_name(database(folder).name + ending).unlink(missing_ok=True)
    aside.replace(database(folder))
    return before


def set_aside(folder: Path, why: str) -> Path | None:
    """A copy among the copies, as far as the database can be read at all; the last few are kept. None without one."""
    source = database(folder)
    if not source.exists():
        return None
    kept = folder / FOLDER
    kept.mkdir(mode=0o700, exist_ok=True)
    to = kept / f"bridle-{datetime.now(UTC):%Y%m%dT%H%M%S%f}-{why}.sqlite3"
    try:
        _copy(source, to)
    except UnwellError:
        # Damaged: its bytes may still be of use to somebody.
        to.unlink(missing_ok=True)
        to.write_bytes(source.read_bytes())
        to.chmod(0o600)
    for old in sorted(kept.glob("bridle-*.sqlite3"))[:-KEPT]:
        old.unlink()
    return to


def _copy(source: Path, to: Path) -> None:
    """SQLite's own online backup, checked before it gets its name: half a copy is never taken for a whole one."""
    half = to.with_name(f"{to.name}.part")
    try:
        half.unlink(missing_ok=True)
        os.close(os.open(half, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600))
        with (
            closing(sqlite3.connect(f"{source.as_uri()}?mode=ro", uri=True, timeout=20)) as opened,
            closing(sqlite3.connect(half)) as copy,
        ):
            opened.backup(copy)
            copy.execute("PRAGMA journal_mode=DELETE")
            if copy.execute("PRAGMA quick_check(1)").fetchone()[0] != "ok":
                raise sqlite3.DatabaseError("malformed")
        half.replace(to)
    except sqlite3.Error as error:
        half.unlink(missing_ok=True)
        raise UnwellError(f"{source} cannot be copied to {to}. {why_not(error)[1]}") from error
    except OSError as error:
        raise UnwellError(f"{to} cannot be written: {error.strerror}.") from error


def _is_ours(source: Path) -> None:
    if not source.is_file():
        raise UnwellError(f"There is no file {source}.")
    try:
        with closing(sqlite3.connect(f"{source.resolve().as_uri()}?mode=ro", uri=True)) as opened:
            whole = opened.execute("PRAGMA quick_check(1)").fetchone()[0] == "ok"
            ours = opened.execute("SELECT 1 FROM sqlite_master WHERE name = ?", (SIGN,)).fetchone()
    except sqlite3.Error as error:
        raise UnwellError(f"{source} is no copy of Bridle's database: {error}. Nothing was changed.") from error
    if not whole or not ours:
        raise UnwellError(f"{source} is no whole copy of Bridle's database. Nothing was changed.")
