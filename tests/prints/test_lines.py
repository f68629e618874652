"""Lines as they really stand in files: the reader and the virtual printer, which share nothing, take them alike."""

from dataclasses import replace
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from bridle.bench.reading import read
from bridle.core.subjects.parking.blocks import strip
from bridle.core.subjects.prints.commands import sort_of
from bridle.core.subjects.prints.found import Motion
from bridle.standins.printer.log import Log
from bridle.standins.printer.virtual import Printer
from tests.gcode import Dialect, program
from tests.mutated import EXAMPLES
from tests.prints.test_files import MODEL, SQUARE, inspected, judged, opened, parked

PRINT = program(Dialect(), SQUARE)
# Lines that a file may have besides its moves, and which of them nobody knows.
PASSED_THROUGH = (
    'M862.3 P "MK3S"', "M862.1 P0.4", "M115 U3.10.1-beta", "M117 Layer 1/10", "M118 A1 action:notification Hello",
    "M118 //action:prompt_begin x", "SET_PRINT_STATS_INFO TOTAL_LAYER=10", "M486 T3", 'M486 S0 A"cup.stl"',
    "M900 K0.05", "M201 X1000 Y1000", "M73 P0 R31", "M220 B", "M104 S0 ; off", "M412 S1", "M300 S440 P200",
    "EXCLUDE_OBJECT_DEFINE NAME=cup_0 CENTER=100,100 POLYGON=[[1,2],[3,4]]", "EXCLUDE_OBJECT_START NAME=cup_0",
    "G4 P", "N5 ; comment", "M569 S1 X Y", "M205 X8.00 Y8.00", "M907 E538", "G17", "M106 S127.5", "M593 X F40.7",
    "SET_VELOCITY_LIMIT ACCEL=3000 SQUARE_CORNER_VELOCITY=5.0", 'RESPOND MSG="a; b"', "(a comment)", "%", "",
)  # fmt: skip
NOT_KNOWN = (
    "START_PRINT BED_TEMP=60 EXTRUDER_TEMP=210.5 MATERIAL=\"PLA+\"", "action : 2", "M1002 gcode_claim_action : 2",
    "M1002 judge_flag g29_before_print_flag", "M620 S0A", "_CLIENT_LINEAR_MOVE E=1", "@pause", "M403 E0 F1",
)  # fmt: skip
PIECES = (
    "G0", "G1", "G2", "G3", "G4", "G20", "G21", "G28", "G90", "G91", "G92", "M82", "M83", "M104", "M106", "M117",
    "M204", "X1", "X120.5", "X-2", "Y80", "Y.5", "Z0.4", "Z5", "E1", "E0.04", "E-1", "F1800", "I3", "J-2", "R10", "P2",
    "S60", "X", "E", "I", "x100", "y90", "X1e2", "X10E2", ";", "; note", "(note)", "T0", "N7", "*12", '"', "=", "+",
    ".5", "é",
)  # fmt: skip


def before_the_third(line: str) -> bytes:
    return PRINT.replace(b";LAYER:2\n", line.encode() + b"\n;LAYER:2\n")


def run(text: bytes) -> Log:
    return Printer(MODEL).run(text.splitlines(keepends=True))


class TakenAlong(TestCase):
    """Some printers' absolute and relative mode is of places alone, some take the filament along."""

    def test_the_reading_that_makes_a_print_is_the_right_one(self) -> None:
        relative = program(Dialect(relative=True), SQUARE)
        # The one says after it how the filament is told, and is read alike by all; the others do not.
        apart = relative.replace(b"G91\nM82\n", b"G91\n")
        swapped = program(Dialect(relative_e=True), SQUARE).replace(b"G90\nM83\n", b"M83\nG90\n")
        along = program(Dialect(relative=True, relative_e=True), SQUARE).replace(b"G91\nM83\n", b"M82\nG91\n")
        right = inspected(relative)
        self.assertEqual((right.apart, right.doubts), (False, 0))
        for name, text, reading in (("apart", apart, True), ("swapped", swapped, True), ("along", along, False)):
            found = inspected(text)
            with self.subTest(name):
                self.assertEqual((found.apart, found.doubts > 10), (reading, True))
                self.assertEqual((len(found.layers), found.likely), (6, 1.0))
                self.assertAlmostEqual(found.pushed, right.pushed, 5)
                out, _, due = parked(text, 2)
                self.assertEqual(judged(out, due, text, replace(MODEL, apart=reading)).stands, "proven")
                known = read(opened(text), Motion(apart=not reading))
                self.assertEqual((known.apart, known.likely < 1), (not reading, True))


