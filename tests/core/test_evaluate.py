"""The evaluation as a whole: it never raises, its figures have their working, its fixes work."""

from fractions import Fraction as F
from pathlib import Path
from typing import Any
from unittest import TestCase

from hypothesis import assume, given, settings
from hypothesis import strategies as st

from bridle.core.asks.changes import HoldPeg, SetValue, TypeText, make
from bridle.core.evaluate import KINDS, evaluate
from bridle.core.lists import frame as looked_at
from bridle.core.plan.beat import Beat, Stack, Uncoupled
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, PathError, apply, difference
from bridle.core.plan.marks import Mark
from bridle.core.plan.move import Follow, Keyframe, Move, OnFrame, Pass
from bridle.core.plan.picture import Crop, Post
from bridle.core.plan.rig import PAN, SLIDE, Lead, Rig, Standing
from bridle.core.plan.rounds import PanoramaRow, StereoPair
from bridle.core.reckon.reckoning import reckon
from bridle.core.run.tally import progress, tally
from bridle.core.snag import fill
from bridle.formats.plan_json import read_plan
from tests.mutated import EXAMPLES
from tests.strategies import RINGS, clips, copies, enough_holds, fitted, moves, plan_of, plans, ramp, shooting
from tests.workings import worked_out

DEMO = Path(__file__).parents[2] / "bridle" / "demo" / "shoots"
THREE = {"rate": F(25), "shoot": F(3600), "interval": F(10)}
FAR_PAN = Move(keyframes=(Keyframe(pan_deg=20), Keyframe(pan_deg=-20)))
FAR = Move(keyframes=(Keyframe(slide_mm=0), Keyframe(slide_mm=900)))
SLID = Move(keyframes=(Keyframe(slide_mm=20), Keyframe(slide_mm=880, pan_deg=30)), ease_in_frames=20)
TRIPOD = ("tripod", "belt-rail", "down-bush", "full-frame-body")
SLOW = {**THREE, "interval": F(30)}
THIN_LEAD = Rig(lead=Lead(length_mm=12_000, area_mm2=0.14))
HANDS = Beat(school="continuous")


