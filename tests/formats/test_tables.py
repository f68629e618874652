# ruff: noqa: E501
"""What stands in each file, byte by byte for small shoots; what the command line says and where it says it."""

import csv
import io
import json
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from fractions import Fraction as F
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any
from unittest import TestCase
from unittest.mock import patch

from bridle.core.plan.camera import Camera
from bridle.core.plan.document import Plan
from bridle.core.plan.move import Keyframe, Move, OnFrame
from bridle.core.plan.picture import Crop, Picture, Post
from bridle.core.plan.rig import Axis, Rig
from bridle.core.plan.rounds import StereoPair
from bridle.core.reckon.parts import programmed
from bridle.formats.catalogue import FORMATS
from bridle.formats.crop_table import write_crops
from bridle.formats.frame_table import write_frames
from bridle.formats.nothing import NothingToWriteError
from bridle.formats.plan_json import read_plan
from bridle.formats.step_table import write_steps
from tests.formats.test_frames_and_cli import run
from tests.strategies import RINGS, plan_of, ramp, shooting

DEMO = sorted((Path(__file__).parents[2] / "bridle/demo/shoots").glob("*.json"))
FOUR = {"rate": F(25), "frames": F(4), "interval": F(10)}
RAIL = Axis(name="slide", kind="linear", low=0, high=900, top_speed=25, acceleration=80, backlash=0.5)
THERE_AND_BACK = Move(
    keyframes=(Keyframe(slide_mm=10), Keyframe(slide_mm=40, when=OnFrame(frame=3)), Keyframe(slide_mm=20))
)


def table(lines: Iterator[str]) -> list[dict[str, str]]:
    return list(csv.DictReader(io.StringIO("".join(lines))))


def column(lines: Iterator[str], name: str) -> list[float]:
    return [float(row[name]) for row in table(lines)]


class Frames(TestCase):
    def test_a_small_shoot(self) -> None:
        """The slide turns at frame 3, so its slope is nought there and 38 1/3 mm a frame where it begins."""
        plan = plan_of(FOUR, rig=Rig(axes=(RAIL,)), move=THERE_AND_BACK)
        self.assertEqual(
            "".join(write_frames(plan)),
            "frame,time,elapsed_s,slide_mm,exposure_s,f_number,iso\r\n"
            "1,2026-09-27T06:10:00.000+01:00,0.000,10.0000,0.0166666667,8,100\r\n"
            "2,2026-09-27T06:10:10.000+01:00,10.000,34.5833,0.0166666667,8,100\r\n"
            "3,2026-09-27T06:10:20.000+01:00,20.000,40.0000,0.0166666667,8,100\r\n"
            "4,2026-09-27T06:10:30.000+01:00,30.000,20.0000,0.0166666667,8,100\r\n",
        )

    def test_through_a_night_in_which_the_clocks_are_put_back(self) -> None:
        """Two frames half an hour apart, either side of two o'clock in summer time: the second is at half past one."""
        plan = plan_of({"rate": F(25), "frames": F(3), "interval": F(1800)}, clock={"at": "2026-10-25T01:15+01:00"})
        self.assertEqual(
            [row["time"][11:] for row in table(write_frames(plan))],
            ["01:15:00.000+01:00", "01:45:00.000+01:00", "01:15:00.000+00:00"],
        )

    def test_an_interval_that_changes(self) -> None:
        held = {"rate": F(25)}
        plan = plan_of(held, clip={"frames": ramp((20, 10), (10, 5))})
        self.assertEqual(
            [row["elapsed_s"] for row in table(write_frames(plan))], ["0.000", "10.000", "20.000", "25.000"]
        )

    def test_every_axis_has_its_column_as_it_is_typed(self) -> None:
        """Focus as a distance and zoom as a focal length, though their rings turn."""
        keys = (Keyframe(), Keyframe(slide_mm=100, pan_deg=9, tilt_deg=-3, roll_deg=1, focus_mm=900, zoom_mm=70))
        last = table(write_frames(plan_of(FOUR, rig=Rig(axes=RINGS), move=Move(keyframes=keys))))[-1]
        self.assertEqual(list(last)[3:9], ["slide_mm", "pan_deg", "tilt_deg", "roll_deg", "focus_mm", "zoom_mm"])
        self.assertEqual(list(last.values())[3:9], ["100.0000", "9.0000", "-3.0000", "1.0000", "900.0000", "70.0000"])


