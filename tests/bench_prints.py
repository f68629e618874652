"""How fast a print of 300 MB is read, changed and proven, and in how much memory; a process of its own."""

import json
import re
import resource
import subprocess
import sys
import time
from pathlib import Path
from tempfile import TemporaryDirectory

from bridle.bench.motions import model_of, motion_of
from bridle.bench.proving import expected, proven
from bridle.bench.reading import read
from bridle.bench.source import of_file, pieces
from bridle.bench.writing import changed, chosen_places
from bridle.core.reckon.printing import printer_of, stop_of
from bridle.core.subjects.prints.scan import scan
from bridle.demo.lantern import lantern
from bridle.formats.plan_json import read_plan

PLAN = Path(__file__).parents[1] / "bridle" / "demo" / "shoots" / "lattice-lantern.json"
PROMISED = {"scan": 20, "inspect": 8, "park": 150, "prove": 12}
PROMISED_MB = 350
TIMES = 32
HIGH_MM = 5.0


def large(to: Path) -> None:
    """The demo's lantern thirty times, one upon the other and flatter: 300 MB, 22 400 layers."""
    start, body = "".join(lantern()).split(";LAYER:0\n", 1)
    body, cut, end = body.partition("M104 S0")

    def lifted(k: int) -> str:
        text = re.sub(r";LAYER:(\d+)", lambda one: f";LAYER:{int(one[1]) + 700 * k}", ";LAYER:0\n" + body)
        return re.sub(r"Z([\d.]+)", lambda one: f"Z{float(one[1]) * 0.03 + k * HIGH_MM:.3f}", text)

    with to.open("w") as file:
        file.write(start)
        for k in range(TIMES):
            file.write("G92 E0\n" + lifted(k))
        file.write(cut + end)


def measured(folder: Path) -> dict[str, float]:
    """Megabytes a second of each step, and the most memory, in megabytes."""
    file, out = folder / "large.gcode", folder / "changed.gcode"
    # Another process makes it: its memory is not the reader's.
    subprocess.run([sys.executable, "-m", "tests.bench_prints", str(file)], check=True)
    plan = read_plan(PLAN.read_bytes())
    stop = stop_of(plan)
    assert stop is not None
    size, told = file.stat().st_size / 1e6, {}
    # The compiled functions are loaded before anything is timed.
    small = folder / "small.gcode"
    small.write_text("".join(lantern(3)))
    read(of_file(small), motion_of(printer_of(plan)))
    began = time.perf_counter()
    scan(pieces(of_file(file)))
    told["scan"] = size / (time.perf_counter() - began)
    began = time.perf_counter()
    found = read(of_file(file), motion_of(printer_of(plan)))
    told["inspect"] = size / (time.perf_counter() - began)
    count = len(found.layers)
    places = chosen_places(found, [n for n in range(1, count + 1) if (count - n) % 5 == 0], "end")
    began = time.perf_counter()
    with out.open("wb") as written:
        written.writelines(changed(of_file(file), found, places, stop))
    told["park"] = size / (time.perf_counter() - began)
    began = time.perf_counter()
    proof = proven(of_file(out), model_of(plan), expected(found, places, 0.8, 2), pieces(of_file(file)))
    told["prove"] = out.stat().st_size / 1e6 / (time.perf_counter() - began)
    if proof.stands != "proven":
        raise SystemExit(f"the bench's own file is {proof.stands}")
    return {**told, "memory": resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1000}


if __name__ == "__main__":
    if len(sys.argv) > 1:
        large(Path(sys.argv[1]))
    else:
        with TemporaryDirectory() as made:
            sys.stdout.write(json.dumps(measured(Path(made))))
