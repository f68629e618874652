"""The virtual printer's machine code against its plain steps: whatever a file holds, both come to the very same."""

from copy import deepcopy
from dataclasses import asdict
from unittest import TestCase

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from bridle.standins.printer.laid import Laid
from bridle.standins.printer.running import Running
from bridle.standins.printer.tape import Tape, alike
from bridle.standins.printer.virtual import Printer
from tests.gcode import Dialect, program
from tests.mutated import EXAMPLES
from tests.prints.test_files import MODEL, SQUARE, parked
from tests.prints.test_lines import PIECES

PRINT = program(Dialect(), SQUARE)
NUMBERS = st.one_of(
    st.decimals(-30, 300, places=3).map(str), st.decimals(0, 200, places=1).map(str), st.integers(-300, 300).map(str),
    st.sampled_from(("0", "-0", ".5", "+5", "12.", "1" * 16, "0.00000000000000001", "--1", "1.2.3", "")),
)  # fmt: skip
WORDS = st.tuples(st.sampled_from("XXXYYYZEEEFI"), NUMBERS).map("".join)
MOVES = st.tuples(
    st.sampled_from(("G1 ", "G1 ", "G0 ", "G1  ", "G1\t", "G1", "g1 ")),
    st.lists(WORDS, max_size=4).map(" ".join),
    st.sampled_from(("", "", "", " ", " ; so", ";so", "\r", " ;a\rG1 X9")),
).map("".join)
OTHERS = st.one_of(
    st.sampled_from((*MODEL.on, "M400", "G4 P500", "G92 E0", "M83", "M82", "G91", "G90", "G28", "; note", "", "M84")),
    st.lists(st.sampled_from(PIECES), min_size=1, max_size=4).map(" ".join),
)  # fmt: skip
LINES = st.lists(st.one_of(MOVES, MOVES, MOVES, OTHERS), max_size=40)


def stands(printer: Printer) -> dict[str, object]:
    """All that a printer knows."""
    told = {name: value for name, value in vars(printer).items() if name not in ("_dues", "laid")}
    assert printer.laid is not None
    return deepcopy({**told, "log": asdict(printer.log), "laid": printer.laid.rows[: printer.laid.count].tolist()})


def made() -> Printer:
    printer = Printer(MODEL, dues=[0.5, 3.0, 9.0])
    printer.laid, printer.early = Laid(), 1.0
    return printer


class TheSame(TestCase):
    def same(self, text: bytes) -> int:
        """How many lines took the fast way."""
        slow, fast, seen = made(), made(), {}
        Running(fast).run(text, 0, len(text), lambda _: seen.update({fast.line: stands(fast)}))
        slow_ones = len(seen)
        seen[fast.line] = stands(fast)
        for line in text.split(b"\n")[:-1]:
            slow.step(line + b"\n")
            if slow.line in seen:
                np.testing.assert_equal(seen[slow.line], stands(slow))
        self.assertEqual(slow.line, fast.line)
        return fast.line - slow_ones

    @settings(max_examples=max(50, EXAMPLES), deadline=None)
    @given(LINES, st.integers(1, PRINT.count(b"\n") - 1))
    def test_whatever_stands_in_it(self, lines: list[str], at: int) -> None:
        given = PRINT.splitlines(keepends=True)
        self.same(b"".join([*given[:at], *(one.encode() + b"\n" for one in lines), *given[at:]]))

    def test_most_of_a_print_takes_the_fast_way(self) -> None:
        for relative in (False, True):
            text = parked(program(Dialect(relative_e=relative), SQUARE), 2)[0]
            with self.subTest(relative=relative):
                self.assertGreater(self.same(text), 0.6 * text.count(b"\n"))


class Pieces(TestCase):
    """A file that comes in pieces is taken in by whole lines."""

    @given(st.lists(st.binary(max_size=9).map(lambda one: one.replace(b"\x00", b"\n"))))
    def test_lines_of_any_pieces(self, pieces: list[bytes]) -> None:
        tape = Tape(pieces)
        told = list(iter(tape.line, None))
        self.assertEqual(b"".join(told), b"".join(pieces))
        self.assertTrue(all(one.count(b"\n") <= 1 and one[-1:] == b"\n" for one in told[:-1]))

    @given(st.lists(st.sampled_from([b"a\n", b"b\n", b"ab", b"\n", b"c"]), max_size=12), st.data())
    def test_what_is_alike_is_whole_lines(self, pieces: list[bytes], data: st.DataObject) -> None:
        other = [data.draw(st.sampled_from([one, one, b"x\n"])) for one in pieces]
        one, its, same = Tape(pieces), Tape(other), 0
        while count := alike(one, its):
            self.assertEqual(one.held[one.at : one.at + count], its.held[its.at : its.at + count])
            self.assertEqual(one.held[one.at + count - 1], 10)
            one.at, its.at, same = one.at + count, its.at + count, same + count
        mine, there = b"".join(pieces)[same:], b"".join(other)[same:]
        self.assertFalse(b"\n" in mine and mine.split(b"\n")[0] == there.split(b"\n")[0] and b"\n" in there)
