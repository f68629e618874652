"""Work windows: rules, changes of the clocks, days off and the sun, against a count minute by minute."""

from bisect import bisect_left
from datetime import UTC, date, datetime, timedelta
from fractions import Fraction as F
from itertools import pairwise
from typing import Any, Literal
from unittest import TestCase
from zoneinfo import ZoneInfo

import ephem
import pandas
import pvlib
from hypothesis import given
from hypothesis import strategies as st

from bridle.core.asks.changes import HoldPeg, ReleasePeg, StretchDays, TurnDay, TypeText, make
from bridle.core.evaluate import dragged_windows, evaluate
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.core.plan.frames import Windows
from bridle.core.plan.upgrade import plan_from
from bridle.core.reckon.frames.windows import Window, claimed, every_for, settled, spans_of, windows_of
from bridle.core.snag import fill
from bridle.core.subjects.time.windows import at_clock
from tests.strategies import plan_of, shooting

LONDON, HOWE, ASUNCION = "Europe/London", "Australia/Lord_Howe", "America/Santiago"
ALL = [0, 1, 2, 3, 4, 5, 6]
# Both changes of the clocks lie in it, north and south, and that of half an hour.
YEAR = date(2026, 1, 1), date(2026, 12, 31)


def made(*rules: dict[str, Any], first: str = "2026-06-01", last: str = "2026-06-14", **more: Any) -> Windows:
    """Windows every ten minutes within two weeks, but for what is said otherwise."""
    return Windows.model_validate({"every_s": "600", "rules": rules, "first": first, "last": last, **more})


def hours(opens: int, closes: int, days: list[int] = ALL, **more: Any) -> dict[str, Any]:
    return {"weekdays": days, "opens": {"minutes": opens}, "closes": {"minutes": closes}, **more}


def local(windows: tuple[Window, ...], zone: str = LONDON) -> list[tuple[str, str, int]]:
    """Each window as the clock of the place shows it: when it opens and closes, and its frames."""
    said = [(datetime.fromtimestamp(at, ZoneInfo(zone)) for at in window[:2]) for window in windows]
    return [
        (opens.strftime("%a %d %H:%M"), closes.strftime("%a %d %H:%M"), window.frames)
        for (opens, closes), window in zip(said, windows, strict=True)
    ]


