"""What is taken along of the light: the list of changes, the calendar, the frame table, notes in a program; places."""

import csv
import io
import itertools
import operator
from collections.abc import Iterable
from datetime import UTC, datetime, timedelta
from fractions import Fraction as F
from typing import Any
from unittest import TestCase

import recurring_ical_events
from icalendar import Calendar

from bridle.core.coordinates import read_place
from bridle.core.evaluate import evaluate
from bridle.core.plan.document import Plan
from bridle.core.plan.rig import Rig
from bridle.core.plan.shoot import Errand
from bridle.core.quantity import QuantityError
from bridle.core.reckon.almanac import almanac
from bridle.formats.calendar_file import write_calendar
from bridle.formats.change_list import write_changes
from bridle.formats.drive_program import program
from bridle.formats.frame_table import write_frames
from bridle.formats.nothing import NothingToWriteError
from tests.provoked import dusk, proof
from tests.strategies import RINGS, copies, fitted, plan_of, shooting

PLACES: dict[str, tuple[float, float]] = {
    "57.32 N, 6.18 W": (57.32, -6.18), "57.32, -6.18": (57.32, -6.18), "57,32 N 6,18 W": (57.32, -6.18),
    "57°19′12″ N 6°10′48″ W": (57.32, -6.18), "N57° 19.2 W6° 10.8": (57.32, -6.18), "6.18W 57.32N": (57.32, -6.18),
    "57 19 12 N 6 10 48 W": (57.32, -6.18), "57°19.2'N 6°10.8'W": (57.32, -6.18), "57,32; −6,18": (57.32, -6.18),
    "-33.8688,151.2093": (-33.8688, 151.2093), "S 33° 52' 10\", E 151° 12' 30\"": (-33 - 52 / 60 - 1 / 360, 151.208333),
    "0 N 0 E": (0, 0), "90 S, 12 E": (-90, 12),
}  # fmt: skip
NO_PLACES = ("", "harbour", "91, 0", "12 N 13 N", "57°61' N, 6 W", "57.5° 19' N, 6 W", "12", "1, 2, 3", "-5 N, 3 E")


def rows(lines: Iterable[str]) -> list[dict[str, str]]:
    return list(csv.DictReader(io.StringIO("".join(lines))))


class Places(TestCase):
    def test_as_people_write_them(self) -> None:
        for text, (latitude, longitude) in PLACES.items():
            with self.subTest(text):
                found = read_place(text)
                self.assertAlmostEqual(found.latitude_deg, latitude, 4)
                self.assertAlmostEqual(found.longitude_deg, longitude, 4)

    def test_what_is_none_is_told(self) -> None:
        for text in NO_PLACES:
            with self.subTest(text), self.assertRaises(QuantityError):
                read_place(text)


