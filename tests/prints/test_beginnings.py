"""What happens before the first layer and behind the last: homing, starts, ends; and prints without an original."""

from dataclasses import replace
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any
from unittest import TestCase

from bridle.bench.facts import file_facts, layer_source
from bridle.bench.jobs import digest_of, make_changed, read_print
from bridle.bench.telling import fixes_of, said, summary
from bridle.core.evaluate import evaluate
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import apply
from bridle.core.plan.printer import Macro
from bridle.core.reckon.printing import print_digest, switch_told
from bridle.core.subjects.parking.stop import Stop
from bridle.standins.printer.model import Key, Model
from bridle.standins.printer.proof import Proof
from tests.gcode import Dialect, program
from tests.prints.test_files import MODEL, SQUARE, STOP, judged, parked
from tests.provoked_print import printed

# The switch stands where the printer goes home: it clicks at x 1, home is at 0.
CLICKS_LOW = Key("X", -1, 1.0, beyond=2.0, at=(180.0, 0.0), about=(0.0, 30.0), rides="gantry")
AT_HOME = replace(MODEL, low=(-2, -5, 0), key=CLICKS_LOW)
PRESSES_LOW = replace(STOP, park=(9.0, 180.0), press=("X", 0.6))
# One that stands on the frame at y 180: whether homing meets it depends on where the bed's arm stands.
ON_THE_FRAME = replace(AT_HOME, head_moves="XYZ", key=replace(CLICKS_LOW, rides="frame", size=(12.0, 20.0, 400.0)))
PLAIN = program(Dialect(), SQUARE)
END = b"G91\nG0 Z10\nG90\nG28 X\nM84\n"


def proof_of(text: bytes, model: Model, stop: Stop, told: Any = (), nth: int = 2, edit: Any = None) -> Proof:
    out, _, due = parked(text, nth, stop=stop)
    return judged(edit(out) if edit else out, replace(due, told=frozenset(told)), text, model)


