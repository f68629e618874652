"""Nothing jumps at an edge: a hair beside nought, or beside where something else stands, a figure is the same."""

import math
import random
from typing import Any
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from bridle.core.plan.document import Plan
from bridle.core.plan.edit import dump
from tests.core.test_ready import DEMOS
from tests.core.test_trigger import demo
from tests.following import Following
from tests.mutated import at, paths, unshrunk

# What is measured in steps of its own, or is a count: it may jump by one of these where a whole number is passed.
WHOLE = ("frames", "times", "px", "stops")
HAIR = 1e-9


def numbers(data: dict[str, Any]) -> list[tuple[Any, ...]]:
    """The places of everything that is a length, an angle or a mass: what stands somewhere and may stand on an edge."""
    kept = ("move", "rig", "kit")
    ends = ("_mm", "_deg", "_g", "low", "high")
    return [
        way for way in paths(data)
        if way[0] in kept and str(way[-1]).endswith(ends) and isinstance(at(data, way), float | int)
    ]  # fmt: skip


def with_value(data: dict[str, Any], way: tuple[Any, ...], value: float) -> Plan | None:
    """The plan with another number at a place; None where that is refused."""
    section = at(data, way[:-1])
    before = section[way[-1]]
    section[way[-1]] = value
    try:
        return Plan.model_validate(data)
    except ValidationError:
        return None
    finally:
        section[way[-1]] = before


def jumps(now: Following, other: Plan) -> list[str]:
    """The figures that are not the same in both."""
    here, there = now.told.figures, now.beside(other).figures
    return [
        f"{key}: {here[key].value} and {there[key].value} {here[key].unit}"
        for key in here.keys() & there.keys()
        if here[key].unit not in WHOLE
        and not math.isclose(float(here[key].value), float(there[key].value), rel_tol=1e-4, abs_tol=1e-4)
    ]


class AHairBeside(TestCase):
    @given(st.sampled_from(sorted(DEMOS)), st.randoms(use_true_random=False))
    @unshrunk(60)
    def test_no_figure_jumps(self, name: str, chance: random.Random) -> None:
        data = dump(demo(name))
        ways = numbers(data)
        way = chance.choice(ways)
        # Nought, where it stands, or where something else stands: the edges that plans really have.
        value = chance.choice((0.0, float(at(data, way)), float(at(data, chance.choice(ways)))))
        plans = [with_value(data, way, value + beside) for beside in (0.0, HAIR, -HAIR)]
        exact = plans[0]
        if exact is None:
            return
        now = Following(exact)
        for other in plans[1:]:
            if other is not None:
                self.assertEqual(jumps(now, other), [], f"{name}: {way} at {value}")
