"""Copies of the database: made while it is in use, brought back when it is not, tried before they count."""

import hashlib
import os
import re
import shutil
import sqlite3
from collections.abc import Callable, Iterator
from contextlib import closing, suppress
from datetime import UTC, datetime
from pathlib import Path

from bridle.datafolder.health import SIGN, UnwellError, why_no_file, why_not
from bridle.datafolder.where import BESIDE, database, for_its_owner_only

FOLDER = "copies"
# So many copies made before an update stay. Those made before a restore hold somebody's work: none goes by itself.
KEPT = 3
UPDATE, RESTORE = "before-update", "before-restore"
# Where a copy is tried before it takes the database's place.
TRIAL = "restoring"
# What Bridle writes down by itself; two databases that differ in nothing else hold the same work.
NOT_WORK = {"house_house", "sqlite_sequence"}
NOT_WORK_COLUMNS = {"summary", "summary_of"}
HALF = re.compile(r"\..+\.(\d+)\.half")

# Whether a copy starts in a folder of its own. Raises `UnwellError`.
Tried = Callable[[Path], None]


def backup(folder: Path, to: Path) -> None:
    """Copy the database into a file that is not there yet; it may be in use. Raises `UnwellError`, FileExistsError."""
    source = database(folder)
    if not source.exists():
        raise UnwellError(f"There is no database in {folder} yet, so there is nothing to copy.")
    if to.exists():
        raise FileExistsError(f"{to} is there already; a copy overwrites nothing. Name another file.")
    _copy(source, to)


def restore(folder: Path, source: Path, tried: Tried) -> Path | None:
    """Put a copy in the place of the database, once it has been tried; what was there is copied first.

    Returns that copy; None where there was nothing, or nothing that is not in a copy already. Nobody may use the
    database meanwhile: take the lock first. A kill at any place leaves the old database whole, or the new one.
    Raises `UnwellError`: then nothing was changed.
    """
    _is_ours(source)
    for_its_owner_only(folder)
    clear_halves(folder)
    trial = folder / TRIAL
    trial.mkdir(mode=0o700)
    try:
        _copy(source, database(trial))
        tried(trial)
        _close_journal(database(trial))
        before = None if _same(database(folder), database(trial)) else set_aside(folder, RESTORE)
        _settle(folder)
        _to_disk(database(trial))
        database(trial).replace(database(folder))
        _to_disk(folder)
    except sqlite3.Error as error:
        raise UnwellError(f"{source} cannot be brought back. {why_not(error)[1]}") from error
    finally:
        shutil.rmtree(trial, ignore_errors=True)
    return before


def set_aside(folder: Path, why: str) -> Path | None:
    """A copy among the copies, as far as the database can be read at all; None without a database.

    What is in a copy of the same sort already is not copied twice: that copy is told.
    """
    source = database(folder)
    if not source.exists():
        return None
    kept = folder / FOLDER / why
    kept.mkdir(mode=0o700, parents=True, exist_ok=True)
    for there in reversed(copies_of(folder, why)):
        if _same(source, there):
            return there
    to = kept / f"bridle-{datetime.now(UTC):%Y%m%dT%H%M%S%f}.sqlite3"
    try:
        _copy(source, to)
    except UnwellError:
        _copy_bytes(source, to)
    if why == UPDATE:
        for old in copies_of(folder, why)[:-KEPT]:
            old.unlink()
    return to


def copies_of(folder: Path, why: str) -> list[Path]:
    """The copies of a sort, the oldest first."""
    return sorted((folder / FOLDER / why).glob("*.sqlite3"))


def clear_halves(folder: Path) -> None:
    """Take away what a copy or a restore that was killed has left; the lock must be held."""
    shutil.rmtree(folder / TRIAL, ignore_errors=True)
    for place in (folder, *(folder / FOLDER / why for why in (UPDATE, RESTORE))):
        _clear_halves_in(place)


def _clear_halves_in(place: Path) -> None:
    for half in place.glob(".*.half"):
        match = HALF.fullmatch(half.name)
        if match and not _alive(int(match[1])):
            with suppress(OSError):
                half.unlink(missing_ok=True)


