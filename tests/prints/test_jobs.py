"""What the bench writes and what it refuses to write; tools that the printer's own macros change."""

from dataclasses import replace
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any
from unittest import TestCase

from bridle.bench.facts import file_facts, layer_source
from bridle.bench.jobs import NotReadyError, digest_of, make_changed, make_trial, prove_file, read_print
from bridle.core.evaluate import evaluate
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import apply
from bridle.core.plan.printer import Macro
from tests.gcode import Dialect, program
from tests.prints.test_files import MODEL, SQUARE, judged, parked
from tests.provoked_print import printed

PRINT = program(Dialect(), SQUARE)
FIRING = PRINT.replace(b";LAYER:", b"M240\n;LAYER:")


class Bench(TestCase):
    """A folder with a file, and a plan that it was taken into."""

    def setUp(self) -> None:
        folder = TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)

    def put(self, text: bytes) -> Path:
        path = self.folder / "cup.gcode"
        path.write_bytes(text)
        return path

    def plan_for(self, path: Path, **more: Any) -> Plan:
        """A plan that this very file was taken into."""
        found = read_print(path, printed())
        plan = printed(layers=layer_source(found).model_dump(), **more)
        facts = file_facts(found, path.name, digest_of(path))
        return plan.model_copy(update={"printing": plan.printing.model_copy(update={"file": facts})})


class Writing(Bench):
    def test_the_changed_file_and_its_trial_press_at_each_layer_and_are_proven(self) -> None:
        path = self.put(PRINT)
        made = make_changed(path, self.folder / "out", self.plan_for(path))
        self.assertEqual((made.proof.stands, made.layers), ("proven", 6))
        self.assertEqual(made.path.read_bytes().count(b";{ bridle stop"), 6)
        trial = make_trial(path, self.folder / "trial", self.plan_for(path))
        self.assertEqual((trial.proof.stands, trial.layers), ("proven", 6))

    def test_a_trial_is_held_against_what_it_was_cut_from(self) -> None:
        """Wherever it comes from: with the original it is compared, without it nobody claims to know."""
        path = self.put(PRINT)
        plan = self.plan_for(path, frames__every=3)
        trial = make_trial(path, self.folder / "trial", plan).path
        self.assertIn(f"; bridle trial, 6 layers of {digest_of(path)}".encode(), trial.read_bytes())
        self.assertEqual(prove_file(trial, plan).stands, "incomplete")
        proof = prove_file(trial, plan, original=path)
        self.assertEqual((proof.stands, proof.presses, proof.due), ("proven", 6, 6))
        moved = trial.with_name("moved")
        text = trial.read_bytes()
        at = text.rindex(b"G1 Y110.000000 E")
        moved.write_bytes(text[:at] + text[at:].replace(b"Y110.000000", b"Y110.005000", 1))
        [one] = prove_file(moved, plan, original=path).failures
        self.assertEqual((one.kind, one.line, one.layer), ("path", text[:at].count(b"\n") + 1, 6))
        other = self.folder / "other"
        other.write_bytes(PRINT + b"M107\n")
        with self.assertRaisesRegex(NotReadyError, "another file than this original"):
            prove_file(trial, plan, original=other)
        # A copy of a file with somebody else's stops is no original of it.
        twin = self.folder / "twin"
        twin.write_bytes(FIRING)
        sliced = self.put(FIRING)
        with self.assertRaisesRegex(NotReadyError, "held against itself"):
            prove_file(sliced, self.plan_for(sliced), original=twin)
        of_other = self.plan_for(other)
        with self.assertRaisesRegex(NotReadyError, "cut from another file"):
            prove_file(trial, of_other, original=other)

    def test_the_trigger_says_that_the_wait_is_too_short_where_the_proof_does(self) -> None:
        """Held for 1.2 s after waking for 0.5, then 0.4 s of backing off and the wait: against lag and exposure."""
        path = self.put(PRINT)
        for exposure, dwell in ((1, "0"), (1, "1"), (2, "0"), (2, "0.2"), (2, "1"), (4, "1"), (4, "3")):
            plan = self.plan_for(
                path, beat__press_s="1.2", beat__wake_s="0.5", beat__exposure_s=str(exposure), trigger__dwell_s=dwell
            )
            told = {snag.code: snag for snag in evaluate(plan).snags}
            proof = make_changed(path, self.folder / "out", plan).proof
            with self.subTest(exposure=exposure, dwell=dwell):
                self.assertEqual("dwell-too-short" in told, proof.stands == "failed", proof.failures)
                self.assertEqual({one.kind for one in proof.failures}, {"too short"} if proof.failures else set())
            if "dwell-too-short" in told:
                longer = apply(plan, list(told["dwell-too-short"].fixes[0].edits))[0]
                self.assertEqual(make_changed(path, self.folder / "out", longer).proof.stands, "proven")

    def test_nothing_is_written_that_nobody_meant(self) -> None:
        """Each with the words of the refusal, for the file and for the trial; and no file is left."""
        path = self.put(PRINT)
        plan = self.plan_for(path)
        self.put(FIRING)
        taken_up = self.plan_for(path)
        cases = {
            "read of another file": plan,
            "stops into this file already": taken_up,
            "from the slicer or the host": self.plan_for(path, printing__by=["host"], printing__second_set=True),
            "is not known yet": self.plan_for(path, switch={"clicks_mm": None}),
        }
        for words, refused in cases.items():
            for make in (make_changed, make_trial):
                with self.subTest(words, make=make.__name__), self.assertRaisesRegex(NotReadyError, words):
                    make(path, self.folder / "out", refused)
        self.assertEqual([one.name for one in self.folder.iterdir()], ["cup.gcode"])

    def test_what_the_snag_s_answer_allows_is_written(self) -> None:
        path = self.put(FIRING)
        plan = self.plan_for(path)
        snag = next(snag for snag in evaluate(plan).snags if snag.code == "print-stops-already")
        made = make_changed(path, self.folder / "out", apply(plan, list(snag.fixes[0].edits))[0])
        self.assertEqual(made.path.read_bytes().count(b"M240"), 6)
        self.assertEqual(made.path.read_bytes().count(b";{ bridle stop"), 6)


