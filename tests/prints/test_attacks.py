"""Changed files with something wrong in them: each is convicted where it goes wrong; what does no harm is not.

The files are made by the tests' own generator, and the mistakes by hand: what puts stops in has no part in them.
"""

import re
from collections.abc import Callable
from dataclasses import replace
from typing import Any, get_args
from unittest import TestCase

from bridle.bench.proving import expected
from bridle.bench.telling import fixes_of
from bridle.bench.writing import Where, chosen_places
from bridle.bench.writing import changed as with_stops
from bridle.core.subjects.parking.stop import Stop
from bridle.standins.printer.proof import Proof
from tests.gcode import Dialect, program
from tests.prints.test_files import MODEL, SQUARE, STOP, inspected, judged, opened, parked
from tests.provoked_print import printed

# The bed of the model is 240 mm wide: one print takes up most of it.
WIDE = [[(25.0, 60.0), (185.0, 60.0), (185.0, 150.0), (25.0, 150.0)]] * 4
SLANTED = [[(80.0, 80.0), (120.0, 95.0), (105.0, 112.0), (84.0, 101.0), (80.0, 80.0)]] * 6
FILES = {
    "plain": program(Dialect(), SQUARE),
    "relative filament": program(Dialect(relative_e=True), SQUARE),
    "relative": program(Dialect(relative=True), SQUARE),
    "inches": program(Dialect(inches=True), SQUARE),
    "arcs": program(Dialect(arcs=True), SQUARE),
    "hops": program(Dialect(hops=True, resets=True), SQUARE),
    "shifted": program(Dialect(shifted=True), SQUARE),
    "by firmware": program(Dialect(firmware=True), SQUARE),
    "wide": program(Dialect(), WIDE),
    "slanted": program(Dialect(), SLANTED),
}
Lines = list[str]
Bad = Callable[[Lines], int | None]


def bare(text: bytes) -> Lines:
    """Without the marks by which a stop is known."""
    return [line for line in text.decode().splitlines() if "bridle" not in line]


def stop_at(lines: Lines) -> int:
    """Where the second stop begins: its press, or what fires, is the second of its kind."""
    presses = [n for n, line in enumerate(lines) if line.startswith("G1 X") and "F1200" in line and " E" not in line]
    return presses[1]


def put(line: str, after: int = 0) -> Bad:
    """A line put into the second stop, so many lines behind its press."""

    def edit(lines: Lines) -> int:
        lines.insert(stop_at(lines) + after, line)
        return stop_at(lines)

    return edit


def gone(pattern: str) -> Bad:
    """The first line of this kind from the second stop on is taken out."""
    return changed(pattern, None)


def changed(pattern: str, to: Any) -> Bad:
    """The first line of this kind from the second stop on is another one; None where the file has no such line."""

    def edit(lines: Lines) -> int | None:
        for n in range(stop_at(lines), len(lines)):
            if re.search(pattern, lines[n]):
                lines[n : n + 1] = [] if to is None else [re.sub(pattern, to, lines[n])]
                return n + 1
        return None

    return edit


def moved(letter: str, by: float) -> Bad:
    """A printed move further on ends elsewhere, or pushes otherwise."""
    return changed(r"^(G[123] .*\b[XY][^ ]+ .*E[^-].*)$", lambda found: shifted(found[1], letter, by))


def shifted(line: str, letter: str, by: float) -> str:
    found = re.search(rf"{letter}(-?[\d.]+)", line)
    if found is None:
        return f"{line} {letter}{by}" if letter != "E" else line
    return line[: found.start(1)] + f"{float(found[1]) + by:.6f}" + line[found.end(1) :]


def before_it(pattern: str, to: str | None) -> Bad:
    """The last line of this kind before the second stop's press is another one, or none."""

    def edit(lines: Lines) -> int | None:
        for n in range(stop_at(lines) - 1, max(0, stop_at(lines) - 8), -1):
            if re.search(pattern, lines[n]):
                lines[n : n + 1] = [] if to is None else [re.sub(pattern, to, lines[n])]
                return n + 1
        return None

    return edit