class OnTheClock(TestCase):
    def test_windows_across_days_and_what_two_rules_claim(self) -> None:
        """1 June 2026 is a Monday. A week from Sunday night to Friday morning holds 104 hours of six frames."""
        cases: list[tuple[Windows, list[tuple[str, str, int]]]] = [
            (made(hours(1320, 360, [6], closes_on=4), last="2026-06-08"), [("Sun 07 22:00", "Fri 12 06:00", 624)]),
            # The same weekday, before the hour at which it opens, is a week later.
            (made(hours(1320, 360, [0], closes_on=0), last="2026-06-01"), [("Mon 01 22:00", "Mon 08 06:00", 912)]),
            # Over midnight it is the next day's; a closing at the same hour is a whole day later.
            (made(hours(1320, 120), last="2026-06-01"), [("Mon 01 22:00", "Tue 02 02:00", 24)]),
            (made(hours(480, 480, [0]), last="2026-06-02"), [("Mon 01 08:00", "Tue 02 08:00", 144)]),
            # What never closes is one window, and nothing is taken anew at midnight.
            (made(hours(0, 1440), last="2026-06-02", every_s="420"), [("Mon 01 00:00", "Wed 03 00:00", 412)]),
            # The first rule has what both claim; the second what is left, anew behind it.
            (
                made(hours(540, 1020, every_s="60"), hours(480, 1080), last="2026-06-01"),
                [("Mon 01 08:00", "Mon 01 09:00", 6), ("Mon 01 09:00", "Mon 01 17:00", 480),
                 ("Mon 01 17:00", "Mon 01 18:00", 6)],
            ),
            # Half-open: a frame at 8:00 and at 8:10, none at 8:11; one more where only a second is left of a slot.
            (made(hours(480, 491), last="2026-06-01"), [("Mon 01 08:00", "Mon 01 08:11", 2)]),
            # A day off is cut out of the nights before and after it.
            (
                made(hours(1320, 1325), hours(1200, 300), last="2026-06-02",
                     off=[{"first": "2026-06-02", "last": "2026-06-02"}]),
                [("Mon 01 20:00", "Mon 01 22:00", 12), ("Mon 01 22:05", "Tue 02 00:00", 12),
                 ("Wed 03 00:00", "Wed 03 05:00", 30)],
            ),
        ]  # fmt: skip
        for frames, wanted in cases:
            with self.subTest(wanted):
                self.assertEqual([one for one in local(windows_of(frames, LONDON)) if one[2]], wanted)

    def test_an_hour_that_is_left_out_and_one_that_comes_twice(self) -> None:
        """Forward at 1:00 on 29 March 2026, back at 2:00 on 25 October; at Lord Howe by half an hour."""
        for zone, day, opens, closes, wanted in (
            (LONDON, "2026-03-29", 90, 180, ("Sun 29 02:00", "Sun 29 03:00", 6)),
            (LONDON, "2026-03-29", 0, 1440, ("Sun 29 00:00", "Mon 30 00:00", 138)),
            (LONDON, "2026-10-25", 90, 120, ("Sun 25 01:30", "Sun 25 02:00", 9)),
            (LONDON, "2026-10-25", 0, 90, ("Sun 25 00:00", "Sun 25 01:30", 9)),
            (HOWE, "2026-10-04", 0, 1440, ("Sun 04 00:00", "Mon 05 00:00", 141)),
            (HOWE, "2026-04-05", 0, 1440, ("Sun 05 00:00", "Mon 06 00:00", 147)),
        ):
            frames = made(hours(opens, closes), first=day, last=day)
            self.assertEqual(local(windows_of(frames, zone), zone), [wanted])

    @given(
        st.sampled_from([LONDON, HOWE, ASUNCION, "Asia/Kolkata"]), st.sampled_from([-90, -7, 0, 25]),
        st.integers(0, 1439), st.integers(1, 1440), st.lists(st.integers(0, 6), min_size=1, max_size=3, unique=True),
    )  # fmt: skip
    def test_whatever_the_zone_it_opens_and_closes_when_the_clock_first_shows_it(
        self, zone: str, off: int, opens: int, closes: int, days: list[int]
    ) -> None:
        """Minute by minute in UTC, over a week about each change of the clocks."""
        turn = {LONDON: date(2026, 3, 29), HOWE: date(2026, 4, 5), ASUNCION: date(2026, 9, 6)}.get(
            zone, date(2026, 5, 4)
        )
        first = turn + timedelta(days=off)
        frames = made(hours(opens, closes, days), first=str(first), last=str(first + timedelta(days=6)))
        there = ZoneInfo(zone)
        for opened, closed, _ in spans_of(frames, zone):
            at, on = datetime.fromtimestamp(opened, there), datetime.fromtimestamp(closed, there)
            self.assertIn(at.weekday(), days)
            for moment, minute in ((at, opens), (on, closes)):
                # The clock shows it, and did not a minute before; or it jumped over it.
                shown, before = (self._minute(moment + timedelta(minutes=ago)) for ago in (0, -1))
                jumped = (moment - timedelta(seconds=1)).astimezone(there).utcoffset() != moment.utcoffset()
                self.assertTrue(
                    shown == minute % 1440 or (jumped and before < minute % 1440 <= shown), (moment, minute)
                )

    @staticmethod
    def _minute(moment: datetime) -> int:
        there = moment.astimezone(UTC).astimezone(moment.tzinfo)
        return there.hour * 60 + there.minute

    def test_the_midnight_of_every_day_of_a_year(self) -> None:
        for zone in (LONDON, HOWE, ASUNCION, "Africa/Cairo"):
            there, before = ZoneInfo(zone), 0
            for number in range(365):
                day = YEAR[0] + timedelta(days=number)
                at = at_clock(day, 0, there)
                self.assertEqual(datetime.fromtimestamp(at, there).date(), day)
                self.assertEqual(datetime.fromtimestamp(at - 1, there).date(), day - timedelta(days=1))
                self.assertGreater(at, before)
                before = at


rules = st.builds(
    hours, st.integers(0, 1439), st.integers(1, 1440), st.lists(st.integers(0, 6), min_size=1, max_size=7, unique=True),
    every_s=st.sampled_from([None, "60", "240", "1500"]),
)  # fmt: skip


