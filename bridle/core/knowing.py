"""What was read while a value was worked out, so that the next evaluation takes over all of which nothing changed.

A *node* is a value that is worked out once a run: a number, or a family of findings. While it is worked out its reader
notes what it reads: *cells* (parts of what the run was given) and other nodes. Nothing is listed by hand. A run takes
a node over from the run before it where no cell that stands behind it differs; or where its own cells are the same and
each node that it read comes to the same value again. A *trial* is a run over changed inputs within a node: what it
reads of the unchanged ones counts for the node that tries; what it works out is thrown away, except where nothing
that was changed stands behind it.

A run that has ended is never changed again, so that several threads can take over from it.
"""

from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import dataclass
from types import MappingProxyType
from typing import Any, Concatenate, Generic, ParamSpec, Protocol, Self, TypeAlias, TypeVar, overload

from bridle.core.closed import closed
from bridle.core.same import same

T = TypeVar("T")
F = TypeVar("F", bound="Face")
P = ParamSpec("P")


class LateError(RuntimeError):
    """Something was read after the node that it was handed to had been worked out."""


class Inputs(Protocol):
    """What a run is given: cells, each a bit."""

    def differs(self, other: Any) -> int:
        """The cells in which two differ."""

    def view(self, name: str, reader: "Reader") -> Any:
        """What a reader sees of a part of it: each read of a cell is noted at the reader."""


# Who asks (the class of its face), what is asked, and with which plain values.
Key: TypeAlias = tuple[type["Face"], Callable[..., Any], tuple[Any, ...]]


@dataclass(slots=True)
class Memo:
    """A value, with the cells and nodes that were read for it; `below` are all cells that stand behind it.

    `direct` are the cells that were read outside of trials; `size` is about how many bytes it holds.
    """

    value: Any
    cells: int
    nodes: "tuple[tuple[Key, Memo], ...]"
    below: int
    direct: int
    size: int


class Reader:
    """What one node reads while it is worked out."""

    def __init__(self, run: "Run") -> None:
        self.run = run
        self.cells = 0
        self.nodes: dict[Key, Memo] = {}
        self._views: dict[str, Any] = {}
        self._handed: list[Callable[[], None]] = []
        self._trials: list[Reader] = []

    def read(self, key: Key) -> Any:
        """The value of a node, which counts as read."""
        memo = self.nodes.get(key)
        if memo is None:
            memo = self.nodes[key] = self.run.memo(key)
        return memo.value

    def view(self, name: str) -> Any:
        """What this node sees of a part of what the run was given."""
        found = self._views.get(name)
        if found is None:
            found = self._views[name] = self.run.inputs.view(name, self)
        return found

    def hand(self, end: Callable[[], None]) -> None:
        """What ends something that reads for this node."""
        self._handed.append(end)

    def node(self, key: Key) -> Memo:
        """The same with what stands behind it."""
        self.read(key)
        return self.nodes[key]

    def trial(self, inputs: Inputs, free: int, pinned: Mapping[Key, Memo] = MappingProxyType({})) -> "Reader":
        """A reader of other inputs within this node; the cells that are `free` are the trial's own.

        What is `pinned` keeps its value, whatever the other inputs would make of it.
        """
        run = Run(inputs, self.run, free, trial=True)
        for key, memo in pinned.items():
            run.pin(key, memo)
        reader = Reader(run)
        self._trials.append(reader)
        return reader

    def end(self, value: Any = None, size: int = 0) -> Memo:
        """The value with what was read for it. Whoever reads on after that is told so."""
        nodes, direct = tuple(self.nodes.items()), self.cells
        for tried in self._trials:
            own = ~tried.run.free
            self.cells |= tried.end().below & own
        below = self.cells
        for _, memo in nodes:
            below |= memo.below
        for end in self._handed:
            end()
        # Nothing holds anything else in a circle: what has ended goes at once.
        self._handed, self._views, self._trials = [], {}, []
        return Memo(value, self.cells, nodes, below, direct, size)