class Homing(TestCase):
    def test_homing_that_presses_is_a_frame_more_and_each_answer_proves(self) -> None:
        proof = proof_of(PLAIN, AT_HOME, PRESSES_LOW)
        [one] = proof.failures
        line = PLAIN.splitlines().index(b"G28") + 1
        self.assertEqual(
            (one.kind, one.when, one.line, one.layer, one.about), ("more", "start", line, None, "coming home")
        )
        self.assertEqual(said(one), "Before the first layer, coming home presses the switch: one frame more.")
        plan = printed()
        fixes = fixes_of(one, plan)
        self.assertEqual(len(fixes), 2)
        for fix, mind, struck in zip(fixes, ("put on later", "struck out"), (0, 1), strict=True):
            told = switch_told(apply(plan, fix.edits)[0])
            with self.subTest(fix.label):
                answered = proof_of(PLAIN, AT_HOME, PRESSES_LOW, told)
                self.assertEqual((answered.stands, answered.presses, answered.struck), ("proven", 3, struck))
                self.assertEqual([found.kind for found in answered.minds], [mind])
        self.assertIn("1 more is to be struck out", summary(answered))

    def test_homing_that_touches_is_no_frame_to_strike_out(self) -> None:
        """Home lies 3 mm beyond the click, and the switch gives way by 2."""
        deep = replace(AT_HOME, home=(-2.0, 0.0, 0.0))
        for told, stands in (((), "failed"), (("first frames out",), "failed"), (("switch on later",), "proven")):
            proof = proof_of(PLAIN, deep, PRESSES_LOW, told)
            with self.subTest(told=told):
                self.assertEqual(proof.stands, stands)
                self.assertEqual(
                    {one.kind for one in proof.failures},
                    {"touch"} | ({"more"} if not told else set()) if stands == "failed" else set(),
                )
        touch = next(one for one in proof_of(PLAIN, deep, PRESSES_LOW).failures if one.kind == "touch")
        self.assertEqual([fix.label for fix in fixes_of(touch, printed())], ["Fit the switch after the start"])

    def test_what_only_may_be_met_before_it_homes_is_not_known_and_convicts_nobody(self) -> None:
        stop = replace(PRESSES_LOW, park=(9.0, 180.0))
        proof = proof_of(PLAIN, ON_THE_FRAME, stop)
        self.assertEqual(
            (proof.stands, [(one.kind, one.about) for one in proof.minds]),
            ("proven", [("unsure", "X"), ("unsure", "Y")]),
        )
        # With Y at home first it is certain that nothing is met.
        first = PLAIN.replace(b"G28\n", b"G28 Y\nG28 Z\nG28 X\n")
        self.assertEqual(proof_of(first, ON_THE_FRAME, stop).minds, ())
        # A file that homes within a macro of the start is told by what the macro says.
        called = PLAIN.replace(b"G28\n", b"START_IT\n")
        for text, found in (("G28", ["unsure", "unsure"]), ("G28 Y\nG28 Z\nG28 X", [])):
            proof = proof_of(called, replace(ON_THE_FRAME, macros={"START_IT": text}), stop)
            self.assertEqual((proof.stands, [one.kind for one in proof.minds]), ("proven", found))

    def test_a_head_from_nowhere_convicts_nothing_until_its_place_is_named(self) -> None:
        """It may have stood anywhere, so its first way is not known; where it ends is."""
        unhomed = PLAIN.replace(b"G28\n", b"")
        self.assertEqual(proof_of(unhomed, MODEL, STOP).stands, "proven")
        for line, kind in (("G0 X234 Y10 Z5", "touch"), ("G0 X90 Y400 Z5", "beyond")):
            proof = proof_of(PLAIN.replace(b"G28\n", f"{line}\n".encode()), MODEL, STOP)
            self.assertIn(kind, {one.kind for one in proof.failures}, line)

    def test_a_head_that_never_goes_home_is_not_proven(self) -> None:
        """Where nobody names a place, nobody knows what limits are kept."""
        text = program(Dialect(relative=True), SQUARE).replace(b"G28\n", b"")
        fires = Stop(park=(None, None), on=("M240",), wait_s=1.0)
        proof = proof_of(text, replace(MODEL, key=None, on=("M240",)), fires)
        self.assertEqual((proof.stands, proof.failures), ("incomplete", ()))
        self.assertIn("never goes home", summary(proof))

    def test_the_end_of_a_file_has_answers_of_its_own(self) -> None:
        ended = PLAIN.replace(b"M84\n", END)
        self.assertIn(b"G28 X\nM84", ended)
        proof = proof_of(ended, AT_HOME, PRESSES_LOW, ("first frames out",))
        [one] = proof.failures
        self.assertEqual((one.kind, one.when, one.layer), ("left held", "end", 6))
        plan = printed()
        # Struck out or not, a press that never ends is none.
        self.assertEqual([fix.label for fix in fixes_of(one, plan)], ["Take the switch off before the end"])
        released = ended.replace(b"G28 X\n", b"G28 X\nG0 X20 F9000\n")
        [more] = proof_of(released, AT_HOME, PRESSES_LOW, ("first frames out",)).failures
        told = {*switch_told(apply(plan, fixes_of(more, plan)[1].edits)[0]), "first frames out"}
        self.assertEqual(proof_of(released, AT_HOME, PRESSES_LOW, told).struck, 2)
        for fix in fixes_of(one, plan):
            told = {*switch_told(apply(plan, fix.edits)[0]), "first frames out"}
            self.assertEqual(proof_of(ended, AT_HOME, PRESSES_LOW, told).stands, "proven", fix.label)
        # An answer for the end takes nothing of the print away.
        stuck = proof_of(
            ended,
            AT_HOME,
            PRESSES_LOW,
            ("first frames out", "switch off early", "switch on later"),
            edit=lambda out: out.replace(b"G1 X0.6 F1200", b"G1 X-1.5 F1200"),
        )
        self.assertIn("touch", {found.kind for found in stuck.failures})
        self.assertTrue(all(found.when == "print" for found in stuck.failures))

    def test_a_prime_in_a_macro_that_passes_the_switch_is_found_there(self) -> None:
        called = PLAIN.replace(b"G28\n", b"G28\nPRIME_IT\n")
        through = replace(MODEL, macros={"PRIME_IT": "G1 X231 Y20 Z0.3 F6000\nG1 X60 E9\nG92 E0\nG1 X10"})
        [one] = proof_of(called, through, STOP).failures
        self.assertEqual((one.kind, one.when, one.about), ("more", "start", "the start"))

    def test_conditions_in_a_macro_are_told_as_not_readable(self) -> None:
        called = PLAIN.replace(b"G28\n", b"G28\nSTART_IT\n")
        proof = proof_of(called, replace(MODEL, macros={"START_IT": "{% if hot %}\nG28\n{% endif %}"}), STOP)
        self.assertEqual((proof.stands, proof.unknown), ("incomplete", ("START_IT (its text has conditions)",)))