class Together(TestCase):
    @given(st.lists(rules, min_size=1, max_size=4), st.booleans(), st.sampled_from(["97", "600", "3600"]))
    def test_no_frame_lies_outside_and_none_is_taken_twice(self, some: list[Any], off: bool, every: str) -> None:
        """Against a count by hand: each frame lies in a window of its rule and in none of a rule before it."""
        free = [{"first": "2026-03-27", "last": "2026-03-28"}] if off else []
        frames = made(*some, first="2026-03-23", last="2026-04-01", every_s=every, off=free)
        windows = windows_of(frames, LONDON)
        if not windows:
            return
        times = shooting(plan_of({"rate": F(25)}, clip={"frames": frames.model_dump(mode="json")})).timeline
        self.assertEqual(times.frames, sum(window.frames for window in windows))
        self.assertTrue(all(one.closes <= after.opens for one, after in pairwise(windows)))
        claims = [spans_of(frames.model_copy(update={"rules": (rule,), "off": ()}), LONDON) for rule in frames.rules]
        starts = times.start_unix_s + times.starts_s
        at = 0
        for window in windows:
            mine = starts[at : at + window.frames]
            at += window.frames
            self.assertEqual(mine[0], window.opens)
            self.assertLess(mine[-1], window.closes)
            for moment in (mine[0], mine[-1]):
                by = [any(span.opens <= moment < span.closes for span in spans) for spans in claims]
                self.assertEqual(by.index(True), window.rule)
                if off:
                    self.assertNotIn(
                        datetime.fromtimestamp(moment, ZoneInfo(LONDON)).date().isoformat()[-5:], ("03-27", "03-28")
                    )
            # Another would lie outside, or in the next one's time.
            self.assertGreater(mine[-1] + float(window.every_s) * 2, window.closes)


class Asked(TestCase):
    def test_seven_months_of_work_make_a_clip_of_ninety_seconds(self) -> None:
        """Monday to Friday, 7:00 to 17:30, 2 March to 2 October 2026: 155 days of 37 800 s; 2250 frames are wanted.

        In 155 equal windows frames come in steps of 155: 15 a day are 2325, 14 are 2170. Nearest is 2325 (3 s more,
        against 3.2 s less), and the longest interval that leaves fifteen is less than 37800 / 14 = 2700 s.
        """
        days = made(hours(420, 1050, [0, 1, 2, 3, 4]), first="2026-03-02", last="2026-10-02")
        plan = plan_of({"rate": F(25)}, clip={"frames": days.model_dump(mode="json")}, step=F(1))
        after = make(plan, [TypeText(do="type", path="clip.clip", text="1:30")])[0]
        assert isinstance(after.frames, Windows)
        self.assertEqual((shooting(after).frames, shooting(after).solution.interval), (2325, 2699))
        typed = make(plan, [TypeText(do="type", path="clip.interval", text="15 min")])[0]
        self.assertEqual((shooting(typed).frames, evaluate(typed).figures["clip.interval"].value), (155 * 42, 900))

    def test_an_interval_that_is_not_every_rule_s_is_called_so_and_one_that_is_nobody_s_is_refused(self) -> None:
        for own, label in ((None, "interval"), ("60", "interval, where a rule has none of its own")):
            frames = made(hours(480, 720), hours(780, 900, every_s=own))
            plan = plan_of({"rate": F(25)}, clip={"frames": frames.model_dump(mode="json")})
            self.assertEqual(evaluate(plan).figures["clip.interval"].label, label)
        for nobody in (made(hours(480, 720, every_s="60")), made(hours(480, 720, [6]), last="2026-06-05")):
            plan = plan_of({"rate": F(25)}, clip={"frames": nobody.model_dump(mode="json")})
            with self.assertRaisesRegex(ValueError, "no window is open that goes by the interval"):
                make(plan, [TypeText(do="type", path="clip.frames", text="100")])

    @given(st.lists(rules, min_size=1, max_size=3), st.integers(1, 3000))
    def test_no_other_interval_comes_nearer(self, some: list[Any], wanted: int) -> None:
        """Of whole minutes, every one tried."""
        frames = made(*some, first="2026-03-23", last="2026-04-01")
        plan = plan_of({"rate": F(25)}, clip={"frames": frames.model_dump(mode="json")}, step=F(60))
        if all(rule.every_s for rule in frames.rules) or not spans_of(frames, LONDON):
            return
        every = every_for(plan, F(wanted))
        if every is None:
            return

        def count(minutes: int) -> int:
            tried = frames.model_copy(update={"every_s": F(60 * minutes)})
            return sum(window.frames for window in windows_of(tried, LONDON))

        self.assertEqual(every % 60, 0)
        off = abs(count(int(every / 60)) - wanted)
        for minutes in {*range(1, 40), *range(40, 1500, 37)}:
            self.assertLessEqual(off, abs(count(minutes) - wanted), minutes)


