"""A plan that provokes each kind of snag of work windows."""

from fractions import Fraction
from typing import Any

from bridle.core.plan.document import Plan
from tests.strategies import plan_of

MORNING = {"weekdays": [0, 1, 2, 3, 4], "opens": {"minutes": 480}, "closes": {"minutes": 720}}


def scheduled(*rules: dict[str, Any], **more: Any) -> Plan:
    """Windows over two weeks from Monday 1 June 2026, a frame every ten minutes."""
    frames = {
        "source": "windows",
        "every_s": "600",
        "rules": rules,
        "first": "2026-06-01",
        "last": "2026-06-14",
        **more,
    }
    return plan_of({"rate": Fraction(25)}, clip={"frames": frames})


SCHEDULED: dict[str, Plan] = {
    "windows-hold-nothing": scheduled(MORNING, off=[{"first": "2026-05-30", "last": "2026-07-01"}]),
    "rule-never-fires": scheduled(MORNING, {**MORNING, "opens": {"minutes": 540}}),
    "rules-fight": scheduled(MORNING, {**MORNING, "closes": {"minutes": 1080}, "every_s": "60"}),
    "rule-needs-a-place": scheduled({"opens": {"by": "sunrise"}, "closes": {"by": "sunset", "minutes": -30}}),
}