def primes_too_soon(lines: Lines) -> int | None:
    """The filament comes before the head goes back."""
    at = stop_at(lines)
    back = next(n for n in range(at, len(lines)) if re.match(r"G0 .*F9000$", lines[n]))
    prime = next((n for n in range(back, back + 4) if lines[n].startswith("G1 E0.8 ")), None)
    if prime is None:
        return None
    lines.insert(back, lines.pop(prime))
    return back


def a_move_too_soon(lines: Lines) -> int | None:
    """The stop comes before the last printed move of its layer."""
    at = stop_at(lines)
    begins = next(n for n in range(at, 0, -1) if re.match(r"G[123] .*[XY].*E", lines[n]))
    ends = next(n for n in range(at, len(lines)) if re.match(r"G1 F\S+$", lines[n]))
    lines.insert(ends, lines.pop(begins))
    return begins + 4


BAD: dict[str, Bad] = {
    "an object is given up": put("EXCLUDE_OBJECT NAME=cup_0"),
    "an object is given up by number": put("M486 P0"),
    "a move behind a move": put("G53 G0 X234", 3),
    "a move behind a tool": put("T0 G0 X234", 3),
    "a move behind a setting": put("M400 G0 X234", 3),
    "a move behind the end of a line": put("; nothing\rG91\rG0 X14\rG0 X-14\rG90", 3),
    "filament by the printer's own retraction": put("G10\nG11", 3),
    "drawn back by the printer for good": lambda lines: None if "G11" in lines else put("G10", 3)(lines),
    "another tool": put("T1", 4),
    "home in height": put("G28 Z", 4),
    "home altogether": put("G28", 4),
    "levelling": put("G29", 4),
    "below the bed": put("G91\nG0 Z-5\nG0 Z5\nG90", 4),
    "down and through the part": put("G91\nG0 Z-0.15\nG0 X-120 Y-85\nG0 X120 Y85\nG0 Z0.15\nG90", 4),
    "parked elsewhere": before_it(r"^(G0 X\S+) Y\S+ F9000$", r"\1 Y150 F9000"),
    "nothing drawn back": before_it(r"^G1 E-0\.8 F2100$", None),
    "drawn back too far": before_it(r"^G1 E-0\.8 F2100$", "G1 E-1.2 F2100"),
    "no prime": gone(r"^G1 E0\.8 F2100$"),
    "too much of a prime": changed(r"^G1 E0\.8 F2100$", "G1 E0.83 F2100"),
    "a prime before it is back": primes_too_soon,
    "a move too soon": a_move_too_soon,
    "a wait by hand": changed(r"^G4 P1000$", "M0"),
    "travels that are slower for good": put("M204 T300"),
    "an axis that is slower for good": put("M203 X10"),
    "limits off": put("M211 S0"),
    "a current": put("M906 X800"),
    "no filament sensor": put("M412 S0"),
    "a servo": put("M280 P0 S90"),
    "the printer's own retraction, longer": put("M207 S3"),
    "coordinates aside": put("M206 X1"),
    "coordinates in height": put("G92 Z0.5", 9),
    "the chamber": put("M141 S50"),
    "the bed waits cold": put("M190 S30"),
    "the nozzle is off": put("M104 S0"),
    "the speed factor stays": put("M220 S50"),
    "the flow stays": put("M221 S95"),
    "the fan stays": put("M106 S128"),
    "a further fan stays": put("M106 P2 S255"),
    "the nozzle is colder": put("M104 S180"),
    "the nozzle waits and stays colder": put("M109 S150"),
    "the bed is off": put("M140 S0"),
    "the motors are let go": put("M84", 5),
    "an acceleration stays": put("M204 P500"),
    "a jerk stays": put("M205 X4"),
    "a pressure stays": put("M900 K0.1"),
    "an output stays": put("M42 P7 S255"),
    "a light stays": put("M355 S1"),
    "steps a millimetre": put("M92 E400"),
    "a word that sets": put("SET_PRESSURE_ADVANCE ADVANCE=0.3"),
    "a word that sets a speed": put("SET_VELOCITY_LIMIT ACCEL=100"),
    "filament at the switch": put("G1 E0.4 F300", 2),
    "filament drawn back for good": put("G1 E-0.4 F300", 2),
    "a line in the air": put("G1 X150 Y150 E3 F1800", 4),
    "G92 of a place": put("G92 X0", 3),
    "relative for good": put("G91", 9),
    "home in between": put("G28 X", 4),
    "a pause": put("M0"),
    "a pause for the filament": put("M600", 4),
    "inches for good": lambda lines: None if "G20" in lines else put("G20", 9)(lines),
    "filament back and forth at the switch": put("G1 E-0.2 F2100\nG1 E0.2", 2),
    "a second press": put("G1 X230.5 F1200", 3),
    "pressed too far": changed(r"^G1 X\S+ F1200$", "G1 X236 F1200"),
    "not pressed": gone(r"^G1 X\S+ F1200$"),
    "pressed for too short": changed(r"^G4 P200$", "G4 P20"),
    "pressed for too long": changed(r"^G4 P200$", "G4 P4000"),
    "no wait": gone(r"^G4 P1000$"),
    "half the wait": changed(r"^G4 P1000$", "G4 P100"),
    "a wait in seconds that are none": changed(r"^G4 P1000$", "G4 P1"),
    "not back": gone(r"^G0 .*F9000$"),
    "a move less": gone(r"^G[123] .*[XY].*E"),
    "a move twice": changed(r"^(G1 .*[XY].*E.*)$", r"\1\nG1 X100 Y100.5 E99"),
    "0.005 mm to the right": moved("X", 0.005),
    "0.005 mm back": moved("Y", -0.005),
    "5 mm to the right": moved("X", 5.0),
    "0.5 mm up": moved("Z", 0.5),
    "more filament": moved("E", 0.002),
    "less filament": moved("E", -0.002),
    "another feed": changed(r"^(G1 .*[XY]\S+ E\S+)( F\S+)?$", r"\1 F1234"),
}
HARMLESS: dict[str, Bad] = {
    "a comment": put("; nothing"),
    "a comment in parentheses": put("(nothing)"),
    "an empty line": put(""),
    "spaces": put("   "),
    "a question for the heat": put("M105"),
    "a question for the place": put("M114"),
    "a message": put("M117 taking a picture"),
    "progress": put("M73 P40 R12"),
    "moves finished": put("M400"),
    "a longer wait": changed(r"^G4 P1000$", "G4 P1500"),
    "a wait in seconds": changed(r"^G4 P1000$", "G4 S1"),
    "a faster travel": changed(r"^(G0 .*)F9000$", r"\1F9090"),
    "order of letters": changed(r"^(G1) (X\S+) (Y\S+)( E\S+.*)$", r"\1 \3 \2\4"),
    "noughts at the end": changed(r"^(G1 .*E\d+\.\d+)( F\S+)?$", r"\g<1>000\2"),
    "small letters": changed(r"^G1 (X\S+ Y\S+ E.*)$", lambda f: f"g1 {f[1].lower()}"),
    "spaces between words": changed(r"^(G1) (X\S+) ", r"\1   \2  "),
    "a comment behind a move": changed(r"^(G1 .*E\S+.*)$", r"\1 ; a wall"),
    "heat as it is": put("M140 S60"),
    "the fan is switched and switched back": put("M106 S255\nM107"),
    "a fan off that never ran": put("M107"),
    "a way in two": changed(r"^G0 (X\S+) (Y\S+) F9000$", r"G0 \1 F9000\nG0 \2"),
    # The file's own travel tells it anew.
    "a feed that is not set back": gone(r"^G1 F\S+$"),
    "a pause of no length": put("G4 P0"),
    "where it stands is asked for": put("M114 R"),
    "a sound": put("M300 S440 P20"),
    "numbers with a plus": changed(r"^G4 P1000$", "G4 P+1000"),
    "no space between words": changed(r"^(G1) (X\S+) (Y\S+)( E\S+.*)$", r"\1\2\3\4"),
    "a line that ends in spaces": changed(r"^(G1 .*E\S+.*)$", r"\1   "),
    "the feed told twice": changed(r"^G1 F(\S+)$", r"G1 F\1\nG1 F\1"),
}


