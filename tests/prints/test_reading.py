"""What a file tells and hides: stops of somebody else, spirals, objects one after another, damage, macros, times."""

import functools
import io
import json
import math
import operator
import subprocess
import sys
from contextlib import closing
from dataclasses import replace
from pathlib import Path
from tempfile import TemporaryDirectory
from unittest import TestCase

from bridle.bench.facts import file_facts
from bridle.bench.reading import read
from bridle.core.subjects.parking.blocks import strip
from bridle.core.subjects.prints.found import Inspection, Motion
from bridle.core.subjects.prints.pieces import NoTextError
from bridle.standins.printer.jogging import Bench
from bridle.standins.printer.virtual import Printer
from tests.gcode import Dialect, program
from tests.prints.test_files import MODEL, SQUARE, chosen, judged, parked

ROOT = Path(__file__).parents[2]
CUP = program(Dialect(), SQUARE)


def read_text(text: bytes, motion: Motion | None = None) -> Inspection:
    return read(lambda: closing(io.BytesIO(text)), motion or Motion())


def after_layers(text: bytes, lines: str) -> bytes:
    """These lines before every layer but the first."""
    head, *rest = text.split(b";LAYER:")
    return head + b";LAYER:" + rest[0] + b"".join(lines.encode() + b";LAYER:" + one for one in rest[1:])


def numbered(number: int, words: str) -> bytes:
    body = f"N{number} {words}".encode()
    return b"%s*%d\n" % (body, functools.reduce(operator.xor, body))


class Already(TestCase):
    def test_stops_of_somebody_else_are_counted(self) -> None:
        park = "G1 E-2 F2000\nG0 X200 Y200 F9000\nM400\nM240\nG4 P800\nG1 E2\n"
        found = read_text(after_layers(CUP, park))
        told = {one.name: (one.sort, one.count, one.layers) for one in found.others}
        self.assertEqual((told["M240"], told["G4"]), (("fire", 5, 5), ("wait", 5, 5)))
        # Of six layers five are sent there; the last one's way out is the file's own end.
        self.assertIsNotNone(found.parks)
        assert found.parks is not None
        self.assertEqual((found.parks[0], max(one for one in found.parks[1:] if not math.isnan(one))), (5, 200.0))
        self.assertIsNone(read_text(CUP).parks)

    def test_pauses_tools_and_commands_that_nobody_knows(self) -> None:
        text = CUP.replace(b";LAYER:2\n", b";LAYER:2\nM600\nT1\nDO_SOMETHING NOW=1\nM117 Layer X3 Y4\n")
        found = read_text(text)
        line = text[: text.index(b"M600")].count(b"\n") + 1
        told = {one.name: (one.sort, one.line) for one in found.others}
        self.assertEqual(told["M600"], ("pause", line))
        self.assertEqual((told["T1"], told["DO_SOMETHING"]), (("tool", line + 1), ("unknown", line + 2)))
        # A message is no move, whatever letters stand in it.
        self.assertEqual([layer.box for layer in found.layers], [layer.box for layer in read_text(CUP).layers])

    def test_a_macro_s_own_text_is_carried_out_in_the_proof(self) -> None:
        text = CUP.replace(b";LAYER:2\n", b"SWEEP\n;LAYER:2\n")
        out, _, due = parked(text)
        for body, stands, kind in (
            (None, "incomplete", ""),
            ("; nothing moves", "proven", ""),
            ("G0 X233 F6000\nG0 X100", "failed", "touch"),
            ("{% if x %}", "incomplete", ""),
        ):
            proof = judged(out, due, text, replace(MODEL, macros={} if body is None else {"sweep": body}))
            self.assertEqual(proof.stands, stands, body)
            self.assertTrue(not kind or kind in {one.kind for one in proof.failures}, proof.failures)