def leaning(**standing: float) -> Plan:
    return plan_of(THREE, move=SLID, rig=Rig(standing=Standing(**standing)))


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
    "drive-cannot-stop": (
        plan_of(THREE, move=Move(keyframes=(Keyframe(), Keyframe(pan_deg=128)))),
        copies("turntable", "phone"),
    ),
    "drive-cannot-ease": (leaning().model_copy(update={"beat": HANDS}), copies("switch-dolly")),
    "sweep-differs": (turned(128), copies("turntable", "phone")),
    "spring-runs-down": (
        plan_of({**THREE, "shoot": F(9000)}, move=Move(keyframes=(Keyframe(), Keyframe(pan_deg=600)))),
        copies("turntable"),
    ),
    "turns-the-other-way": (turned(-240), copies("turntable", "phone")),
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
    "below-interval-floor": (plan_of({**THREE, "interval": F(1)}, beat=Beat(write_s=F(0))), copies("full-frame-body")),
    "trigger-gives-up": (plan_of(THREE), copies("remote-timer", remote_timer={"most_frames": 99})),
}
PROVOKE: dict[str, Plan] = {
    "holds-contradict": plan_of({"interval": F(9), "shoot": F(3600), "clip": F(30), "rate": F(25)}),
    "holds-too-few": plan_of({"interval": F(9)}),
    "too-many-frames": plan_of({"interval": F(1, 2), "shoot": F(9_000_000), "rate": F(25)}),
    "beyond-range": plan_of({"shoot": F(36000), "interval": F(1, 2), "clip": F(1, 2)}),
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
    "stack-too-near": plan_of(THREE, beat=Beat(stack=Stack(near_mm=20, far_mm=40))),
    "smear-visible": plan_of(THREE, beat=Beat(exposure_s=F(4), school="continuous"), move=FAR_PAN),
    "buffer-stalls": plan_of({**THREE, "interval": F(2)}, beat=Beat(write_s=F(16, 5), buffer_frames=22)),
    "follows-out-of-travel": following(0, 0, mark={"x_mm": 400, "y_mm": -50}, every_frame=True),
    "keyframe-misplaced": plan_of(THREE, move=keyed(Keyframe(when=OnFrame(frame=900), slide_mm=50))),
    "letters-alike": plan_of(THREE, rig=Rig(axes=(SLIDE.model_copy(update={"letter": "Y"}), PAN))),
    "mark-drifts": following(33.69, 7.595),
    "mark-behind": following(0, 0, mark={"x_mm": 0, "y_mm": -900}),
    "move-quick": plan_of({**THREE, "interval": F(40)}, move=FAR_PAN),
    "move-strobes": plan_of({**THREE, "interval": F(120)}, move=FAR_PAN),
    "move-too-small": plan_of(THREE, move=Move(keyframes=(Keyframe(), Keyframe(pan_deg=0.3)))),
    "slide-unseen": following(0, 0, mark={"x_mm": 400, "y_mm": 900_000}),
    "aims-too-alike": marked(aimed=aimed(10, 10.4)),
    "mark-elsewhere": marked(y_mm=4000, aimed=aimed(33.69, 7.595)),
    "cue-never-seen": marked(form="person", x_mm=-9000, y_mm=200),
    "ends-beside": marked(form="bearing", bearing_deg=32),
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
    "handles-do-not-absorb": plan_of(THREE, beat=Beat(uncoupled=Uncoupled())),
}
GOLDEN: dict[str, tuple[int, float, float, str, float | None, list[str]]] = {
    "harbour-refloat": (720, 16, 28.8, "09:21:44", 1.2950159706, []),
    "lamps-along-the-quay": (480, 12, 19.2, "20:55:48", 900 / (479 - 58), ["mark-drifts", "rail-sags"]),
    "fern-frond-uncurling": (790, 984, 30.0, "19:39:36", 0.12139248527, []),
    "mill-weir-footbridge": (2250, 8332, 90.0, "06:11:08", None, []),
    "lattice-lantern": (350, 104, 14.0, "05:04:56", None, []),
    "market-morning": (960, 2, 32.0, "09:01:58", None, []),
    "moonlight-over-the-salt-barn": (460, 11983.814 / 460, 460 / 24, "22:39:13", 2.84662506568, []),
}