class Attacked(TestCase):
    def _edited(self, text: bytes, edit: Bad) -> tuple[bytes, int, Any] | None:
        out, _, due = parked(text, 2)
        lines = bare(out)
        at = edit(lines)
        return None if at is None else (("\n".join(lines) + "\n").encode(), at, due)

    def _proof(self, text: bytes, edit: Bad) -> tuple[Proof, int] | None:
        edited = self._edited(text, edit)
        return edited and (judged(edited[0], edited[2], text), edited[1])

    def test_each_mistake_is_convicted_where_it_is_made(self) -> None:
        counted = 0
        for name, edit in BAD.items():
            tried = 0
            for file, text in FILES.items():
                found = self._proof(text, edit)
                if found is None:
                    continue
                proof, line = found
                tried += 1
                with self.subTest(name, file=file):
                    self.assertEqual(proof.stands, "failed")
                    first = min(proof.failures, key=lambda one: one.line)
                    # In the stop itself, or at the first move that prints after it.
                    self.assertTrue(line - 12 <= first.line <= line + 25, (line, proof.failures))
                    self.assertTrue(all(one.line > 0 and one.layer for one in proof.failures), proof.failures)
            counted += tried
            self.assertGreater(tried, 5, name)
        self.assertGreater(counted, 600)
        self.assertGreaterEqual(len(BAD), 76)

    def test_a_stop_within_a_layer_comes_back_to_where_it_left(self) -> None:
        """No travel follows it: what prints next begins where the head stands."""
        for file in ("plain", "relative", "slanted", "wide"):
            text = FILES[file]
            out, _, due = parked(text, 2, "infill")
            lines = bare(out)
            self.assertEqual(judged("\n".join([*lines, ""]).encode(), due, text).stands, "proven")
            # There and back for each stop; the last one stands behind its layer.
            back = [n for n, line in enumerate(lines) if line.startswith("G0 X") and line.endswith("F9000")][1]
            for by in (0.005, -0.4, 30.0):
                with self.subTest(file=file, by=by):
                    off = [shifted(line, "X", by) if n == back else line for n, line in enumerate(lines)]
                    proof = judged("\n".join([*off, ""]).encode(), due, text)
                    self.assertIn("path", {one.kind for one in proof.failures})
            # Nor does anything tell the feed anew.
            at = next(n for n in range(back, len(lines)) if re.match(r"G1 F\S+$", lines[n]))
            proof = judged("\n".join([*lines[:at], *lines[at + 1 :], ""]).encode(), due, text)
            self.assertIn("feed rate", {one.about for one in proof.failures})

    def test_what_is_too_little_to_tell_adds_up(self) -> None:
        """A relative print that is pushed aside by 0.0015 mm before every second of its moves is soon 0.003 mm off."""
        text = program(Dialect(relative=True), [way * 3 for way in SLANTED])
        found = inspected(text)
        places = chosen_places(found, [2], "end")
        out, due = b"".join(with_stops(opened(text), found, places, STOP)), expected(found, places, 0.9, 0.7)
        for each, stands in ((0.0015, "failed"), (0.0, "proven")):
            lines: Lines = []
            for n, line in enumerate(bare(out)):
                if re.match(r"G1 X\S+ Y\S+ E", line) and n > 90 and n % 2:
                    lines.append(f"G0 X{each}")
                lines.append(line)
            self.assertEqual(judged("\n".join([*lines, ""]).encode(), due, text).stands, stands)

    def test_what_does_no_harm_is_not(self) -> None:
        for name, edit in HARMLESS.items():
            tried = 0
            for file, text in FILES.items():
                if (found := self._proof(text, edit)) is not None:
                    tried += 1
                    with self.subTest(name, file=file):
                        self.assertEqual((found[0].stands, found[0].failures), ("proven", ()))
            self.assertTrue(tried, name)
        self.assertGreaterEqual(len(HARMLESS) + len(OF_ITS_OWN), 42)


