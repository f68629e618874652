"""What the plan asks of a camera that cannot be set so: no manual mode, one aperture, a slowest shutter, no raw."""

import math
from collections.abc import Iterator
from fractions import Fraction

from bridle.core.asks.dialling import exact_mark
from bridle.core.asks.exposing import bracket_said, exposing
from bridle.core.plan.edit import Edit
from bridle.core.plan.kit import Body, Phone
from bridle.core.plan.picture import Picture
from bridle.core.reckon.compared import exposed_as
from bridle.core.reckon.parts import imager_of
from bridle.core.reckon.picture import kept
from bridle.core.reckon.reckoning import Shooting
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.light import dials

NO_MANUAL = SnagKind(
    "camera-has-no-manual-mode",
    "stop",
    "light",
    "The settings are to follow the light, but “{camera}” has no manual mode.",
    "It meters every frame by itself; nobody can set its shutter and ISO while it shoots.",
)
APERTURE_FIXED = SnagKind(
    "aperture-is-fixed",
    "stop",
    "light",
    "The aperture is to follow the light, but “{camera}” has only {only}.",
    "Only shutter and ISO can follow the light there.",
)
OTHER_APERTURE = SnagKind(
    "aperture-is-another",
    "stop",
    "light",
    "The plan counts on {planned}; “{camera}” has {only} and nothing else.",
    "Exposure, depth of field and focus stacks are all worked out for an aperture that cannot be set.",
)
TOO_SLOW = SnagKind(
    "exposure-beyond-the-dial",
    "stop",
    "light",
    "Some frames need {longest}; “{camera}” goes no slower than {slowest}.",
    "It cannot be set any longer, so the frames would come out darker than planned.",
)
NO_RAW = SnagKind(
    "no-raw-files",
    "mind",
    "light",
    "Without raw files from “{camera}” nobody can mend {over} too bright and {under} too dark, as the plan counts on.",
    "A finished picture file keeps little beyond what it shows.",
)
STABILISED = SnagKind(
    "stabiliser-stays-on",
    "mind",
    "light",
    "The stabiliser of “{camera}” cannot be switched off: it shifts the picture from frame to frame.",
    "On a rig that stands still it drifts and hunts, and against a move it pulls the other way.",
)
KINDS = (NO_MANUAL, APERTURE_FIXED, OTHER_APERTURE, TOO_SLOW, NO_RAW, STABILISED)
# What can still be mended in a finished picture file, about, in stops; and the edge that is kept for levelling out.
FILE_OVER, FILE_UNDER, EDGE = 1.0, 2.0, 0.05
# Less than this share beyond a mark of the dial is how it is engraved: 30 s is really 32.
ENGRAVED = 1.1


def findings(shooting: Shooting) -> Iterator[Snag]:
    """What the card of the camera says cannot be set."""
    camera = imager_of(shooting.plan.kit.copies)
    if camera is None:
        return
    yield from _no_manual(shooting, camera)
    yield from _aperture(shooting, camera)
    yield from _too_slow(shooting, camera)
    yield from _no_raw(shooting, camera)
    yield from _stabilised(shooting, camera)


def _no_manual(shooting: Shooting, camera: Body | Phone) -> Iterator[Snag]:
    if camera.manual != "no" or shooting.plan.light.school != "ramped":
        return
    fixes = [
        Fix(
            label="Let it expose by itself",
            consequence="Every frame is exposed, each a little differently: the clip flickers, and the edit has to "
            "even it out.",
            slots={},
            edits=(Edit(path="light.school", value="automatic"),),
        )
    ]
    if camera.holds_exposure != "no":
        fixes.append(_locked(shooting))
    yield NO_MANUAL.at("light.school", {"camera": slot(camera.name)}, fixes)


def _locked(shooting: Shooting) -> Fix:
    one = exposed_as(shooting, "locked")
    lost = int(one.outside.sum()) if one is not None else 0
    return Fix(
        label="Lock its exposure for the whole shoot",
        consequence="One exposure throughout: {lost} of {frames} would be beyond mending."
        if lost
        else "One exposure throughout.",
        slots={"lost": slot(lost), "frames": slot(shooting.frames, "frames")},
        edits=(Edit(path="light.school", value="locked"),),
    )


def _aperture(shooting: Shooting, camera: Body | Phone) -> Iterator[Snag]:
    plan, only = shooting.plan, camera.only_f
    if only is None:
        return
    follows = "aperture" in plan.light.order and plan.light.school != "locked"
    slots = {"camera": slot(camera.name), "only": slot(only, "f-number")}
    held = Edit(path="camera.aperture", value=only)
    if follows:
        order = [dial for dial in plan.light.order if dial != "aperture"] or ["shutter"]
        fix = Fix(
            label="Hold the aperture at {only}",
            consequence="Shutter and ISO follow the light alone.",
            slots={"only": slots["only"]},
            edits=(Edit(path="light.order", value=list(order)), held),
        )
        yield APERTURE_FIXED.at("light.order", slots, [fix])
    elif abs(only - plan.camera.aperture) > 1e-9:
        yield OTHER_APERTURE.at(
            "camera.aperture", {**slots, "planned": slot(plan.camera.aperture, "f-number")}, [_as_it_is(shooting, held)]
        )


