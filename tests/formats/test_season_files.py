"""What is taken along of a long run: windows and visits in a calendar that others read, the controller's frames."""

import csv
import io
import re
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any
from unittest import TestCase
from zoneinfo import ZoneInfo

import recurring_ical_events
from hypothesis import given
from hypothesis import strategies as st
from icalendar import Calendar

from bridle.core.plan.document import Plan
from bridle.core.plan.frames import Windows
from bridle.core.reckon.frames.windows import spans_of, where_of
from bridle.core.reckon.season.season import staying
from bridle.core.subjects.time.windows import Span
from bridle.formats.calendar_file import write_calendar
from bridle.formats.nothing import NothingToWriteError
from bridle.formats.plan_json import read_plan
from bridle.formats.told_table import write_told
from tests.core.test_controllers import rules, told_by
from tests.core.test_windows import ASUNCION, HOWE, LONDON
from tests.provoked_staying import BATTERY, camera
from tests.strategies import shooting

MILL = read_plan((Path(__file__).parents[2] / "bridle/demo/shoots/mill-weir-footbridge.json").read_bytes())
WINDOW = "a frame every"


def read_back(plan: Plan) -> tuple[Calendar, list[Any]]:
    """The calendar file, and every event of it as another library tells them, day by day."""
    calendar = Calendar.from_ical("".join(write_calendar(plan)))
    frames = plan.frames
    assert isinstance(frames, Windows)
    first, last = (datetime(day.year, day.month, day.day, tzinfo=UTC) for day in (frames.first, frames.last))
    return calendar, recurring_ical_events.of(calendar).between(first - timedelta(2), last + timedelta(9))


def all_spans(plan: Plan) -> tuple[Span, ...]:
    assert isinstance(plan.frames, Windows)
    return spans_of(plan.frames, plan.shoot.place.zone, where_of(plan))


def windows(events: list[Any]) -> list[tuple[int, int]]:
    return sorted(
        (int(one["DTSTART"].dt.timestamp()), int(one["DTEND"].dt.timestamp()))
        for one in events if WINDOW in str(one["SUMMARY"])
    )  # fmt: skip


class Calendars(TestCase):
    def test_the_bridge_is_few_entries_and_every_window(self) -> None:
        calendar, events = read_back(MILL)
        spans = all_spans(MILL)
        self.assertEqual(windows(events), [span[:2] for span in spans])
        lines = "".join(write_calendar(MILL)).replace("\r\n ", "")
        self.assertEqual(re.findall("BYDAY=([A-Z,]+)", lines[lines.index("BEGIN:VEVENT") :]), ["MO,TU,WE,TH,FR", "SA"])
        self.assertEqual({str(zone["TZID"]) for zone in calendar.walk("VTIMEZONE")}, {"Europe/London"})
        stay = staying(shooting(MILL))
        assert stay is not None
        said = {str(one["SUMMARY"]).partition(": ")[2]: one for one in events}
        for visit in stay.coming.visits:
            with self.subTest(visit.tasks):
                event = said[", ".join(visit.tasks)]
                self.assertIn(event["DTSTART"].dt.timestamp(), [one.at for one in stay.coming.visits])
                self.assertEqual(event["DTEND"].dt - event["DTSTART"].dt, timedelta(minutes=45))
                (alarm,) = event.walk("VALARM")
                self.assertEqual(alarm["TRIGGER"].dt, timedelta(days=-1))

    @given(
        st.lists(rules, min_size=1, max_size=3), st.sampled_from([LONDON, HOWE, ASUNCION, "Asia/Kolkata"]),
        st.sampled_from(["2026-03-16", "2026-09-28", "2026-10-12", "2026-06-01"]),
        st.lists(st.integers(0, 40), max_size=4, unique=True),
    )  # fmt: skip
    def test_it_is_read_back_as_the_same_windows(self, some: list[Any], zone: str, first: str, off: list[int]) -> None:
        """Both changes of the clocks, half an hour's too, days off, windows over midnight."""
        begin = datetime.fromisoformat(first).date()
        plan = told_by(*some, first=first, last=str(begin + timedelta(40)), zone=zone, every_s=3600)
        days = [{"first": str(begin + timedelta(day)), "last": str(begin + timedelta(day))} for day in sorted(off)]
        data = plan.model_dump(mode="json")
        plan = Plan.model_validate({**data, "frames": {**data["frames"], "off": days}})
        spans = all_spans(plan)
        if spans:
            self.assertEqual(windows(read_back(plan)[1]), [span[:2] for span in spans])

    def test_windows_by_the_sun_are_told_one_by_one(self) -> None:
        sun = {"opens": {"by": "sunrise"}, "closes": {"by": "sunset", "minutes": -30}}
        plan = told_by({"weekdays": [0, 2, 4], **sun}, last="2026-06-28")
        calendar, events = read_back(plan)
        spans = all_spans(plan)
        self.assertEqual(windows(events), [span[:2] for span in spans])
        self.assertEqual([one for one in calendar.walk("VEVENT") if "RRULE" in one], [])


class Told(TestCase):
    def test_what_the_controller_takes_besides(self) -> None:
        rows = list(csv.DictReader(io.StringIO("".join(write_told(MILL)))))
        zone = ZoneInfo("Europe/London")
        self.assertEqual([row["frame"] for row in rows].count("missed"), 2)
        self.assertEqual(len(rows), 519)
        # Days off are none to it: at Easter it goes on.
        easter = [row for row in rows if row["clock"].startswith("2026-04-06")]
        self.assertEqual(len(easter), 15)
        for row in rows:
            clock, utc = datetime.fromisoformat(row["clock"]), datetime.fromisoformat(row["utc"])
            self.assertEqual(clock, utc)
            self.assertEqual(clock.utcoffset(), utc.astimezone(zone).utcoffset())

    def test_there_is_none_where_it_is_told_the_windows(self) -> None:
        board = camera(BATTERY).model_dump(mode="json")
        board["kit"]["copies"][-1]["card"] |= {"source": "controller", "schedule": None}
        with self.assertRaises(NothingToWriteError):
            write_told(Plan.model_validate(board))
