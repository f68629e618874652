"""Whether a shoot is ready: what stops it, what could not be checked, and what was checked."""

from collections.abc import Iterator, Sequence

from bridle.core.chapters.review.state import Doubt, Readiness, Ready
from bridle.core.given import Given
from bridle.core.plan.document import Plan
from bridle.core.quantity import listed
from bridle.core.reckon.asked import asked_of
from bridle.core.reckon.parts import axis_parts, imager_of, source_copy
from bridle.core.reckon.printing import layered
from bridle.core.reckon.proved import Stands, proof_stands
from bridle.core.reckon.reckoning import Reckoning, Shooting
from bridle.core.reckon.scene import daylit, placed
from bridle.core.reckon.season.hours import is_long
from bridle.core.reckon.travel import STILL
from bridle.core.snag import Snag, slot

# Figures of a camera without which something is counted that is only usual.
OF_THE_CAMERA = {"write_s": "write time", "lag_s": "shutter lag", "wake_s": "time to wake"}
LACKS: dict[Stands, str] = {
    "incomplete": "a complete proof of it",
    "said": "a proof that was made here; the plan only says that there is one",
    "older": "a proof of it as it is now",
    "none": "a proof of it as it is now",
    "failed": "a proof of it as it is now",
}
HELD = {"holds_exposure": "exposure", "holds_white": "white balance", "holds_focus": "focus"}


def readiness(known: Reckoning, snags: Sequence[Snag]) -> Readiness:
    """The judgement over a shoot. Nothing that stops it is passed over, and nothing that is unknown."""
    shooting, stops = known.shooting, [snag for snag in snags if snag.severity == "stop"]
    count = {"count": slot(str(len(stops)))}
    if stops or shooting is None:
        title = {0: "Not ready: the clip leaves something open", 1: "Not ready: one thing stops this shoot"}
        said = title.get(len(stops), "Not ready: {count} things stop this shoot")
        return Readiness(stands="not ready", title=said, slots=count)
    times = shooting.timeline
    if shooting.ask(_past):
        end = slot(times.unix_s(times.frames - 1), "moment")
        return Readiness(stands="past", title="Past: its last frame was due {end}", slots={"end": end})
    doubts, checked = tuple(_doubts(shooting)), _checked(shooting)
    if doubts:
        title = {1: "Ready, but for one check that could not be made"}
        said = title.get(len(doubts), "Ready, but for {count} checks that could not be made")
        count = {"count": slot(str(len(doubts)))}
        return Readiness(stands="ready but", title=said, slots=count, doubts=doubts, checked=checked)
    return _ready(len(snags), checked)


def _past(shooting: Shooting) -> bool:
    """Whether its last frame is over: the moment goes on, this changes once."""
    now_s, times = shooting.given.now_s, shooting.timeline
    return now_s is not None and now_s > times.unix_s(times.frames)


def _ready(count: int, checked: str) -> Readiness:
    title = {0: "Ready: nothing stands in the way", 1: "Ready, with one thing to know"}
    stands: Ready = "ready"
    return Readiness(
        stands=stands,
        title=title.get(count, "Ready, with {count} things to know"),
        slots={"count": slot(str(count))},
        checked=checked,
    )


def _checked(shooting: Shooting) -> str:
    """What was checked of this shoot, in its own chapters."""
    plan = shooting.plan
    parts = ["the clip", "the beat"]
    if _moves(shooting):
        parts.append("the move")
    if plan.kit.copies:
        parts.append("the rig")
    if shooting.scene is not None:
        parts.append("the light")
    if source_copy(plan.kit.copies) is not None:
        parts.append("the trigger")
    if layered(plan) is not None:
        parts.append("the print")
    if is_long(plan, shooting.timeline):
        parts.append("the long run")
    return f"Checked: {listed(parts)}."


def _moves(shooting: Shooting) -> bool:
    return any((far > STILL).any() for far in shooting.steps.values())


def _doubts(shooting: Shooting) -> Iterator[Doubt]:
    """The checks that could not be made, each with the figure that is missing; what does not concern a rig is left."""
    plan = shooting.plan
    if daylit(plan) and placed(plan) is None:
        yield Doubt(what="how light it will be", lacks="where on earth the place is", chapter="light")
    if not shooting.shift.known:
        yield Doubt(what="how far the picture smears", lacks="how near the nearest thing is", chapter="move")
    if not plan.kit.copies:
        yield Doubt(what="whether the rig carries it all and fits together", lacks="which parts it is", chapter="rig")
    yield from _of_the_camera(shooting)
    yield from _of_the_drives(shooting)
    yield from _of_the_print(shooting.plan, shooting.given)


def _of_the_print(plan: Plan, given: Given) -> Iterator[Doubt]:
    """A changed file is not known to do no harm until it has passed its proof as it is now."""
    if layered(plan) is None:
        return
    if "file" not in plan.printing.by:
        yield Doubt(what="that what is printed does no harm", lacks="the file with the stops in it", chapter="print")
        return
    stands = proof_stands(plan, given)
    if stands != "proven":
        yield Doubt(what="that the changed file does no harm", lacks=LACKS[stands], chapter="print")


def _of_the_camera(shooting: Shooting) -> Iterator[Doubt]:
    camera = imager_of(shooting.plan.kit.copies)
    if camera is None:
        return
    missing = [said for field, said in OF_THE_CAMERA.items() if getattr(camera, field) is None]
    if missing:
        yield Doubt(what="whether the camera keeps up", lacks=f"its {listed(missing)}", chapter="clip")
    if shooting.plan.light.school == "automatic":
        return
    if camera.manual == "not known":
        lacks = f"whether “{camera.name}” has a manual mode"
        yield Doubt(what="that the exposure can be set as planned", lacks=lacks, chapter="light")
    untried = [said for field, said in HELD.items() if getattr(camera, field) == "not known"]
    if untried:
        lacks = f"whether “{camera.name}” holds its {listed(untried)}"
        yield Doubt(what="that no frame flickers by itself", lacks=lacks, chapter="light")


def _of_the_drives(shooting: Shooting) -> Iterator[Doubt]:
    plan, parts = shooting.plan, axis_parts(shooting.plan.kit.copies)
    for axis in plan.rig.axes:
        if plan.kit.copies and axis.name not in parts and (shooting.steps[axis.name] > STILL).any():
            yield Doubt(what=f"whether the {axis.name} can do its move", lacks="what drives it", chapter="rig")
    for asked in asked_of(shooting):
        if not asked.wanted.stands and not asked.wanted.way_known:
            lacks = f"which way the {asked.part.copy.card.name} turns"
            yield Doubt(what=f"whether the {asked.axis.name} goes the way of the move", lacks=lacks, chapter="rig")
