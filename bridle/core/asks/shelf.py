"""Cards of the shelf: made anew, made another kind of thing, their tables; and what on them is only usual."""

from collections.abc import Iterator
from fractions import Fraction
from functools import lru_cache
from typing import Annotated, Any, Literal

from pydantic import Field, JsonValue, TypeAdapter

from bridle.core.plan.edit import PathError, look
from bridle.core.plan.kit import CARD_TYPES, AnyCard, AxisCard, Card, CardKind, FurtherAxis
from bridle.core.plan.places import kind_of, read_at
from bridle.core.quantity import QuantityError
from bridle.core.subjects.motion.drives.every import AnyDrive, Drive
from bridle.core.subjects.motion.drives.interface import CardTable
from bridle.core.values import Section

CARD: TypeAdapter[AnyCard] = TypeAdapter(Card)
DRIVE: TypeAdapter[AnyDrive] = TypeAdapter(Drive)

# What else can be made than the plain kinds, each a card with some values of its own.
Like = CardKind | Literal[
    "turning axis", "head", "spring", "lens motor", "camera with its own lens", "camera on a board", "ball head",
    "switch", "pin", "relay", "resistor",
    "timer with hours",
]  # fmt: skip
TURNS: dict[str, JsonValue] = {
    "motion": "rotary", "turns": "pan", "low": -170, "high": 170, "top_speed": 20, "acceleration": 40, "mass_g": 600,
    "height_mm": 60, "width_mm": 90, "drive": {"kind": "gear", "ratio": 60},
}  # fmt: skip
SPRING: dict[str, JsonValue] = {
    **TURNS, "mass_g": 200, "low": -180, "high": 180, "height_mm": 50, "width_mm": 65, "below": "1/4-20",
    "drive": {"kind": "clockwork"},
}  # fmt: skip
BOUGHT: dict[str, JsonValue] = {"kind": "bought"}
MADE: dict[str, tuple[CardKind, str, dict[str, JsonValue]]] = {
    "body": ("body", "a camera body", {}),
    "camera with its own lens": ("body", "a camera with its own lens", {
        "mass_g": 300, "sensor_width_mm": 13.2, "sensor_height_mm": 8.8, "focal_mm": 8.8, "focal_to_mm": 25.7,
        "height_mm": 65, "width_mm": 105, "socket": "USB",
    }),
    "camera on a board": ("body", "a camera on a board", {
        "mass_g": 60, "sensor_width_mm": 6.4, "sensor_height_mm": 4.8, "picture_width_px": 4000,
        "picture_height_px": 3000, "focal_mm": 6, "only_f": 2.8, "manual": "not known", "raw": "not known",
        "stabiliser": "none", "holds_exposure": "not known", "holds_white": "not known", "holds_focus": "yes",
        "height_mm": 40, "width_mm": 60, "socket": "none", "hears": "nothing", "hole_mm": None,
    }),
    "phone": ("phone", "a phone", {}),
    "lens": ("lens", "a lens", {}),
    "filter": ("filter", "a filter", {}),
    "axis": ("axis", "a rail", {}),
    "turning axis": ("axis", "a turning axis", TURNS),
    "head": ("axis", "a head", {**TURNS, "acceleration": None, "drive": BOUGHT, "more": [
        {"turns": "tilt", "acceleration": None, "drive": BOUGHT},
    ]}),
    "spring": ("axis", "a wind-up timer", SPRING),
    "lens motor": ("axis", "a motor on a lens ring", {
        **TURNS, "turns": "focus", "low": 0, "high": 270, "mass_g": 150, "below": "none", "above": "none",
    }),
    "support": ("support", "a tripod", {}),
    "mount": ("mount", "a plate", {}),
    "ball head": ("mount", "a ball head", {
        "form": "ball head", "below": "3/8-16", "above": "1/4-20", "mass_g": 350, "height_mm": 95, "width_mm": 65,
        "carries_g": 6000,
    }),
    "trigger": ("trigger", "a trigger", {}),
    "battery": ("battery", "a battery", {}),
    "card": ("card", "a memory card", {}),
    "lamp": ("lamp", "a lamp", {}),
    "switch": ("trigger", "a switch that is pressed", {
        "source": "switch", "coupling": "switch", "half_press": False, "socket": "none",
    }),
    "pin": ("trigger", "a pin of a board", {
        "source": "pin", "coupling": "none", "half_press": False, "socket": "none", "pin_ma": 20,
    }),
    "coupling": ("coupling", "an optocoupler", {}),
    "relay": ("coupling", "a relay board with its own driver", {
        "form": "relay", "driver": True, "needs_ma": 4, "contact_ohm": 0.1, "operate_s": "1/100", "release_s": "1/200",
        "presses": 100_000,
    }),
    "resistor": ("coupling", "a resistor for a headset plug", {
        "form": "resistor", "contact_ohm": 240, "series_ohm": 0,
    }),
    "cable": ("cable", "a release lead", {}),
    "supply": ("supply", "a plug-in supply", {}),
    "printer": ("printer", "a printer with a moving bed", {}),
    "head switch": ("head switch", "a switch that the head meets", {}),
    "timer with hours": ("trigger", "a timer that can be told hours and days", {
        "source": "wired remote", "coupling": "switch", "schedule": {},
    }),
    "panel": ("panel", "a solar panel", {}),
    "box": ("box", "a box for a camera", {}),
}  # fmt: skip
# What a rail and what a turning axis do not share: with the other kind of motion it is the usual again.
OF_THE_CARD = {"measured", "typed", "note", "kind"}
OF_THE_MOTION = (
    "low", "high", "top_speed", "acceleration", "backlash", "length_mm", "carriage_mm", "carriage_g", "end_margin_mm",
    "beam", "off_axis_mm", "shaft_nmm",
)  # fmt: skip


