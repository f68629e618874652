"""What Bridle promises about speed, measured on this machine: `make bench`, or `make bench BASE=REV`.

Prints each figure beside its promise; it judges nothing, since a machine may be busy with other things. With a
commit named, the core is measured in turns with that commit's, and the ratio is told: that is what a noisy machine
tells truly.
"""

import json
import os
import platform
import shutil
import statistics
import subprocess
import sys
import time
import urllib.request
from collections.abc import Callable
from datetime import UTC, datetime
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

from playwright.sync_api import Page, sync_playwright

from bridle.core.evaluate import evaluate
from bridle.core.reckon.almanac import almanac
from bridle.formats.plan_json import read_plan
from tests import bench_edits as bench_edits_of
from tests import bench_kept as bench_kept_of
from tests import bench_months as bench_months_of
from tests.bench_prints import PROMISED, PROMISED_MB
from tests.browser.pages import CHROMIUM, FLAGS
from tests.served import ROOT, Served
from tests.server.test_runs import Caller

TURNS = 3
# With rig, place, marks and sun.
PROMISED_MS = {700: 8, 5_000: 30, 100_000: 400, 1_000_000: 4_000}
SHOOTS = 200
# The first moves compile the page's code; a person has moved the handle before they watch it.
WARM_UP = 5

# Moves the handle as a hand does, and waits until the plan drawing and the totals of the move have followed.
DRAG = """async () => {
    const handle = document.querySelector('[aria-label="Slide at keyframe 3"]');
    const box = handle.getBoundingClientRect();
    const y = box.top + box.height / 2, x = box.left + box.width / 2;
    const send = (kind, at) => handle.dispatchEvent(new PointerEvent(kind, {
        bubbles: true, pointerId: 7, button: 0, clientX: at, clientY: y }));
    handle.setPointerCapture = () => {};
    send('pointerdown', x);
    const took = [];
    for (let i = 1; i <= 45; i++) {
        const figure = [...document.querySelectorAll('.figure')].find(f => /^near passes far by/.test(f.ariaLabel));
        const before = figure.textContent, began = performance.now();
        send('pointermove', x - i);
        while (figure.textContent === before && performance.now() - began < 5000)
            await new Promise(requestAnimationFrame);
        took.push(performance.now() - began);
    }
    send('pointerup', x - 45);
    return took;
}"""


# Pulls the cloud as a hand does, and waits until the curve has followed.
PULL = """async () => {
    const handle = document.querySelector('[aria-label="Cloud"]');
    const curve = () => [...document.querySelectorAll('svg path')].map(p => p.getAttribute('d')).join('').length
        + document.querySelector('[aria-label="Cloud"]').getAttribute('aria-valuenow');
    const box = handle.getBoundingClientRect(), x = box.left + box.width / 2, y = box.top + box.height / 2;
    const send = (kind, at) => handle.dispatchEvent(new PointerEvent(kind, {
        bubbles: true, pointerId: 7, button: 0, clientX: x, clientY: at }));
    handle.setPointerCapture = () => {};
    send('pointerdown', y);
    const took = [];
    for (let i = 1; i <= 25; i++) {
        const before = curve(), began = performance.now();
        send('pointermove', y + i * 2);
        while (curve() === before && performance.now() - began < 3000) await new Promise(requestAnimationFrame);
        took.push(performance.now() - began);
    }
    send('pointerup', y + 50);
    return took;
}"""


def told(name: str, figure: str, promise: str) -> None:
    """One line of the bench."""
    print(f"{name:<46} {figure:>24}   promised {promise}", flush=True)


def core(at: Path) -> dict[str, float]:
    """The core's times, of the checkout at a path, in today's environment."""
    environment = {**os.environ, "PYTHONPATH": str(at)}
    ran = subprocess.run([sys.executable, "-P", str(at / "tests/bench_core.py")], env=environment, capture_output=True)
    return dict(json.loads(ran.stdout)) if ran.returncode == 0 else sys.exit(ran.stderr.decode())


def bench_months() -> None:
    """Thirty months of work windows."""
    for what, (took, promise) in bench_months_of.measured().items():
        told(what, f"{took:.0f} ms", promise)


