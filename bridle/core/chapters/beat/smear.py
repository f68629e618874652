"""How far the picture smears while the shutter is open, at the fastest moment of the move."""

from collections.abc import Iterator
from dataclasses import dataclass

from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.beat import Beat
from bridle.core.reckon.passing import CENTRE, EDGES, Place
from bridle.core.reckon.picture import focal_ends, kept, scale
from bridle.core.reckon.reckoning import Shooting
from bridle.core.subjects.numbers.rounding import first_peak
from bridle.core.subjects.optics import lens, shifts

LONGEST = Formula("exposure * 2**(step * (count - 1) / 2)", "the longest exposure of the bracket")
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
    open_s, rooms = longest_exposure_s(shooting.plan.beat), shooting.timeline.rooms_s[:-1]
    worst, middle = first_peak(shift.px / rooms), first_peak(shift.centre / rooms)
    places = [
        ("beat.smear", worst, shift.place(worst)),
        ("beat.smear.edge", worst, shift.place(worst, EDGES)),
        ("beat.smear.centre", middle, shift.place(middle, (CENTRE,))),
    ]
    made = [_smeared(key, step, place, open_s, float(rooms[step])) for key, step, place in places if place.parts]
    return Smear(made[0].value if made else 0.0, [*shared, *made])


def longest_exposure_s(beat: Beat) -> float:
    """The longest exposure of the bracket."""
    return float(beat.exposure_s) * 2 ** (beat.bracket_step_stops * (beat.bracket_frames - 1) / 2)


def _shared(shooting: Shooting) -> Iterator[Figure]:
    """The longest exposure, and the scale of the picture."""
    beat, frame = shooting.plan.beat, kept(shooting.plan)
    count = term("count", "exposures in a bracket", beat.bracket_frames, "")
    between = term("step", "from one to the next", beat.bracket_step_stops, "stops")
    middle = term("exposure", "exposure", beat.exposure_s, "shutter")
    open_s = longest_exposure_s(beat)
    yield figure("beat.longest_exposure", "longest exposure", open_s, "shutter", LONGEST, middle, between, count)
    shortest, longest = focal_ends(shooting.plan)
    said = "focal length" if shortest == longest else "focal length, at its longest"
    terms = (
        term("focal", said, longest, "focal"),
        term("width", "picture, across", frame.width_px, "px"),
        term("sensor", "sensor, across", frame.width_mm, "focal"),
    )
    yield figure("view.px_per_deg", "pixels per degree", scale(shooting.plan), "px/°", lens.PX_PER_DEG, *terms)


def _smeared(key: str, step: int, place: Place, open_s: float, slot_s: float) -> Figure:
    rule = Formula(f"{shifts.expression(place.parts)} * exposure / slot", SMEAR)
    shutter = term("exposure", "longest exposure", open_s, "shutter"), term("slot", "its slot", slot_s, "s")
    label = f"smear at frame {step + 1}, {place.name}"
    return figure(key, label, place.px * open_s / slot_s, "px", rule, *shifts.terms(place.parts), *shutter)
