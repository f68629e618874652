"""Whether a print does what was meant, judged by what the virtual printer met and by what was to be expected of it."""

import math
from bisect import bisect_left
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from bridle.standins.printer.beside import Difference
from bridle.standins.printer.log import Log, Press, Trouble

# Which judge it was: a proof by an earlier one is none.
JUDGE = 4
PUSHED_MM = 0.001
SAME_PLACE_MM = 0.05
EXACT_S = 0.0005
FEW = 3
Kind = Literal[
    "missing", "more", "wrong layer", "not released", "too short", "let go early", "hasty", "strikes", "purge", "touch",
    "beyond", "path", "pushed", "oozes", "state", "unknown", "unreadable", "checksum", "number", "held", "elsewhere",
    "wait", "across", "own travel", "unsure", "put on later", "taken off", "struck out", "left held",
]  # fmt: skip
# What is told and is no fault.
MINDS = ("purge", "own travel", "unsure", "put on later", "taken off", "struck out")
# Where in the file something happens: before its first layer, in the print, behind its last layer.
When = Literal["start", "print", "end"]
# What somebody says of the switch: at which end it is not there, or the frames it takes there are struck out.
Told = Literal["switch on later", "first frames out", "switch off early", "last frames out"]


@dataclass(frozen=True, slots=True)
class Due:
    """A press that is due: at which layer and height, and what has been printed by then (mm of filament)."""

    layer: int
    z: float
    printed: float


@dataclass(frozen=True, slots=True)
class Expected:
    """What a print is to do: its presses; how long a picture takes; how long a press lasts, and may last (seconds).

    `layers` are all layers by number, with the filament that has been printed when each ends (mm); `first` is what is
    printed before the first one begins. `idle_s` is how long the printer may wait; `told` is what somebody says of the
    switch before and after the print.
    """

    dues: tuple[Due, ...]
    layers: tuple[tuple[int, float], ...]
    still_s: float
    first: float = 0.0
    least_s: float = 0.0
    held_s: float = 1.0
    idle_s: float | None = None
    told: frozenset[Told] = frozenset()


@dataclass(frozen=True, slots=True)
class Failure:
    """What is wrong: its kind, the line and layer where it shows (None: before the first layer), where the nozzle was.

    `about` says what it is about, `original` at which line of the original that is; 0 where there is none.
    `above` is how far what stands in the way reaches above what meets it, at most (mm); `when` is which part of the
    file it is in.
    """

    kind: Kind
    line: int
    layer: int | None
    at: tuple[float, float, float]
    about: str = ""
    count: int = 1
    original: int = 0
    above: float = 0.0
    when: When = "print"


@dataclass(frozen=True, slots=True)
class Proof:
    """Whether a file is proven; what failed; what cannot be told; whether it was compared with its original.

    `free` are the numbers of those other ways, of all that were asked for, on which no stop would meet anything.
    `presses` are those that count, `struck` those that somebody strikes out. Times in seconds.
    """

    failures: tuple[Failure, ...]
    minds: tuple[Failure, ...]
    unknown: tuple[str, ...]
    presses: int
    struck: int
    due: int
    stopped_s: float
    longest_wait_s: float
    longest_wait_line: int
    pauses: tuple[int, ...]
    compared: bool
    free: tuple[int, ...] = ()

    @property
    def stands(self) -> Literal["proven", "incomplete", "failed"]:
        """Failed where anything is wrong, incomplete where it was not compared or a command is unknown, else proven."""
        if self.failures:
            return "failed"
        return "proven" if self.compared and not self.unknown else "incomplete"


