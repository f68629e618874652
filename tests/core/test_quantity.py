"""Reading and writing quantities as people do."""

from datetime import datetime
from fractions import Fraction
from unittest import TestCase
from zoneinfo import ZoneInfo

from hypothesis import given
from hypothesis import strategies as st

from bridle.core.quantity import QuantityError, read, read_clock, spoken, write

READ = [
    ("2h24", "shoot", 8640), ("2 h 24 min", "shoot", 8640), ("1:30", "shoot", 5400), ("1:02:03", "shoot", 3723),
    ("90", "shoot", 5400), ("3d 2h", "shoot", 266_400), ("90s", "duration", 90), ("1:30", "duration", 90),
    ("1/60", "duration", Fraction(1, 60)), ("1/60 s", "duration", Fraction(1, 60)), ("0,5", "duration", Fraction(1, 2)),
    ("2 min 5", "duration", 125), ("480", "count", 480), ("1 200 frames", "count", 1200),
    ("29.97", "rate", Fraction(30000, 1001)), ("24000/1001", "rate", Fraction(24000, 1001)),
    ("25 a second", "rate", 25), ("24 fps", "rate", 24), ("480×", "times", 480), ("1.2 m", "length", 1200),
    ("40in", "length", 1016), ("35mm", "length", 35), ("−7.6°", "angle", Fraction(-38, 5)),
    ("5' 4 1/2\"", "length", Fraction("1638.3")), ("5'4", "length", Fraction("1625.6")),
    ("3 ft", "length", Fraction("914.4")),
    ("2 lb 3 oz", "mass", 35 * Fraction("28.349523125")), ("1 1/2", "duration", Fraction(3, 2)),
    ("1/3", "stops", Fraction(1, 3)),
    ("4 °/min", "deg/min", 4), ("1 °/s", "deg/min", 60), ("25 mm/s", "mm/s", 25), ("140 px", "pixels", 140),
    ("10 %", "share", Fraction(1, 10)), ("f8", "f-number", 8), ("f/5.6", "f-number", Fraction(28, 5)),
]  # fmt: skip
REFUSED = [
    ("", "duration"), ("what", "duration"), ("12 parsecs", "duration"), ("5 min 2 h", "duration"), ("-3", "duration"),
    ("1/0", "duration"), ("4.5", "count"), ("9" * 60, "count"), ("99999999999", "count"), ("1e9", "duration"),
    ("3 1/0", "length"), ("1/2/3", "length"), ("2 oz 1 lb", "mass"), ("nan", "length"), ("20 s 5 s", "duration"),
    ("1:2:3:4", "shoot"),
]  # fmt: skip
WRITTEN: list[tuple[float | Fraction, str, str]] = [
    (8640, "s", "2 h 24 min"), (5500, "s", "1 h 31 min 40 s"), (12.012, "s", "12.012 s"), (1 / 60, "shutter", "1/60 s"),
    (2.5, "shutter", "2.5 s"), (Fraction(30000, 1001), "rate", "29.97 a second"), (480, "times", "480×"),
    (-7.595, "deg", "−7.595°"), (0.1, "share", "10 %"), (1, "frames", "1 frame"), (12345, "frames", "12 345 frames"),
    (5.6, "f-number", "f/5.6"), (59.9999, "s", "1 min"),
]  # fmt: skip


