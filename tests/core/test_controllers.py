"""What a controller with few rules of its own is told: every window is covered, what it takes besides is counted."""

from datetime import UTC, datetime, timedelta
from fractions import Fraction as F
from typing import Any
from unittest import TestCase
from zoneinfo import ZoneInfo

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from bridle.core.evaluate import evaluate
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.core.reckon.season.season import staying
from bridle.core.reckon.season.told import Menu, compared, entries_of, in_its_own_words, menus, taken, told_frames
from tests.core.test_windows import ALL, ASUNCION, HOWE, LONDON, hours
from tests.provoked_staying import CARD, TIMER, another, camera
from tests.strategies import shooting

DAY_S = 86_400


def told_by(
    *rules: dict[str, Any], first: str = "2026-06-01", last: str = "2026-06-14", every_s: int = 600,
    zone: str = LONDON, card: dict[str, Any] = TIMER, **schedule: Any,
) -> Plan:  # fmt: skip
    """A plan of these rules, with a timer that has such a schedule."""
    known = {**card, "schedule": schedule} if schedule else card
    data = camera(another(CARD, gigabytes=512.0)).model_dump(mode="json")
    data["frames"] = {"source": "windows", "every_s": str(every_s), "rules": rules, "first": first, "last": last}
    data["shoot"]["place"]["zone"] = zone
    data["kit"]["copies"][-1]["card"] = known
    return Plan.model_validate(data)


FOLLOWS: dict[str, Any] = {"follows_change": "yes"}


# Windows that are joined over their midnights for days, weeks or months, and others that are not.
JOINED = (
    [hours(0, 1440)], [hours(0, 1440, [0, 1, 2, 3, 4])], [hours(1320, 360)], [hours(420, 1050), hours(1320, 360)],
    [{"weekdays": [6], "opens": {"minutes": 1320}, "closes": {"minutes": 360}, "closes_on": 4}],
    [hours(0, 720), hours(720, 1440)],
)  # fmt: skip


class Visited(TestCase):
    @given(
        st.sampled_from(JOINED), st.integers(1, 4), st.booleans(),
        st.sampled_from(["any weekdays", "weekdays or weekends", "every day alone"]),
        st.lists(st.integers(1, 60), max_size=4),
    )  # fmt: skip
    def test_what_is_covered_before_a_visit_is_covered_after_it(
        self, rules: list[dict[str, Any]], spans: int, over: bool, known: str, days: list[int]
    ) -> None:
        """Windows of two months, told anew at some visits: no frame is lost that one telling for all would take."""
        plan = told_by(*rules, last="2026-07-31", spans=spans, over_midnight=over, days=known, **FOLLOWS)
        times = shooting(plan).timeline
        visits = [times.start_unix_s + day * DAY_S + 36_000 for day in sorted(set(days))]
        once, often = (told_frames(plan, times, menus(plan, times, at, ())).compared for at in ((), visits))
        self.assertLessEqual(len(often.missing), len(once.missing), visits)


class Asleep(TestCase):
    def test_what_sleeps_between_two_windows_is_told(self) -> None:
        """Ten minutes by day, 13 h 40 min from 17:20 to 7:00: after an hour's sleep a first frame is lost."""
        for rules, sleeps_s, gap in (
            (hours(420, 1050), 3600, 13 * 3600 + 40 * 60), (hours(420, 1050), 54_000, None),
            (hours(0, 1440), 3600, None), (hours(0, 1440), 300, 600),
        ):  # fmt: skip
            with self.subTest(rules=rules, sleeps_s=sleeps_s):
                plan = told_by(rules, card={**TIMER, "sleeps_after_s": str(sleeps_s)})
                found = [snag for snag in evaluate(plan).snags if snag.code == "falls-asleep"]
                self.assertEqual([snag.slots["gap"].value for snag in found], [gap] if gap else [])


class Entries(TestCase):
    def test_the_closest_of_its_own_rules(self) -> None:
        weekdays, night = hours(420, 1050, [0, 1, 2, 3, 4]), hours(1320, 360, [0, 2])
        for rules, schedule, days, spans in (
            ((weekdays,), {}, (0, 1, 2, 3, 4), ((420, 1050),)),
            ((weekdays,), {"days": "every day alone"}, tuple(ALL), ((420, 1050),)),
            ((hours(420, 600, [5]),), {"days": "weekdays or weekends"}, (5, 6), ((420, 600),)),
            ((weekdays, hours(500, 600, [5])), {"days": "weekdays or weekends"}, tuple(ALL), ((420, 1050),)),
            # Two a day, and the two that lie closest made one where it knows but one or two.
            ((hours(360, 420), hours(600, 660), hours(700, 760)), {"spans": 2}, tuple(ALL), ((360, 420), (600, 765))),
            ((hours(360, 420), hours(600, 660)), {}, tuple(ALL), ((360, 665),)),
            # In quarters of an hour, wide enough.
            ((hours(421, 1049),), {"step_min": 15}, tuple(ALL), ((420, 1065),)),
            ((night,), {}, (0, 2), ((1320, 1800),)),
            # Without midnight: the days on both sides, and the whole of them.
            ((night,), {"over_midnight": False}, (0, 1, 2, 3), ((0, 1440),)),
            ((night,), {"over_midnight": False, "spans": 2}, (0, 1, 2, 3), ((0, 360), (1320, 1440))),
        ):
            with self.subTest(rules=rules, schedule=schedule):
                plan = told_by(*rules, **FOLLOWS, **schedule)
                entries = entries_of(plan, shooting(plan).timeline)
                assert entries is not None
                self.assertEqual((entries.days, entries.spans, entries.every_s), (days, spans, F(600)))

    def test_a_clock_that_is_not_put_back_is_told_both_hours(self) -> None:
        """Port Ellary, Sunday 25 October 2026: from then on eight o'clock is an hour earlier on the old clock."""
        rule = hours(480, 600)
        around: dict[str, Any] = {"first": "2026-10-19", "last": "2026-11-01"}
        for follows, spans in (("yes", ((480, 600),)), ("no", ((480, 665),)), ("not known", ((480, 665),))):
            plan = told_by(rule, **around, follows_change=follows)
            found = entries_of(plan, shooting(plan).timeline)
            self.assertEqual(found and found.spans, spans)

    def test_who_is_told_all_and_who_has_no_hours(self) -> None:
        for source, own in (("controller", False), ("computer", False), ("wired remote", True), ("camera timer", True)):
            plan = told_by(hours(480, 600), card=another(TIMER, source=source, schedule=None))
            self.assertEqual(in_its_own_words(plan) is not None, own, source)
        plan = told_by(hours(480, 600), card=another(TIMER, schedule=None))
        told = evaluate(plan)
        # Two hours of six frames on fourteen days; day and night from the first to the last of them: 13 d 2 h.
        self.assertEqual(told.figures["told.kept"].value, 14 * 12)
        self.assertEqual(told.figures["told.surplus"].value, (13 * 24 + 2) * 6 - 14 * 12)
        # All of them are stored.
        self.assertAlmostEqual(told.figures["season.all"].value, (13 * 24 + 2) * 6 * 31.2 / 1000)


