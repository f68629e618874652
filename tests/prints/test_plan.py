"""A print as the source of a shoot's frames: which layers, when, what the stop takes, and fixes that work."""

import hashlib
import io
import math
from contextlib import closing
from datetime import UTC, datetime
from fractions import Fraction
from pathlib import Path
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from bridle.bench.facts import file_facts, layer_source
from bridle.bench.motions import motion_of
from bridle.bench.reading import read
from bridle.core.asks.changes import TypeText, make
from bridle.core.evaluate import evaluate
from bridle.core.plan.frames import Layers
from bridle.core.plan.new import new_plan
from bridle.core.reckon.printing import chosen, layered, printer_of
from bridle.core.subjects.prints.choose import equal_heights, every_nth
from bridle.demo.lantern import lantern
from bridle.formats.plan_json import read_plan
from tests.provoked import fixes_work
from tests.provoked_print import CUP, LAYERS, command, printed
from tests.strategies import shooting

LANTERN = Path(__file__).parents[2] / "bridle" / "demo" / "shoots" / "lattice-lantern.json"


class Chosen(TestCase):
    @given(st.integers(1, 900), st.integers(1, 40), st.integers(1, 900), st.integers(1, 900))
    def test_every_nth_counts_back_from_the_finished_part(self, count: int, nth: int, first: int, last: int) -> None:
        """⌈layers / nth⌉ frames, (last − i) mod nth = 0, by looking at every layer."""
        got = every_nth(count, nth)
        self.assertEqual(got, [i for i in range(1, count + 1) if (count - i) % nth == 0])
        self.assertEqual((len(got), got[-1]), (math.ceil(count / nth), count))
        low, high = min(first, last, count), min(max(first, last), count)
        part = every_nth(count, nth, low, high)
        self.assertEqual(part, [i for i in range(low, high + 1) if (high - i) % nth == 0])

    @given(
        st.lists(st.sampled_from([0.1, 0.15, 0.2, 0.28]), min_size=2, max_size=120), st.sampled_from([0.2, 0.5, 1.0])
    )
    def test_equal_heights_are_as_equal_as_layers_allow(self, thick: list[float], step: float) -> None:
        z = [float(one) for one in np.round(np.cumsum(thick), 3)]
        got = equal_heights(z, step)
        self.assertEqual(got[-1], len(z))
        self.assertEqual(sorted(set(got)), got)
        # Each is the layer nearest to one of the heights, and each height has its nearest layer among them.
        heights = [z[-1] - n * step for n in range(int((z[-1] - z[0]) / step + 0.5) + 1)]
        nearest = {min(abs(one - height) for one in z): height for height in heights}
        for off, height in nearest.items():
            self.assertAlmostEqual(min(abs(z[layer - 1] - height) for layer in got), off)
        self.assertLessEqual(len(got), len(heights))


class StandsStill(TestCase):
    def test_what_does_not_move_has_no_word_about_easing(self) -> None:
        """Twelve frames of a camera that stands: shorter than the ease that a move begins with."""
        plan = new_plan("Cup", "", "", "UTC", datetime(2026, 12, 2, 12, tzinfo=UTC), "print")
        plan = plan.model_copy(update={"frames": LAYERS, "clip": printed().clip})
        self.assertGreater(plan.move.ease_in_frames * 2, len(LAYERS.layers_s))
        self.assertNotIn("move", {snag.chapter for snag in evaluate(plan).snags})
        self.assertFalse(evaluate(plan).clip.chosen)


class Demo(TestCase):
    def test_the_facts_in_the_demo_are_those_of_the_file_that_its_generator_makes(self) -> None:
        plan = read_plan(LANTERN.read_bytes())
        data = "".join(lantern()).encode()
        found = read(lambda: closing(io.BytesIO(data)), motion_of(printer_of(plan)))
        self.assertEqual(
            plan.printing.file, file_facts(found, "lattice-lantern.gcode", hashlib.sha256(data).hexdigest())
        )
        frames = layered(plan)
        assert frames is not None
        self.assertEqual(layer_source(found, frames), frames)
        self.assertEqual((len(found.layers), found.layers[-1].z, len(chosen(frames))), (700, 168.0, 350))
        # What its proof comes to is worked out by whoever looks, and never written into the plan.
        self.assertEqual((plan.printing.proof, evaluate(plan).printing.proof), (None, "none"))


