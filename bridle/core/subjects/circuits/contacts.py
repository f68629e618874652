"""Which wire is which: the contacts of a release, of a remote's button or a switch, from what a meter says.

Colours mean nothing. Every way of naming the wires is tried against the readings: what all the ways that are left agree
on is known, and the reading that parts them best is the next one to take.
"""

import itertools
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from types import MappingProxyType
from typing import Literal, NamedTuple

import numpy as np
from numpy.typing import NDArray

Thing = Literal["release", "pads", "switch"]
Role = Literal["ground", "focus", "shutter", "common", "normally open", "normally closed", "nothing"]
Stage = Literal["rest", "half", "full"]
# Pairs that are joined; of which the first stands above the second while the camera is on; touched together, with what
# belongs to them switched on: does it focus, does it fire.
Ask = Literal["closed", "above", "focuses", "fires"]

# More wires than this are in no lead of a release.
MOST_WIRES = 6


class Reading(NamedTuple):
    """A meter between two wires (by their number): are they joined at this stage; is `a` the positive one."""

    ask: Ask
    stage: Stage
    a: int
    b: int
    yes: bool = True


Pairs = tuple[tuple[Role, Role], ...]
Touched = tuple[Pairs, Pairs]


class Build(NamedTuple):
    """How a thing is made: how many wires play each role, at least and at most, and what is joined when.

    A voltage is a reading of releases alone: a camera holds its contacts above the ground, a loose switch holds none.
    """

    roles: dict[Role, tuple[int, int]]
    stages: tuple[Stage, ...]
    joined: dict[Stage, tuple[tuple[Role, ...], ...]]
    above: Pairs
    # What comes of touching two: the pairs of which that is sure, and those where it may come or not.
    touched: Mapping[Ask, Touched] = MappingProxyType({})


# Half press joins focus and ground; a full press joins the shutter to both.
BUTTON: dict[Stage, tuple[tuple[Role, ...], ...]] = {
    "rest": (), "half": (("ground", "focus"),), "full": (("ground", "focus", "shutter"),),
}  # fmt: skip
ABOVE: Pairs = (("focus", "ground"), ("shutter", "ground"))


BUILDS: dict[Thing, Build] = {
    # A shield is ground once more.
    "release": Build(
        {"ground": (1, MOST_WIRES), "focus": (0, 1), "shutter": (1, 1), "nothing": (0, MOST_WIRES)},
        ("rest", "half", "full"),
        BUTTON,
        ABOVE,
    ),
    # The pads under the button of a remote, which does by itself what it is told: some focus before they fire, and some
    # fire where the full pad meets the half pad that is held.
    "pads": Build(
        {"ground": (1, MOST_WIRES), "focus": (0, 1), "shutter": (1, 1), "nothing": (0, MOST_WIRES)},
        ("rest", "half", "full"),
        BUTTON,
        ABOVE,
        {
            "focuses": ((("focus", "ground"),), (("shutter", "ground"), ("shutter", "focus"))),
            "fires": ((("shutter", "ground"),), (("shutter", "focus"),)),
        },
    ),
    "switch": Build(
        {"common": (1, 1), "normally open": (0, 1), "normally closed": (0, 1), "nothing": (0, MOST_WIRES)},
        ("rest", "full"),
        {"rest": (("common", "normally closed"),), "full": (("common", "normally open"),)},
        (),
    ),
}


@dataclass(frozen=True)
class Named:
    """What the readings come to.

    `roles` holds what each wire is, None where that is open still; `left` in how many ways the wires can be named.
    `against` are readings that cannot all be true, none of them to spare. `next` is the reading to take; `settles` says
    that it names every wire that readings can name, however it comes out. With neither, no reading tells more.
    `surely` are the roles that some wire has, whichever it is: of a switch with two contacts nobody can tell the common
    one.
    """

    roles: tuple[Role | None, ...]
    left: int
    against: tuple[Reading, ...] = ()
    next: Reading | None = None
    settles: bool = False
    surely: frozenset[Role] = frozenset()


def named(thing: Thing, wires: int, readings: Sequence[Reading]) -> Named:
    """What so many wires are. Raises ValueError for fewer than two wires, more than six, or a wire that is none."""
    _checked(thing, wires, readings)
    ways = _ways(thing, wires)
    left = _left(thing, ways, readings)
    if not len(left):
        return Named((None,) * wires, 0, _against(thing, ways, readings))
    roles = tuple(_agreed(thing, left[:, wire]) for wire in range(wires))
    following, surely = _next(thing, left, wires), _surely(thing, left)
    if following is None:
        return Named(roles, len(left), surely=surely)
    return Named(roles, len(left), (), following[0], following[1], surely)


def _surely(thing: Thing, left: NDArray[np.int8]) -> frozenset[Role]:
    """What is there in every way that is left."""
    return frozenset(role for n, role in enumerate(BUILDS[thing].roles) if (left == n).any(axis=1).all())