class Steps(TestCase):
    def test_a_small_shoot(self) -> None:
        """On the way down the motor goes half a millimetre further, for its play; a drive of no steps in thousandths."""
        plan = plan_of(FOUR, rig=Rig(axes=(RAIL,)), move=THERE_AND_BACK)
        self.assertEqual(
            "".join(write_steps(plan)),
            "frame,place,due_s,slide_mm,slide_motor,slide_steps,slide_change\r\n"
            "1,1,0.000,10.0000,10.0000,10000,0\r\n"
            "2,1,10.000,34.5833,34.5833,34583,24583\r\n"
            "3,1,20.000,40.0000,40.0000,40000,5417\r\n"
            "4,1,30.000,20.0000,19.5000,19500,-20500\r\n",
        )

    def test_both_places_of_a_pair_have_a_row(self) -> None:
        plan = plan_of(
            FOUR, rig=Rig(axes=(RAIL,)), move=Move(keyframes=(Keyframe(slide_mm=100),) * 2, visits=StereoPair())
        )
        rows = table(write_steps(plan))
        self.assertEqual(
            [(row["frame"], row["place"]) for row in rows[:4]], [("1", "1"), ("1", "2"), ("2", "1"), ("2", "2")]
        )
        self.assertEqual([row["slide_mm"] for row in rows[:4]], ["67.5000", "132.5000"] * 2)
        # Every other way is downwards, and half a millimetre longer.
        self.assertEqual([row["slide_motor"] for row in rows[1:4]], ["132.5000", "67.0000", "132.5000"])

    def test_the_steps_of_all_frames_add_up_to_the_way(self) -> None:
        for path in DEMO:
            plan = read_plan(path.read_bytes())
            if not programmed(plan):
                continue
            with self.subTest(path.stem):
                rows = table(write_steps(plan))
                for axis in programmed(plan):
                    steps = [int(row[f"{axis.name}_steps"]) for row in rows]
                    changes = [int(row[f"{axis.name}_change"]) for row in rows]
                    self.assertEqual(steps[0] + sum(changes), steps[-1])
                    for row in rows:
                        off = abs(float(row[f"{axis.name}_{axis.unit}"]) - float(row[f"{axis.name}_motor"]))
                        self.assertLessEqual(off, axis.backlash + 1e-4)


