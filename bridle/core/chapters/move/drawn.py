"""The move as it is drawn: series along the frames, thinned so that their extremes stay."""

import numpy as np
from numpy.typing import NDArray

from bridle.core.chapters.move.state import MoveState, SightState, Traces, ViewState
from bridle.core.reckon.framings import offsets, visits_a_cycle
from bridle.core.reckon.picture import kept
from bridle.core.reckon.reckoning import Shooting
from bridle.core.subjects.numbers.thinning import kept_indices


def drawn(shooting: Shooting, points: int, aside: bool) -> MoveState:
    """Traces and view. While something is dragged the sights are not asked for."""
    picked = _picked(shooting, points)
    # Built from typed values, here and below: checking the arrays once more would cost an eighth of the time.
    return MoveState.model_construct(traces=_traces(shooting, picked), view=_view(shooting, picked, aside))


def _picked(shooting: Shooting, points: int) -> NDArray[np.int64]:
    """The frames that are drawn: of long shoots those that keep the extremes."""
    series = list(shooting.positions.values())
    if not shooting.timeline.even:
        series.append(shooting.timeline.rooms_s)
    return kept_indices(series or [np.arange(shooting.frames, dtype=np.float64)], points)


def _traces(shooting: Shooting, picked: NDArray[np.int64]) -> Traces:
    axes = {name: _rounded(values[picked]) for name, values in shooting.positions.items()}
    elapsed = np.round(shooting.timeline.starts_s[picked], 3)
    return Traces.model_construct(frames=tuple(picked.tolist()), elapsed_s=tuple(elapsed.tolist()), axes=axes)


def _rounded(values: NDArray[np.float64], digits: int = 3) -> tuple[float, ...]:
    """Rounded as finely as can be drawn; what stays the same throughout is told once."""
    rounded = np.round(values, digits)
    if (rounded == rounded[0]).all():
        return (float(rounded[0]),)
    return tuple(rounded.tolist())


def _view(shooting: Shooting, picked: NDArray[np.int64], aside: bool) -> ViewState:
    plan, timing, at = shooting.plan, shooting.schedule, shooting.poses
    frame = kept(plan)
    ways = {name: getattr(at, name) for name in ("x", "z", "pan", "tilt", "roll", "focal")}
    ends = {"azimuth": shooting.sun.azimuth, "altitude": shooting.sun.altitude} if shooting.sun else {}
    sun = {name: _rounded(values[picked], 2) for name, values in ends.items()} or None
    shift = np.append(shooting.shift.px, 0.0)
    sights = shooting.sights if aside else ()
    return ViewState.model_construct(
        kept_mm=(frame.width_mm, frame.height_mm),
        delivered_px=(frame.width_px, frame.height_px),
        keyframes=tuple(timing.frame(number) for number in range(len(timing.arrive))),
        legs=(*(leg.first for leg in timing.legs), timing.span.last),
        poses={name: _rounded(values[picked]) for name, values in ways.items()},
        shift_share=_rounded(shift[picked] / frame.width_px, 6),
        sun=sun,
        crops=_crops(shooting.crops[picked]),
        sights=tuple(SightState.model_validate(sight) for sight in sights),
        visits=visits_a_cycle(plan),
        beside={str(name): away for name, away in offsets(plan).items()},
    )


def _crops(shares: NDArray[np.float64]) -> tuple[tuple[float, ...], ...]:
    rounded = np.round(shares, 5)
    told = rounded[:1] if (rounded == rounded[:1]).all() else rounded
    return tuple(tuple(crop) for crop in told.tolist())
