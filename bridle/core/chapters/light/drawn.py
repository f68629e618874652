"""The light as it is drawn: its fall over the clock, the flight of settings, the changes, how bright each frame is."""

import math
from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray

from bridle.core.chapters.light.schools import RISKS, SUITS
from bridle.core.chapters.light.state import (
    BandDrawn,
    Capped,
    Fall,
    Flight,
    LightState,
    ProofDrawn,
    Reached,
    SchoolDrawn,
)
from bridle.core.reckon.changes import change_lines
from bridle.core.reckon.compared import SCHOOLS, Exposed, exposed_as
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.scene import daylit, placed, scene_between
from bridle.core.reckon.series import series
from bridle.core.reckon.settings import Followed, limits_of
from bridle.core.reckon.twilight import bands
from bridle.core.subjects.light import dials
from bridle.core.subjects.numbers.thinning import kept_indices

# The curve goes on a little before the first frame and after the last one.
BESIDE = 0.06
LEAST_BESIDE_S = 900.0
# Of longer shoots neither the twilights nor the curve between the frames would be seen.
LONGEST_DRAWN_S = 8 * 86_400
EVERY_S = 240.0
FEWEST, MOST_POINTS = 60, 1200
MOST_CHANGES = 400


def drawn(shooting: Shooting, points: int, whole: bool) -> LightState:
    """The chapter's drawing; only what is missing where the light is not known."""
    if not daylit(shooting.plan):
        return LightState(missing=("daylight",))
    if placed(shooting.plan) is None:
        return LightState(missing=("place",))
    school = shooting.plan.light.school
    # While something else is dragged the picture's brightness follows, and nothing else.
    asked = SCHOOLS if whole else (school,)
    exposed = [one for one in (exposed_as(shooting, each) for each in asked) if one is not None]
    here = next(one for one in exposed if one.school == school)
    ramp = shooting.followed
    told = ramp is not None or shooting.plan.light.densities
    return LightState(
        bands=tuple(_bands(shooting)) if whole else (),
        fall=_fall(shooting) if whole else None,
        schools=tuple(_school(shooting, one, points) for one in exposed) if whole else (),
        changes=tuple(change_lines(shooting, MOST_CHANGES)) if whole and told else (),
        capped=tuple(_capped(shooting, ramp)) if ramp and whole else (),
        proofs=tuple(_proofs(shooting)),
        bright=series(here.bright, points, 3),
        leftover=series(ramp.leftover, points, 3) if ramp and whole else None,
        shutter_s=series(shooting.shuttered.exposed_s, points, 6) if ramp else None,
        reach=tuple(_reached(shooting)) if ramp else (),
    )


def reach(shooting: Shooting) -> tuple[float, float]:
    """The exposure values of the limits, without filters: brightest and darkest."""
    within = limits_of(shooting.plan)
    low = within.aperture.high - within.shutter.low - within.iso.low
    high = within.aperture.low - within.shutter.high - within.iso.high
    return low / within.a_stop, high / within.a_stop


def _reached(shooting: Shooting) -> Iterator[Reached]:
    """Where each dial follows, in the order in which they do."""
    within, ev = limits_of(shooting.plan), reach(shooting)[0]
    ranges = {"shutter": within.shutter, "iso": within.iso, "aperture": within.aperture}
    for dial in within.order:
        low, high = ranges[dial]
        darker = ev - (high - low) / within.a_stop
        yield Reached(dial=dial, from_ev=ev, to_ev=darker)
        ev = darker


def _ends(shooting: Shooting) -> tuple[float, float]:
    """Where the curve begins and ends, in seconds after the first frame: a test before it belongs to it too."""
    times = shooting.timeline
    end = float(times.end_s)
    beside = max(LEAST_BESIDE_S, BESIDE * end)
    tests = [proof.at.timestamp() - times.start_unix_s for proof in shooting.plan.light.proofs]
    near = [at for at in tests if -86_400 / 2 < at < end + 86_400 / 2]
    return min([-beside, *(at - LEAST_BESIDE_S for at in near)]), max(
        [end + beside, *(at + LEAST_BESIDE_S for at in near)]
    )


