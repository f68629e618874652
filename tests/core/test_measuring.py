"""Guided measuring: mean and spread, readings that do not fit, scale against play, and the card that comes of it."""

import statistics
from datetime import date
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from bridle.core.asks.measuring import applied, measure, measures
from bridle.core.plan.kit import AxisCard
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

    def test_a_constant_error_is_a_play_and_no_wrong_scale(self) -> None:
        told = measure(card("belt-rail"), "travel", [[400, 399.0], [400, 399.02], [800, 799.0], [800, 799.01]])
        self.assertIn("0.99 is missing at every length", told.verdict)

    def test_a_slipping_belt_is_refused(self) -> None:
        told = measure(card("belt-rail"), "travel", [[400, 399], [400, 391], [400, 404]])
        self.assertFalse(told.accepted)
        self.assertIn("more than 0.3 %", told.verdict)

    def test_the_reading_that_does_not_fit_is_pointed_out(self) -> None:
        told = measure(card("full-frame-body"), "write", [[10, 22], [10, 22.3], [10, 21.8], [10, 41], [10, 22.1]])
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
