"""The mounting chain, joint by joint: threads, screws, loads, leads."""

import math
from collections.abc import Iterator
from dataclasses import replace
from itertools import pairwise
from typing import Any

from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.cards import Joined, Thread
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.kit import AnyCard, AxisCard, Body, Copy, Lens, Mount, Phone, Support
from bridle.core.plan.outdoors import Box
from bridle.core.plan.wired import Cable, Trigger
from bridle.core.reckon.framings import framings
from bridle.core.reckon.loads import slide_ends
from bridle.core.reckon.parts import first_of, free_key, imager_of
from bridle.core.reckon.stack import Stack, chain
from bridle.core.snag import Fix, Slot, Snag, SnagKind, slot
from bridle.core.subjects.strength import mounting

COPIES = "kit.copies"
MISMATCH = SnagKind(
    "thread-mismatch",
    "stop",
    "rig",
    "The {upper} does not go onto the {lower}: {has} meets {wants}.",
    "Nothing holds without an adapter. It is a small thing that is always in the other bag.",
)
LOOK_ALIKE = SnagKind(
    "threads-look-alike",
    "stop",
    "rig",
    "{has} of the {lower} goes into {wants} of the {upper}, and strips it.",
    "The two look alike and are not: the first turns feel right, then the thread is gone and the camera with it.",
)
OVERLOAD = SnagKind(
    "overload",
    "stop",
    "rig",
    "The {part} carries {limit}; {load} stand on it.",
    "Above its limit it creeps, strips its gears or lets go, and what falls is the camera.",
)
LONG_SCREW = SnagKind(
    "screw-too-long",
    "mind",
    "rig",
    "The screw of the {lower} stands out {screw}; the hole in the {upper} is {hole} deep.",
    "It bottoms out before the plate is tight: the camera wobbles, or the screw presses into the body.",
)
WIDE = SnagKind(
    "wide-body",
    "note",
    "rig",
    "The {upper} is {wide} wide on a platform of {platform}.",
    "It overhangs what it stands on, rubs on the head, and twists in wind. A spacer lifts it clear.",
)
LEAD = SnagKind(
    "lead-mismatch",
    "mind",
    "rig",
    "The lead of the {trigger} has a plug for {plug}; the {camera} has a socket for {socket}.",
    "An adapter lead from {plug} to {socket}, or the camera hears nothing.",
)
NO_SOCKET = "The {trigger} has a lead with a plug for {plug}; the {camera} has no socket at all."
# What tells the camera without any lead; and what cards call a connector that only this maker has.
WITHOUT_LEAD = ("camera timer", "wireless remote", "app", "camera board")
OWN_SOCKET = {"own": "a connector of its own"}
SHORT = SnagKind(
    "lead-too-short",
    "mind",
    "rig",
    "The {lead} is {length} long; the carriage travels {travel}.",
    "It needs slack for all of that and a tie at either end, or it pulls at the camera halfway.",
)
BENT = SnagKind(
    "plug-meets-box",
    "mind",
    "rig",
    "The plug of the {lead} and its bend need {bend}; beside the camera the {box} leaves {room}.",
    "A plug that is forced round breaks inside, weeks later.",
)
CREEPS = SnagKind(
    "lens-creeps",
    "mind",
    "rig",
    "The {lens} creeps when it is tilted, and the rail stands at {slope}.",
    "Zoom and focus run down slowly under their own weight: the picture grows or goes soft over hours.",
)
LOOKS_ASLANT = "The {lens} creeps when it is tilted, and the camera is tilted {way} by {slope}."
# Flatter than this friction holds most rings; a usual value, not a measured one.
LEAST_TILT_DEG = 10.0
KINDS = (MISMATCH, LOOK_ALIKE, OVERLOAD, LONG_SCREW, WIDE, LEAD, SHORT, BENT, CREEPS)

CARRIED = Formula("carried", "the mass of everything above it, from the cards")
RESERVE = Formula("limit - carried", "what it carries, less what stands on it")
NAMES: dict[str, str] = mounting.THREAD_NAMES
WIDE_AT = 2.2


def thread_name(thread: str) -> str:
    """A thread in words."""
    return NAMES.get(thread, thread)


