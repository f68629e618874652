"""What a kit card tells beyond what was typed on it: steps, usable travel, belt length, sweep, reserve."""

import math
from collections.abc import Iterator

from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.kit import AnyCard, AxisCard, Body, Lens, Phone, StorageCard
from bridle.core.plan.wired import Battery
from bridle.core.subjects.motion.drives.belt import Belt
from bridle.core.subjects.optics import lens

USABLE = Formula("rail - carriage - 2 * margin", "the carriage clears pulleys, screws and motor over all of it")
BELT = Formula(
    "2 * rail + pitch * teeth - carriage + 80",
    "equal pulleys a rail apart, less the gap at the carriage, and 40 mm held in each clamp",
)
PIXEL = Formula("sensor / width * 1000", "the sensor's width shared among its pixels, in micrometres")
FRAMES = Formula("floor(size * 1000 / 30)", "with raw files of 30 MB")
ENERGY = Formula("volts * hours * usable", "volts times ampere hours, as much of it as may be used")


def card_figures(card: AnyCard) -> list[Figure]:
    """The figures that follow from a card."""
    return list(_figures(card))


def _figures(card: AnyCard) -> Iterator[Figure]:
    if isinstance(card, AxisCard):
        yield from _rail(card)
        yield from card.drive.card_figures(card.unit)
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


def _rail(card: AxisCard) -> Iterator[Figure]:
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
