"""A new plan with sound defaults, from the three questions that are asked and the kind of shoot it is to be."""

import re
from datetime import datetime
from fractions import Fraction
from typing import Any, NamedTuple

from bridle.core.plan.clip import Clip, Peg
from bridle.core.plan.document import Plan
from bridle.core.plan.light import Light, LightSchool
from bridle.core.plan.move import Keyframe, Move
from bridle.core.plan.rig import Rig
from bridle.core.plan.season import Season, Visiting
from bridle.core.plan.shoot import USUAL_ERRANDS, Clock, Errand, Place, Shoot, ShootKind

MIN_S, HOUR_S, DAY_S = 60, 3600, 86_400
WALK, LOOK = (
    Errand(name="walk there", length_s=Fraction(20 * MIN_S)),
    Errand(name="test exposure and focus", length_s=Fraction(5 * MIN_S)),
)
RATE = 25
# A camera on a site is looked after every so many days.
LOOK_DAYS = 14


class Beginning(NamedTuple):
    """What a kind of shoot begins with: the interval, how long it goes on or how many frames, errands, clip, and
    how it is exposed."""

    interval_s: Fraction
    shoot_s: int = 0
    frames: int = 0
    errands: tuple[Errand, ...] = USUAL_ERRANDS
    clip: dict[str, Any] = {}  # noqa: RUF012  # never changed
    light: LightSchool = "locked"


def errands(*named: tuple[str, int]) -> tuple[Errand, ...]:
    """Errands by their names, in minutes."""
    return tuple(Errand(name=name, length_s=Fraction(minutes * MIN_S)) for name, minutes in named)


# Starting points, long enough to cut with and short enough to be changed at once.
BEGINNINGS: dict[ShootKind, Beginning] = {
    # A quarter of a minute of clip in an hour: clouds, people, a tide.
    "slide": Beginning(Fraction(10), shoot_s=HOUR_S),
    "turn": Beginning(
        Fraction(5), shoot_s=HOUR_S // 2,
        errands=(WALK, *errands(("level it, and turn it once by hand", 10)), LOOK),
    ),
    # From daylight to the end of twilight, with room for exposures of some seconds.
    "night": Beginning(
        Fraction(20), shoot_s=3 * HOUR_S,
        errands=(WALK, *errands(("build the rig and level it", 20), ("rehearse the move, back to its start", 10)),
                 LOOK, *errands(("warm the lens against dew, light for the way back", 5))),
        light="ramped",
    ),
    # A plant moves about its own length in some days.
    "grow": Beginning(
        Fraction(10 * MIN_S), shoot_s=7 * DAY_S,
        errands=errands(("clamp it all down, nothing that can be knocked", 30), ("lamps, mains and timer tried", 15),
                        ("test exposure and focus", 10)),
    ),
    # Half a year, a frame every half hour: six minutes of clip to choose from.
    "site": Beginning(
        Fraction(30 * MIN_S), shoot_s=26 * 7 * DAY_S,
        errands=errands(("permission, and the way up", 30), ("mount the box, tether it", 60),
                        ("aim, lock, take the reference frame", 20)),
        light="automatic",
    ),
    # A frame when a layer is done: called by the print, and not by the clock.
    "print": Beginning(
        Fraction(MIN_S), frames=300, clip={"called_by": "event", "event_spread": Fraction(1, 4)},
        errands=errands(("clean the bed, load filament", 10), ("aim, focus on the first layers", 10)),
    ),
    # Filmed, and sped up afterwards: half an hour twenty times faster.
    "video": Beginning(Fraction(20, RATE), shoot_s=HOUR_S // 2, clip={"school": "video"}, errands=(WALK, LOOK)),
}  # fmt: skip
# What is filmed where somebody lives: nobody walks there.
AT_HOME = ("dough", "loaf", "bread", "kitchen", "table top", "window sill")
# Nothing moves until a part is put on that does; then a second of clip to get going, and one to stop.
DEFAULT_MOVE = Move(keyframes=(Keyframe(), Keyframe()), ease_in_frames=25, ease_out_frames=25)


def new_plan(name: str, subject: str, place: str, zone: str, start: datetime, kind: ShootKind = "slide") -> Plan:
    """The plan of a new shoot; raises pydantic's ValidationError on a bad answer."""
    begun = BEGINNINGS[kind]
    length = ("frames", begun.frames) if begun.frames else ("shoot", begun.shoot_s)
    held = (("rate", RATE), length, ("interval", begun.interval_s))
    pegs = tuple(Peg.model_validate({"quantity": quantity, "value": Fraction(value)}) for quantity, value in held)
    at_home = any(re.search(rf"\b{word}s?\b", subject.lower()) for word in AT_HOME)
    clock = Clock(at=start, errands=tuple(one for one in begun.errands if not (at_home and one == WALK)))
    return Plan(
        shoot=Shoot(name=name, subject=subject, kind=kind, place=Place(name=place, zone=zone), clock=clock),
        clip=Clip.model_validate({"pegs": pegs, **begun.clip}),
        light=Light(school=begun.light),
        move=DEFAULT_MOVE,
        rig=Rig(axes=()),
        season=Season(visiting=Visiting(may_lose_days=LOOK_DAYS if kind == "site" else None)),
    )
