"""The command line: `bridle evaluate PLAN.json`, and `frames`, `steps`, `crops` or `program` in its place."""

import argparse
import sys
from collections.abc import Callable, Iterator
from pathlib import Path

from bridle.core.evaluate import evaluate
from bridle.core.plan.document import Plan
from bridle.formats.crop_table import write_crops
from bridle.formats.drive_program import NoAxesError, program
from bridle.formats.frame_table import NoFramesError, write_frames
from bridle.formats.plan_json import LARGEST_BYTES, PlanFileError, read_plan
from bridle.formats.step_table import write_steps

WRITERS: dict[str, Callable[[Plan], Iterator[str]]] = {
    "frames": write_frames,
    "steps": write_steps,
    "crops": write_crops,
    "program": program,
}


def main(argv: list[str] | None = None) -> int:
    """Run one command; returns the exit code: 0 done, 1 the file is no plan, 2 wrong usage."""
    arguments = _parser().parse_args(argv)
    try:
        plan = _read(arguments.plan)
        if arguments.command == "evaluate":
            sys.stdout.write(evaluate(plan).model_dump_json(indent=2) + "\n")
        else:
            sys.stdout.writelines(WRITERS[arguments.command](plan))
    except BrokenPipeError:
        return 0
    except (OSError, PlanFileError, NoFramesError, NoAxesError) as error:
        sys.stderr.write(f"bridle: {arguments.plan}: {error}\n")
        return 1
    return 0


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="bridle", description="Reads a plan and says what follows from it.")
    commands = parser.add_subparsers(dest="command", required=True)
    for name, told in (
        ("evaluate", "print the evaluation as JSON"),
        ("frames", "print the frame table as CSV"),
        ("steps", "print what the drives are told as CSV, in steps"),
        ("crops", "print the crop of each frame as CSV"),
        ("program", "print the drive's program as G-code"),
    ):
        command = commands.add_parser(name, help=told, description=told.capitalize() + ".")
        command.add_argument("plan", metavar="PLAN.json", help="a plan file, or - for standard input")
    return parser


def _read(name: str) -> Plan:
    if name == "-":
        return read_plan(sys.stdin.buffer.read(LARGEST_BYTES + 1))
    path = Path(name)
    if path.stat().st_size > LARGEST_BYTES:
        raise PlanFileError(f"this file has {path.stat().st_size / 1e6:.1f} MB; a plan has at most 1 MB")
    return read_plan(path.read_bytes())


if __name__ == "__main__":
    sys.exit(main())