class BySlicer(Writing):
    """The lines for a slicer's own field, followed to the letter."""

    def _sliced(self, relative_e: bool, first: bool = False, last: bool = True, named: bool = True) -> Any:
        """A file without stops, and the same with the lines before each layer change and at the top of the end code.

        Where E counts relatively they stand behind the slicer's own retraction. `named`: each layer's first travel
        names X and Y.
        """
        text = program(Dialect(relative_e=relative_e), SQUARE)
        text = text.replace(b"G0 Y80.000000 Z", b"G0 X80.000000 Y80.000000 Z") if named else text
        plan = self.plan_for(self.put(text))
        field = [one.encode() for way in evaluate(plan).printing.ways if way.by == "slicer" for one in way.lines]
        self.assertEqual(any(b" E" in one for one in field), not relative_e)
        lines = text.splitlines()
        backs = [n for n, line in enumerate(lines) if line.startswith(b"G1 E")]
        marks = [n for n, line in enumerate(lines) if line.startswith(b";LAYER:")][0 if first else 1 :]
        places = [next(back for back in backs if back > n) + 1 if relative_e else n for n in marks]
        places += [backs[-1] + relative_e] if last else []
        for n in reversed(places):
            lines[n:n] = field
        return text, b"\n".join(lines) + b"\n"

    def _proof(self, text: bytes, sliced: bytes, **more: Any) -> Any:
        path = self.put(sliced)
        before = self.folder / "before.gcode"
        before.write_bytes(text)
        return prove_file(path, self.plan_for(path, frames__every=1, **more), original=before)

    def test_it_proves(self) -> None:
        for relative_e in (False, True):
            with self.subTest(relative_e=relative_e):
                proof = self._proof(*self._sliced(relative_e))
                self.assertEqual((proof.stands, proof.presses, proof.due), ("proven", 6, 6), proof.failures)

    def test_what_the_slicer_calls_at_the_first_and_the_last_layer_is_counted(self) -> None:
        kinds = {one.kind for one in self._proof(*self._sliced(False, last=False)).failures}
        self.assertEqual(kinds, {"missing"})
        text, sliced = self._sliced(False, first=True)
        [one] = self._proof(text, sliced).failures
        self.assertEqual((one.kind, one.when, one.count), ("more", "start", 1))
        proof = self._proof(text, sliced, printing__meant=["first frames out"])
        self.assertEqual((proof.stands, proof.presses, proof.struck), ("proven", 6, 1))

    def test_a_layer_that_begins_along_one_axis_is_drawn_across(self) -> None:
        text, sliced = self._sliced(False, named=False)
        self.assertIn("path", {one.kind for one in self._proof(text, sliced).failures})
        alone = prove_file(self.put(sliced), self.plan_for(self.folder / "cup.gcode"))
        self.assertIn(("across", 2), {(one.kind, one.layer) for one in alone.failures})


