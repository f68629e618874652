"""What a part of the plan begins with when a person asks for it: usual values, taken from how the plan stands."""

import math
import re
from collections.abc import Callable, Iterable
from datetime import timedelta
from fractions import Fraction
from string import ascii_uppercase

from pydantic import BaseModel, JsonValue

from bridle.core.plan.beat import Stack, Uncoupled
from bridle.core.plan.clip import LONGEST_INTERVAL_S, Crossing, Trial
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, PathError, dump, look
from bridle.core.plan.frames import DaysOff, Edge, Rule, Windows
from bridle.core.plan.light import Density, Proof
from bridle.core.plan.marks import Aimed, Mark
from bridle.core.plan.move import Keyframe, Pass
from bridle.core.plan.outdoors import Schedule
from bridle.core.plan.picture import Post
from bridle.core.plan.rig import USUAL_RINGS, Lead, RingMark
from bridle.core.plan.rounds import PanoramaRow, Station, Stations, StereoPair
from bridle.core.plan.season import Aim, Obstacle
from bridle.core.plan.shoot import Errand, Event
from bridle.core.plan.trigger import Actuator, Look, Sounded
from bridle.core.reckon.anchors import anchored
from bridle.core.reckon.clip import solved
from bridle.core.reckon.reckoning import reckon
from bridle.core.reckon.timeline import first_frame, instant
from bridle.core.subjects.circuits import leads
from bridle.core.subjects.light import shutter

Begun = BaseModel | JsonValue
# A rig without a rail is drawn with so much room around it.
NO_RAIL_MM = (0.0, 900.0)
MARK_AWAY = 1.6
APART_MM = 500.0
LIVE_S = 20
LEAN_DEG = 10.0
STATIONS = 3
FEWEST_IN_BRACKET = 2
EVENT_AT = Fraction(3, 5)
# What is done before everything else stands first.
AT_THE_FRONT = "shoot.clock.errands"


def begin(plan: Plan, path: str, kind: str = "") -> list[Edit]:
    """The edits that begin what stands at a path; on a list, one more of them.

    `kind` says which of several, where there are such (`move.visits`). Raises `PathError` where nothing begins.
    """
    for pattern, make in BEGINNINGS.items():
        found = re.fullmatch(pattern, path)
        if found:
            value = _plain(make(plan, *(int(number) for number in found.groups())))
            break
    else:
        value = _plain(_round(plan, path, kind))
    standing = look(dump(plan), path)
    if not isinstance(standing, list) or isinstance(value, list):
        return [Edit(path=path, value=value)]
    return [Edit(path=path, value=[value, *standing] if path == AT_THE_FRONT else [*standing, value])]


def _plain(value: Begun | tuple[RingMark | Fraction, ...]) -> JsonValue:
    if isinstance(value, tuple):
        return [str(one) if isinstance(one, Fraction) else one.model_dump(mode="json") for one in value]
    return value.model_dump(mode="json") if isinstance(value, BaseModel) else value


def _round(plan: Plan, path: str, kind: str) -> Begun:
    """Several pictures in each cycle; the stations begin where the first keyframes stand."""
    if path != "move.visits":
        raise PathError(f"nothing begins at “{path}”")
    if kind == "stations":
        keys = plan.move.keyframes[:STATIONS]
        return Stations(stations=tuple(_station(key, n) for n, key in enumerate(keys)))
    rounds: dict[str, Begun] = {"row": PanoramaRow(), "stereo": StereoPair(), "none": None}
    if kind not in rounds:
        raise PathError(f"there is no round called “{kind}”")
    return rounds[kind]


def _station(key: Keyframe, number: int) -> Station:
    name = f"station {ascii_uppercase[number % len(ascii_uppercase)]}"
    return Station(name=name, slide_mm=key.slide_mm, pan_deg=key.pan_deg, tilt_deg=key.tilt_deg)


def _next_station(plan: Plan) -> Begun:
    round_ = plan.move.visits
    if not isinstance(round_, Stations):
        raise PathError("stations are added where each cycle goes round some")
    return _station(plan.move.start, len(round_.stations))


def _mark(plan: Plan) -> Begun:
    low, high = next(((axis.low, axis.high) for axis in plan.rig.axes if axis.name == "slide"), NO_RAIL_MM)
    name = f"mark {len(plan.move.marks) + 1}"
    return Mark(name=name, x_mm=round((low + high) / 2), y_mm=round((high - low) * MARK_AWAY))


