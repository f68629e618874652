"""Where the limits run out, towards the dark and towards the bright, and what it costs to go on."""

import math
from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray

from bridle.core.asks.clip_offers import at_most, clip_fix
from bridle.core.asks.dialling import exact_mark
from bridle.core.asks.pegs import changed, no_shorter
from bridle.core.asks.trying import with_light
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.kit import Lens
from bridle.core.plan.light import Density
from bridle.core.reckon.cycles import tightest
from bridle.core.reckon.exposed import exposed_for, seconds_of, shuttered
from bridle.core.reckon.parts import one_aperture
from bridle.core.reckon.picture import longest_lens
from bridle.core.reckon.reckoning import Shooting, shooting_of
from bridle.core.reckon.scene import night_share
from bridle.core.reckon.settings import Followed
from bridle.core.reckon.showing import shows
from bridle.core.snag import Fix, Snag, SnagKind, at_clock, slot
from bridle.core.subjects.light import dials
from bridle.core.subjects.light.dials import Dial

DARK = SnagKind(
    "limits-run-out",
    "mind",
    "light",
    "The limits run out at frame {first} ({clock}): from there on the picture comes out up to {by} too dark.",
    "Shutter, ISO and aperture are at the ends that you have set for them, and the light goes on falling.",
)
BRIGHT = SnagKind(
    "limits-too-bright",
    "mind",
    "light",
    "At frame {first} ({clock}) it is too bright for the limits: the picture comes out up to {by} too bright.",
    "Shutter, ISO and aperture are at the ends that you have set for them, and the light is stronger than they take.",
)
KINDS = (DARK, BRIGHT)
RUNS_OUT = Formula("frame", "the first frame whose leftover is more than half a step")
# The widest that is offered where nobody has said how wide the lens opens, and the highest ISO that is offered at all.
WIDEST_F, HIGHEST_ISO, UTMOST_ISO, DARKEST_STOPS = 1.8, 12_800, 25_600, 6.0
# Filters as they are sold.
DENSITIES = (1.0, 2.0, 3.0, 4.0, 6.0, 8.0, 10.0, 15.0)


def findings(shooting: Shooting) -> Iterator[Figure | Snag]:
    """What lies beyond the limits of a ramp."""
    followed = shooting.followed
    if followed is None or shooting.plan.light.school != "ramped":
        return
    for kind, name, beyond in ((DARK, "dark", too_dark(followed)), (BRIGHT, "bright", too_bright(followed))):
        if not beyond.any():
            continue
        first = int(beyond.argmax())
        yield figure(
            f"light.{name}.frame", f"first frame that is too {name}", first + 1, "", RUNS_OUT,
            term("frame", "of all frames, the first", first + 1, ""),
        )  # fmt: skip
        times = shooting.timeline
        slots = {
            "first": slot(str(first + 1)),
            "clock": at_clock(times.unix_s(first), times.start, times.zone),
            "by": slot(float(np.abs(followed.leftover[beyond]).max()), "stops"),
        }
        fixes = _for_the_dark(shooting, followed) if name == "dark" else _for_the_bright(shooting, followed)
        yield kind.at("light", slots, list(fixes))


def too_dark(followed: Followed) -> NDArray[np.bool_]:
    """The frames that want more light than the limits let in."""
    return np.asarray(followed.outside & (followed.leftover > 0))


def too_bright(followed: Followed) -> NDArray[np.bool_]:
    """The frames that want less light than the limits let in."""
    return np.asarray(followed.outside & (followed.leftover < 0))


def _lacking(followed: Followed, way: int) -> int:
    """How many steps are missing towards the dark (1) or the bright (−1), so that half a step is left at most."""
    a_stop = followed.settings.a_stop
    return math.ceil(float((way * followed.leftover).max()) * a_stop - 0.5 - 1e-6)


def _for_the_dark(shooting: Shooting, followed: Followed) -> Iterator[Fix]:
    yield from _end_earlier(shooting, followed)
    alone = [
        *_longer_interval(shooting, followed),
        *_longer_shutter(shooting, followed),
        *_trailing(shooting),
        *_wider(shooting, followed),
        *_more_iso(shooting, followed),
        *_darker_night(shooting, followed),
    ]
    yield from alone or _together(shooting, followed)


def _cured(tried: Shooting | None, way: int, before: Followed) -> bool:
    """Whether nothing is too dark (1) or too bright (−1) any more, and no more than before of the other."""
    if tried is None or tried.ramp is None:
        return False
    dark, bright = int(too_dark(tried.ramp).sum()), int(too_bright(tried.ramp).sum())
    if way > 0:
        return not dark and bright <= int(too_bright(before).sum())
    return not bright and dark <= int(too_dark(before).sum())


