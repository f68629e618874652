"""A plan that provokes each kind of snag, sound in everything else."""

from fractions import Fraction as F
from functools import cache
from typing import Any
from unittest import TestCase

from bridle.core.asks.shelf import made
from bridle.core.evaluate import evaluate
from bridle.core.evaluation import Evaluation
from bridle.core.plan.beat import Beat, BeatSchool, Stack, Uncoupled
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.core.plan.marks import Mark
from bridle.core.plan.move import Follow, Keyframe, Move, OnFrame, Pass
from bridle.core.plan.picture import Crop, Post
from bridle.core.plan.rig import PAN, SLIDE, Lead, Rig, Standing
from bridle.core.plan.rounds import PanoramaRow, StereoPair
from bridle.core.plan.shoot import ShootKind
from bridle.core.snag import Snag, fill
from tests.following import Following
from tests.provoked_print import PRINTED
from tests.provoked_season import SCHEDULED
from tests.provoked_staying import STAYING
from tests.provoked_wired import WIRED
from tests.strategies import RINGS, copies, fitted, leant, plan_of, ramp

THREE = {"rate": F(25), "shoot": F(3600), "interval": F(10)}
FAR_PAN = Move(keyframes=(Keyframe(pan_deg=20), Keyframe(pan_deg=-20)))
FAR = Move(keyframes=(Keyframe(slide_mm=0), Keyframe(slide_mm=900)))
SLID = Move(keyframes=(Keyframe(slide_mm=20), Keyframe(slide_mm=880, pan_deg=30)), ease_in_frames=20)
TRIPOD = ("tripod", "belt-rail", "down-bush", "full-frame-body")
SLOW = {**THREE, "interval": F(30)}
THIN_LEAD = Rig(lead=Lead(length_mm=12_000, area_mm2=0.14))
HANDS = Beat(school="continuous")


def skyward(body: str, placed: bool = True, every_frame: bool = True, **mark: Any) -> Plan:
    """Something in the sky, followed by a head that reaches all round, for an hour of a September morning."""
    one = Mark.model_validate({"name": "the light", "form": "bearing", "body": body} | mark)
    head = (PAN.model_copy(update={"low": -400, "high": 400}), RINGS[2].model_copy(update={"low": -90, "high": 90}))
    plan = plan_of(
        THREE, move=Move(marks=(one,), follow=Follow(every_frame=every_frame)),
        rig=Rig(axes=head, normal_bearing_deg=90 if placed else None),
    )  # fmt: skip
    place = plan.shoot.place.model_copy(update={"latitude_deg": 57.32, "longitude_deg": -6.18})
    return plan.model_copy(update={"shoot": plan.shoot.model_copy(update={"place": place})}) if placed else plan


def of_kind(plan: Plan, kind: ShootKind) -> Plan:
    return plan.model_copy(update={"shoot": plan.shoot.model_copy(update={"kind": kind})})


def leaning(**standing: float) -> Plan:
    return plan_of(THREE, move=SLID, rig=Rig(standing=Standing(**standing)))


def stopping(plan: Plan) -> Plan:
    """A plan that is to stop for each frame, whatever its drives can do."""
    return plan.model_copy(update={"beat": plan.beat.model_copy(update={"school": "shoot-move-shoot"})})


def stacked(school: BeatSchool = "shoot-move-shoot", keys: tuple[Keyframe, ...] | None = None, **stack: Any) -> Plan:
    """A stack, and a motor on the focus ring; a camera that stands still unless told otherwise."""
    move = Move(keyframes=keys or (Keyframe(), Keyframe()))
    held = {**THREE, "interval": F(60)}
    return plan_of(held, rig=Rig(axes=RINGS[:5]), move=move, beat=Beat(school=school, stack=Stack(**stack)))


def turned(sweep: float, **beat: object) -> Plan:
    return plan_of(
        THREE, move=Move(keyframes=(Keyframe(), Keyframe(pan_deg=sweep))), beat=Beat(school="continuous", **beat)
    )


def keyed(middle: Keyframe, **more: Any) -> Move:
    return Move(keyframes=(Keyframe(), middle, Keyframe(slide_mm=100, pan_deg=239)), **more)


