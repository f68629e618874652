"""The bench's long work: read a file, write the changed one and prove it, cut a trial and prove that."""

import hashlib
import os
import tempfile
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from pathlib import Path

from bridle.bench.motions import model_of, motion_of
from bridle.bench.proving import expected, proven
from bridle.bench.reading import read
from bridle.bench.rounds import rounds
from bridle.bench.source import Opened, of_file, pieces
from bridle.bench.writing import changed, chosen_places, short
from bridle.core.plan.document import Plan
from bridle.core.reckon.printing import chosen, has_stops, held_s, layered, picture_s, printer_of, stop_of, switch_told
from bridle.core.subjects.parking.stop import Stop
from bridle.core.subjects.parking.trial import MARK
from bridle.core.subjects.prints.found import Inspection, Layer, Place
from bridle.standins.printer.proof import Expected, Proof

# What is being done, how much of it is done, and of how much; it may raise to stop the work.
Told = Callable[[str, int, int], None]
TRIAL_LAYERS = 10
SLACK_S = 0.6
CUTTING = "cutting the trial"
RUNNING = "running it on the virtual printer"


class NotReadyError(ValueError):
    """Something is missing without which no stop can be written."""


@dataclass(frozen=True, slots=True)
class Made:
    """A file that was written, and how its proof came out."""

    path: Path
    size: int
    layers: int
    proof: Proof


def silent(what: str, done: int, of: int) -> None:
    """Tell nobody."""


def read_print(path: Path, plan: Plan | None, told: Told = silent, altered_too: bool = False) -> Inspection:
    """Read a file with the limits of the plan's printer, or usual ones; without our stops, edited ones where asked."""
    size = path.stat().st_size
    motion = motion_of(printer_of(plan) if plan else None)
    return read(of_file(path), motion, lambda what, done: told(what, done, size), altered_too)


def make_changed(path: Path, out: Path, plan: Plan, told: Told = silent) -> Made:
    """Write the file with the plan's stops and prove it. Raises `NotReadyError`."""
    stop = _stop(plan)
    _may_be_written(path, plan)
    found = read_print(path, plan, told)
    frames = layered(plan)
    numbers = chosen(frames) if frames else ()
    if not numbers or not found.layers or numbers[-1] > len(found.layers):
        raise NotReadyError("the plan's layers are not those of this file; take the file into the shoot again")
    return _make(path, out, plan, found, numbers, stop, told)


def make_trial(path: Path, out: Path, plan: Plan, told: Told = silent) -> Made:
    """Cut the first layers out of the file, with a stop at each, and prove them. Raises `NotReadyError`."""
    stop = _stop(plan)
    _may_be_written(path, plan)
    found = read_print(path, plan, told)
    if not found.layers:
        raise NotReadyError("no layers were found in this file")
    cut = out.with_suffix(".cut")
    parts = short(of_file(path), found, TRIAL_LAYERS, digest_of(path))
    _write(cut, parts, lambda done: told(CUTTING, done, found.size))
    try:
        part = read_print(cut, plan, told)
        return _make(cut, out, plan, part, tuple(range(1, len(part.layers) + 1)), stop, told)
    finally:
        cut.unlink(missing_ok=True)


def prove_file(path: Path, plan: Plan, told: Told = silent, original: Path | None = None) -> Proof:
    """Run a file as it is, whoever has put stops into it, beside its original.

    That is the file given, or what is left of this one without our stops, where it is the plan's own by its digest;
    what the stops are held against is read of the original alone. A trial is held against what is cut of its original
    anew. Without one the print is not compared. Raises `NotReadyError` where the original is not the plan's file.
    """
    file, mark = plan.printing.file, _mark_of(path)
    if original is None:
        # A file that is the plan's own as it stands cannot be held against itself.
        told_of = file.digest if file is not None else ""
        own = digest_of(path) != told_of == _digest(pieces(of_file(path), altered_too=True))
        return _prove(path, plan, told, of_file(path) if own else None, whole=mark is not None)
    digest = digest_of(original)
    if digest == digest_of(path):
        raise NotReadyError("this original is the very same file; nothing can be held against itself")
    if file is not None and file.digest not in (digest, digest_of(path)):
        raise NotReadyError("the plan's layers were read of another file than this original")
    if mark is None:
        return _prove(path, plan, told, of_file(original))
    if mark[1] != digest:
        raise NotReadyError("this trial was cut from another file than this original")
    found = read_print(original, plan, told)
    with tempfile.TemporaryDirectory(prefix="bridle-") as folder:
        part = Path(folder) / "cut.gcode"
        _write(part, short(of_file(original), found, mark[0], digest), lambda done: told(CUTTING, done, found.size))
        return _prove(path, plan, told, of_file(part), whole=True)