def _alive(process: int) -> bool:
    try:
        os.kill(process, 0)
    except (ProcessLookupError, OverflowError):
        return False
    except PermissionError:
        return True
    return process != os.getpid()


def _copy(source: Path, to: Path) -> None:
    """SQLite's own online backup, checked before it gets its name: half a copy is never taken for a whole one."""
    half = to.with_name(f".{to.name}.{os.getpid()}.half")
    try:
        _clear_halves_in(to.parent)
        os.close(os.open(half, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600))
        with (
            closing(sqlite3.connect(f"{source.as_uri()}?mode=ro", uri=True, timeout=20)) as opened,
            closing(sqlite3.connect(half)) as copy,
        ):
            opened.backup(copy)
            copy.execute("PRAGMA journal_mode=DELETE")
            if copy.execute("PRAGMA quick_check(1)").fetchone()[0] != "ok":
                raise sqlite3.DatabaseError("malformed")
        _to_disk(half)
        half.replace(to)
        _to_disk(to.parent)
    except sqlite3.Error as error:
        half.unlink(missing_ok=True)
        raise UnwellError(f"{source} cannot be copied to {to}. {why_not(error)[1]}") from error
    except OSError as error:
        half.unlink(missing_ok=True)
        raise UnwellError(f"{to} cannot be written: {why_no_file(error)[1]}") from error


def _copy_bytes(source: Path, to: Path) -> None:
    """A damaged database as it lies there, with its journal: its bytes may still be of use to somebody."""
    for ending in ("", *BESIDE):
        part = source.with_name(source.name + ending)
        if part.exists():
            half = to.with_name(f".{to.name}{ending}.{os.getpid()}.half")
            shutil.copyfile(part, half)
            half.chmod(0o600)
            _to_disk(half)
            half.replace(to.with_name(to.name + ending))


def _settle(folder: Path) -> None:
    """Bring what stands in the journal into the database, so that there is none when another takes its place.

    A journal that lay beside another database would be played into it. One that is damaged has been copied.
    """
    file = database(folder)
    if not file.exists():
        return
    try:
        _close_journal(file)
    except sqlite3.Error:
        for ending in BESIDE:
            file.with_name(file.name + ending).unlink(missing_ok=True)


def _close_journal(file: Path) -> None:
    with closing(sqlite3.connect(file, timeout=20)) as opened:
        opened.execute("PRAGMA journal_mode=DELETE").fetchone()


def _same(one: Path, other: Path) -> bool:
    """Whether two databases hold the same work; not where either cannot be read."""
    try:
        return one.exists() and other.exists() and _digest(one) == _digest(other)
    except sqlite3.Error:
        return False


def _digest(file: Path) -> bytes:
    digest = hashlib.blake2b(digest_size=20)
    with closing(sqlite3.connect(f"{file.resolve().as_uri()}?mode=ro", uri=True, timeout=20)) as opened:
        opened.text_factory = bytes
        for line in _rows(opened):
            digest.update(line)
    return digest.digest()


def _rows(opened: sqlite3.Connection) -> Iterator[bytes]:
    """Every row of every table that holds work, and how the tables are made."""
    tables = opened.execute("SELECT name, sql FROM sqlite_master WHERE type = 'table' ORDER BY name").fetchall()
    for raw, sql in tables:
        name = raw.decode()
        if name in NOT_WORK:
            continue
        yield raw + b"\n" + (sql or b"")
        columns = [row[1].decode() for row in opened.execute(f'PRAGMA table_info("{name}")')]
        wanted = ", ".join(f'"{column}"' for column in columns if column not in NOT_WORK_COLUMNS)
        for row in opened.execute(f'SELECT {wanted} FROM "{name}" ORDER BY 1'):
            yield repr(row).encode()


def _to_disk(path: Path) -> None:
    """Have the disk itself hold a file, or the names in a folder."""
    opened = os.open(path, os.O_RDONLY)
    try:
        os.fsync(opened)
    finally:
        os.close(opened)


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