class Shapes(TestCase):
    def test_a_spiral_has_no_layers(self) -> None:
        lines = ["G21", "G90", "M83", "G28", ";LAYER:0", "G1 X100 Y60 Z0.2 F6000"]
        for n in range(1, 900):
            angle = n / 10
            lines.append(
                f"G1 X{100 + 20 * math.cos(angle):.3f} Y{60 + 20 * math.sin(angle):.3f} Z{0.2 + n * 0.003:.4f} E0.07"
            )
        found = read_text("\n".join(lines).encode())
        self.assertEqual((found.spiral, found.layers), (True, []))

    def test_objects_one_after_another(self) -> None:
        found = read_text(program(Dialect(), SQUARE, things=3))
        self.assertEqual([layer.thing for layer in found.layers], [1] * 6 + [2] * 6 + [3] * 6)
        self.assertEqual({round(layer.thick, 3) for layer in found.layers}, {0.2})

    def test_what_comes_before_the_first_layer_is_apart(self) -> None:
        """A purge of 40 mm with 3 mm of filament, at a height of its own."""
        found = read_text(CUP)
        self.assertEqual((found.purge, len(found.layers)), (3.0, 6))
        self.assertEqual([tuple(one[:2]) for one in found.start_path[:3].tolist()], [(20, 20), (20, 20), (20, 60)])
        self.assertEqual(found.layers[0].box, (80.0, 120.0, 80.0, 110.0))


class Announced(TestCase):
    """The words by which a layer begins, and layers that only their heights tell."""

    def test_the_words_for_a_layer_in_more_spellings(self) -> None:
        spoken = (
            ";LAYER:{n}", "; layer : {n}", ";Layer={n}", ";LAYER: {n} of 6", "; layer {n}/6", ";layer number: {n}",
            "; Layer #{n}", "; LAYER {n}, z = 0.{n}", ";layer {n} (z 0.2)", "; begin layer {n}", ";LAYER_CHANGE",
            "; layer change", ";Change Layer", "; NEW LAYER", ";before_layer_change", "; Layer {n} of 6",
        )  # fmt: skip
        unsaid = read_text(program(Dialect(style="none"), SQUARE)).layers
        for words in spoken:
            head, *rest = CUP.split(b";LAYER:")
            parts = [words.format(n=n).encode() + one[one.index(b"\n") :] for n, one in enumerate(rest)]
            found = read_text(head + b"".join(parts))
            with self.subTest(words):
                self.assertIsNotNone(found.style)
                self.assertEqual([layer.box for layer in found.layers], [layer.box for layer in unsaid])
        for words in (";LAYER_COUNT:6", "; layer height = 0.2", ";total layers: 6", "; layer_height = 0.2", ";layer"):
            self.assertIsNone(read_text(f"{words}\n".encode() + program(Dialect(style="none"), SQUARE)).style, words)

    def test_by_height_a_layer_is_printed_over_the_part(self) -> None:
        """Purge lines beside it, at any height, and details that are lower than the layer at work are none."""
        plain = program(Dialect(style="none", relative_e=True), SQUARE).splitlines()
        part = next(n for n, line in enumerate(plain) if b"Z0.200" in line)
        purge = next(n for n, line in enumerate(plain) if b"G1 Y60" in line)
        higher = [n for n, line in enumerate(plain) if line.startswith(b"G0") and b" Z" in line]
        for name, at, lines, purged in (
            ("a purge line at a height of its own", 0, [], 3.0),
            # As low as the first layer it belongs to it: nothing tells it from a part of that.
            ("one that is as low as the first layer", purge, [b"G0 Z0.2"], 0.0),
            ("one that is lower", purge, [b"G0 Z0.1"], 3.0),
            ("two of them", part, [b"G0 Z0.25", b"G0 X30 Y20", b"G1 Y60 E2.0"], 5.0),
            ("a detail lower than the layer", higher[6], [b"G0 X70 Y70 Z0.4 F9000", b"G1 X74 E0.2"], 3.0),
            ("a tower kept lower", higher[6], [b"G0 X70 Y70 Z0.6", b"G1 X74 E.2", b"G0 Z0.4", b"G1 X70 E.2"], 3),
        ):  # fmt: skip
            text = b"\n".join([*plain[:at], *lines, *plain[at:]])
            found = read_text(text)
            with self.subTest(name):
                self.assertEqual([round(layer.z, 3) for layer in found.layers], [0.2, 0.4, 0.6, 0.8, 1.0, 1.2])
                self.assertAlmostEqual(found.purge, purged)
                self.assertEqual(found.things, 1)
                out, _, due = parked(text, 2)
                self.assertEqual(judged(out, due, text).stands, "proven")
        things = read_text(program(Dialect(style="none"), SQUARE, things=3))
        self.assertEqual([layer.thing for layer in things.layers], [1] * 6 + [2] * 6 + [3] * 6)

    def test_a_tower_is_seen_where_comments_say_so(self) -> None:
        for words in (";TYPE:Prime tower", "; FEATURE: wipe tower", ";TYPE:Purge Block"):
            tower = f"{words}\nG0 X20 Y150 F9000\nG92 E0\nG1 X45 E1 F1800\nG1 Y180 E2\n;TYPE:Outer wall\n"
            text = program(Dialect(relative_e=True), SQUARE).replace(b";LAYER:", tower.encode() + b";LAYER:")
            found = read_text(text)
            with self.subTest(words):
                self.assertEqual((found.tower, found.tower_layers), ((20, 45, 150, 180), 5))
                facts = file_facts(found, "cup.gcode", "0" * 64)
                self.assertEqual((facts.tower_mm, facts.extents_mm), ((20, 45, 150, 180), (20, 120, 80, 180)))
        self.assertIsNone(read_text(CUP).tower)

    def test_the_filament_is_at_the_tip_where_it_prints(self) -> None:
        """Taken out by hand, or of another tool: what the stop draws back does not hang on what went before."""
        text = CUP.replace(b";LAYER:2\n", b"G92 E0\nG1 E-60 F2100\nM600\nG92 E11.8\n;LAYER:2\n", 1)
        backs = [round(layer.end.back, 3) for layer in read_text(text).layers]
        self.assertEqual(backs, [0.0] * 6)
        # Whoever stopped the print for it, and by whatever word.
        self.assertEqual([round(one.end.back, 3) for one in read_text(text.replace(b"M600", b"@pause")).layers], backs)
        tools = CUP.replace(b";LAYER:2\n", b"G92 E0\nG1 E-20 F2100\nT1\nG92 E11.8\n;LAYER:2\n", 1)
        self.assertEqual(read_text(tools).layers[1].change.back, 0.0)


