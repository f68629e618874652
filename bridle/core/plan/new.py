"""A new plan with sound defaults, from the three questions that are asked."""

from datetime import datetime
from fractions import Fraction

from bridle.core.plan.clip import Clip, Peg
from bridle.core.plan.document import Plan
from bridle.core.plan.move import Keyframe, Move
from bridle.core.plan.rig import Rig
from bridle.core.plan.shoot import Clock, Place, Shoot

# One frame every ten seconds for an hour, played at 25 a second: a quarter of a minute of clip,
# long enough to cut with and short enough to be changed at once.
DEFAULT_PEGS = (
    Peg(quantity="rate", value=Fraction(25)),
    Peg(quantity="shoot", value=Fraction(3600)),
    Peg(quantity="interval", value=Fraction(10)),
)
# Nothing moves until a part is put on that does; then a second of clip to get going, and one to stop.
DEFAULT_MOVE = Move(keyframes=(Keyframe(), Keyframe()), ease_in_frames=25, ease_out_frames=25)


def new_plan(name: str, subject: str, place: str, zone: str, start: datetime) -> Plan:
    """The plan of a new shoot; raises pydantic's ValidationError on a bad answer."""
    return Plan(
        shoot=Shoot(name=name, subject=subject, place=Place(name=place, zone=zone), clock=Clock(at=start)),
        clip=Clip(pegs=DEFAULT_PEGS),
        move=DEFAULT_MOVE,
        rig=Rig(axes=()),
    )