def layer_by_layer(edit: Callable[[Lines, int], Lines]) -> Callable[[Lines], Lines]:
    """Each layer's own lines done otherwise, from the second on."""

    def edited(lines: Lines) -> Lines:
        marks = [n for n, line in enumerate(lines) if line.startswith(";LAYER:")]
        ends = [*marks[1:], next(n for n, line in enumerate(lines) if "E-2.0" in line)]
        out = lines[: marks[1]]
        for number, (begins, end) in enumerate(zip(marks[1:], ends[1:], strict=True), 1):
            out += edit(lines[begins:end], number)
        return out + lines[ends[-1] :]

    return edited


def slope(lines: Lines, number: int) -> Lines:
    """The seam begins a little lower and rises along the first move."""
    height = 0.2 * (number + 1)
    at = next(n for n, line in enumerate(lines) if line.startswith("G0") and " Z" in line)
    low = re.sub(r"Z[\d.]+", f"Z{height - 0.15:.3f}", lines[at])
    first = next(n for n, line in enumerate(lines) if re.match(r"G1 X\S+ E", line))
    risen = re.sub(r" E", f" Z{height:.3f} E", lines[first], count=1)
    return [*lines[:at], low, *lines[at + 1 : first], risen, *lines[first + 1 :]]


IRONED = [f"G1 X{x} Y{y} E0.01 F1200" for x, y in ((119, 84), (81, 84), (81, 88), (119, 88), (80, 110))]
# What slicers do of themselves: it stands in the original, and no stop is accused of it.
OF_ITS_OWN: dict[str, Callable[[Lines, int], Lines]] = {
    "a wipe while drawing back": lambda lines, _: [
        one for line in lines for one in (["G1 X82 E-0.5 F2400", "G1 X80 E-0.3"] if "E-0.8" in line else [line])
    ],
    "coasting": lambda lines, _: [*lines[:-1], "G1 X84 E1.4 F1800", "G0 X80"],
    "ironing": lambda lines, _: [*lines, "G0 X119 Y82 F9000", *IRONED],
    "a seam that starts on a slope": slope,
    "pressure advance": lambda lines, n: [lines[0], f"M900 K0.0{n}", "SET_PRESSURE_ADVANCE ADVANCE=0.04", *lines[1:]],
    "a fan by the layer": lambda lines, n: [lines[0], f"M106 S{40 * n}", *lines[1:]],
    "heat by the layer": lambda lines, n: [lines[0], f"M104 S{210 + n}", *lines[1:]],
    "accelerations by the wall": lambda lines, n: [lines[0], f"M204 P{800 + n} T1500", "M205 X8", *lines[1:]],
    "flow and speed by the layer": lambda lines, n: [lines[0], f"M221 S{95 + n}", f"M220 S{90 + n}", *lines[1:]],
    "E begins anew": lambda lines, _: [lines[0], "G92 E0", *lines[1:]],
    "a longer restart": lambda lines, _: [re.sub(r"^G1 E0\.800000", "G1 E0.820000", line) for line in lines],
    "relative for a hop": lambda lines, _: [*lines, "G91", "G0 Z0.4", "G0 Z-0.4", "G90"],
    "a wait for the nozzle": lambda lines, _: [lines[0], "M105", "G4 S1", "M117 next", *lines[1:]],
    "a pause in the middle": lambda lines, n: [*lines[:-1], *(["M600"] if n == 3 else []), lines[-1]],
}


