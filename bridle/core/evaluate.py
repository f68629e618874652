"""The one pure function: a plan in, everything about it out."""

from bridle.core.asks.holdable import only_holdable
from bridle.core.chapters.answer import Answer
from bridle.core.chapters.beat import chapter as beat
from bridle.core.chapters.clip import chapter as clip
from bridle.core.chapters.light import chapter as light
from bridle.core.chapters.move import chapter as move
from bridle.core.chapters.printing import chapter as printing
from bridle.core.chapters.printing.state import PrintingState
from bridle.core.chapters.review import chapter as review
from bridle.core.chapters.review.state import ReviewState
from bridle.core.chapters.rig import chapter as rig
from bridle.core.chapters.rig.state import RigState
from bridle.core.chapters.season import chapter as season
from bridle.core.chapters.season.state import SeasonState
from bridle.core.chapters.trigger import chapter as trigger
from bridle.core.chapters.trigger.state import TriggerState
from bridle.core.evaluation import Evaluation
from bridle.core.given import NOTHING, Given
from bridle.core.lists import origins
from bridle.core.plan.document import Plan
from bridle.core.reckon.folded import standing
from bridle.core.reckon.frames.windows import thinned
from bridle.core.reckon.reckoning import Reckoning, reckon
from bridle.core.snag import worst
from bridle.core.subjects.numbers.thinning import SOME

KINDS = (
    *clip.KINDS, *move.KINDS, *beat.KINDS, *rig.KINDS, *trigger.KINDS, *light.KINDS, *printing.KINDS, *season.KINDS,
)  # fmt: skip
# What is not asked again while something is dragged, and stays as it was told last.
_ASIDE = {
    kind.code
    for kinds in (beat.ASIDE, rig.ASIDE, trigger.KINDS, light.KINDS, printing.KINDS, season.KINDS, move.ASIDE)
    for kind in kinds
}
_TOLD = {kind.chapter for kind in KINDS if kind.code not in _ASIDE}
# While an edge of a window is dragged no more frames than this are drawn.
MOST_DRAGGED = 20_000
# By its code; and by its chapter with a stroke behind it where none of that chapter is asked again.
ASIDE = tuple(
    sorted({kind.code if kind.chapter in _TOLD else f"{kind.chapter}/" for kind in KINDS if kind.code in _ASIDE})
)


def evaluate(
    plan: Plan, points: int = SOME, aside: bool = True, lit: bool = False, given: Given = NOTHING
) -> Evaluation:
    """Everything about a shoot, its moves drawn through about so many points; for a drag without what stands aside.

    What is not in the plan is `given`: the moment at which it is asked. Where the light is what is dragged (`lit`) its
    drawing is whole all the same. Never raises on a well-formed plan.
    """
    return gather(reckon(plan), points, aside, lit, given)


def dragged_windows(plan: Plan, points: int) -> Evaluation:
    """A drag of work windows: what they come to, exactly; of very many frames the rest is drawn from fewer.

    Frames and interval of the evaluation are those of what is drawn; the sentence and the calendar are the plan's own.
    """
    known = reckon(plan)
    count = known.shooting.frames if known.shooting else 0
    drawn = evaluate(thinned(known.plan, -(-count // MOST_DRAGGED)) if count > MOST_DRAGGED else plan, points, False)
    clips, seasons = clip.tell(known), season.windows_alone(known)
    exact = {figure.key: figure for figure in (*clips.figures, *seasons.figures)}
    return drawn.model_copy(
        update={"clip": clips.state, "season": seasons.state, "figures": {**drawn.figures, **exact}}
    )


def gather(
    known: Reckoning, points: int = SOME, aside: bool = True, lit: bool = False, given: Given = NOTHING
) -> Evaluation:
    """What the chapters make of the numbers."""
    clips, moves, beats = clip.tell(known), move.tell(known, points, aside), beat.tell(known, aside)
    rigs = rig.tell(known) if aside else Answer(RigState(), [], [])
    triggers = trigger.tell(known) if aside else Answer(TriggerState(), [], [])
    prints = printing.tell(known, given) if aside else Answer(PrintingState(), [], [])
    seasons = season.tell(known) if aside else Answer(SeasonState(), [], [])
    lights = light.tell(known, points, aside, aside or lit)
    answers = (clips, moves, beats, rigs, triggers, prints, seasons, lights)
    figures = {figure.key: figure for answer in answers for figure in answer.figures}
    found = (snag for answer in answers for snag in answer.snags)
    snags = worst([*only_holdable(known.plan, found)])
    runs = seasons.state.telling.menus if seasons.state.telling else ()
    told = [(run.said, [(entry.name, entry.value) for entry in run.entries]) for run in runs]
    reviews = (
        review.tell(known, figures, rigs.state.drives, told, snags, given) if aside else Answer(ReviewState(), [], [])
    )
    shooting = known.shooting
    # Built from typed values: checking the arrays once more would cost an eighth of the time.
    return Evaluation.model_construct(
        frames=shooting.frames if shooting else None,
        interval_s=float(shooting.solution.interval) if shooting else None,
        clip=clips.state,
        beat=beats.state.beat,
        beats=beats.state.each,
        schools=beats.state.schools,
        stalls_at=beats.state.stalls_at,
        rig=rigs.state.standing,
        standing=standing(known),
        programmed=rigs.state.programmed,
        marked=rigs.state.marked,
        drives=rigs.state.drives,
        letters=rigs.state.letters,
        ways=rigs.state.ways,
        lacks=rigs.state.lacks,
        level=rigs.state.level,
        traces=moves.state.traces,
        view=moves.state.view,
        light=lights.state,
        trigger=triggers.state,
        printing=prints.state,
        season=seasons.state,
        review=reviews.state,
        origins=origins.answer(known.plan) if aside else {},
        figures=figures,
        snags=tuple(snags),
    )
