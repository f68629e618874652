"""The chapter Long run: rules as sentences, hours as they are typed, and a calendar that shows every frame."""

from datetime import date
from fractions import Fraction as F
from typing import Any
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from bridle.core.asks.changes import Begin, Drop, TypeText, make
from bridle.core.evaluate import evaluate
from bridle.core.plan.document import Plan
from bridle.core.plan.frames import Edge, Rule, Windows
from bridle.core.plan.hours import edge_said, read_edge, rule_said
from bridle.core.quantity import QuantityError
from bridle.core.reckon.frames.windows import spans_of
from tests.core.test_windows import LONDON, hours, rules
from tests.provoked_season import scheduled
from tests.strategies import plan_of, shooting


class Words(TestCase):
    def test_each_rule_is_a_sentence(self) -> None:
        for rule, said in (
            (hours(420, 1050, [0, 1, 2, 3, 4]), "Monday to Friday, 7:00 to 17:30"),
            (hours(0, 1440), "Every day, all day"),
            (hours(1320, 120, [5, 6]), "Saturday and Sunday, 22:00 to 2:00 of the next day"),
            (hours(1320, 360, [6], closes_on=4), "Sunday 22:00 to Friday 6:00"),
            (hours(540, 600, [0, 2, 4], every_s="90"), "Monday, Wednesday and Friday, 9:00 to 10:00, every 1 min 30 s"),
            ({"opens": {"by": "sunrise", "minutes": -45}, "closes": {"by": "sunset"}},
             "Every day, 45 min before sunrise to sunset"),
            (hours(480, 720, first="2026-03-02", last="2026-10-04"),
             "Every day, 8:00 to 12:00, from 2 March 2026, until 4 October 2026"),
        ):  # fmt: skip
            self.assertEqual(rule_said(Rule.model_validate(rule)), said)

    def test_hours_as_people_type_them(self) -> None:
        for text, said in (
            ("7:00", "7:00"), ("7", "7:00"), ("07.30", "7:30"), ("5:15 pm", "17:15"), ("12 am", "0:00"),
            ("24:00", "24:00"), ("sunrise", "sunrise"), ("30 min before sunset", "30 min before sunset"),
            ("1h after sunrise", "1 h after sunrise"),
        ):  # fmt: skip
            with self.subTest(text):
                edge = read_edge(text)
                self.assertEqual(edge_said(edge), said)
                self.assertEqual(read_edge(edge_said(edge)), edge)
        for wrong in ("", "25:00", "7:60", "13 pm", "noonish", "moonrise", "24:01", "20 h after sunset"):
            with self.subTest(wrong), self.assertRaises(QuantityError):
                read_edge(wrong)

    @given(st.integers(0, 1440))
    def test_what_is_said_of_an_hour_is_read_as_that_hour(self, minutes: int) -> None:
        self.assertEqual(read_edge(edge_said(Edge(minutes=minutes))).minutes, minutes)


class Calendar(TestCase):
    @given(st.lists(rules, min_size=1, max_size=3), st.booleans())
    def test_it_shows_every_frame_on_its_day_and_every_window_in_its_hours(self, some: list[Any], off: bool) -> None:
        free = [{"first": "2026-10-24", "last": "2026-10-24"}] if off else []
        plan = scheduled(*some, first="2026-10-19", last="2026-10-27", off=free)
        told = evaluate(plan)
        season, frames = told.season, plan.frames
        assert isinstance(frames, Windows)
        self.assertEqual(sum(season.per_day), told.frames or 0)
        self.assertEqual(sum(rule.frames for rule in season.rules), told.frames or 0)
        if off:
            self.assertEqual((season.per_day[5], season.off.index(True)), (0, 5))
        cells = [season.inked[n : n + 4] for n in range(0, len(season.inked), 4)]
        for day, begin, end, rule in cells:
            self.assertTrue(0 <= begin < end <= 1440 or day == 6, (day, begin, end))
            self.assertFalse(off and day == 5)
            self.assertLess(rule, len(frames.rules))
        # But for the night of 25 October, in which the clocks go back, minutes are minutes.
        open_min = sum((span.closes - span.opens) // 60 for span in spans_of(frames, LONDON))
        self.assertLessEqual(abs(open_min - sum(end - begin for _, begin, end, _ in cells)), 60)

    def test_a_shoot_is_scheduled_and_one_interval_again(self) -> None:
        """A site is worked by day; its interval and its days stay."""
        plan = plan_of({"rate": F(25), "interval": F(1800), "shoot": F(30 * 86_400)})
        site = plan.model_copy(update={"shoot": plan.shoot.model_copy(update={"kind": "site"})})
        after = make(site, [Begin(do="begin", path="frames")])[0]
        assert isinstance(after.frames, Windows)
        self.assertEqual(
            (after.frames.every_s, after.frames.first, after.frames.last, rule_said(after.frames.rules[0])),
            (1800, date(2026, 9, 27), date(2026, 10, 27), "Monday to Friday, 7:00 to 17:00"),
        )
        more = make(after, [Begin(do="begin", path="frames.rules"), Begin(do="begin", path="frames.off")])[0]
        typed = make(more, [TypeText(do="type", path="frames.rules.1.opens", text="1 h after sunrise")])[0]
        self.assertEqual(self.rules(typed)[1], "Saturday, 1 h after sunrise to 24:00")
        self.assertEqual(self.rules(make(typed, [Drop(do="drop", path="frames.rules.0")])[0]), self.rules(typed)[1:])
        with self.assertRaises(QuantityError):
            make(after, [TypeText(do="type", path="frames.rules.0.opens", text="soon")])
        self.assertEqual(shooting(after).timeline.rooms_s.max(), 1800)

    @staticmethod
    def rules(plan: Plan) -> list[str]:
        assert isinstance(plan.frames, Windows)
        return [rule_said(rule) for rule in plan.frames.rules]