class OfItsOwn(TestCase):
    def test_what_a_slicer_does_is_no_fault_of_the_stops(self) -> None:
        text = program(Dialect(relative_e=True), SQUARE).decode().splitlines()
        for name, edit in OF_ITS_OWN.items():
            lines = layer_by_layer(edit)(text)
            self.assertNotEqual(lines, text, name)
            file = ("\n".join(lines) + "\n").encode()
            for where in get_args(Where):
                with self.subTest(name, where=where):
                    out, found, due = parked(file, 2, where)
                    model = replace(MODEL, apart=found.apart)
                    proof = judged(out, due, file, model)
                    self.assertEqual((proof.stands, proof.failures, len(found.layers)), ("proven", (), 6))
                    # And a mistake in it is seen all the same.
                    bad = bare(out)
                    moved("X", 0.005)(bad)
                    self.assertEqual(judged("\n".join([*bad, ""]).encode(), due, file, model).stands, "failed")


# Two columns of 8 mm one after the other, the second to the right of the first; it fires by a command.
COLUMN = [[(80.0, 80.0), (90.0, 80.0), (90.0, 90.0), (80.0, 90.0), (80.0, 80.0)]] * 40
TWO = program(Dialect(), COLUMN, things=2)
FIRES = Stop(park=(20.0, 85.0), on=("M240",), wait_s=1.0)
BY_COMMAND = replace(MODEL, key=None, on=("M240",))


