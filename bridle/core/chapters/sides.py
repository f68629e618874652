"""Two versions of one plan side by side, in words."""

import re
from collections.abc import Iterator
from typing import Any

from pydantic import BaseModel, ConfigDict

from bridle.core.chapters.holding import PEGS_PATH
from bridle.core.chapters.words import UNITS, listed
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import PathError, difference, dump, look
from bridle.core.quantity import write

_UNITS = {"_g": "g", "_s": "s", "_mm": "mm", "_deg": "deg", "_frames": "frames"}


class Side(BaseModel):
    """One place in which two versions of a plan differ, and what stands there in each."""

    model_config = ConfigDict(frozen=True)

    place: str
    mine: str
    theirs: str


def side_by_side(mine: Plan, theirs: Plan) -> list[Side]:
    """Every place in which the versions differ; the pegs of the sentence count as one."""
    return list(_sides(mine, theirs))


def _sides(mine: Plan, theirs: Plan) -> Iterator[Side]:
    paths = [edit.path for edit in difference(theirs, mine)]
    if any(path.startswith(PEGS_PATH) for path in paths):
        yield Side(place="held in the sentence", mine=_held(mine), theirs=_held(theirs))
    for path in paths:
        if not path.startswith(PEGS_PATH):
            yield Side(place=_place(path), mine=_value(mine, path), theirs=_value(theirs, path))


def _held(plan: Plan) -> str:
    pegs = [write(peg.value, UNITS[peg.quantity]) for peg in plan.clip.pegs]
    return listed(pegs) if pegs else "nothing"


def in_words(path: str, was: Any, now: Any) -> str:
    """One figure of a card that has changed: `write 2.6 s instead of 2.2 s`."""
    return f"{_place(path)} {_written(now, path)} instead of {_written(was, path)}"


def _place(path: str) -> str:
    """The path in words, without the unit that its last step ends in; things in a list are counted from one."""
    ending = next((end for end in _UNITS if path.endswith(end)), "")
    counted = re.sub(r"s\.(\d+)", lambda found: f" {int(found[1]) + 1}", path.removesuffix(ending))
    return counted.replace(".", ", ").replace("_", " ")


def _value(plan: Plan, path: str) -> str:
    try:
        return _written(look(dump(plan), path), path)
    except PathError:
        return "nothing"


def _written(value: Any, path: str) -> str:
    unit = next((unit for end, unit in _UNITS.items() if path.endswith(end)), None)
    if isinstance(value, list):
        return f"{len(value)} of them"
    if isinstance(value, dict):
        return ", ".join(f"{_place(name)} {_written(one, name)}" for name, one in value.items())
    if unit and isinstance(value, str | int | float):
        over, _, under = str(value).partition("/")
        return write(float(over) / float(under or 1), unit)
    return str(value) if value not in ("", None) else "nothing"
