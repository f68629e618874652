"""What is not in a plan and is told beside it: the moment at which somebody asks, and what the bench has proven."""

from dataclasses import dataclass
from datetime import date
from typing import Literal


@dataclass(frozen=True)
class Proved:
    """A proof that the bench has kept: of what file and stop (their digest), how it came out and when.

    `changed` is the digest of the file that was proven.
    """

    of: str
    stands: Literal["proven", "incomplete", "failed"]
    on: date
    failures: int = 0
    changed: str = ""


@dataclass(frozen=True)
class Given:
    """What an evaluation is given besides the plan; by default nothing.

    `now_s` is the moment, as Unix time; `proofs` are those of this print, the last one last.
    """

    now_s: float | None = None
    proofs: tuple[Proved, ...] = ()


NOTHING = Given()