class Quantities(TestCase):
    def test_reads_what_people_type(self) -> None:
        for text, kind, value in READ:
            with self.subTest(text=text, kind=kind):
                self.assertEqual(read(text, kind), value)

    def test_a_bare_length_is_in_inches_for_those_who_think_in_them(self) -> None:
        for text, kind, value in (
            ("40", "length", 1016),
            ("40 mm", "length", 40),
            ("35", "focal", 35),
            ("20", "duration", 20),
        ):
            self.assertEqual(read(text, kind, imperial=True), value, text)

    def test_reads_the_clock_near_an_instant(self) -> None:
        near = datetime(2026, 9, 12, 23, 50, tzinfo=ZoneInfo("Europe/London"))
        for text, said in (
            ("21:40", "2026-09-12T21:40:00+01:00"),
            ("9:40 pm", "2026-09-12T21:40:00+01:00"),
            ("12:10 am", "2026-09-13T00:10:00+01:00"),
            ("1:30", "2026-09-13T01:30:00+01:00"),
            ("2026-12-24 06:00", "2026-12-24T06:00:00+00:00"),
        ):
            with self.subTest(text):
                self.assertEqual(read_clock(text, near, "Europe/London").isoformat(), said)
        for text in ("25:00", "13:00 pm", "noon", "", "2026-02-30 10:00"):
            with self.subTest(text), self.assertRaises(QuantityError):
                read_clock(text, near, "Europe/London")

    def test_an_hour_that_the_clocks_skip_is_told(self) -> None:
        """On 29 March 2026 London goes from 01:00 to 02:00; the hour that comes twice in October is there."""
        near = datetime(2026, 3, 29, 6, tzinfo=ZoneInfo("Europe/London"))
        for text in ("2026-03-29 01:30", "1:30", "01:00"):
            with self.subTest(text), self.assertRaisesRegex(QuantityError, "on 29 March the clocks go forward"):
                read_clock(text, near, "Europe/London")
        for text, said in (
            ("2026-03-29 02:00", "+01:00"),
            ("2026-03-29 00:59", "+00:00"),
            ("2026-10-25 01:30", "+01:00"),
        ):
            self.assertTrue(read_clock(text, near, "Europe/London").isoformat().endswith(said), text)

    def test_refuses_with_what_stood_there_and_what_was_expected(self) -> None:
        for text, kind in REFUSED:
            with self.subTest(text=text, kind=kind), self.assertRaises(QuantityError) as caught:
                read(text, kind)
            self.assertEqual(caught.exception.stood, text[:40])
            self.assertIn("such as", caught.exception.expected)

    def test_writes_as_people_read(self) -> None:
        for value, unit, text in WRITTEN:
            with self.subTest(text=text):
                self.assertEqual(write(value, unit), text)

    @given(st.integers(1, 90 * 86_400_000), st.sampled_from(["shoot", "duration"]))
    def test_what_is_written_is_read_back(self, milliseconds: int, kind: str) -> None:
        seconds = Fraction(milliseconds, 1000)
        back = read(write(seconds, "s"), kind)
        # Four parts are one too many to read: days drop the seconds.
        self.assertLess(abs(back - seconds), 60 if seconds > 86_400 else Fraction(1, 1000))

    @given(st.text(max_size=60), st.sampled_from(["shoot", "count", "rate", "length", "share"]))
    def test_any_text_is_read_or_refused(self, text: str, kind: str) -> None:
        try:
            self.assertIsInstance(read(text, kind), Fraction)
        except QuantityError as refused:
            self.assertTrue(refused.expected)


class Spoken(TestCase):
    def test_three_digits_are_enough_and_what_is_whole_stays_whole(self) -> None:
        """In a sentence; all digits are in the working and in the files."""
        for value, unit, said in (
            (0.6654, "mm", "0.665 mm"), (9.408, "mm", "9.41 mm"), (17.25, "deg", "17.2°"), (1836.8, "px", "1837 px"),
            (12_345.6, "mm", "12 346 mm"), (0.00665, "share", "0.665 %"), (0.12345, "share", "12.3 %"),
            (2592.4, "g", "2.59 kg"), (259.24, "g", "259 g"), (19.1672, "s", "19.2 s"), (3595.5, "s", "59 min 56 s"),
            (11_983.814, "s", "3 h 19 min 44 s"), (720, "frames", "720 frames"), (269.25, "frames", "269 frames"),
            (23.976, "rate", "23.976 a second"), (1 / 60, "shutter", "1/60 s"), (35.123, "focal", "35.12 mm"),
            (0, "mm", "0 mm"), (-0.08357, "deg", "−0.0836°"),
        ):  # fmt: skip
            with self.subTest(value, unit=unit):
                self.assertEqual(write(spoken(value, unit), unit).replace("\u2009", " "), said)

    @given(st.floats(-1e6, 1e6, allow_nan=False), st.sampled_from(["mm", "deg", "s", "share", "px", "g"]))
    def test_is_never_further_off_than_half_of_its_last_digit(self, value: float, unit: str) -> None:
        said = float(spoken(value, unit))
        self.assertLessEqual(abs(said - value), max(0.5 if abs(value) >= 60 else 0, abs(value) * 0.00501, 1e-12))
