"""What the camera hears of a press, where no frame comes of it."""

from collections.abc import Iterator

from bridle.core.chapters.trigger.called import own_timer
from bridle.core.chapters.trigger.fixing import as_it_belongs, driven, parted, resistor, works
from bridle.core.chapters.trigger.unread import camera_at, unread
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.wired import Coupling, Trigger
from bridle.core.quantity import listed
from bridle.core.reckon.circuit import PULLS_IN, coil_a, driver_a
from bridle.core.reckon.hearing import Hearing
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.wiring import is_driven
from bridle.core.snag import Fix, Slot, Snag, SnagKind, slot
from bridle.core.subjects.circuits.headset import OHMS

FOCUS = SnagKind(
    "focus-for-shutter",
    "stop",
    "trigger",
    "The {device} presses the focus contact of the {camera} and never its shutter.",
    "It focuses for ever and takes no frame: focus and shutter are two contacts of one button.",
)
HELD = SnagKind(
    "shutter-held",
    "stop",
    "trigger",
    "The shutter of the {camera} is held down while nothing presses.",
    "{reason}. Such a camera fires when it is switched on, and then at the end of a press, if ever.",
)
EARLY = SnagKind(
    "shutter-at-half-press",
    "stop",
    "trigger",
    "The {camera} is released by the half press of the {device} already.",
    "Focus and shutter are changed over: the frame comes too soon, and the full press only focuses.",
)
HALF = SnagKind(
    "half-press-missing",
    "stop",
    "trigger",
    "The {camera} releases only while its half press is held; the {device} closes the shutter contact alone.",
    "A switch of one stage can close both contacts at once: join focus and shutter.",
)
NOTHING = SnagKind(
    "press-not-heard",
    "stop",
    "trigger",
    "When the {device} presses, the {camera} hears nothing.",
    "From its shutter contact to its ground no way closes: {reason}.",
)
BACKWARDS = SnagKind(
    "light-backwards",
    "stop",
    "trigger",
    "The {coupling} is joined the wrong way round.",
    "Its light conducts from anode to cathode only, and what it lights from collector to emitter: turned round, "
    "nothing passes. It does no harm at these voltages, but no frame comes either.",
)
WEAK = SnagKind(
    "light-too-weak",
    "stop",
    "trigger",
    "The light of the {coupling} gets {flows}; it needs {needs}.",
    "{level} less what the light itself takes is all that drives the current through the resistor before it.",
)
COIL = SnagKind(
    "coil-too-weak",
    "stop",
    "trigger",
    "The {coupling} does not pull in: its coil gets {flows} of {needs}.",
    "It is made for {coil}; the pin stands at {level} and gives way under such a load. A coil needs about three "
    "quarters of its current.",
)
WRONG_KEY = SnagKind(
    "wrong-headset-key",
    "stop",
    "trigger",
    "The {camera} takes this press for {key}; its app fires on {fires}.",
    "A phone tells the buttons of a headset by their resistance: {ohms} belongs to {fires}.",
)
NO_KEY = SnagKind(
    "no-headset-key",
    "stop",
    "trigger",
    "The {camera} sees {ohms} at its headset socket, and no button of a headset has that.",
    "A phone tells the buttons by their resistance, and takes no notice of what lies between them.",
)
NOT_FED = SnagKind(
    "relay-not-fed",
    "stop",
    "trigger",
    "Nothing feeds the coil of the {coupling}: its supply pin is joined to nothing.",
    "The pin that switches it only tells its driver; the coil takes its current from a supply pin of the board.",
)
FED_LOW = SnagKind(
    "relay-fed-too-low",
    "stop",
    "trigger",
    "The {coupling} needs {coil}, and the supply pin gives only {level}.",
    "Its coil gets {flows} of {needs}, and a coil needs about three quarters of its current to pull in.",
)
RESTLESS = SnagKind(
    "chain-never-rests",
    "stop",
    "trigger",
    "This chain switches itself on and off without end.",
    "A relay or a light is joined so that it takes away what holds it.",
)
KINDS = (
    FOCUS,
    HELD,
    EARLY,
    HALF,
    NOTHING,
    BACKWARDS,
    WEAK,
    COIL,
    WRONG_KEY,
    NO_KEY,
    NOT_FED,
    FED_LOW,
    RESTLESS,
)
BY_VERDICT = {
    "focus alone": FOCUS,
    "held": HELD,
    "early": EARLY,
    "half press missing": HALF,
    "restless": RESTLESS,
}
PLACE = "trigger.joins"


def findings(shooting: Shooting) -> Iterator[Snag]:
    """Why the camera takes no frame; nothing where it does."""
    found = shooting.hearing
    if found is None or found.verdict == "takes":
        return
    slots = _slots(found)
    if found.verdict == "not known":
        yield from unread(shooting, found, slots)
    elif found.verdict == "nothing":
        yield from _nothing(shooting, found, slots)
    elif found.verdict == "no key":
        yield from _no_key(shooting, found, slots)
    elif found.verdict == "wrong key":
        yield from _wrong_key(shooting, found, slots)
    else:
        more = {"reason": slot(_holding(found))} if found.verdict == "held" else {}
        ways = parted if found.tied else as_it_belongs
        yield BY_VERDICT[found.verdict].at(PLACE, {**slots, **more}, list(ways(shooting.plan)))