class Pegs(TestCase):
    def plan(self) -> Plan:
        """Ten windows of ten hours; intervals are dialled in whole minutes."""
        days = made(hours(480, 1080, [0, 1, 2, 3, 4]))
        return plan_of({"rate": F(25)}, clip={"frames": days.model_dump(mode="json")}, step=F(60))

    def off(self, change: TurnDay | StretchDays, *before: tuple[int, int, str]) -> list[tuple[int, int, str]]:
        """The days off of June after a change: first, last and name of each."""
        rows = [{"first": f"2026-06-{a:02}", "last": f"2026-06-{b:02}", "name": name} for a, b, name in before]
        plan = apply(self.plan(), [Edit(path="frames.off", value=rows)])[0]
        after = make(plan, [change])[0].frames
        assert isinstance(after, Windows)
        return [(one.first.day, one.last.day, one.name) for one in after.off]

    def test_a_day_is_left_out_and_brought_back(self) -> None:
        """Within days off, at an edge of them, beside unnamed ones and between two; named ones keep to themselves."""
        for day, before, after in (
            (5, [(3, 7, "fair")], [(3, 4, "fair"), (6, 7, "fair")]),
            (3, [(3, 7, "fair")], [(4, 7, "fair")]),
            (7, [(3, 7, "fair")], [(3, 6, "fair")]),
            (3, [(3, 3, ""), (9, 9, "")], [(9, 9, "")]),
            (8, [(5, 7, "")], [(5, 8, "")]),
            (4, [(5, 7, "")], [(4, 7, "")]),
            (5, [(1, 4, ""), (6, 8, "")], [(1, 8, "")]),
            (8, [(5, 7, "fair")], [(5, 7, "fair"), (8, 8, "")]),
            (9, [(5, 7, "")], [(5, 7, ""), (9, 9, "")]),
        ):
            with self.subTest(day=day, before=before):
                self.assertEqual(self.off(TurnDay(do="day", day=date(2026, 6, day)), *before), after)

    def test_an_end_of_days_off_takes_the_other_along(self) -> None:
        ends: tuple[tuple[int, Literal["first", "last"], int, list[tuple[int, int, str]]], ...] = (
            (0, "first", 2, [(2, 5, "fair"), (9, 9, "")]),
            (0, "last", 8, [(3, 8, "fair"), (9, 9, "")]),
            (0, "first", 7, [(7, 7, "fair"), (9, 9, "")]),
            (0, "last", 1, [(1, 1, "fair"), (9, 9, "")]),
            (1, "first", 8, [(3, 5, "fair"), (8, 9, "")]),
        )
        for number, end, to, after in ends:
            with self.subTest(number=number, end=end, to=to):
                change = StretchDays(do="stretch", number=number, end=end, day=date(2026, 6, to))
                self.assertEqual(self.off(change, (3, 5, "fair"), (9, 9, "")), after)

    def typed(self, plan: Plan, path: str, text: str) -> Plan:
        return make(plan, [TypeText(do="type", path=path, text=text)])[0]

    def test_a_held_clip_is_never_shorter_and_what_rounding_did_is_told(self) -> None:
        """Of 505 frames for 20.2 s: twelve minutes leave 50 a window, eleven 55."""
        held = self.typed(self.plan(), "clip.clip", "20.2 s")
        told = evaluate(held)
        self.assertEqual((told.frames, told.interval_s), (550, 660))
        (note,) = told.clip.rounding
        self.assertEqual((note.quantity, note.asked, note.got, note.cause), ("clip", 20.2, 22.0, "whole windows"))
        other = evaluate(apply(held, note.fixes[0].edits)[0])
        self.assertEqual((other.frames, other.interval_s), (500, 720))
        # A day off leaves fewer windows: nine of at least 57.
        fewer = make(held, [TurnDay(do="day", day=date(2026, 6, 3))])[0]
        self.assertEqual((evaluate(fewer).frames, evaluate(fewer).interval_s), (9 * 60, 600))

    def test_two_that_do_not_agree_are_told_and_either_peg_can_be_pulled(self) -> None:
        held = self.typed(self.plan(), "clip.clip", "20 s")
        both = make(held, [HoldPeg(do="hold", quantity="interval")])[0]
        self.assertEqual((evaluate(both).clip.state, evaluate(both).frames), ("solved", 500))
        worse = make(both, [TurnDay(do="day", day=date(2026, 6, 3))])[0]
        (snag,) = [one for one in evaluate(worse).snags if one.code == "holds-contradict"]
        self.assertEqual(
            fill(snag.what, snag.slots),
            "These pegs cannot all hold: 20 s of clip at 25 a second (500 frames) against one frame every 12 min "
            "of the windows (450 frames).",
        )
        self.assertEqual([fix.label for fix in snag.fixes], [
            "Pull the peg of the interval", "Pull the peg of the clip length",
        ])  # fmt: skip
        after = [evaluate(apply(worse, fix.edits)[0]) for fix in snag.fixes]
        self.assertEqual([(one.frames, one.interval_s) for one in after], [(9 * 60, 600), (450, 720)])

    def test_typing_takes_over_and_pulling_leaves_it_where_it_was(self) -> None:
        held = self.typed(self.plan(), "clip.frames", "520")
        self.assertEqual(evaluate(held).frames, 500)
        let = make(held, [ReleasePeg(do="release", quantity="frames")])[0]
        self.assertEqual((evaluate(let).frames, evaluate(let).interval_s), (500, 720))
        for path, text in (("clip.interval", "15 min"), ("frames.every_s", "15 min"), ("clip.speed_up", "22500")):
            over = self.typed(held, path, text)
            self.assertEqual((evaluate(over).frames, settled(over).frames.every_s), (400, 900))  # type: ignore[union-attr]
            self.assertEqual({peg.quantity for peg in over.clip.pegs}, {"rate", "interval"})
        with self.assertRaisesRegex(ValueError, "the work windows say how long"):
            self.typed(held, "clip.shoot", "3 d")

    def test_an_older_plan_s_pegs_count_for_nothing_as_they_did(self) -> None:
        data = self.typed(self.plan(), "clip.clip", "20 s").model_dump(mode="json", exclude={"season"})
        self.assertEqual(evaluate(plan_from({**data, "bridle_plan": 9})).interval_s, 600)


