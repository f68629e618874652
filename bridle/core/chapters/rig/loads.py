"""Whether the rig stands still and holds on: all that moves, bends or falls."""

import math
from collections.abc import Iterator

from bridle.core.chapters.rig.pulling import LETS_GO, TORQUE, lets_go, pull_figures, too_weak
from bridle.core.chapters.rig.sag import SAGS, sag_figures, sags
from bridle.core.chapters.rig.tipping import TIPS, standing_figures, tips
from bridle.core.chapters.rig.turning import HORIZON, SHAFT, TILTED, TRAVEL, shafts, strikes, tilted
from bridle.core.figure import Figure, figure, term
from bridle.core.reckon.picture import kept
from bridle.core.reckon.reckoning import Reckoning
from bridle.core.reckon.stack import rail_of
from bridle.core.snag import Snag

KINDS = (TIPS, SAGS, TRAVEL, TORQUE, LETS_GO, SHAFT, TILTED)


def figures(known: Reckoning) -> Iterator[Figure]:
    """Centre of mass, sag, slopes: everything that can be said of the rig as it stands."""
    plan, stack = known.plan, known.stack
    if stack.supports and stack.parts:
        yield from standing_figures(plan, stack)
    rail = rail_of(plan)
    if rail is not None:
        yield from sag_figures(known, rail)
        yield from pull_figures(plan, stack, rail)
    error, width = plan.rig.standing.level_error_deg, kept(plan).width_px
    if error:
        terms = (term("error", "off level", error, "deg"), term("width", "picture, across", width, "px"))
        yield figure(
            "rig.horizon", "the horizon tilts by", math.tan(math.radians(error)) * width, "px", HORIZON, *terms
        )


def snags(known: Reckoning) -> Iterator[Snag]:
    """All that moves, bends or falls where it should not."""
    plan, stack = known.plan, known.stack
    rail, axis = rail_of(plan), plan.rig.axis("slide")
    if stack.supports and stack.parts:
        yield from tips(plan, stack)
    if rail is not None and axis is not None:
        yield from strikes(plan, rail, axis)
        yield from sags(known, rail)
        yield from too_weak(plan, stack, rail, axis)
        yield from lets_go(plan, stack, rail)
    yield from shafts(plan, stack)
    yield from tilted(plan)
