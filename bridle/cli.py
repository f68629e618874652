"""The command line: what follows from a plan file, and copies of the whole data."""

import argparse
import os
import subprocess
import sys
from pathlib import Path

from bridle import gcode
from bridle.core.evaluate import evaluate
from bridle.core.older import changed
from bridle.core.plan.document import Plan
from bridle.datafolder.copies import RESTORE, backup, copies_of, restore
from bridle.datafolder.health import UnwellError
from bridle.datafolder.lock import TakenError, take
from bridle.datafolder.where import PROJECT, data_folder, for_its_owner_only
from bridle.formats.catalogue import FORMATS
from bridle.formats.nothing import NothingToWriteError
from bridle.formats.plan_json import LARGEST_BYTES, PlanFileError, read_with_version

WRITERS = {made.key: made.write for made in FORMATS}
REFUSED = (OSError, PlanFileError, NothingToWriteError, UnwellError, TakenError, *gcode.REFUSED)


def main(argv: list[str] | None = None) -> int:
    """Run one command; returns the exit code: 0 done, 1 it cannot be done, 2 wrong usage."""
    arguments = _parser().parse_args(argv)
    try:
        arguments.does(arguments)
    except BrokenPipeError:
        return 0
    except REFUSED as error:
        about = getattr(arguments, "file", None) or getattr(arguments, "plan", arguments.command)
        sys.stderr.write(f"bridle: {about}: {error}\n")
        return 1
    return 0


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(
        prog="bridle", description="Says what follows from a plan, and copies Bridle's data and brings it back."
    )
    commands = parser.add_subparsers(dest="command", required=True)
    for name, help_text in (("evaluate", "print the evaluation as JSON"), *((made.key, made.does) for made in FORMATS)):
        command = commands.add_parser(name, help=help_text, description=help_text.capitalize() + ".")
        command.add_argument("plan", metavar="PLAN.json", help="a plan file, or - for standard input")
        command.set_defaults(does=_tell)
    for name, help_text, does in (
        ("backup", "copy the whole data into a file; Bridle may be running", _backup),
        ("restore", "try a copy and put it in the place of the data; Bridle must not be running", _restore),
    ):
        command = commands.add_parser(name, help=help_text, description=help_text.capitalize() + ".")
        command.add_argument("file", metavar="FILE", type=Path)
        command.set_defaults(does=does)
    gcode.add_gcode(commands)
    return parser


def _tell(arguments: argparse.Namespace) -> None:
    plan, version = _read(arguments.plan)
    if arguments.command == "evaluate":
        evaluation = evaluate(plan)
        sys.stdout.write(evaluation.model_dump_json(indent=2) + "\n")
        sys.stderr.writelines(f"{said}\n" for said in changed(version, plan, evaluation))
    else:
        sys.stdout.writelines(WRITERS[arguments.command](plan))


def _backup(arguments: argparse.Namespace) -> None:
    to = arguments.file.resolve()
    backup(data_folder(), to)
    sys.stdout.write(f"The data is copied into {to} ({to.stat().st_size / 1e6:.1f} MB).\n")
    prints = list(data_folder().glob("prints/*/original.gcode"))
    if prints:
        size = sum(one.stat().st_size for one in prints) / 1e6
        sys.stdout.write(
            f"The files of the prints (so many: {len(prints)}, {size:.1f} MB) are not in it; keep them too.\n"
        )


def _restore(arguments: argparse.Namespace) -> None:
    folder = data_folder()
    for_its_owner_only(folder)
    lock = take(folder)
    try:
        before = restore(folder, arguments.file.resolve(), _starts)
    finally:
        lock.let_go()
    sys.stdout.write("The copy has been tried: it is whole, and Bridle starts with it. It is in place now.\n")
    if before:
        sys.stdout.write(f"What was there before is {before}.\n")
    kept = copies_of(folder, RESTORE)
    if len(kept) > 1:
        size = sum(one.stat().st_size for one in kept) / 1e6
        sys.stdout.write(
            f"{kept[0].parent} holds {len(kept)} copies from before a restore ({size:.1f} MB). "
            "Bridle deletes none of them; you may, once you are sure that you miss nothing.\n"
        )


def _starts(folder: Path) -> None:
    """Have Bridle itself start with a copy, in a process and a folder of its own. Raises `UnwellError`."""
    environment = {**os.environ, "BRIDLE_DATA": str(folder)}
    command = [sys.executable, str(PROJECT / "manage.py"), "tryout"]
    tried = subprocess.run(command, env=environment, capture_output=True, text=True, check=False)
    if tried.returncode:
        why = (tried.stderr.strip().splitlines() or ["it ended without a word"])[-1]
        raise UnwellError(f"Bridle does not start with this copy: {why} Nothing was changed.")


def _read(name: str) -> tuple[Plan, int]:
    if name == "-":
        return read_with_version(sys.stdin.buffer.read(LARGEST_BYTES + 1))
    path = Path(name)
    if path.stat().st_size > LARGEST_BYTES:
        raise PlanFileError(f"this file has {path.stat().st_size / 1e6:.1f} MB; a plan has at most 1 MB")
    return read_with_version(path.read_bytes())


if __name__ == "__main__":
    sys.exit(main())