schedules = st.fixed_dictionaries(
    {
        "days": st.sampled_from(["any weekdays", "weekdays or weekends", "every day alone"]),
        "spans": st.integers(1, 3),
        "step_min": st.sampled_from([1, 15, 60]),
        "over_midnight": st.booleans(),
        "follows_change": st.sampled_from(["yes", "no", "not known"]),
    }
)
rules = st.builds(
    lambda opens, long, days: hours(opens, (opens + long - 1) % 1440 + 1, sorted(days)),
    st.integers(0, 1439), st.integers(30, 1440), st.sets(st.integers(0, 6), min_size=1),
)  # fmt: skip


class Covered(TestCase):
    @given(
        st.lists(rules, min_size=1, max_size=3), schedules, st.sampled_from([LONDON, HOWE, ASUNCION, "Asia/Kolkata"]),
        st.sampled_from(["2026-03-20", "2026-10-20", "2026-06-01", "2026-03-30"]), st.sampled_from([300, 600, 1260]),
    )  # fmt: skip
    def test_no_planned_frame_is_missed_whatever_it_knows(
        self, some: list[Any], schedule: dict[str, Any], zone: str, first: str, every_s: int
    ) -> None:
        last = str(np.datetime64(first) + 16)
        plan = told_by(*some, **schedule, first=first, last=last, every_s=every_s, zone=zone)
        times = shooting(plan).timeline
        entries = entries_of(plan, times)
        assert entries is not None
        start = times.start_unix_s
        got = taken(zone, Menu(start - every_s / 2, start + float(times.end_s), entries))
        found = compared(times, got)
        # Where one window opens just after another two frames come closer than its interval: it has one of them.
        planned = start + times.starts_s
        alone = [at for at in found.missing.tolist() if np.sum(np.abs(planned - at) < every_s) == 1]
        # What is due in the last moments of a day may be the next day's, which it takes no part in.
        ahead, half = entries.offset_s, timedelta(seconds=every_s / 2)
        zoned = ZoneInfo(zone) if ahead is None else UTC
        clocks = [datetime.fromtimestamp(at + (ahead or 0), zoned) for at in alone]
        self.assertEqual([clock for clock in clocks if (clock + half).date() == clock.date()], [])
        self.assertEqual(found.kept + len(found.surplus), len(got))
        self.assertTrue(np.all(np.diff(got) > 0))
        # It knows nothing else than what it can be told.
        self.assertLessEqual(len(entries.spans), schedule["spans"])
        self.assertTrue(all(one % schedule["step_min"] == 0 for span in entries.spans for one in span))

    def test_its_runs_change_at_visits_and_lose_what_falls_into_them(self) -> None:
        plan = told_by(
            hours(420, 1050, [0, 1, 2, 3, 4]), hours(480, 720, [5], first="2026-06-19"), last="2026-07-12", **FOLLOWS
        )
        plan, _ = apply(plan, [Edit(path="season.visiting.arranged", value=["2026-06-10"])])
        stay = staying(shooting(plan))
        assert stay is not None
        self.assertEqual([menu.entries.days for menu in stay.menus], [(0, 1, 2, 3, 4), (0, 1, 2, 3, 4, 5)])
        self.assertEqual(stay.coming.visits[0].tasks, ("put in other hours",))
        # From ten to a quarter to eleven: 10:00, 10:10, 10:20, 10:30, 10:40.
        self.assertEqual(told_frames(plan, shooting(plan).timeline, stay.menus).stopped, 5)

    def test_its_longest_run_is_chained(self) -> None:
        card = another(TIMER, longest_run_s=str(9 * DAY_S), schedule=FOLLOWS)
        plan = told_by(hours(480, 600), last="2026-06-28", card=card)
        stay = staying(shooting(plan))
        assert stay is not None
        edges = [stay.menus[0].from_s, *(menu.to_s for menu in stay.menus)]
        self.assertEqual(len(stay.menus), 4)
        self.assertLessEqual(max(np.diff(edges)), 9 * DAY_S)
