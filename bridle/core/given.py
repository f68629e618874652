"""What is not in a plan and is told beside it: the moment at which somebody asks."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Given:
    """What an evaluation is given besides the plan; by default nothing. `now_s` is the moment, as Unix time."""

    now_s: float | None = None


NOTHING = Given()