class WithoutAnOriginal(TestCase):
    """What a slicer or a host put in, where nothing is there to compare it with."""

    def _alone(self, lines: list[bytes], model: Model = MODEL) -> Proof:
        _, _, due = parked(PLAIN, 2)
        return judged(b"\n".join(lines) + b"\n", due, None, model)

    def test_a_line_across_the_bed_is_convicted_at_each_layer(self) -> None:
        out, _, _ = parked(PLAIN, 2)
        lines = [line for line in out.splitlines() if b"bridle" not in line]
        self.assertEqual(self._alone(lines).stands, "incomplete")
        # Nothing takes the head back, and the layer's own way to its first move is gone as well.
        bare: list[bytes] = []
        stopped = False
        for line in lines:
            stopped = line.startswith(b"G1 X230.5 ") or (stopped and not line.startswith(b"G1 X120"))
            if not (stopped and line.startswith(b"G0 ")) or not bare or b"G0 X220" in line:
                bare.append(line)
        proof = self._alone(bare)
        found = [one for one in proof.failures if one.kind == "across"]
        # Told once, where it comes first.
        self.assertEqual([(one.layer, one.count) for one in found], [(3, 2)], proof.failures)
        self.assertTrue(all(one.line > 0 for one in found))

    def test_what_stands_there_is_met_without_an_original_too(self) -> None:
        column = [[(80.0, 80.0), (90.0, 80.0), (90.0, 90.0), (80.0, 90.0), (80.0, 80.0)]] * 40
        text = program(Dialect(), column, things=2)
        fires = Stop(park=(20.0, 85.0), on=("M240",), wait_s=1.0)
        by_command = replace(MODEL, key=None, on=("M240",))
        for raised, kinds in ((0.0, {"strikes"}), (8.5, set())):
            out, _, due = parked(text, 4, stop=replace(fires, raise_mm=raised))
            self.assertEqual({one.kind for one in judged(out, due, None, by_command).failures}, kinds)

    def test_the_files_own_travels_that_come_too_low_are_told_as_its_own(self) -> None:
        lines = PLAIN.splitlines()
        at = lines.index(b";LAYER:4")
        # It goes through the part, where the file itself says so; beside it nothing is met.
        for ways, kinds in (
            ((b"G0 X130 Y90", b"G0 Z0.3", b"G0 X70", b"G0 Z0.9"), {"own travel"}),
            ((b"G0 X130 Y90", b"G0 Z0.3", b"G0 X140", b"G0 Z0.9"), set()),
        ):
            text = b"\n".join([*lines[: at + 1], *ways, *lines[at + 1 :]]) + b"\n"
            for told in (text, None):
                out, _, due = parked(text, 2)
                proof = judged(out, due, told)
                self.assertEqual((proof.failures, {one.kind for one in proof.minds}), ((), kinds))


