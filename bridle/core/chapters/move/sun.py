"""The sun in the picture, beside it, and behind the camera."""

import itertools
from collections.abc import Iterator
from datetime import timedelta

from bridle.core.asks.tying import untied, untied_said
from bridle.core.chapters.move.rig_in_view import in_view, rig_points
from bridle.core.chapters.move.search import Search, some_frames, tilted_by
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.core.plan.rounds import Stations
from bridle.core.quantity import listed
from bridle.core.reckon.path import key_path
from bridle.core.reckon.poses import normal_deg
from bridle.core.reckon.reckoning import Shooting, shooting_of
from bridle.core.reckon.sights import runs_of
from bridle.core.reckon.sky import Sun, mask, sun_at
from bridle.core.reckon.timeline import Timeline
from bridle.core.snag import Fix, Snag, SnagKind, at_clock, slot
from bridle.core.subjects.optics.projecting import Poses

SUN = SnagKind(
    "sun-in-picture",
    "mind",
    "move",
    "The sun stands in the picture from frame {first} ({clock}) to frame {last}{again}.",
    "It burns out, it flares, and through a long lens it can hurt the shutter and the eye at the finder. A choice, if "
    "it is one.",
)
FLARE = SnagKind(
    "sun-flares",
    "note",
    "move",
    "The sun stands just outside the picture from frame {first} ({clock}) to frame {last}{again}.",
    "It shines into the lens and veils the shadows, and the veil comes and goes. A hood, a hand, a flag.",
)
SHADOW = SnagKind(
    "own-shadow",
    "note",
    "move",
    "The shadow of the camera falls into the picture from frame {first} ({clock}) to frame {last}{again}.",
    "The sun is low behind it. Whoever stands beside the rig throws one too.",
)
KINDS = (SUN, FLARE, SHADOW)
# What the sun does to a picture, the worst first.
BY_RANK = ("sun", "flare", "shadow")
AZIMUTH = Formula("azimuth", "the almanac, for this place and minute; true, without refraction")


def findings(shooting: Shooting) -> Iterator[Figure | Snag]:
    """Figures of the sun, and snags of what it does to the picture."""
    sun = shooting.sun
    if sun is None or isinstance(shooting.plan.move.visits, Stations):
        return
    yield from _figures(sun)
    if shooting.plan.rig.normal_bearing_deg is not None:
        yield from _seen(shooting, sun)


def _figures(sun: Sun) -> Iterator[Figure]:
    for key, index, said in (("first", 0, "first"), ("last", -1, "last")):
        for name, values in (("azimuth", sun.azimuth % 360), ("altitude", sun.altitude)):
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


def _seen(shooting: Shooting, sun: Sun) -> Iterator[Snag]:
    plan, at, times = shooting.plan, shooting.poses, shooting.timeline
    seen = {name: mask(name, plan, at, sun) for name in BY_RANK}
    absent = tuple(name for name in BY_RANK if not seen[name].any())
    rig_seen = bool(in_view(plan, at, rig_points(plan)).any())
    for kind, name in zip((SUN, FLARE, SHADOW), BY_RANK, strict=True):
        # Flare says nothing new where the sun itself comes in.
        if name in absent or (name == "flare" and "sun" not in absent):
            continue
        found = seen[name]
        runs = runs_of(found, most=None)
        first, last = runs[0]
        slots = {
            "first": slot(str(first + 1)),
            "last": slot(str(last + 1)),
            "clock": at_clock(times.unix_s(first), times.start, times.zone),
            "again": slot(_again(times, runs)),
        }
        spared = (name, *(worse for worse in BY_RANK[: BY_RANK.index(name)] if worse in absent))
        search = Search(spared, rig_seen, plan, at, times, sun, some_frames(len(at), runs))
        fixes = [*_at_another_time(search), *_tilted(search), *_turned(search)]
        yield kind.at("shoot.clock.at", slots, [fix for fix in fixes if _helps(search, fix)])


def _again(times: Timeline, runs: tuple[tuple[int, int], ...]) -> str:
    """The later stretches: each, or where they come again every day how often and until when."""
    rest = runs[1:]
    if not rest:
        return ""
    if len(rest) <= FEW_STRETCHES:
        return "; again in frames " + listed([f"{first + 1} to {last + 1}" for first, last in rest])
    days = [times.clock(first).date() for first, _ in runs]
    daily = all((later - day).days == 1 for day, later in itertools.pairwise(days))
    until = f"{days[-1]:%-d %B}" if days[-1].year == days[0].year else f"{days[-1]:%-d %B %Y}"
    often = f"every day until {until}, {len(runs)} times in all" if daily else f"{len(rest)} times"
    first, last = rest[-1]
    return f"; again {often}, the last in frames {first + 1} to {last + 1}"


