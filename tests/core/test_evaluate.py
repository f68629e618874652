"""The evaluation as a whole: it never raises, its figures have their working, its fixes work."""

from fractions import Fraction as F
from pathlib import Path
from typing import Any
from unittest import TestCase

from hypothesis import Phase, assume, given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from bridle.core.asks.changes import HoldPeg, SetValue, TypeText, make
from bridle.core.evaluate import evaluate
from bridle.core.lists import frame as looked_at
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, PathError, apply, difference
from bridle.core.plan.move import Keyframe, Move, OnFrame
from bridle.core.plan.rig import Rig
from bridle.core.reckon.reckoning import reckon
from bridle.core.run.tally import progress, tally
from bridle.formats.plan_json import read_plan
from tests.following import Following
from tests.mutated import EXAMPLES
from tests.provoked import FAR, fixes_work
from tests.strategies import RINGS, clips, enough_holds, moves, plan_of, plans, shooting
from tests.workings import worked_out

DEMO = Path(__file__).parents[2] / "bridle" / "demo" / "shoots"
THREE = {"rate": F(25), "shoot": F(3600), "interval": F(10)}
GOLDEN: dict[str, tuple[int, float, float, str, float | None, list[str]]] = {
    "harbour-refloat": (720, 16, 28.8, "09:21:44", 1.2950159706, []),
    "lamps-along-the-quay": (480, 12, 19.2, "20:55:48", 900 / (479 - 58), ["mark-drifts"]),
    "fern-frond-uncurling": (790, 984, 30.0, "19:39:36", 0.12139248527, []),
    "mill-weir-footbridge": (2223, 2520, 88.92, "16:48:00", None, []),
    "lattice-lantern": (350, 101.71671428571429, 14.0, "04:52:26", None, ["print-not-proven"]),
    "market-morning": (960, 2, 32.0, "09:01:58", None, []),
    "moonlight-over-the-salt-barn": (460, 11983.814 / 460, 460 / 24, "22:39:13", 2.84662506568, []),
}


class Contract(TestCase):
    # Making a plan that fails smaller takes minutes and tells no more.
    @settings(max_examples=max(20, EXAMPLES // 20), deadline=None, phases=(Phase.explicit, Phase.reuse, Phase.generate))
    @given(plans)
    def test_of_any_plan(self, plan: Plan) -> None:
        now = Following(plan)
        for figure in now.told.figures.values():
            self.assertAlmostEqual(
                worked_out(figure), figure.value, delta=1e-6 * max(1, abs(figure.value)), msg=figure.key
            )
        for snag in now.told.snags:
            fixes_work(self, plan, snag, now)


# What the moves of the demo do: the picture's shift a frame and the drift of what is followed, in shares of the width;
# by how many pixels near passes far; and the first frames (0-based) in which the first mark is seen.
MOVES: dict[str, tuple[float, float | None, float | None, tuple[int, int] | None]] = {
    "harbour-refloat": (0.00109, 0.00243, 1836.80, (0, 719)),
    "lamps-along-the-quay": (0.00123, 0.00665, 1366.72, (0, 479)),
    "fern-frond-uncurling": (0.00196, None, 2406.37, None),
    "mill-weir-footbridge": (0.0, None, None, (0, 2222)),
    "lattice-lantern": (0.0, None, None, (0, 349)),
    "market-morning": (0.00259, None, None, (278, 771)),
    "moonlight-over-the-salt-barn": (0.00354, None, 1350.63, (0, 459)),
}


class Demo(TestCase):
    def test_what_the_moves_of_the_demo_do(self) -> None:
        for name, (share, error, parallax, run) in MOVES.items():
            with self.subTest(name):
                told = evaluate(read_plan((DEMO / f"{name}.json").read_bytes()))
                assert told.view is not None
                shift = told.figures.get("view.shift_share")
                self.assertAlmostEqual(shift.value if shift else 0.0, share, 5)
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

    def test_the_clip_of_a_run_with_frames_to_spare_is_the_planned_one(self) -> None:
        """316 frames shot for 300 of clip: all taken they are 12 s at 25 a second; no rate of 26.333 is named."""
        told = {one.key: one for one in tally(316, 316, 3160, 3160, 12)}
        self.assertEqual((told["log.clip_planned"].value, told["log.clip_taken"].value), (12, 12))
        self.assertNotIn("rate", [term.unit for one in told.values() for term in one.terms])


class Changes(TestCase):
    plan = plan_of(THREE)

    def test_an_edit_leaves_what_it_does_not_touch_the_very_same(self) -> None:
        edits = [Edit(path="shoot.name", value="Dawn"), Edit(path="beat.exposure_s", value="1/50")]
        plan, undo = apply(self.plan, edits)
        touched = {name for name in Plan.model_fields if getattr(plan, name) is not getattr(self.plan, name)}
        self.assertEqual(touched, {"shoot", "beat"})
        self.assertEqual(plan, Plan.model_validate(plan.model_dump(mode="json")))
        self.assertEqual(apply(plan, undo)[0], self.plan)
        wrong = [Edit(path="frames", value={"source": "none"}), Edit(path="clip.pegs.0.value", value="x")]
        with self.assertRaises(ValidationError) as told:
            apply(self.plan, wrong)
        self.assertEqual(
            [error["loc"] for error in told.exception.errors()], [("clip", "pegs", 0, "value"), ("frames",)]
        )
        for path in ("nothing", "nothing.at.all", "beat.nothing", "move.keyframes.99.pan_deg"):
            with self.subTest(path), self.assertRaises(PathError):
                apply(self.plan, [Edit(path=path, value=1)])

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
