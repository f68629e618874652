"""Circuits that do harm, or are asked for too much: tied supplies, pins, relays that wear, leads that lose."""

from collections.abc import Iterator

from bridle.core.chapters.trigger.fixing import as_it_belongs, driven, parted, resistor
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.edit import Edit, apply
from bridle.core.plan.wired import Coupling, Trigger
from bridle.core.reckon.calls import lamps_of, relays_of
from bridle.core.reckon.hearing import Hearing, hearing
from bridle.core.reckon.parts import source_copy
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.wiring import parts_of
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.circuits import leads

TIED = SnagKind(
    "circuits-tied",
    "stop",
    "trigger",
    "The circuit of the {device} and that of the {camera} are tied together.",
    "Two supplies meet in the camera: a fault of the one goes through the other, and a pin that stands low holds the "
    "shutter down. An optocoupler or a relay passes the press on and parts them.",
)
FOREIGN = SnagKind(
    "foreign-voltage",
    "stop",
    "trigger",
    "{volts} more than its own reach the contacts of the {camera}.",
    "They are made to be joined to one another, not to be fed. This can destroy the camera.",
)
OVERLOADED = SnagKind(
    "pin-overloaded",
    "stop",
    "trigger",
    "The {device} is asked for {flows}; a pin of it gives {gives} at most.",
    "It gets hot, its voltage breaks down, and the board may be lost.",
)
IN_USE = SnagKind(
    "pin-in-use",
    "stop",
    "trigger",
    "Pin {pin} of the {device} is used already: {use}.",
    "Both would switch at once, and neither as it should.",
)
BARE = SnagKind(
    "coil-without-diode",
    "stop",
    "trigger",
    "The coil of the {part} has no diode across it.",
    "Each time it lets go, it gives back many times its own voltage, and that goes into the pin: sooner or later the "
    "board is lost.",
)
WORN = SnagKind(
    "relay-wears-out",
    "mind",
    "trigger",
    "The {part} is pressed {presses} times; its contacts are made for {life}.",
    "It fails by sticking, and then it holds the shutter, or by not closing at all.",
)
LIFTED = SnagKind(
    "ground-lifted",
    "mind",
    "trigger",
    "The lamps' current lifts the ground of the lead by {lifted}; a signal of {level} bears a tenth of that.",
    "They share {length} of one wire. Above a tenth of its level a signal is not to be trusted.",
)
LOSES = SnagKind(
    "lamp-lead-loses",
    "mind",
    "trigger",
    "The lamps' lead loses {lost} there and back, of {volts}.",
    "They burn dimmer at the end of a lead of {length} with {ohms} a metre, and dimmer still when all are on.",
)
KINDS = (TIED, FOREIGN, OVERLOADED, IN_USE, BARE, WORN, LIFTED, LOSES)

TENTH = 0.1
CYCLES = Formula("frames * each", "once for each picture")
ALL_LAMPS = Formula("watts / volts", "what all lamps draw that hang on one supply, at its voltage")


def findings(shooting: Shooting) -> Iterator[Figure | Snag]:
    """What comes of the parts of the chain beside the press itself."""
    found = shooting.hearing
    if found is not None and found.verdict != "not known":
        yield from _harm(shooting, found)
    yield from _in_use(shooting)
    yield from _bare(shooting)
    yield from _worn(shooting)
    yield from _lifted(shooting)


def _loses(shooting: Shooting, one_way: float) -> Iterator[Snag]:
    """What the lamps lose over the same length of lead, both wires together."""
    chain = shooting.plan.trigger
    volts = min(lamp.volts for _, lamp, _ in lamps_of(shooting.plan) if not lamp.on_mains)
    if 2 * one_way <= TENTH * volts:
        return
    thicker = round(chain.ground_ohm_per_m * TENTH * volts / (2 * one_way) * 0.9, 4)
    fix = Fix(
        label="Take a wire of {thicker}",
        consequence="Less than a tenth is lost then; a thicker wire has fewer ohms in a metre.",
        slots={"thicker": slot(thicker, "Ω/m")},
        edits=(Edit(path="trigger.ground_ohm_per_m", value=thicker),),
    )
    slots = {
        "lost": slot(2 * one_way, "V"),
        "volts": slot(volts, "V"),
        "length": slot(chain.ground_mm, "mm"),
        "ohms": slot(chain.ground_ohm_per_m, "Ω"),
    }
    yield LOSES.at("trigger.ground_ohm_per_m", slots, [fix])


