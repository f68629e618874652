"""How long an edit takes in the core, all that it does not touch being taken over; and that against from nothing."""

import json
import statistics
import time
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

from bridle.core.evaluate import evaluate, evaluate_after
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.formats.plan_json import read_plan
from tests.bench_core import plan as harbour

DEMO = Path(__file__).parents[1] / "bridle" / "demo" / "shoots"
TIMES = 9


def demo(name: str) -> Plan:
    """A demo plan by the name of its file."""
    return read_plan((DEMO / f"{name}.json").read_text(encoding="utf-8"))


def edits(path: str, value: Callable[[int], Any]) -> Callable[[Plan, int], Plan]:
    """One edit after another at a place."""
    return lambda plan, number: apply(plan, [Edit(path=path, value=value(number))])[0]


RENAMED = edits("shoot.name", lambda n: f"another name {n}")
MOVED = edits("move.keyframes.1.slide_mm", lambda n: 451.0 + n)
CLOUDED = edits("light.cloud_stops", lambda n: 1.0 + n / 10)
CLOSED = edits("frames.rules.0.closes", lambda n: {"by": "clock", "minutes": 1000 + 5 * n})


def median_ms(plan: Plan, edit: Callable[[Plan, int], Plan]) -> tuple[float, float]:
    """Milliseconds of processor time for an edit that follows another, and for the edited plan from nothing."""
    run = evaluate_after(None, plan)[1]
    after, alone = [], []
    for number in range(TIMES):
        edited = edit(plan, number)
        began = time.process_time()
        run = evaluate_after(run, edited)[1]
        between = time.process_time()
        evaluate(edited)
        after.append((between - began) * 1000)
        alone.append((time.process_time() - between) * 1000)
    return statistics.median(after[1:]), statistics.median(alone[1:])


def measured() -> Iterator[tuple[str, str, str]]:
    """Name, figure and promise of each."""
    shoot, mill = harbour(720, place=True), demo("mill-weir-footbridge")
    for what, plan, edit, promise in (
        ("rename, Harbour", shoot, RENAMED, "1 ms"),
        ("rename, Mill Weir", mill, RENAMED, "2 ms"),
        ("a keyframe moved, 720 frames", shoot, MOVED, "6 ms"),
        ("a keyframe moved, 100 000 frames", harbour(100_000, place=True), MOVED, "120 ms"),
        ("the cloud, Mill Weir", mill, CLOUDED, "20 ms"),
        ("a keyframe moved, Mill Weir", mill, MOVED, "20 ms"),
        ("an edge of a window, Mill Weir", mill, CLOSED, "60 ms"),
    ):
        took, alone = median_ms(plan, edit)
        yield what, f"{took:.1f} ms, {alone:.0f} from nothing", promise


if __name__ == "__main__":
    print(json.dumps(list(measured()), indent=1))