def prove(log: Log, expected: Expected, differences: Sequence[Difference] | None) -> Proof:
    """Judge a log, and what is other than in the original; None where there was no original."""
    first, last, behind = _outside(log, expected)
    beside = {id(one) for one in (*first, *last)}
    counted = [one for one in log.presses if id(one) not in beside]
    ends = [*_told_of(first, "start", expected), *_told_of(last, "end", expected, log.held)]
    failures = [
        *_troubles(log, expected, behind),
        *ends,
        *_presses(log, counted, expected),
        *_path(log, expected, differences or (), bool(last)),
    ]
    if expected.idle_s and log.longest_wait_s > expected.idle_s:
        about = f"{log.longest_wait_s:.0f} s without printing, the heater is off after {expected.idle_s:.0f} s"
        layer = _layer(log.longest_wait_printed, expected)
        failures.append(Failure("wait", log.longest_wait_line, layer, log.longest_wait_at, about))
    unknown = sorted({one.about for one in log.troubles if one.kind == "unknown"})
    return Proof(
        tuple(sorted((one for one in failures if one.kind not in MINDS), key=lambda one: one.line)),
        tuple(one for one in failures if one.kind in MINDS),
        tuple(unknown),
        len(counted),
        sum(one.count for one in ends if one.kind == "struck out"),
        len(expected.dues),
        log.stopped_s,
        log.longest_wait_s,
        log.longest_wait_line,
        tuple(log.pauses),
        differences is not None,
    )


def _outside(log: Log, expected: Expected) -> tuple[list[Press], list[Press], float]:
    """The presses before anything of the first layer, those behind the last stop, and the line at which that ends."""
    first = [one for one in log.presses if one.printed <= expected.first + PUSHED_MM]
    whole = expected.layers[-1][1] if expected.layers else 0.0
    last = [one for one in log.presses[len(first) :] if one.printed > whole or _same(one.printed, whole)]
    behind = math.inf
    if expected.dues and _same(expected.dues[-1].printed, whole):
        # The first of them is the last stop's own.
        own = next((one for one in last if not one.homing), None)
        last = [one for one in last if one is not own]
        behind = own.moved_line if own and own.moved_line else math.inf
    return first, last, behind


# Which answers of somebody take a fault away, and what is told instead.
SWITCH_OFF: dict[When, tuple[Told, Kind]] = {
    "start": ("switch on later", "put on later"),
    "end": ("switch off early", "taken off"),
}
STRUCK: dict[When, Told] = {"start": "first frames out", "end": "last frames out"}
OF_THE_SWITCH = ("touch", "held")


def _told_of(presses: Sequence[Press], when: When, expected: Expected, held: bool = False) -> list[Failure]:
    """Presses outside of the print: a frame more each, unless the switch is not there or they are struck out."""
    if not presses:
        return []
    one = presses[0]
    layer = None if when == "start" or not expected.layers else expected.layers[-1][0]
    told, mind = SWITCH_OFF[when]
    by = "coming home" if one.homing else "the start" if when == "start" else "the end"
    if told in expected.told:
        return [Failure(mind, one.line, layer, one.at, by, len(presses), when=when)]
    if held:
        # Whoever strikes the frame out: the camera hears a press that never ends.
        return [Failure("left held", presses[-1].line, layer, presses[-1].at, by, when=when)]
    kind: Kind = "struck out" if STRUCK[when] in expected.told else "more"
    return [Failure(kind, one.line, layer, one.at, by, len(presses), when=when)]


def _troubles(log: Log, expected: Expected, behind: float) -> list[Failure]:
    """What the printer met, each kind and thing once with its count."""
    told: dict[tuple[str, ...], Failure] = {}
    for one in log.troubles:
        if one.kind == "unknown":
            continue
        when = _when(one, expected, behind)
        kind, about = one.kind, one.about[:1] if one.kind == "beyond" else one.about
        if kind in OF_THE_SWITCH and when != "print" and SWITCH_OFF[when][0] in expected.told:
            kind, about = SWITCH_OFF[when][1], ""
        key = (kind, about, when)
        if key in told:
            was = told[key]
            told[key] = replace(was, count=was.count + 1, above=max(was.above, one.above))
        else:
            layer = None if when == "start" else _layer(one.printed, expected)
            told[key] = Failure(kind, one.line, layer, one.at, one.about, above=one.above, when=when)  # type: ignore[arg-type]
    return list(told.values())


def _when(one: Trouble, expected: Expected, behind: float) -> When:
    """In which part of the file a trouble lies; what the last stop meets is of the print."""
    if one.printed <= expected.first + PUSHED_MM:
        return "start"
    return "end" if one.line > behind else "print"


