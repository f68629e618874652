"""A shoot with another light section, as a search for a fix tries it: what the light does not touch is kept."""

from typing import Any

from bridle.core.reckon.reckoning import Shooting

# What stays as it is while only the limits within which the settings move are others.
BESIDE_THE_LIGHT = (
    "schedule", "stack_mm", "positions", "driven", "stops", "steps", "poses", "seeing", "shift", "tracked", "sun",
)  # fmt: skip
# What the scene follows from.
OF_THE_SCENE = frozenset(("daylight", "cloud_stops", "town_lx", "offset_stops", "proofs", "night_stops", "step"))


def with_light(shooting: Shooting, **fields: Any) -> Shooting:
    """The same shoot with other fields of its light section."""
    light = shooting.plan.light.model_copy(update=fields)
    tried = Shooting(shooting.plan.model_copy(update={"light": light}), shooting.solution, shooting.timeline)
    kept = {name: value for name, value in vars(shooting).items() if name in BESIDE_THE_LIGHT}
    if not OF_THE_SCENE & fields.keys() and "scene" in vars(shooting):
        kept["scene"] = vars(shooting)["scene"]
    vars(tried).update(kept)
    return tried
