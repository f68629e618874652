"""Whether a shoot is taken in a room: what is said of water, ways and weather does not concern it."""

from bridle.core.plan.document import Plan

# Kinds of shoot that are taken in a room.
KINDS = ("grow", "print")


def indoors(plan: Plan) -> bool:
    """By its kind, or where somebody has said that no daylight gets in."""
    return plan.shoot.kind in KINDS or (plan.light.daylight is False and plan.shoot.kind != "site")
