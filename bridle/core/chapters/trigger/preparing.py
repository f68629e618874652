"""What to do beforehand, in order: what becomes impossible later comes first."""

from collections.abc import Iterator

from bridle.core.chapters.trigger.state import Preparing
from bridle.core.plan.document import Plan
from bridle.core.plan.kit import Phone
from bridle.core.reckon.calls import lamps_of
from bridle.core.reckon.soldering import joined_pads, solderable
from bridle.core.reckon.wiring import output_of, parts_of

RADIO = ("wireless remote", "app", "camera board")


def preparing(plan: Plan) -> Iterator[Preparing]:
    """Each thing with the reason why it stands where it does; only what this chain has."""
    parts = parts_of(plan)
    source, output = parts.source, output_of(parts.source)
    phone = isinstance(parts.camera, Phone)
    if source is None:
        return
    if source.source in RADIO and not (phone and source.source == "app"):
        yield Preparing(
            what="pair the radio, while the camera can still be held to its screen",
            why="once the lens is screwed out or the box is closed nobody gets at the menu",
        )
    if source.source == "camera board":
        yield Preparing(
            what="take its card out before it is opened", why="a card that is bent in its slot takes both along"
        )
    if phone and parts.camera is not None and parts.camera.hears == "headset button":
        yield Preparing(
            what="plug a headset in and press: does the app fire, and on which key?",
            why="not every app does; nothing is soldered before that is seen",
        )
    if output == "pin":
        yield Preparing(
            what="measure the pin against ground, switched on and off",
            why="its voltage is a reading; no diagram's word is taken for it",
        )
        yield Preparing(
            what="set the pin as an output, and low, before anything hangs on it",
            why="as a board starts up its pins may float: the first frame comes by itself",
        )
    if output == "switch":
        yield Preparing(
            what="find common, normally open and normally closed with the meter",
            why="the wrong pair holds the shutter; once soldered in it is hard to reach",
        )
        yield Preparing(
            what="have a spare switch at hand when its place is sought",
            why="one jog too far breaks it, and the shoot waits for the post",
        )
        yield Preparing(
            what="behind a wall: hole and stand-out, from the wall's thickness and the travel",
            why="it stands out by more than its way to the click, and by less than its whole way",
        )
    soldered = solderable(plan) is not None and plan.trigger.pads is not None
    if soldered:
        yield from _soldered(plan)
    if parts.cable is not None and parts.cable.made == "cut open":
        yield Preparing(
            what="name the wires with the meter, before the ends are soldered",
            why="colours mean nothing, and a joint is not undone in the field",
        )
    if soldered or output in ("pin", "switch") or (parts.cable is not None and parts.cable.made == "cut open"):
        yield Preparing(
            what="solder, sleeve, and tie each lead down a hand's breadth from its joint",
            why="a lead that is pulled breaks at the solder first",
        )
    if any(use is not None and use.lit != "always" for _, _, use in lamps_of(plan)):
        yield Preparing(
            what="pull the lamp's plug and put it back: does it come on by itself?", why="so it will after a power cut"
        )
    yield Preparing(
        what="focus again after closing and tightening, then leave the ring alone",
        why="everything that was screwed since has moved it",
    )
    yield Preparing(what="the bench test, in its order", why="each step finds what the next would hide")


def _soldered(plan: Plan) -> Iterator[Preparing]:
    """A switch across the pads of a remote's button."""
    found = joined_pads(plan)
    yield Preparing(
        what="open the remote, its cell out, and find its pads by touching them two by two, its cell in again",
        why="once the switch is soldered on, a wrong pair is found out by the missing frames",
    )
    if found is not None:
        common, pressed = found
        yield Preparing(
            what=f"solder the switch's common contact to {common}, and its open contact to {pressed}",
            why="one contact has to do for both presses: what focuses and what fires are joined",
        )