def _harm(shooting: Shooting, found: Hearing) -> Iterator[Figure | Snag]:
    plan, parts = shooting.plan, found.wiring.parts
    assert parts.source is not None and parts.camera is not None
    slots = {"device": slot(parts.source.name), "camera": slot(parts.camera.name)}
    foreign = max(seen.foreign_v for seen in found.stages.values())
    if foreign > 0:
        yield FOREIGN.at("trigger.joins", {**slots, "volts": slot(foreign, "V")}, list(parted(plan)))
    elif found.tied:
        yield TIED.at("trigger.joins", slots, list(parted(plan)))
    if found.wiring.output == "pin" and parts.source.pin_ma and found.pin_a * 1000 > parts.source.pin_ma * (1 + 1e-9):
        told = {**slots, "flows": slot(found.pin_a * 1000, "mA"), "gives": slot(parts.source.pin_ma, "mA")}
        yield OVERLOADED.at("trigger.joins", told, list(_lighter(shooting, parts.source, parts.coupling)))


def _lighter(shooting: Shooting, source: Trigger, card: Coupling | None) -> Iterator[Fix]:
    plan = shooting.plan
    for fix in _ways(shooting, source, card):
        found = hearing(apply(plan, fix.edits)[0])
        if found is not None and source.pin_ma and found.pin_a * 1000 <= source.pin_ma:
            yield fix
    if card is None:
        yield from parted(plan)


def _ways(shooting: Shooting, source: Trigger, card: Coupling | None) -> Iterator[Fix]:
    plan = shooting.plan
    yield from as_it_belongs(plan)
    if card is None:
        return
    index = next(n for n, copy in enumerate(plan.kit.copies) if copy.card is card)
    if card.form == "optocoupler":
        yield from resistor(plan, index, card)
    elif source.volts is not None:
        yield from driven(plan, index, source.volts)


def _in_use(shooting: Shooting) -> Iterator[Snag]:
    """A pin that something else uses, or that a lamp and the shutter share."""
    plan, source = shooting.plan, parts_of(shooting.plan).source
    if source is None or not source.pins:
        return
    uses = {pin.name: pin.used_for for pin in source.pins}
    asked = [("trigger.pin", plan.trigger.pin, "the shutter")]
    asked += [(f"trigger.lamps.{n}.pin", use.pin, use.lamp) for n, use in enumerate(plan.trigger.lamps)]
    free = [name for name, use in uses.items() if not use and name not in {pin for _, pin, _ in asked}]
    taken: dict[str, str] = {}
    shared = {use.lamp for group in relays_of(plan) for _, _, use in group[1:]}
    for number, (path, pin, what) in enumerate(asked):
        use = uses.get(pin) or taken.get(pin)
        # Lamps that are switched alike hang on one relay.
        alike = number > 0 and not uses.get(pin) and what in shared
        if pin and use and not alike:
            slots = {"pin": slot(pin), "device": slot(source.name), "use": slot(use)}
            yield IN_USE.at(path, slots, [_another(path, free[0])] if free else [_no_pin(path)])
        taken[pin] = what


def _another(path: str, pin: str) -> Fix:
    said = "It is free on the card; measure what stands on it, on and off."
    return Fix(label="Use {pin}", consequence=said, slots={"pin": slot(pin)}, edits=(Edit(path=path, value=pin),))


def _no_pin(path: str) -> Fix:
    said = "Which pin it will be is open then; the card has none free."
    return Fix(label="Leave it open", consequence=said, slots={}, edits=(Edit(path=path, value=""),))


