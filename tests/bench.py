"""What Bridle promises about speed, measured on this machine: `make bench`.

Prints each figure beside its promise; it judges nothing, since a machine may be busy with other things.
"""

import os
import platform
import statistics
import time
from collections.abc import Callable
from fractions import Fraction as F
from functools import partial
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from bridle.core.evaluate import evaluate
from bridle.core.plan.move import Keyframe, Move
from bridle.core.plan.rig import Rig
from bridle.formats.plan_json import read_plan
from tests.browser.pages import CHROMIUM, FLAGS
from tests.served import Served
from tests.strategies import RINGS, plan_of

MOVE = Move(keyframes=(Keyframe(pan_deg=20), Keyframe(slide_mm=800, pan_deg=-9)), ease_in_frames=60, ease_out_frames=60)
LONG = {"frames": F(10_000), "interval": F(16), "rate": F(25)}
WINDING = Move(
    keyframes=tuple(Keyframe(slide_mm=200 * n, pan_deg=9 * n, tilt_deg=2 * n, roll_deg=n) for n in range(5)),
    ease_in_frames=60,
    ease_out_frames=60,
)
PROMISES_MS = {700: 10, 5_000: 50, 100_000: 500}
DRAG_MS = 100
HARBOUR = Path(__file__).parents[1] / "bridle" / "demo" / "shoots" / "harbour-refloat.json"
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


def median_ms(work: Callable[[], object], times: int = 15) -> float:
    """The median time of some work, in milliseconds."""
    took = []
    for _ in range(times):
        began = time.perf_counter()
        work()
        took.append((time.perf_counter() - began) * 1000)
    return statistics.median(took)


def bench_evaluate() -> None:
    """Evaluate in this process."""
    for frames, promise in PROMISES_MS.items():
        plan = plan_of({"frames": F(frames), "interval": F(16), "rate": F(25)}, move=MOVE)
        took = median_ms(partial(evaluate, plan))
        print(f"evaluate, {frames:>7} frames   {took:8.1f} ms   promised {promise} ms")
    took = median_ms(partial(evaluate, plan_of({**LONG}, move=WINDING, rig=Rig(axes=RINGS[:4]))))
    print(f"10 000 frames, 5 keyframes {took:8.1f} ms   promised 60 ms, on four axes")
    took = median_ms(partial(evaluate, read_plan(HARBOUR.read_bytes())))
    print(f"evaluate, with a rig       {took:8.1f} ms   promised {PROMISES_MS[700]} ms")


def bench_drag() -> None:
    """From a moved handle on the page to the figures that follow from it, through the real server."""
    server = Served()
    try:
        with sync_playwright() as playwright:
            browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
            page: Page = browser.new_page(viewport={"width": 1280, "height": 800})
            page.goto(server.address)
            page.get_by_role("link", name="Harbour refloat").click()
            page.get_by_role("navigation", name="Chapters").get_by_role("link", name="Move").click()
            page.get_by_role("slider", name="Slide at keyframe 3").wait_for()
            page.locator("canvas[data-ready=yes]").wait_for()
            took = sorted(page.evaluate(DRAG)[WARM_UP:])
            middle, most = statistics.median(took), took[int(len(took) * 0.95)]
            said = f"19 of 20 within {most:.0f} ms, the slowest {took[-1]:.0f} ms"
            print(f"a dragged handle           {middle:8.1f} ms   promised {DRAG_MS} ms; {said}")
            bench_preview(page)
            browser.close()
    finally:
        server.stop()


def bench_preview(page: Page) -> None:
    """How many pictures a second the finder draws while it plays the clip, small and large."""
    for size in ("small", "large"):
        if size == "large":
            page.get_by_role("button", name="Larger").click()
            page.locator("canvas[data-ready=yes]").wait_for()
        page.get_by_role("button", name="Play", exact=True).click()
        page.wait_for_timeout(3000)
        wide, high, rate = page.locator("canvas").evaluate("c => [c.width, c.height, Number(c.dataset.rate)]")
        page.get_by_role("button", name="Pause").click()
        print(f"the finder, {wide} x {high:<8} {rate:8.0f} /s   promised 24 to 60; drawn without a graphics card")


if __name__ == "__main__":
    print(f"on {platform.machine()}, {os.cpu_count()} cores, Python {platform.python_version()}; medians")
    bench_evaluate()
    bench_drag()
