"""Locked, ramped or automatic: what suits, what goes wrong, and how to change over."""

from collections.abc import Iterator

from bridle.core.asks.dialling import exact_mark
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.light import LightSchool
from bridle.core.quantity import listed, spoken, write
from bridle.core.reckon.compared import Exposed, exposed_as
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.settings import SCATTER_STOPS
from bridle.core.snag import Fix, Snag, SnagKind, at_clock, slot
from bridle.core.subjects.light import dials

OUTSIDE = SnagKind(
    "locked-out-of-latitude",
    "mind",
    "light",
    "With one exposure for all, {outside} of {frames} cannot be mended: they come out {off}, first at frame {first} "
    "({clock}).",
    "What is burnt out or sunk in noise is gone; the edit can only even out what is there.",
)
FLICKERS = SnagKind(
    "automatic-flickers",
    "mind",
    "light",
    "An automatic exposure flickers: each frame is metered by itself, and strays by about {strays}.",
    "A cloud, a lamp, a white boat changes what the meter sees. It is for work over days, where nothing else is left.",
)
KINDS = (OUTSIDE, FLICKERS)
DAYS_S = 36 * 3600
SUITS: dict[LightSchool, str] = {
    "locked": "Right indoors with daylight shut out, under the moon, and where the light stays: one exposure for all, "
    "and nothing flickers.",
    "ramped": "Right from day into night and back: the settings follow the light in small steps, and the edit evens "
    "out what is left of each.",
    "automatic": "Right for work over days and weeks, where nobody is there: every frame is exposed, and none like "
    "the one before.",
}
RISKS: dict[LightSchool, str] = {
    "locked": "none from the camera",
    "ramped": "a step at each change, evened out in the edit",
    "automatic": "flickers in every frame",
}
OVER = Formula("wanted - set", "the exposure value that is wanted less the one that is set, where it is brightest")
UNDER = Formula("set - wanted", "the exposure value that is set less the one that is wanted, where it is darkest")


def findings(shooting: Shooting) -> Iterator[Figure | Snag]:
    """What each school makes of the light, as figures; and what goes wrong with the one that is chosen."""
    locked = exposed_as(shooting, "locked")
    if locked is None:
        return
    yield from _figures(shooting, locked)
    school = shooting.plan.light.school
    if school == "locked" and locked.outside.any():
        yield _outside(shooting, locked)
    if school == "automatic" and float(shooting.timeline.end_s) < DAYS_S:
        yield FLICKERS.at("light.school", {"strays": slot(SCATTER_STOPS, "stops")}, list(_steady(shooting)))


def _figures(shooting: Shooting, one: Exposed) -> Iterator[Figure]:
    scene = shooting.scene
    assert scene is not None
    for name, rule, frame in (("over", OVER, int(one.off.argmax())), ("under", UNDER, int(one.off.argmin()))):
        wanted, set_ev = float(scene.wanted_ev[frame]), float(one.set_ev[frame])
        label = f"locked, frame {frame + 1} too {'bright' if name == 'over' else 'dark'} by"
        value = wanted - set_ev if name == "over" else set_ev - wanted
        terms = (term("wanted", f"wanted at frame {frame + 1}", wanted, "EV"), term("set", "set", set_ev, "EV"))
        yield figure(f"light.locked.{name}", label, value, "stops", rule, *terms)


def _outside(shooting: Shooting, one: Exposed) -> Snag:
    times, first = shooting.timeline, int(one.outside.argmax())
    slots = {
        "outside": slot(int(one.outside.sum())),
        "frames": slot(shooting.frames, "frames"),
        "off": slot(_off(shooting.plan, one)),
        "first": slot(str(first + 1)),
        "clock": at_clock(times.unix_s(first), times.start, times.zone),
    }
    return OUTSIDE.at(
        "light.school", slots, [*_in_the_middle(shooting, one), *_ramped(shooting), *_by_itself(shooting)]
    )


def _off(plan: Plan, one: Exposed) -> str:
    """How far beyond mending they come out, in words."""
    high, low = float(one.off.max()), -float(one.off.min())
    ends = ((high, plan.light.over_stops, "bright"), (low, plan.light.under_stops, "dark"))
    return listed([f"up to {write(spoken(by, 'stops'), 'stops')} too {way}" for by, most, way in ends if by > most])


def _in_the_middle(shooting: Shooting, one: Exposed) -> Iterator[Fix]:
    """One exposure with which all frames can be mended, where there is one: a shutter time on the dial."""
    plan, light = shooting.plan, shooting.plan.light
    high, low = float(one.off.max()), float(one.off.min())
    if not one.measured or high - low > light.over_stops + light.under_stops:
        return
    # The mark nearest to where both ends have as much to spare.
    by = ((high - light.over_stops) + (low + light.under_stops)) / 2
    a_stop = dials.STEPS_A_STOP[light.step]
    wanted = float(plan.beat.exposure_s) * 2.0**-by
    steps = dials.nearest("shutter", wanted, a_stop)
    label = dials.label("shutter", steps, a_stop)
    moved = dials.ev100(label, plan.camera.iso, plan.camera.aperture) - dials.ev100(
        float(plan.beat.exposure_s), plan.camera.iso, plan.camera.aperture
    )
    if high - moved > light.over_stops or low - moved < -light.under_stops:
        return
    if plan.beat.continuous and label > plan.beat.exposure_s:
        return
    tried = shooting.tried(beat=plan.beat.model_copy(update={"exposure_s": exact_mark(label)}))
    if tried.cycle.over_s and not shooting.cycle.over_s:
        return
    yield Fix(
        label="Expose {shutter} throughout",
        consequence="Every frame can be mended then: at most {over} too bright and {under} too dark.",
        slots={
            "shutter": slot(label, "shutter"),
            "over": slot(max(0.0, high - moved), "stops"),
            "under": slot(max(0.0, moved - low), "stops"),
        },
        edits=(Edit(path="beat.exposure_s", value=str(exact_mark(label))),),
    )


def _ramped(shooting: Shooting) -> Iterator[Fix]:
    ramp = shooting.ramp
    assert ramp is not None
    count = len(ramp.changes)
    yield Fix(
        label="Let the settings follow the light",
        consequence="A ramp within its limits: {count}, the frames no more than {left} off, if they do not run out.",
        slots={
            "count": slot(f"{count} change{'' if count == 1 else 's'}"),
            "left": slot(0.5 / ramp.settings.a_stop, "stops"),
        },
        edits=(Edit(path="light.school", value="ramped"),),
    )


def _by_itself(shooting: Shooting) -> Iterator[Fix]:
    if float(shooting.timeline.end_s) < DAYS_S:
        return
    yield Fix(
        label="Let the camera expose by itself",
        consequence="Every frame is exposed, and each one differently: it flickers, and is evened out in the edit.",
        slots={},
        edits=(Edit(path="light.school", value="automatic"),),
    )


def _steady(shooting: Shooting) -> Iterator[Fix]:
    plan: Plan = shooting.plan
    locked = exposed_as(shooting, "locked")
    yield from _ramped(shooting)
    if locked is not None and not locked.outside.any():
        yield Fix(
            label="Expose {shutter} throughout",
            consequence="One exposure for all: the light changes by no more than the edit can mend.",
            slots={"shutter": slot(plan.beat.exposure_s, "shutter")},
            edits=(Edit(path="light.school", value="locked"),),
        )
