"""The sun over the shoot: where it stands, whether it gets into the picture, whose shadow falls into it."""

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass
from datetime import timedelta
from typing import TypeVar

import numpy as np
from numpy.typing import NDArray

from bridle.core.chapters.inview import in_picture, runs_of
from bridle.core.chapters.path import key_path
from bridle.core.chapters.sighting import normal_deg
from bridle.core.chapters.timeline import TimelineAnswer
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.kit import Support
from bridle.core.plan.rounds import Stations
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects import projecting, sky
from bridle.core.subjects.easing import Floats
from bridle.core.subjects.projecting import Poses

SUN = SnagKind(
    "sun-in-picture",
    "mind",
    "move",
    "The sun stands in the picture from frame {first} ({clock}) to frame {last}.",
    "It burns out, it flares, and through a long lens it can hurt the shutter and the eye at the finder. A choice, if "
    "it is one.",
)
FLARE = SnagKind(
    "sun-flares",
    "note",
    "move",
    "The sun stands just outside the picture from frame {first} ({clock}) to frame {last}.",
    "It shines into the lens and veils the shadows, and the veil comes and goes. A hood, a hand, a flag.",
)
SHADOW = SnagKind(
    "own-shadow",
    "note",
    "move",
    "The shadow of the camera falls into the picture from frame {first} ({clock}) to frame {last}.",
    "The sun is low behind it. Whoever stands beside the rig throws one too.",
)
RIG = SnagKind(
    "rig-in-picture",
    "mind",
    "move",
    "The rig itself comes into the picture from frame {first} to frame {last}: {part}.",
    "Turned far along the rail, or tilted far down, a wide lens sees its own rail and the tripod's feet.",
)
KINDS = (SUN, FLARE, SHADOW, RIG)
T = TypeVar("T")
AZIMUTH = Formula("azimuth", "the almanac, for this place and minute; true, without refraction")
UP_DEG = -0.833
LOW_SHADOW_DEG = 3.0
NEAR_SHARE = 0.25
# How far the rail lies below the lens.
BELOW_MM = 120.0


@dataclass(frozen=True)
class Sun:
    """Bearing from north and true altitude of the sun at each frame, in degrees."""

    azimuth: Floats
    altitude: Floats


def sun(plan: Plan, times: TimelineAnswer) -> Sun | None:
    """The sun over the frames; None where the place on earth is not known."""
    return _sun_at(plan, times.start.timestamp() + times.starts_s())


def _sun_at(plan: Plan, at: Floats) -> Sun | None:
    place = plan.shoot.place
    if place.latitude_deg is None or place.longitude_deg is None:
        return None
    return Sun(*sky.sun(place.latitude_deg, place.longitude_deg, at))


def answer(plan: Plan, at: Poses, times: TimelineAnswer, told: Sun | None) -> Iterator[Figure | Snag]:
    """Figures of the sun, and snags of what gets into the picture."""
    if isinstance(plan.move.visits, Stations):
        return
    if told is not None:
        yield from _figures(told, times)
        if plan.rig.normal_bearing_deg is not None:
            yield from _seen(plan, at, times, told)
    yield from _rig(plan, at)


def _figures(told: Sun, times: TimelineAnswer) -> Iterator[Figure]:
    for key, index, said in (("first", 0, "first"), ("last", -1, "last")):
        for name, values in (("azimuth", told.azimuth % 360), ("altitude", told.altitude)):
            value = float(values[index])
            rule = Formula(name, AZIMUTH.source)
            yield figure(
                f"sun.{name}.{key}",
                f"sun's {name} at the {said} frame",
                value,
                "deg",
                rule,
                term(name, name, value, "deg"),
            )


def mask(name: str, plan: Plan, at: Poses, told: Sun) -> NDArray[np.bool_]:
    """At which frames the sun is in the picture, just outside it (flare), or throws the camera's shadow into it."""
    from_normal = told.azimuth - normal_deg(plan)
    if name == "shadow":
        low = told.altitude > LOW_SHADOW_DEG
        if not low.any():
            return low
        return in_picture(plan, at, projecting.see_far(at, from_normal + 180, -told.altitude)) & low
    up = told.altitude > UP_DEG
    if not up.any():
        return up
    seen = projecting.see_far(at, from_normal, told.altitude)
    inside = in_picture(plan, at, seen) & up
    return inside if name == "sun" else in_picture(plan, at, seen, NEAR_SHARE) & up & ~inside