def made(like: Like, name: str = "") -> AnyCard:
    """A new card with sensible figures, under a name or the usual one."""
    kind, usual, values = MADE[like]
    return CARD_TYPES[kind].model_validate({"name": name or usual, **values})


class SetField(Section):
    """A choice or a tick made on a card."""

    do: Literal["set"]
    path: Annotated[str, Field(max_length=80)]
    value: JsonValue


class AddRow(Section):
    """One more row of a table of the card."""

    do: Literal["add-row"]
    path: Annotated[str, Field(max_length=80)]


class DropRow(Section):
    """A row of a table taken away, counted from 0."""

    do: Literal["drop-row"]
    path: Annotated[str, Field(max_length=80)]
    row: Annotated[int, Field(ge=0, le=1000)]


class WriteRows(Section):
    """A table as lines of text, a row a line, its columns apart by blanks, tabs, commas or semicolons."""

    do: Literal["rows"]
    path: Annotated[str, Field(max_length=80)]
    text: Annotated[str, Field(max_length=8000)]
    imperial: bool = False


class TakeTravel(Section):
    """The travel that the rail leaves, taken as what the axis reaches."""

    do: Literal["take-travel"]


CardChange = Annotated[SetField | AddRow | DropRow | WriteRows | TakeTravel, Field(discriminator="do")]


def changed(card: AnyCard, change: SetField | AddRow | DropRow | WriteRows | TakeTravel) -> AnyCard:
    """The card after a change. Raises `PathError`, `QuantityError` or a ValidationError."""
    if isinstance(change, SetField):
        return _set(card, change.path, change.value)
    if isinstance(change, TakeTravel):
        return _taken(card)
    data: Any = card.model_dump(mode="json")
    rows = look(data, change.path)
    if not isinstance(rows, list):
        raise PathError(f"there is no table at “{change.path}”")
    if isinstance(change, AddRow):
        rows.append(_next_row(card, change.path, rows))
    elif isinstance(change, DropRow):
        if change.row >= len(rows):
            raise PathError("there is no such row")
        del rows[change.row]
        data["measured"] = [one for one in data["measured"] if not one["field"].startswith(f"{change.path}.")]
    else:
        rows[:] = _rows(card, change)
    return CARD.validate_python(data)


