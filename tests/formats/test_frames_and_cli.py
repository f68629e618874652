"""The frame table, and the command line over both formats."""

import csv
import io
import json
from contextlib import redirect_stderr, redirect_stdout
from datetime import datetime, timedelta
from fractions import Fraction as F
from itertools import pairwise
from pathlib import Path
from tempfile import TemporaryDirectory
from unittest import TestCase

from bridle.cli import main
from bridle.formats.frame_table import write_frames
from bridle.formats.nothing import NothingToWriteError
from bridle.formats.plan_json import read_plan
from tests.strategies import plan_of

HARBOUR = Path(__file__).parents[2] / "bridle/demo/shoots/harbour-refloat.json"


def run(*arguments: str) -> tuple[int, str, str]:
    out, err = io.StringIO(), io.StringIO()
    with redirect_stdout(out), redirect_stderr(err):
        code = main(list(arguments))
    return code, out.getvalue(), err.getvalue()


class FrameTable(TestCase):
    def test_a_line_a_frame_with_clock_axes_and_exposure(self) -> None:
        rows = list(csv.DictReader(io.StringIO("".join(write_frames(read_plan(HARBOUR.read_bytes()))))))
        self.assertEqual(len(rows), 720)
        self.assertEqual([row["frame"] for row in rows], [str(n) for n in range(1, 721)])
        clocks = [datetime.fromisoformat(row["time"]) for row in rows]
        self.assertEqual({b - a for a, b in pairwise(clocks)}, {timedelta(seconds=16)})
        self.assertEqual((rows[0]["slide_mm"], rows[-1]["slide_mm"]), ("40.0000", "860.0000"))
        self.assertEqual((rows[0]["exposure_s"], rows[0]["f_number"], rows[0]["iso"]), ("2.5", "11", "100"))

    def test_an_open_clip_has_no_table(self) -> None:
        with self.assertRaises(NothingToWriteError):
            write_frames(plan_of({"interval": F(9)}))


class CommandLine(TestCase):
    def test_evaluate_and_frames(self) -> None:
        code, out, _ = run("evaluate", str(HARBOUR))
        told = json.loads(out)
        self.assertEqual((code, told["frames"], told["figures"]["clip.clip"]["value"]), (0, 720, 28.8))
        # A frame that moves on has seven lines; 24 in the handles and the last have five; head and foot have 21.
        for command, lines in (("steps", 721), ("crops", 721), ("program", 695 * 7 + 25 * 5 + 21)):
            code, out, _ = run(command, str(HARBOUR))
            self.assertEqual((code, len(out.splitlines())), (0, lines), command)
        code, out, _ = run("frames", str(HARBOUR))
        self.assertEqual((code, len(out.splitlines())), (0, 721))

    def test_a_bad_file_is_told_on_one_stream_and_by_the_exit_code(self) -> None:
        with TemporaryDirectory() as folder:
            bad, large = Path(folder) / "bad.json", Path(folder) / "large.json"
            bad.write_text("{")
            large.write_bytes(b" " * 2_000_000)
            for name, said in ((bad, "not JSON"), (large, "2.0 MB"), (Path(folder) / "none.json", "No such file")):
                with self.subTest(name):
                    code, out, err = run("evaluate", str(name))
                    self.assertEqual((code, out), (1, ""))
                    self.assertIn(said, err)