# So many later stretches are told one by one.
FEW_STRETCHES = 2


def _spares(search: Search, plan: Plan, at: Poses, sun: Sun) -> bool:
    """Whether the picture is rid of it, and neither of what is worse nor of the rig if it was rid of them before."""
    if any(mask(name, plan, at, sun).any() for name in search.spared):
        return False
    return search.rig_seen or not in_view(plan, at, rig_points(plan)).any()


def _helps(search: Search, fix: Fix) -> bool:
    """Whether a head that follows still keeps the sun away: it turns otherwise when the rail or its tilt does."""
    plan = search.plan
    if plan.move.follow is None or not plan.move.follow.every_frame:
        return True
    after = shooting_of(apply(plan, fix.edits)[0])
    return after is not None and after.sun is not None and _spares(search, after.plan, after.poses, after.sun)


QUARTER_S, QUARTERS, DAY_S = 900, 48, 86_400


def _at_another_time(search: Search) -> list[Fix]:
    """The nearest quarter of an hour by which the shoot can be moved so that this does not happen; in a day's shoot.

    What it is shot for stays in it: an event that falls into it now does so then. Where the sky says when it ends,
    another beginning is another length, which is not looked through here.
    """
    plan, times = search.plan, search.times
    if float(times.elapsed_s(times.frames)) > DAY_S or plan.shoot.clock.until is not None:
        return []
    low, high = times.keeping([event.at for event in plan.shoot.clock.events])
    tries = [by for by in range(-QUARTERS, QUARTERS + 1) if by and low <= by * QUARTER_S <= high]
    starts = times.start_unix_s + times.starts_s

    def away(shift: int, at: Poses, _: Sun | None) -> bool:
        when = starts if len(at) == times.frames else starts[search.some]
        sun = sun_at(plan, when + shift * QUARTER_S)
        return sun is not None and _spares(search, plan, at, sun)

    shift = search.first(sorted(tries, key=abs), away)
    if shift is None:
        return []
    by = timedelta(seconds=shift * QUARTER_S)
    slots = {
        "by": slot(abs(shift) * QUARTER_S, "s"),
        "way": slot("later" if shift > 0 else "earlier"),
        "start": at_clock((times.start + by).timestamp(), times.start, times.zone),
    }
    return [
        Fix(
            label="Shoot {by} {way}",
            consequence=f"The first frame is taken at {{start}}; light and tide are others then.{untied_said(plan)}",
            slots=slots,
            edits=(Edit(path="shoot.clock.at", value=(plan.shoot.clock.at + by).isoformat()), *untied(plan)),
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

    def away(by: int, at: Poses, sun: Sun | None) -> bool:
        assert sun is not None
        return _spares(search, plan, tilted_by(at, by), sun)

    by = search.first(sorted(tries, key=abs), away)
    if by is None:
        return []
    edits = tuple(Edit(path=key_path(plan, n, "tilt"), value=value + by) for n, value in enumerate(tilts))
    slots = {"way": slot("up" if by > 0 else "down"), "by": slot(abs(by), "deg")}
    said = "The horizon moves in the picture; what is followed keeps its place across."
    return [Fix(label="Tilt {way} by {by}", consequence=said, slots=slots, edits=edits)]


def _turned(search: Search) -> list[Fix]:
    """The rail put down in another direction: the nearest ten degrees that help."""
    plan, bearing = search.plan, normal_deg(search.plan)

    def away(turn: int, at: Poses, sun: Sun | None) -> bool:
        assert sun is not None
        rig = plan.rig.model_copy(update={"normal_bearing_deg": (bearing + turn) % 360})
        return _spares(search, plan.model_copy(update={"rig": rig}), at, sun)

    turn = search.first(sorted((10 * n for n in range(-17, 19) if n), key=abs), away)
    if turn is None:
        return []
    new = (bearing + turn) % 360
    return [
        Fix(
            label=f"Turn the {'rail' if plan.rig.axis('slide') else 'rig'} to face {{bearing}}",
            consequence="What has a place on the drawing turns with it, bearings stay: it is another picture.",
            slots={"bearing": slot(new, "deg")},
            edits=(Edit(path="rig.normal_bearing_deg", value=new),),
        )
    ]
