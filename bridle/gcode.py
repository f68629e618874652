"""`bridle gcode`: inspect a print, put stops into it, prove it, take them out; a file or a pipe."""

import argparse
import json
import sys
import tempfile
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from datetime import date
from pathlib import Path

from bridle.bench.facts import NoLayersError, file_facts, layer_source
from bridle.bench.jobs import NotReadyError, digest_of, make_changed, prove_file, read_print
from bridle.bench.source import TooLargeError, of_file, pieces, spooled
from bridle.bench.telling import fixes_of, said, summary
from bridle.core.evaluate import evaluate
from bridle.core.given import Given, Proved
from bridle.core.plan.document import Plan
from bridle.core.reckon.printing import chosen, print_digest
from bridle.core.snag import fill
from bridle.core.subjects.parking.blocks import AlteredError
from bridle.core.subjects.prints.pieces import NoTextError
from bridle.formats.plan_json import LARGEST_BYTES, PlanFileError, read_plan
from bridle.standins.printer.proof import Proof

REFUSED = (NoTextError, AlteredError, NotReadyError, NoLayersError, TooLargeError, PlanFileError)
FAILED, INCOMPLETE = 3, 4


def add_gcode(commands: "argparse._SubParsersAction[argparse.ArgumentParser]") -> None:
    """The four commands."""
    gcode = commands.add_parser("gcode", help="work on a print: inspect, park, prove, strip")
    each = gcode.add_subparsers(dest="gcode", required=True)
    for name, does, told in (
        ("inspect", _inspect, "print what was read of a file as JSON"),
        ("park", _park, "write the file with the plan's stops to standard output"),
        (
            "prove",
            _prove,
            "run a file on the virtual printer; exit status 3: it is wrong, 4: not all can be told",
        ),
        ("strip", _strip, "write the file without Bridle's stops to standard output"),
    ):
        command = each.add_parser(name, help=told, description=told.capitalize() + ".")
        command.add_argument("file", metavar="FILE", help="a G-code file, or - for standard input")
        if name != "strip":
            needed = name in ("park", "prove")
            command.add_argument(
                "--plan", metavar="PLAN.json", required=needed, help="the shoot, with printer and switch"
            )
        if name == "prove":
            command.add_argument("--original", metavar="FILE", help="the file before any stops were put in")
        if name == "park":
            command.add_argument("--unproven", action="store_true", help="write the file even where the proof fails")
        if name == "strip":
            command.add_argument(
                "--altered", action="store_true", help="take out stops that were edited by hand as well"
            )
        command.set_defaults(does=does, command="gcode")


@contextmanager
def _given(name: str) -> Iterator[Path]:
    """The file; what comes through a pipe is kept for as long as it is needed."""
    if name != "-":
        yield Path(name)
        return
    kept = spooled(sys.stdin.buffer)
    try:
        yield kept
    finally:
        kept.unlink(missing_ok=True)


def _plan(arguments: argparse.Namespace) -> Plan | None:
    if not arguments.plan:
        return None
    path = Path(arguments.plan)
    if path.stat().st_size > LARGEST_BYTES:
        raise PlanFileError(f"{path}: a plan has at most 1 MB")
    return read_plan(path.read_bytes())


def _inspect(arguments: argparse.Namespace) -> None:
    with _given(arguments.file) as path:
        found = read_print(path, _plan(arguments))
        facts = file_facts(found, path.name, digest_of(path))
    layers = layer_source(found).model_dump(mode="json") if found.layers else None
    told = {"file": facts.model_dump(mode="json"), "frames": layers, "seconds": round(found.seconds, 2)}
    sys.stdout.write(json.dumps(told, indent=2) + "\n")


def _park(arguments: argparse.Namespace) -> None:
    plan = _plan(arguments)
    assert plan is not None
    with _given(arguments.file) as path, tempfile.TemporaryDirectory() as folder:
        if plan.printing.file is None:
            plan = _fitted(plan, path)
        made = make_changed(path, Path(folder) / "changed.gcode", plan)
        _tell_stops(plan, made.proof.stands == "proven")
        _tell(made.proof, f"{made.layers:,} stops")
        _tell_helps(plan, made.proof)
        if made.proof.stands == "failed" and not arguments.unproven:
            raise SystemExit(FAILED)
        with made.path.open("rb") as file:
            _copy(iter(lambda: file.read(1 << 20), b""))


def _fitted(plan: Plan, path: Path, altered_too: bool = False) -> Plan:
    """The plan with the layers of this very file, chosen as the plan says."""
    found = read_print(path, plan, altered_too=altered_too)
    before = plan.frames if plan.frames.source == "layers" else None
    frames = layer_source(found, before)
    facts = file_facts(found, path.name, digest_of(path))
    return plan.model_copy(update={"frames": frames, "printing": plan.printing.model_copy(update={"file": facts})})


def _prove(arguments: argparse.Namespace) -> None:
    plan, original = _plan(arguments), Path(arguments.original) if arguments.original else None
    assert plan is not None
    with _given(arguments.file) as path:
        # What the plan does not know of its file is read of the original; of this very file only where there is none.
        if plan.printing.file is None:
            plan = _fitted(plan, original or path, altered_too=True)
        _tell_stops(plan)
        proof = prove_file(path, plan, original=original)
        count = len(chosen(plan.frames)) if plan.frames.source == "layers" else 0
    _tell(proof, f"{count:,} layers chosen", sys.stdout.write)
    if proof.stands != "proven":
        raise SystemExit(FAILED if proof.failures else INCOMPLETE)


def _tell_stops(plan: Plan, proven: bool = False) -> None:
    """What the plan itself says against this print; `proven` is the very file that it makes."""
    proofs = (Proved(print_digest(plan), "proven", date.today()),) if proven else ()
    for snag in evaluate(plan, given=Given(proofs=proofs)).snags:
        if snag.severity == "stop" and snag.chapter == "print":
            sys.stderr.write(f"The plan: {fill(snag.what, snag.slots)}\n")


def _tell(proof: Proof, first: str, write: Callable[[str], object] = sys.stderr.write) -> None:
    write(f"{first}. {summary(proof)}\n")
    for one in (*proof.failures, *proof.minds):
        layer = "before the first layer" if one.layer is None else f"layer {one.layer:,}"
        x, y, z = one.at
        write(f"line {one.line:,}, {layer}, at x {x:.1f}, y {y:.1f}, z {z:.2f}: {said(one)}\n")


def _tell_helps(plan: Plan, proof: Proof) -> None:
    """What can be done about what failed."""
    fixes = [fix for one in (*proof.failures, *proof.minds) for fix in fixes_of(one, plan, proof.free)]
    for label in dict.fromkeys(fill(fix.label, fix.slots) for fix in fixes):
        sys.stderr.write(f"To mend it: {label}.\n")


def _strip(arguments: argparse.Namespace) -> None:
    with _given(arguments.file) as path:
        _copy(pieces(of_file(path), arguments.altered))


def _copy(given: Iterator[bytes]) -> None:
    for piece in given:
        sys.stdout.buffer.write(piece)
    sys.stdout.buffer.flush()
