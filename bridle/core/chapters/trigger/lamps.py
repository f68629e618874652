"""Lamps that are lit for the frame alone: what that saves and wears, and what goes wrong with switches that toggle."""

from collections.abc import Iterator
from fractions import Fraction

from bridle.core.chapters.trigger.circuits import lamps_a
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.edit import Edit
from bridle.core.plan.kit import AxisCard
from bridle.core.plan.wired import Battery, PowerSupply
from bridle.core.quantity import listed, write
from bridle.core.reckon.calls import Lit, lit, relays_of
from bridle.core.reckon.parts import first_of
from bridle.core.reckon.reckoning import Shooting
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.light.lamps import DAYLIGHT_K, MIXED, mixed_k

COLD = SnagKind(
    "lamp-not-warm",
    "stop",
    "trigger",
    "The {lamp} is switched {before} ahead of the shutter; it comes on in {warm}.",
    "The frame is taken while it still gets brighter: each one a little differently.",
)
WARMS = SnagKind(
    "warm-up-not-in-beat",
    "mind",
    "trigger",
    "The {lamp} has to be switched {before} ahead of the shutter, and the beat leaves it {left}.",
    "What calls the frame has to begin that much sooner; without that time in the beat nothing waits for the lamp.",
)
TOGGLES = SnagKind(
    "toggle-loses-count",
    "mind",
    "trigger",
    "The {lamp} is switched by a push that turns it on and off in turn.",
    "One push too many or too few, and it is lit when it should be dark for the whole rest of the shoot. Nothing tells "
    "which it is.",
)
WAKES_LIT = SnagKind(
    "lamp-on-after-power-cut",
    "note",
    "trigger",
    "The {lamp} comes on by itself when the power comes back.",
    "After a power cut it is lit until the next frame switches it off; a toggle is the wrong way round from then on.",
)
SUPPLY = SnagKind(
    "lamp-supply-too-weak",
    "stop",
    "trigger",
    "What hangs on the {supply} draws {drawn}; it gives {gives}.",
    "Lamps flicker or go out when all are on, and whatever else it feeds resets.",
)
TOO_MANY = SnagKind(
    "lamp-level-unused",
    "mind",
    "trigger",
    "The {lamp} has {levels} levels, and a frame has only {exposures}.",
    "Each level is for one exposure of a frame, in turn; those left over are never used.",
)
NEEDS_DIMMER = SnagKind(
    "lamp-needs-dimmer",
    "mind",
    "trigger",
    "The {lamp} goes from {one} to {other} within a frame, but a relay can only switch it on and off.",
    "Something has to dim it between two exposures, in the time that the bracket leaves.",
)
KINDS = (COLD, WARMS, TOGGLES, WAKES_LIT, SUPPLY, TOO_MANY, NEEDS_DIMMER)

SHARE = Formula("min(1, max(0, (off - on) / interval))", "lit for the frame alone")
SHARE_IN_PARTS = Formula("min(1, max(0, lit / interval))", "lit for some exposures of the frame")
SHARE_BETWEEN = Formula("min(1, max(0, 1 - (off - on) / interval))", "dark for the frame alone")
SAVED = Formula("watts * (1 - share) * shoot / 3600", "what it does not draw while it is dark")
SAVED_DIMMED = Formula("watts * (1 - share * level) * shoot / 3600", "what it does not draw while it is dark or dimmed")
ONCE = Formula("frames", "once for each frame")
OFTEN = Formula("frames * times", "in each frame, once for every exposure that comes after a dark one")
HEAT = Formula("watts * share", "all of it ends as heat")
HEAT_DIMMED = Formula("watts * share * level", "all that it draws ends as heat")
DRAWN = Formula(
    "lamps + motors", "each lamp's power over its voltage, those on the mains left out; motors at their peak"
)
SPARE = 1.25


def findings(shooting: Shooting) -> Iterator[Figure | Snag]:
    """Each lamp by itself, and what feeds them all."""
    for one in lit(shooting):
        yield from _lamp(shooting, one)
    yield from _fed(shooting)


