"""How far the picture smears while the shutter is open, at the fastest moment of the move."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from bridle.core.chapters.beat.figures import bracket_terms
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.beat import Beat
from bridle.core.reckon.passing import CENTRE, EDGES, Place
from bridle.core.reckon.picture import focal_ends, kept, scale
from bridle.core.reckon.reckoning import Shooting
from bridle.core.subjects.numbers.rounding import first_peak
from bridle.core.subjects.optics import lens, shifts
from bridle.core.subjects.time import cycle

LONGEST = Formula("exposure * 2**(step * (count - 1) / 2)", "the longest exposure of the bracket")
HALF = Formula("exposure * 0.5 / smear", "smear grows with the exposure; below half a pixel nobody sees it")
SMEAR = "the shift from frame to frame, for the share of the slot in which the shutter is open"


@dataclass(frozen=True)
class Smear:
    """The worst smear in pixels, with its figures; None where nobody has said how near the nearest thing is."""

    px: float | None
    figures: list[Figure]


def smear(shooting: Shooting) -> Smear:
    """Of a move that goes on while the shutter is open."""
    shift, shared = shooting.shift, list(_shared(shooting))
    if not shift.known:
        return Smear(None, shared)
    if not len(shift.px):
        return Smear(0.0, shared)
    rooms = shooting.timeline.rooms_s[:-1]
    open_s = np.broadcast_to(shooting.shuttered.longest_s, shooting.frames)[:-1]
    worst, middle = first_peak(shift.px * open_s / rooms), first_peak(shift.centre * open_s / rooms)
    places = [
        ("beat.smear", worst, shift.place(worst)),
        ("beat.smear.edge", worst, shift.place(worst, EDGES)),
        ("beat.smear.centre", middle, shift.place(middle, (CENTRE,))),
    ]
    made = [
        _smeared(key, step, place, float(open_s[step]), float(rooms[step]))
        for key, step, place in places
        if place.parts
    ]
    px = made[0].value if made else 0.0
    return Smear(px, [*shared, *made, *_half(float(open_s[worst]), px)])


def _half(open_s: float, px: float) -> list[Figure]:
    """The longest exposure whose smear is half a pixel, that nobody sees; none where nothing smears."""
    if not px:
        return []
    terms = term("exposure", "longest exposure", open_s, "shutter"), term("smear", "smear at its worst", px, "px")
    longest = open_s * 0.5 / px
    return [figure("beat.smear.half", "half a pixel of smear with", longest, "shutter", HALF, *terms)]


def _shared(shooting: Shooting) -> Iterator[Figure]:
    """The longest exposure, and the scale of the picture."""
    frame = kept(shooting.plan)
    yield _longest(shooting.shuttered.beat(first_peak(shooting.shuttered.exposed_s)))
    shortest, longest = focal_ends(shooting.plan)
    said = "focal length" if shortest == longest else "focal length, at its longest"
    terms = (
        term("focal", said, longest, "focal"),
        term("width", "picture, across", frame.width_px, "px"),
        term("sensor", "sensor, across", frame.width_mm, "focal"),
    )
    yield figure("view.px_per_deg", "pixels per degree", scale(shooting.plan), "px/°", lens.PX_PER_DEG, *terms)


def _longest(beat: Beat) -> Figure:
    """The longest exposure of the bracket."""
    rule, terms = (
        LONGEST,
        [
            term("exposure", "exposure", beat.exposure_s, "shutter"),
            term("step", "from one to the next", beat.bracket_step_stops, "stops"),
            term("count", "exposures in a bracket", beat.bracket_frames, ""),
        ],
    )
    if beat.bracket_times_s:
        rule, terms = cycle.longest_formula(len(beat.bracket_times_s)), bracket_terms(beat)
    return figure("beat.longest_exposure", "longest exposure", max(beat.bracket_s), "shutter", rule, *terms)


def _smeared(key: str, step: int, place: Place, open_s: float, slot_s: float) -> Figure:
    rule = Formula(f"{shifts.expression(place.parts)} * exposure / slot", SMEAR)
    shutter = term("exposure", "longest exposure", open_s, "shutter"), term("slot", "its slot", slot_s, "s")
    label = f"smear at frame {step + 1}, {place.name}"
    return figure(key, label, place.px * open_s / slot_s, "px", rule, *shifts.terms(place.parts), *shutter)