def _set(card: AnyCard, path: str, value: JsonValue) -> AnyCard:
    data: Any = card.model_dump(mode="json")
    way, _, last = path.rpartition(".")
    parent = look(data, way) if way else data
    if last == "kind" and way.endswith("drive"):
        fresh = _other_drive(parent, value)
        parent.clear()
        parent.update(fresh)
    elif last == "motion" and isinstance(card, AxisCard) and value != card.motion:
        data |= _other_motion(data, str(value))
    elif path == "more":
        data["more"] = _heads(value)
    else:
        parent[int(last) if isinstance(parent, list) else last] = value
    return CARD.validate_python(_still_measured(data))


def _other_drive(drive: dict[str, Any], kind: JsonValue) -> dict[str, Any]:
    """Another kind of drive, with the figures of the first that mean the same with it."""
    fresh = DRIVE.validate_python({"kind": kind})
    usual = DRIVE.validate_python({"kind": drive["kind"]}).model_dump(mode="json")
    kept = {name: value for name, value in drive.items() if name in fresh.model_dump() and value != usual[name]}
    return {**fresh.model_dump(mode="json"), **kept, "kind": kind}


def _other_motion(data: dict[str, Any], motion: str) -> dict[str, Any]:
    """A rail that turns, or a head that slides: what has another unit is the usual again."""
    like = made("axis" if motion == "linear" else "turning axis").model_dump(mode="json")
    fresh = {name: like[name] for name in (*OF_THE_MOTION, "motion", "turns", "more")}
    # A belt pulls along a rail, a gear turns; whatever has no unit of length goes with either.
    if data["drive"]["kind"] in ("belt", "screw", "gear"):
        fresh["drive"] = {**_other_drive(data["drive"], like["drive"]["kind"])}
    return fresh


def _heads(value: JsonValue) -> list[dict[str, Any]]:
    """Further axes of a head as they are sent: each whole, or only which way it turns."""
    if not isinstance(value, list):
        raise PathError("the axes of a head are a list")
    return [FurtherAxis.model_validate(one).model_dump(mode="json") for one in value]


def _still_measured(data: dict[str, Any]) -> dict[str, Any]:
    """Without what was measured on a figure that is not on the card any more."""
    return {**data, "measured": [one for one in data["measured"] if _stands(data, one["field"])]}


def _stands(data: dict[str, Any], path: str) -> bool:
    try:
        look(data, path)
    except PathError:
        return False
    return True


def _taken(card: AnyCard) -> AnyCard:
    if not isinstance(card, AxisCard) or card.motion != "linear" or not card.length_mm:
        raise PathError("only a rail of a known length leaves a travel")
    travel = card.length_mm - card.carriage_mm - 2 * card.end_margin_mm
    data = {**card.model_dump(mode="json"), "low": 0.0, "high": travel}
    return CARD.validate_python(data)


def _table(card: AnyCard, path: str) -> CardTable:
    """The table that stands at a path of a card: `drive.codes`, `more.0.drive.keys`."""
    way, _, last = path.rpartition(".")
    for within, axis in card.each() if isinstance(card, AxisCard) else ():
        if way == f"{within}drive":
            for table in axis.drive.TABLES:
                if table.path == last:
                    return table
    raise PathError(f"there is no table at “{path}”")


def _next_row(card: AnyCard, path: str, rows: list[dict[str, Any]]) -> dict[str, Any]:
    """A row like the last one, under the next name: a number goes on counting, a letter too."""
    table = _table(card, path)
    if not rows:
        return {column.path: value for column, value in zip(table.columns, table.first, strict=True)}
    name = table.columns[0].path
    taken = {str(row[name]) for row in rows}
    last = rows[-1][name]
    if not isinstance(last, str):
        return {**rows[-1], name: last + 1}
    after = str(int(last) + 1) if last.isdigit() else chr(ord(last) + 1) if len(last) == 1 else f"{last} 2"
    return {**rows[-1], name: next(one for one in (after, *(f"{after} {n}" for n in range(2, 99))) if one not in taken)}