class Lines(TestCase):
    def test_what_is_no_move_is_passed_through(self) -> None:
        for line in (*PASSED_THROUGH, *NOT_KNOWN):
            with self.subTest(line):
                text = before_the_third(line)
                found, log = inspected(text), run(text)
                self.assertEqual((found.wrong, len(found.layers)), ([], 6))
                self.assertEqual([one.kind for one in log.troubles], ["unknown"] * (line in NOT_KNOWN))

    def test_words_that_hang_together_before_it_homes(self) -> None:
        self.assertEqual(run(b"G1X5Y5Z0.000F1800\n" + PRINT).troubles, run(PRINT).troubles)

    def test_a_byte_order_mark_is_no_damage(self) -> None:
        text = b"\xef\xbb\xbf" + PRINT
        self.assertEqual((inspected(text).wrong, run(text).troubles), ([], []))

    def test_a_comment_of_ten_megabytes_is_skipped(self) -> None:
        comment = "; thumbnail " + "QWxsIG9mIGl0IQ" * 720_000
        text = before_the_third(comment)
        self.assertGreater(len(comment), 10_000_000)
        self.assertEqual((inspected(text).wrong, len(inspected(text).layers)), ([], 6))
        out, _, due = parked(text, 2)
        self.assertEqual((judged(out, due, text).stands, b"".join(strip([out])) == text), ("proven", True))

    def test_both_know_the_same_commands(self) -> None:
        """Each has a table of its own; what one of them takes for harmless the other must know too."""
        for letter, most in (("G", 100), ("M", 1100)):
            for number in range(most):
                name = f"{letter}{number}"
                if name in ("G2", "G3", "G28", "M110") or sort_of(name) in ("probe", "pause", "fire"):
                    continue
                troubles = [one.kind for one in run(before_the_third(name)).troubles]
                with self.subTest(name):
                    self.assertEqual("unknown" in troubles, sort_of(name) == "unknown")

    @settings(max_examples=max(150, EXAMPLES), deadline=None)
    @given(st.lists(st.lists(st.sampled_from(PIECES), min_size=1, max_size=5).map(" ".join), min_size=1, max_size=6))
    def test_both_take_any_line_alike(self, lines: list[str]) -> None:
        """No line ends in an error of theirs; and where both can read it all, they stand at the same place."""
        self.alike(lines)

    def test_what_looks_like_an_exponent_is_a_letter(self) -> None:
        for line in ("G1 X1e2 Y80", "G1 X10E2 Y80", "G1 Y80 X1.5e-1", "G1 Z1e1 E1"):
            with self.subTest(line):
                self.assertTrue(self.alike(["M83", line]))

    def alike(self, lines: list[str]) -> bool:
        """Hold both against each other; whether both could read it all."""
        # The last move prints: where it ends, and what it pushes, tells what each has made of all before it.
        text = PRINT + ("\n".join([*lines, "G1 X90 Y90 Z9 E5000 F1800"]) + "\n").encode()
        found, log = inspected(text), run(text)
        kinds = {one.kind for one in log.troubles}
        if found.wrong or kinds & {"unreadable", "checksum", "number", "unknown"}:
            return False
        assert found.total is not None
        for mine, its in zip(found.total.at, log.at, strict=True):
            self.assertAlmostEqual(mine, its, delta=1e-6, msg=str(lines))
        self.assertAlmostEqual(found.pushed, log.pushed, delta=1e-6, msg=str(lines))
        return True
