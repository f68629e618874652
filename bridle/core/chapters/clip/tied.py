"""Hours that the sky gives: what they come to, and what is said where they never come."""

from collections.abc import Iterator
from datetime import datetime

from bridle.core.chapters.clip.clock import at_term
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.anchors import Anchor
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.reckon.anchors import tied_of
from bridle.core.reckon.scene import placed
from bridle.core.snag import Fix, Snag, SnagKind, slot

NOWHERE = SnagKind(
    "sky-needs-a-place",
    "stop",
    "clip",
    "{what} is tied to {sky}, and nobody has said where on earth the camera stands.",
    "The sky gives an hour only for a place.",
)
NEVER = SnagKind(
    "sky-gives-no-hour",
    "stop",
    "clip",
    "{what} is tied to {sky}, and that does not come on this day at this place.",
    "In high latitudes the sun stays up, or down, for weeks, nights do not get dark, and the moon stays away for days.",
)
KINDS = (NOWHERE, NEVER)
COMES = Formula("event + offset", "the almanac, for this place and day; upper edge of sun and moon, air included")
COMES_BEFORE = Formula("event - offset", COMES.source)
UNTIL = Formula("end - start", "from the first frame to what the sky gives for the end")


def findings(plan: Plan) -> Iterator[Figure | Snag]:
    """Of everything that is tied to the sky: its hour, or that it has none."""
    for path, anchor, at in tied_of(plan):
        if at is None:
            yield _without(plan, path, anchor)
        else:
            yield _hour(path, anchor, at)


def _hour(path: str, anchor: Anchor, at: datetime) -> Figure:
    offset = float(anchor.offset_s)
    event = at_term("event", anchor.event, datetime.fromtimestamp(at.timestamp() - offset, at.tzinfo))
    rule = COMES_BEFORE if offset < 0 else COMES
    away = term("offset", "before" if offset < 0 else "after", abs(anchor.offset_s), "s")
    return figure(f"tied.{path}", anchor.words, at.timestamp(), "instant", rule, event, away)


def _without(plan: Plan, path: str, anchor: Anchor) -> Snag:
    start = path == "shoot.clock"
    if path.startswith("shoot.clock.events."):
        what, tie = plan.shoot.clock.events[int(path.rpartition(".")[2])].name, f"{path}.tied"
    else:
        what = "The start" if plan.shoot.clock.holds == "start" else "The finish"
        what, tie = (what, f"{path}.tied") if start else ("The end of the shoot", path)
    kind = NOWHERE if placed(plan) is None else NEVER
    let_go = Fix(
        label="Go by the hour",
        consequence="It stays where it is written down, whatever the sky does."
        if path != "shoot.clock.until"
        else "The shoot lasts as long as its peg says.",
        slots={},
        edits=(Edit(path=tie, value=None),),
    )
    return kind.at(tie, {"what": slot(what), "sky": slot(anchor.words)}, [let_go])