class Run:
    """Everything that is worked out from some inputs, with what can be taken over from an earlier run."""

    def __init__(self, inputs: Inputs, known: "Run | None" = None, free: int = 0, trial: bool = False) -> None:
        self.inputs = inputs
        self.free = free
        self._trial = trial
        self.worked = 0
        self._known = known
        self._differs = 0 if known is None else inputs.differs(known.inputs)
        self._memos: dict[Key, Memo] = {}
        self._busy: set[Key] = set()
        # What nodes hand on, by its id: it is held as long as the run is.
        self._closed: set[int] = set()

    def memo(self, key: Key) -> Memo:
        """A node with its value: kept, taken over or worked out."""
        found = self._memos.get(key) or self._taken(key)
        return self._work(key) if found is None else found

    def find(self, key: Key) -> Memo | None:
        """A node that is known without working it out; None where it is not, or is being worked out."""
        return self._memos.get(key) or (None if key in self._busy else self._taken(key))

    def pin(self, key: Key, memo: Memo) -> None:
        """Let a node have a value of another run, whatever the inputs are."""
        self._memos[key] = Memo(memo.value, 0, (), memo.below, 0, memo.size)

    def memos(self) -> dict[Key, Memo]:
        """All nodes, for those who count or print them."""
        return self._memos

    def ended(self) -> "Run":
        """The run, which forgets the one before it."""
        self._known = None
        return self

    def _taken(self, key: Key) -> Memo | None:
        """A node of the run before, where nothing that it read has changed."""
        old = None if self._known is None else self._known.find(key)
        if old is None:
            return None
        if not old.below & self._differs:
            return self._keep(key, old)
        if old.cells & self._differs:
            return None
        # In the order in which they were read: what was read later may have no meaning where an earlier one differs.
        nodes, below = [], old.cells
        self._busy.add(key)
        try:
            for read, before in old.nodes:
                now = self.memo(read)
                if not same(now.value, before.value):
                    return None
                nodes.append((read, now))
                below |= now.below
        finally:
            self._busy.discard(key)
        return self._keep(key, Memo(old.value, old.cells, tuple(nodes), below, old.direct, old.size))

    def _work(self, key: Key) -> Memo:
        if key in self._busy:
            raise RuntimeError(f"{key[1].__qualname__} asks for itself")
        face, work, plain = key
        reader = Reader(self)
        self._busy.add(key)
        value, size = None, 0
        try:
            made = work(face(reader), *plain)
            value, size = closed(tuple(made) if isinstance(made, Iterator) else made, self._closed)
        finally:
            self._busy.discard(key)
            memo = reader.end(value, size)
        self._keep(key, memo)
        self.worked += 1
        if self._trial and not memo.below & self.free and self._known is not None:
            self._known._given_back(key, memo)
        return memo

    def _given_back(self, key: Key, memo: Memo) -> None:
        """A node that a trial has worked out, and behind which nothing stands that it had changed."""
        if key not in self._busy:
            self._keep(key, memo)

    def _keep(self, key: Key, memo: Memo) -> Memo:
        kept = self._memos.setdefault(key, memo)
        # Only of what is held: the number of something that is gone may be another's.
        self._closed.add(id(kept.value))
        return kept


class Face:
    """How a node sees the run: what it was given, and other nodes."""

    def __init__(self, reader: Reader) -> None:
        self.reader = reader
        reader.hand(vars(self).clear)

    def ask(self, work: Callable[Concatenate[Self, P], T], *plain: P.args, **named: P.kwargs) -> T:
        """What a function makes of this, as a node of its own; what else it is given are plain values."""
        assert not named  # what is named would have no order
        value: T = self.reader.read((type(self), work, plain))
        return value

    def every(
        self, work: Callable[Concatenate[Self, P], Iterable[T]], *plain: P.args, **named: P.kwargs
    ) -> tuple[T, ...]:
        """The same of a function that yields."""
        return tuple(self.ask(work, *plain, **named))

    def __getattr__(self, name: str) -> Any:
        if name == "reader":
            raise LateError("this was worked out from something that has ended; a node hands on finished values only")
        raise AttributeError(name)


class part(Generic[T]):  # noqa: N801  it stands where an attribute would
    """A part of what the run was given, as the reader of a face sees it."""

    def __set_name__(self, owner: type, name: str) -> None:
        self.name = name

    @overload
    def __get__(self, face: None, owner: type) -> "part[T]": ...
    @overload
    def __get__(self, face: "Face", owner: type) -> T: ...
    def __get__(self, face: "Face | None", owner: type) -> "part[T] | T":
        if face is None:
            return self
        value: T = face.reader.view(self.name)
        vars(face)[self.name] = value
        return value


class node(Generic[F, T]):  # noqa: N801  it stands where `property` would
    """A number of a face: worked out once, noted by whoever reads it."""

    def __init__(self, work: Callable[[F], T]) -> None:
        self.work = work
        self.__doc__ = work.__doc__

    def __set_name__(self, owner: type[F], name: str) -> None:
        self.name = name
        self.key: Key = (owner, self.work, ())

    @overload
    def __get__(self, face: None, owner: type[F]) -> "node[F, T]": ...
    @overload
    def __get__(self, face: F, owner: type[F]) -> T: ...
    def __get__(self, face: F | None, owner: type[F]) -> "node[F, T] | T":
        if face is None:
            return self
        value: T = face.reader.read(self.key)
        # The next time it is found there at once.
        vars(face)[self.name] = value
        return value