def _holding(found: Hearing) -> str:
    """What holds the shutter while nothing presses."""
    used = {end.partition(".")[2].rstrip("2") for join in found.wiring.joins for end in (join.a, join.b)}
    if "closed" in used:
        return "A normally closed contact holds it until it is pressed"
    if found.tied:
        return "A pin that is off stands low, and the camera takes that for a press"
    return "Its shutter and its ground are joined without a contact between them"


def _slots(found: Hearing) -> dict[str, Slot]:
    parts = found.wiring.parts
    assert parts.source is not None and parts.camera is not None
    return {"device": slot(parts.source.name), "camera": slot(parts.camera.name)}


def _nothing(shooting: Shooting, found: Hearing, slots: dict[str, Slot]) -> Iterator[Snag]:
    plan, wired = shooting.plan, found.wiring
    card, source = wired.parts.coupling, wired.parts.source
    if card is not None and source is not None and source.volts is not None and wired.output == "pin":
        more = {**slots, "coupling": slot(card.name), "level": slot(source.volts, "V")}
        index = next(n for n, copy in enumerate(plan.kit.copies) if copy.card is card)
        if _turned(found):
            yield BACKWARDS.at(PLACE, more, list(as_it_belongs(plan)))
            return
        if found.led_a and found.led_a * 1000 < card.needs_ma:
            told = {**more, "flows": slot(found.led_a * 1000, "mA"), "needs": slot(card.needs_ma, "mA")}
            yield WEAK.at(f"kit.copies.{index}.card.series_ohm", told, list(resistor(plan, index, card)))
            return
        if is_driven(card):
            yield from _driven(shooting, found, card, source, more, index)
            return
        if found.coil_a and found.coil_a < PULLS_IN * coil_a(card):
            told = {
                **more,
                "flows": slot(found.coil_a * 1000, "mA"),
                "needs": slot(coil_a(card) * 1000, "mA"),
                "coil": slot(card.coil_v, "V"),
            }
            yield COIL.at(f"kit.copies.{index}.card.coil_v", told, list(driven(plan, index, source.volts)))
            return
    yield NOTHING.at(PLACE, {**slots, "reason": slot(_reason(found))}, list(_mended(plan)))


def _driven(
    shooting: Shooting, found: Hearing, card: Coupling, source: Trigger, more: dict[str, Slot], index: int
) -> Iterator[Snag]:
    """A relay board with a driver: its input, its supply, or what is joined behind it."""
    plan, asked, full = shooting.plan, driver_a(card), coil_a(card)
    if found.input_a and found.input_a < PULLS_IN * asked:
        told = {**more, "flows": slot(found.input_a * 1000, "mA"), "needs": slot(asked * 1000, "mA")}
        told["coil"] = slot(card.coil_v, "V")
        yield COIL.at(f"kit.copies.{index}.card.coil_v", told, list(driven(plan, index, source.volts or 0.0)))
    elif not _joined(found, "coupling.supply"):
        yield NOT_FED.at(PLACE, more, list(as_it_belongs(plan)))
    elif found.coil_a and found.coil_a < PULLS_IN * full:
        told = {
            **more,
            "level": slot(source.supply_v, "V"),
            "coil": slot(card.coil_v, "V"),
            "flows": slot(found.coil_a * 1000, "mA"),
            "needs": slot(full * 1000, "mA"),
        }
        yield FED_LOW.at(f"kit.copies.{index}.card.coil_v", told, list(_fed(plan, source, card)))
    else:
        slots = {name: more[name] for name in ("device", "camera")}
        yield NOTHING.at(PLACE, {**slots, "reason": slot(_reason(found))}, list(_mended(plan)))


def _joined(found: Hearing, end: str) -> bool:
    return any(end in (join.a, join.b) for join in found.wiring.joins)


def _fed(plan: Plan, source: Trigger, card: Coupling) -> Iterator[Fix]:
    """A supply pin that gives what the coil is made for."""
    index = next(n for n, copy in enumerate(plan.kit.copies) if copy.card is source)
    edits = (Edit(path=f"kit.copies.{index}.card.supply_v", value=card.coil_v),)
    if works(plan, edits):
        yield Fix(
            label="Feed it from {coil}",
            consequence="Another supply pin of the board, or a supply beside it that shares its ground.",
            slots={"coil": slot(card.coil_v, "V")},
            edits=edits,
        )


def _mended(plan: Plan) -> Iterator[Fix]:
    """Joined as it belongs; where that is no help, a lead bought for the camera, or the camera's own timer."""
    ways = [*as_it_belongs(plan), *parted(plan)]
    yield from ways[:1]
    if not ways:
        yield own_timer(plan)