def _end_earlier(shooting: Shooting, followed: Followed) -> Iterator[Fix]:
    first = int(too_dark(followed).argmax())
    if not first:
        return
    plan, times = shooting.plan, shooting.timeline
    events = [event.at for event in plan.shoot.clock.events if times.holds(event.at)]
    if any(times.frame_at(at.timestamp() - times.start_unix_s) >= first for at in events):
        return
    # What it is shot for stays in it, and what a trial has shown to move is still seen.
    edits = at_most(plan, times.elapsed_s(first))
    after = shooting_of(changed(plan, edits)) if edits else None
    if after is not None and _cured(after, 1, followed) and shows(plan, after.solution.shoot):
        label = "End at {clock}"
        yield clip_fix(plan, label, edits, {"clock": at_clock(times.unix_s(first), times.start, times.zone)})


def _longer_interval(shooting: Shooting, followed: Followed) -> Iterator[Fix]:
    """Where the beat is what holds the shutter back, an interval that has room for the exposure that is wanted."""
    steps = int(followed.settings.shutter[too_dark(followed)].max()) + _lacking(followed, 1)
    if steps > followed.limits.shutter.high or not (shooting.longest_by_beat < steps).any():
        return
    plan, driven = shooting.plan, bool(shooting.stack_mm)
    beat = exposed_for(plan.beat, seconds_of(dials.true("shutter", steps, followed.settings.a_stop)))
    open_ = shuttered(beat, longest_lens(plan), driven, shooting.frames, None)
    shortest = tightest(plan, beat, shooting.timeline, shooting.steps, open_).shortest_s
    edits = no_shorter(plan, shortest)
    if edits and _cured(shooting_of(changed(plan, edits)), 1, followed):
        yield clip_fix(plan, "Beat of {interval}", edits, {"interval": slot(shortest, "s")})


def _longer_shutter(shooting: Shooting, followed: Followed) -> Iterator[Fix]:
    """Where the limit and not the beat holds the shutter back."""
    if "shutter" not in shooting.plan.light.order:
        return
    seconds = _label("shutter", followed.limits.shutter.high + _lacking(followed, 1), followed)
    edit = _limit("shutter_long_s", str(exact_mark(seconds)))
    if _cured(with_light(shooting, shutter_long_s=exact_mark(seconds)), 1, followed):
        yield Fix(
            label="Expose up to {shutter}",
            consequence="The beat has room for it. What moves is drawn out further, and dark noise grows.",
            slots={"shutter": slot(seconds, "shutter")},
            edits=(edit,),
        )


def _trailing(shooting: Shooting) -> Iterator[Fix]:
    followed = shooting.ramp
    assert followed is not None
    if shooting.plan.light.stars_px is None or not (shooting.longest_by_stars < followed.limits.shutter.high).any():
        return
    tried = with_light(shooting, stars_px=None)
    if _cured(tried, 1, followed):
        yield Fix(
            label="Let the stars trail",
            consequence="The shutter may go to its limit; stars are drawn out into short lines.",
            slots={},
            edits=(Edit(path="light.stars_px", value=None),),
        )


def _wider(shooting: Shooting, followed: Followed) -> Iterator[Fix]:
    plan = shooting.plan
    f_number = _label("aperture", followed.limits.aperture.low - _lacking(followed, 1), followed)
    if f_number < widest_of(plan) or one_aperture(plan):
        return
    if "aperture" in plan.light.order:
        tried, edit = with_light(shooting, aperture_wide=f_number), _limit("aperture_wide", f_number)
    else:
        camera = plan.camera.model_copy(update={"aperture": f_number})
        tried, edit = _with_camera(shooting, camera=camera), Edit(path="camera.aperture", value=f_number)
    if _cured(tried, 1, followed):
        yield Fix(
            label="Open to {aperture}",
            consequence="Less depth of field, and softer corners with most lenses. Focus again once it is set.",
            slots={"aperture": slot(f_number, "f-number")},
            edits=(edit,),
        )


def _together(shooting: Shooting, followed: Followed) -> Iterator[Fix]:
    """Where nothing helps by itself: the aperture as wide as the lens opens, and as much ISO as that leaves lacking."""
    plan, a_stop = shooting.plan, followed.settings.a_stop
    if "aperture" in plan.light.order or "iso" not in plan.light.order or one_aperture(plan):
        return
    f_number = dials.label("aperture", dials.at_least("aperture", widest_of(plan), a_stop), a_stop)
    camera = plan.camera.model_copy(update={"aperture": min(f_number, plan.camera.aperture)})
    opened = _with_camera(shooting, camera=camera)
    if opened.ramp is None:
        return
    iso = int(_label("iso", followed.limits.iso.high + max(0, _lacking(opened.ramp, 1)), followed))
    if iso > UTMOST_ISO or not _cured(with_light(opened, iso_high=iso), 1, followed):
        return
    yield Fix(
        label="Open to {aperture}, and raise ISO up to {iso}",
        consequence="Less depth of field from the first frame on, and the darkest frames are noisy.",
        slots={"aperture": slot(camera.aperture, "f-number"), "iso": slot(iso)},
        edits=(Edit(path="camera.aperture", value=camera.aperture), _limit("iso_high", iso)),
    )


def widest_of(plan: Plan) -> float:
    """The widest that the lens opens; a usual value where no card says."""
    return min((copy.card.widest_f for copy in plan.kit.copies if isinstance(copy.card, Lens)), default=WIDEST_F)


def _with_camera(shooting: Shooting, **sections: object) -> Shooting:
    return shooting.tried(**sections)