def _as_it_is(shooting: Shooting, held: Edit) -> Fix:
    """The aperture that is there; what that makes of an exposure that stays."""
    now, only = shooting.plan.camera.aperture, held.value
    assert isinstance(only, float)
    stops = 2 * math.log2(now / only)
    way = "brighter" if stops > 0 else "darker"
    follows = shooting.followed is not None
    return Fix(
        label="Plan with {only}",
        consequence="Shutter and ISO follow the light from there."
        if follows
        else f"With the same shutter and ISO every frame comes out {{stops}} {way}.",
        slots={"only": slot(only, "f-number"), "stops": slot(abs(stops), "stops")},
        edits=(held,),
    )


def _too_slow(shooting: Shooting, camera: Body | Phone) -> Iterator[Snag]:
    slowest = camera.slowest_s
    longest = float(shooting.shuttered.longest_s.max())
    if slowest is None or longest <= float(slowest) * ENGRAVED:
        return
    plan, followed = shooting.plan, shooting.followed
    # Of a bracket it is the longest that has to fit.
    most = float(slowest) * float(plan.beat.exposure_s) / max(plan.beat.bracket_s)
    slots = {"longest": slot(longest, "shutter"), "camera": slot(camera.name), "slowest": slot(slowest, "shutter")}
    if followed is not None and "shutter" in plan.light.order:
        fixes = list(_limited(shooting, most))
        yield TOO_SLOW.at("light.shutter_long_s", slots, fixes)
    else:
        yield TOO_SLOW.at("beat.exposure_s", slots, list(_shorter(shooting, most)))


def _limited(shooting: Shooting, most: float) -> Iterator[Fix]:
    """The ramp with a limit that the camera has; a lower one goes along where it was higher still."""
    light = shooting.plan.light
    a_stop = dials.STEPS_A_STOP[light.step]
    limit = exact_mark(dials.label("shutter", dials.at_most("shutter", most, a_stop), a_stop))
    if float(limit) > most * ENGRAVED:
        return
    edits = [Edit(path="light.shutter_long_s", value=str(limit))]
    if light.shutter_short_s > limit:
        edits.insert(0, Edit(path="light.shutter_short_s", value=str(limit)))
    yield Fix(
        label="Expose up to {limit}",
        consequence="ISO goes up sooner instead, as far as its limit.",
        slots={"limit": slot(limit, "shutter")},
        edits=tuple(edits),
    )


def _shorter(shooting: Shooting, most: float) -> Iterator[Fix]:
    """A shorter exposure, and as much ISO as keeps the picture as bright."""
    plan = shooting.plan
    exposure = exact_mark(dials.label("shutter", dials.at_most("shutter", most, 3), 3))
    if exposure > Fraction(most) * Fraction(11, 10):
        return
    if shooting.followed is not None:
        yield Fix(
            label="Expose {exposure}",
            consequence=f"ISO goes up sooner instead, as far as its limit.{bracket_said(plan.beat)}",
            slots={"exposure": slot(exposure, "shutter")},
            edits=tuple(exposing(plan.beat, exposure)),
        )
        return
    stops = math.log2(float(plan.beat.exposure_s) / float(exposure))
    iso = int(dials.label("iso", dials.nearest("iso", plan.camera.iso * 2.0**stops, 3), 3))
    yield Fix(
        label="Expose {exposure}, with ISO set to {iso}",
        consequence=f"As bright as before, with more noise.{bracket_said(plan.beat)}",
        slots={"exposure": slot(exposure, "shutter"), "iso": slot(iso)},
        edits=(*exposing(plan.beat, exposure), Edit(path="camera.iso", value=iso)),
    )


def _no_raw(shooting: Shooting, camera: Body | Phone) -> Iterator[Snag]:
    light = shooting.plan.light
    if camera.raw != "no" or (light.over_stops <= FILE_OVER and light.under_stops <= FILE_UNDER):
        return
    over, under = min(light.over_stops, FILE_OVER), min(light.under_stops, FILE_UNDER)
    fix = Fix(
        label="Count on {over} too bright and {under} too dark",
        consequence="Frames further off than that are told as beyond mending.",
        slots={"over": slot(over, "stops"), "under": slot(under, "stops")},
        edits=(Edit(path="light.over_stops", value=over), Edit(path="light.under_stops", value=under)),
    )
    slots = {
        "camera": slot(camera.name),
        "over": slot(light.over_stops, "stops"),
        "under": slot(light.under_stops, "stops"),
    }
    yield NO_RAW.at("light.over_stops", slots, [fix])


def _stabilised(shooting: Shooting, camera: Body | Phone) -> Iterator[Snag]:
    plan = shooting.plan
    if camera.stabiliser != "always on" or plan.picture.reserve >= EDGE:
        return
    picture: Picture = plan.picture.model_copy(update={"reserve": EDGE})
    after = kept(plan.model_copy(update={"picture": picture}))
    fix = Fix(
        label="Keep {edge} of each side for levelling it out",
        consequence="The clip keeps {across} of the width; the edit has room to shift each frame back into place.",
        slots={"edge": slot(EDGE, "share"), "across": slot(after.source_px[0], "px")},
        edits=(Edit(path="picture.reserve", value=EDGE),),
    )
    yield STABILISED.at("picture.reserve", {"camera": slot(camera.name)}, [fix])