class Crops(TestCase):
    """The picture is 6000 × 4000; each rectangle is worked out by hand."""

    def cropped(self, start: Crop, end: Crop, **picture: Any) -> list[list[int]]:
        # The eases are nought and the frames five, so the crop goes by quarters.
        plan = plan_of({**FOUR, "frames": F(5)}, move=Move(post=Post(start=start, end=end)), picture=Picture(**picture))
        return [[int(float(cell)) for cell in row.values()] for row in table(write_crops(plan))]

    def test_goes_in_by_quarters(self) -> None:
        rows = self.cropped(Crop(), Crop(width=0.5))
        self.assertEqual(
            [row[4:6] for row in rows], [[6000, 4000], [5250, 3500], [4500, 3000], [3750, 2500], [3000, 2000]]
        )
        self.assertEqual([row[2:4] for row in rows], [[0, 0], [375, 250], [750, 500], [1125, 750], [1500, 1000]])

    def test_goes_across_and_down_as_far_as_it_may(self) -> None:
        """Half the picture whose middle is asked for at its corners: at the edges it stops."""
        rows = self.cropped(Crop(across=0, down=1, width=0.5), Crop(across=1, down=0, width=0.5))
        self.assertEqual([row[2:4] for row in rows], [[0, 2000], [750, 1500], [1500, 1000], [2250, 500], [3000, 0]])

    def test_lies_in_the_middle_of_what_is_kept_of_another_shape(self) -> None:
        """16:9 of 6000 across are 3375, and 3374 of them even: 313 are cut off above and below."""
        rows = self.cropped(Crop(), Crop(width=0.5), shape="16:9", width_px=1920)
        self.assertEqual(rows[0][2:], [0, 313, 6000, 3374, 1920, 1078])
        self.assertEqual(rows[-1][2:], [1500, 1157, 3000, 1686, 1920, 1078])

    def test_tells_how_far_to_turn_first(self) -> None:
        plan = plan_of(FOUR, picture=Picture(level_deg=-1.5))
        row = table(write_crops(plan))[0]
        self.assertEqual(row["turn_deg"], "-1.5")
        self.assertLess(int(row["width_px"]), 6000)
        self.assertEqual(int(row["left_px"]), (6000 - int(row["width_px"])) // 2)

    def test_is_the_whole_frame_where_nothing_is_cropped(self) -> None:
        plan = plan_of(FOUR, camera=Camera(upright=True))
        self.assertEqual(
            [",".join(list(row.values())[2:]) for row in table(write_crops(plan))], ["0,0,4000,6000,4000,6000"] * 4
        )

    def test_is_what_the_finder_draws(self) -> None:
        """In shares of the kept picture, from its upper left corner."""
        plan = plan_of(
            {**FOUR, "frames": F(5)},
            move=Move(post=Post(start=Crop(), end=Crop(across=0.3, down=0.6, width=0.5))),
            picture=Picture(shape="16:9"),
        )
        for row, share in zip(table(write_crops(plan)), shooting(plan).crops, strict=True):
            left, top, width, height = (float(row[name]) for name in ("left_px", "top_px", "width_px", "height_px"))
            wanted = (left / 6000, (top - 313) / 3374, width / 6000, height / 3374)
            for found, worked in zip(share, wanted, strict=True):
                self.assertAlmostEqual(found, worked, 9)


class Catalogue(TestCase):
    def test_every_file_of_every_demo_shoot(self) -> None:
        """What is written says so; what cannot be written says why, before its first line."""
        for path in DEMO:
            plan = read_plan(path.read_bytes())
            for made in FORMATS:
                with self.subTest(f"{path.stem} {made.key}"):
                    try:
                        text = "".join(made.write(plan))
                    except NothingToWriteError as error:
                        self.assertGreater(len(str(error).split()), 4)
                        continue
                    self.assertTrue(text.endswith("\n"))
                    if made.suffix == ".json":
                        self.assertEqual(read_plan(text.encode()), plan)
                    elif made.suffix == ".csv":
                        rows = list(csv.reader(io.StringIO(text)))
                        self.assertEqual({len(row) for row in rows}, {len(rows[0])})
                        self.assertEqual(len(set(rows[0])), len(rows[0]))

    def test_tables_of_one_shoot_agree(self) -> None:
        for path in DEMO:
            plan = read_plan(path.read_bytes())
            if plan.move.visits is not None:
                continue
            with self.subTest(path.stem):
                for axis in programmed(plan):
                    if axis.on_lens:
                        continue
                    name = f"{axis.name}_{axis.unit}"
                    for seen, told in zip(
                        column(write_frames(plan), name), column(write_steps(plan), name), strict=True
                    ):
                        self.assertAlmostEqual(seen, told, 3)

    def test_names_and_addresses_are_their_own(self) -> None:
        for name in ("key", "file", "title", "does"):
            self.assertEqual(len({getattr(made, name) for made in FORMATS}), len(FORMATS))
        self.assertEqual(
            [made.file for made in FORMATS],
            [
                "plan.json",
                "frames.csv",
                "changes.csv",
                "calendar.ics",
                "steps.csv",
                "crops.csv",
                "told.csv",
                "program.gcode",
            ],
        )


@contextmanager
def typed(data: bytes) -> Iterator[None]:
    """Something on standard input."""
    stream = io.TextIOWrapper(io.BytesIO(data))
    with patch.object(sys, "stdin", stream):
        yield


class CommandLine(TestCase):
    def test_every_format_is_a_command_that_prints_its_file(self) -> None:
        plan = read_plan(DEMO[0].read_bytes())
        for made in FORMATS:
            with self.subTest(made.key):
                try:
                    wanted = (0, "".join(made.write(plan)), "")
                except NothingToWriteError as error:
                    wanted = (1, "", f"bridle: {DEMO[0]}: {error}\n")
                self.assertEqual(run(made.key, str(DEMO[0])), wanted)

    def test_a_plan_comes_in_on_standard_input(self) -> None:
        with typed(DEMO[0].read_bytes()):
            code, out, err = run("evaluate", "-")
        self.assertEqual((code, err), (0, ""))
        self.assertEqual(json.loads(out), json.loads(run("evaluate", str(DEMO[0]))[1]))
        with typed(b"[1, 2"):
            code, out, err = run("frames", "-")
        self.assertEqual((code, out), (1, ""))
        self.assertRegex(err, r"^bridle: -: .*not JSON")

    def test_an_open_clip_is_told_before_the_first_line(self) -> None:
        with TemporaryDirectory() as folder:
            path = Path(folder) / "open.json"
            path.write_text(opened(plan_of({"interval": F(9)})))
            for command in ("frames", "steps", "crops", "program"):
                code, out, err = run(command, str(path))
                self.assertEqual((code, out), (1, ""), command)
                self.assertIn("leaves something open", err)

    def test_wrong_usage_is_told_apart(self) -> None:
        for arguments in ((), ("frames",), ("nonsense", str(DEMO[0])), ("frames", str(DEMO[0]), "more")):
            with self.subTest(arguments), self.assertRaises(SystemExit) as caught:
                run(*arguments)
            self.assertEqual(caught.exception.code, 2)


def opened(plan: Plan) -> str:
    """A plan as its file."""
    return "".join(FORMATS[0].write(plan))
