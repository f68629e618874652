"""The one pure function: a plan in, everything about it out."""

from dataclasses import dataclass
from fractions import Fraction
from typing import Any

import numpy as np
from numpy.typing import NDArray

from bridle.core.chapters import (
    beat,
    clip,
    crops,
    drives,
    framings,
    occasion,
    origin,
    path,
    picture,
    review,
    rig,
    schools,
    storing,
    timeline,
    timer,
    view,
)
from bridle.core.chapters.holding import holds_of
from bridle.core.chapters.words import LABELS, UNITS
from bridle.core.evaluation import (
    BeatPart,
    BeatState,
    ClipState,
    DriveState,
    Evaluation,
    OriginState,
    QuantityState,
    ReviewState,
    RigState,
    RoundingNote,
    SchoolState,
    SightState,
    Traces,
    ViewState,
)
from bridle.core.plan.clip import QUANTITIES
from bridle.core.plan.document import Plan
from bridle.core.snag import worst
from bridle.core.subjects.thinning import MOST, kept_indices

KINDS = (
    *clip.KINDS,
    *occasion.KINDS,
    *path.KINDS,
    *view.KINDS,
    *beat.KINDS,
    *schools.KINDS,
    *storing.KINDS,
    *rig.KINDS,
    *drives.KINDS,
    *timer.KINDS,
)


@dataclass(frozen=True)
class Answers:
    """What each chapter answered."""

    clip: clip.ClipAnswer
    timeline: timeline.TimelineAnswer | None
    occasion: occasion.OccasionAnswer
    path: path.PathAnswer
    view: view.ViewAnswer
    beat: beat.BeatAnswer | None
    schools: schools.SchoolsAnswer
    storing: storing.StoringAnswer
    rig: rig.RigAnswer | None
    drives: drives.DrivesAnswer
    timer: timer.TimerAnswer
    review: review.ReviewAnswer

    @property
    def telling(self) -> list[Any]:
        """The answers that carry figures."""
        parts = (
            self.clip,
            self.timeline,
            self.occasion,
            self.path,
            self.view,
            self.beat,
            self.schools,
            self.storing,
            self.rig,
            self.drives,
            self.timer,
        )
        return [part for part in parts if part is not None]


# What is not asked again while something is dragged, and stays as it was told last.
_KINDS_ASIDE = (*schools.KINDS, *storing.KINDS, *rig.KINDS, *drives.KINDS, *timer.KINDS, *view.ASIDE)
ASIDE = tuple(kind.code for kind in _KINDS_ASIDE)


def answers(plan: Plan, aside: bool = True) -> Answers:
    """Ask the chapters one after another, those that stand aside or not. Never raises on a well-formed plan."""
    clips = clip.answer(plan.clip)
    times = timeline.answer(plan, clips)
    what_for = occasion.answer(plan, clips, times)
    paths = path.answer(plan, clips)
    seen = view.answer(plan, clips, times, paths, aside)
    beats = beat.answer(plan, clips, paths)
    if not aside:
        empty = schools.SchoolsAnswer(), storing.StoringAnswer(), None, drives.DrivesAnswer(), timer.TimerAnswer()
        return Answers(clips, times, what_for, paths, seen, beats, *empty, review.ReviewAnswer())
    both = schools.answer(plan, clips, paths)
    stored = storing.answer(plan, clips, times)
    rigs, told = rig.answer(plan), drives.answer(plan, clips, paths)
    timed = timer.answer(plan, clips)
    reviewed = review.answer(plan, times, paths, seen, beats, told)
    return Answers(clips, times, what_for, paths, seen, beats, both, stored, rigs, told, timed, reviewed)


def evaluate(plan: Plan, points: int = MOST, aside: bool = True) -> Evaluation:
    """Everything about a shoot, its moves drawn through about so many points; for a drag without what stands aside."""
    told = answers(plan, aside)
    figures = {figure.key: figure for part in told.telling for figure in part.figures}
    # A timeline has nothing to complain of.
    snags = worst([snag for part in told.telling if part is not told.timeline for snag in part.snags])
    solution, kept = told.clip.solution, _kept(told, points)
    # Built from typed values, here and below: checking the arrays once more would cost an eighth of the time.
    return Evaluation.model_construct(
        frames=solution.frames if solution else None,
        interval_s=float(solution.interval) if solution else None,
        clip=_clip_state(plan, told.clip),
        beat=_beat_state(told.beat),
        schools=tuple(SchoolState.model_validate(one) for one in told.schools.schools),
        stalls_at=told.storing.stall.kept if told.storing.stall else None,
        rig=RigState.model_validate(told.rig) if told.rig else None,
        drives=tuple(DriveState.model_validate(one) for one in told.drives.drives),
        traces=_traces(kept, told),
        view=_view_state(plan, kept, told),
        review=ReviewState.model_validate(told.review),
        origins={path: OriginState.model_validate(one) for path, one in origin.answer(plan).items()} if aside else {},
        figures=figures,
        snags=tuple(snags),
    )


