"""Plans and cards as nobody would make them: demo data with values changed, swapped, dropped and doubled."""

import copy
import json
import os
from pathlib import Path
from typing import Any

from hypothesis import HealthCheck, Phase, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from bridle.core.plan.document import Plan
from bridle.core.plan.kit import AnyCard
from bridle.server.kit.models import CARD

# How many a property is tried on; `make fuzz` asks for thousands.
EXAMPLES = int(os.environ.get("BRIDLE_EXAMPLES", "90"))


def unshrunk(examples: int) -> settings:
    """A property on so many examples, none of them made smaller when it fails: that takes minutes and tells no more."""
    phases = (Phase.explicit, Phase.reuse, Phase.generate)
    return settings(max_examples=examples, deadline=None, suppress_health_check=list(HealthCheck), phases=phases)


DEMO = Path(__file__).parents[1] / "bridle" / "demo"
PLANS = [json.loads(file.read_text(encoding="utf-8")) for file in sorted((DEMO / "shoots").glob("*.json"))]
CARDS = list(json.loads((DEMO / "kit.json").read_text(encoding="utf-8"))["cards"].values())
NUMBERS = (0, 1e-9, 0.001, 0.5, 1, 2, 3, 7, 45, 89.999, 90, 91, 180, 359, 1000, 99_999, 1e6, 1e7, 6e8)
RATIONALS = ("0", "1/1000000", "1/8000", "1/3", "0.1", "1", "2", "30", "3600", "86400", "31536000", "632448000")
WORDS = ("", "x", "none", "rail", "tripod", "Ж", "1/4-20", "frame", "clip")


def paths(data: Any, way: tuple[Any, ...] = ()) -> list[tuple[Any, ...]]:
    """Every place of plain JSON data."""
    found = [way] if way else []
    items = data.items() if isinstance(data, dict) else enumerate(data) if isinstance(data, list) else ()
    for key, value in items:
        found += paths(value, (*way, key))
    return found


def at(data: Any, way: tuple[Any, ...]) -> Any:
    for step in way:
        data = data[step]
    return data


@st.composite
def other(draw: st.DrawFn, value: Any) -> Any:
    """Another value of the same sort, or none."""
    if isinstance(value, bool):
        return not value
    if isinstance(value, int | float):
        number = draw(st.sampled_from(NUMBERS)) * draw(st.sampled_from((1, -1)))
        return draw(st.sampled_from((number, int(number), value * 2, -value, None)))
    if isinstance(value, str):
        return draw(st.sampled_from((*RATIONALS, *WORDS, None)))
    if isinstance(value, list):
        every = [value[:-1], value[::-1], value + value[:1], value + value[-1:], []]
        return draw(st.sampled_from(every))
    if value is None:
        return draw(st.sampled_from((*NUMBERS, *RATIONALS[:4])))
    return None


@st.composite
def _mutated(draw: st.DrawFn, sources: list[Any], read: Any, most: int) -> Any:
    """One of the sources after some changes, each kept only if the whole can still be read."""
    data = copy.deepcopy(draw(st.sampled_from(sources)))
    for _ in range(draw(st.integers(1, most))):
        tried = copy.deepcopy(data)
        way = draw(st.sampled_from(paths(tried)))
        donor = draw(st.sampled_from(sources))
        try:
            fresh = at(donor, way) if draw(st.booleans()) else draw(other(at(tried, way)))
        except (KeyError, IndexError, TypeError):
            fresh = draw(other(at(tried, way)))
        at(tried, way[:-1])[way[-1]] = copy.deepcopy(fresh)
        try:
            read(tried)
        except ValidationError:
            continue
        data = tried
    return read(data)


def mutated_plans(most: int = 8) -> st.SearchStrategy[Plan]:
    """Any plan that this Bridle can read."""
    return _mutated(PLANS, Plan.model_validate, most)


@st.composite
def edited_plans(draw: st.DrawFn, most: int = 5) -> tuple[Plan, ...]:
    """A plan, and what a few changes make of it one after another: small ones, and now and then a large one."""
    made = [draw(_mutated(PLANS, Plan.model_validate, 3))]
    for _ in range(draw(st.integers(1, most))):
        now = made[-1].model_dump(mode="json")
        if draw(st.integers(0, 3)):
            made.append(draw(_mutated([now], Plan.model_validate, draw(st.sampled_from((1, 1, 1, 4))))))
        else:
            # A part of another plan, whole; what does not go together is left out.
            donor = draw(st.sampled_from(PLANS))
            name = draw(st.sampled_from(sorted(donor)))
            try:
                made.append(Plan.model_validate({**now, name: donor[name]}))
            except ValidationError:
                made.append(made[-1])
    return tuple(made)


def mutated_cards(most: int = 5) -> st.SearchStrategy[AnyCard]:
    """Any card that this Bridle can read."""
    return _mutated(CARDS, CARD.validate_python, most)