FAR: tuple[tuple[float, float, str], ...] = (
    (-70.0, 2.5, "Antarctica/Troll"), (-54.8, -68.3, "America/Argentina/Ushuaia"), (-33.9, 18.4, "Africa/Johannesburg"),
    (-0.2, -78.5, "America/Guayaquil"), (1.4, 173.0, "Pacific/Tarawa"), (1.9, -157.4, "Pacific/Kiritimati"),
    (39.5, 76.0, "Asia/Shanghai"), (43.4, -8.4, "Europe/Madrid"), (64.1, -21.9, "Atlantic/Reykjavik"),
    (64.5, -165.4, "America/Nome"), (68.9, 33.1, "Europe/Moscow"), (71.0, 25.8, "Europe/Oslo"),
)  # fmt: skip
BY_SUN: dict[str, dict[str, Any]] = {
    "day": {"opens": {"by": "sunrise"}, "closes": {"by": "sunset"}},
    "morning": {"opens": {"by": "sunrise"}, "closes": {"by": "clock", "minutes": 480}},
    "until dusk": {"opens": {"by": "clock", "minutes": 600}, "closes": {"by": "sunset"}},
    "evening": {"opens": {"by": "sunset"}, "closes": {"by": "clock", "minutes": 1320}},
    "night": {"opens": {"by": "clock", "minutes": 1200}, "closes": {"by": "sunrise"}},
}
Turns = tuple[float, float]


def by_pvlib(latitude: float, longitude: float, zone: str) -> dict[date, Turns | None]:
    """Sunrise and sunset of the sun's own day whose noon falls on each day, by another almanac; None without both."""
    times = pandas.date_range("2025-12-30", "2027-01-02", freq="D", tz=zone)
    found = pvlib.solarposition.sun_rise_set_transit_spa(times, latitude, longitude)
    made: dict[date, Turns | None] = {}
    for row in found.itertuples():
        day = row.transit.tz_convert(zone).date()
        rises, sets = row.sunrise, row.sunset
        lost = pandas.isna(rises) or pandas.isna(sets)
        made[day] = None if lost else (rises.timestamp(), sets.timestamp())
    return {day: turns for day, turns in made.items() if day.year == 2026}