def _more_iso(shooting: Shooting, followed: Followed) -> Iterator[Fix]:
    if "iso" not in shooting.plan.light.order:
        return
    iso = int(_label("iso", followed.limits.iso.high + _lacking(followed, 1), followed))
    if iso > HIGHEST_ISO or not _cured(with_light(shooting, iso_high=iso), 1, followed):
        return
    yield Fix(
        label="Raise ISO up to {iso}",
        consequence="More noise in the darkest frames, and less that can be mended in their highlights.",
        slots={"iso": slot(iso)},
        edits=(_limit("iso_high", iso),),
    )


def _darker_night(shooting: Shooting, followed: Followed) -> Iterator[Fix]:
    """As much darker as it takes, in thirds of a stop; only where the sun is down for all the frames it is for."""
    scene, light, dark = shooting.scene, shooting.plan.light, too_dark(followed)
    assert scene is not None
    shares = night_share(scene.sun_deg)[dark]
    if float(shares.min()) < 0.2:
        return
    over = followed.leftover[dark] - 0.5 / followed.settings.a_stop
    stops = round(math.ceil((light.night_stops + float((over / shares).max())) * 3 - 1e-6) / 3, 2)
    stops = math.ceil(stops * 100) / 100
    if stops > DARKEST_STOPS or not _cured(with_light(shooting, night_stops=stops), 1, followed):
        return
    yield Fix(
        label="Let the night look {stops} darker than day",
        consequence="Now it is {now}. Lamps and stars stand out more, and what they do not light goes under.",
        slots={"stops": slot(stops, "stops"), "now": slot(light.night_stops, "stops")},
        edits=(Edit(path="light.night_stops", value=stops),),
    )


def _for_the_bright(shooting: Shooting, followed: Followed) -> Iterator[Fix]:
    yield from _filtered(shooting, followed)
    yield from _faster(shooting, followed)
    yield from _narrower(shooting, followed)


def _filtered(shooting: Shooting, followed: Followed) -> Iterator[Fix]:
    """A filter over the frames that are too bright, the weakest that is enough; a change of its own."""
    plan, bright = shooting.plan, np.flatnonzero(too_bright(followed))
    first, last = int(bright[0]) + 1, int(bright[-1]) + 1
    lacking = _lacking(followed, -1) / followed.settings.a_stop
    for stops in DENSITIES:
        if stops + 1e-6 < lacking or len(plan.light.densities) >= 6:
            continue
        one = {"stops": stops, "first_frame": first, "last_frame": None if last == shooting.frames else last}
        densities = (*plan.light.densities, Density.model_validate(one))
        if not _cured(with_light(shooting, densities=densities), -1, followed):
            continue
        times = shooting.timeline
        off = "" if last == shooting.frames else ", taken off after frame {last} ({clock})"
        yield Fix(
            label=f"A filter of {{stops}} from frame {{first}} on{off}",
            consequence="A change by hand on the lens: it must not move the framing. Look at the focus afterwards.",
            slots={
                "stops": slot(stops, "stops"),
                "first": slot(str(first)),
                "last": slot(str(last)),
                "clock": at_clock(times.unix_s(last - 1), times.start, times.zone),
            },
            edits=(Edit(path="light.densities", value=[each.model_dump(mode="json") for each in densities]),),
        )
        return


def _faster(shooting: Shooting, followed: Followed) -> Iterator[Fix]:
    if "shutter" not in shooting.plan.light.order:
        return
    seconds = _label("shutter", followed.limits.shutter.low - _lacking(followed, -1), followed)
    if _cured(with_light(shooting, shutter_short_s=exact_mark(seconds)), -1, followed):
        yield Fix(
            label="Expose down to {shutter}",
            consequence="What moves stands sharp and jumps from frame to frame while it is that bright.",
            slots={"shutter": slot(seconds, "shutter")},
            edits=(_limit("shutter_short_s", str(exact_mark(seconds))),),
        )


def _narrower(shooting: Shooting, followed: Followed) -> Iterator[Fix]:
    plan = shooting.plan
    if one_aperture(plan):
        return
    f_number = _label("aperture", followed.limits.aperture.high + _lacking(followed, -1), followed)
    if "aperture" in plan.light.order:
        tried, edit = with_light(shooting, aperture_narrow=f_number), _limit("aperture_narrow", f_number)
    else:
        camera = plan.camera.model_copy(update={"aperture": f_number})
        tried, edit = _with_camera(shooting, camera=camera), Edit(path="camera.aperture", value=f_number)
    if _cured(tried, -1, followed):
        yield Fix(
            label="Close to {aperture}",
            consequence="More depth of field; far closed down every lens gets softer, and dust on the sensor shows.",
            slots={"aperture": slot(f_number, "f-number")},
            edits=(edit,),
        )


def _label(dial: Dial, steps: int, followed: Followed) -> float:
    """What is engraved at so many steps; the dial's own end beyond it."""
    return dials.label(dial, steps, followed.settings.a_stop)


def _limit(field: str, value: str | float) -> Edit:
    return Edit(path=f"light.{field}", value=value)