class Damage(TestCase):
    def test_a_line_that_cannot_be_read_is_told_with_its_number(self) -> None:
        lines = CUP.split(b"\n")
        for bad, stood, expected in (
            (b"G1 X1O.5 Y3", "O.5 Y3", "a letter with a number"),
            (b"G1 X Y3", "X Y3", "a letter with a number"),
            (b"\xff\xfe\x03 broken", "", "a letter with a number"),
            (b"N5 G1 X80*99", "*99", "a checksum that fits"),
            (b"G2 X90 Y90 E1", "G2 X90 Y90 E1", "a middle"),
        ):
            with self.subTest(bad):
                found = read_text(b"\n".join([*lines[:14], bad, *lines[14:]]))
                self.assertEqual(found.wrong_count, 1, found.wrong)
                self.assertEqual(found.wrong[0].line, 15)
                self.assertIn(stood, found.wrong[0].stood)
                self.assertIn(expected, found.wrong[0].expected)

    def test_what_is_no_text_is_refused(self) -> None:
        for text, said in (
            (b"GCDE\x01\x02", "a binary print file"), (b"\x1f\x8b" + b"x" * 99, "compressed"),
            (CUP + b"\0\0", "a nought byte"), (b"x" * 3_000_000, "no line ends"),
        ):  # fmt: skip
            with self.assertRaisesRegex(NoTextError, said):
                read_text(text)

    def test_all_the_printer_meets_is_told(self) -> None:
        """Beyond its limits and into the switch, numbers out of order, a checksum, two lines that are no words."""
        lines = [b"G28\n", b"G0 X400 Y10 F6000\n", numbered(4, "G1 X10"), numbered(9, "G1 X11"), b"N10 G1 X12*1\n"]
        met = [(one.kind, one.line) for one in Printer(MODEL).run([*lines, b"G1 X2..3\n", b"G1 X1O.5\n"]).troubles]
        # It touches on its way in, and on its way out.
        self.assertEqual(met[:4], [("beyond", 2), ("touch", 2), ("touch", 3), ("number", 4)])
        self.assertEqual(met[4:], [("checksum", 5), ("unreadable", 6), ("unreadable", 7)])


