"""Whether a print does what was meant, judged by what the virtual printer met and by what was to be expected of it."""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from bridle.standins.printer.virtual import Log, Press

PUSHED_MM = 0.001
SAME_PLACE_MM = 0.05
# Two ways of adding up an arc differ by what its chords cut off.
SHARE = 2e-4
LEAST = 0.02
FEW = 3
Kind = Literal[
    "missing", "more", "wrong layer", "not released", "too short", "touch", "beyond", "path", "pushed", "unknown",
    "unreadable", "checksum", "number", "held", "elsewhere", "layers", "wait", "end",
]  # fmt: skip


@dataclass(frozen=True, slots=True)
class Due:
    """A press that is due: at which layer and height, and what has been printed by then (six sums)."""

    layer: int
    z: float
    printed: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class Expected:
    """What a print is to do: its presses, its sums at the end, the least time for a picture, the longest press."""

    dues: tuple[Due, ...]
    printed: tuple[float, ...]
    pushed: float
    still_s: float
    held_s: float = 1.0
    idle_s: float | None = None


@dataclass(frozen=True, slots=True)
class Failure:
    """What is wrong: its kind, the line and layer where it shows, where the nozzle was, and what it is about."""

    kind: Kind
    line: int
    layer: int | None
    at: tuple[float, float, float] | None
    about: str = ""
    count: int = 1


@dataclass(frozen=True, slots=True)
class Proof:
    """Whether a file is proven; what failed; what cannot be told. Times in seconds."""

    failures: tuple[Failure, ...]
    unknown: tuple[str, ...]
    presses: int
    due: int
    stopped_s: float
    longest_wait_s: float
    longest_wait_line: int
    pauses: tuple[int, ...]

    @property
    def stands(self) -> Literal["proven", "incomplete", "failed"]:
        """Failed where anything is wrong, incomplete where a command is not known, proven else."""
        return "failed" if self.failures else "incomplete" if self.unknown else "proven"


def prove(log: Log, expected: Expected) -> Proof:
    """Judge a log."""
    failures = [*_troubles(log, expected), *_presses(log, expected), *_path(log, expected)]
    if expected.idle_s and log.longest_wait_s > expected.idle_s:
        about = f"{log.longest_wait_s:.0f} s without printing, the heater is off after {expected.idle_s:.0f} s"
        failures.append(Failure("wait", log.longest_wait_line, None, None, about))
    unknown = sorted({one.about for one in log.troubles if one.kind == "unknown"})
    return Proof(
        tuple(sorted(failures, key=lambda one: one.line)),
        tuple(unknown),
        len(log.presses),
        len(expected.dues),
        log.stopped_s,
        log.longest_wait_s,
        log.longest_wait_line,
        tuple(log.pauses),
    )


def _troubles(log: Log, expected: Expected) -> list[Failure]:
    """What the printer met, each kind and thing once with its count."""
    told: dict[tuple[str, str], Failure] = {}
    for one in log.troubles:
        if one.kind == "unknown":
            continue
        about = one.about[:1] if one.kind == "beyond" else one.about
        key = (one.kind, about)
        if key in told:
            was = told[key]
            told[key] = Failure(was.kind, was.line, was.layer, was.at, was.about, was.count + 1)
        else:
            layer = _layer(one.printed, expected)
            told[key] = Failure(one.kind, one.line, layer, one.at, one.about)  # type: ignore[arg-type]
    return list(told.values())


def _layer(filament: float, expected: Expected) -> int | None:
    """The chosen layer up to which this much has been printed; nothing before the first."""
    reached = [due.layer for due in expected.dues if due.printed[0] <= filament + PUSHED_MM]
    return reached[-1] if reached else None


