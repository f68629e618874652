"""The plan as a JSON file: written the same way every time, read with messages that name the place."""

import json
from collections.abc import Iterator
from itertools import islice
from typing import Any

from pydantic import ValidationError
from pydantic_core import ErrorDetails

from bridle.core.plan.document import VERSION, Plan
from bridle.core.plan.upgrade import UPGRADES, UpgradeError, plan_from
from bridle.core.values import SMALLEST
from bridle.formats.json_places import lines_of, twice
from bridle.formats.strict_json import TooManyError, glimpse, loads

LARGEST_BYTES = 1_000_000
MOST_PROBLEMS = 20


class PlanFileError(ValueError):
    """A file that is no plan: one sentence, and a list of problems with line, what stood there, what was expected."""

    def __init__(self, sentence: str, problems: list[str] | None = None) -> None:
        """Keep the sentence and the problems apart, for a page and for a terminal."""
        super().__init__("\n".join([sentence, *(problems or [])]))
        self.sentence = sentence
        self.problems = problems or []


def write_plan(plan: Plan) -> str:
    """The plan as text, indented, ending with a line break. Reading it back gives the same plan."""
    return json.dumps(plan.model_dump(mode="json"), ensure_ascii=False, indent=2) + "\n"


def plan_lines(plan: Plan) -> Iterator[str]:
    """The same line by line, as every format is written."""
    yield from write_plan(plan).splitlines(keepends=True)


def read_plan(raw: bytes | str) -> Plan:
    """Read a plan file. Raises `PlanFileError`."""
    return read_with_version(raw)[0]


def read_with_version(raw: bytes | str) -> tuple[Plan, int]:
    """Read a plan file; also the version in which it was written. Raises `PlanFileError`."""
    if len(raw) > LARGEST_BYTES:
        size = f"{len(raw) / 1e6:.0f} MB" if len(raw) >= 2e6 else f"{len(raw) / 1e3:.0f} kB"
        raise PlanFileError(f"This file has {size}; a plan has at most {LARGEST_BYTES // 1_000_000} MB.")
    text = _decode(raw)
    data = _parse(text)
    _check_version(data)
    try:
        return plan_from(data), data["bridle_plan"]
    except UpgradeError as error:
        raise PlanFileError("This plan has values that do not belong in it.", [_left_over(text, error)]) from error
    except ValidationError as error:
        raise PlanFileError("This plan has values that do not belong in it.", _problems(text, error)) from error


def _decode(raw: bytes | str) -> str:
    if isinstance(raw, str):
        return raw
    try:
        return raw.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise PlanFileError(
            f"This file is not text (byte {error.start} is not UTF-8); a plan is a JSON text."
        ) from error


def _parse(text: str) -> Any:
    if not text.strip():
        raise PlanFileError("This file is not JSON.", ["line 1: found nothing; expected a plan, as JSON"])
    try:
        return loads(text, _no_key_twice, typed=True)
    except json.JSONDecodeError as error:
        raise PlanFileError("This file is not JSON.", [_not_json(text, error)]) from error
    except KeyTwiceError as error:
        places = [
            f"{where}: “{error.key}” stands here a second time; expected it once" for where in _twice(text, error)
        ]
        raise PlanFileError("This file says one thing twice.", places) from error
    except TooManyError as error:
        where = ".".join(map(str, error.path)) or "the plan"
        raise PlanFileError("This file holds more than a plan does.", [f"{where}: {error}"]) from error
    except (RecursionError, ValueError) as error:
        said = "This file is not a plan: its values are nested too deep or too large."
        raise PlanFileError(said, [] if isinstance(error, RecursionError) else [str(error)]) from error


class KeyTwiceError(ValueError):
    """An object that has one key twice, of which JSON readers silently drop one."""

    def __init__(self, key: str) -> None:
        """Keep the key."""
        super().__init__(key)
        self.key = key


def _no_key_twice(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    made = dict(pairs)
    if len(made) < len(pairs):
        seen: set[str] = set()
        raise KeyTwiceError(next(key for key, _ in pairs if key in seen or seen.add(key)))  # type: ignore[func-returns-value]
    return made


def _twice(text: str, error: KeyTwiceError) -> list[str]:
    return [f"line {line}" for _, line in islice((one for one in twice(text) if one[0] == error.key), MOST_PROBLEMS)]


def _not_json(text: str, error: json.JSONDecodeError) -> str:
    """Where the text stops being JSON: line and column, what stands there, what was expected."""
    # Lines are counted as JSON does, by line feeds alone: a file that was cut off ends in an empty one.
    lines = text.split("\n")
    rest = lines[error.lineno - 1][error.colno - 1 :].strip()
    stood = (
        f"“{rest[:60]}”" if rest else "the end of the file" if not text[error.pos :].strip() else "the end of the line"
    )
    return f"line {error.lineno}, column {error.colno}: found {stood}, expected JSON ({error.msg.lower()})"


def _left_over(text: str, error: UpgradeError) -> str:
    line = lines_of(text).get(error.path, 1)
    return f"line {line}, {'.'.join(map(str, error.path))}: version {error.version} knows no such field"


def _check_version(data: Any) -> None:
    if not isinstance(data, dict) or "bridle_plan" not in data:
        raise PlanFileError(
            "This is not a Bridle plan.", ["line 1: expected an object with “bridle_plan”, the version of the plan"]
        )
    version = data["bridle_plan"]
    if isinstance(version, bool) or not isinstance(version, int) or version not in (VERSION, *UPGRADES):
        newer = isinstance(version, int) and version > VERSION
        hint = "It was written by a newer Bridle." if newer else "No such version was ever written."
        raise PlanFileError(
            f"This plan has version {glimpse(version, 40)}; this Bridle reads versions up to {VERSION}. {hint}"
        )


def _problems(text: str, error: ValidationError) -> list[str]:
    places = lines_of(text)
    return [_problem(places, detail) for detail in error.errors()[:MOST_PROBLEMS]]


def _problem(places: dict[tuple[str | int, ...], int], detail: ErrorDetails) -> str:
    path = tuple(detail["loc"])
    known = path
    while known not in places and known:
        known = known[:-1]
    where = f"line {places.get(known, 1)}, {'.'.join(map(str, path)) or 'the plan'}"
    stood = glimpse(detail["input"])
    if detail["type"] == "missing":
        return f"{where}: nothing stood there; expected a value"
    if detail["type"] == "extra_forbidden":
        return f"{where}: found {stood}; version {VERSION} knows no such field"
    return f"{where}: found {stood}; expected: {expectation(detail)}"


def expectation(detail: ErrorDetails) -> str:
    """What was expected, in plain words, from one of pydantic's findings."""
    if detail.get("ctx", {}).get("ge") == SMALLEST:
        return "greater than 0"
    return detail["msg"].removeprefix("Value error, ").removeprefix("Input should be ")