class Tools(TestCase):
    """Nobody knows what a change of tool does, but by the printer's own macros; those of the file count no filament."""

    def test_a_change_is_followed_where_every_tool_s_macro_is_told(self) -> None:
        changes = PRINT.replace(b";LAYER:2\n", b"T1\n;LAYER:2\n").replace(b";LAYER:4\n", b"T0\n;LAYER:4\n")
        out, _, due = parked(changes)
        for macros, stands, unknown in (
            ({}, "incomplete", ("T0", "T1")),
            ({"T1": "; nothing moves"}, "incomplete", ("T0",)),
            ({"T0": "", "T1": "G4 P100"}, "proven", ()),
            # What a macro pushes is the same in the original: no stop has done that.
            ({"T0": "G4 P1", "T1": "G91\nG1 E-2 F1800\nG1 E12 F900\nG90\n"}, "proven", ()),
            ({"T0": "G4 P1", "T1": "G0 X234.9 F9000\n"}, "failed", ()),
        ):
            with self.subTest(macros):
                proof = judged(out, due, changes, replace(MODEL, macros=macros))
                self.assertEqual((proof.stands, proof.unknown), (stands, unknown), proof.failures)

    def test_the_only_tool_of_a_print_is_no_change(self) -> None:
        tool = PRINT.replace(b"G28\n", b"T0\nG28\n")
        out, _, due = parked(tool)
        self.assertEqual(judged(out, due, tool).stands, "proven")

    def test_told_macros_take_the_snag_away(self) -> None:
        told = Macro(name="T0", text="G4 P1"), Macro(name="T1", text="G4 P1")
        for macros, there in ((told, False), (told[:1], True)):
            plan = printed(file={"tools": (0, 1)}, printer={"macros": macros})
            self.assertEqual("print-several-tools" in {snag.code for snag in evaluate(plan).snags}, there)


class Turns(TestCase):
    def test_what_the_frames_do_is_said_of_what_this_print_may_do(self) -> None:
        """A pause only where there is one; an output that stays on only where there is one; a pause that fires."""
        commands = {"fires": "commands", "fire_on": ("M42 P4 S255",), "fire_off": ("M42 P4 S0",)}
        pausing = {"name": "M600", "sort": "pause", "count": 1, "layers": 1, "line": 70}
        cases = (
            (printed(), 3, "stands on the switch", "output"),
            (printed(file={"already": (pausing,)}), 4, "whoever reaches in is in none", "output"),
            (printed(printer=commands), 3, "the output stays on", "switch"),
            (printed(printer={"fires": "pause"}), 3, "one frame more than there are layers", "switch"),
        )
        for plan, count, words, never in cases:
            said = [turn.said for turn in evaluate(plan).printing.turns]
            self.assertEqual(len(said), count)
            self.assertIn(words, " ".join(said))
            self.assertNotIn(never, " ".join(said))