class Contract(TestCase):
    def test_every_kind_of_snag_is_provoked_and_each_fix_removes_it(self) -> None:
        self.assertEqual(len({kind.code for kind in KINDS}), len(KINDS))
        self.assertEqual(set(PROVOKE), {kind.code for kind in KINDS})
        for code, plan in PROVOKE.items():
            found = [snag for snag in evaluate(plan).snags if snag.code == code]
            self.assertTrue(found, code)
            for snag in found:
                self.assertTrue(snag.fixes, code)
                self._fixes_work(plan, snag)

    @settings(max_examples=max(40, EXAMPLES // 10), deadline=None)
    @given(plans)
    def test_of_any_plan(self, plan: Plan) -> None:
        told = evaluate(plan)
        for figure in told.figures.values():
            self.assertAlmostEqual(
                worked_out(figure), figure.value, delta=1e-6 * max(1, abs(figure.value)), msg=figure.key
            )
        for snag in told.snags:
            self._fixes_work(plan, snag)

    def _fixes_work(self, plan: Plan, snag) -> None:  # type: ignore[no-untyped-def]
        self.assertNotIn("{", fill(snag.what, snag.slots) + fill(snag.why, snag.slots))
        for fix in snag.fixes:
            self.assertTrue(fix.consequence)
            said = fill(fix.label, fix.slots) + fill(fix.consequence, fix.slots)
            self.assertNotIn("{", said)
            after, undo = apply(plan, fix.edits)
            left = {(one.code, one.path) for one in evaluate(after).snags}
            self.assertNotIn((snag.code, snag.path), left, said)
            self.assertEqual(apply(after, undo)[0], plan)

    def test_the_two_fixes_of_a_beat_that_does_not_fit_say_what_they_do(self) -> None:
        snag = next(s for s in evaluate(PROVOKE["interval-too-short"]).snags if s.code == "interval-too-short")
        longer, shorter = ((fill(f.label, f.slots), fill(f.consequence, f.slots)) for f in snag.fixes)
        self.assertEqual(longer[0], "Beat of 14.1 s")
        self.assertIn("255 frames, one every 14.1 s", longer[1])
        self.assertEqual(shorter[0], "Expose 8 s")
        self.assertIn("0.6 stops darker", shorter[1])


# What the moves of the demo do: the picture's shift a frame and the drift of what is followed, in shares of the width;
# by how many pixels near passes far; and the first frames (0-based) in which the first mark is seen.
MOVES: dict[str, tuple[float, float | None, float | None, tuple[int, int] | None]] = {
    "harbour-refloat": (0.00032, 0.00243, 1836.80, (0, 719)),
    "lamps-along-the-quay": (0.00044, 0.00665, 1366.72, (0, 479)),
    "fern-frond-uncurling": (0.00196, None, 2406.37, None),
    "mill-weir-footbridge": (0.0, None, None, (0, 2249)),
    "lattice-lantern": (0.0, None, None, (0, 349)),
    "market-morning": (0.00255, None, None, (278, 771)),
    "moonlight-over-the-salt-barn": (0.00355, None, 1350.63, (0, 459)),
}


class Demo(TestCase):
    def test_what_the_moves_of_the_demo_do(self) -> None:
        for name, (share, error, parallax, run) in MOVES.items():
            with self.subTest(name):
                told = evaluate(read_plan((DEMO / f"{name}.json").read_bytes()))
                assert told.view is not None
                self.assertAlmostEqual(told.figures["view.shift_share"].value, share, 5)
                for key, value, digits in (("track.error", error, 5), ("view.parallax", parallax, 2)):
                    found = told.figures.get(key)
                    self.assertEqual(round(found.value, digits) if found else None, value)
                self.assertEqual(next(iter(told.view.sights[0].runs), None), run)

    def test_golden_figures(self) -> None:
        for name, (frames, interval, clip, last, cruise, codes) in GOLDEN.items():
            with self.subTest(name):
                plan = read_plan((DEMO / f"{name}.json").read_bytes())
                told, timeline = evaluate(plan), shooting(plan).timeline
                self.assertEqual(told.frames, frames)
                self.assertAlmostEqual(told.interval_s or 0, interval, 9)
                self.assertAlmostEqual(told.figures["clip.clip"].value, clip, 9)
                self.assertEqual(timeline.clock(frames - 1).strftime("%H:%M:%S"), last)
                if cruise is not None:
                    self.assertAlmostEqual(told.figures["move.slide.cruise"].value, cruise)
                self.assertIsNotNone(told.rig)
                self.assertEqual([snag.code for snag in told.snags], codes)

    def test_a_long_shoot_is_thinned_but_complete_at_its_ends(self) -> None:
        told = evaluate(plan_of({"frames": F(100_000), "interval": F(10), "rate": F(25)}, move=FAR))
        assert told.traces is not None
        slide = told.traces.axes["slide"]
        self.assertEqual((slide.frames[0], slide.frames[-1]), (0, 99_999))
        self.assertEqual((slide.values[0], slide.values[-1]), (0, 900))
        self.assertLess(len(slide.frames), 600)
        self.assertEqual(told.traces.map.elapsed_s, (0, 1_000_000))

    def test_a_series_keeps_its_own_extremes_however_many_there_are(self) -> None:
        """A tilt that nods for one frame in the middle of a hundred thousand is drawn, and costs the slide nothing."""
        nod = Keyframe(slide_mm=450, tilt_deg=9, when=OnFrame(frame=50_000))
        beside = Keyframe(slide_mm=450, when=OnFrame(frame=50_001))
        move = Move(keyframes=(Keyframe(), nod, beside, Keyframe(slide_mm=900)))
        told = evaluate(
            plan_of({"frames": F(100_000), "interval": F(10), "rate": F(25)}, move=move, rig=Rig(axes=RINGS))
        )
        assert told.traces is not None and told.view is not None
        self.assertEqual(max(told.traces.axes["tilt"].values), 9)
        self.assertEqual(max(told.view.poses["tilt"].values), 9)
        self.assertEqual(told.traces.axes["pan"].values, (0,))
        self.assertNotEqual(told.traces.axes["tilt"].frames, told.traces.axes["slide"].frames)


class Moments(TestCase):
    @settings(max_examples=100, deadline=None)
    @given(enough_holds(), moves, st.floats(0, 1), clips)
    def test_a_frame_worked_out_alone_is_the_frame_of_the_path(
        self, held: dict[str, F], move: Move, at: float, clip: dict[str, Any]
    ) -> None:
        plan = plan_of(held, move=move, clip=clip)
        told = reckon(plan).shooting
        assume(told is not None and told.frames < 20_000)
        assert told is not None
        frame = round(at * (told.frames - 1))
        time, interval, *rest = looked_at.answer(plan, frame)
        axes = [one for one in rest if one.key != "frame.share"]
        self.assertAlmostEqual(time.value, told.timeline.clock(frame).timestamp(), 3)
        self.assertAlmostEqual(interval.value, told.timeline.rooms_s[frame], 6)
        for figure in (time, interval, *(one for one in rest if one.key == "frame.share")):
            self.assertAlmostEqual(worked_out(figure), figure.value, 3)
        for figure, axis in zip(axes, plan.rig.axes, strict=True):
            self.assertAlmostEqual(figure.value, told.positions[axis.name][frame], 6)
            self.assertAlmostEqual(worked_out(figure), figure.value, 6)

    def test_the_figures_of_a_run_have_their_working(self) -> None:
        for figure in [
            *progress(1e9, 720, 16, 3.5, 60, 1e9 + 500),
            *tally(720, 300, 11520, 5003, 28.8),
            *tally(720, 301, 600, 260, 14.4, 2),
        ]:
            self.assertAlmostEqual(worked_out(figure), figure.value, 6, figure.key)


class Changes(TestCase):
    plan = plan_of(THREE)

    def test_typed_text_lands_where_it_belongs(self) -> None:
        for path, text, where, value in [
            ("clip.interval", "12 s", "clip.pegs", None),
            ("beat.exposure_s", "1/50", "beat.exposure_s", "1/50"),
            ("beat.margin", "15 %", "beat.margin", "3/20"),
            ("move.keyframes.1.slide_mm", "70 cm", "move.keyframes.1.slide_mm", 700.0),
            ("move.ease_in_frames", "40", "move.ease_in_frames", 40),
            ("camera.aperture", "f/5.6", "camera.aperture", 5.6),
            ("rig.axes.1.top_speed", "12 °/s", "rig.axes.1.top_speed", 12.0),
            ("shoot.name", " Dawn ", "shoot.name", "Dawn"),
        ]:
            with self.subTest(path=path):
                plan, undo = make(self.plan, [TypeText(do="type", path=path, text=text)])
                self.assertEqual(apply(plan, undo)[0], self.plan)
                if value is not None:
                    self.assertEqual(difference(self.plan, plan), [Edit(path=where, value=value)])

    def test_a_peg_holds_the_figure_that_stood_there(self) -> None:
        plan, _ = make(self.plan, [HoldPeg(do="hold", quantity="frames")])
        self.assertEqual(plan.clip.pegs[-1].value, 360)

    def test_what_cannot_be_is_refused_and_the_plan_stays(self) -> None:
        for change in (
            SetValue(do="set", path="beat.nothing", value=1),
            SetValue(do="set", path="move.keyframes.0.slide_mm", value="far"),
            SetValue(do="set", path="clip.interval", value="0"),
            SetValue(do="set", path="clip.frames", value="2.5"),
            SetValue(do="set", path="beat.exposure_s", value="-1"),
            TypeText(do="type", path="shoot.name", text="  "),
            TypeText(do="type", path="clip.shoot", text="99 years"),
            SetValue(do="set", path="rig.axes.0.high", value=-5),
        ):
            with self.subTest(change=change), self.assertRaises((ValueError, PathError)):
                make(self.plan, [change])