def _presses(log: Log, expected: Expected) -> list[Failure]:
    """One press and one release at each layer that is due, at one place, with the head away for long enough."""
    failures: list[Failure] = []
    missing: list[Failure] = []
    at = 0
    for due in expected.dues:
        here: list[Press] = []
        while at < len(log.presses) and _not_after(log.presses[at].printed, due.printed):
            here.append(log.presses[at])
            at += 1
        early = [one for one in here if not _same(one.printed, due.printed)]
        right = [one for one in here if _same(one.printed, due.printed)]
        failures += [Failure("wrong layer", one.line, due.layer, one.at, "before its layer is done") for one in early]
        if not right:
            missing.append(Failure("missing", here[-1].line if here else 0, due.layer, None))
        failures += [Failure("more", one.line, due.layer, one.at, "pressed twice") for one in right[1:]]
        failures += [found for one in right for found in _one(one, due, expected)]
    failures += [Failure("more", one.line, None, one.at, "after the last layer") for one in log.presses[at:]]
    return _together([*missing, *failures]) + _elsewhere(log)


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
        return [Failure("not released", press.line, due.layer, press.at)]
    held = press.released_s - press.at_s
    if held > expected.held_s:
        return [Failure("not released", press.line, due.layer, press.at, f"held down for {held:.1f} s")]
    still = (press.moved_s if press.moved_s is not None else float("inf")) - press.at_s
    if still < expected.still_s - 0.0005:
        about = f"{still:.2f} s, it takes {expected.still_s:.2f} s"
        return [Failure("too short", press.line, due.layer, press.at, about)]
    return []


def _elsewhere(log: Log) -> list[Failure]:
    """A head that parks elsewhere jumps in the picture."""
    if not log.presses:
        return []
    first = log.presses[0]
    return [
        Failure("elsewhere", one.line, None, one.at, f"x {one.at[0]:.1f}, y {one.at[1]:.1f}")
        for one in log.presses[1:]
        if abs(one.at[0] - first.at[0]) > SAME_PLACE_MM or abs(one.at[1] - first.at[1]) > SAME_PLACE_MM
    ][:5]


def _path(log: Log, expected: Expected) -> list[Failure]:
    """Whether between two presses the same is printed at the same places and feeds as without any."""
    failures: list[Failure] = []
    before_due: Sequence[float] = (0.0,) * 6
    before_told: Sequence[float] = (0.0,) * 6
    stations = [(due.layer, due.printed, press.printed, press.line) for due, press in _pairs(log, expected)]
    stations.append((-1, expected.printed, log.printed, log.lines))
    for layer, due, told, line in stations:
        asked = [b - a for a, b in zip(before_due, due, strict=True)]
        came = [b - a for a, b in zip(before_told, told, strict=True)]
        scale = abs(asked[1]) + 1e-9
        scales = (PUSHED_MM, scale, abs(asked[2]), scale * 100, scale * 100, scale * 100)
        off = [
            abs(a - b) > (PUSHED_MM if n == 0 else LEAST + SHARE * scales[n])
            for n, (a, b) in enumerate(zip(asked, came, strict=True))
        ]
        if any(off):
            names = ("filament", "way", "feed rate", "place in x", "place in y", "height")
            about = ", ".join(name for name, wrong in zip(names, off, strict=True) if wrong)
            failures.append(Failure("path", line, layer if layer > 0 else None, None, about))
        before_due, before_told = due, told
    if abs(log.pushed - expected.pushed) > PUSHED_MM:
        failures.append(Failure("pushed", log.lines, None, log.at, f"{log.pushed - expected.pushed:+.3f} mm"))
    if log.held:
        failures.append(Failure("not released", log.lines, None, log.at, "at the end"))
    return failures[:20]


def _pairs(log: Log, expected: Expected) -> list[tuple[Due, Press]]:
    """Each press that is due with the one that came for it; the path is compared between those."""
    pairs, at = [], 0
    for due in expected.dues:
        while at < len(log.presses) and log.presses[at].printed[0] < due.printed[0] - PUSHED_MM:
            at += 1
        if at < len(log.presses) and abs(log.presses[at].printed[0] - due.printed[0]) <= PUSHED_MM:
            pairs.append((due, log.presses[at]))
            at += 1
    return pairs


def _same(printed: tuple[float, ...], due: tuple[float, ...]) -> bool:
    return abs(printed[0] - due[0]) <= PUSHED_MM * 2 + 1e-7 * abs(due[0])


def _not_after(printed: tuple[float, ...], due: tuple[float, ...]) -> bool:
    return printed[0] <= due[0] + PUSHED_MM * 2 + 1e-7 * abs(due[0])