def _aimed(plan: Plan, index: int) -> Begun:
    """To begin with, the ends of the move as they stand: what was read off the rig is typed over them."""
    if index >= len(plan.move.marks):
        raise PathError("there is no such mark")
    start, end = plan.move.start, plan.move.end
    apart = end.slide_mm if end.slide_mm != start.slide_mm else start.slide_mm + APART_MM
    return Aimed(slide_1_mm=start.slide_mm, pan_1_deg=start.pan_deg, slide_2_mm=apart, pan_2_deg=end.pan_deg)


def _ring(plan: Plan, index: int) -> tuple[RingMark, ...]:
    if index >= len(plan.rig.axes) or plan.rig.axes[index].name not in USUAL_RINGS:
        raise PathError("this axis turns no ring")
    return USUAL_RINGS[plan.rig.axes[index].name]


def _lean(plan: Plan, index: int) -> Begun:
    """With the rail where it slopes, else enough to see the arc."""
    if index >= len(plan.rig.axes) or plan.rig.axes[index].name != "pan":
        raise PathError("of the axes the pan alone can be leaned")
    return abs(plan.rig.standing.slope_deg) or LEAN_DEG


def _ohms(plan: Plan) -> Begun:
    """What copper of the lead's cross-section has."""
    area = plan.rig.lead.area_mm2 if plan.rig.lead else Lead().area_mm2
    return round(leads.drop_v(1.0, 1.0, area), 4)


def _live(plan: Plan) -> Begun:
    """As long as the clip, in whole seconds."""
    solution, _ = solved(plan)
    return str(max(1, round(solution.clip) if solution else LIVE_S))


def _event(plan: Plan) -> Begun:
    """Past the middle of the shoot, on a whole minute; at its clock time while nobody knows how long it takes."""
    plan = anchored(plan)
    solution, _ = solved(plan)
    first = first_frame(plan, solution.shoot) if solution else plan.shoot.clock.at
    into = round(solution.shoot * EVENT_AT / 60) * 60 if solution else 0
    at = instant(first, Fraction(into), plan.shoot.place.zone)
    return Event(name="what will happen", at=at.replace(second=0, microsecond=0))


def _bracket(plan: Plan) -> Begun | tuple[Fraction, ...]:
    """The bracket as it stands, by the nearest times on the dial; where it has such already, one more, two stops on."""
    own = plan.beat.bracket_times_s
    if own:
        return str(shutter.nearest(float(own[-1]) * 4))
    standing = plan.beat.bracket_s if len(plan.beat.bracket_s) > 1 else (float(plan.beat.exposure_s),) * 2
    step = 1 if len(set(standing)) > 1 else 4
    return tuple(shutter.nearest(seconds * step**number) for number, seconds in enumerate(standing))


def _proof(plan: Plan) -> Begun:
    """A test with what camera and beat have set, at the first frame: what was read off the camera is typed over it."""
    plan = anchored(plan)
    solution, _ = solved(plan)
    at = first_frame(plan, solution.shoot) if solution else plan.shoot.clock.at
    camera, exposure = plan.camera, plan.beat.exposure_s
    return Proof(at=at, shutter_s=exposure, iso=camera.iso, aperture=camera.aperture)


def _windows(plan: Plan) -> Begun:
    """Windows over the days of the shoot at the interval it has: by day on a site, around the clock elsewhere."""
    shooting = reckon(plan).shooting
    begins = shooting.timeline.start if shooting else plan.shoot.clock.at
    ends = shooting.timeline.clock(shooting.frames) if shooting else begins + timedelta(days=30)
    every = shooting.solution.interval if shooting else Fraction(900)
    rule = Rule()
    if plan.shoot.kind == "site":
        rule = Rule(weekdays=(0, 1, 2, 3, 4), opens=Edge(minutes=7 * 60), closes=Edge(minutes=17 * 60))
    return Windows(
        every_s=min(every, Fraction(LONGEST_INTERVAL_S)), rules=(rule,), first=begins.date(), last=ends.date()
    )


