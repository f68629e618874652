"""Guided measuring: mean and spread, readings that do not fit, scale against play, and the card that comes of it."""

import math
import statistics
from datetime import date
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from bridle.core.asks.measuring import applied, measure, measures
from bridle.core.plan.kit import AxisCard
from bridle.core.plan.printer import HeadSwitch
from tests.core.test_rig import card
from tests.strategies import CARDS
from tests.workings import worked_out

DAY = date(2026, 11, 3)


class Measuring(TestCase):
    def test_a_short_travel_corrects_the_steps(self) -> None:
        rail = card("belt-rail", drive={"kind": "belt"})
        readings = [[400.0, 396.0], [400.0, 396.2], [800.0, 792.1]]
        told = measure(rail, "travel", readings)
        self.assertTrue(told.accepted)
        self.assertIn("scale is wrong", told.verdict)
        after = applied(rail, "travel", told, readings, DAY, "steel rule")
        assert isinstance(after, AxisCard)
        # New steps per unit: old × commanded / measured.
        self.assertAlmostEqual(after.drive.steps() or 0, 80 * statistics.fmean(c / m for c, m in readings), 3)
        self.assertEqual((after.measured[-1].field, after.measured[-1].on), ("drive.correction", DAY))
        # What is measured with the correction in place corrects the correction.
        again = measure(after, "travel", [[400.0, 400.0], [400.0, 400.0], [800.0, 800.0]])
        self.assertAlmostEqual(again.value, told.value, 5)

    @given(st.floats(0.97, 1.03), st.floats(0.8, 4), st.sampled_from([(400, 800), (100, 350, 700), (150, 150, 600)]))
    def test_play_goes_onto_the_card_as_play_and_the_scale_comes_without_it(
        self, scale: float, play: float, lengths: tuple[int, ...]
    ) -> None:
        """A rail that goes `scale` times as far as it is told, less its play: both come out."""
        rail = card("belt-rail")
        assert isinstance(rail, AxisCard)
        rows = [[float(length), length * scale - play] for length in (*lengths, *lengths)]
        told = measure(rail, "travel", rows)
        self.assertTrue(told.accepted)
        self.assertIn("missing at every length: that is play", told.verdict)
        after = applied(rail, "travel", told, rows, DAY)
        assert isinstance(after, AxisCard)
        self.assertAlmostEqual(after.drive.steps() or 0, (rail.drive.steps() or 0) / scale, 3)
        self.assertAlmostEqual(after.backlash, play, 5)
        self.assertEqual([one.field for one in after.measured[-2:]], ["drive.correction", "backlash"])

    def test_a_rule_that_began_elsewhere_is_no_play(self) -> None:
        told = measure(card("belt-rail"), "travel", [[400.0, 402.0], [400.0, 402.1], [800.0, 802.0], [800.0, 802.1]])
        self.assertEqual(told.play, 0)
        self.assertAlmostEqual(told.mean, 1, 3)
        self.assertIn("2.05 mm comes on top at every length", told.verdict)

    # What is measured, the readings, with what; whether the mean can be taken, and what is said of the scatter.
    SCATTER: tuple[tuple[str, str, list[list[float]], str, bool, str], ...] = (
        ("belt-rail", "travel", [[400, 399], [400, 391], [400, 404]], "rule", False, "a belt that slips"),
        ("belt-rail", "travel", [[30, 29.5], [30, 30.2], [30, 30.4]], "rule", True, "agree"),
        ("belt-rail", "travel", [[30, 29.5], [30, 30.2], [30, 30.4]], "calliper", False, "a calliper explains 0.51 %"),
        ("short-rail", "travel", [[400, 399], [400, 391], [400, 404]], "rule", False, "a nut with play"),
        ("pan-head", "travel", [[90, 89], [90, 90], [90, 90.5]], "eye", True, "agree"),
        ("pan-head", "travel", [[90, 89], [90, 90], [90, 90.5]], "gauge", False, "play between the gears"),
        ("turntable", "rate", [[60, 600], [61, 600], [59.2, 600]], "eye", True, "agree"),
        ("turntable", "rate", [[60, 600], [55, 600], [50, 600]], "eye", True, "A spring slows as it runs down"),
        ("star-mount", "base.0", [[60, 600, 10], [55, 600, 10], [50, 600, 10]], "eye", False, "a clutch that slips"),
        ("switch-dolly", "run.0", [[600], [640], [590]], "watch", True, "a supply that sinks"),
    )

    def test_the_spread_is_judged_by_what_was_read_with_what_over_what_length(self) -> None:
        for name, key, rows, read_with, accepted, said in self.SCATTER:
            with self.subTest(card=name, read_with=read_with):
                told = measure(card(name), key, rows, read_with)
                self.assertEqual(told.accepted, accepted, told.verdict)
                self.assertIn(said, told.verdict)
                self.assertTrue("belt" not in told.verdict or name == "belt-rail", told.verdict)

    def test_mean_and_spread_stand_in_the_unit_that_was_read(self) -> None:
        told = {one.key: one for one in measure(card("turntable"), "rate", [[60, 600], [61, 600], [59, 600]]).figures}
        self.assertEqual((told["read.mean"].value, told["read.mean"].unit), (60, "deg"))
        self.assertAlmostEqual(told["read.spread"].value, statistics.stdev([60, 61, 59]))
        self.assertAlmostEqual(told["spread"].value, statistics.stdev([6, 6.1, 5.9]))
        self.assertAlmostEqual(told["explained"].value, 1.5 * math.hypot(1 / 59, 0.3 / 600))

    def test_a_burst_is_timed_from_its_first_picture(self) -> None:
        """Ten pictures of 2.2 s each, in a burst of 3 s: 22 s after the first. A card that keeps up is told."""
        body = card("full-frame-body")
        told = measure(body, "write", [[10, 3, 22.0], [10, 3, 22.1], [5, 1.5, 11.0]])
        self.assertAlmostEqual(told.value, 2.2, 2)
        self.assertIn("agree", told.verdict)
        self.assertIn("kept up with it", measure(body, "write", [[10, 5, 5.3], [10, 5, 5.2], [10, 5, 5.3]]).verdict)

    def test_the_reading_that_does_not_fit_is_pointed_out(self) -> None:
        told = measure(card("full-frame-body"), "write", [[10, 3, s] for s in (22, 22.3, 21.8, 41, 22.1)])
        self.assertEqual((told.accepted, told.odd), (False, (3,)))
        self.assertIn("Reading 4 does not fit", told.verdict)

    def test_each_measure_of_each_card_gives_a_figure_with_its_working(self) -> None:
        for name in CARDS:
            for one in measures(card(name)):
                with self.subTest(card=name, measure=one.key):
                    readings = [[3.0 * len(one.columns) ** j for j in range(len(one.columns))]] * 3
                    told = measure(card(name), one.key, readings)
                    for figure in told.figures:
                        self.assertAlmostEqual(worked_out(figure), figure.value, 6, figure.key)
                    after = applied(card(name), one.key, told, readings, DAY)
                    self.assertEqual(len(after.measured), len(card(name).measured) + 1)
                    self.assertTrue(one.how)

    def test_where_a_switch_clicks_may_be_anywhere_and_counts_by_its_scatter_in_millimetres(self) -> None:
        """Jogs of 0.1 mm explain 0.15 mm, whether the axis counts from one end or from the middle."""
        switch = HeadSwitch(name="lever switch", side="low")
        for shift in (0.0, -240.0, 1000.0):
            told = measure(switch, "click", [[240.0 + shift], [240.1 + shift], [240.2 + shift]])
            self.assertTrue(told.accepted)
            self.assertAlmostEqual(told.value, 240.1 + shift)
            after = applied(switch, "click", told, [], DAY)
            assert isinstance(after, HeadSwitch) and after.clicks_mm is not None
            self.assertAlmostEqual(after.clicks_mm, 240.1 + shift)
            self.assertEqual(after.read_on, DAY)
            loose = measure(switch, "click", [[240.0 + shift], [240.3 + shift], [240.6 + shift]])
            self.assertEqual((loose.accepted, "0.3 mm" in loose.verdict), (False, True), loose.verdict)

    @given(st.lists(st.floats(0.1, 60), min_size=2, max_size=12))
    def test_mean_and_spread_are_those_of_the_library(self, values: list[float]) -> None:
        told = measure(card("full-frame-body"), "wake", [[value] for value in values])
        self.assertAlmostEqual(told.mean, statistics.fmean(values))
        self.assertAlmostEqual(told.spread, statistics.stdev(values))

    def test_what_is_no_reading_is_told(self) -> None:
        for readings in ([], [[1.0]], [[0.0, 1.0]], [[-4.0, 3.0]], [[float("inf"), 1.0]]):
            with self.subTest(readings), self.assertRaises(ValueError):
                measure(card("belt-rail"), "travel", readings)
        with self.assertRaises(ValueError):
            measure(card("tripod"), "travel", [[1.0, 1.0]])