class Lamps(TestCase):
    """What a stop switches for the picture is known, and given back."""

    def test_a_lamp_that_is_not_switched_off_again_is_convicted(self) -> None:
        text = FILES["plain"]
        for on, off in (
            ("SET_PIN PIN=light VALUE=1", "SET_PIN PIN=light VALUE=0"),
            ("M355 S1", "M355 S0"),
            ("M42 P4 S255", "M42 P4 S0"),
            ("M106 P2 S255", "M106 P2 S0"),
            ("M280 P0 S20", "M280 P0 S90"),
            ("LIGHT_ON", "LIGHT_OFF"),
        ):
            stop = replace(STOP, before=(on,), after=(off,))
            out, _, due = parked(text, 2, stop=stop)
            model = replace(MODEL, lamps=(on, off), rest=(off,))
            with self.subTest(on):
                self.assertEqual(judged(out, due, text, model).stands, "proven")
                forgotten = "\n".join(bare(out)).replace(f"\n{off}\n", "\n", 1).encode()
                kinds = {one.kind for one in judged(forgotten, due, text, model).failures}
                self.assertEqual(kinds, {"state"})

    def test_a_fan_that_is_used_as_an_output_is_given_back_as_it_ran(self) -> None:
        text = FILES["plain"].replace(b"M84", b"M106 P2 S100\nM84").replace(b";LAYER:1\n", b"M106 P2 S128\n;LAYER:1\n")
        fires = Stop(park=(220.0, 180.0), on=("M106 P2 S255",), off=("M106 P2 S0",), wait_s=1.0)
        out, _, due = parked(text, 2, stop=fires)
        model = replace(MODEL, key=None, on=fires.on, off=fires.off, rest=fires.off)
        proof = judged(out, due, text, model)
        self.assertEqual({one.kind for one in proof.failures}, {"state"}, proof.failures)


class OfThePrintersOwn(TestCase):
    """What a printer does by a name of its own is carried out, wherever the name stands."""

    def test_a_text_behind_what_fires_is_carried_out(self) -> None:
        text = FILES["plain"]
        fires = Stop(park=(220.0, 180.0), on=("TAKE_IT",), wait_s=1.0)
        out, _, due = parked(text, 2, stop=fires)
        for body, kinds in (
            ("; nothing moves", set()),
            ("G91\nG0 X14.9\nG0 X-14.9\nG90", {"more", "touch", "state"}),
            ("G91\nG0 Z-5\nG0 Z5\nG90", {"beyond"}),
        ):
            model = replace(MODEL, on=("TAKE_IT",), macros={"TAKE_IT": body})
            with self.subTest(body):
                found = {one.kind for one in judged(out, due, text, model).failures}
                self.assertTrue(found == kinds if not kinds else found & kinds, found)

    def test_what_nobody_knows_is_never_proven(self) -> None:
        for line in (
            "G10 L20 P1 X3",
            "G10 P0 X1",
            "M112",
            "G61",
            "G5 X1 Y1 I2 J2 P1 Q1",
            "SET_GCODE_OFFSET X=2",
            "M28",
        ):
            out, _, due = parked(FILES["plain"], 2)
            lines = bare(out)
            put(line, 3)(lines)
            self.assertNotEqual(judged("\n".join([*lines, ""]).encode(), due, FILES["plain"]).stands, "proven", line)

    def test_a_call_that_the_original_does_not_have_is_convicted(self) -> None:
        for file in ("plain", "relative filament"):
            text = FILES[file]
            out, _, due = parked(text, 2)
            lines = bare(out)
            put("PRIME_IT", 3)(lines)
            model = replace(MODEL, macros={"PRIME_IT": "M83\nG1 E5 F300\nM82"})
            proof = judged("\n".join([*lines, ""]).encode(), due, text, model)
            self.assertIn("state", {one.kind for one in proof.failures}, file)