class Times(TestCase):
    def test_a_lone_move_is_a_trapezoid(self) -> None:
        """100 mm at 50 mm/s and 1000 mm/s²: 2 s and 0.05 s; 1 mm never gets that fast: 2·√(1/1000)."""
        for far, seconds in ((100.0, 2.05), (1.0, 2 * math.sqrt(1 / 1000))):
            text = f"G21\nG90\nG28\nG4 P0\nG1 X{far} F3000\nG4 P0\n".encode()
            found = read_text(text, Motion(print_a=1000, travel_a=1000))
            self.assertAlmostEqual(found.seconds, seconds, 6)

    def test_a_corner_costs_and_a_straight_does_not(self) -> None:
        """Two halves of a straight are one; at a right angle no more than the corner speed is kept."""
        motion = Motion(print_a=1000, travel_a=1000, corner=8)
        straight = read_text(b"G90\nG28\nG4 P0\nG1 X50 F3000\nG1 X100\nM84\n", motion).seconds
        corner = read_text(b"G90\nG28\nG4 P0\nG1 X50 F3000\nG1 X50 Y50\nM84\n", motion).seconds
        self.assertAlmostEqual(straight, 2.05, 3)
        # From 50 to 8 mm/s and up again: twice (42²/1000/2)/50 more, by the trapezoid.
        self.assertAlmostEqual(corner, 2.05 + 2 * 0.042**2 * 1000 / 2 / 50, 3)

    def test_heaters_and_arcs(self) -> None:
        """Half a circle of 10 mm at 10 mm/s takes π s and the run-up."""
        text = b"G90\nM83\nG28\nG0 X20 Y50 F6000\nG4 P0\nG2 X40 Y50 I10 J0 E1 F600\n"
        without = read_text(text.rsplit(b"G2", 1)[0]).seconds
        self.assertAlmostEqual(read_text(text).seconds - without, math.pi + 10 / 1500, 2)


class Jogging(TestCase):
    def test_small_steps_find_the_click_and_large_ones_break_it(self) -> None:
        for seed in range(20):
            bench = Bench(0, 240, 1, beyond=2.0, lets_go=0.5, seed=seed)
            at, down, heard = 220.0, False, ""
            while heard != "click":
                told = bench.jog(at, 0.1, down, False)
                at, down, heard = told.at, told.down, told.heard
            self.assertAlmostEqual(at, bench.clicks, delta=0.13)
            self.assertEqual(bench.jog(at, 10, down, False).heard, "broken")
            self.assertEqual(bench.jog(at, -2, down, False).heard, "let go")


class CommandLine(TestCase):
    """`bridle gcode`, pipes included."""

    def run_it(self, *arguments: str, given: bytes = b"") -> "subprocess.CompletedProcess[bytes]":
        command = [sys.executable, "-m", "bridle.cli", "gcode", *arguments]
        return subprocess.run(command, cwd=ROOT, input=given, capture_output=True, timeout=120)

    def test_park_prove_strip_and_their_exit_status(self) -> None:
        demo = json.loads((ROOT / "bridle/demo/shoots/lattice-lantern.json").read_text())
        with TemporaryDirectory() as folder:
            file, plan = Path(folder) / "cup.gcode", f"{folder}/plan.json"
            file.write_bytes(CUP)
            refused = self.run_it("park", str(file), "--plan", "bridle/demo/shoots/lattice-lantern.json")
            self.assertEqual((refused.returncode, b"read of another file" in refused.stderr), (1, True))
            # A plan that has no file yet takes this one.
            Path(plan).write_text(json.dumps({**demo, "printing": {**demo["printing"], "file": None}}))
            made = self.run_it("park", str(file), "--plan", plan)
            self.assertEqual((made.returncode, made.stdout.count(b";{ bridle stop")), (0, 3), made.stderr)
            beside = ("--plan", plan, "--original", str(file))
            proof = self.run_it("prove", "-", *beside, given=made.stdout)
            self.assertEqual((proof.returncode, b"Proven: 3 presses" in proof.stdout), (0, True), proof.stdout)
            alone = self.run_it("prove", "-", "--plan", plan, given=made.stdout)
            self.assertEqual((alone.returncode, b"was not compared" in alone.stdout), (4, True), alone.stdout)
            broken = self.run_it("prove", "-", *beside, given=made.stdout.replace(b"G1 X240.6", b"G1 X239"))
            self.assertEqual(broken.returncode, 3)
            self.assertRegex(broken.stdout, rb"line \d+, layer 2, at .*: No press comes where this layer is done")
            self.assertEqual(self.run_it("strip", "-", given=made.stdout).stdout, CUP)
            self.assertEqual(b"".join(strip([made.stdout])), CUP)
            told = self.run_it("inspect", str(file))
            self.assertIn(b'"announced": "numbered"', told.stdout)
            bad = self.run_it("inspect", "-", given=b"PK\x03\x04" + b"x" * 50)
            self.assertEqual((bad.returncode, b"packed archive" in bad.stderr), (1, True))
            self.assertEqual(len(chosen(read_text(CUP), 2)), 3)
