"""A camera that nothing fires, or that hears nothing of it."""

from collections.abc import Iterator

from bridle.core.asks.chain import Taken, put
from bridle.core.asks.shelf import made
from bridle.core.chapters.trigger.fixing import driven, works
from bridle.core.chapters.trigger.unread import pin_not_read
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.core.plan.kit import Body, Phone
from bridle.core.reckon.asked import Asked, asked_of
from bridle.core.reckon.parts import first_of, source_copy
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.wiring import parts_of
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.circuits.headset import OHMS

NOBODY = SnagKind(
    "nothing-fires",
    "stop",
    "trigger",
    "Nothing fires the {camera}: no trigger is on the rig.",
    "Frames come from a timer, a remote, a controller or a switch. Put on what you use, or the camera's own timer.",
)
DEAF = SnagKind(
    "camera-hears-no-contact",
    "stop",
    "trigger",
    "The {device} closes a contact, and the {camera} listens to none.",
    "Nothing goes from the one to the other: no frame comes. A phone with a socket, or an adapter for one, hears the "
    "button of a headset, where its app fires on that.",
)
KINDS = (NOBODY, DEAF)
RESISTOR = "A resistor of {ohms} goes into the lead."
RELAY = "The relay board becomes one with a driver for {volts}, which asks the pin for {needs}."
TRIED = "Try a headset first: the app has to fire on volume up."
# What closes a contact and does nothing else; a radio remote or a controller may have ways of its own.
CLOSES = ("switch", "pin", "headset")


def findings(shooting: Shooting) -> Iterator[Snag]:
    """A body without a trigger, where nothing that moves it waits for each frame and so could fire it."""
    plan = shooting.plan
    yield from _deaf(shooting)
    camera = first_of(plan.kit.copies, Body)
    if camera is None or source_copy(plan.kit.copies) is not None or plan.clip.school != "stills":
        return
    if plan.beat.tied or plan.beat.uncoupled is not None or any(_waits(asked) for asked in asked_of(shooting)):
        return
    yield NOBODY.at("kit.copies", {"camera": slot(camera.card.name)}, [own_timer(plan)])


def _deaf(shooting: Shooting) -> Iterator[Snag]:
    """What closes a contact, and a camera that has none to listen to."""
    plan, parts = shooting.plan, parts_of(shooting.plan)
    source, camera = parts.source, parts.camera
    if source is None or camera is None or source.source not in CLOSES or camera.hears != "nothing":
        return
    index = next(n for n, copy in enumerate(plan.kit.copies) if copy.card is camera)
    fix = _headset(plan, index) if isinstance(camera, Phone) else _socket(index)
    slots = {"device": slot(source.name), "camera": slot(camera.name)}
    yield DEAF.at(f"kit.copies.{index}.card.hears", slots, [fix])
    # It has to be read whatever it is joined to.
    if source.source == "pin" and source.volts is None:
        yield pin_not_read(shooting, source)


def _headset(plan: Plan, index: int) -> Fix:
    """A phone that is pressed as the volume button of a headset would; a real headset needs nothing in its lead."""
    parts = parts_of(plan)
    edits = [
        Edit(path=f"kit.copies.{index}.card.hears", value="headset button"),
        Edit(path=f"kit.copies.{index}.card.fires_on", value="volume up"),
    ]
    bought = parts.source is not None and parts.source.source == "headset"
    told, slots = [TRIED], {}
    if not bought and parts.resistor is None:
        edits += put(apply(plan, edits)[0], (Taken(card=made("resistor")),))
        told, slots = [RESISTOR, *told], {"ohms": slot(OHMS["volume up"], "Ω")}
    for relay in _stronger(apply(plan, edits)[0]):
        edits += relay.edits
        told, slots = [*told[:-1], RELAY, TRIED], slots | relay.slots
    label = "Let it hear the headset" if bought else "Wire it as a headset's volume button"
    return Fix(label=label, consequence=" ".join(told), slots=slots, edits=tuple(edits))


def _stronger(plan: Plan) -> Iterator[Fix]:
    """A relay board that the pin of a plan can work, where the one that is there does not pull in."""
    parts = parts_of(plan)
    card, source = parts.coupling, parts.source
    if card is None or card.form != "relay" or source is None or source.volts is None or works(plan, ()):
        return
    index = next(n for n, copy in enumerate(plan.kit.copies) if copy.card is card)
    yield from driven(plan, index, source.volts)


def _socket(index: int) -> Fix:
    return Fix(
        label="Use its release socket",
        consequence="Its card then says that it hears half and full press. Look whether it has one.",
        slots={},
        edits=(Edit(path=f"kit.copies.{index}.card.hears", value="half and full press"),),
    )


def _waits(asked: Asked) -> bool:
    """Whether what moves the rig can fire the camera: what waits for each frame, and is no hand."""
    return asked.drive.stops and asked.drive.TOLD != "hand"


def own_timer(plan: Plan) -> Fix:
    """The camera's own timer in place of whatever fires it."""
    card = made("trigger", "the camera's own timer").model_copy(
        update={"source": "camera timer", "mass_g": 0.0, "coupling": "none", "socket": "none"}
    )
    return Fix(
        label="Use the camera's own timer",
        consequence="It calls every frame; set its interval and its number of frames as the field card says.",
        slots={},
        edits=tuple(put(plan, (Taken(card=card),))),
    )
