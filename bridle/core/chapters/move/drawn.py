"""The move as it is drawn: series along the frames, each thinned so that its own extremes stay."""

from collections.abc import Iterator

import numpy as np

from bridle.core.chapters.move.state import BodySeen, MoveState, SkyMark, TimeMap, Traces, ViewState
from bridle.core.plan.rounds import Stations
from bridle.core.reckon.framings import offsets, visits_a_cycle
from bridle.core.reckon.picture import kept
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.series import Series, series
from bridle.core.reckon.sights import runs_of
from bridle.core.reckon.sky import UP_DEG, Sun, in_the_picture
from bridle.core.reckon.stretches import on_the_clock
from bridle.core.reckon.timeline import Timeline
from bridle.core.subjects.light import sky
from bridle.core.subjects.numbers.thinning import kept_indices

# Of an interval that changes at very many frames so many knots are told; the lines between are off by less than a slot.
MOST_KNOTS = 4000


def drawn(shooting: Shooting, points: int, aside: bool) -> MoveState:
    """Traces and view. While something is dragged the sights are not asked for."""
    axes = {name: series(values, points) for name, values in shooting.positions.items()}
    # Pan, tilt, roll and zoom stand in the pose as they do on their axes.
    known = {id(values): axes[name] for name, values in shooting.positions.items()}
    traces = Traces(map=time_map(shooting.timeline), axes=axes)
    return MoveState(traces=traces, view=_view(shooting, points, aside, known))


def _body(body: Sun | None, points: int, aside: bool) -> dict[str, Series] | None:
    if body is None:
        return None
    # Under the hand a tenth of a degree is enough.
    digits = 2 if aside else 1
    return {"azimuth": series(body.azimuth, points, digits), "altitude": series(body.altitude, points, digits)}


def _skies(shooting: Shooting, points: int) -> Iterator[SkyMark]:
    """Where the marks stand that go with the sky."""
    for number, mark in enumerate(shooting.plan.move.marks):
        found = shooting.skies.get(mark.in_the_sky)
        if found is not None:
            # Through north it goes on, so that nothing is drawn the long way round between two frames.
            azimuth = np.degrees(np.unwrap(np.radians(found[0])))
            yield SkyMark(number, series(azimuth, points, 2), series(found[1], points, 2))


def _bodies(shooting: Shooting) -> Iterator[BodySeen]:
    """Sun and moon in the picture; not told where each cycle looks several ways, or nobody knows where north is."""
    plan = shooting.plan
    if plan.rig.normal_bearing_deg is None or isinstance(plan.move.visits, Stations):
        return
    for name, body in (("sun", shooting.sun), ("moon", shooting.moon)):
        if body is None:
            continue
        inside = in_the_picture(plan, shooting.poses, body)
        words = on_the_clock(shooting.timeline, runs_of(inside, most=None))
        yield BodySeen(name="sun" if name == "sun" else "moon", frames=int(inside.sum()), words=words)


def time_map(times: Timeline) -> TimeMap:
    """The time map, finer than a millisecond."""
    frames, seconds = times.map
    if len(frames) > MOST_KNOTS:
        picked = kept_indices(seconds - np.linspace(seconds[0], seconds[-1], len(seconds)), MOST_KNOTS)
        frames, seconds = frames[picked], seconds[picked]
    return TimeMap(frames=tuple(frames.astype(int).tolist()), elapsed_s=tuple(np.round(seconds, 6).tolist()))


def _view(shooting: Shooting, points: int, aside: bool, known: dict[int, Series]) -> ViewState:
    plan, timing, at = shooting.plan, shooting.schedule, shooting.poses
    frame = kept(plan)
    looks = zip(("pan", "tilt", "roll"), at.views, strict=True)
    ways = {name: getattr(at, name) for name in ("x", "z", "focal")} | dict(looks)
    shift = np.append(shooting.shift.px, 0.0) / frame.width_px
    sights = shooting.sights if aside else ()
    return ViewState(
        kept_mm=(frame.width_mm, frame.height_mm),
        delivered_px=(frame.width_px, frame.height_px),
        keyframes=tuple(timing.frame(number) for number in range(len(timing.arrive))),
        legs=(*(leg.first for leg in timing.legs), timing.span.last),
        poses={name: known.get(id(values)) or series(values, points) for name, values in ways.items()},
        shift_share=series(shift, points, 6),
        sun=_body(shooting.sun, points, aside),
        moon=_body(shooting.moon, points, aside),
        skies=tuple(_skies(shooting, points)),
        bodies=tuple(_bodies(shooting)) if aside else (),
        sun_up_deg=UP_DEG,
        daylight_deg=sky.DAYLIGHT_DEG,
        crops=tuple(series(side, points, 5) for side in shooting.crops.T),
        sights=sights,
        visits=visits_a_cycle(plan),
        beside={str(name): away for name, away in offsets(plan).items()},
    )