class Times(TestCase):
    def test_each_stop_moves_all_frames_after_it(self) -> None:
        plan = printed()
        stop = evaluate(plan).printing.stop_s
        self.assertGreater(stop, 1)
        starts = shooting(plan).timeline.starts_s
        np.testing.assert_allclose(starts, [n * (80 + stop) for n in range(6)], atol=2e-3)
        told = evaluate(plan)
        self.assertAlmostEqual(told.figures["printing.print"].value, 12 * 40 + 6 * stop, 6)
        # The sentence, too: from the first frame, when two layers are done, to the end of the last one's stop.
        self.assertAlmostEqual(told.figures["clip.shoot"].value, 10 * 40 + 40 + 6 * stop, 2)

    def test_a_stop_s_time_by_hand(self) -> None:
        """From (100, 95) to (228, 200) at 150 mm/s and 1500 mm/s²; 8.4 mm to press at 20 mm/s; 0.8 mm at 35 mm/s twice.

        Held for 0.2 s, and waited for until lag and exposure are over, and a tenth of a second.
        """
        plan = printed(beat__lag_s="1/10", beat__exposure_s="1/2", beat__press_s="1/5")
        far = math.hypot(228 - 100, 200 - 95)
        travel, press = far / 150 + 150 / 1500, 8.4 / 20 + 20 / 1500
        self.assertAlmostEqual(
            evaluate(plan).printing.stop_s, 2 * travel + 2 * press + 2 * 0.8 / 35 + 0.2 + 0.7, delta=0.001
        )

    def test_a_clip_of_a_wanted_length(self) -> None:
        """700 layers, 14 s at 25 a second: every second."""
        many = Layers(layers_s=(Fraction(30),) * 700, every=1)
        offers = evaluate(printed(layers={"layers_s": many.layers_s, "z_mm": ()})).printing.offers
        told = [(one.every, one.frames, one.clip_s) for one in offers[:3]]
        self.assertEqual(told, [(1, 700, 28.0), (2, 350, 14.0), (3, 234, 9.36)])

    def test_so_many_frames_or_so_long_a_clip_are_asked_of_the_layers(self) -> None:
        """Of 700 layers: 14 s are every second, 10 s every third (234 frames are 9.36 s), 100 frames every seventh."""
        plan = printed(layers={"layers_s": (Fraction(30),) * 700, "z_mm": ()})
        for path, text, every in (("clip.clip", "14s", 2), ("clip.clip", "10s", 3), ("clip.frames", "100", 7)):
            after = make(plan, [TypeText(do="type", path=path, text=text)])[0]
            frames = layered(after)
            assert frames is not None
            self.assertEqual(frames.every, every)


class AnyPrint(TestCase):
    @given(
        st.fixed_dictionaries({}, optional={
            "things": st.sampled_from([2, 3]), "tools": st.just((0, 1)), "infills": st.integers(0, 12),
            "parks": st.integers(0, 12),
            "already": st.lists(st.sampled_from([
                command("M600", "pause", 1, 1), command("M240", "fire", 12, 12), command("DO_THIS", "unknown", 2, 0),
                command("G29", "probe", 1, 0), command("G4", "wait", 12, 12),
            ]), max_size=3, unique=True).map(tuple),
            "extents_mm": st.sampled_from([(0.0, 237.0, 5.0, 90.0), (100.0, 120.0, 10.0, 215.0)]),
        }),
        st.fixed_dictionaries({}, optional={
            "extruder": st.just("long tube"), "idle_s": st.sampled_from([Fraction(5), Fraction(30)]),
            "moves": st.sampled_from(["head X Y, bed Z", "head X Y Z"]), "high_x_mm": st.sampled_from([225.0, 236.2]),
            "fires": st.sampled_from(["commands", "pause"]),
        }),
        st.fixed_dictionaries({}, optional={
            "rides": st.sampled_from(["frame", "bed"]), "side": st.just("low"), "axis": st.just("Y"),
            "beyond_mm": st.sampled_from([0.3, 1.0]), "fixed": st.sampled_from(["glued", "magnet"]),
            "up_mm": st.floats(0, 3), "clicks_mm": st.sampled_from([None, -3.0, 100.0, 230.0]),
        }),
        st.fixed_dictionaries({}, optional={
            "back_mm": st.sampled_from([0.0, 2.0, 7.0]), "raise_mm": st.sampled_from([0.5, 20.0]),
            "over_mm": st.sampled_from([0.0, 0.6, 3.0]), "off_mm": st.sampled_from([0.2, 30.0]),
            "where": st.sampled_from(["infill", "change"]),
        }),
        st.fixed_dictionaries({}, optional={
            "printing__distance_mm": st.sampled_from([60.0, 400.0, 2000.0]),
            "printing__seen_from": st.sampled_from(["left", "back", "right"]), "camera__aperture": st.just(16.0),
            "move__marks": st.sampled_from([[CUP], [{**CUP, "y_mm": 1500, "z_mm": 40}]]), "printing__mark": st.just(0),
        }),
    )  # fmt: skip
    def test_every_fix_of_any_print_works(self, file, printer, switch, stop, seen) -> None:  # type: ignore[no-untyped-def]
        plan = printed(file=file, printer=printer, switch=switch, stop=stop, **seen)
        for snag in evaluate(plan).snags:
            if snag.chapter == "print":
                self.assertTrue(snag.fixes, snag.code)
                fixes_work(self, plan, snag)

    def test_the_parts_of_the_demo_leave_no_snag_but_that_nothing_is_proven_yet(self) -> None:
        told = evaluate(read_plan(LANTERN.read_bytes()))
        self.assertEqual(told.printing.missing, ())
        self.assertEqual([snag.code for snag in told.snags if snag.chapter == "print"], ["print-not-proven"])
        self.assertEqual(LAYERS.every, 2)
