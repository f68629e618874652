"""How many frames are lost before anybody notices, which says how often somebody has to look."""

from collections.abc import Iterator

from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.edit import Edit
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.season.hours import DAY_S
from bridle.core.snag import Fix, Snag, SnagKind, slot

UNSEEN = SnagKind(
    "nobody-looks",
    "mind",
    "season",
    "Nobody looks at a frame before the end: {frames} could be lost without anybody knowing.",
    "Leaves over the window, a lens out of focus, a camera that has stopped: all of it looks alike from below.",
)
KINDS = (UNSEEN,)
LOST = Formula("min(frames, frames * days * 86400 / shoot)", "so many days of frames, on average")
LONG_S = 14 * DAY_S
LOOK_DAYS = 14


def findings(shooting: Shooting) -> Iterator[Figure | Snag]:
    """How much is lost before somebody notices; nothing where it is looked at from afar."""
    plan, length = shooting.plan, float(shooting.timeline.end_s)
    days, place = plan.season.visiting.may_lose_days, "season.visiting.may_lose_days"
    if plan.trigger.look is not None:
        return
    if days is not None:
        lost = shooting.frames * days * DAY_S / length
        terms = (
            term("frames", "frames", shooting.frames, "frames"),
            term("days", "days between looks", days, "days"),
            term("shoot", "shoot length", length, "s"),
        )
        said = "lost before anybody notices, at most about"
        yield figure("season.unnoticed", said, min(lost, shooting.frames), "frames", LOST, *terms)
    elif length > LONG_S:
        fix = Fix(
            label="Look at the frames every two weeks",
            consequence="At a visit, or from afar: then they are looked at every day.",
            slots={},
            edits=(Edit(path=place, value=LOOK_DAYS),),
        )
        yield UNSEEN.at(place, {"frames": slot(shooting.frames, "frames")}, [fix])
