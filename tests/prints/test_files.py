"""Stops put into files of every dialect: bytes, paths, presses; and files broken on purpose."""

import io
from contextlib import closing
from dataclasses import replace
from typing import Any
from unittest import TestCase

from gcodeparser import GcodeParser
from hypothesis import given
from hypothesis import strategies as st

from bridle.bench.proving import expected, proven
from bridle.bench.reading import read
from bridle.bench.writing import Where, changed, chosen_places
from bridle.core.subjects.parking.blocks import AlteredError, strip
from bridle.core.subjects.parking.stop import Stop
from bridle.core.subjects.prints.found import Inspection, Motion
from bridle.standins.printer.model import Key, Model, Part
from bridle.standins.printer.proof import Proof
from bridle.standins.printer.virtual import Printer
from tests.gcode import Dialect, dialects, program, shapes

MODEL = Model(
    low=(-5, -5, 0),
    high=(235, 220, 250),
    home=(0, 0, 0),
    parts=(Part("nozzle", (-4, 4, -4, 4, 0, 10)), Part("fan", (-22, 30, -20, 20, 10, 60), presses=True)),
    key=Key("X", 1, 230.0, beyond=2.0, lets_go=0.5, at=(180.0, 0.0), about=(0.0, 30.0), rides="gantry"),
)
STOP = Stop(park=(220.0, 180.0), press=("X", 230.5), wait_s=1.0)
SQUARE = [[(80.0, 80.0), (120.0, 80.0), (120.0, 110.0), (80.0, 110.0)]] * 6


def opened(text: bytes) -> Any:
    return lambda: closing(io.BytesIO(text))


def inspected(text: bytes) -> Inspection:
    return read(opened(text), Motion())


def chosen(found: Inspection, nth: int) -> list[int]:
    count = len(found.layers)
    return [n for n in range(1, count + 1) if (count - n) % nth == 0]


def parked(text: bytes, nth: int = 1, where: Where = "end", stop: Stop = STOP) -> tuple[bytes, Inspection, Any]:
    found = inspected(text)
    places = chosen_places(found, chosen(found, nth), where)
    due = expected(found, places, 0.9, 0.7, least_s=0.2 if stop.press else 0.0)
    return b"".join(changed(opened(text), found, places, stop)), found, due


def judged(text: bytes, due: Any, original: bytes | None, model: Model = MODEL) -> Proof:
    """The verdict on a changed file, beside the one that it was made from."""
    return proven(opened(text), model, due, original.splitlines(keepends=True) if original is not None else None)


def path(text: bytes) -> list[tuple[float, ...]]:
    drawn: list[tuple[float, ...]] = []
    Printer(MODEL, lambda a, b, pushed: drawn.append((*a, *b, pushed))).run(text.splitlines(keepends=True))
    return drawn


class AnyFile(TestCase):
    """Whatever the dialect."""

    @given(dialects(), shapes(), st.integers(1, 3), st.sampled_from(["end", "change", "infill"]), st.booleans())
    def test_a_stop_changes_nothing_but_itself(
        self, how: Dialect, ways: Any, nth: int, where: Where, firmware: bool
    ) -> None:
        """Taken out it is the original to the byte; put in twice it is in once; the same path; proven."""
        text = program(how, ways)
        out, found, due = parked(text, nth, where, replace(STOP, by_firmware=firmware))
        self.assertEqual(b"".join(strip([out])), text)
        again, _, _ = parked(out, nth, where, replace(STOP, by_firmware=firmware))
        self.assertEqual(again, out)
        self.assertEqual(found.wrong, [])
        if how.style != "none":
            self.assertEqual(len(found.layers), len(ways))
        before, after = path(text), path(out)
        self.assertEqual(len(before), len(after))
        for one, other in zip(before, after, strict=True):
            for a, b in zip(one, other, strict=True):
                self.assertAlmostEqual(a, b, delta=2e-4 if how.inches else 2e-5)
        proof = judged(out, due, text)
        self.assertEqual((proof.stands, proof.failures), ("proven", ()), (how, out.decode()))
        self.assertEqual(proof.presses, len(chosen(found, nth)))

    @given(shapes(), st.booleans(), st.booleans())
    def test_positions_agree_with_another_reader(self, ways: Any, resets: bool, relative_e: bool) -> None:
        """Where each layer ends, by a general parser of G-code."""
        text = program(Dialect(resets=resets, relative_e=relative_e), ways)
        found = inspected(text)
        at, ends = {"X": 0.0, "Y": 0.0, "Z": 0.0}, []
        reached = {layer.end.line: layer.end.at for layer in found.layers}
        for n, line in enumerate(text.decode().splitlines(), 1):
            for command in GcodeParser(line, include_comments=False).lines:
                if command.command_str in ("G0", "G1"):
                    at |= {axis: value for axis, value in command.params.items() if axis in at}
            if n in reached:
                ends.append(tuple(at.values()))
        self.assertEqual(ends, [reached[line] for line in sorted(reached)])