def by_day(frames: Windows, zone: str, where: tuple[float, float], sun: dict[date, Turns | None]) -> dict[date, Turns]:
    """What a single rule claims, by the day on which it opens: by the sun, the day whose turn is nearest."""
    rule, made = frames.rules[0], {}
    end = int(rule.opens.by == "sunset")
    turns = sorted((one[end], day) for day, one in sun.items() if one is not None)
    for opens, closes in claimed(frames, rule, zone, where):
        day = datetime.fromtimestamp(opens, ZoneInfo(zone)).date()
        if rule.opens.by != "clock":
            at = bisect_left(turns, (opens, day))
            day = min(turns[max(0, at - 1) : at + 1], key=lambda one: abs(one[0] - opens))[1]
        made[day] = (float(opens), float(closes))
    return made


def grazes(turns: Turns) -> bool:
    """Whether the sun is up, or down, for less than an hour and a half."""
    return min(turns[1] - turns[0], 86_400 - (turns[1] - turns[0])) < 5400


def meant(day: date, turns: Turns, after: Turns, zone: str) -> dict[str, Turns | None]:
    """What each rule means on a day, in seconds; None for no window."""

    def clock(minutes: int) -> float:
        return datetime(day.year, day.month, day.day, minutes // 60, minutes % 60, tzinfo=ZoneInfo(zone)).timestamp()

    def span(opens: float, closes: float) -> Turns | None:
        return (opens, closes) if closes > opens else None

    return {
        "day": turns,
        "morning": span(turns[0], clock(480)),
        "until dusk": span(clock(600), turns[1]),
        "evening": span(turns[1], clock(1320)),
        "night": span(clock(1200), after[0]),
    }


class ByTheSun(TestCase):
    def test_it_opens_and_closes_with_the_sun_as_another_almanac_has_it(self) -> None:
        """Half an hour after sunrise to half an hour before sunset, at 57 north, through a year."""
        rule = {"opens": {"by": "sunrise", "minutes": 30}, "closes": {"by": "sunset", "minutes": -30}}
        frames = made(rule, first="2026-01-01", last="2026-12-31")
        spans = spans_of(frames, LONDON, (57.32, -6.18))
        self.assertEqual(len(spans), 365)
        there = ephem.Observer()
        there.lat, there.lon, there.pressure, there.horizon = "57.32", "-6.18", 0, "-0:34"
        for number in range(0, 365, 9):
            day = YEAR[0] + timedelta(days=number)
            there.date = ephem.Date(datetime(day.year, day.month, day.day, 12, 30))
            rise = there.previous_rising(ephem.Sun()).datetime().replace(tzinfo=UTC).timestamp()
            down = there.next_setting(ephem.Sun()).datetime().replace(tzinfo=UTC).timestamp()
            self.assertAlmostEqual(spans[number].opens, rise + 1800, delta=20)
            self.assertAlmostEqual(spans[number].closes, down - 1800, delta=20)

    def test_every_day_of_a_year_at_twelve_places_as_another_almanac_has_it(self) -> None:
        """From 70° south to 71° north, some far from their zone's meridian: the sun's own day decides; none is lost.

        Days on which the sun hardly comes up, or hardly goes down, move by minutes with the almanac: they are left out.
        """
        for latitude, longitude, zone in FAR:
            with self.subTest(zone):
                sun, turned = by_pvlib(latitude, longitude, zone), list[float]()
                for name, rule in BY_SUN.items():
                    frames = made(rule, first="2026-01-02", last="2026-12-30")
                    told = by_day(frames, zone, (latitude, longitude), sun)
                    for day in (date(2026, 1, 2) + timedelta(days=number) for number in range(363)):
                        turns, after = sun.get(day), sun.get(day + timedelta(days=1))
                        if turns is None or after is None or grazes(turns) or grazes(after):
                            continue
                        wanted, found = meant(day, turns, after, zone)[name], told.get(day)
                        if wanted is None or wanted[1] - wanted[0] < 900:
                            self.assertLess(found[1] - found[0] if found else 0, 1800, (name, day))
                            continue
                        self.assertIsNotNone(found, (name, day))
                        assert found is not None
                        for end, edge in enumerate((frames.rules[0].opens, frames.rules[0].closes)):
                            if edge.by != "clock":
                                turned.append(found[end])
                            # Where it hardly turns, that almanac is minutes off: how high the sun stood decides.
                            self.assertAlmostEqual(found[end], wanted[end], delta=2400, msg=f"{name} {day}")
                stood = pvlib.solarposition.get_solarposition(
                    pandas.to_datetime(turned, unit="s", utc=True), latitude, longitude, altitude=0
                )["elevation"]
                self.assertGreater(len(turned), 900)
                self.assertLess(float(abs(stood + 0.8333).max()), 0.02)

    def test_a_day_that_ends_with_the_sun_is_that_day(self) -> None:
        """Monday 10:00 to Monday sunset is some hours, not a week of them; until Tuesday's sunset it is a day more."""
        for closes_on, hours_long in ((0, 6), (1, 30), (6, 6 + 6 * 24)):
            rule = {"weekdays": [0], "opens": {"by": "clock", "minutes": 600}, "closes": {"by": "sunset"},
                    "closes_on": closes_on}  # fmt: skip
            spans = spans_of(made(rule, first="2026-12-14", last="2026-12-14"), LONDON, (57.32, -6.18))
            self.assertEqual([round((one.closes - one.opens) / 3600) for one in spans], [hours_long])

    def test_where_it_does_not_rise_or_nobody_knows_the_place_there_is_no_window(self) -> None:
        rule = {"opens": {"by": "sunrise"}, "closes": {"by": "sunset"}}
        frames = made(rule, first="2026-12-10", last="2026-12-31")
        self.assertEqual(spans_of(frames, "Europe/Oslo", (78.2, 15.6)), ())
        self.assertEqual(spans_of(frames, "Europe/Oslo"), ())

    def test_a_night_goes_from_sunset_to_sunrise(self) -> None:
        rule = {"weekdays": [4], "opens": {"by": "sunset", "minutes": 60}, "closes": {"by": "sunrise"}}
        ((opens, closes, _),) = spans_of(made(rule, last="2026-06-07"), LONDON, (51.5, 0.0))
        said = [datetime.fromtimestamp(at, ZoneInfo(LONDON)).strftime("%a %H") for at in (opens, closes)]
        self.assertEqual(said, ["Fri 22", "Sat 04"])


class Older(TestCase):
    def test_a_plan_with_one_window_has_one_rule(self) -> None:
        kept = plan_of({"rate": F(25)}).model_dump(mode="json", exclude={"season"})
        for window, wanted in (
            ({"opens_min": 420, "closes_min": 1068, "weekdays": [0, 4]}, hours(420, 1068, [0, 4])),
            ({}, {}),
        ):
            span = {"every_s": "150", "first": "2026-01-05", "last": "2026-01-09"}
            plan = plan_from({**kept, "bridle_plan": 8, "frames": {"source": "windows", **span, **window}})
            self.assertEqual(plan.frames, made(wanted, **span))


class Dragged(TestCase):
    def test_while_an_edge_is_dragged_sentence_and_calendar_are_exact_and_the_rest_is_drawn_from_fewer(self) -> None:
        frames = made(hours(0, 1440), first="2026-01-01", last="2026-09-30", every_s="300")
        plan = plan_of({"rate": F(25)}, clip={"frames": frames.model_dump(mode="json")})
        whole, drag = evaluate(plan), dragged_windows(plan, 120)
        # Nine months of five minutes, less the hour that is left out in March; a quarter of them is drawn.
        self.assertEqual(whole.frames, 273 * 288 - 12)
        self.assertEqual(drag.frames, (273 * 288 - 12) / 4)
        self.assertEqual(drag.clip, whole.clip)
        for name in ("rules", "first", "per_day", "inked", "sun", "off"):
            self.assertEqual(getattr(drag.season, name), getattr(whole.season, name), name)
        for key in ("clip.frames", "clip.clip", "season.open", "season.most", "time.finish"):
            self.assertEqual(drag.figures[key], whole.figures[key])
        few = plan_of({"rate": F(25)}, clip={"frames": made(hours(480, 720)).model_dump(mode="json")})
        self.assertEqual(dragged_windows(few, 120).traces, evaluate(few, 120, aside=False).traces)
