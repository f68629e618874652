"""What has to be read off before a chain can be judged: wires, contacts, a pin's voltage, the key of an app."""

from collections.abc import Iterator

from bridle.core.chapters.trigger.fixing import JOINS
from bridle.core.plan.edit import Edit
from bridle.core.plan.kit import Body, Phone
from bridle.core.plan.wired import Cable, Trigger
from bridle.core.reckon.hearing import Hearing, switch_open
from bridle.core.reckon.parts import first_of
from bridle.core.reckon.reckoning import Shooting
from bridle.core.snag import Fix, Slot, Snag, SnagKind, slot

COLOURS = (
    "Colours mean nothing: every maker has others. A meter that beeps tells which pair closes at half press and which "
    "at full."
)
WIRES = SnagKind(
    "wires-not-known",
    "stop",
    "trigger",
    "Which wire of the cut lead is ground and which is shutter is not known yet.",
    COLOURS,
)
SWITCH = SnagKind(
    "switch-not-known",
    "stop",
    "trigger",
    "Which contacts of the switch close when it is pressed is not known yet.",
    "It has three: common, normally open, normally closed. The wrong pair holds the shutter until it is pressed.",
)
VOLTS = SnagKind(
    "pin-voltage-not-read",
    "stop",
    "trigger",
    "Nobody has read what the {device} puts on its pin while it is on.",
    "A diagram's word is not enough: the same pin has 3.3 V on one board and 12 V or 24 V on the next. Measure between "
    "the pin and ground before anything is connected.",
)
KEY = SnagKind(
    "app-key-not-tried",
    "stop",
    "trigger",
    "Whether the app on the {camera} fires on a key of a headset has not been tried.",
    "Not every app does, and not on every key. Plug a headset in and press before anything is soldered.",
)
KINDS = (WIRES, SWITCH, VOLTS, KEY)
USUAL_VOLTS = (3.3, 5.0)


def unread(shooting: Shooting, found: Hearing, slots: dict[str, Slot]) -> Iterator[Snag]:
    """Each thing that nobody has read yet, with what to go by until then."""
    wired, source, camera = found.wiring, found.wiring.parts.source, found.wiring.parts.camera
    if wired.output == "pin" and source is not None and source.volts is None:
        yield pin_not_read(shooting, source)
    cable = wired.parts.cable
    if cable is not None and cable.made == "cut open" and not {"ground", "shutter"} <= _roles(wired.lead):
        yield WIRES.at("trigger.lead", slots, [_bought(shooting)])
    if wired.switch is not None and switch_open(wired.switch):
        yield SWITCH.at("trigger.switch", slots, [_labelled()])
    if camera is not None and camera.hears == "headset button" and camera.fires_on == "not known":
        yield KEY.at(f"kit.copies.{camera_at(shooting)}.card.fires_on", slots, [_fires(shooting)])


def pin_not_read(shooting: Shooting, source: Trigger) -> Snag:
    """Nobody has measured what a pin puts out."""
    return VOLTS.at("trigger.pin", {"device": slot(source.name)}, list(_volts(shooting)))


def _roles(of: object) -> set[str]:
    return {role for role in getattr(of, "roles", ()) if role}


def camera_at(shooting: Shooting) -> int:
    """Where the camera stands in the kit."""
    copy = first_of(shooting.plan.kit.copies, Body, Phone)
    assert copy is not None
    return shooting.plan.kit.copies.index(copy)


def _index(shooting: Shooting, kind: type) -> int:
    """Where the first card of a kind stands in the kit."""
    return next(n for n, copy in enumerate(shooting.plan.kit.copies) if isinstance(copy.card, kind))


def _volts(shooting: Shooting) -> Iterator[Fix]:
    index = next(n for n, copy in enumerate(shooting.plan.kit.copies) if copy.card.kind == "trigger")
    for volts in USUAL_VOLTS:
        yield Fix(
            label="Plan with {volts}",
            consequence="Still to be measured before anything is connected.",
            slots={"volts": slot(volts, "V")},
            edits=(Edit(path=f"kit.copies.{index}.card.volts", value=volts),),
        )


def _bought(shooting: Shooting) -> Fix:
    return Fix(
        label="Plan with a lead bought for this camera",
        consequence="Its plugs fit, and nothing has to be named or soldered on the camera's side.",
        slots={},
        edits=(
            Edit(path=f"kit.copies.{_index(shooting, Cable)}.card.made", value="bought for this camera"),
            Edit(path=JOINS, value=None),
        ),
    )


def _labelled() -> Fix:
    return Fix(
        label="Go by what is printed on it",
        consequence="COM, NO and NC beside its contacts; a meter still tells whether that is true.",
        slots={},
        edits=(Edit(path="trigger.switch", value=None),),
    )


def _fires(shooting: Shooting) -> Fix:
    return Fix(
        label="It fires on volume up",
        consequence="So it was tried with a headset.",
        slots={},
        edits=(Edit(path=f"kit.copies.{camera_at(shooting)}.card.fires_on", value="volume up"),),
    )
