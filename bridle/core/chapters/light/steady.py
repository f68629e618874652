"""What flickers or fails for other reasons than the light: lamps on the mains, a camera that holds nothing, dew."""

from collections.abc import Iterator
from fractions import Fraction

from bridle.core.asks.exposing import bracket_said, exposing
from bridle.core.plan.edit import Edit
from bridle.core.plan.kit import Body, Filter, Phone
from bridle.core.quantity import listed
from bridle.core.reckon.parts import first_of
from bridle.core.reckon.picture import focal_ends, kept
from bridle.core.reckon.reckoning import Shooting
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.light import dew, lamps
from bridle.core.subjects.optics.lens import field_of_view_deg

PULSES = SnagKind(
    "lamps-pulse",
    "mind",
    "light",
    "At {exposure} lamps on {mains} mains come out brighter and darker from frame to frame, or in bands.",
    "They pulse a hundred or a hundred and twenty times a second; a whole number of pulses is alike each time. Lamps "
    "that run on direct current do not pulse.",
)
HOLDS_NOTHING = SnagKind(
    "camera-holds-nothing",
    "mind",
    "light",
    "The {camera} does not hold its {what}: they are set anew for each frame, and the clip flickers.",
    "Nothing in the plan can stop that. Steady lamps with daylight kept out leave it nothing to follow; a lock in the "
    "camera's own app, or another app, may.",
)
DEW = SnagKind(
    "lens-dews-over",
    "mind",
    "light",
    "The air at {air} has its dew point at {dew}: a lens under the open sky gets that cold.",
    "It radiates its warmth away, and dews over from its middle; nobody sees that from outside until it is too late.",
)
BANDS = SnagKind(
    "polariser-bands",
    "note",
    "light",
    "The polariser darkens the sky unevenly over the {view} that this move sees.",
    "The sky is polarised most at a right angle to the sun, and not at all towards it: a dark band goes through a wide "
    "picture, and changes as it turns.",
)
KINDS = (PULSES, HOLDS_NOTHING, DEW, BANDS)
WIDE_DEG = 60.0


def findings(shooting: Shooting) -> Iterator[Snag]:
    """Whatever the light itself."""
    yield from _pulsing(shooting)
    yield from _held(shooting)
    yield from _dewing(shooting)
    yield from _banded(shooting)


def _pulsing(shooting: Shooting) -> Iterator[Snag]:
    plan, mains = shooting.plan, shooting.plan.light.mains_hz
    exposure = float(plan.beat.exposure_s)
    if mains is None or shooting.followed is not None or not lamps.pulses(exposure, mains):
        return
    count, _ = lamps.steady_s(exposure, mains)
    steady = Fraction(count, 2 * mains)
    fix = Fix(
        label="Expose {steady}",
        consequence=f"A whole number of pulses: every frame gets as much light as the others.{bracket_said(plan.beat)}",
        slots={"steady": slot(steady, "shutter")},
        edits=tuple(exposing(plan.beat, steady)),
    )
    slots = {"exposure": slot(exposure, "shutter"), "mains": slot(mains, "Hz")}
    yield PULSES.at("beat.exposure_s", slots, [fix])


def _held(shooting: Shooting) -> Iterator[Snag]:
    plan = shooting.plan
    camera = first_of(plan.kit.copies, Body, Phone)
    if camera is None or not isinstance(camera.card, Body | Phone) or plan.light.school == "automatic":
        return
    said = (("exposure", camera.card.holds_exposure), ("white balance", camera.card.holds_white),
            ("focus", camera.card.holds_focus))  # fmt: skip
    loose = [what for what, holds in said if holds == "no"]
    if not loose:
        return
    fix = Fix(
        label="Plan with a camera that exposes by itself",
        consequence="The clip is told to flicker, as it will; the edit has to even it out.",
        slots={},
        edits=(Edit(path="light.school", value="automatic"),),
    )
    slots = {"camera": slot(camera.card.name), "what": slot(listed(loose))}
    yield HOLDS_NOTHING.at("light.school", slots, [fix])


def _dewing(shooting: Shooting) -> Iterator[Snag]:
    light = shooting.plan.light
    # Behind the window of a box it is the glass that dews over: the long run tells of that.
    boxed = any(copy.card.kind == "box" for copy in shooting.plan.kit.copies)
    if light.air_c is None or light.humidity is None or light.heater or boxed:
        return
    point = dew.dew_point_c(light.air_c, light.humidity)
    if light.air_c - point > dew.NEAR_K:
        return
    fix = Fix(
        label="Warm the lens from the start",
        consequence="A band round the lens that draws two to five watts keeps it some degrees over the air.",
        slots={},
        edits=(Edit(path="light.heater", value=True),),
    )
    yield DEW.at("light.heater", {"air": slot(light.air_c, "°C"), "dew": slot(round(point, 1), "°C")}, [fix])


def _banded(shooting: Shooting) -> Iterator[Snag]:
    plan = shooting.plan
    on = [copy for copy in plan.kit.copies if isinstance(copy.card, Filter) and copy.card.effect == "polariser"]
    if not on:
        return
    pans = shooting.poses.views[0]
    view = field_of_view_deg(kept(plan).width_mm, focal_ends(plan)[0]) + float(pans.max() - pans.min())
    if view <= WIDE_DEG:
        return
    left = [copy.model_dump(mode="json") for copy in plan.kit.copies if copy not in on]
    fix = Fix(
        label="Leave the polariser at home",
        consequence="Reflections on water and glass stay; the sky is even.",
        slots={},
        edits=(Edit(path="kit.copies", value=left),),
    )
    yield BANDS.at("kit.copies", {"view": slot(view, "deg")}, [fix])
