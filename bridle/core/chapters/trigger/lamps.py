"""Lamps that are lit for the frame alone: what that saves and wears, and what goes wrong with switches that toggle."""

from collections.abc import Iterator
from fractions import Fraction

from bridle.core.chapters.trigger.circuits import lamps_a
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.edit import Edit
from bridle.core.plan.kit import AxisCard
from bridle.core.plan.wired import Battery, PowerSupply
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
KINDS = (COLD, WARMS, TOGGLES, WAKES_LIT, SUPPLY)

SHARE = Formula("min(1, max(0, (off - on) / interval))", "lit for the frame alone")
SHARE_BETWEEN = Formula("min(1, max(0, 1 - (off - on) / interval))", "dark for the frame alone")
SAVED = Formula("watts * (1 - share) * shoot / 3600", "what it does not draw while it is dark")
ONCE = Formula("frames", "once for each frame")
HEAT = Formula("watts * share", "all of it ends as heat")
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
    rule, share = SHARE, (one.off - one.on) / float(shooting.solution.interval)
    if between:
        rule, share = SHARE_BETWEEN, 1 - share
    times = term("off", "switched again at", one.off, "s"), term("on", "switched at", one.on, "s"), interval
    share = min(1.0, max(0.0, share))
    yield figure(f"{key}.share", "share of the time that it is lit", share, "share", rule, *times)
    watts, part = term("watts", "its power", lamp.watts, "W"), term("share", "lit for", share, "share")
    shoot = term("shoot", "shoot length", shooting.solution.shoot, "s")
    saved = lamp.watts * (1 - share) * float(shooting.solution.shoot) / 3600
    yield figure(f"{key}.saved", "energy saved", saved, "Wh", SAVED, watts, part, shoot)
    yield figure(f"{key}.heat", "heat, on average", lamp.watts * share, "W", HEAT, watts, part)
    colour, day = term("lamp", "the lamp", lamp.kelvin, "K"), term("day", "daylight", DAYLIGHT_K, "K")
    frames = term("frames", "frames", shooting.frames, "frames")
    # Lamps on one relay are counted with the first of them.
    if any(group[0][0] == one.index for group in relays_of(shooting.plan)):
        yield figure(f"{key}.cycles", "its relay is switched on and off", shooting.frames, "times", ONCE, frames)
    yield figure(f"{key}.mixed", "with as much daylight", mixed_k(lamp.kelvin), "K", MIXED, colour, day)
    yield from _warm(shooting, one)
    place = f"trigger.lamps.{shooting.plan.trigger.lamps.index(one.use)}"
    if lamp.switch == "toggle":
        yield TOGGLES.at(f"{place}.lit", name, [_level(one), _always(place)])
    if lamp.on_after_power_up and one.use.lit == "for the frame":
        yield WAKES_LIT.at(f"kit.copies.{one.index}.card.on_after_power_up", name, [_dark_first(one)])


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