def following(start: float, end: float, mark: dict[str, Any] | None = None, every_frame: bool = False) -> Plan:
    post = Mark.model_validate({"name": "post", "x_mm": 1000, "y_mm": 1500} | (mark or {}))
    keys = (Keyframe(pan_deg=start), Keyframe(slide_mm=800, pan_deg=end))
    return plan_of(THREE, move=Move(keyframes=keys, marks=(post,), follow=Follow(every_frame=every_frame)))


def aimed(first: float, second: float) -> dict[str, float]:
    return {"slide_1_mm": 0, "pan_1_deg": first, "slide_2_mm": 800, "pan_2_deg": second}


def marked(**fields: Any) -> Plan:
    return plan_of(THREE, move=Move(marks=(Mark.model_validate({"name": "post", **fields}),)))


def sunny(normal: float, tilt: float, at: str = "2026-09-27T07:20+01:00") -> Plan:
    plan = plan_of(THREE, rig=Rig(normal_bearing_deg=normal), clock={"at": at})
    move = Move(keyframes=(Keyframe(tilt_deg=tilt), Keyframe(tilt_deg=tilt)))
    place = plan.shoot.place.model_copy(update={"latitude_deg": 57.32, "longitude_deg": -6.18})
    return plan.model_copy(update={"move": move, "shoot": plan.shoot.model_copy(update={"place": place})})


def dusk(at: str = "2026-09-12T19:30+01:00", minutes: int = 90, interval: int = 20, **light: Any) -> Plan:
    """Port Ellary from the golden light on; the sun sets there at 19:52 and stands at −18° at 22:12."""
    held = {"rate": F(25), "shoot": F(minutes * 60), "interval": F(interval)}
    more = {name: light.pop(name) for name in ("kind", "camera", "beat") if name in light}
    latitude, longitude = light.pop("where", (57.32, -6.18))
    clock = {"at": at, **light.pop("clock", {})}
    plan = plan_of(
        held, clock=clock, rig=Rig(axes=()), light=light, camera=more.get("camera", {}), beat=more.get("beat", {})
    )
    place = plan.shoot.place.model_copy(update={"latitude_deg": latitude, "longitude_deg": longitude})
    return plan.model_copy(update={"shoot": plan.shoot.model_copy(update={"place": place, "kind": more.get("kind")})})


def proof(at: str, shutter: F, iso: int = 100, aperture: float = 8.0) -> dict[str, Any]:
    return {"at": at, "shutter_s": shutter, "iso": iso, "aperture": aperture}


