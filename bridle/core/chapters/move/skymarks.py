"""Marks that go with the sky: whether anybody knows where they stand, and whether they are up while followed."""

from collections.abc import Iterator

import numpy as np

from bridle.core.figure import Figure
from bridle.core.plan.edit import Edit
from bridle.core.plan.marks import Mark
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.sights import runs_of
from bridle.core.reckon.skies import known
from bridle.core.reckon.sky import UP_DEG
from bridle.core.snag import Fix, Snag, SnagKind, slot

UNKNOWN = SnagKind(
    "mark-unknown-in-the-sky",
    "stop",
    "move",
    "Nobody knows where “{mark}” stands in the sky: {lacks}.",
    "Sun, moon and stars go on all the while; without place and north the camera would be pointed somewhere else.",
)
DOWN = SnagKind(
    "mark-below-the-horizon",
    "mind",
    "move",
    "The mark “{mark}” is below the horizon from frame {first} to frame {last}.",
    "The camera follows it into the ground, or waits for it there.",
)
KINDS = (UNKNOWN, DOWN)


def findings(shooting: Shooting) -> Iterator[Figure | Snag]:
    """Every mark of the sky while it is not known where it stands; the followed one while it is down."""
    plan, follow = shooting.plan, shooting.plan.move.follow
    for number, mark in enumerate(plan.move.marks):
        body = mark.in_the_sky
        if body is None:
            continue
        if not known(plan):
            yield _unknown(shooting, number, mark)
        elif follow is not None and follow.mark == number:
            yield from _down(mark, shooting.skies[body][1] < UP_DEG)


def _unknown(shooting: Shooting, number: int, mark: Mark) -> Snag:
    place = shooting.plan.shoot.place
    lacks = [
        said
        for said, lacking in (
            ("the shoot has no place on earth", None in (place.latitude_deg, place.longitude_deg)),
            ("no bearing says which way the rig faces", shooting.plan.rig.normal_bearing_deg is None),
        )
        if lacking
    ]
    fix = Fix(
        label="Let it stand still",
        consequence="The mark “{mark}” keeps to a fixed direction, {bearing} from north and {altitude} above the "
        "horizon.",
        slots={
            "mark": slot(mark.name),
            "bearing": slot(mark.bearing_deg, "deg"),
            "altitude": slot(mark.altitude_deg, "deg"),
        },
        edits=(Edit(path=f"move.marks.{number}.body", value="still"),),
    )
    slots = {"mark": slot(mark.name), "lacks": slot(" and ".join(lacks))}
    return UNKNOWN.at(f"move.marks.{number}.body", slots, [fix])


def _down(mark: Mark, down: np.ndarray) -> Iterator[Snag]:
    for first, last in runs_of(down, most=1):
        fix = Fix(
            label="Follow nothing",
            consequence="The camera goes from keyframe to keyframe, as they are typed.",
            slots={},
            edits=(Edit(path="move.follow", value=None),),
        )
        slots = {"mark": slot(mark.name), "first": slot(str(first + 1)), "last": slot(str(last + 1))}
        yield DOWN.at("move.follow", slots, [fix])
