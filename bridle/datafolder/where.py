"""Where the data lies, and who may read it."""

import os
from pathlib import Path

PROJECT = Path(__file__).resolve().parents[2]
DATABASE = "bridle.sqlite3"
# SQLite keeps these two beside a database that is in use.
BESIDE = ("-wal", "-shm")


def data_folder() -> Path:
    """`BRIDLE_DATA`, else `var` in the project's folder."""
    return Path(os.environ.get("BRIDLE_DATA") or PROJECT / "var").resolve()


def database(folder: Path | None = None) -> Path:
    """The database's file."""
    return (folder or data_folder()) / DATABASE


def for_its_owner_only(folder: Path) -> None:
    """Make the folder if there is none; let nobody else read it, or the database in it. Raises OSError."""
    folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    _close(folder, 0o700)
    file = database(folder)
    for each in (file, *(file.with_name(file.name + ending) for ending in BESIDE)):
        if each.exists():
            _close(each, 0o600)


def _close(path: Path, mode: int) -> None:
    if path.stat().st_mode & 0o777 & ~mode:
        path.chmod(mode)