def _layer(filament: float, expected: Expected) -> int | None:
    """The layer that is being printed when this much filament has been; nothing before the first."""
    if filament <= 0:
        return None
    ends = [end for _, end in expected.layers]
    at = bisect_left(ends, filament - PUSHED_MM)
    return expected.layers[min(at, len(ends) - 1)][0] if ends else None


def _presses(log: Log, presses: Sequence[Press], expected: Expected) -> list[Failure]:
    """One press and one release at each layer that is due, at one place, with the head away for long enough."""
    failures: list[Failure] = []
    missing: list[Failure] = []
    at = 0
    for number, due in enumerate(expected.dues):
        here: list[Press] = []
        while at < len(presses) and _not_after(presses[at].printed, due.printed):
            here.append(presses[at])
            at += 1
        early = [one for one in here if not _same(one.printed, due.printed)]
        right = [one for one in here if _same(one.printed, due.printed)]
        failures += [Failure("wrong layer", one.line, due.layer, one.at, "before its layer is done") for one in early]
        if not right:
            line, place = log.passed[number] if number < len(log.passed) else (log.lines, log.at)
            missing.append(Failure("missing", line, due.layer, place))
        failures += [Failure("more", one.line, due.layer, one.at, "pressed twice") for one in right[1:]]
        failures += [found for one in right for found in _one(one, due, expected)]
    last = expected.layers[-1][0] if expected.layers else None
    failures += [Failure("more", one.line, last, one.at, "after the last layer") for one in presses[at:]]
    return _together([*missing, *failures]) + _elsewhere(presses, expected)


def _together(found: list[Failure]) -> list[Failure]:
    """What goes wrong alike at many layers is one thing that is wrong, told where it comes first."""
    alike = Counter((one.kind, one.about) for one in found)
    told: dict[object, Failure] = {}
    for number, one in enumerate(found):
        count = alike[one.kind, one.about]
        told.setdefault(
            (one.kind, one.about) if count > FEW else number, replace(one, count=count if count > FEW else 1)
        )
    return list(told.values())


def _one(press: Press, due: Due, expected: Expected) -> list[Failure]:
    if press.released_s is None:
        return [Failure("not released", press.line, due.layer, press.at, "until the next one")]
    held = press.released_s - press.at_s
    if held > expected.held_s:
        return [Failure("not released", press.line, due.layer, press.at, f"held down for {held:.1f} s")]
    if held < expected.least_s - EXACT_S:
        about = f"after {held:.2f} s, and it is to be held for {expected.least_s:.2f} s"
        return [Failure("let go early", press.line, due.layer, press.at, about)]
    still = (press.moved_s if press.moved_s is not None else float("inf")) - press.at_s
    if still < expected.still_s - EXACT_S:
        about = f"{still:.2f} s, it takes {expected.still_s:.2f} s"
        return [Failure("too short", press.line, due.layer, press.at, about)]
    return []


def _elsewhere(presses: Sequence[Press], expected: Expected) -> list[Failure]:
    """A head that parks elsewhere jumps in the picture."""
    if not presses:
        return []
    first = presses[0]
    return [
        Failure("elsewhere", one.line, _layer(one.printed, expected), one.at, f"x {one.at[0]:.1f}, y {one.at[1]:.1f}")
        for one in presses[1:]
        if abs(one.at[0] - first.at[0]) > SAME_PLACE_MM or abs(one.at[1] - first.at[1]) > SAME_PLACE_MM
    ][:5]


def _path(log: Log, expected: Expected, differences: Sequence[Difference], ended: bool) -> list[Failure]:
    """Whether what is printed, move by move, is what the original prints."""
    failures = [
        Failure(one.kind, one.line, _layer(one.printed, expected), one.at, one.about, original=one.original)
        for one in differences
    ]
    if log.held and log.presses and not ended:
        last = log.presses[-1]
        layer = _layer(last.printed, expected)
        failures.append(Failure("not released", last.line, layer, last.at, "held down to the end"))
    return _together(failures)


def _same(printed: float, due: float) -> bool:
    return abs(printed - due) <= PUSHED_MM * 2 + 1e-7 * abs(due)


def _not_after(printed: float, due: float) -> bool:
    return printed <= due + PUSHED_MM * 2 + 1e-7 * abs(due)
