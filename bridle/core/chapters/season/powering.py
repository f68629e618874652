"""Battery, panel and mains over a season: what is drawn, how long it lasts, what would help and what that costs."""

from collections.abc import Iterator
from fractions import Fraction

from bridle.core.asks.pegs import no_shorter
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.core.plan.frames import Windows
from bridle.core.plan.hours import day_said
from bridle.core.reckon.reckoning import Shooting, shooting_of
from bridle.core.reckon.scene import placed
from bridle.core.reckon.season.power import Powered, supply_of, year_of_light
from bridle.core.reckon.season.season import Staying, staying
from bridle.core.snag import Fix, Slot, Snag, SnagKind, slot
from bridle.core.subjects.power.charge import LITHIUM_CHARGES_FROM_C, USABLE

NOT_KNOWN = SnagKind(
    "draw-not-known",
    "note",
    "season",
    "Nobody knows what the {device} draws: no day is told on which the battery is empty.",
    "A meter in the lead tells it in a minute, waiting and with a frame.",
)
EMPTY = SnagKind(
    "battery-runs-out",
    "stop",
    "season",
    "The battery is empty on {day}, {after} after the first frame.",
    "{drawn} are drawn in a day on average; from then on no frame is taken until somebody comes.",
)
BRIDGE = SnagKind(
    "cut-not-bridged",
    "mind",
    "season",
    "When the mains fails the battery lasts for {lasts}; cuts of {cut} are reckoned with.",
    "Then the camera is off, and it depends on its settings whether it comes back by itself.",
)
FROZEN = SnagKind(
    "lithium-charged-in-frost",
    "mind",
    "season",
    "The panel charges a lithium battery at {cold}.",
    "Charged below freezing it is damaged for good, and can fail later without a sign.",
)
KINDS = (NOT_KNOWN, EMPTY, BRIDGE, FROZEN)

A_DAY = Formula("average * 24", "around the clock, over the whole season")
LASTS = Formula("usable / average", "at the average draw, without anything that charges it")
BUSIEST = Formula("usable / busiest", "in the hour that draws most, so that it is enough at any time")
GIVES = Formula("light * watts * usable * panels * usual", "clear light of the month by Haurwitz (1945); an estimate")
DAY_H = 24
MONTHS = ("January", "February", "March", "April", "May", "June", "July", "August", "September", "October",
          "November", "December")  # fmt: skip
# Ampere hours in the trade.
SIZES_AH = (2.0, 4.0, 7.0, 12.0, 18.0, 26.0, 40.0, 60.0, 80.0, 100.0, 150.0, 200.0, 300.0, 500.0, 1000.0)
MOST_SIZES, MOST_PANELS = 5, 4
SLOWER = (Fraction(3, 2), Fraction(2), Fraction(3), Fraction(5), Fraction(10))


def findings(shooting: Shooting, stay: Staying) -> Iterator[Figure | Snag]:
    """What is drawn and given, and when the battery is empty; nothing where nothing of the kit feeds it."""
    plan, power = shooting.plan, stay.power
    if power.supply.by == "nothing":
        return
    if not power.missing:
        yield from _drawn(power)
    elif power.supply.battery is not None:
        yield _not_known(plan, power)
    yield from _held(plan, power)
    yield from _frozen(plan, power)
    if power.missing:
        return
    if power.supply.by == "panel":
        yield from _worst_month(plan, stay)
    if power.supply.by == "mains":
        yield from _bridged(plan, power)
        return
    empty = stay.coming.charged.empty_at
    if empty is not None:
        yield _empty(shooting, stay, empty)


def _drawn(power: Powered) -> Iterator[Figure]:
    parts = [(f"part_{n}", draw) for n, draw in enumerate(power.draws)]
    watts = [float(wh) for wh in power.by_draw_w]
    terms = [term(symbol, draw.name, watt, "W") for (symbol, draw), watt in zip(parts, watts, strict=True)]
    total = Formula(" + ".join(symbol for symbol, _ in parts) or "0", "each on average over the season")
    yield figure("season.average", "drawn on average", power.average_w, "W", total, *terms)
    average = term("average", "drawn on average", power.average_w, "W")
    yield figure("season.a_day", "drawn in a day", power.average_w * DAY_H, "Wh", A_DAY, average)
    if power.average_w and power.usable_wh:
        usable = term("usable", "usable charge", power.usable_wh, "Wh")
        lasts = power.usable_wh / power.average_w
        yield figure("season.lasts", "the battery alone lasts", lasts, "h", LASTS, usable, average)