class Broken(TestCase):
    """The inserter broken in ways that a hand, or a mistake, breaks it: each is convicted, the marks taken away."""

    def test_each_break_is_convicted(self) -> None:
        original = program(Dialect(), SQUARE)
        good, _, due = parked(original, 2, "infill")
        self.assertEqual(judged(good, due, original).stands, "proven")
        stop = b"".join(good.partition(b";{ bridle")[1:]).partition(b";} bridle")[0]
        release = b"G1 X230.5 F1200\nG4 P200\nG1 X220\n"
        self.assertIn(release, stop)
        # What was right, what stands there instead, and what the proof has to say.
        breaks: dict[str, tuple[bytes, bytes, str]] = {
            "no release": (release, b"G1 X230.5 F1200\nG4 P200\n", "not released"),
            "mode not restored": (b"M82\nG92", b"G92", "state"),
            "unretract missing": (b"G1 E0.8 F2100\nM82\n", b"M82\n", "pushed"),
            "pressed twice": (release, release + release, "more"),
            "feed not restored": (b"G1 F1800\n", b"", "path"),
            "dwell missing": (b"G4 P1000\n", b"", "too short"),
            "wrong units": (b"G90\nM83\n", b"G20\nG90\nM83\n", "beyond"),
            "pressed too far": (b"G1 X230.5", b"G1 X233", "touch"),
            "not back": (b"G0 X120 Y80 F9000\n", b"", "path"),
            "wrong E": (b"G92 E", b"G92 E1", "path"),
            "not pressed": (b"G1 X230.5 F1200\n", b"", "missing"),
            "elsewhere": (b"G0 X220 Y180", b"G0 X220 Y150", "elsewhere"),
        }
        for name, (right, wrong, kind) in breaks.items():
            with self.subTest(name):
                self.assertIn(right, good)
                for everywhere in (True, False):
                    text = good.replace(right, wrong) if everywhere else good.replace(right, wrong, 1)
                    bare = b"".join(line for line in text.splitlines(keepends=True) if b"bridle" not in line)
                    proof = judged(bare, due, original)
                    if name == "elsewhere" and everywhere:
                        continue
                    self.assertEqual(proof.stands, "failed", (name, everywhere))
                    self.assertIn(kind, {one.kind for one in proof.failures}, proof.failures)

    def test_what_goes_wrong_alike_at_every_layer_is_told_once_with_its_count(self) -> None:
        text = program(Dialect(), SQUARE * 2)
        good, _, due = parked(text)
        (told,) = judged(good.replace(b"G4 P1000\n", b""), due, text).failures
        self.assertEqual((told.kind, told.layer, told.count), ("too short", 1, 12))

    def test_a_stop_at_the_wrong_layer_is_convicted(self) -> None:
        """One layer too early, one too late."""
        text = program(Dialect(), SQUARE)
        found = inspected(text)
        for off in (-1, 1):
            numbers = [2, 4, 6] if off < 0 else [1, 3, 5]
            right = expected(found, chosen_places(found, numbers, "end"), 0.9, 0.7)
            out = b"".join(changed(opened(text), found, chosen_places(found, [n + off for n in numbers], "end"), STOP))
            kinds = {one.kind for one in judged(out, right, text).failures}
            self.assertTrue(kinds & {"wrong layer", "missing"}, kinds)

    def test_a_block_that_was_edited_is_told_with_its_line(self) -> None:
        text = program(Dialect(), SQUARE)
        out, _, _ = parked(text, 3)
        edited = out.replace(b"G4 P1000", b"G4 P9000", 1)
        with self.assertRaisesRegex(AlteredError, r"line \d+: this stop was changed by hand"):
            b"".join(strip([edited]))
        self.assertEqual(b"".join(strip([edited], altered_too=True)), text)
        with self.assertRaisesRegex(AlteredError, "never ends"):
            b"".join(strip([out[: out.rfind(b";} bridle")]]))
