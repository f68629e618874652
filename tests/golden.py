"""Whether this checkout tells the same as an earlier commit: `python -m tests.golden BASE [PATTERN ...]`.

The seven demo plans and three hundred random ones are evaluated, written as every file and followed by a run in both
checkouts. Every value is compared to the last figure; what differs is printed by its place, with how often and an
example. Places that match a PATTERN (a regular expression) are meant to differ, and only counted.
"""

import contextlib
import hashlib
import importlib
import io
import json
import math
import os
import re
import subprocess
import sys
from collections import Counter
from collections.abc import Iterator
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

import numpy as np

ROOT = Path(__file__).parents[1]
RANDOM, MUTATED = 200, 100
FILES = ("frames", "steps", "crops", "program")
PLACES = 60


def drawn() -> list[dict[str, Any]]:
    """The demo plans, and random ones that are the same each time."""
    import django  # noqa: PLC0415
    from hypothesis import HealthCheck, Phase, given, seed, settings  # noqa: PLC0415  only the base draws

    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "bridle.server.settings")
    django.setup()
    from tests.mutated import PLANS, mutated_plans  # noqa: PLC0415
    from tests.strategies import plans  # noqa: PLC0415

    found = list(PLANS)

    def more(strategy: Any, count: int) -> None:
        checks = list(HealthCheck)

        @seed(2026)
        @settings(
            max_examples=count, database=None, deadline=None, phases=[Phase.generate], suppress_health_check=checks
        )
        @given(strategy)
        def draw(plan: Any) -> None:
            found.append(plan.model_dump(mode="json"))

        draw()

    more(plans, RANDOM)
    more(mutated_plans(), MUTATED)
    return found


