"""Neutral density that is put on or taken off where there is no frame."""

from collections.abc import Iterator

from bridle.core.plan.edit import Edit
from bridle.core.reckon.reckoning import Shooting
from bridle.core.snag import Fix, Snag, SnagKind, slot

BEYOND = SnagKind(
    "filter-beyond-the-shoot",
    "mind",
    "light",
    "A filter of {stops} is put on at frame {first}; the shoot has {frames}.",
    "It is never on the lens.",
)
KINDS = (BEYOND,)


def findings(shooting: Shooting) -> Iterator[Snag]:
    """Filters that come on after the last frame."""
    beyond = [one for one in shooting.plan.light.densities if one.first_frame > shooting.frames]
    if not beyond:
        return
    kept = [one.model_dump(mode="json") for one in shooting.plan.light.densities if one not in beyond]
    leave = Fix(
        label="Leave it out" if len(beyond) == 1 else "Leave them out",
        consequence="Nothing changes in the picture.",
        slots={},
        edits=(Edit(path="light.densities", value=kept),),
    )
    slots = {
        "stops": slot(beyond[0].stops, "stops"),
        "first": slot(str(beyond[0].first_frame)),
        "frames": slot(shooting.frames, "frames"),
    }
    yield BEYOND.at("light.densities", slots, [leave])
