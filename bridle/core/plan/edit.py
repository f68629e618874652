"""Edits: the one way in which a plan changes, by a person, a fix or undo."""

from collections.abc import Iterable
from functools import lru_cache
from typing import Any

from pydantic import BaseModel, ConfigDict, JsonValue, create_model

from bridle.core.plan.document import Plan
from bridle.core.values import Section

# So many edits one change may hold.
MOST_EDITS = 400


class Edit(BaseModel):
    """Put a JSON value at a dotted path of the plan, list items by number (`move.marks.0.x_mm`)."""

    model_config = ConfigDict(frozen=True)

    path: str
    value: JsonValue


class PathError(ValueError):
    """A path that this plan does not have."""


def dump(plan: Plan) -> dict[str, Any]:
    """The plan as plain JSON values."""
    return plan.model_dump(mode="json")


def look(data: Any, path: str) -> Any:
    """What stands at a path of the dumped plan. Raises `PathError`."""
    for step in path.split("."):
        data = _step(data, step, path)
    return data


def apply(plan: Plan, edits: Iterable[Edit]) -> tuple[Plan, list[Edit]]:
    """Return the edited plan and the edits that undo it. Raises `PathError` or a ValidationError.

    Only the sections that are edited are read and checked; the others stay the same objects.
    """
    data: dict[str, Any] = {}
    undo: list[Edit] = []
    for edit in edits:
        name, _, within = edit.path.partition(".")
        if name not in Plan.model_fields:
            raise PathError(f"the plan has no “{edit.path}”")
        if name not in data:
            data[name] = _dumped(getattr(plan, name))
        undo.insert(0, Edit(path=edit.path, value=look(data, edit.path)))
        parent_path, _, last = edit.path.rpartition(".")
        parent = look(data, parent_path) if within else data
        key: Any = int(last) if isinstance(parent, list) else last
        parent[key] = edit.value
    return plan.model_copy(update=_checked(data)), undo


def _dumped(section: Any) -> Any:
    return section.model_dump(mode="json") if isinstance(section, BaseModel) else section


def _checked(data: dict[str, Any]) -> dict[str, Any]:
    """Sections of the plan from their JSON values. Raises a ValidationError that names them as the plan would."""
    if not data:
        return {}
    checked = _parts(tuple(name for name in Plan.model_fields if name in data)).model_validate(data)
    return {name: getattr(checked, name) for name in data}


@lru_cache(maxsize=64)
def _parts(names: tuple[str, ...]) -> type[BaseModel]:
    """A plan of these sections alone."""
    fields: dict[str, Any] = {name: (Plan.model_fields[name].annotation, Plan.model_fields[name]) for name in names}
    return create_model(Plan.__name__, __base__=Section, **fields)


def difference(old: Plan, new: Plan) -> list[Edit]:
    """The edits that make the old plan into the new one; lists of another length are replaced whole.

    Where there would be more than one change may hold, each section that differs is replaced whole.
    """
    changed = [name for name in Plan.model_fields if getattr(old, name) is not getattr(new, name)]
    before, after = ({name: _dumped(getattr(plan, name)) for name in changed} for plan in (old, new))
    edits = list(_differences(before, after, ""))
    if len(edits) <= MOST_EDITS:
        return edits
    return [Edit(path=name, value=value) for name, value in after.items() if value != before[name]]


def _differences(old: Any, new: Any, path: str) -> Iterable[Edit]:
    # Two of another kind (a drive turned into another) share no fields to compare: the one replaces the other whole.
    if isinstance(old, dict) and isinstance(new, dict) and old.keys() == new.keys():
        for key in old:
            yield from _differences(old[key], new[key], f"{path}.{key}" if path else key)
    elif _alike(old, new):
        for number, (before, after) in enumerate(zip(old, new, strict=True)):
            yield from _differences(before, after, f"{path}.{number}")
    elif old != new:
        yield Edit(path=path, value=new)


def _alike(old: Any, new: Any) -> bool:
    """Two lists of as many objects, which can be compared one by one."""
    lists = isinstance(old, list) and isinstance(new, list) and len(old) == len(new)
    return lists and all(isinstance(item, dict) for item in [*old, *new])


def _step(data: Any, step: str, path: str) -> Any:
    if isinstance(data, dict) and step in data:
        return data[step]
    if isinstance(data, list) and step.isdigit() and int(step) < len(data):
        return data[int(step)]
    raise PathError(f"the plan has no “{path}”")
