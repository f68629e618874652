"""One beat as it is drawn: its parts in the order of time."""

from typing import Literal

from bridle.core.chapters.beat.state import BeatPart
from bridle.core.reckon.cycles import Cycle

Track = Literal["outer", "inner"]


def parts_of(reckoned: Cycle) -> tuple[BeatPart, ...]:
    """The arcs of the ring, from waking to the margin."""
    beat = reckoned.beat
    parts, now = [_part("wake", "wake", 0.0, float(beat.wake_s), "outer", "beat.wake_s")], float(beat.wake_s)
    for move_s in reckoned.travels_s:
        now = _visit(parts, reckoned, now, move_s)
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


def _visit(parts: list[BeatPart], reckoned: Cycle, now: float, move_s: float) -> float:
    """Exposing at one place, storing, and moving on; returns when the next place can be exposed."""
    beat, exposing = reckoned.beat, reckoned.exposures
    before = (
        ("lag", "shutter lag", float(beat.lag_s), "beat.lag_s", None),
        (
            "exposure",
            "exposure",
            exposing.busy_s,
            "beat.exposure_s",
            "beat.exposures" if exposing.busy_s != float(beat.exposure_s) else None,
        ),
    )
    for name, label, length, place, figure in before:
        parts.append(_part(name, label, now, length, "outer", place, figure))
        now += length
    store = now
    if exposing.processing_s:
        parts.append(_part("process", "processing", store, exposing.processing_s, "outer", None, "beat.processing"))
        store += exposing.processing_s
    if reckoned.write_s:
        parts.append(_part("write", "write to card", store, reckoned.write_s, "outer", "beat.write_s"))
    if not beat.continuous:
        inner: Track = "inner" if beat.write_while_moving else "outer"
        moving = now if beat.write_while_moving else store + reckoned.write_s
        settle = reckoned.settle_s if move_s else 0.0
        parts.append(_part("move", "move", moving, move_s, inner, None, "beat.move"))
        parts.append(_part("settle", "settle", moving + move_s, settle, inner, "beat.settle_s"))
        return max(store + reckoned.write_s, moving + move_s + settle)
    return store + reckoned.write_s


def _part(
    name: str, label: str, start_s: float, length_s: float, track: Track, path: str | None, figure: str | None = None
) -> BeatPart:
    return BeatPart(name=name, label=label, start_s=start_s, length_s=length_s, track=track, path=path, figure=figure)