def _bare(shooting: Shooting) -> Iterator[Snag]:
    """A plain relay on a pin, without what takes up the kick of its coil."""
    plan, found = shooting.plan, shooting.hearing
    card = found.wiring.parts.coupling if found is not None else None
    if found is None or card is None or card.form != "relay" or card.driver or card.diode:
        return
    if found.wiring.output != "pin":
        return
    index = next(n for n, copy in enumerate(plan.kit.copies) if copy.card is card)
    fix = Fix(
        label="Put a diode across it",
        consequence="Its ringed end to the coil's plus; any small rectifier diode will do.",
        slots={},
        edits=(Edit(path=f"kit.copies.{index}.card.diode", value=True),),
    )
    yield BARE.at(f"kit.copies.{index}.card.diode", {"part": slot(card.name)}, [fix])


def _worn(shooting: Shooting) -> Iterator[Figure | Snag]:
    plan, parts = shooting.plan, parts_of(shooting.plan)
    if shooting.hearing is None:
        return
    presses = len(shooting.orders)
    for part in (parts.coupling, parts.source):
        if part is None or part.presses is None:
            continue
        each = term("each", "pictures of a frame", presses // shooting.frames, "")
        frames = term("frames", "frames", shooting.frames, "frames")
        yield figure(
            f"trigger.cycles.{part.kind}", f"the {part.name} is pressed", presses, "times", CYCLES, frames, each
        )
        if presses <= part.presses:
            continue
        card = part if isinstance(part, Coupling) else source_copy(plan.kit.copies)
        index = next(n for n, copy in enumerate(plan.kit.copies) if card in (copy, copy.card))
        slots = {
            "part": slot(part.name),
            "presses": slot(f"{presses:,}".replace(",", " ")),
            "life": slot(f"{part.presses:,.0f}".replace(",", " ")),
        }
        yield WORN.at(f"kit.copies.{index}.card.presses", slots, list(_lasting(index, part)))


def _lasting(index: int, part: Coupling | Trigger) -> Iterator[Fix]:
    said = "Light does not wear. It joins one way only: mind which end is which."
    edits = [Edit(path=f"kit.copies.{index}.card.presses", value=None)]
    label = "Take an optocoupler instead"
    if isinstance(part, Coupling):
        plain = Coupling(name="an optocoupler")
        edits = [
            Edit(path=f"kit.copies.{index}.card", value=plain.model_dump(mode="json")),
            Edit(path="trigger.joins", value=None),
            Edit(path="beat.couple_s", value="0"),
        ]
    else:
        label, said = (
            "Take one that has no contact to wear",
            "A sensor or a pin in place of the switch; or a spare, changed on the way.",
        )
    yield Fix(label=label, consequence=said, slots={}, edits=tuple(edits))


def lamps_a(shooting: Shooting) -> float:
    """What all lamps draw that do not run on the mains, in amperes."""
    return sum(lamp.watts / lamp.volts for _, lamp, _ in lamps_of(shooting.plan) if not lamp.on_mains)


def _lifted(shooting: Shooting) -> Iterator[Figure | Snag]:
    plan, chain, drawn = shooting.plan, shooting.plan.trigger, lamps_a(shooting)
    if not drawn or not chain.ground_mm:
        return
    parts = parts_of(plan)
    level = (parts.source.volts if parts.source else None) or (parts.camera.input_v if parts.camera else 3.0)
    length = chain.ground_mm / 1000
    lifted = leads.drop_of_v(drawn, length, chain.ground_ohm_per_m)
    terms = (
        term("current", "all lamps draw", drawn, "A"),
        term("length", "wire that they share", length, "m"),
        term("ohms", "a metre has", chain.ground_ohm_per_m, "Ω/m"),
    )
    yield figure("trigger.lifted", "the ground is lifted by", lifted, "V", leads.DROP_MEASURED, *terms)
    yield from _loses(shooting, lifted)
    if lifted <= TENTH * level:
        return
    fix = Fix(
        label="Give the lamps a return wire of their own",
        consequence="Their current leaves the signal's ground alone; the two meet at the supply.",
        slots={},
        edits=(Edit(path="trigger.ground_mm", value=0.0),),
    )
    slots = {"lifted": slot(lifted, "V"), "level": slot(level, "V"), "length": slot(chain.ground_mm, "mm")}
    yield LIFTED.at("trigger.ground_mm", slots, [fix])