def bench_edits() -> None:
    """What an edit costs in the core."""
    for name, figure, promise in bench_edits_of.measured():
        told(name, figure, promise)


def bench_kept() -> None:
    """What keeping costs."""
    for name, figure, promise in bench_kept_of.measured():
        told(name, figure, promise)


def bench_prints() -> None:
    """A print of 300 MB: megabytes a second, and the most memory."""
    ran = subprocess.run([sys.executable, "-m", "tests.bench_prints"], cwd=ROOT, capture_output=True, check=True)
    found = json.loads(ran.stdout)
    for step, promise in PROMISED.items():
        told(f"a print of 300 MB: {step}", f"{found[step]:.1f} MB/s", f"{promise} MB/s")
    told("a print of 300 MB: most memory", f"{found['memory']:.0f} MB", f"{PROMISED_MB} MB")


def bench_core(base: str) -> None:
    """Evaluate; in turns with an earlier commit, if one is named."""
    with TemporaryDirectory() as folder:
        before = checked_out(base, Path(folder)) if base else None
        turns = [(core(ROOT), core(before) if before else {}) for _ in range(TURNS if before else 1)]
    for name in turns[0][0]:
        now = statistics.median(turn[0][name] for turn in turns)
        ratio = statistics.median(turn[0][name] / turn[1][name] for turn in turns) if before else None
        against = f", {ratio:.2f} of {base}'s" if ratio else ""
        plain = name.removesuffix(", with a place")
        times = now / statistics.median(turn[0][plain] for turn in turns)
        frames = int(name.split(" ")[0])
        promise = f"{PROMISED_MS[frames]} ms; here {times:.2f} times without a place" if plain != name else "-"
        told(f"evaluate, {name}", f"{now:.1f} ms{against}", promise)


def checked_out(base: str, folder: Path) -> Path:
    """An earlier commit in a folder of its own, with today's bench in it."""
    subprocess.run(["git", "worktree", "prune"], cwd=ROOT, check=True)
    archive = subprocess.run(["git", "archive", base], cwd=ROOT, check=True, capture_output=True)
    subprocess.run(["tar", "-x", "-C", str(folder)], input=archive.stdout, check=True)
    shutil.copy(ROOT / "tests/bench_core.py", folder / "tests/bench_core.py")
    return folder


def timed(work: Callable[[], Any]) -> float:
    """Milliseconds for some work."""
    began = time.perf_counter()
    work()
    return (time.perf_counter() - began) * 1000


def bench_server() -> None:
    """The start page with many shoots after a restart; the first row of a long table."""
    server = Served()
    try:
        call = Caller(server.address)
        shoots = call("GET", "/api/shoots")["shoots"]
        for number in range(SHOOTS - len(shoots)):
            call("POST", f"/api/shoots/{shoots[number % len(shoots)]['id']}/duplicate", {})
        settle(call)
        server.kill()
        server.start()
        cold = timed(lambda: urllib.request.urlopen(f"{server.address}/api/shoots").read())
        told(f"the list of {SHOOTS} shoots, cold after a restart", f"{cold:.0f} ms", "300 ms")
        harbour = next(shoot["id"] for shoot in shoots if shoot["name"] == "Harbour refloat")
        plan = call("GET", f"/api/shoots/{harbour}")
        held = {"frames": "100000", "interval": "16", "rate": "25"}
        plan["plan"]["clip"]["pegs"] = [{"quantity": name, "value": value} for name, value in held.items()]
        call("PUT", f"/api/shoots/{harbour}", {"version": plan["version"], "plan": plan["plan"]})
        server.kill()
        server.start()
        rows = [timed(lambda: first_row(f"{server.address}/files/shoots/{harbour}/frames.csv")) for _ in range(6)]
        told("frames.csv of 100 000, first data row, cold", f"{rows[0]:.0f} ms", "600 ms")
        told("frames.csv of 100 000, first data row, warm", f"{statistics.median(rows[1:]):.0f} ms", "200 ms")
    finally:
        server.stop()


def settle(call: Caller) -> None:
    """Wait until no line of the list is worked out any more."""
    while any(one["stale"] for one in call("GET", "/api/shoots")["shoots"]):
        time.sleep(0.2)