def _lamp(shooting: Shooting, one: Lit) -> Iterator[Figure | Snag]:
    key, lamp = f"trigger.lamp.{one.index}", one.lamp
    name = {"lamp": slot(lamp.name)}
    interval = term("interval", "interval", shooting.solution.interval, "s")
    if not one.switched or one.use is None:
        return
    between = one.use.lit == "between frames"
    share = one.lit_s / float(shooting.solution.interval)
    if between:
        rule, share = SHARE_BETWEEN, 1 - share
    else:
        rule = SHARE if one.times == 1 else SHARE_IN_PARTS
    share = min(1.0, max(0.0, share))
    switched = term("off", "switched again at", one.off, "s"), term("on", "switched at", one.on, "s")
    parts = (term("lit", "lit in a frame", one.lit_s, "s"),)
    times = parts if rule is SHARE_IN_PARTS else switched
    yield figure(f"{key}.share", "share of the time that it is lit", share, "share", rule, *times, interval)
    yield from _drawn(shooting, one, share)
    colour, day = term("lamp", "the lamp", lamp.kelvin, "K"), term("day", "daylight", DAYLIGHT_K, "K")
    # Lamps on one relay are counted with the first of them.
    if any(group[0][0] == one.index for group in relays_of(shooting.plan)):
        frames, often = term("frames", "frames", shooting.frames, "frames"), shooting.frames * one.times
        rule, terms = (ONCE, (frames,)) if one.times == 1 else (OFTEN, (frames, term("times", "times", one.times, "")))
        yield figure(f"{key}.cycles", "its relay is switched on and off", often, "times", rule, *terms)
    yield figure(f"{key}.mixed", "with as much daylight", mixed_k(lamp.kelvin), "K", MIXED, colour, day)
    yield from _warm(shooting, one)
    yield from _levels(shooting, one)
    place = f"trigger.lamps.{shooting.plan.trigger.lamps.index(one.use)}"
    if lamp.switch == "toggle":
        yield TOGGLES.at(f"{place}.lit", name, [_level(one), _always(place)])
    if lamp.on_after_power_up and one.use.lit == "for the frame":
        yield WAKES_LIT.at(f"kit.copies.{one.index}.card.on_after_power_up", name, [_dark_first(one)])


def _drawn(shooting: Shooting, one: Lit, share: float) -> Iterator[Figure]:
    """What it saves, and what warms the scene; dimmed, it draws that much less."""
    key, drawn = f"trigger.lamp.{one.index}", one.lamp.watts * share * one.level
    terms = [term("watts", "its power", one.lamp.watts, "W"), term("share", "lit for", share, "share")]
    if one.level != 1:
        terms.append(term("level", "how bright, on average", one.level, "share"))
    shoot = shooting.solution.shoot
    saved = (one.lamp.watts - drawn) * float(shoot) / 3600
    rules = (SAVED, HEAT) if one.level == 1 else (SAVED_DIMMED, HEAT_DIMMED)
    length = term("shoot", "shoot length", shoot, "s")
    yield figure(f"{key}.saved", "energy saved", saved, "Wh", rules[0], *terms, length)
    yield figure(f"{key}.heat", "heat, on average", drawn, "W", rules[1], *terms)


def _levels(shooting: Shooting, one: Lit) -> Iterator[Snag]:
    """Levels of exposures that no frame has, and levels between which a relay cannot choose."""
    assert one.use is not None
    place = f"trigger.lamps.{shooting.plan.trigger.lamps.index(one.use)}.levels"
    if one.use.lit != "for the frame":
        return
    count, levels = len(shooting.cycle.exposures.bracket_s), one.use.levels
    if len(levels) > count:
        kept = levels[:count] if any(levels[:count]) else (one.use.brightest,)
        slots = {"lamp": slot(one.lamp.name), "levels": slot(str(len(levels))), "exposures": slot(_exposures(count))}
        yield TOO_MANY.at(place, slots, [_with_levels(place, kept)])
        return
    lit = sorted({level for level in levels if level})
    if len(lit) > 1:
        slots = {"lamp": slot(one.lamp.name), "one": slot(lit[0], "share"), "other": slot(lit[-1], "share")}
        even = tuple(one.use.brightest if level else 0.0 for level in levels)
        yield NEEDS_DIMMER.at(place, slots, [_with_levels(place, even)])


def _exposures(count: int) -> str:
    return "one exposure" if count == 1 else f"{count} exposures"


