"""The rig as a whole: what it is put together from, whether it holds, what its drives are told."""

from collections.abc import Iterator

from bridle.core.asks.chain import missing
from bridle.core.chapters.answer import Answer
from bridle.core.chapters.rig import drives, joints, leaning, loads, power, twice
from bridle.core.chapters.rig.joints import thread_name
from bridle.core.chapters.rig.state import RigDrawn, RigPart, RigState
from bridle.core.chapters.rig.tipping import TIPS
from bridle.core.figure import Figure
from bridle.core.plan.cards import Joined
from bridle.core.plan.document import Plan
from bridle.core.plan.kit import Support
from bridle.core.reckon.loads import carriages, hold, tip_slide, tippable
from bridle.core.reckon.parts import by_hand, programmed
from bridle.core.reckon.reckoning import Reckoning
from bridle.core.reckon.stack import Placed, Stack
from bridle.core.reckon.ways import plus_ways
from bridle.core.snag import Snag

KINDS = (*joints.KINDS, *twice.KINDS, *loads.KINDS, *power.KINDS, *leaning.KINDS, *drives.KINDS)
# While something is dragged the rig is not looked at again.
ASIDE = KINDS


def tell(known: Reckoning) -> Answer[RigState]:
    """The rig where there is one; what the drives are told where the clip is solved."""
    told = known.shooting.ask(drives.tell) if known.shooting else drives.DrivesTold()
    found = [*known.every(_figures), *told.figures]
    return Answer(known.ask(_state), found, [*known.every(_snags), *told.snags])


def _stands(known: Reckoning) -> bool:
    return bool(known.stack.parts or known.stack.supports)


def _snags(known: Reckoning) -> tuple[Snag, ...]:
    lean = known.of_plan(leaning.snags)
    if not _stands(known):
        return lean
    joined, loaded = known.every(_joined), known.every(loads.snags)
    return (*joined, *known.of_plan(twice.snags), *loaded, *known.of_plan(power.snags), *lean)


def _joined(known: Reckoning) -> Iterator[Snag]:
    return joints.snags(known.plan, known.stack)


def _figures(known: Reckoning) -> Iterator[Figure]:
    if _stands(known):
        yield from joints.figures(known.plan, known.stack)
        yield from known.every(loads.figures)
        yield from power.figures(known.plan)
    if known.shooting is not None:
        yield from known.shooting.every(leaning.figures)


def _state(known: Reckoning) -> RigState:
    plan, put = known.plan, known.stack
    drives_told = known.shooting.ask(drives.tell) if known.shooting else drives.DrivesTold()
    return RigState(
        standing=_standing(plan, put, known.every(_snags)) if _stands(known) else None,
        drives=drives_told.drives,
        programmed=tuple(axis.name for axis in programmed(plan)),
        marked=tuple(axis.name for axis in by_hand(plan)),
        letters={axis.name: axis.called for axis in plan.rig.axes},
        ways=plus_ways(plan),
        lacks=missing(plan),
        level=leaning.level(plan),
    )


def _standing(plan: Plan, put: Stack, snags: tuple[Snag, ...]) -> RigDrawn:
    return RigDrawn(
        parts=_parts(plan, put, snags),
        carriage_mm=carriages(plan, put),
        ends_mm=put.ends_mm,
        centre_mm=tuple((put.centre(x).x_mm, put.centre(x).y_mm) for x in put.ends_mm),
        tips_mm=tip_slide(plan, put),
        tips=any(snag.code == TIPS.code for snag in snags),
        hold_mm=hold(put) if tippable(put) else (),
        slope_deg=plan.rig.standing.slope_deg,
    )


def _parts(plan: Plan, put: Stack, snags: tuple[Snag, ...]) -> tuple[RigPart, ...]:
    weak = joints.weakest(plan, put)
    wrong = {
        snag.path.split(".")[2] for snag in snags if snag.path.startswith("kit.copies.") and snag.severity == "stop"
    }
    return tuple(_part(placed, weak, wrong) for placed in (*put.supports, *put.parts))


def _part(placed: Placed, weak: int | None, wrong: set[str]) -> RigPart:
    card = placed.copy.card
    assert isinstance(card, Joined)
    below = "" if isinstance(card, Support) else thread_name(card.below)
    return RigPart(
        index=placed.index,
        key=placed.copy.key,
        name=card.name,
        kind=card.kind,
        form=getattr(card, "form", getattr(card, "motion", "")),
        x_mm=placed.x_mm,
        y_mm=placed.y_mm,
        width_mm=placed.width_mm,
        height_mm=placed.height_mm,
        mass_g=placed.mass_g,
        rides=placed.rides,
        joint=below,
        bad=str(placed.index) in wrong,
        weakest=placed.index == weak,
    )
