"""What a kit card tells beyond what was typed on it: steps, usable travel, belt length, sweep, reserve."""

import math
from collections.abc import Iterator

from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.drive import STEPPERS, Belt, Clockwork, Rated, Screw
from bridle.core.plan.kit import AnyCard, AxisCard, Battery, Body, Lens, Phone, StorageCard
from bridle.core.reckon.steps import steps_per_unit
from bridle.core.subjects.motion import steppers
from bridle.core.subjects.optics import lens

USABLE = Formula("rail - carriage - 2 * margin", "the carriage clears pulleys, screws and motor over all of it")
BELT = Formula(
    "2 * rail + pitch * teeth - carriage + 80",
    "equal pulleys a rail apart, less the gap at the carriage, and 40 mm held in each clamp",
)
SWEEP = Formula("rate * run / 60", "its rate over the longest run of the spring")
RATED = Formula("base * setting", "the base rate of the key times the number in the menu")
PIXEL = Formula("sensor / width * 1000", "the sensor's width shared among its pixels, in micrometres")
FRAMES = Formula("floor(size * 1000 / 30)", "with raw files of 30 MB")
ENERGY = Formula("volts * hours * usable", "volts times ampere hours, as much of it as may be used")


def card_figures(card: AnyCard) -> list[Figure]:
    """The figures that follow from a card."""
    return list(_figures(card))


def _figures(card: AnyCard) -> Iterator[Figure]:
    if isinstance(card, AxisCard):
        yield from steps_figures(card)
        yield from _axis(card)
    elif isinstance(card, Body | Phone):
        sensor = term("sensor", "sensor, across", card.sensor_width_mm, "focal")
        width = term("width", "picture, across", card.picture_width_px, "px")
        pitch = card.sensor_width_mm / card.picture_width_px * 1000
        yield figure("card.pixel", "pixel pitch", pitch, "µm", PIXEL, sensor, width)
    elif isinstance(card, Lens):
        view = lens.field_of_view_deg(36.0, card.focal_mm)
        terms = (
            term("sensor", "a sensor of full frame, across", 36.0, "focal"),
            term("focal", "focal length", card.focal_mm, "focal"),
        )
        yield figure("card.view", "field of view on full frame", view, "deg", lens.FIELD_OF_VIEW, *terms)
    elif isinstance(card, StorageCard):
        size = term("size", "size", card.gigabytes, "GB")
        yield figure("card.frames", "raw frames, about", math.floor(card.gigabytes * 1000 / 30), "frames", FRAMES, size)
    elif isinstance(card, Battery):
        charge = (
            term("volts", "voltage", card.volts, "V"),
            term("hours", "charge", card.amp_hours, "Ah"),
            term("usable", "usable", card.usable, "share"),
        )
        yield figure("card.energy", "usable energy", card.volts * card.amp_hours * card.usable, "Wh", ENERGY, *charge)


def steps_figures(card: AxisCard) -> Iterator[Figure]:
    """Steps per unit, and the way of one step."""
    drive, steps = card.drive, steps_per_unit(card)
    if steps is None or not isinstance(drive, STEPPERS):
        return
    shared = [
        term("full", "full steps a turn", drive.full_steps, ""),
        term("micro", "microsteps", drive.microsteps, ""),
        term("correction", "correction, from measuring", drive.correction, ""),
    ]
    if isinstance(drive, Belt):
        rule, more = (
            steppers.BELT,
            [term("pitch", "belt pitch", drive.pitch_mm, "mm"), term("teeth", "teeth", drive.teeth, "")],
        )
    elif isinstance(drive, Screw):
        rule, more = steppers.SCREW, [term("lead", "lead of the screw", drive.lead_mm, "mm")]
    else:
        rule, more = steppers.GEAR, [term("ratio", "gear ratio", drive.ratio, "")]
    yield figure("card.steps", "steps per unit", steps, f"steps/{card.unit}", rule, *shared, *more)
    one = term("steps", "steps per unit", steps, f"steps/{card.unit}")
    yield figure("card.resolution", "one step", 1 / steps, card.unit, steppers.RESOLUTION, one)


def _axis(card: AxisCard) -> Iterator[Figure]:
    drive = card.drive
    if card.motion == "linear" and card.length_mm:
        usable = card.length_mm - card.carriage_mm - 2 * card.end_margin_mm
        rail, carriage = (
            term("rail", "rail", card.length_mm, "mm"),
            term("carriage", "carriage", card.carriage_mm, "mm"),
        )
        margin = term("margin", "margin at each end", card.end_margin_mm, "mm")
        yield figure("card.usable", "usable travel", usable, "mm", USABLE, rail, carriage, margin)
        if isinstance(drive, Belt):
            length = 2 * card.length_mm + drive.pitch_mm * drive.teeth - card.carriage_mm + 80
            teeth = (
                term("pitch", "belt pitch", drive.pitch_mm, "mm"),
                term("teeth", "teeth of a pulley", drive.teeth, ""),
            )
            yield figure("card.belt", "belt to buy, about", length, "mm", BELT, rail, carriage, *teeth)
    if isinstance(drive, Clockwork):
        rate, run = (
            term("rate", "rate", drive.rate_deg_min, "deg/min"),
            term("run", "longest run", drive.longest_run_s, "s"),
        )
        sweep = drive.rate_deg_min * drive.longest_run_s / 60
        yield figure("card.sweep", "turns at most", sweep, "deg", SWEEP, rate, run)
    if isinstance(drive, Rated):
        for number, key in enumerate(drive.keys):
            base = term("base", f"base rate of key {key.name}", key.base_deg_min, "deg/min")
            fastest = term("setting", "highest setting", drive.high_setting, "")
            rate_at_most = key.base_deg_min * drive.high_setting
            yield figure(
                f"card.rate.{number}", f"key {key.name} at most", rate_at_most, "deg/min", RATED, base, fastest
            )