def _held(plan: Plan, power: Powered) -> Iterator[Figure]:
    battery = power.supply.battery
    if battery is None:
        return
    yield figure(
        "season.usable", "usable charge", power.usable_wh, "Wh", USABLE,
        term("volts", "voltage", battery.volts, "V"), term("hours", "charge", battery.amp_hours, "Ah"),
        term("share", "may be used", battery.usable, "share"),
        term("aged", "lost to age", plan.season.powering.aged, "share"),
        term("cold", "left by the cold", power.cold, "share"),
    )  # fmt: skip


def _not_known(plan: Plan, power: Powered) -> Snag:
    first = next(draw for draw in power.draws if draw.missing)
    fix = Fix(
        label="Count on what is usual until it is measured",
        consequence="{counted}. Put what the meter says in their place.",
        slots={"counted": slot(", ".join(f"{usual:g} {unit}" for _, unit, usual in power.missing))},
        edits=tuple(Edit(path=path, value=usual) for path, _, usual in power.missing),
    )
    return NOT_KNOWN.at(first.missing[0][0], {"device": slot(first.name)}, [fix])


def _frozen(plan: Plan, power: Powered) -> Iterator[Snag]:
    battery, cold = power.supply.battery, plan.season.climate.coldest_c
    if battery is None or not battery.lithium or power.supply.by != "panel":
        return
    if cold is None or cold >= LITHIUM_CHARGES_FROM_C:
        return
    path = f"kit.copies.{power.supply.battery_at}.card.lithium"
    fix = Fix(
        label="Plan with a lead battery of the same charge",
        consequence="Several times as heavy; it may be charged in frost, slowly.",
        slots={},
        edits=(Edit(path=path, value=False),),
    )
    yield FROZEN.at(path, {"cold": slot(cold, "°C")}, [fix])


def _bridged(plan: Plan, power: Powered) -> Iterator[Figure | Snag]:
    battery, busiest = power.supply.battery, float(power.drawn.max())
    if battery is None or not busiest:
        return
    lasts = power.usable_wh / busiest
    usable, most = (
        term("usable", "usable charge", power.usable_wh, "Wh"),
        term("busiest", "drawn at most", busiest, "W"),
    )
    yield figure("season.bridges", "bridges a cut of", lasts, "h", BUSIEST, usable, most)
    cut = float(plan.season.powering.outage_s)
    if lasts * 3600 >= cut:
        return
    needed = battery.amp_hours * cut / 3600 / lasts
    size = next((one for one in SIZES_AH if one >= needed), needed)
    slots = {"lasts": slot(lasts, "h"), "cut": slot(cut / 3600, "h")}
    yield BRIDGE.at("season.powering.outage_s", slots, [_bigger(plan, power, size)])


def _bigger(plan: Plan, power: Powered, size: float) -> Fix:
    battery, at = power.supply.battery, power.supply.battery_at
    assert battery is not None
    mass = battery.mass_g * size / battery.amp_hours
    return Fix(
        label="A battery of {size}",
        consequence="About {mass} instead of {before}. A fuse at its terminal; connected by somebody who knows.",
        slots={"size": slot(size, "Ah"), "mass": slot(mass, "g"), "before": slot(battery.mass_g, "g")},
        edits=(Edit(path=f"kit.copies.{at}.card.amp_hours", value=size),),
    )


def _worst_month(plan: Plan, stay: Staying) -> Iterator[Figure]:
    """Of the months of the season the one that gives least; of the whole year, where it goes on so long."""
    given = months_wh(plan, stay)
    if not given:
        return
    number = min(given, key=lambda month: given[month])
    panel, power, climate = stay.power.supply.panel, plan.season.powering, plan.season.climate
    assert panel is not None
    light = given[number] / (panel.watts * panel.usable * power.panels * climate.usual or 1)
    yield figure(
        "season.worst", f"the sun gives in {MONTHS[number]}", given[number], "Wh", GIVES,
        term("light", "clear light of a day", light, "kWh/m²"), term("watts", "panel", panel.watts, "W"),
        term("usable", "reaches the battery", panel.usable, "share"), term("panels", "panels", power.panels, ""),
        term("usual", "of that on a usual day", climate.usual, "share"),
    )  # fmt: skip


def months_wh(plan: Plan, stay: Staying) -> dict[int, float]:
    """What the panels give on a usual day of each month that the season touches, in Wh."""
    where, panel = placed(plan), stay.power.supply.panel
    if where is None or panel is None:
        return {}
    power, hours = plan.season.powering, stay.hours
    first, last = hours.day(0), hours.day(hours.count - 1)
    light = year_of_light(*where, first.year, power.tilt_deg, power.toward_deg)
    many = min(12, (last.year - first.year) * 12 + last.month - first.month + 1)
    touched = [(first.month - 1 + number) % 12 for number in range(many)]
    share = panel.watts * panel.usable * power.panels * plan.season.climate.usual
    return {month: light[month] * share for month in touched}


