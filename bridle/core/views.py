"""A plan, and what is given beside it, as a node sees them: each read of a field is noted at its reader.

A view answers to everything that the plan does, its methods among it; an edit of a view (`model_copy`) is a view
again, in which what was not edited still notes its reads. Fields of the plan that are no sections of fields of their
own (where the frames come from) are read whole.
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, fields
from types import FunctionType, MappingProxyType, MethodType
from typing import Any, TypeGuard, TypeVar, cast

from pydantic import BaseModel

from bridle.core.given import NOTHING, Given
from bridle.core.knowing import Key, LateError, Memo, Reader, Run
from bridle.core.plan.document import Plan
from bridle.core.same import same, shared

S = TypeVar("S")


def _grain(name: str) -> tuple[str, ...]:
    """The fields of a section; one without a name where it is read whole."""
    kind = Plan.model_fields[name].annotation
    return tuple(kind.model_fields) if isinstance(kind, type) and issubclass(kind, BaseModel) else ("",)


_PLAN = [(name, field) for name in Plan.model_fields for field in _grain(name)]
_GIVEN = [("given", field.name) for field in fields(Given)]
CELLS: dict[tuple[str, str], int] = {cell: 1 << number for number, cell in enumerate([*_PLAN, *_GIVEN])}
_OF: dict[str, dict[str, int]] = {
    name: {field: bit for (part, field), bit in CELLS.items() if part == name} for name in (*Plan.model_fields, "given")
}
_WHOLE: dict[str, int] = {name: sum(bits.values()) for name, bits in _OF.items()}
_SECTIONS: dict[str, int] = {}
_PLAN_WHOLE = sum(_WHOLE[name] for name in Plan.model_fields)


def named(cells: int) -> tuple[str, ...]:
    """The cells by name, as in `move.marks`."""
    return tuple(f"{name}.{field}".rstrip(".") for (name, field), bit in CELLS.items() if cells & bit)


@dataclass(frozen=True, slots=True)
class Basis:
    """What an evaluation is given: the plan, and what is told beside it."""

    plan: Plan
    given: Given = NOTHING

    def differs(self, other: "Basis") -> int:
        """The cells in which two differ."""
        return _plans_differ(self.plan, other.plan) | _differ(self.given, other.given, _OF["given"])

    def view(self, name: str, reader: Reader) -> Any:
        """The plan, or what is given, for one reader."""
        return View(reader, self.plan, _SECTIONS, 0) if name == "plan" else View(reader, self.given, _OF["given"], 0)


def _plans_differ(one: Plan, other: Plan) -> int:
    found = 0
    if one is other:
        return 0
    for name, bits in _OF.items():
        if name == "given":
            continue
        section, before = getattr(one, name), getattr(other, name)
        if section is not before:
            found |= (0 if same(section, before) else bits[""]) if "" in bits else _differ(section, before, bits)
    return found


def _differ(one: Any, other: Any, bits: dict[str, int]) -> int:
    if one is other:
        return 0
    return sum(bit for field, bit in bits.items() if not same(getattr(one, field), getattr(other, field)))


class View:
    """A plan, a section of it or what is given, as one reader sees it.

    Only what is read for the first time comes through here: it is kept, so that reading costs no more than ever.
    """

    __slots__ = ("__dict__", "_bits", "_own", "_reader", "_real")

    def __init__(self, reader: Reader, real: Any, bits: dict[str, int], own: int) -> None:
        self._reader: Any = reader
        self._real, self._bits, self._own = real, bits, own
        reader.hand(self._end)

    def _end(self) -> None:
        """The reader has ended: nothing is read through this any more."""
        self._real = self._reader = None
        self.__dict__.clear()

    def __getattr__(self, name: str) -> Any:
        real = self._real
        if real is None:
            raise LateError("a part of the plan was read after the node that it was handed to had been worked out")
        bit = self._bits.get(name)
        if bit is not None:
            self._reader.cells |= bit & ~self._own
            value = getattr(real, name)
        elif self._bits is _SECTIONS and name in _OF:
            value = self._section(name)
        else:
            value = self._by_its_class(name)
        self.__dict__[name] = value
        return value

    def _section(self, name: str) -> Any:
        """A section, whose fields note their reads; what is read whole is read now."""
        bits, real = _OF[name], getattr(self._real, name)
        if "" in bits:
            self._reader.cells |= bits[""] & ~self._own
            return real
        return View(self._reader, real, bits, self._own)

    def _by_its_class(self, name: str) -> Any:
        """A property or a method, worked out from what the view reads; what else a class has is the class's own."""
        kind = type(self._real)
        found = _class_has(kind, name)
        if isinstance(found, property):
            assert found.fget is not None  # a plan has no others
            return found.fget(self)
        return MethodType(found, self) if isinstance(found, FunctionType) else getattr(kind, name)

    def _real_one(self) -> Any:
        if self._real is None:
            raise LateError("a part of the plan was read after the node that it was handed to had been worked out")
        return self._real

    def _whole(self) -> Any:
        """All of it, as it is; all of it counts as read."""
        real = self._real_one()
        read = _PLAN_WHOLE if isinstance(real, Plan) else sum(self._bits.values())
        self._reader.cells |= read & ~self._own
        return real

    def model_copy(self, *, update: Mapping[str, Any] | None = None) -> "View":
        """An edit: a view again, in which only what was not edited is read from here."""
        real, own, changes = self._real_one(), self._own, dict(update or {})
        if isinstance(real, Plan):
            for name, value in changes.items():
                own |= _WHOLE[name]
                if type(value) is View and value._reader is self._reader:
                    changes[name], own = value._real_one(), own & ~_WHOLE[name] | value._own & _WHOLE[name]
                elif type(value) is View:
                    changes[name] = value._whole()
        else:
            own |= sum(self._bits.get(name, 0) for name in changes)
        return View(self._reader, real.model_copy(update=changes), self._bits, own)

    def model_dump(self, **how: Any) -> dict[str, Any]:
        """As JSON values; what is dumped counts as read."""
        include = how.get("include")
        if not include or isinstance(self._real_one(), Plan):
            return cast(dict[str, Any], self._whole().model_dump(**how))
        for name in include:
            getattr(self, name)
        return cast(dict[str, Any], self._real.model_dump(**how))

    @property  # type: ignore[misc]  # as stand-ins of the standard library do it
    def __class__(self) -> Any:
        """It passes for what it shows."""
        return type(self._real_one())

    def __eq__(self, other: object) -> bool:
        return bool(self._whole() == (other._whole() if type(other) is View else other))

    def __iter__(self) -> Iterator[tuple[str, Any]]:
        return iter(self._whole())

    def __hash__(self) -> int:
        return hash(self._whole())

    def __repr__(self) -> str:
        return f"View({self._real!r})"


def _is_view(part: Any) -> TypeGuard[View]:
    return type(part) is View


def _class_has(kind: type, name: str) -> Any:
    for base in kind.__mro__:
        if name in vars(base):
            return vars(base)[name]
    raise AttributeError(f"{kind.__name__} has no {name}")


def whole(section: S) -> S:
    """A section itself, all of which counts as read: for what is handed on with it."""
    return cast(S, section._whole()) if _is_view(section) else section


def basis_of(plan: Plan, given: Given, before: Run | None) -> Basis:
    """What is given, as far as it is the same with the objects of the run before."""
    if before is None:
        return Basis(plan, given)
    known = cast(Basis, before.inputs)
    return Basis(shared(plan, known.plan), shared(given, known.given))


def trial_of(plan: Plan, pinned: Mapping[Key, Memo] = MappingProxyType({})) -> Reader | None:
    """A trial of an edited view, within the node whose view it is; None of a plan that is no view."""
    if not _is_view(plan):
        return None
    real, reader, own = plan._real_one(), plan._reader, plan._own
    known = cast(Basis, cast(Reader, reader).run.inputs)
    return cast(Reader, reader).trial(Basis(shared(real, known.plan), known.given), own, pinned)
