"""One beat as it is drawn: its parts in the order of time."""

from collections.abc import Iterator
from typing import Literal

from bridle.core.chapters.beat.state import BeatPart
from bridle.core.plan.beat import Beat
from bridle.core.reckon.cycles import Cycle
from bridle.core.reckon.exposed import Exposures

Track = Literal["outer", "inner", "wires"]
# More exposures than this are hairlines on the ring.
MOST_ARCS = 15


def parts_of(reckoned: Cycle, pressed: bool = False) -> tuple[BeatPart, ...]:
    """The arcs of the ring, from waking to the margin; where something presses, its press besides."""
    beat = reckoned.beat
    parts, now = [*_getting_ready(beat)], float(beat.ready_s)
    if pressed:
        parts.append(_part("press", "press", now, float(beat.press_s), "wires", "beat.press_s"))
    for move_s, settle_s in zip(reckoned.travels_s, reckoned.settles_s, strict=True):
        now = _visit(parts, reckoned, now, move_s, settle_s)
    free = float(reckoned.interval_s) - reckoned.margin_s
    parts.append(
        _part("spare", "spare", reckoned.need_s, max(0.0, free - reckoned.need_s), "outer", None, "beat.spare")
    )
    # Where the beat does not fit, the margin is what it overruns by besides.
    parts.append(
        _part(
            "margin",
            "margin kept",
            max(reckoned.need_s, free),
            reckoned.margin_s,
            "outer",
            "beat.margin",
            "beat.margin",
        )
    )
    return tuple(parts)


def _getting_ready(beat: Beat) -> Iterator[BeatPart]:
    """What goes ahead of the full press: the longest on the ring, what goes on meanwhile within."""
    all_of_it = (
        ("wake", "wake", beat.wake_s),
        ("half", "half press", beat.half_s),
        ("warm", "lamps warm up", beat.warm_s),
    )
    longest = max(all_of_it, key=lambda one: one[2])
    for name, label, length in all_of_it:
        within: Track = "wires" if name == "half" else "inner"
        track: Track = "outer" if name == longest[0] else within
        if length or name == "wake":
            yield _part(name, label, float(beat.ready_s - length), float(length), track, f"beat.{name}_s")


def _visit(parts: list[BeatPart], reckoned: Cycle, now: float, move_s: float, settle: float) -> float:
    """Exposing at one place, storing, and moving on; returns when the next place can be exposed."""
    beat, exposing = reckoned.beat, reckoned.exposures
    for name, label, length in (
        ("call", "until it presses", beat.call_s),
        ("couple", "coupling", beat.couple_s),
        ("lag", "shutter lag", beat.lag_s),
    ):
        if length or name == "lag":
            parts.append(_part(name, label, now, float(length), "outer", f"beat.{name}_s"))
        now += float(length)
    parts += _exposing(exposing, now)
    now += exposing.busy_s
    store = now
    if exposing.processing_s:
        parts.append(_part("process", "processing", store, exposing.processing_s, "outer", None, "beat.processing"))
        store += exposing.processing_s
    if reckoned.write_s:
        parts.append(_part("write", "write to card", store, reckoned.write_s, "outer", "beat.write_s"))
    if not beat.continuous:
        inner: Track = "inner" if beat.write_while_moving else "outer"
        moving = now if beat.write_while_moving else store + reckoned.write_s
        parts.append(_part("move", "move", moving, move_s, inner, None, "beat.move"))
        parts.append(_part("settle", "settle", moving + move_s, settle, inner, "beat.settle_s"))
        return max(store + reckoned.write_s, moving + move_s + settle)
    return store + reckoned.write_s


def _exposing(exposing: Exposures, now: float) -> Iterator[BeatPart]:
    """Every exposure and what lies between, in turn; too many to be told apart are one arc, and their gaps another."""
    place, figure = "beat.exposure_s", "beat.exposures"
    if exposing.count == 1:
        yield _part("exposure", "exposure", now, exposing.total_s, "outer", place)
        return
    if exposing.count > MOST_ARCS:
        yield _part("exposure", "exposures", now, exposing.total_s, "outer", place, figure)
        yield _part("gap", "gaps", now + exposing.total_s, exposing.gaps_s, "outer", None, "beat.gaps")
        return
    for number, (exposure, gap) in enumerate(exposing.in_turn(), 1):
        yield _part("exposure", f"exposure {number}", now, exposure, "outer", place, figure)
        yield _part("gap", f"gap after exposure {number}", now + exposure, gap, "outer", None, "beat.gaps")
        now += exposure + gap


def _part(
    name: str, label: str, start_s: float, length_s: float, track: Track, path: str | None, figure: str | None = None
) -> BeatPart:
    return BeatPart(name=name, label=label, start_s=start_s, length_s=length_s, track=track, path=path, figure=figure)