def told(data: dict[str, Any]) -> dict[str, Any]:
    """All that a plan comes to: evaluation, files, run, and frames looked at one by one."""
    from bridle.core.evaluate import evaluate  # noqa: PLC0415  either checkout's
    from bridle.formats.plan_json import read_plan  # noqa: PLC0415

    plan = read_plan(json.dumps(data))
    evaluation = evaluate(plan)
    frames = evaluation.frames or 0
    made: dict[str, Any] = {"evaluation": _drawn(evaluation.model_dump(mode="json"), 900), "run": _run(plan)}
    made["dragged"] = _drawn(evaluate(plan, 120, aside=False).model_dump(mode="json"), 100)
    if frames <= 20_000:
        made |= {name: _file(name, data) for name in FILES}
    made["frame"] = [_frame(plan, frame) for frame in sorted({0, frames // 3, max(0, frames - 1)})]
    return made


def _drawn(told: dict[str, Any], most: int) -> dict[str, Any]:
    """The evaluation with its drawn lines read at some frames, whichever way they are told."""
    traces, view = told.pop("traces"), told["view"]
    frames = told["frames"] or 0
    # Longer ones are thinned for drawing, each version in its own way.
    if traces is None or not 0 < frames <= most:
        lines = ("poses", "shift_share", "sun", "crops")
        return {**told, "view": view and {name: value for name, value in view.items() if name not in lines}}
    crops = view.pop("crops")
    if "map" not in traces:
        crops = [{"values": list(side)} for side in zip(*crops, strict=True)]
    series = {**traces["axes"], **view.pop("poses"), **(view.pop("sun") or {}), "shift": view.pop("shift_share")}
    series |= {f"crop {side}": values for side, values in enumerate(crops)}
    elapsed = traces["elapsed_s"] if "map" not in traces else _filled(traces["map"], frames)
    read = {name: [_value(values, frame) for frame in range(frames)] for name, values in series.items()}
    return {**told, "read": {**read, "elapsed": elapsed}}


def _filled(time_map: dict[str, Any], frames: int) -> list[float]:
    made = np.interp(range(frames), time_map["frames"], time_map["elapsed_s"])
    return [round(float(second), 3) for second in made]


def _value(series: Any, frame: int) -> float:
    values = series["values"] if isinstance(series, dict) else series
    return float(values[0] if len(values) == 1 else values[frame])


def _run(plan: Any) -> Any:
    from bridle.core.run.programme import NotReadyError, programme  # noqa: PLC0415

    try:
        made = programme(plan)
    except NotReadyError as error:
        return str(error)
    plain = {k: v for k, v in vars(made).items() if isinstance(v, int | float | str | dict) and k != "positions"}
    arrays = {"starts_s": made.starts_s, **made.positions}
    return {**plain, "arrays": {k: [float(v.sum()), float(v.min()), float(v.max())] for k, v in arrays.items()}}


def _summed(values: Any) -> list[float]:
    """An array that stands within something."""
    return [float(values.sum()), float(values.min()), float(values.max())]


def _frame(plan: Any, frame: int) -> Any:
    # The room that it stands in has been moved.
    for room in ("bridle.core.lists.frame", "bridle.core.chapters.moment"):
        with contextlib.suppress(ImportError):
            looked = importlib.import_module(room)
            break
    from pydantic import TypeAdapter  # noqa: PLC0415

    return TypeAdapter(list[Any]).dump_python(looked.answer(plan, frame), mode="json")


def _file(name: str, data: dict[str, Any]) -> Any:
    from bridle.cli import main  # noqa: PLC0415

    with TemporaryDirectory() as folder, contextlib.redirect_stderr(io.StringIO()) as wrong:
        plan = Path(folder) / "plan.json"
        plan.write_text(json.dumps(data), encoding="utf-8")
        with contextlib.redirect_stdout(io.StringIO()) as out:
            code = main([name, str(plan)])
    lines = out.getvalue().splitlines()
    digest = hashlib.blake2b(out.getvalue().encode(), digest_size=8).hexdigest()
    wrong_text = wrong.getvalue().replace(str(plan), "PLAN")
    return {"code": code, "lines": len(lines), "digest": digest, "head": lines[:40], "wrong": wrong_text}


def differences(one: Any, other: Any, place: str = "") -> Iterator[tuple[str, Any, Any]]:
    """Every place in which two values of plain JSON differ; numbers count as equal to the last figures of a float."""
    if isinstance(one, dict) and isinstance(other, dict):
        for key in {**one, **other}:
            yield from differences(one.get(key, "absent"), other.get(key, "absent"), f"{place}.{key}")
    elif isinstance(one, list) and isinstance(other, list) and len(one) == len(other):
        for number, (a, b) in enumerate(zip(one, other, strict=True)):
            yield from differences(a, b, f"{place}.{number}")
    elif isinstance(one, float | int) and isinstance(other, float | int) and not isinstance(one, bool):
        if not math.isclose(one, other, rel_tol=1e-12, abs_tol=1e-9):
            yield place, one, other
    elif one != other:
        yield place, one, other


def _in(checkout: Path, *arguments: str) -> None:
    environment = {**os.environ, "PYTHONPATH": str(checkout)}
    subprocess.run([sys.executable, "-P", "-m", "tests.golden", *arguments], cwd=checkout, env=environment, check=True)


def main(base: str, patterns: list[str]) -> int:
    """Compare; 0 where nothing differs but what is meant to."""
    with TemporaryDirectory() as folder:
        before = Path(folder) / "before"
        before.mkdir()
        archive = subprocess.run(["git", "archive", base], cwd=ROOT, check=True, capture_output=True)
        subprocess.run(["tar", "-x", "-C", str(before)], input=archive.stdout, check=True)
        (before / "tests/golden.py").write_text(Path(__file__).read_text(encoding="utf-8"), encoding="utf-8")
        plans, was, now = (Path(folder) / name for name in ("plans.json", "was.json", "now.json"))
        _in(before, "--draw", str(plans))
        _in(before, "--tell", str(plans), str(was))
        _in(ROOT, "--tell", str(plans), str(now))
        return _report(json.loads(was.read_text()), json.loads(now.read_text()), patterns)


def _report(was: list[Any], now: list[Any], patterns: list[str]) -> int:
    meant, found, example = Counter[str](), Counter[str](), dict[str, str]()
    for number, (one, other) in enumerate(zip(was, now, strict=True)):
        for place, before, after in differences(one, other):
            kind = re.sub(r"\.\d+(?=\.|$)", ".#", place)
            wanted = next((pattern for pattern in patterns if re.search(pattern, kind)), None)
            if wanted:
                meant[wanted] += 1
                continue
            found[kind] += 1
            example.setdefault(kind, f"plan {number}: {str(before)[:90]} | {str(after)[:90]}")
    for kind, count in found.most_common(PLACES):
        print(f"{count:6} {kind}   {example[kind]}")
    said = ", ".join(f"{count} at “{pattern}”" for pattern, count in meant.items()) or "none"
    print(f"{len(was)} plans, {sum(found.values())} differences in {len(found)} places; meant: {said}")
    return 1 if found else 0


if __name__ == "__main__":
    if sys.argv[1] == "--draw":
        Path(sys.argv[2]).write_text(json.dumps(drawn()), encoding="utf-8")
    elif sys.argv[1] == "--tell":
        plans = json.loads(Path(sys.argv[2]).read_text(encoding="utf-8"))
        Path(sys.argv[3]).write_text(json.dumps([told(data) for data in plans], default=_summed), encoding="utf-8")
    else:
        sys.exit(main(sys.argv[1], sys.argv[2:]))