def _with_levels(place: str, levels: tuple[float, ...]) -> Fix:
    alike = len(set(levels)) == 1
    kept = levels[:1] if alike else levels
    said = listed([write(level, "share") if level else "dark" for level in kept])
    return Fix(
        label="Light it at {levels}" if alike else "Set its levels to {levels}",
        consequence="Every exposure gets the same light."
        if alike
        else "In the order of the exposures; the last one holds for all that follow it.",
        slots={"levels": slot(said)},
        edits=(Edit(path=place, value=list(kept)),),
    )


def _warm(shooting: Shooting, one: Lit) -> Iterator[Snag]:
    assert one.use is not None
    place, lamp, beat = f"trigger.lamps.{shooting.plan.trigger.lamps.index(one.use)}", one.lamp, shooting.plan.beat
    if one.use.lit == "between frames":
        return
    before = lamp.warm_up_s if one.use.before_s is None else one.use.before_s
    slots = {"lamp": slot(lamp.name), "before": slot(before, "s"), "warm": slot(lamp.warm_up_s, "s")}
    if before < lamp.warm_up_s:
        fix = Fix(
            label="Switch it {warm} ahead",
            consequence="It is as bright for every frame.",
            slots={"warm": slot(lamp.warm_up_s, "s")},
            edits=(Edit(path=f"{place}.before_s", value=str(lamp.warm_up_s)),),
        )
        yield COLD.at(f"{place}.before_s", slots, [fix])
    left = beat.ready_s + beat.heard_s
    if before > left:
        warm = before - beat.heard_s
        fix = Fix(
            label="Give the beat {warm} for it",
            consequence="Everything else of the beat comes that much later.",
            slots={"warm": slot(warm, "s")},
            edits=(Edit(path="beat.warm_s", value=str(warm)),),
        )
        yield WARMS.at("beat.warm_s", {**slots, "left": slot(left, "s")}, [fix])


def _level(one: Lit) -> Fix:
    return Fix(
        label="Switch it by a level",
        consequence="A relay or a switched socket in its supply: on is on, and off is off.",
        slots={},
        edits=(Edit(path=f"kit.copies.{one.index}.card.switch", value="level"),),
    )


def _always(place: str) -> Fix:
    return Fix(
        label="Leave it on all the time",
        consequence="It draws its power for the whole shoot, and nothing can get out of step.",
        slots={},
        edits=(Edit(path=f"{place}.lit", value="always"),),
    )


def _dark_first(one: Lit) -> Fix:
    return Fix(
        label="Plan with one that stays dark",
        consequence="It has to be tried: pull its plug and put it back.",
        slots={},
        edits=(Edit(path=f"kit.copies.{one.index}.card.on_after_power_up", value=False),),
    )


def _motors_a(shooting: Shooting) -> float:
    """What the motors draw at most, where no battery feeds them."""
    cards = [copy.card for copy in shooting.plan.kit.copies]
    if any(isinstance(card, Battery) and card.gives_a is not None for card in cards):
        return 0.0
    return sum(card.peak_a or 0.0 for card in cards if isinstance(card, AxisCard))


def _fed(shooting: Shooting) -> Iterator[Figure | Snag]:
    plan, lamps, motors = shooting.plan, lamps_a(shooting), _motors_a(shooting)
    copy = first_of(plan.kit.copies, PowerSupply)
    if not lamps or copy is None or not isinstance(copy.card, PowerSupply):
        return
    drawn = lamps + motors
    together = term("lamps", "all lamps at once", lamps, "A"), term("motors", "motors on the same supply", motors, "A")
    yield figure("trigger.drawn", "what hangs on the supply draws", drawn, "A", DRAWN, *together)
    if drawn <= copy.card.gives_a:
        return
    enough = float(Fraction(int(drawn * SPARE * 2) + 1, 2))
    fix = Fix(
        label="Plan with a supply of {enough}",
        consequence="A quarter to spare, a fuse in its lead, and no mains inside that you have not bought ready made.",
        slots={"enough": slot(enough, "A")},
        edits=(Edit(path=f"kit.copies.{plan.kit.copies.index(copy)}.card.gives_a", value=enough),),
    )
    slots = {"drawn": slot(drawn, "A"), "supply": slot(copy.card.name), "gives": slot(copy.card.gives_a, "A")}
    yield SUPPLY.at(f"kit.copies.{plan.kit.copies.index(copy)}.card.gives_a", slots, [fix])