def _empty(shooting: Shooting, stay: Staying, hour: int) -> Snag:
    slots = {
        "day": slot(day_said(stay.hours.day(hour))),
        "after": slot(hour * 3600, "s"),
        "drawn": slot(stay.power.average_w * DAY_H, "Wh"),
    }
    return EMPTY.at("season.powering", slots, list(_helps(shooting, stay)))


def _helps(shooting: Shooting, stay: Staying) -> Iterator[Fix]:
    """What keeps it going to the end, each of it tried; what costs nothing first."""
    for fix in (*_heating(shooting.plan), *_timer(shooting.plan), *_swapped(shooting.plan, stay)):
        if _lasts(shooting, fix):
            yield fix
    yield from _first(shooting, _panels(shooting.plan, stay))
    yield from _first(shooting, _sizes(shooting.plan, stay))
    yield from _first(shooting, _slower(shooting))


def _first(shooting: Shooting, fixes: Iterator[Fix]) -> Iterator[Fix]:
    found = next((fix for fix in fixes if _lasts(shooting, fix)), None)
    if found is not None:
        yield found


def _lasts(shooting: Shooting, fix: Fix) -> bool:
    after, _ = apply(shooting.plan, fix.edits)
    same = after.frames == shooting.plan.frames and after.clip == shooting.plan.clip
    tried = shooting.over(after) if same else shooting_of(after)
    stay = staying(tried) if tried else None
    return stay is not None and stay.coming.charged.empty_at is None


def _heating(plan: Plan) -> Iterator[Fix]:
    heats, place = plan.season.powering.heater, "season.powering.heater"
    if heats in ("always", "at night"):
        yield Fix(
            label="Heat only below the dew point",
            consequence="It needs a sensor for it, or a timer for the hours before sunrise.",
            slots={},
            edits=(Edit(path=place, value="below the dew point"),),
        )
    if heats != "never":
        said = "The glass fogs over on damp nights, and frames of the early morning are lost."
        yield Fix(label="No heater", consequence=said, slots={}, edits=(Edit(path=place, value="never"),))


def _timer(plan: Plan) -> Iterator[Fix]:
    if isinstance(plan.frames, Windows) and not plan.season.powering.timer:
        yield Fix(
            label="A timer that cuts the camera's power between windows",
            consequence="The camera has to come back by itself with its settings: to be tried on the bench.",
            slots={},
            edits=(Edit(path="season.powering.timer", value=True),),
        )


def _swapped(plan: Plan, stay: Staying) -> Iterator[Fix]:
    if stay.power.supply.by == "battery" and not plan.season.visiting.swaps_battery:
        yield Fix(
            label="Swap the battery at visits",
            consequence="A second one, charged at home; it has to be carried up each time.",
            slots={},
            edits=(Edit(path="season.visiting.swaps_battery", value=True),),
        )


def _panels(plan: Plan, stay: Staying) -> Iterator[Fix]:
    panel, power = stay.power.supply.panel, plan.season.powering
    if panel is None:
        return
    for many in range(power.panels + 1, power.panels + MOST_PANELS):
        yield Fix(
            label="{many} panels instead of {before}",
            consequence="{mass} more on the mast, and more for the wind to take hold of.",
            slots={
                "many": slot(str(many)), "before": slot(str(power.panels)),
                "mass": slot(panel.mass_g * (many - power.panels), "g"),
            },
            edits=(Edit(path="season.powering.panels", value=many),),
        )  # fmt: skip


def _sizes(plan: Plan, stay: Staying) -> Iterator[Fix]:
    battery = supply_of(plan).battery
    if battery is None:
        return
    larger = [size for size in SIZES_AH if size > battery.amp_hours * 1.1][:MOST_SIZES]
    for size in larger:
        yield _bigger(plan, stay.power, size)


def _slower(shooting: Shooting) -> Iterator[Fix]:
    plan = shooting.plan
    for times in SLOWER:
        every = shooting.timeline.interval_s * times
        edits = no_shorter(plan, every)
        if not edits:
            return
        slots: dict[str, Slot] = {
            "every": slot(every, "s"),
            "frames": slot(shooting.frames // times, "frames"),
            "before": slot(shooting.timeline.interval_s, "s"),
        }
        yield Fix(
            label="One frame every {every}",
            consequence="About {frames} in all; now it is one every {before}.",
            slots=slots,
            edits=tuple(edits),
        )