# A head that its own menu sends from one end to the other.
HEAD = made("head").model_dump(mode="json")
# A plan, and the cards of its rig.
KITS: dict[str, tuple[Plan, list[dict[str, Any]]]] = {
    "thread-mismatch": (plan_of(THREE), copies("tripod", "belt-rail", "full-frame-body")),
    "threads-look-alike": (plan_of(THREE), copies("tripod", "crop-body", tripod={"above": "M6"})),
    "supply-too-weak": (plan_of(THREE), copies(*TRIPOD, "lead-battery", lead_battery={"gives_a": 0.5})),
    "lead-too-thin": (
        plan_of(THREE, rig=Rig(lead=Lead(length_mm=12_000, area_mm2=0.14))),
        copies(*TRIPOD, "lead-battery"),
    ),
    "overload": (plan_of(THREE), copies(*TRIPOD, tripod={"carries_g": 1500})),
    "screw-too-long": (plan_of(THREE), copies(*TRIPOD, down_bush={"screw_mm": 9})),
    "wide-body": (plan_of(THREE), copies("light-tripod", "crop-body", light_tripod={"width_mm": 40})),
    "lead-mismatch": (plan_of(THREE), copies("controller", "full-frame-body", controller={"socket": "USB"})),
    "lens-creeps": (leaning(slope_deg=12), copies("24-70", *TRIPOD)),
    "rig-tips": (plan_of(THREE, move=SLID), copies(*TRIPOD, tripod={"feet_radius_mm": 150})),
    "rail-sags": (plan_of(THREE, move=SLID), copies(*TRIPOD, belt_rail={"beam": {"outer_mm": 15}})),
    "carriage-strikes": (plan_of(THREE), copies(*TRIPOD, belt_rail={"length_mm": 900})),
    "motor-too-weak": (leaning(slope_deg=60), copies(*TRIPOD, belt_rail={"drive": {"kind": "belt", "torque_nmm": 60}})),
    "rail-lets-go": (leaning(slope_deg=60), copies(*TRIPOD)),
    "shaft-overload": (
        plan_of(THREE),
        copies("tripod", "pan-head", "tilt-head", "full-frame-body", tilt_head={"shaft_nmm": 100}),
    ),
    "horizon-tilts": (leaning(level_error_deg=2), copies("tripod", "belt-rail", "pan-head")),
    "steps-uneven": (
        plan_of(THREE, move=Move(keyframes=(Keyframe(), Keyframe(pan_deg=8)))),
        copies("tripod", "pan-head", pan_head={"drive": {"kind": "gear", "microsteps": 2, "ratio": 5.3}}),
    ),
    "axis-twice": (plan_of(THREE), copies("tripod", "pan-head", "marked-base")),
    "drive-cannot-ease": (leaning().model_copy(update={"beat": HANDS}), copies("switch-dolly")),
    "sweep-differs": (turned(128), copies("turntable", "phone")),
    "spring-runs-down": (
        plan_of({**THREE, "shoot": F(9000)}, move=Move(keyframes=(Keyframe(), Keyframe(pan_deg=600)))),
        copies("turntable"),
    ),
    "turns-the-other-way": (turned(-240), copies("turntable", "phone")),
    "sweep-nearly": (turned(7.7), copies("star-mount")),
    "rate-out-of-range": (turned(3000), copies("star-mount")),
    "clock-driven-axis": (
        plan_of(
            THREE, move=Move(keyframes=(Keyframe(), Keyframe(pan_deg=239))), beat=HANDS, clip={"called_by": "event"}
        ),
        copies("turntable", "phone"),
    ),
    "drive-goes-straight": (
        plan_of(THREE, move=keyed(Keyframe(pan_deg=300), legs=2), beat=HANDS),
        copies("turntable", "phone"),
    ),
    "scale-too-coarse": (
        plan_of(THREE, move=Move(keyframes=(Keyframe(), Keyframe(pan_deg=30)))),
        copies("tripod", "marked-base"),
    ),
    "camera-holds-nothing": (plan_of(THREE), copies("phone", phone={"holds_exposure": "no", "holds_focus": "no"})),
    "camera-has-no-manual-mode": (dusk(school="ramped", minutes=40), copies("phone", phone={"manual": "no"})),
    "aperture-is-fixed": (
        dusk(school="ramped", minutes=40, order=["shutter", "aperture", "iso"], camera={"aperture": 2.0}),
        copies("phone"),
    ),
    "exposure-beyond-the-dial": (
        plan_of({**THREE, "interval": F(30)}, beat=Beat(exposure_s=F(8))),
        copies("full-frame-body", full_frame_body={"slowest_s": "2"}),
    ),
    "no-raw-files": (plan_of(THREE), copies("full-frame-body", full_frame_body={"raw": "no"})),
    "stabiliser-stays-on": (plan_of(THREE), copies("full-frame-body", full_frame_body={"stabiliser": "always on"})),
    "polariser-bands": (
        plan_of(THREE, move=FAR_PAN),
        [
            *copies("full-frame-body"),
            {"key": "polariser", "card": {"kind": "filter", "name": "polariser", "effect": "polariser"}},
        ],
    ),
    "below-interval-floor": (plan_of({**THREE, "interval": F(1)}, beat=Beat(write_s=F(0))), copies("full-frame-body")),
    "interval-not-listed": (plan_of(THREE), copies("remote-timer", remote_timer={"intervals": ["1", "5", "15", "30"]})),
    "lead-too-short": (plan_of(THREE, move=SLID), copies(*TRIPOD, "release-lead", release_lead={"length_mm": 600})),
    "plug-meets-box": (
        plan_of(THREE),
        copies("camera-box", "full-frame-body", "release-lead", release_lead={"bend_mm": 60}),
    ),
    "trigger-gives-up": (plan_of(THREE), copies("remote-timer", remote_timer={"most_frames": 99})),
}
PROVOKE: dict[str, Plan] = {
    "holds-contradict": plan_of({"interval": F(9), "shoot": F(3600), "clip": F(30), "rate": F(25)}),
    "holds-too-few": plan_of({"interval": F(9)}),
    "too-many-frames": plan_of({"interval": F(1, 2), "shoot": F(9_000_000), "rate": F(25)}),
    "beyond-range": plan_of({"shoot": F(36000), "interval": F(1, 2), "clip": F(1, 2)}),
    "shoot-overrun": plan_of({"clip": F(80), "rate": F(25), "shoot": F(1200)}, step=F(1)),
    "interval-off-step": plan_of({**THREE, "interval": F(103, 10)}, step=F(1, 2)),
    "rate-unusual": plan_of({"clip": F(17), "shoot": F(3600), "interval": F(10)}),
    "out-of-travel": plan_of(THREE, move=Move(keyframes=(Keyframe(), Keyframe(slide_mm=950, pan_deg=-190)))),
    "ease-scaled": plan_of(
        THREE, move=Move(keyframes=(Keyframe(), Keyframe(slide_mm=100)), ease_in_frames=300, ease_out_frames=100)
    ),
    "interval-too-short": plan_of(THREE, beat=Beat(exposure_s=F(12))),
    "axis-too-slow": plan_of({"frames": F(4), "interval": F(8), "rate": F(25)}, move=FAR),
    "blend-shortened": plan_of(THREE, clip={"frames": ramp((600, 10), (300, 5), blend=160)}),
    "segment-off-step": plan_of(THREE, clip={"frames": ramp((600, 10), (300, F(51, 10)))}, step=F(1, 2)),
    "event-outside": plan_of(THREE, clock={"events": [{"name": "high tide", "at": "2026-09-27T14:20+01:00"}]}),
    "handles-too-long": plan_of(THREE, clip={"handle_in_frames": 200, "handle_out_frames": 160}),
    "hardly-changes": plan_of(THREE, clip={"trial": {"apart_s": 7200, "moved_px": 9, "step_px": 2}}),
    "movie-cannot-be-culled": plan_of(THREE, clip={"school": "movie", "spare": F(1, 10)}),
    "video-too-long": plan_of(THREE, clip={"school": "video"}),
    "noise-reduction-costs": plan_of(THREE, beat=Beat(exposure_s=F(3), noise_reduction=True)),
    "stack-out-of-ring": stacked(near_mm=400, far_mm=800),
    "stack-needs-stops": stacked("continuous", near_mm=600, far_mm=800),
    "stack-not-driven": plan_of(
        {"rate": F(25), "interval": F(60), "frames": F(100_000)},
        rig=Rig(axes=RINGS[:5]),
        beat=Beat(stack=Stack(near_mm=500, far_mm=5000)),
    ),
    "stack-holds-focus": stacked(near_mm=600, far_mm=800, keys=(Keyframe(focus_mm=900), Keyframe(focus_mm=2000))),
    "stack-too-near": plan_of(THREE, beat=Beat(stack=Stack(near_mm=20, far_mm=40))),
    "smear-visible": plan_of(THREE, beat=Beat(exposure_s=F(4), school="continuous"), move=FAR_PAN),
    "smear-unknown": plan_of(THREE, beat=HANDS, move=FAR),
    "ring-unmarked": plan_of(
        THREE,
        rig=Rig(axes=(RINGS[5].model_copy(update={"ring": ()}),)),
        move=Move(keyframes=(Keyframe(zoom_mm=24), Keyframe(zoom_mm=70))),
    ),
    "buffer-stalls-in-part": plan_of(
        {**THREE, "interval": F(5)}, beat=Beat(write_s=F(2), buffer_frames=6, bracket_frames=5, bracket_gap_s=F(1, 10))
    ),
    "buffer-stalls": plan_of({**THREE, "interval": F(2)}, beat=Beat(write_s=F(16, 5), buffer_frames=22)),
    "follows-out-of-travel": following(0, 0, mark={"x_mm": 400, "y_mm": -50}, every_frame=True),
    "keyframe-misplaced": plan_of(THREE, move=keyed(Keyframe(when=OnFrame(frame=900), slide_mm=50))),
    "letters-alike": plan_of(THREE, rig=Rig(axes=(SLIDE.model_copy(update={"letter": "Y"}), PAN))),
    "mark-drifts": following(33.69, 7.595),
    "mark-leaves": following(0, 0, mark={"z_mm": 1300}, every_frame=True),
    "mark-unknown-in-the-sky": skyward("moon", placed=False, bearing_deg=40, altitude_deg=20),
    "mark-below-the-horizon": skyward("star", bearing_deg=60, altitude_deg=-4),
    "mark-behind": following(0, 0, mark={"x_mm": 0, "y_mm": -900}),
    "move-quick": plan_of({**THREE, "interval": F(40)}, move=FAR_PAN),
    "move-strobes": plan_of({**THREE, "interval": F(120)}, move=FAR_PAN),
    "move-too-small": plan_of(THREE, move=Move(keyframes=(Keyframe(), Keyframe(pan_deg=0.3)))),
    "slide-unseen": following(0, 0, mark={"x_mm": 400, "y_mm": 900_000}),
    "aims-too-alike": marked(aimed=aimed(10, 10.4)),
    "mark-elsewhere": marked(y_mm=4000, aimed=aimed(33.69, 7.595)),
    "cue-never-seen": marked(form="person", x_mm=-9000, y_mm=200),
    "ends-beside": marked(form="bearing", bearing_deg=32),
    "aims-on-a-lean": plan_of(
        THREE,
        rig=Rig(axes=leant(10, axes=RINGS[:2])),
        move=Move(marks=(Mark.model_validate({"name": "post", "aimed": aimed(33.69, 7.595)}),)),
    ),
    "pan-on-slope": leaning(slope_deg=12),
    "sun-in-picture": sunny(90, 0),
    "sun-flares": sunny(60, 0),
    "own-shadow": sunny(275, 0, **{"at": "2026-09-27T08:10+01:00"}),
    "rig-in-picture": plan_of(THREE, camera={"focal_mm": 12}, move=Move(keyframes=(Keyframe(), Keyframe(pan_deg=60)))),
    "picture-enlarged": plan_of(THREE, picture={"width_px": 3840}, move=Move(post=Post(end=Crop(width=0.4)))),
    "lens-soft": plan_of(THREE, camera={"lens_px": 4000}),
    "round-without-axis": plan_of(THREE, rig=Rig(axes=()), move=Move(visits=PanoramaRow())),
    "round-out-of-travel": plan_of(THREE, move=Move(visits=StereoPair())),
    "round-needs-stops": plan_of(THREE, beat=HANDS, move=Move(visits=PanoramaRow())),
    "pass-too-short": plan_of(
        THREE, beat=Beat(exposure_s=F(5)), move=Move(passes=(Pass(name="again", interval_s=F(2)),))
    ),
    "live-too-fast": plan_of(THREE, move=FAR.model_copy(update={"live_s": F(3)})),
    **{code: fitted(*case) for code, case in KITS.items()},
    "aperture-is-another": apply(fitted(plan_of(THREE), copies("phone")), [Edit(path="camera.aperture", value=5.6)])[0],
    "mark-drifts-on-the-way": fitted(
        following(34.27, 8.18), [*copies("tripod", "belt-rail"), {"key": "head", "card": HEAD}]
    ),
    "drive-cannot-stop": stopping(
        fitted(plan_of(THREE, move=Move(keyframes=(Keyframe(), Keyframe(pan_deg=128)))), copies("turntable", "phone"))
    ),
    "speed-not-known": fitted(
        plan_of(THREE, move=FAR_PAN), copies("pan-head", pan_head={"top_speed": None, "acceleration": None})
    ),
    "clocks-not-tied": fitted(
        plan_of(
            THREE, move=Move(keyframes=(Keyframe(pan_deg=-12), Keyframe(pan_deg=12))), beat=Beat(school="continuous")
        ),
        copies("turntable", "phone"),
    ),
    "nothing-fires": fitted(plan_of(THREE), copies("tripod", "full-frame-body")),
    "no-print-calls": of_kind(plan_of(THREE, clip={"called_by": "event"}), "print"),
    "bracket-all-alike": plan_of(THREE, beat=Beat(bracket_frames=3)),
    "nothing-moves": of_kind(plan_of(THREE), "slide"),
    "moves-by-chance": stopping(fitted(plan_of(SLOW, move=FAR_PAN), copies("pan-head", "phone"))),
    "locked-out-of-latitude": dusk(proofs=[proof("2026-09-12T19:30+01:00", F(1, 125))]),
    "automatic-flickers": dusk(school="automatic", minutes=30),
    "limits-run-out": dusk(school="ramped", minutes=150),
    "limits-too-bright": dusk(
        "2026-09-12T15:30+01:00", school="ramped", camera={"aperture": 2.8}, shutter_short_s=F(1, 30)
    ),
    "hand-too-slow": dusk("2026-09-12T19:00+01:00", minutes=40, school="ramped", where=(0.0, 0.0)),
    "aperture-flickers": dusk(
        school="ramped", order=["shutter", "aperture", "iso"], shutter_long_s=F(1, 60), minutes=40
    ),
    "sky-needs-a-place": plan_of(THREE, clock={"tied": {"to": "sunset", "offset_s": "-2400"}}),
    "sky-gives-no-hour": dusk("2026-06-21T23:00+01:00", minutes=30, clock={"tied": {"to": "astronomical dusk"}}),
    "lamps-pulse": plan_of(THREE, beat=Beat(exposure_s=F(1, 80)), light={"mains_hz": 50, "daylight": False}),
    "lens-dews-over": dusk(minutes=30, air_c=6.0, humidity=0.94),
    "tests-disagree": dusk(
        school="ramped",
        proofs=[proof("2026-09-12T19:30+01:00", F(1, 60)), proof("2026-09-12T20:30+01:00", F(1, 2))],
    ),
    "filter-beyond-the-shoot": dusk(densities=[{"stops": 3, "first_frame": 900}], minutes=30),
    "handles-do-not-absorb": plan_of(THREE, beat=Beat(uncoupled=Uncoupled())),
    **WIRED,
    **PRINTED,
    **SCHEDULED,
    **STAYING,
}


