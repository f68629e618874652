"""Two versions of one plan, or of one card, side by side, in words."""

import re
from collections import Counter
from collections.abc import Iterator
from typing import Any

from pydantic import BaseModel, ConfigDict

from bridle.core.plan.document import Plan
from bridle.core.plan.edit import PathError, difference, dump, look
from bridle.core.plan.places import kind_of
from bridle.core.plan.words import CARD_WORDS, UNITS
from bridle.core.quantity import listed, write
from bridle.core.reckon.frames.even import PEGS_PATH

_UNITS = {"_g": "g", "_s": "s", "_mm": "mm", "_deg": "deg", "_frames": "frames"}
# What one thing of a list is called, where it is not the list's name without its last letter.
_ONE_OF = {"copies": "card", "errands": "errand", "passes": "pass", "axes": "axis", "ring": "mark on the ring"}
NAMED_AT_MOST = 4


class Side(BaseModel):
    """One place in which two versions of a plan differ, and what stands there in each."""

    model_config = ConfigDict(frozen=True)

    path: str
    place: str
    mine: str
    theirs: str


def side_by_side(mine: Plan, theirs: Plan) -> list[Side]:
    """Every place in which the versions differ, each under a name of its own; the pegs of the sentence count as one."""
    sides = list(_sides(mine, theirs))
    times = Counter(side.place for side in sides)
    return [
        side.model_copy(update={"place": f"{side.place} ({side.path})"}) if times[side.place] > 1 else side
        for side in sides
    ]


def _sides(mine: Plan, theirs: Plan) -> Iterator[Side]:
    paths = [edit.path for edit in difference(theirs, mine)]
    if any(path.startswith(PEGS_PATH) for path in paths):
        yield Side(path=PEGS_PATH, place="held in the sentence", mine=_held(mine), theirs=_held(theirs))
    here, there = dump(mine), dump(theirs)
    for path in paths:
        if not path.startswith(PEGS_PATH):
            yield Side(path=path, place=_named(here, path), mine=_value(here, path), theirs=_value(there, path))


def _held(plan: Plan) -> str:
    pegs = [write(peg.value, UNITS[peg.quantity]) for peg in plan.clip.pegs]
    return listed(pegs) if pegs else "nothing"


# Units by the kind of quantity that stands at a place.
_UNIT_OF = {
    "length": "mm", "angle": "deg", "duration": "s", "shoot": "s", "mass": "g", "count": "", "focal": "focal",
    "mm/s": "mm/s", "deg/s": "deg/s", "mm/s²": "mm/s²", "deg/s²": "deg/s²", "deg/min": "deg/min", "mm/h": "mm/h",
    "deg/h": "deg/h", "pixels": "px", "f-number": "f-number", "stops": "stops",
}  # fmt: skip


def in_words(path: str, was: Any, now: Any, linear: bool = True) -> str:
    """One figure of a card that has changed: `writes in 2.6 s instead of 2.2 s`, `reaches to 170° instead of 90°`."""
    *way, last = path.split(".")
    place = ", ".join([*([_place(".".join(way))] if way else []), CARD_WORDS.get(last, _without_unit(last))])
    unit = _UNIT_OF.get(kind_of(path, linear) or "")
    now_said, was_said = (
        _written(value, path) if unit is None else _of_unit(value, unit, path) for value in (now, was)
    )
    return f"{place} {now_said} instead of {was_said}"


def _of_unit(value: Any, unit: str, path: str) -> str:
    if value is None:
        return "not known"
    if isinstance(value, bool) or not isinstance(value, str | int | float):
        return _written(value, path)
    over, _, under = str(value).partition("/")
    return write(float(over) / float(under or 1), unit)


def _named(data: Any, path: str) -> str:
    """The path in words, with the names that people gave to the things on the way."""
    words: list[str] = []
    for step in path.split("."):
        before, data = data, data[int(step)] if isinstance(data, list) else data[step]
        if isinstance(before, list):
            name = _own_name(data)
            words[-1] = f"{_one_of(words[-1])} {int(step) + 1}{f' “{name}”' if name else ''}"
        else:
            words.append(step)
    return ", ".join([*(word.replace("_", " ") for word in words[:-1]), _without_unit(words[-1])])


def _own_name(thing: Any) -> str:
    card = thing.get("card", thing) if isinstance(thing, dict) else {}
    return str(card.get("name", ""))[:40]


def _one_of(name: str) -> str:
    return _ONE_OF.get(name, name.removesuffix("s"))


def _without_unit(name: str) -> str:
    ending = next((end for end in _UNITS if name.endswith(end)), "")
    return name.removesuffix(ending).replace("_", " ")


def _place(path: str) -> str:
    """The path in words, without the unit that its last step ends in; things in a list are counted from one."""
    counted = re.sub(r"s\.(\d+)", lambda found: f" {int(found[1]) + 1}", path)
    return ", ".join(_without_unit(step) for step in counted.split("."))


def _value(data: Any, path: str) -> str:
    try:
        return _written(look(data, path), path)
    except PathError:
        return "nothing"


def _listed(things: list[Any]) -> str:
    """The things of a list by their names, or as they were typed; many, and what has no name, as their number."""
    names = [thing if isinstance(thing, str) else _own_name(thing) for thing in things]
    if len(names) <= NAMED_AT_MOST and all(names):
        return listed([f"“{name}”" for name in names]) if names else "nothing"
    return f"{len(things)} of them"


def _written(value: Any, path: str) -> str:
    unit = next((unit for end, unit in _UNITS.items() if path.endswith(end)), None)
    if isinstance(value, list):
        return _listed(value)
    if isinstance(value, dict):
        return ", ".join(f"{_place(name)} {_written(item, name)}" for name, item in value.items())
    if isinstance(value, bool):
        return "yes" if value else "no"
    if unit and isinstance(value, str | int | float):
        over, _, under = str(value).partition("/")
        return write(float(over) / float(under or 1), unit)
    return str(value) if value not in ("", None) else "nothing"
