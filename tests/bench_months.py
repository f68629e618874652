"""How long thirty months of a frame every five minutes take: expanded, evaluated, an edge dragged and let go."""

import statistics
import time
from collections.abc import Callable
from fractions import Fraction
from typing import Any

from bridle.core.evaluate import dragged_windows, evaluate
from bridle.core.plan.edit import Edit, apply
from bridle.core.reckon.frames import windows
from tests.provoked_staying import BATTERY, BOX, CARD, PANEL, another, camera

POINTS, TIMES = 120, 7
ALL_DAY = {"opens": {"minutes": 0}, "closes": {"minutes": 1440}}


def median_ms(work: Callable[[int], Any], times: int = TIMES) -> float:
    """The median time of some work that is told its number, so that nothing is remembered from one to the next."""
    took = []
    for number in range(times):
        began = time.perf_counter()
        work(number)
        took.append((time.perf_counter() - began) * 1000)
    return statistics.median(took)


def measured() -> dict[str, tuple[float, str]]:
    """What was measured in milliseconds, and what is wanted."""
    plan = camera(
        another(CARD, gigabytes=512.0), BATTERY, PANEL, another(BOX, heater_w=3.0), days=("2026-01-01", "2028-06-30"),
        every_s=300, visiting={"clean_days": 28, "may_lose_days": 14}, powering={"heater": "below the dew point"},
        climate={"coldest_c": -3.0, "warmest_c": 25.0, "usual": 0.9, "cloudy": 0.5},
    )  # fmt: skip
    plan, _ = apply(plan, [Edit(path="frames.rules.0", value=ALL_DAY)])

    def closing(number: int) -> Any:
        edge = {"by": "clock", "minutes": 1000 + 5 * number}
        return apply(plan, [Edit(path="frames.rules.0.closes", value=edge)])[0]

    def expanded(number: int) -> Any:
        frames = plan.frames.model_copy(update={"every_s": Fraction(300 + number)})
        fresh = plan.model_copy(update={"frames": frames})
        solution = windows.find(fresh).solution
        assert solution is not None
        return windows.resolve(fresh, solution)

    evaluate(plan)
    return {
        f"{evaluate(plan).frames} frames of thirty months, expanded": (median_ms(expanded), "1000 ms"),
        "all of them evaluated": (median_ms(lambda number: evaluate(closing(number)), 3), "1500 ms"),
        "while an edge is dragged": (median_ms(lambda number: dragged_windows(closing(20 + number), POINTS)), "150 ms"),
    }