def _rows(card: AnyCard, change: WriteRows) -> list[dict[str, Any]]:
    table, rows = _table(card, change.path), []
    linear = not isinstance(card, AxisCard) or card.motion == "linear"
    for number, line in enumerate(change.text.splitlines(), 1):
        if not line.strip():
            continue
        first, rest = _parted(line)
        cells = {table.columns[0].path: first, table.columns[1].path: rest}
        try:
            rows.append({path: _cell(path, text, linear, change.imperial) for path, text in cells.items()})
        except QuantityError as error:
            raise QuantityError(f"line {number}: {line.strip()}"[:80], error.expected) from error
    if len(rows) < table.fewest:
        raise PathError(f"a table has {table.fewest} {'line' if table.fewest == 1 else 'lines'} at the least")
    return rows


def _parted(line: str) -> tuple[str, str]:
    """What a row is called, and the rest of the line."""
    for mark in ("\t", ";", ",", ":", "=", " "):
        first, found, rest = line.strip().partition(mark)
        if found and first.strip() and rest.strip():
            return first.strip(), rest.strip()
    raise QuantityError(line.strip()[:40], "what the row is called, a blank, and its figure")


def _cell(path: str, text: str, linear: bool, imperial: bool) -> Any:
    return text if kind_of(path, linear) is None else read_at(path, text, 0.0, linear, imperial)


@lru_cache(maxsize=32)
def _alike(kind: str) -> tuple[AnyCard, ...]:
    """The cards of a kind as they are made anew."""
    return tuple(made(like) for like, (made_kind, _, _) in MADE.items() if made_kind == kind)  # type: ignore[arg-type]


def is_usual(card: AnyCard, field: str) -> bool:
    """Whether a figure of a card, not of its drives, is one that nobody has typed, measured or chosen."""
    known = field in card.typed or any(one.field == field for one in card.measured)
    return not known and any(getattr(one, field) == getattr(card, field) for one in _alike(card.kind))


def usual(card: AnyCard) -> list[str]:
    """The figures of a card that say what is usual, and that nobody has typed, measured or chosen."""
    known = {*card.typed, *(one.field for one in card.measured)}
    fresh = [dict(_figures(one, "")) for one in _as_made(card)]
    return [
        path
        for path, value in _figures(card.model_dump(mode="json"), "")
        if path not in known and any(path in one and _plain(one[path]) == _plain(value) for one in fresh)
    ]


def _as_made(card: AnyCard) -> Iterator[dict[str, Any]]:
    """The cards of the same kind as they are made anew, with the same drives on as many axes."""
    for like in MADE:
        fresh = made(like)  # type: ignore[arg-type]  # a key of the table is one
        if fresh.kind != card.kind:
            continue
        if isinstance(card, AxisCard) and isinstance(fresh, AxisCard):
            if fresh.motion != card.motion:
                continue
            if fresh.drive.kind == card.drive.kind:
                yield fresh.model_copy(update={"more": tuple(_plain_axes(card))}).model_dump(mode="json")
            fresh = fresh.model_copy(update={"drive": _plain_drive(card.drive.kind), "more": tuple(_plain_axes(card))})
        yield fresh.model_dump(mode="json")


def _plain_axes(card: AxisCard) -> Iterator[FurtherAxis]:
    for one in card.more:
        yield FurtherAxis(turns=one.turns, acceleration=None, drive=_plain_drive(one.drive.kind))


def _plain_drive(kind: str) -> AnyDrive:
    return DRIVE.validate_python({"kind": kind})


def _figures(value: Any, path: str) -> Iterator[tuple[str, Any]]:
    """Every figure of a card, by its place."""
    if isinstance(value, dict):
        for key in value.keys() - OF_THE_CARD:
            yield from _figures(value[key], f"{path}.{key}" if path else key)
    elif isinstance(value, list):
        for number, one in enumerate(value):
            yield from _figures(one, f"{path}.{number}")
    else:
        yield path, value


def _plain(value: Any) -> Any:
    """A figure as it can be compared: exact ones as numbers."""
    try:
        return Fraction(value) if isinstance(value, str) else value
    except (ValueError, ZeroDivisionError):
        return value