def joints(plan: Plan) -> Iterator[tuple[int, Copy, int, Copy]]:
    """Each joint of the chain: the lower part and the upper one, with their places in the kit."""
    for (low, lower), (high, upper) in pairwise(chain(plan)):
        yield low, lower, high, upper


def inserted(plan: Plan, index: int, card: AnyCard) -> Edit:
    """The edit that puts a card into the chain before the copy at an index."""
    copies = [copy.model_dump(mode="json") for copy in plan.kit.copies]
    fresh = Copy(key=free_key(plan.kit.copies, card.name), card=card)
    copies.insert(index, fresh.model_dump(mode="json"))
    return Edit(path=COPIES, value=copies)


def figures(plan: Plan, stack: Stack) -> Iterator[Figure]:
    """What each part that has a limit carries, and what is left."""
    for index, copy in chain(plan):
        card = copy.card
        if not isinstance(card, Joined) or isinstance(card, Body | Phone):
            continue
        carried = term("carried", f"on the {card.name}", stack.above(index), "g")
        yield figure(f"rig.carried.{index}", f"on the {card.name}", stack.above(index), "g", CARRIED, carried)
        if card.carries_g is not None:
            limit, left = (
                term("limit", f"{card.name} carries", card.carries_g, "g"),
                card.carries_g - stack.above(index),
            )
            yield figure(f"rig.reserve.{index}", f"reserve of the {card.name}", left, "g", RESERVE, limit, carried)


def snags(plan: Plan, stack: Stack) -> Iterator[Snag]:
    """All that is wrong in the chain."""
    for low, lower, high, upper in joints(plan):
        yield from _threads(plan, lower, high, upper)
        yield from _screw(plan, lower, high, upper)
        yield from _wide(plan, low, lower, high, upper)
    yield from _loads(plan, stack)
    yield from _lead(plan)
    yield from _slack(plan)
    yield from _bend(plan)
    yield from _creep(plan)


def _joined(copy: Copy) -> Any:
    assert isinstance(copy.card, Joined)
    return copy.card


def _threads(plan: Plan, lower: Copy, high: int, upper: Copy) -> Iterator[Snag]:
    has, wants = _joined(lower).above, _joined(upper).below
    # On a table a rail stands on its own feet.
    if has == wants or (isinstance(lower.card, Support) and lower.card.bare):
        return
    kind = LOOK_ALIKE if mounting.look_alike(has, wants) else MISMATCH
    slots = {
        "lower": slot(lower.card.name),
        "upper": slot(upper.card.name),
        "has": slot(thread_name(has)),
        "wants": slot(thread_name(wants)),
    }
    adapter = adapter_for(has, wants)
    fix = Fix(
        label=f"Put in {adapter.name}",
        consequence="It stands between the two in the chain, and comes onto the packing list.",
        slots={},
        edits=(inserted(plan, high, adapter),),
    )
    yield kind.at(f"{COPIES}.{high}", slots, [fix])


def adapter_for(has: Thread, wants: Thread) -> Mount:
    """The adapter that joins two threads: screws below, a hole above."""
    if "none" in (has, wants):
        return Mount(name="a clamp", form="bracket", below=has, above=wants, height_mm=20, width_mm=70, mass_g=90)
    name = f"an adapter, {thread_name(has)} below, {thread_name(wants)} above"
    return Mount(name=name, form="bush", below=has, above=wants, height_mm=6, width_mm=25, mass_g=15)


def _screw(plan: Plan, lower: Copy, high: int, upper: Copy) -> Iterator[Snag]:
    if isinstance(lower.card, Support) and lower.card.bare:
        return
    screw, hole = _joined(lower).screw_mm, _joined(upper).hole_mm
    if screw is None or hole is None or screw <= hole:
        return
    slots = {
        "lower": slot(lower.card.name),
        "upper": slot(upper.card.name),
        "screw": slot(screw, "mm"),
        "hole": slot(hole, "mm"),
    }
    thread = _joined(upper).below
    washer = Mount(
        name="a washer", form="spacer", below=_joined(lower).above, above=thread, mass_g=5,
        screw_mm=max(0.0, hole - 0.5),
        height_mm=math.ceil(screw - hole + 0.5), width_mm=30,
    )  # fmt: skip
    fix = Fix(
        label="Put in a washer of {thick}",
        consequence="The screw reaches {reach} into the hole then, and the plate comes down tight.",
        slots={"thick": slot(washer.height_mm, "mm"), "reach": slot(washer.screw_mm or 0, "mm")},
        edits=(inserted(plan, high, washer),),
    )
    yield LONG_SCREW.at(f"{COPIES}.{high}.card.hole_mm", slots, [fix])


