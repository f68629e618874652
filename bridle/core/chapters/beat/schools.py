"""Shoot-move-shoot and continuous side by side: what each needs, what each blurs."""

from dataclasses import dataclass

from bridle.core.asks.exposing import bracket_said, exposing
from bridle.core.asks.trying import with_light
from bridle.core.chapters.beat.figures import against, needed
from bridle.core.chapters.beat.smear import smear as smear_of
from bridle.core.chapters.beat.state import SchoolState
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.beat import BeatSchool
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.marks import Mark
from bridle.core.reckon.asked import cannot_stop
from bridle.core.reckon.cycles import Cycle
from bridle.core.reckon.reckoning import Shooting
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.light import shutter
from bridle.core.subjects.time.sentence import Solution

SCHOOLS: tuple[BeatSchool, ...] = ("shoot-move-shoot", "continuous")
SMEARS = SnagKind(
    "smear-visible",
    "mind",
    "clip",
    "Moving on while the shutter is open smears the picture by {smear}.",
    "Below half a pixel nobody sees it, up to two it looks soft, above it is plain to see.",
    short="smear: {smear}",
)
UNKNOWN = SnagKind(
    "smear-unknown",
    "note",
    "clip",
    "How far the picture smears while the shutter is open is not known: nothing near is on the drawing.",
    "The carriage goes on while each frame is exposed. What stands near smears by much, the horizon not at all.",
)
KINDS = (SMEARS, UNKNOWN)
# As many marks as a plan holds; and how far off one is put that nobody has measured.
MOST_MARKS, SUPPOSED_MM = 40, 3000.0
INVISIBLE_PX, VISIBLE_PX = 0.5, 2.0

ON_SITE = Formula("frames * shortest", "as many frames at the shortest interval that fits")

SUITS = {
    "shoot-move-shoot": "Right for long exposures, night, close-ups and heavy lenses: nothing moves while the "
    "shutter is open. Each frame waits for the rig to stand still.",
    "continuous": "Right for short exposures and simple drives that cannot stop: no settling, a shorter interval, "
    "and a little smear along the move in every frame.",
}


@dataclass(frozen=True)
class Compared:
    """Both schools in their order, with the figures that tell them apart, and a smear that is seen."""

    schools: tuple[SchoolState, ...]
    figures: list[Figure]
    snags: list[Snag]


def compared(shooting: Shooting) -> Compared:
    """Each school as it would come out."""
    plan = shooting.plan
    smeared = smear_of(shooting)
    states, made = [], [*smeared.figures]
    for name in SCHOOLS:
        beat = plan.beat.model_copy(update={"school": name})
        cycle = shooting.cycle if name == plan.beat.school else shooting.tried(beat=beat).cycle
        prefix = f"school.{name}"
        shortest = next(found for found in against(cycle, prefix) if found.key == f"{prefix}.shortest")
        made += [needed(cycle, prefix), shortest, _on_site(cycle, shooting.solution, prefix)]
        px = smeared.px if name == "continuous" else 0.0
        here, risk = name == plan.beat.school, _risk(name, px, cycle)
        states.append(SchoolState(school=name, here=here, suits=SUITS[name], smear_px=px, risk=risk))
    return Compared(tuple(states), made, [*_visible(shooting, smeared.px), *_unknown(plan, smeared.px)])


def _on_site(one: Cycle, solution: Solution, prefix: str) -> Figure:
    terms = (
        term("frames", "frames", solution.frames, "frames"),
        term("shortest", "shortest interval that fits", one.shortest_s, "s"),
    )
    return figure(f"{prefix}.on_site", "on site at the least", solution.frames * one.shortest_s, "s", ON_SITE, *terms)


def _risk(school: str, px: float | None, one: Cycle) -> str:
    if school == "shoot-move-shoot":
        if not one.move_s:
            return "none: nothing moves"
        return "a rig that still shakes" if one.settle_s < 0.3 else "none, once the rig has settled"
    if px is None:
        return "not known until something near is on the drawing"
    if px < INVISIBLE_PX:
        return "invisible"
    return "soft" if px <= VISIBLE_PX else "plain to see"


def _unknown(plan: Plan, smear: float | None) -> list[Snag]:
    """A carriage that goes on past something, and nobody has said how near it is."""
    if not plan.beat.continuous or smear is not None or len(plan.move.marks) >= MOST_MARKS:
        return []
    middle = sum(key.slide_mm for key in plan.move.keyframes) / len(plan.move.keyframes)
    mark = Mark(name="the nearest thing", form="post", x_mm=round(middle), y_mm=SUPPOSED_MM)
    marks = [each.model_dump(mode="json") for each in (*plan.move.marks, mark)]
    fix = Fix(
        label="Put a mark {away} off the rail",
        consequence="A guess: put it where the nearest thing of the picture really is, and the smear is told for it.",
        slots={"away": slot(SUPPOSED_MM, "mm")},
        edits=(Edit(path="move.marks", value=marks),),
    )
    return [UNKNOWN.at("move.marks", {}, [fix])]


def _visible(shooting: Shooting, smear: float | None) -> list[Snag]:
    plan = shooting.plan
    if not plan.beat.continuous or smear is None or smear <= VISIBLE_PX:
        return []
    stop = Fix(
        label="Shoot, move, shoot",
        consequence="Nothing moves while the shutter is open; each frame needs the time to settle.",
        slots={},
        edits=(Edit(path="beat.school", value="shoot-move-shoot"),),
    )
    fixes = [*([] if cannot_stop(shooting) else [stop]), *_expose_shorter(shooting, smear)]
    return [SMEARS.at("beat.school", {"smear": slot(smear, "px")}, fixes)]


def _expose_shorter(shooting: Shooting, smear: float) -> list[Fix]:
    """An exposure that smears less; or a limit for those that follow the light."""
    plan = shooting.plan
    if shooting.followed is not None:
        return _limit_shorter(shooting, smear)
    exposure = float(plan.beat.exposure_s)
    label = shutter.at_most(exposure * VISIBLE_PX / smear)
    if label is None:
        return []
    stops = shutter.stops_between(exposure, float(label))
    return [
        Fix(
            label="Expose {shorter}",
            consequence="{darker} darker, and soft at most: open the aperture or raise ISO by as much."
            + bracket_said(plan.beat),
            slots={"shorter": slot(label, "shutter"), "darker": slot(round(stops, 1), "stops")},
            edits=tuple(exposing(plan.beat, label)),
        )
    ]


def _limit_shorter(shooting: Shooting, smear: float) -> list[Fix]:
    """No frame longer than what smears visibly, whatever the light: then ISO has to make up for it."""
    if "shutter" not in shooting.plan.light.order:
        return []
    limit = shutter.at_most(float(shooting.shuttered.exposed_s.max()) * VISIBLE_PX / smear)
    if limit is None or limit < shooting.plan.light.shutter_short_s:
        return []
    tried = with_light(shooting, shutter_long_s=limit)
    px = smear_of(tried).px
    if px is None or px > VISIBLE_PX:
        return []
    return [
        Fix(
            label="Expose up to {shorter} and no longer",
            consequence="Soft at most. ISO goes up sooner, and the limits of the ramp run out earlier.",
            slots={"shorter": slot(limit, "shutter")},
            edits=(Edit(path="light.shutter_long_s", value=str(limit)),),
        )
    ]