def _seen(plan: Plan, at: Poses, times: TimelineAnswer, told: Sun) -> Iterator[Snag]:
    in_sight = False
    for kind, name in ((SUN, "sun"), (FLARE, "flare"), (SHADOW, "shadow")):
        # Flare says nothing new where the sun itself comes in.
        if name == "flare" and in_sight:
            continue
        found = mask(name, plan, at, told)
        if not found.any():
            continue
        in_sight |= name == "sun"
        runs = runs_of(found)
        first, last = runs[0]
        slots = {
            "first": slot(str(first + 1)),
            "last": slot(str(last + 1)),
            "clock": slot(times.clock(first).timestamp(), "instant"),
        }
        search = Search(name, plan, at, times, told, some_frames(len(at), runs))
        yield kind.at("shoot.clock.at", slots, [*_at_another_time(search), *_tilted(search), *_turned(search)])


MOST_FRAMES = 300
MOST_LOOKS = 3


def some_frames(frames: int, runs: tuple[tuple[int, int], ...]) -> NDArray[np.int64]:
    """Frames on which a fix is tried first: some hundred, evenly spread, and the ends of where it is needed."""
    if frames <= MOST_FRAMES:
        return np.arange(frames)
    even = np.linspace(0, frames - 1, MOST_FRAMES).astype(np.int64)
    return np.unique(np.concatenate([even, np.array(runs, dtype=np.int64).ravel()]))


@dataclass(frozen=True)
class Search:
    """A search for what keeps the sun away: tried on some frames, and on all of them before it is offered."""

    name: str
    plan: Plan
    at: Poses
    times: TimelineAnswer
    told: Sun
    some: NDArray[np.int64]

    def first(self, tries: Iterable[T], helps: Callable[[T, Poses, Sun | None], bool]) -> T | None:
        """The first that helps. Few are looked at in full: what fails there a few times is given up."""
        few = self.at.some(self.some)
        sun_few = Sun(self.told.azimuth[self.some], self.told.altitude[self.some])
        looks = 0
        for one in tries:
            if not helps(one, few, sun_few):
                continue
            if len(self.some) == len(self.at) or helps(one, self.at, self.told):
                return one
            looks += 1
            if looks == MOST_LOOKS:
                return None
        return None


QUARTER_S, QUARTERS, DAY_S = 900, 48, 86_400


def _at_another_time(search: Search) -> list[Fix]:
    """The nearest quarter of an hour by which the shoot can be moved so that this does not happen; in a day's shoot."""
    plan, times = search.plan, search.times
    if float(times.elapsed_s(times.frames)) > DAY_S:
        return []
    starts = times.start.timestamp() + times.starts_s()

    def away(shift: int, at: Poses, _: Sun | None) -> bool:
        when = starts if len(at) == times.frames else starts[search.some]
        told = _sun_at(plan, when + shift * QUARTER_S)
        return told is not None and not mask(search.name, plan, at, told).any()

    shift = search.first(sorted(range(-QUARTERS, QUARTERS + 1), key=abs)[1:], away)
    if shift is None:
        return []
    by = timedelta(seconds=shift * QUARTER_S)
    slots = {
        "by": slot(abs(shift) * QUARTER_S, "s"),
        "way": slot("later" if shift > 0 else "earlier"),
        "start": slot((times.start + by).timestamp(), "instant"),
    }
    return [
        Fix(
            label="Shoot {by} {way}",
            consequence="The first frame is taken at {start}; light and tide are others then.",
            slots=slots,
            edits=(Edit(path="shoot.clock.at", value=(plan.shoot.clock.at + by).isoformat()),),
        )
    ]


def _tilted(search: Search) -> list[Fix]:
    """The camera tilted by the fewest degrees that help."""
    plan, tilt = search.plan, search.plan.rig.axis("tilt")
    if tilt is not None and plan.move.follow is not None and plan.move.follow.every_frame:
        return []
    tilts = [key.tilt_deg for key in plan.move.keyframes]
    low, high = (tilt.low, tilt.high) if tilt else (-90, 90)
    tries = [by for by in range(-30, 31) if by and low <= min(tilts) + by and max(tilts) + by <= high]

    def away(by: int, at: Poses, told: Sun | None) -> bool:
        assert told is not None
        return not mask(search.name, plan, _tilted_by(at, by), told).any()

    by = search.first(sorted(tries, key=abs), away)
    if by is None:
        return []
    edits = tuple(Edit(path=key_path(plan, n, "tilt"), value=value + by) for n, value in enumerate(tilts))
    slots = {"way": slot("up" if by > 0 else "down"), "by": slot(abs(by), "deg")}
    said = "The horizon moves in the picture; what is followed keeps its place across."
    return [Fix(label="Tilt {way} by {by}", consequence=said, slots=slots, edits=edits)]


