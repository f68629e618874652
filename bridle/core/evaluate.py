"""The one pure function: a plan in, everything about it out."""

from dataclasses import dataclass, fields
from typing import Any

from bridle.core.asks.holdable import only_holdable
from bridle.core.chapters.answer import Answer
from bridle.core.chapters.beat import chapter as beat
from bridle.core.chapters.beat.state import BeatState
from bridle.core.chapters.clip import chapter as clip
from bridle.core.chapters.clip.state import ClipState
from bridle.core.chapters.light import chapter as light
from bridle.core.chapters.light.state import LightState
from bridle.core.chapters.move import chapter as move
from bridle.core.chapters.move.state import MoveState
from bridle.core.chapters.printing import chapter as printing
from bridle.core.chapters.printing.state import PrintingState
from bridle.core.chapters.review.cautions import cautions
from bridle.core.chapters.review.readiness import readiness
from bridle.core.chapters.review.sheets import sheets
from bridle.core.chapters.review.state import Readiness, ReviewState, SettingSheet
from bridle.core.chapters.rig import chapter as rig
from bridle.core.chapters.rig.state import RigState
from bridle.core.chapters.season import chapter as season
from bridle.core.chapters.season.state import SeasonState
from bridle.core.chapters.trigger import chapter as trigger
from bridle.core.chapters.trigger.state import TriggerState
from bridle.core.evaluation import Evaluation
from bridle.core.figure import Figure
from bridle.core.given import NOTHING, Given
from bridle.core.knowing import Run
from bridle.core.lists import origins
from bridle.core.plan.document import Plan
from bridle.core.reckon.folded import standing
from bridle.core.reckon.frames.windows import thinned
from bridle.core.reckon.reckoning import Reckoning, Shooting, reckon
from bridle.core.snag import Snag, worst
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
    return evaluate_after(None, plan, points, aside, lit, given)[0]


def evaluate_after(
    before: Run | None,
    plan: Plan,
    points: int = SOME,
    aside: bool = True,
    lit: bool = False,
    given: Given = NOTHING,
) -> tuple[Evaluation, Run]:
    """The same, and its run: what has not changed since the run before it is taken over from that."""
    known = reckon(plan, given, before)
    evaluation = gather(known, points, aside, lit)
    return evaluation, known.reader.run.ended()


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


@dataclass(frozen=True)
class _Answers:
    """What the chapters make of the numbers, before anybody has read it."""

    clip: Answer[ClipState]
    move: Answer[MoveState]
    beat: Answer[BeatState]
    rig: Answer[RigState]
    trigger: Answer[TriggerState]
    printing: Answer[PrintingState]
    season: Answer[SeasonState]
    light: Answer[LightState]

    @property
    def all(self) -> tuple[Answer[Any], ...]:
        """All of them, in the order in which they are told."""
        return tuple(getattr(self, field.name) for field in fields(self))

    @property
    def figures(self) -> dict[str, Figure]:
        """Their figures by key."""
        return {figure.key: figure for answer in self.all for figure in answer.figures}


def _answers(known: Reckoning, points: int, aside: bool, lit: bool) -> _Answers:
    return _Answers(
        clip=clip.tell(known),
        move=move.tell(known, points, aside),
        beat=beat.tell(known, aside),
        rig=rig.tell(known) if aside else Answer(RigState(), [], []),
        trigger=trigger.tell(known) if aside else Answer(TriggerState(), [], []),
        printing=printing.tell(known) if aside else Answer(PrintingState(), [], []),
        season=season.tell(known) if aside else Answer(SeasonState(), [], []),
        light=light.tell(known, points, aside, aside or lit),
    )


def _snags(known: Reckoning, *asked: Any) -> tuple[Snag, ...]:
    """The snags of all chapters, the worst first, with fixes that a plan can hold."""
    found = (snag for answer in known.ask(_answers, *asked).all for snag in answer.snags)
    return tuple(worst([*only_holdable(known.plan, found)]))


def _review(known: Reckoning, *asked: Any) -> ReviewState:
    """The last chapter, which reads what the others have told."""
    return ReviewState(
        sheets=known.ask(_sheets, *asked), cautions=known.ask(_cautions), ready=known.ask(_ready, *asked)
    )


def _ready(known: Reckoning, *asked: Any) -> Readiness:
    return readiness(known, known.ask(_snags, *asked))


def _cautions(known: Reckoning) -> tuple[str, ...]:
    return cautions(known.plan)


def _sheets(known: Reckoning, *asked: Any) -> tuple[SettingSheet, ...]:
    answers = known.ask(_answers, *asked)
    runs = answers.season.state.telling.menus if answers.season.state.telling else ()
    told = [(run.said, [(entry.name, entry.value) for entry in run.entries]) for run in runs]
    return sheets(known, answers.figures, answers.rig.state.drives, told)


def _frames(shooting: Shooting) -> tuple[int, float]:
    return shooting.frames, float(shooting.solution.interval)


def _origins(known: Reckoning) -> dict[str, origins.Origin]:
    return origins.answer(known.plan)


def gather(known: Reckoning, points: int = SOME, aside: bool = True, lit: bool = False) -> Evaluation:
    """What the chapters make of the numbers."""
    asked = points, aside, lit
    answers = known.ask(_answers, *asked)
    rigs, beats, moves = answers.rig.state, answers.beat.state, answers.move.state
    frames, interval_s = known.shooting.ask(_frames) if known.shooting else (None, None)
    # Built from typed values: checking the arrays once more would cost an eighth of the time.
    return Evaluation.model_construct(
        frames=frames,
        interval_s=interval_s,
        clip=answers.clip.state,
        beat=beats.beat,
        beats=beats.each,
        schools=beats.schools,
        stalls_at=beats.stalls_at,
        rig=rigs.standing,
        standing=known.ask(standing),
        programmed=rigs.programmed,
        marked=rigs.marked,
        drives=rigs.drives,
        letters=rigs.letters,
        ways=rigs.ways,
        lacks=rigs.lacks,
        level=rigs.level,
        traces=moves.traces,
        view=moves.view,
        light=answers.light.state,
        trigger=answers.trigger.state,
        printing=answers.printing.state,
        season=answers.season.state,
        review=known.ask(_review, *asked) if aside else ReviewState(),
        origins=known.ask(_origins) if aside else {},
        figures=answers.figures,
        snags=known.ask(_snags, *asked),
    )