def _day_off(plan: Plan) -> Begun:
    """The first day, to be changed."""
    if not isinstance(plan.frames, Windows):
        raise PathError("days off are those of work windows, and nothing else calls frames by the day")
    return DaysOff(first=plan.frames.first, last=plan.frames.first)


def _dwell(plan: Plan) -> Begun:
    """Lag, exposures and half a second."""
    beat = plan.beat
    return str(Fraction(math.ceil((float(beat.heard_s) + sum(beat.bracket_s) + 0.5) * 10), 10))


BEGINNINGS: dict[str, Callable[..., Begun | tuple[RingMark, ...] | tuple[Fraction, ...]]] = {
    r"frames": _windows,
    r"frames\.rules": lambda plan: Rule(weekdays=(5,)),
    r"frames\.off": _day_off,
    r"season\.aims": lambda plan: Aim(on=anchored(plan).shoot.clock.at.date()),
    r"season\.obstacles": lambda plan: Obstacle(name="what grows", from_day=anchored(plan).shoot.clock.at.date()),
    r"kit\.copies\.(\d+)\.card\.schedule": lambda plan, number: Schedule(),
    r"clip\.crossing": lambda plan: Crossing(cross_s=Fraction(300), screen_s=Fraction(8)),
    r"clip\.trial": lambda plan: Trial(apart_s=Fraction(7200), moved_px=Fraction(140), step_px=Fraction(2)),
    r"beat\.bracket_times_s": _bracket,
    r"beat\.stack": lambda plan: Stack(near_mm=400, far_mm=800),
    r"beat\.uncoupled": lambda plan: Uncoupled(),
    r"rig\.lead\.ohm_per_m": _ohms,
    r"rig\.lead": lambda plan: Lead(),
    r"rig\.normal_bearing_deg": lambda plan: 0,
    r"rig\.axes\.(\d+)\.ring": _ring,
    r"rig\.axes\.(\d+)\.lean_deg": _lean,
    r"move\.live_s": _live,
    r"move\.post": lambda plan: Post(),
    r"move\.passes": lambda plan: Pass(name=f"pass {len(plan.move.passes) + 2}"),
    r"move\.marks": _mark,
    r"move\.marks\.(\d+)\.aimed": _aimed,
    r"move\.visits\.stations": _next_station,
    r"light\.proofs": _proof,
    r"light\.densities": lambda plan: Density(),
    r"light\.stars_px": lambda plan: 2.0,
    r"trigger\.lead": lambda plan: Sounded(wires=("red", "white", "yellow")),
    r"trigger\.pads": lambda plan: Sounded(wires=("left pad", "middle pad", "right pad")),
    r"trigger\.switch": lambda plan: Sounded(wires=("left", "middle", "right")),
    r"trigger\.look": lambda plan: Look(),
    r"trigger\.actuator": lambda plan: Actuator(),
    r"trigger\.dwell_s": _dwell,
    r"shoot\.clock\.errands": lambda plan: Errand(name="something to do", length_s=Fraction(600)),
    r"shoot\.clock\.events": _event,
}


def drop(plan: Plan, path: str) -> list[Edit]:
    """The edits that take one thing out of a list; what counts on a mark keeps counting on it, or on nothing.

    Raises `PathError` where no such thing stands.
    """
    parent, _, number = path.rpartition(".")
    standing = look(dump(plan), parent) if parent else None
    if not isinstance(standing, list) or not number.isdigit() or int(number) >= len(standing):
        raise PathError(f"there is nothing at “{path}” to take away")
    gone = int(number)
    kept: JsonValue = [one for at, one in enumerate(standing) if at != gone]
    if parent == "beat.bracket_times_s" and len(standing) == FEWEST_IN_BRACKET:
        kept = []
    follows = _follows_on(plan, gone) if parent == "move.marks" else ()
    return [*follows, Edit(path=parent, value=kept)]


def _follows_on(plan: Plan, gone: int) -> Iterable[Edit]:
    """Before the marks change their numbers: what counts on a mark has the same one, under the number that it gets."""
    follow, part = plan.move.follow, plan.printing.mark
    if follow is not None and follow.mark == gone:
        yield Edit(path="move.follow", value=None)
    elif follow is not None and follow.mark > gone:
        yield Edit(path="move.follow.mark", value=follow.mark - 1)
    if part is not None and part >= gone:
        yield Edit(path="printing.mark", value=None if part == gone else part - 1)