def first_row(address: str) -> None:
    """Read a table up to its first row of figures."""
    with urllib.request.urlopen(address) as answer:
        while not answer.readline().startswith(b"1,"):
            pass


def bench_page() -> None:
    """From a moved handle on the page to the picture that follows from it, and the finder's own work."""
    server = Served()
    try:
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
            page: Page = browser.new_page(viewport={"width": 1280, "height": 800})
            sizes: list[int] = []
            page.on("response", lambda answer: sizes.append(len(answer.body())) if "/api/drag" in answer.url else None)
            page.goto(server.address)
            page.get_by_role("link", name="Harbour refloat").click()
            page.get_by_role("navigation", name="Chapters").get_by_role("link", name="Move").click()
            page.get_by_role("slider", name="Slide at keyframe 3").wait_for()
            page.locator("canvas[data-ready=yes]").wait_for()
            took = sorted(page.evaluate(DRAG)[WARM_UP:])
            told("a dragged handle, median", f"{statistics.median(took):.0f} ms", "60 ms")
            told("a dragged handle, 19 of 20", f"{took[int(len(took) * 0.95)]:.0f} ms", "100 ms")
            told("an answer while dragging", f"{max(sizes) / 1000:.1f} kB", "40 kB")
            bench_finder(page)
            bench_light(page, server.address)
            browser.close()
    finally:
        server.stop()


def bench_finder(page: Page) -> None:
    """The finder's work for one picture at its larger size, without a graphics card."""
    page.get_by_role("button", name="Larger").click()
    page.locator("canvas[data-ready=yes]").wait_for()
    page.get_by_role("button", name="Play", exact=True).click()
    page.wait_for_timeout(3000)
    wide, high, work = page.locator("canvas").evaluate("c => [c.width, c.height, Number(c.dataset.work)]")
    page.get_by_role("button", name="Pause").click()
    told(f"the finder's work for a picture, {wide} x {high}", f"{work:.1f} ms", "33 ms, median")


def bench_sky() -> None:
    """A year of sky for one place; what a ramp adds to an evaluation."""
    noon = datetime(2026, 1, 1, 12, tzinfo=UTC).timestamp()
    whole = timed(lambda: almanac(57.32, -6.18, noon, noon + 365 * 86_400))
    told("a year of sky for one place, cold", f"{whole:.0f} ms", "1000 ms")
    days = timed(lambda: [almanac(57.32, -6.18, noon + day * 86_400, noon + (day + 1) * 86_400) for day in range(365)])
    told("the same asked for day by day, warm", f"{days:.0f} ms", "-")
    data = json.loads((ROOT / "bridle/demo/shoots/harbour-refloat.json").read_text())
    held = {"frames": "3000", "interval": "16", "rate": "25"}
    data["clip"]["pegs"] = [{"quantity": name, "value": value} for name, value in held.items()]
    took = {}
    for school in ("locked", "ramped"):
        data["light"]["school"] = school
        plan = read_plan(json.dumps(data))
        evaluate(plan)
        took[school] = statistics.median(timed(lambda plan=plan: evaluate(plan)) for _ in range(15))  # type: ignore[misc]
    added = took["ramped"] - took["locked"]
    told("a ramp over 3 000 frames adds", f"{added:.1f} ms to {took['locked']:.1f}", "10 ms")


def bench_light(page: Page, address: str) -> None:
    """From a limit that is pulled in the chapter Light to the ramp that follows from it."""
    page.goto(address)
    page.get_by_role("link", name="Lamps along the quay").click()
    page.get_by_role("navigation", name="Chapters").get_by_role("link", name="Light").click()
    page.get_by_role("slider", name="Cloud").wait_for()
    page.wait_for_timeout(1500)
    took = sorted(page.evaluate(PULL)[WARM_UP:])
    told("a pulled cloud in Light, median", f"{statistics.median(took):.0f} ms", "100 ms")


if __name__ == "__main__":
    print(f"on {platform.machine()}, {os.cpu_count()} cores, Python {platform.python_version()}; medians")
    bench_sky()
    bench_months()
    bench_prints()
    bench_core(sys.argv[1] if len(sys.argv) > 1 else "")
    bench_edits()
    bench_server()
    bench_kept()
    bench_page()
