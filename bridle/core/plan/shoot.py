"""The shoot: what it is called, what is filmed, where, and on which clock."""

from fractions import Fraction
from typing import Annotated, Literal

from pydantic import Field

from bridle.core.plan.anchors import Anchor
from bridle.core.values import Duration, Instant, Line, Name, Section, Zone


class Place(Section):
    """Where the camera stands; latitude and longitude in degrees, north and east positive."""

    name: Line = ""
    latitude_deg: Annotated[float, Field(ge=-90, le=90, allow_inf_nan=False)] | None = None
    longitude_deg: Annotated[float, Field(ge=-180, le=180, allow_inf_nan=False)] | None = None
    zone: Zone = "UTC"


class Errand(Section):
    """Something to be done before the start, and how long it takes."""

    name: Name
    length_s: Duration


class Event(Section):
    """Something that will happen at a known time: high tide, sunset, the lid coming off.

    Where it is tied to the sky, `at` says about when: the occurrence nearest to it counts.
    """

    name: Name
    at: Instant
    tied: Anchor | None = None


# Times that fit a slider and a tripod; changed where they stand.
USUAL_ERRANDS = (
    Errand(name="walk there", length_s=Fraction(1200)),
    Errand(name="build the rig and level it", length_s=Fraction(1200)),
    Errand(name="rehearse the move, back to its start", length_s=Fraction(600)),
    Errand(name="test exposure and focus", length_s=Fraction(300)),
)


class Clock(Section):
    """What the clock holds: the first frame or the end of the last one's slot.

    Between the press and the first frame lies the start delay. Errands come before the press, in their order.

    Where it is `tied` to the sky, `at` says about when: the occurrence nearest to it counts. `until` is where the
    shoot ends: it gives the peg of the shoot's length its value.
    """

    holds: Literal["start", "finish"] = "start"
    at: Instant
    tied: Anchor | None = None
    until: Anchor | None = None
    start_delay_s: Duration = Fraction(0)
    errands: Annotated[tuple[Errand, ...], Field(max_length=20)] = USUAL_ERRANDS
    events: Annotated[tuple[Event, ...], Field(max_length=20)] = ()


# Sliding past something, turning on the spot, into the night, growing for days, on site for months, a print layer by
# layer, a film that is sped up.
ShootKind = Literal["slide", "turn", "night", "grow", "site", "print", "video"]


class Shoot(Section):
    """What every screen has in its head; its kind where somebody has said it."""

    name: Name
    subject: Line = ""
    kind: ShootKind | None = None
    place: Place = Place()
    clock: Clock