def _tilted_by(at: Poses, by: float) -> Poses:
    return Poses(at.x, at.z, at.pan, at.tilt + by, at.roll, at.focal)


def _turned(search: Search) -> list[Fix]:
    """The rail put down in another direction: the nearest ten degrees that help."""
    plan, bearing = search.plan, normal_deg(search.plan)

    def away(turn: int, at: Poses, told: Sun | None) -> bool:
        assert told is not None
        rig = plan.rig.model_copy(update={"normal_bearing_deg": (bearing + turn) % 360})
        return not mask(search.name, plan.model_copy(update={"rig": rig}), at, told).any()

    turn = search.first(sorted((10 * n for n in range(-17, 19) if n), key=abs), away)
    if turn is None:
        return []
    new = (bearing + turn) % 360
    return [
        Fix(
            label="Turn the rail to face {bearing}",
            consequence="What has a place on the drawing turns with it, bearings stay: it is another picture.",
            slots={"bearing": slot(new, "deg")},
            edits=(Edit(path="rig.normal_bearing_deg", value=new),),
        )
    ]


def rig_points(plan: Plan) -> list[tuple[str, float, float, float]]:
    """Points of the rig that may get into the picture: what they are, and where, from the lens at the rail's zero."""
    points: list[tuple[str, float, float, float]] = []
    slide, height = plan.rig.axis("slide"), plan.rig.standing.lens_height_mm
    if slide is not None:
        points += [
            ("the end of the rail", slide.low - 60, 0.0, -BELOW_MM),
            ("the end of the rail", slide.high + 60, 0.0, -BELOW_MM),
        ]
    base = next((copy.card for copy in plan.kit.copies if isinstance(copy.card, Support)), None)
    if base is not None and base.form == "tripod" and base.feet_radius_mm > 0:
        middle = (
            (slide.low + (slide.high - slide.low) * plan.rig.standing.rail_at) if slide else plan.move.start.slide_mm
        )
        radius = base.feet_radius_mm
        for turn in range(0, 360, 30):
            x, y = middle + radius * np.sin(np.radians(turn)), radius * np.cos(np.radians(turn))
            points.append(("a foot of the tripod", float(x), float(y), -height))
    return points


def _rig(plan: Plan, at: Poses) -> Iterator[Snag]:
    for part in ("the end of the rail", "a foot of the tripod"):
        found = _rig_mask(plan, at, part)
        if found.any():
            runs = runs_of(found)
            first, last = runs[0]
            slots = {"first": slot(str(first + 1)), "last": slot(str(last + 1)), "part": slot(part)}
            yield RIG.at("move.keyframes", slots, _look_up(plan, at, runs))
            return


def _rig_mask(plan: Plan, at: Poses, part: str) -> np.ndarray:
    points = np.array([place for name, *place in rig_points(plan) if name == part])
    if not len(points):
        return np.zeros(len(at), dtype=bool)
    x, y, z = (points[:, [column]] for column in range(3))
    return np.asarray(in_picture(plan, at, projecting.see(at, x, y, z)).any(axis=0))


def _look_up(plan: Plan, at: Poses, needed: tuple[tuple[int, int], ...]) -> list[Fix]:
    """The camera tilted up until the rig is out of the picture."""
    tilt = next((axis for axis in plan.rig.axes if axis.name == "tilt"), None)
    if plan.move.follow is not None and plan.move.follow.every_frame and tilt is not None:
        return []
    parts = {name for name, *_ in rig_points(plan)}
    few = at.some(some_frames(len(at), needed))

    def clear(poses: Poses, up: int) -> bool:
        return not any(_rig_mask(plan, _tilted_by(poses, up), part).any() for part in parts)

    for up in range(1, 61):
        if not clear(few, up) or not clear(at, up):
            continue
        tilts = [key.tilt_deg + up for key in plan.move.keyframes]
        if max(tilts) > (tilt.high if tilt else 90) or max(tilts) > 90:
            return []
        edits = tuple(Edit(path=key_path(plan, n, "tilt"), value=value) for n, value in enumerate(tilts))
        return [
            Fix(
                label="Tilt up by {up}",
                consequence="The whole picture looks higher; the horizon sinks in it.",
                slots={"up": slot(up, "deg")},
                edits=edits,
            )
        ]
    return []
