"""How the rail leans under the carriage over the move, and what that does to the camera on it."""

from dataclasses import dataclass
from typing import Literal

import numpy as np

from bridle.core.plan.kit import AxisCard
from bridle.core.reckon.framings import framings, offsets
from bridle.core.reckon.loads import load_n, span_mm
from bridle.core.reckon.picture import kept, scale
from bridle.core.reckon.reckoning import Reckoning
from bridle.core.reckon.stack import Stack, rail_of
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.strength import beams

# The move is looked at in so many places; between two of them nothing bends that shows.
MOST_PLACES = 2000
Held = Literal["between", "beyond", "alone"]


@dataclass(frozen=True)
class Bending:
    """Degrees by which the rail falls towards its far end under the carriage, at each place looked at.

    `at_mm` is where the carriage stands there, from the first support; `pan_deg` where the camera looks, from the
    rail's normal. Across the rail its fall is a roll, along it a nod; in between it is split.
    """

    at_mm: Floats
    pan_deg: Floats
    falls_deg: Floats

    @property
    def nod_deg(self) -> Floats:
        """How far the camera looks down by it."""
        return np.asarray(self.falls_deg * np.sin(np.radians(self.pan_deg)))

    @property
    def roll_deg(self) -> Floats:
        """How far it rolls clockwise by it."""
        return np.asarray(self.falls_deg * np.cos(np.radians(self.pan_deg)))


def bending(known: Reckoning) -> Bending | None:
    """The bending over the move, from end to end; None where nobody has said what the rail is made of."""
    return known.ask(_bending)


def _bending(known: Reckoning) -> Bending | None:
    rail, put = rail_of(known.plan), known.stack
    if rail is None or rail.beam is None or not put.supports:
        return None
    slide, pan = _places(known)
    at = put.ends_mm[0] + slide - rail.low
    return Bending(at, pan, falls(put, rail, at))


def falls(put: Stack, rail: AxisCard, at_mm: Floats) -> Floats:
    """Degrees by which the rail falls towards its far end, with the carriage at each place; its shape."""
    assert rail.beam is not None
    inertia = beams.inertia_mm4(rail.beam.count, rail.beam.outer_mm, rail.beam.inner_mm)
    force, modulus, span = load_n(put), rail.beam.modulus_gpa, span_mm(put)
    if not span:
        return beams.overhang_slope_deg(force, at_mm, modulus, inertia)
    last = put.supports[-1].x_mm
    near = at_mm % span
    inside = beams.slope_deg(force, near, span - near, modulus, inertia)
    beyond = beams.beyond_slope_deg(force, np.where(at_mm <= 0, at_mm, at_mm - last), span, modulus, inertia)
    return np.where((at_mm > 0) & (at_mm < last), inside, beyond)


def held_at(put: Stack, at_mm: float) -> tuple[Held, float, float]:
    """How the rail is held where the carriage stands, and how far it is, in mm.

    Between two supports: to the one before and to the one behind. Beyond the outermost, or with one alone: how far
    out, below nought on the near side, and nought.
    """
    span, last = span_mm(put), put.supports[-1].x_mm
    if not span:
        return "alone", at_mm, 0.0
    if at_mm <= 0:
        return "beyond", at_mm, 0.0
    if at_mm >= last:
        return "beyond", at_mm - last, 0.0
    near = at_mm % span
    return "between", near, span - near


def _places(known: Reckoning) -> tuple[Floats, Floats]:
    """Slide and pan at the places that are looked at: where the drives stop; while the clip is open, on the way."""
    plan, start = known.plan, known.plan.move.start
    if known.shooting is not None:
        stops, count = known.shooting.stops, known.shooting.frames
        rows = np.unique(np.linspace(0, count - 1, min(count, MOST_PLACES)).round().astype(int))
        slide = stops["slide"][rows] if "slide" in stops else np.full((len(rows), 1), start.slide_mm)
        pan = stops["pan"][rows] if "pan" in stops else np.full((len(rows), 1), start.pan_deg)
        slide, pan = np.broadcast_arrays(slide, pan)
        return slide.ravel(), pan.ravel()
    keys, aside = framings(plan), offsets(plan)
    along = np.linspace(0, len(keys) - 1, 200)
    slide, pan = (
        np.interp(along, np.arange(len(keys)), values)
        for values in ([key.slide_mm for key in keys], [key.pan_deg for key in keys])
    )
    pairs = [(slide + x, pan + turn) for x in aside.get("slide", (0.0,)) for turn in aside.get("pan", (0.0,))]
    return np.concatenate([pair[0] for pair in pairs]), np.concatenate([pair[1] for pair in pairs])


def nod_px(known: Reckoning, bent: Bending) -> float:
    """How far the picture rises and sinks over the move, from end to end, in delivered pixels at its centre."""
    return float(np.ptp(bent.nod_deg)) * scale(known.plan)


def roll_px(known: Reckoning, bent: Bending) -> float:
    """How far it rolls over the move, from end to end, in delivered pixels at its left and right edge."""
    return float(np.tan(np.radians(np.ptp(bent.roll_deg)))) * kept(known.plan).width_px / 2