def _no_key(shooting: Shooting, found: Hearing, slots: dict[str, Slot]) -> Iterator[Snag]:
    camera, ohms = found.wiring.parts.camera, found.stages["full"].ohms
    assert camera is not None and ohms is not None
    fixes = list(_key_of_the_app(shooting, found, camera.fires_on))
    yield NO_KEY.at(PLACE, {**slots, "ohms": slot(ohms, "Ω")}, fixes)


def _key_of_the_app(shooting: Shooting, found: Hearing, fires_on: str) -> Iterator[Fix]:
    """The resistance of the key that the app fires on: in the resistor, or in the button itself."""
    plan, parts = shooting.plan, found.wiring.parts
    ohms = OHMS.get(fires_on)  # type: ignore[call-overload]  # a key, or “not known”
    if ohms is None:
        return
    if parts.resistor is not None:
        yield from (fix for fix in _right_ohms(shooting, parts.resistor, ohms, "") if works(plan, fix.edits))
    elif parts.source is not None and parts.source.source == "headset":
        index = next(n for n, copy in enumerate(plan.kit.copies) if copy.card is parts.source)
        yield Fix(
            label="Take a button of {ohms}",
            consequence="A headset that the phone knows has it; try it with the app first.",
            slots={"ohms": slot(ohms, "Ω")},
            edits=(Edit(path=f"kit.copies.{index}.card.button_ohm", value=ohms),),
        )


def _turned(found: Hearing) -> bool:
    """Whether one side of an optocoupler is joined, and the wrong way round."""
    card, joins = found.wiring.parts.coupling, {frozenset((join.a, join.b)) for join in found.wiring.joins}
    if card is None or card.form != "optocoupler":
        return False
    light = frozenset(("source.pin", "coupling.minus")) in joins and found.led_a == 0
    ground = {"camera.ground"} | {f"wire.{n}" for n, role in enumerate(_lead_roles(found)) if role == "ground"}
    dark = any(frozenset((end, "coupling.high")) in joins for end in ground)
    return light or (dark and bool(found.led_a))


def _lead_roles(found: Hearing) -> tuple[str | None, ...]:
    return found.wiring.lead.roles if found.wiring.lead else ()


def _reason(found: Hearing) -> str:
    """Which end hangs loose, or that no end does."""
    used = {end for join in found.wiring.joins for end in (join.a, join.b)}
    loose = [
        said
        for contact, said in (("shutter", "the camera's shutter"), ("ground", "the camera's ground"))
        if not used & _ends_of(found, contact)
    ]
    if loose:
        return f"{listed(loose)} {'is' if len(loose) == 1 else 'are'} joined to nothing"
    own = [end for end in found.wiring.ends["source"] if f"source.{end}" in used]
    return (
        "nothing of what fires is joined"
        if not own
        else "the ends that are joined never close, or too much lies between"
    )


def _ends_of(found: Hearing, contact: str) -> set[str]:
    cut = {f"wire.{n}" for n, role in enumerate(_lead_roles(found)) if role == contact}
    mic = {"camera.mic"} if contact == "shutter" and "mic" in found.wiring.ends.get("camera", ()) else set()
    return cut | mic | {f"camera.{contact}"}


def _wrong_key(shooting: Shooting, found: Hearing, slots: dict[str, Slot]) -> Iterator[Snag]:
    camera, resistor_card = found.wiring.parts.camera, found.wiring.parts.resistor
    key = found.stages["full"].key
    assert camera is not None and key is not None and camera.fires_on in OHMS
    ohms = OHMS[camera.fires_on]
    told = {**slots, "key": slot(key), "fires": slot(camera.fires_on), "ohms": slot(ohms, "Ω")}
    ways = [fix for fix in _right_ohms(shooting, resistor_card, ohms, key) if works(shooting.plan, fix.edits)]
    yield WRONG_KEY.at(PLACE, told, ways or list(as_it_belongs(shooting.plan)))


def _right_ohms(shooting: Shooting, card: Coupling | None, ohms: float, key: str) -> Iterator[Fix]:
    plan = shooting.plan
    if card is not None:
        index = next(n for n, copy in enumerate(plan.kit.copies) if copy.card is card)
        yield Fix(
            label="Take a resistor of {ohms}",
            consequence="That is the nearest you can buy; a phone allows for a little more or less.",
            slots={"ohms": slot(ohms, "Ω")},
            edits=(Edit(path=f"kit.copies.{index}.card.contact_ohm", value=ohms),),
        )
    if key in ("play", "volume up", "volume down"):
        yield Fix(
            label="Let the app fire on {key}",
            consequence="Where its settings know that key; try it with a headset first.",
            slots={"key": slot(key)},
            edits=(Edit(path=f"kit.copies.{camera_at(shooting)}.card.fires_on", value=key),),
        )