class Foretold(TestCase):
    """What homing, start and end do to the switch is told before any proof is asked for, and alike."""

    def _plan(self, path: Path, how: dict[str, Any]) -> Plan:
        printer = {name: how[name] for name in how if name in ("macros", "moves")}
        switch = {name: how[name] for name in how if name not in printer}
        found = read_print(path, printed(printer=printer))
        facts, layers = file_facts(found, path.name, digest_of(path)), layer_source(found)
        return printed(file=facts.model_dump(), printer=printer, layers=layers.model_dump(), switch=switch)

    def test_the_snag_says_what_the_proof_finds(self) -> None:
        end, presses, touches = b"G0 X5.000000 Y150.000000", "start-presses-switch", "start-meets-switch"
        low = {"side": "low", "clicks_mm": 1.0}
        # On the frame it is met at one Y only.
        frame = {"rides": "frame", "across_mm": 150.0, "up_mm": 0.0, "tall_mm": 400.0, "moves": "head X Y Z"}
        cases: tuple[tuple[str, bytes, dict[str, Any], str | None], ...] = (
            ("nothing", PLAIN, {}, None),
            ("homing presses", PLAIN, low, presses),
            ("homing touches", PLAIN, {**low, "clicks_mm": 3.0}, touches),
            ("the start presses", after_home("G28\nG0 X237 F9000"), {}, presses),
            ("the start touches", after_home("G28\nG0 X239 F9000"), {}, touches),
            ("the end presses", PLAIN.replace(end, b"G0 X237 Y150.0"), {}, presses),
            ("the end touches", PLAIN.replace(end, b"G0 X239 Y150.0"), {}, touches),
            ("a macro presses", after_home("G28\nPRIME_IT"), prime("G0 X237 F9000"), presses),
            ("a macro goes home", after_home("PRIME_IT"), {**low, **prime("G28")}, presses),
            ("a macro moves nothing", after_home("G28\nPRIME_IT"), prime("; nothing"), None),
            ("beside it", after_home("G28\nG0 Y20\nG0 X239 F9000\nG0 X20"), frame, None),
            ("level with it", after_home("G28\nG0 Y150\nG0 X239 F9000\nG0 X20"), frame, touches),
        )
        for name, text, how, told in cases:
            with self.subTest(name), TemporaryDirectory() as folder:
                path, out = Path(folder) / "cup.gcode", Path(folder) / "out"
                path.write_bytes(text)
                plan = self._plan(path, how)
                snags = {snag.code: snag for snag in evaluate(plan).snags if snag.code.startswith("start-")}
                self.assertEqual(set(snags), {told} if told else set())
                proof = make_changed(path, out, plan).proof
                ends = {one.kind for one in proof.failures if one.when != "print"}
                self.assertEqual("touch" in ends, told == touches, proof.failures)
                self.assertEqual(bool(ends & {"more", "left held"}), told is not None, proof.failures)
                if told is not None:
                    answered = apply(plan, snags[told].fixes[0].edits)[0]
                    # Whoever answers otherwise has it proven anew.
                    self.assertNotEqual(print_digest(answered), print_digest(plan))
                    self.assertEqual(make_changed(path, out, answered).proof.stands, "proven")
                    rows = [row for sheet in evaluate(answered).review.sheets for row in sheet.settings]
                    [there] = [str(row.value.value) for row in rows if row.label == "the switch is there"]
                    self.assertIn("before the head goes home" if "end" in name else "fit it after the start", there)


def after_home(lines: str) -> bytes:
    """The print with other lines where it goes home."""
    return PLAIN.replace(b"G28\n", f"{lines}\n".encode())


def prime(text: str) -> dict[str, Any]:
    """A macro of the printer's own."""
    return {"macros": (Macro(name="PRIME_IT", text=text),)}