class InTheWay(TestCase):
    """What is printed already stands in the way of a stop, and not of what the file does itself."""

    def _proof(self, stop: Stop, text: bytes = TWO, edit: Bad | None = None) -> Proof:
        out, _, due = parked(text, 4, stop=stop)
        lines = out.decode().splitlines()
        if edit is not None:
            edit(lines)
        return judged(("\n".join(lines) + "\n").encode(), due, text, BY_COMMAND)

    def test_a_stop_goes_around_what_stands_there_or_over_it(self) -> None:
        for name, stop, met in (
            ("through the first column", FIRES, True),
            ("over it", replace(FIRES, raise_mm=8.5), False),
            ("over it, and not quite", replace(FIRES, raise_mm=7.0), True),
            ("away from it", replace(FIRES, park=(200.0, 85.0)), False),
        ):
            with self.subTest(name):
                proof = self._proof(stop)
                self.assertEqual({one.kind for one in proof.failures}, {"strikes"} if met else set())
                for one in proof.failures:
                    # Only while the second is printed, at the first column's edge.
                    self.assertGreater(one.layer or 0, 40)
                    self.assertTrue(80 <= one.at[0] <= 90.3 and 79.7 <= one.at[1] <= 90.3, one)

    def test_a_part_of_the_head_meets_what_the_nozzle_passes_by(self) -> None:
        """The nozzle passes 5 mm behind a column of 16 mm; the fan, 10 mm above its tip, does not."""
        narrow = [[(80.0, 80.0), (85.0, 80.0), (85.0, 85.0), (80.0, 85.0), (80.0, 80.0)]] * 80
        text = program(Dialect(), narrow, things=2)
        stop = replace(FIRES, park=(60.0, 110.0))
        failures = self._proof(stop, text).failures
        self.assertEqual({(one.kind, one.about) for one in failures}, {("strikes", "fan")}, failures)
        self.assertTrue(all(80 < (one.layer or 0) < 120 for one in failures), failures)
        self.assertEqual(self._proof(replace(stop, raise_mm=6.5), text).stands, "proven")

    def test_the_fix_raises_it_far_enough(self) -> None:
        struck = next(one for one in self._proof(FIRES).failures if one.kind == "strikes")
        [fix] = fixes_of(struck, printed())
        high = float(str(fix.edits[0].value))
        self.assertEqual(self._proof(replace(FIRES, raise_mm=high)).stands, "proven")
        # It clears the column by a millimetre, and by no more than rounding up adds.
        self.assertTrue(8 < high <= 10, high)

    def test_a_nozzle_that_is_lowered_first_is_in_the_part(self) -> None:
        single = program(Dialect(), COLUMN)
        self.assertEqual(self._proof(FIRES, single).stands, "proven")

        def lowered(lines: Lines) -> int:
            at = [n for n, line in enumerate(lines) if line.startswith("G0 X20 ")][2]
            lines[at:at] = ["G91", "G1 Z-0.1", "G90"]
            return at

        kinds = {one.kind for one in self._proof(FIRES, single, lowered).failures}
        self.assertIn("strikes", kinds)

    def test_a_purge_line_is_brushed(self) -> None:
        """It stands 0.1 mm above the first layer; on the way to x 5 the nozzle goes over it, at y 50."""
        low = program(Dialect(), [[(80.0, 50.0), (90.0, 50.0), (90.0, 60.0), (80.0, 50.0)]] * 3)
        out, _, due = parked(low, 1, stop=replace(FIRES, park=(5.0, 50.0)))
        proof = judged(out, due, low, BY_COMMAND)
        self.assertEqual((proof.stands, [one.kind for one in proof.minds]), ("proven", ["purge"]))
        raised = replace(FIRES, park=(5.0, 50.0), raise_mm=1.0)
        out, _, due = parked(low, 1, stop=raised)
        self.assertEqual(judged(out, due, low, BY_COMMAND).minds, ())
