"""The secret key: made on first start and kept outside the repository."""

import os
import secrets
from pathlib import Path

# A key of fewer characters was not made by Bridle, or was cut off.
LEAST = 40


def key_file() -> Path:
    """Where the key lies: `BRIDLE_KEY_FILE`, else in the user's data folder."""
    named = os.environ.get("BRIDLE_KEY_FILE")
    if named:
        return Path(named)
    home = Path(os.environ.get("XDG_DATA_HOME") or Path.home() / ".local" / "share")
    return home / "bridle" / "secret-key"


def secret_key(path: Path) -> str:
    """The key in the file; made, readable by its owner only, if there is none, or what is there is no key.

    All that hangs on it are the tokens of pages that are open: they ask for a new one. Raises OSError.
    """
    try:
        key = path.read_text(encoding="ascii").strip()
    except FileNotFoundError:
        return _make(path)
    except UnicodeDecodeError:
        return _instead(path)
    return key if len(key) >= LEAST and key.isprintable() else _instead(path)


def _instead(path: Path) -> str:
    """A new key; what stood in its place is put aside, in case it is something else that somebody needs."""
    if path.stat().st_size:
        path.replace(path.with_name(f"{path.name}.was-no-key"))
    return _make(path)


def _make(path: Path) -> str:
    path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
    key = secrets.token_urlsafe(50)
    # Written aside and renamed, so that two first starts at once cannot leave half a key.
    aside = path.with_name(f"{path.name}.{os.getpid()}")
    try:
        with os.fdopen(os.open(aside, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600), "w") as file:
            file.write(key)
            file.flush()
            os.fsync(file.fileno())
        aside.replace(path)
    except OSError:
        aside.unlink(missing_ok=True)
        raise
    return key
