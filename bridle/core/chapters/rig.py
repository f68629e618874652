"""The rig as a whole: what it is put together from, whether it holds, and how it is drawn."""

from dataclasses import dataclass, field

from bridle.core.chapters import rig_joints, rig_loads, rig_power
from bridle.core.chapters.rig_joints import thread_name
from bridle.core.chapters.rig_stack import Placed, Stack, stack
from bridle.core.figure import Figure
from bridle.core.plan.document import Plan
from bridle.core.plan.kit import Joined, Support
from bridle.core.snag import Snag

KINDS = (*rig_joints.KINDS, *rig_loads.KINDS, *rig_power.KINDS)


@dataclass(frozen=True)
class RigPart:
    """A part as drawn, in mm from the first support and the ground; `joint` says how it sits on what is below."""

    index: int
    key: str
    name: str
    kind: str
    form: str
    x_mm: float
    y_mm: float
    width_mm: float
    height_mm: float
    mass_g: float
    rides: bool
    joint: str
    bad: bool
    weakest: bool


@dataclass(frozen=True)
class RigAnswer:
    """The drawing's parts from the ground up, where the carriage stands, and what holds them."""

    parts: tuple[RigPart, ...]
    carriage_mm: tuple[float, float]
    ends_mm: tuple[float, float]
    centre_mm: tuple[tuple[float, float], ...]
    tips_mm: tuple[float | None, float | None]
    hold_mm: tuple[float, float]
    slope_deg: float
    figures: list[Figure] = field(default_factory=list)
    snags: list[Snag] = field(default_factory=list)


def answer(plan: Plan) -> RigAnswer | None:
    """The rig; None while the plan has no parts that join."""
    put = stack(plan)
    if not put.parts and not put.supports:
        return None
    snags = [*rig_joints.snags(plan, put), *rig_loads.snags(plan, put), *rig_power.snags(plan)]
    figures = [*rig_joints.figures(plan, put), *rig_loads.figures(plan, put), *rig_power.figures(plan)]
    carriages = rig_loads.carriages(plan, put)
    return RigAnswer(
        parts=_parts(plan, put, snags),
        carriage_mm=carriages,
        ends_mm=put.ends_mm,
        centre_mm=tuple((put.centre(x).x_mm, put.centre(x).y_mm) for x in put.ends_mm),
        tips_mm=rig_loads.tip_slide(plan, put),
        hold_mm=rig_loads.hold(put),
        slope_deg=plan.rig.standing.slope_deg,
        figures=figures,
        snags=snags,
    )


def _parts(plan: Plan, put: Stack, snags: list[Snag]) -> tuple[RigPart, ...]:
    weak = rig_joints.weakest(plan, put)
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