def _which(snag: Snag) -> tuple[str, str, float | str]:
    """A snag by its kind and place; events, told by when they are, move up when one before them is left out."""
    if "event" in snag.slots:
        return snag.code, "", snag.slots["at"].value
    if snag.code == "axis-twice":
        # By its place another part that is too many would move up to it.
        return snag.code, str(snag.slots["axis"].value), snag.slots["second"].value
    return snag.code, snag.path, ""


@cache
def provoked(code: str) -> Evaluation:
    """What the plan that provokes a kind of snag comes to: half a dozen tests ask."""
    return evaluate(PROVOKE[code])


def fixes_work(test: TestCase, plan: Plan, snag: Snag, now: Following | None = None) -> None:
    """Each fix of a snag takes it away, says what it does, and is undone without a trace."""
    now = now or Following(plan)
    test.assertNotIn("{", fill(snag.what, snag.slots) + fill(snag.why, snag.slots))
    for fix in snag.fixes:
        test.assertTrue(fix.consequence)
        said = fill(fix.label, fix.slots) + fill(fix.consequence, fix.slots)
        test.assertNotIn("{", said)
        after, undo = apply(plan, fix.edits)
        left = [_which(other) for other in now.beside(after).snags]
        if _which(snag) in left:
            # Two events of one name and one moment: the one that was left out has gone, the other is still there.
            before = [_which(other) for other in now.told.snags]
            test.assertLess(left.count(_which(snag)), before.count(_which(snag)), said)
        test.assertEqual(apply(after, undo)[0], plan)
