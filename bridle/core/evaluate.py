"""The one pure function: a plan in, everything about it out."""

from dataclasses import dataclass
from fractions import Fraction

import numpy as np

from bridle.core.chapters import beat, clip, path, review, timeline
from bridle.core.chapters.holding import holds_of
from bridle.core.chapters.words import LABELS, UNITS
from bridle.core.evaluation import (
    BeatPart,
    BeatState,
    ClipState,
    Evaluation,
    QuantityState,
    ReviewState,
    RoundingNote,
    Traces,
)
from bridle.core.plan.clip import QUANTITIES
from bridle.core.plan.document import Plan
from bridle.core.snag import worst
from bridle.core.subjects.thinning import kept_indices

KINDS = (*clip.KINDS, *path.KINDS, *beat.KINDS)


@dataclass(frozen=True)
class Answers:
    """What each chapter answered."""

    clip: clip.ClipAnswer
    timeline: timeline.TimelineAnswer | None
    path: path.PathAnswer
    beat: beat.BeatAnswer | None
    review: review.ReviewAnswer


def answers(plan: Plan) -> Answers:
    """Ask the chapters one after another. Never raises on a well-formed plan."""
    clips = clip.answer(plan.clip)
    times = timeline.answer(plan.shoot, clips)
    paths = path.answer(plan.move, plan.rig, plan.camera, clips)
    beats = beat.answer(plan, clips, paths)
    return Answers(clips, times, paths, beats, review.answer(plan, times, paths, beats))


def evaluate(plan: Plan) -> Evaluation:
    """Everything about a shoot."""
    told = answers(plan)
    chapters = [part for part in (told.clip, told.timeline, told.path, told.beat) if part is not None]
    figures = {figure.key: figure for part in chapters for figure in part.figures}
    snags = worst([snag for part in (told.clip, told.path, told.beat) if part for snag in part.snags])
    solution = told.clip.solution
    return Evaluation(
        frames=solution.frames if solution else None,
        interval_s=float(solution.interval) if solution else None,
        clip=_clip_state(plan, told.clip),
        beat=_beat_state(told.beat),
        traces=_traces(told.path),
        review=ReviewState.model_validate(told.review),
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
    return BeatState(interval_s=float(one.interval_s), need_s=one.need_s, over_s=one.over_s, parts=parts)


def _traces(told: path.PathAnswer) -> Traces | None:
    if not told.positions:
        return None
    kept = kept_indices(list(told.positions.values()))
    axes = {name: tuple(np.round(values[kept], 4).tolist()) for name, values in told.positions.items()}
    return Traces(frames=tuple(kept.tolist()), axes=axes)