class Files(TestCase):
    def setUp(self) -> None:
        densities = [{"stops": 2, "first_frame": 1, "last_frame": 60}]
        self.plan: Plan = dusk(
            school="ramped", densities=densities, proofs=[proof("2026-09-12T19:20+01:00", F(1, 60))], minutes=100
        )

    def test_the_list_of_changes_replayed_gives_the_frame_table(self) -> None:
        changes, frames = rows(write_changes(self.plan)), rows(write_frames(self.plan))
        self.assertEqual(len(frames), 300)
        at, now = {int(row["frame"]): row for row in changes}, changes[0]
        for number, frame in enumerate(frames, 1):
            now = at.get(number, now)
            for name in ("exposure_s", "iso", "f_number", "filter_stops"):
                self.assertEqual(now[name], frame[name], (number, name))
            if number in at:
                self.assertEqual(now["time"][:19], frame["time"][:19])
        self.assertEqual(at[61]["filter_stops"], "0")
        self.assertIn("filter", at[61]["changes"])
        # 32 s are engraved as 30, and 1/128 s as 1/125.
        self.assertIn("1/125 s", {row["shutter"] for row in changes} | {"1/125 s"})
        for row in changes:
            over, _, below = row["shutter"].removesuffix(" s").partition("/")
            self.assertLess(abs(float(over) / float(below or 1) / float(row["exposure_s"]) - 1), 0.13)

    def test_what_is_left_over_is_in_the_table_and_less_than_half_a_step(self) -> None:
        plan = dusk(school="ramped", minutes=60)
        table = rows(write_frames(plan))
        left = [float(row["leftover_stops"]) for row in table]
        self.assertLess(max(map(abs, left)), 0.168)
        dials = operator.itemgetter("exposure_s", "iso", "f_number")
        held = [(before, after) for before, after in itertools.pairwise(table) if dials(before) == dials(after)]
        # Nothing is changed while it gets darker: ever more has to be added in the edit.
        self.assertGreater(len(held), len(table) // 2)
        for before, after in held:
            self.assertGreaterEqual(float(after["leftover_stops"]), float(before["leftover_stops"]), after["frame"])
        self.assertNotIn("leftover_stops", rows(write_frames(dusk(minutes=30)))[0])

    def test_there_is_no_list_where_nothing_changes_or_nobody_knows_the_light(self) -> None:
        nowhere = plan_of({"rate": F(25), "shoot": F(3600), "interval": F(10)}, light={"school": "ramped"})
        for plan, said in ((dusk(minutes=30), "nothing to change"), (nowhere, "its place on earth is needed")):
            with self.assertRaisesRegex(NothingToWriteError, said):
                write_changes(plan)

    def test_a_filter_is_on_everything_that_is_taken_along(self) -> None:
        """Whoever follows the card, the table, the list, the calendar or the program exposes as the plan does."""
        filters = [{"stops": 8}, {"stops": 1, "first_frame": 3, "last_frame": 5}]
        for school in ("locked", "ramped", "automatic"):
            with self.subTest(school):
                axes = Rig(axes=RINGS[:2])
                plan = dusk(school=school, densities=filters, minutes=10).model_copy(update={"rig": axes})
                card = {one.title: one.settings for one in evaluate(plan).review.sheets}
                on = [str(row.value.value) for row in card["Camera"] if row.label == "filter"]
                self.assertEqual(on, ["8 stops, on throughout", "1 stop, on for frames 3 to 5"])
                self.assertIn("filter of 8 stops · filter of 1 stop", str(card["Pack"][0].value.value))
                sets = {row.label.split(",")[0]: str(row.value.value) for row in card["Changes of setting"]}
                self.assertIn("filter of 9 stops on", sets["frame 3"])
                self.assertIn("filter of 8 stops on", sets["frame 6"])
                self.assertEqual(school == "ramped", any("ISO" in one or "1/" in one for one in sets.values()))
                worn = ["8", "8", "9", "9", "9", "8"]
                self.assertEqual([row["filter_stops"] for row in rows(write_frames(plan))][:6], worn)
                listed = {int(row["frame"]): row["filter_stops"] for row in rows(write_changes(plan))}
                self.assertEqual([listed[frame] for frame in (1, 3, 6)], ["8", "9", "8"])
                (shoot,) = [
                    event for event in Calendar.from_ical("".join(write_calendar(plan))).events
                    if event["SUMMARY"] == "Trial"
                ]  # fmt: skip
                self.assertIn("filter of 8 stops", str(shoot["DESCRIPTION"]))
                noted = [text for text in program(plan) if "; camera:" in text]
                self.assertIn("filter of 8 stops", noted[0])
                self.assertIn("filter of 9 stops", "".join(noted))

    def test_a_filter_that_is_a_card_is_packed_once(self) -> None:
        """Two of three stops at a time need two; one after another the same one serves."""
        owned = copies("nd6", nd6={"stops": 3.0, "name": "ND 8, 67 mm"})
        together, apart = {"stops": 3}, {"stops": 3, "first_frame": 5}
        for densities, packed in (
            ([together], "ND 8, 67 mm"),
            ([together, apart], "ND 8, 67 mm · filter of 3 stops"),
            ([{"stops": 3, "last_frame": 4}, apart], "ND 8, 67 mm"),
        ):
            plan = fitted(dusk(densities=densities, minutes=10), owned)
            (row,) = next(one.settings for one in evaluate(plan).review.sheets if one.title == "Pack")
            self.assertEqual(row.value.value, packed)

    def test_the_program_notes_each_setting_before_its_frame(self) -> None:
        plan = self.plan.model_copy(update={"rig": self.plan.rig.model_copy(update={"axes": RINGS[:2]})})
        lines, listed = list(program(plan)), rows(write_changes(plan))
        noted = {
            int(lines[n + 1].split()[2].rstrip(",\n")): line for n, line in enumerate(lines) if "; camera:" in line
        }
        self.assertEqual(sorted(noted), [int(row["frame"]) for row in listed])
        for row in listed:
            self.assertIn(f"{row['shutter']}, ISO {row['iso']}, f/{row['f_number']}", noted[int(row["frame"])])

    def test_another_program_reads_the_calendar_as_it_is_meant(self) -> None:
        text = "".join(write_calendar(self.plan))
        self.assertTrue(text.startswith("BEGIN:VCALENDAR\r\n") and max(map(len, text.encode().split(b"\r\n"))) <= 75)
        calendar = Calendar.from_ical(text)
        day = datetime(2026, 9, 12, tzinfo=UTC)
        events = {
            str(event["SUMMARY"]): event
            for event in recurring_ical_events.of(calendar).between(day, day + timedelta(2))
        }
        shoot = events["Trial"]
        self.assertEqual(shoot["DTSTART"].dt, shooting(self.plan).timeline.start)
        self.assertEqual(shoot["DTEND"].dt - shoot["DTSTART"].dt, timedelta(minutes=100))
        self.assertIn("frame 61:", str(shoot["DESCRIPTION"]))
        (sunset,) = [event for name, event in events.items() if name.startswith("sunset")]
        self.assertEqual(sunset["DTSTART"].dt.strftime("%H:%M"), "19:51")
        start = shooting(self.plan).timeline.start_unix_s
        seen = almanac(57.32, -6.18, start - 21_600, start + 6000 + 21_600)
        self.assertEqual(len([one for one in events if "°" in one]), len(seen))
        # What has to be done before ends when the next thing begins.
        before = [event for name, event in events.items() if name in ("walk there", "test exposure and focus")]
        self.assertEqual(max(event["DTEND"].dt for event in before), shoot["DTSTART"].dt)
        self.assertEqual(len(before), 2)
        self.assertTrue(all(event["DTSTART"].dt < event["DTEND"].dt for event in before))
        (alarm,) = shoot.walk("VALARM")
        self.assertEqual(alarm["TRIGGER"].dt, timedelta(minutes=-10))
        self.assertEqual(text, "".join(write_calendar(self.plan)))

    def test_what_is_done_before_is_done_before_the_press_of_the_button(self) -> None:
        """Twenty minutes, then ten, then a delay of two minutes between the press and the first frame."""
        errands = Errand(name="walk", length_s=F(1200)), Errand(name="level", length_s=F(600))
        clock = self.plan.shoot.clock.model_copy(update={"start_delay_s": F(120), "errands": errands})
        plan = self.plan.model_copy(update={"shoot": self.plan.shoot.model_copy(update={"clock": clock})})
        start = shooting(plan).timeline.start
        events: dict[str, Any] = {
            str(one["SUMMARY"]): one for one in Calendar.from_ical("".join(write_calendar(plan))).events
        }
        for name, begins, ends in (("walk", -32, -12), ("level", -12, -2)):
            said = events[name]["DTSTART"].dt - start, events[name]["DTEND"].dt - start
            self.assertEqual(said, (timedelta(minutes=begins), timedelta(minutes=ends)), name)
