"""A shoot with another light section, as a search for a fix tries it."""

from typing import Any

from bridle.core.reckon.reckoning import Shooting


def with_light(shooting: Shooting, **fields: Any) -> Shooting:
    """The same shoot with other fields of its light section."""
    return shooting.tried(light=shooting.plan.light.model_copy(update=fields))