def _checked(thing: Thing, wires: int, readings: Sequence[Reading]) -> None:
    if not 2 <= wires <= MOST_WIRES:
        raise ValueError(f"a lead has from two to {MOST_WIRES} wires")
    for one in readings:
        if one.a == one.b or not (0 <= one.a < wires and 0 <= one.b < wires):
            raise ValueError("a meter stands between two wires of the lead")
        if one.stage not in BUILDS[thing].stages:
            raise ValueError(f"a {thing} has no stage called {one.stage}")


@cache
def _ways(thing: Thing, wires: int) -> NDArray[np.int8]:
    """Every way of naming the wires, as numbers of the roles; shape (ways, wires)."""
    bounds = list(BUILDS[thing].roles.values())
    every = itertools.product(range(len(bounds)), repeat=wires)
    allowed = [way for way in every if all(low <= way.count(role) <= high for role, (low, high) in enumerate(bounds))]
    # A switch of which only the common contact is there is no switch.
    return np.array([way for way in allowed if _at_work(thing, way)], dtype=np.int8)


def _at_work(thing: Thing, way: tuple[int, ...]) -> bool:
    return thing != "switch" or 1 in way or 2 in way


@cache
def _answers(thing: Thing, ask: Ask, stage: Stage) -> NDArray[np.bool_]:
    """What a meter says between two roles; shape (roles, roles). Two wires of one role are one wire."""
    build = BUILDS[thing]
    names = list(build.roles)
    said = np.zeros((len(names), len(names)), dtype=bool)
    if ask == "above":
        for high, low in build.above:
            said[names.index(high), names.index(low)] = True
        return said
    if ask in ("focuses", "fires"):
        return _pairs(names, build.touched[ask][0] if build.touched else ())
    # Only what may be there twice meets itself; a wire that leads nowhere meets nothing.
    for role in (role for role, (_, most) in build.roles.items() if most > 1 and role != "nothing"):
        said[names.index(role), names.index(role)] = True
    for together in build.joined[stage]:
        for one, other in itertools.permutations(together, 2):
            said[names.index(one), names.index(other)] = True
    return said


def _pairs(names: list[Role], pairs: Pairs) -> NDArray[np.bool_]:
    said = np.zeros((len(names), len(names)), dtype=bool)
    for one, other in pairs:
        said[names.index(one), names.index(other)] = said[names.index(other), names.index(one)] = True
    return said


@cache
def _either(thing: Thing, ask: Ask) -> NDArray[np.bool_]:
    """Between which two roles either answer may come; shape (roles, roles)."""
    build = BUILDS[thing]
    return _pairs(list(build.roles), build.touched[ask][1] if ask in build.touched else ())


def _may(thing: Thing, ways: NDArray[np.int8], one: Reading) -> NDArray[np.bool_]:
    """Whether either answer fits, way by way."""
    return _either(thing, one.ask)[ways[:, one.a], ways[:, one.b]]


def _answer(thing: Thing, ways: NDArray[np.int8], one: Reading) -> NDArray[np.bool_]:
    """What a meter would say, way by way."""
    return _answers(thing, one.ask, one.stage)[ways[:, one.a], ways[:, one.b]]


def _left(thing: Thing, ways: NDArray[np.int8], readings: Sequence[Reading]) -> NDArray[np.int8]:
    fits = np.ones(len(ways), dtype=bool)
    for one in readings:
        fits &= (_answer(thing, ways, one) == one.yes) | _may(thing, ways, one)
    return ways[fits]


def _agreed(thing: Thing, of: NDArray[np.int8]) -> Role | None:
    return list(BUILDS[thing].roles)[int(of[0])] if (of == of[0]).all() else None


def _against(thing: Thing, ways: NDArray[np.int8], readings: Sequence[Reading]) -> tuple[Reading, ...]:
    """Readings that cannot all be true; with any one of them left out they can."""
    kept = list(readings)
    for one in readings:
        without = [other for other in kept if other is not one]
        if not len(_left(thing, ways, without)):
            kept = without
    return tuple(kept)


def questions(thing: Thing, wires: int) -> Iterator[Reading]:
    """Every reading that can be taken."""
    build = BUILDS[thing]
    for stage in build.stages:
        for a, b in itertools.combinations(range(wires), 2):
            yield Reading("closed", stage, a, b)
    if build.above:
        for a, b in itertools.permutations(range(wires), 2):
            yield Reading("above", "rest", a, b)
    for ask in build.touched:
        for a, b in itertools.combinations(range(wires), 2):
            yield Reading(ask, "rest", a, b)


def _next(thing: Thing, left: NDArray[np.int8], wires: int) -> tuple[Reading, bool] | None:
    """The reading whose worse answer leaves fewest ways, and whether either answer names all that can be named."""
    every = list(questions(thing, wires))
    said = np.array([_answer(thing, left, one) for one in every])
    may = np.array([_may(thing, left, one) for one in every])
    worse = np.maximum((said | may).sum(axis=1), (~said | may).sum(axis=1))
    best = int(worse.argmin())
    if worse[best] == len(left):
        return None
    # What no reading tells apart counts as one way.
    kinds = np.unique(np.where(may, 2, said), axis=1).shape[1]
    return every[best], kinds == 2 and not may[best].any()
