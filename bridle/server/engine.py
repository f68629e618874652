"""Which rules worked something out: a digest of the core's own sources, so that an update is noticed."""

import hashlib
from functools import lru_cache
from pathlib import Path

CORE = Path(__file__).resolve().parents[1] / "core"


@lru_cache(maxsize=1)
def engine() -> str:
    """Twelve characters that change whenever a file of the core does."""
    digest = hashlib.blake2b(digest_size=6)
    for file in sorted(CORE.rglob("*.py")):
        digest.update(str(file.relative_to(CORE)).encode())
        digest.update(file.read_bytes())
    return digest.hexdigest()
