"""A switch soldered across the button of a bought remote: which remote, and what is joined to what."""

from bridle.core.plan.document import Plan
from bridle.core.plan.printer import HeadSwitch
from bridle.core.plan.wired import Trigger
from bridle.core.quantity import listed
from bridle.core.reckon.parts import first_of
from bridle.core.reckon.wiring import parts_of, sounded

REMOTES = ("wired remote", "wireless remote")


def solderable(plan: Plan) -> Trigger | None:
    """The remote across whose button the switch that a print head meets can be soldered."""
    source, head = parts_of(plan).source, first_of(plan.kit.copies, HeadSwitch)
    return source if source is not None and source.source in REMOTES and head is not None else None


def pads_open(plan: Plan) -> bool:
    """Whether a switch is soldered to pads of which nobody knows yet what they do."""
    return solderable(plan) is not None and plan.trigger.pads is not None and joined_pads(plan) is None


def joined_pads(plan: Plan) -> tuple[str, str] | None:
    """What is soldered to the switch's common contact, and what to the one that closes; None while that is open.

    One contact has to do for both presses: the pads that focus and that fire are joined.
    """
    told = plan.trigger.pads
    found = sounded("pads", told)
    if told is None or found is None:
        return None
    by = {
        role: [name for name, one in zip(told.wires, found.roles, strict=True) if one == role] for role in found.roles
    }
    if not by.get("ground") or not by.get("shutter") or (None in by and "focus" not in by):
        return None
    pressed = [*by.get("focus", ()), *by["shutter"]]
    return by["ground"][0], listed(pressed)
