"""When each mark is in the picture."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from bridle.core.plan.document import Plan
from bridle.core.plan.marks import Mark
from bridle.core.plan.rounds import Station, Stations
from bridle.core.reckon.framings import offsets, visits_a_cycle
from bridle.core.reckon.picture import kept
from bridle.core.reckon.poses import see_mark
from bridle.core.reckon.timeline import Timeline
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.optics.projecting import Poses, Seen

MOST_RUNS = 24


@dataclass(frozen=True)
class Sight:
    """A mark's frames in the picture, as runs of first and last (0-based), with their clock times."""

    index: int
    name: str
    cue: bool
    runs: tuple[tuple[int, ...], ...]
    clocks: tuple[tuple[float, ...], ...]


def runs_of(mask: np.ndarray, most: int | None = MOST_RUNS) -> tuple[tuple[int, int], ...]:
    """First and last index of each run of true values, of so many at most."""
    if not mask.any():
        return ()
    edges = np.flatnonzero(np.diff(np.concatenate(([0], mask.astype(np.int8), [0]))))
    pairs = edges.reshape(-1, 2)
    return tuple((int(first), int(last) - 1) for first, last in pairs[:most])


def in_picture(plan: Plan, at: Poses, seen: Seen, margin: float = 0.0) -> np.ndarray:
    """At which frames a point lies in the kept picture, or within a margin around it (in shares of the width)."""
    frame = kept(plan)
    half_w, half_h = frame.width_mm * (0.5 + margin), frame.height_mm / 2 + frame.width_mm * margin
    # Against its distance rather than divided by it: behind the lens there is nothing to divide.
    wide, high = half_w / at.lens, half_h / at.lens
    inside = (np.abs(seen.right) <= wide * seen.ahead) & (np.abs(seen.up) <= high * seen.ahead)
    return inside & seen.in_front


@dataclass(frozen=True)
class Seeing:
    """A mark as it is seen: whether it lies in the picture at each frame, and how far ahead of the lens, in mm.

    Of a round with several places it lies in the picture where any of its pictures has it.
    """

    inside: NDArray[np.bool_]
    ahead: Floats


def seeing(plan: Plan, at: Poses) -> tuple[Seeing, ...]:
    """How each mark is seen."""
    places = visited(plan, at)
    return tuple(_seeing(plan, mark, places) for mark in plan.move.marks)


def _seeing(plan: Plan, mark: Mark, places: list[Poses]) -> Seeing:
    """From every place of a round; the distance is that of the nearest of those that see it."""
    inside, ahead = None, None
    for at in places:
        seen = see_mark(plan, at, mark)
        here = in_picture(plan, at, seen)
        away = np.where(here, seen.ahead, np.inf) if len(places) > 1 else seen.ahead
        inside = here if inside is None else inside | here
        ahead = away if ahead is None else np.minimum(ahead, away)
    assert inside is not None and ahead is not None
    return Seeing(inside, ahead)


def visited(plan: Plan, at: Poses) -> list[Poses]:
    """The poses of each place of a round; those of the move alone where there is none."""
    visits = plan.move.visits
    if isinstance(visits, Stations):
        return [_standing(plan, at, station) for station in visits.stations]
    aside = offsets(plan)
    slope = np.radians(plan.rig.standing.slope_deg)
    places = []
    for number in range(visits_a_cycle(plan)):
        along = aside["slide"][number] if "slide" in aside else 0.0
        pan = aside["pan"][number] if "pan" in aside else 0.0
        moved = along or pan
        x, z = at.x + along * np.cos(slope), at.z + along * np.sin(slope)
        places.append(replace(at, x=x, z=z, pan=at.pan + pan) if moved else at)
    return places


def _standing(plan: Plan, at: Poses, station: Station) -> Poses:
    each, slope = np.ones_like(at.x), np.radians(plan.rig.standing.slope_deg)
    along = station.slide_mm if plan.rig.axis("slide") else 0.0
    x, z = (along * way(slope) * each for way in (np.cos, np.sin))
    return replace(at, x=x, z=z, pan=station.pan_deg * each, tilt=station.tilt_deg * each)


def sights(plan: Plan, seen: Sequence[Seeing], times: Timeline) -> tuple[Sight, ...]:
    """Every mark's time in the picture."""
    marks = enumerate(plan.move.marks)
    return tuple(_sight(number, mark, each, times) for (number, mark), each in zip(marks, seen, strict=True))


def _sight(number: int, mark: Mark, seen: Seeing, times: Timeline) -> Sight:
    runs = runs_of(seen.inside)
    clocks = tuple((times.unix_s(first), times.unix_s(last)) for first, last in runs)
    return Sight(number, mark.name, mark.cue or mark.form == "person", runs, clocks)
