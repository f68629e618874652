"""Supply and leads of the rig: what it draws at most, what the battery gives, what the wire takes."""

from collections.abc import Iterator

from bridle.core.chapters.rig.joints import COPIES
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.kit import AxisCard, Copy
from bridle.core.plan.rig import MOST_AREA_MM2, Lead
from bridle.core.plan.wired import Battery
from bridle.core.reckon.parts import first_of
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.circuits import leads

WEAK = SnagKind(
    "supply-too-weak",
    "stop",
    "rig",
    "All motors together draw {drawn} at most; the {battery} gives {gives}.",
    "When they start at the same moment the voltage breaks down: the controller resets, and the rig is lost.",
)
THIN = SnagKind(
    "lead-too-thin",
    "mind",
    "rig",
    "The lead of {length} loses {lost} of {volts} there and back.",
    "Motors are weaker at its end, and the ground lifts by half of it: signals are not to be trusted any more.",
)
KINDS = (WEAK, THIN)

SUM = Formula("motors", "the peak currents of all axes, as they may all start at once")
BOTH = Formula("2 * drop", "there and back")
MOST_LOST = 0.05
# Cross-sections in the trade, in mm².
SIZES = (0.14, 0.25, 0.34, 0.5, 0.75, 1.0, 1.5, 2.5, 4.0, 6.0, 10.0, 16.0, 25.0, 35.0)


def drawn_a(plan: Plan) -> float:
    """The sum of the peak currents of all axes, in amperes."""
    return sum(copy.card.peak_a or 0.0 for copy in plan.kit.copies if isinstance(copy.card, AxisCard))


def _supply(plan: Plan) -> tuple[int, Battery] | None:
    """The battery that feeds the motors: the first that is said to give a current."""
    feeding = tuple(c for c in plan.kit.copies if isinstance(c.card, Battery) and c.card.gives_a is not None)
    copy: Copy | None = first_of(feeding, Battery)
    return (plan.kit.copies.index(copy), copy.card) if copy is not None and isinstance(copy.card, Battery) else None


def figures(plan: Plan) -> Iterator[Figure]:
    """What is drawn, and what the lead loses."""
    drawn, lead = drawn_a(plan), plan.rig.lead
    if not drawn:
        return
    yield figure("rig.current", "drawn at most", drawn, "A", SUM, term("motors", "all axes at once", drawn, "A"))
    if lead is None:
        return
    one = _lost_v(drawn, lead)
    terms = term("current", "drawn at most", drawn, "A"), term("length", "lead", lead.length_mm / 1000, "m")
    rule, wire = leads.DROP, term("area", "cross-section", lead.area_mm2, "mm²")
    if lead.ohm_per_m is not None:
        rule, wire = leads.DROP_MEASURED, term("ohms", "a metre has", lead.ohm_per_m, "Ω/m")
    yield figure("rig.drop", "lost in one wire", one, "V", rule, *terms, wire)
    yield figure("rig.lost", "lost there and back", 2 * one, "V", BOTH, term("drop", "lost in one wire", one, "V"))


def _lost_v(drawn: float, lead: Lead) -> float:
    """What one wire of the lead loses, in volts."""
    length_m = lead.length_mm / 1000
    if lead.ohm_per_m is not None:
        return leads.drop_of_v(drawn, length_m, lead.ohm_per_m)
    return leads.drop_v(drawn, length_m, lead.area_mm2)


def snags(plan: Plan) -> Iterator[Snag]:
    """A supply or a lead that is too weak."""
    supply, drawn = _supply(plan), drawn_a(plan)
    if supply is None or not drawn:
        return
    index, battery = supply
    if battery.gives_a is not None and battery.gives_a < drawn:
        enough = float(int(drawn * 1.5) + 1)
        path = f"{COPIES}.{index}.card.gives_a"
        slots = {"drawn": slot(drawn, "A"), "battery": slot(battery.name), "gives": slot(battery.gives_a, "A")}
        consequence = "Fused at the terminal. Measure voltage and polarity before anything is connected."
        label, edits = "Plan with one that gives {enough}", (Edit(path=path, value=enough),)
        fix = Fix(label=label, consequence=consequence, slots={"enough": slot(enough, "A")}, edits=edits)
        yield WEAK.at(path, slots, [fix])
    yield from _thin(plan, battery, drawn)


def _thin(plan: Plan, battery: Battery, drawn: float) -> Iterator[Snag]:
    lead = plan.rig.lead
    if lead is None:
        return
    length = lead.length_mm / 1000
    lost = 2 * _lost_v(drawn, lead)
    if lost <= MOST_LOST * battery.volts:
        return
    slots = {"length": slot(lead.length_mm, "mm"), "lost": slot(lost, "V"), "volts": slot(battery.volts, "V")}
    fits = [size for size in SIZES if 2 * leads.drop_v(drawn, length, size) <= MOST_LOST * battery.volts]
    thicker = fits[0] if fits else 2 * leads.drop_v(drawn, length, MOST_LOST * battery.volts) * 1.01
    fix = Fix(
        label="Take {thicker}",
        consequence="Less than a twentieth of the voltage is lost then.",
        slots={"thicker": slot(thicker, "mm²")},
        edits=(Edit(path="rig.lead.area_mm2", value=thicker), Edit(path="rig.lead.ohm_per_m", value=None)),
    )
    yield THIN.at("rig.lead.area_mm2", slots, [fix] if thicker <= MOST_AREA_MM2 else [])