def _wide(plan: Plan, low: int, lower: Copy, high: int, upper: Copy) -> Iterator[Snag]:
    platform = (
        lower.card.carriage_mm
        if isinstance(lower.card, AxisCard) and lower.card.motion == "linear"
        else _joined(lower).width_mm
    )
    if isinstance(lower.card, Support) and lower.card.bare:
        return
    if not isinstance(upper.card, Body) or platform == 0 or upper.card.width_mm <= WIDE_AT * platform:
        return
    slots = {"upper": slot(upper.card.name), "wide": slot(upper.card.width_mm, "mm"), "platform": slot(platform, "mm")}
    spacer = Mount(
        name="a spacer plate", form="spacer", below=_joined(lower).above, above=upper.card.below, height_mm=15,
        width_mm=upper.card.width_mm * 0.6,
    )  # fmt: skip
    fix = Fix(
        label="Put in a spacer plate",
        consequence="It lifts the body clear; the camera stands 15 mm higher.",
        slots={},
        edits=(inserted(plan, high, spacer),),
    )
    yield WIDE.at(f"{COPIES}.{high}.card.width_mm", slots, [fix])


def _loads(plan: Plan, stack: Stack) -> Iterator[Snag]:
    for index, copy in chain(plan):
        card = copy.card
        load = stack.above(index)
        if not isinstance(card, Joined) or card.carries_g is None or load <= card.carries_g:
            continue
        needed = math.ceil(load * 1.25 / 500) * 500
        slots = {"part": slot(card.name), "limit": slot(card.carries_g, "g"), "load": slot(load, "g")}
        sturdier = card.model_copy(
            update={"name": f"sturdier {card.name}"[:120], "carries_g": float(needed), "measured": ()}
        )
        replaced = {"key": copy.key, "card_id": None, "version": 0, "card": sturdier.model_dump(mode="json")}
        fix = Fix(
            label="Plan with one that carries {needed}",
            consequence="A card to be filled in takes its place, with a quarter in hand; put your own there.",
            slots={"needed": slot(needed, "g")},
            edits=(Edit(path=f"{COPIES}.{index}", value=replaced),),
        )
        yield OVERLOAD.at(f"{COPIES}.{index}.card.carries_g", slots, [fix])


def _lead(plan: Plan) -> Iterator[Snag]:
    trigger, camera = first_of(plan.kit.copies, Trigger), first_of(plan.kit.copies, Body, Phone)
    if trigger is None or camera is None:
        return
    assert isinstance(trigger.card, Trigger) and isinstance(camera.card, Body | Phone)
    cable = first_of(plan.kit.copies, Cable)
    # A lead of its own is what reaches the camera, whatever the source has.
    last, field, plug = trigger, "socket", trigger.card.socket
    if cable is not None and isinstance(cable.card, Cable):
        last, field, plug = cable, "to_plug", cable.card.to_plug
    if trigger.card.source in WITHOUT_LEAD or plug in ("none", camera.card.socket):
        return
    path = f"{COPIES}.{plan.kit.copies.index(last)}.card.{field}"
    slots = {
        "trigger": slot(last.card.name),
        "plug": slot(OWN_SOCKET.get(plug, plug)),
        "camera": slot(camera.card.name),
        "socket": slot(OWN_SOCKET.get(camera.card.socket, camera.card.socket)),
    }
    if camera.card.socket == "none":
        yield _no_socket(path, slots)
        return
    fix = Fix(
        label="Take a lead for {socket}",
        consequence="The plan counts on a lead that fits the camera; try it at home.",
        slots=slots,
        edits=(Edit(path=path, value=camera.card.socket),),
    )
    yield LEAD.at(path, slots, [fix])


# Slack at either end of the travel, for a tie and a loop.
SLACK_MM = 150.0


