"""One beat: what has to fit inside an interval, in either school, and whether the camera keeps up."""

from collections.abc import Iterator

from bridle.core.chapters.answer import Answer
from bridle.core.chapters.beat import bracketing, overruns, schools, stacking, storing, unknown, untied
from bridle.core.chapters.beat.figures import figures
from bridle.core.chapters.beat.ring import parts_of
from bridle.core.chapters.beat.state import BeatDrawn, BeatOf, BeatState
from bridle.core.figure import Figure
from bridle.core.reckon.cycles import Cycle, tightest_of_each
from bridle.core.reckon.picture import longest_lens
from bridle.core.reckon.reckoning import Reckoning, Shooting
from bridle.core.reckon.wiring import presses

# Of more exposures than a dial has marks no ring could tell anything.
MOST_RINGS = 80
# What is not asked again while something is dragged.
ASIDE = (*schools.KINDS, *storing.KINDS, *untied.KINDS, *unknown.KINDS)
FAMILIES = (overruns, bracketing, stacking)
KINDS = (*overruns.KINDS, *bracketing.KINDS, *stacking.KINDS, *ASIDE)


def tell(known: Reckoning, aside: bool) -> Answer[BeatState]:
    """The beat; nothing while the clip is open."""
    shooting = known.shooting
    if shooting is None:
        return Answer(BeatState(), [], [])
    made = shooting.every(_figures)
    found = [snag for family in FAMILIES for snag in shooting.every(family.snags)]
    if not aside:
        return Answer(BeatState(beat=shooting.ask(_drawn)), [*made], found)
    both, stored = shooting.ask(schools.compared), shooting.ask(storing.stored)
    state = BeatState(
        beat=shooting.ask(_drawn), each=shooting.every(_each), schools=both.schools, stalls_at=stored.stalls_at
    )
    figured = [*made, *both.figures, *stored.figures, *shooting.every(untied.figures)]
    found += [*both.snags, *stored.snags, *shooting.every(untied.snags), *shooting.every(unknown.snags)]
    return Answer(state, figured, found)


def _figures(shooting: Shooting) -> list[Figure]:
    return figures(shooting.cycle, longest_lens(shooting.plan))


def _drawn(shooting: Shooting) -> BeatDrawn:
    return _beat(shooting.cycle, presses(shooting.plan))


def _each(shooting: Shooting) -> Iterator[BeatOf]:
    """What the ring shows at each exposure, where that follows the light."""
    if shooting.followed is None or len(shooting.shuttered.kinds) > MOST_RINGS:
        return
    plan, pressed = shooting.plan, presses(shooting.plan)
    for cycle in tightest_of_each(plan, plan.beat, shooting.timeline, shooting.steps, shooting.shuttered):
        yield BeatOf(exposure_s=float(cycle.beat.exposure_s), beat=_beat(cycle, pressed))


def _beat(cycle: Cycle, pressed: bool) -> BeatDrawn:
    return BeatDrawn(
        interval_s=float(cycle.interval_s),
        frame=cycle.frame,
        need_s=cycle.need_s,
        over_s=cycle.over_s,
        character="staccato" if cycle.staccato else "flowing",
        stepped=cycle.positions > 0,
        parts=parts_of(cycle, pressed),
    )