def _mark_of(path: Path) -> tuple[int, str] | None:
    """How many layers a trial has, and the digest of what it was cut from; None where it is no trial."""
    for piece in pieces(of_file(path), altered_too=True):
        for mark in MARK.finditer(piece):
            return int(mark[1]), mark[2].decode()
    return None


def _prove(path: Path, plan: Plan, told: Told, original: Opened | None, whole: bool = False) -> Proof:
    """`whole`: every layer has a stop, whatever the plan chooses."""
    size, printer = path.stat().st_size, printer_of(plan)
    source = original or of_file(path)
    found = read(source, motion_of(printer), lambda what, done: told(what, done, size), altered_too=True)
    frames, count = layered(plan), len(found.layers)
    numbers = [n for n in (range(1, count + 1) if whole else chosen(frames) if frames else ()) if n <= count]
    due = _due(plan, found, chosen_places(found, numbers, plan.printing.stop.where))
    beside = pieces(original, altered_too=True) if original else None
    return proven(of_file(path), model_of(plan, found.apart), due, beside, lambda done: told(RUNNING, done, size))


def _due(plan: Plan, found: Inspection, places: Sequence[tuple[Layer, Place]]) -> Expected:
    printer, held = printer_of(plan), held_s(plan)
    idle = float(printer.idle_s) if printer and printer.idle_s else None
    # A single command that fires has no hold; what is pressed is held as long as the plan says.
    once = printer is not None and printer.fires != "switch" and not printer.fire_off
    least = 0.0 if once else held
    return expected(found, places, picture_s(plan), held + SLACK_S, idle, least, switch_told(plan))


def _may_be_written(path: Path, plan: Plan) -> None:
    """Refuse another file than the plan's, and a second set of stops that nobody asked for. Raises `NotReadyError`."""
    file, by = plan.printing.file, plan.printing.by
    if file is None or file.digest != digest_of(path):
        raise NotReadyError("the plan's layers were read of another file than this one; take this one into the shoot")
    if "file" not in by:
        raise NotReadyError(
            "the plan has the stops come from the slicer or the host; a changed file would hold a second set"
        )
    if has_stops(file) and not plan.printing.second_set:
        raise NotReadyError(
            "somebody has put stops into this file already; say that ours go in beside them, or slice it anew"
        )


def _stop(plan: Plan) -> Stop:
    stop = stop_of(plan)
    if stop is None:
        raise NotReadyError("the printer, its switch, or where that clicks is not known yet")
    return stop


def _make(path: Path, out: Path, plan: Plan, found: Inspection, numbers: Iterable[int], stop: Stop, told: Told) -> Made:
    places = chosen_places(found, list(numbers), plan.printing.stop.where)
    size = _write(
        out, changed(of_file(path), found, places, stop), lambda done: told("putting the stops in", done, found.size)
    )
    due = _due(plan, found, places)
    original = pieces(of_file(path))
    model, ways = model_of(plan, found.apart), [one.round for one in rounds(plan)]
    proof = proven(of_file(out), model, due, original, lambda done: told(RUNNING, done, size), ways)
    return Made(out, size, len(places), proof)


def _write(out: Path, pieces: Iterable[bytes], told: Callable[[int], None]) -> int:
    """Write a file so that it is there whole or not at all; returns its bytes."""
    half, size = out.with_name(out.name + ".half"), 0
    with half.open("wb") as file:
        for piece in pieces:
            file.write(piece)
            size += len(piece)
            told(size)
        file.flush()
        os.fsync(file.fileno())
    half.replace(out)
    return size


def _digest(parts: Iterable[bytes]) -> str:
    digest = hashlib.sha256()
    for part in parts:
        digest.update(part)
    return digest.hexdigest()


def digest_of(path: Path) -> str:
    """The file's SHA-256, in hexadecimal."""
    with path.open("rb") as file:
        return hashlib.file_digest(file, "sha256").hexdigest()