def _slack(plan: Plan) -> Iterator[Snag]:
    """A lead to a camera that travels: as long as the travel, with slack at both ends."""
    cable, first, last = first_of(plan.kit.copies, Cable), *slide_ends(plan)
    if cable is None or not isinstance(cable.card, Cable) or last - first <= 0:
        return
    needed = last - first + 2 * SLACK_MM
    if cable.card.length_mm >= needed:
        return
    longer = math.ceil(needed / 100) * 100.0
    fix = Fix(
        label="Take a lead of {longer}",
        consequence="Slack at both ends, tied so that the ties take the pull and the plugs do not.",
        slots={"longer": slot(longer, "mm")},
        edits=(Edit(path=f"{COPIES}.{plan.kit.copies.index(cable)}.card.length_mm", value=longer),),
    )
    slots = {
        "lead": slot(cable.card.name),
        "length": slot(cable.card.length_mm, "mm"),
        "travel": slot(last - first, "mm"),
    }
    yield SHORT.at(f"{COPIES}.{plan.kit.copies.index(cable)}.card.length_mm", slots, [fix])


def _bend(plan: Plan) -> Iterator[Snag]:
    """A plug that stands out of a camera in a box, and the bend behind it."""
    cable, box, camera = first_of(plan.kit.copies, Cable), first_of(plan.kit.copies, Box), imager_of(plan.kit.copies)
    if cable is None or not isinstance(cable.card, Cable) or cable.card.bend_mm is None or camera is None:
        return
    if box is None or not isinstance(box.card, Box):
        return
    room = max(0.0, (box.card.wide_mm - camera.width_mm) / 2)
    if cable.card.bend_mm <= room:
        return
    at = plan.kit.copies.index(cable)
    fix = Fix(
        label="Take a lead with an angled plug that needs {room}",
        consequence="It turns away beside the camera; tie it to the plate, so that nothing pulls at the socket.",
        slots={"room": slot(math.floor(room), "mm")},
        edits=(Edit(path=f"{COPIES}.{at}.card.bend_mm", value=float(math.floor(room))),),
    )
    slots = {
        "lead": slot(cable.card.name),
        "box": slot(box.card.name),
        "bend": slot(cable.card.bend_mm, "mm"),
        "room": slot(room, "mm"),
    }
    yield BENT.at(f"{COPIES}.{at}.card.bend_mm", slots, [fix])


def _no_socket(path: str, slots: dict[str, Slot]) -> Snag:
    fix = Fix(
        label="Fire it without a lead",
        consequence="By radio, by an app or by the camera's own timer; the plan then counts on that.",
        slots={},
        edits=(Edit(path=path, value="none"),),
    )
    return replace(LEAD.at(path, slots, [fix]), what=NO_SOCKET, why="No lead fits it: nothing tells the camera.")


def _creep(plan: Plan) -> Iterator[Snag]:
    tilt = max((framing.stands.tilt_deg for framing in framings(plan)), key=abs)
    slope = plan.rig.standing.slope_deg if plan.rig.axis("slide") else 0.0
    told, angle = (CREEPS.what, slope) if abs(tilt) < LEAST_TILT_DEG else (LOOKS_ASLANT, tilt)
    for index, copy in enumerate(plan.kit.copies):
        if not isinstance(copy.card, Lens) or not copy.card.creeps or abs(angle) < LEAST_TILT_DEG:
            continue
        path = f"{COPIES}.{index}.card.creeps"
        fix = Fix(
            label="Tape its rings",
            consequence="Tape over zoom and focus ring, once both are set.",
            slots={},
            edits=(Edit(path=path, value=False),),
        )
        slots = {"lens": slot(copy.card.name), "slope": slot(abs(angle), "deg")}
        slots |= {"way": slot("up" if tilt > 0 else "down")}
        yield replace(CREEPS.at(path, slots, [fix]), what=told)


def weakest(plan: Plan, stack: Stack) -> int | None:
    """The part with the least reserve, as a share of what it carries; None where no limit is known."""
    shares = [
        (stack.above(index) / copy.card.carries_g, index)
        for index, copy in chain(plan)
        if isinstance(copy.card, Joined | Support) and copy.card.carries_g
    ]
    return max(shares)[1] if shares else None