def _clip_state(plan: Plan, told: clip.ClipAnswer) -> ClipState:
    holds = holds_of(plan.clip)
    solved = {figure.key: figure for figure in told.figures}
    states = []
    for name in QUANTITIES:
        made = solved.get(f"clip.{name}")
        value = Fraction(made.exact) if made and made.exact else holds.get(name)
        states.append(
            QuantityState(
                quantity=name,
                label=LABELS[name],
                unit=UNITS[name],
                held=name in holds,
                value=None if value is None else float(value),
                exact=None if value is None else str(value),
                asked=float(holds[name]) if name in holds else None,
            )
        )
    state = "contradiction" if told.contradiction else "free" if told.free else "solved"
    if told.free == ("frames",) and told.figures:
        state = "too many"
    rounding = tuple(RoundingNote(quantity=r.quantity, asked=float(r.asked), got=float(r.got)) for r in told.rounding)
    return ClipState(state=state, quantities=tuple(states), missing=told.missing, rounding=rounding)


def _beat_state(told: beat.BeatAnswer | None) -> BeatState | None:
    if told is None:
        return None
    one, parts = told.cycle, tuple(BeatPart.model_validate(part) for part in told.parts)
    return BeatState(
        interval_s=float(one.interval_s), frame=one.frame, need_s=one.need_s, over_s=one.over_s, parts=parts
    )


def _kept(told: Answers, points: int) -> NDArray[np.int64] | None:
    """The frames that are drawn: of long shoots those that keep the extremes."""
    times = told.timeline
    if times is None:
        return None
    series = list(told.path.positions.values())
    if times.pace is not None:
        series.append(times.slots_s())
    return kept_indices(series or [np.arange(times.frames, dtype=np.float64)], points)


def _traces(kept: NDArray[np.int64] | None, told: Answers) -> Traces | None:
    if kept is None or told.timeline is None:
        return None
    axes = {name: _rounded(values[kept]) for name, values in told.path.positions.items()}
    elapsed = np.round(told.timeline.starts_s()[kept], 3)
    return Traces.model_construct(frames=tuple(kept.tolist()), elapsed_s=tuple(elapsed.tolist()), axes=axes)


def _rounded(values: NDArray[np.float64], digits: int = 3) -> tuple[float, ...]:
    """Rounded as finely as can be drawn; what stays the same throughout is told once."""
    rounded = np.round(values, digits)
    if (rounded == rounded[0]).all():
        return (float(rounded[0]),)
    return tuple(rounded.tolist())


def _view_state(plan: Plan, kept: NDArray[np.int64] | None, told: Answers) -> ViewState | None:
    seen, sketched, solution = told.view, told.path.schedule, told.clip.solution
    if kept is None or seen.poses is None or sketched is None or solution is None:
        return None
    frame, at = picture.kept(plan), seen.poses
    ways = {name: getattr(at, name) for name in ("x", "z", "pan", "tilt", "roll", "focal")}
    ends = {"azimuth": seen.sun.azimuth, "altitude": seen.sun.altitude} if seen.sun else {}
    sun = {name: _rounded(values[kept], 2) for name, values in ends.items()} or None
    return ViewState.model_construct(
        kept_mm=(frame.width_mm, frame.height_mm),
        delivered_px=(frame.width_px, frame.height_px),
        keyframes=tuple(sketched.frame(number) for number in range(len(sketched.arrive))),
        legs=(*(leg.first for leg in sketched.legs), sketched.span.last),
        poses={name: _rounded(values[kept]) for name, values in ways.items()},
        shift_share=_rounded(seen.shift_px[kept] / frame.width_px, 6),
        sun=sun,
        crops=_crops(crops.crop_shares(plan, solution)[kept]),
        sights=tuple(SightState.model_validate(one) for one in seen.sights),
        visits=framings.visits_a_cycle(plan),
        beside={str(name): away for name, away in framings.offsets(plan).items()},
    )


def _crops(shares: NDArray[np.float64]) -> tuple[tuple[float, ...], ...]:
    rounded = np.round(shares, 5)
    told = rounded[:1] if (rounded == rounded[:1]).all() else rounded
    return tuple(tuple(crop) for crop in told.tolist())