def _fall(shooting: Shooting) -> Fall | None:
    first, last = _ends(shooting)
    if last - first > LONGEST_DRAWN_S:
        return _by_frame(shooting)
    count = int(min(max((last - first) / EVERY_S, FEWEST), MOST_POINTS))
    at = np.linspace(first, last, count)
    start = shooting.timeline.start_unix_s
    scene = scene_between(shooting.plan, start + first, start + last, count)
    assert scene is not None  # asked only where the light is known
    rounded = (tuple(np.round(values, 3).tolist()) for values in (at, scene.ev, scene.wanted_ev))
    at_s, ev, wanted = rounded
    return Fall(at_s=at_s, ev=ev, wanted=wanted)


def _by_frame(shooting: Shooting) -> Fall:
    """Some of the frames, those with the extremes among them: over weeks a line would go through every night."""
    scene, starts = shooting.scene, shooting.timeline.starts_s
    assert scene is not None  # asked only where the light is known
    picked = kept_indices(scene.wanted_ev, MOST_POINTS // 2)
    rounded = (tuple(np.round(values[picked], 3).tolist()) for values in (starts, scene.ev, scene.wanted_ev))
    at_s, ev, wanted = rounded
    return Fall(at_s=at_s, ev=ev, wanted=wanted, by_frame=True)


def _bands(shooting: Shooting) -> Iterator[BandDrawn]:
    first, last = _ends(shooting)
    where, start = placed(shooting.plan), shooting.timeline.start_unix_s
    if where is None or last - first > LONGEST_DRAWN_S:
        return
    for dark, low, high in bands(*where, start + first, start + last):
        yield BandDrawn(dark=dark, from_s=round(low - start, 1), to_s=round(high - start, 1))


def _school(shooting: Shooting, one: Exposed, points: int) -> SchoolDrawn:
    return SchoolDrawn(
        school=one.school,
        here=one.school == shooting.plan.light.school,
        suits=SUITS[one.school],
        over_stops=max(0.0, float(one.off.max())),
        under_stops=max(0.0, -float(one.off.min())),
        outside=int(one.outside.sum()),
        changes=len(one.changes),
        risk=RISKS[one.school],
        measured=one.measured,
        flight=_flight(one, points),
    )


def _flight(one: Exposed, points: int) -> Flight:
    """The treads; where there are more than can be told apart, some of them."""
    at = np.concatenate(([0], np.flatnonzero(np.diff(one.set_ev)) + 1))
    if len(at) > 2 * points:
        at = at[kept_indices(one.set_ev[at], points)]
    return Flight(frames=tuple(at.tolist()), ev=tuple(np.round(one.set_ev[at], 3).tolist()))


def _capped(shooting: Shooting, ramp: Followed) -> Iterator[Capped]:
    """Where beat or stars leave less than the limit; told run by run, the shortest time of each."""
    within = ramp.limits
    beat = shooting.longest_by_beat
    tighter = ramp.longest < within.shutter.high
    by_beat = tighter & (beat == ramp.longest)
    for name, held in (("beat", by_beat), ("stars", tighter & ~by_beat)):
        for first, last in _runs(held):
            steps = int(ramp.longest[first : last + 1].min())
            yield Capped(
                first=first,
                last=last,
                by="beat" if name == "beat" else "stars",
                shutter_s=dials.true("shutter", steps, within.a_stop),
            )


def _runs(held: NDArray[np.bool_], most: int = 12) -> list[tuple[int, int]]:
    edges = np.flatnonzero(np.diff(np.concatenate(([0], held.astype(np.int8), [0]))))
    return [(int(a), int(b) - 1) for a, b in zip(edges[::2], edges[1::2], strict=True)][:most]


def _proofs(shooting: Shooting) -> Iterator[ProofDrawn]:
    scene = shooting.scene
    assert scene is not None
    for proof, tested in zip(shooting.plan.light.proofs, scene.tested, strict=True):
        at_s = proof.at.timestamp() - shooting.timeline.start_unix_s
        off = tested.off - scene.shift_stops
        if math.isfinite(tested.ev):
            yield ProofDrawn(at_s=round(at_s, 3), ev=round(tested.ev, 4), off_stops=round(off, 4))
