"""The time of one frame on its wires: when what fires presses, when the camera hears it, when the lamps are lit."""

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import pairwise
from typing import NamedTuple

import numpy as np

from bridle.core.plan.document import Plan
from bridle.core.plan.kit import Imager
from bridle.core.plan.trigger import LampUse
from bridle.core.plan.wired import Coupling, Lamp
from bridle.core.reckon.exposed import Exposures
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.wiring import parts_of


@dataclass(frozen=True)
class Call:
    """One frame, in seconds from the start of its beat.

    The source half presses at `half`, presses fully at `full` and lets go at `off`; the camera hears that from `heard`
    to `unheard`, opens its shutter at `opens` and has exposed at `closed`. `wakes` is when it wakes, where it sleeps.
    """

    half: float | None
    full: float
    off: float
    heard: float
    unheard: float
    wakes: tuple[float, float] | None
    opens: float
    closed: float
    interval: float


class Span(NamedTuple):
    """From and to in seconds of the beat, and how bright: 1 is full."""

    on: float
    off: float
    level: float


@dataclass(frozen=True)
class Lit:
    """A lamp of the kit as it is used, in seconds of the beat.

    It is switched at `on` for the first time and at `off` for the last. `spans` are what lies between: lit, where it is
    lit for the frame; dark, where it is lit between frames.
    """

    index: int
    use: LampUse | None
    lamp: Lamp
    on: float
    off: float
    spans: tuple[Span, ...]

    @property
    def switched(self) -> bool:
        """Whether it is switched with every frame."""
        return self.use is not None and self.use.lit != "always"

    @property
    def lit_s(self) -> float:
        """How long it is lit for the frame."""
        return sum(span.off - span.on for span in self.spans)

    @property
    def level(self) -> float:
        """How bright it is while it is lit, on average."""
        if self.use is None or not self.lit_s:
            return 1.0
        if self.use.lit != "for the frame":
            return self.use.brightest
        return sum((span.off - span.on) * span.level for span in self.spans) / self.lit_s

    @property
    def times(self) -> int:
        """How often a frame switches it on: once, and once more after each exposure for which it is dark."""
        return (1 if self.lit_s else 0) + sum(after.on > before.off for before, after in pairwise(self.spans))


def call_of(shooting: Shooting) -> Call:
    """The call of the tightest beat."""
    beat, cycle = shooting.plan.beat, shooting.cycle
    coupling = parts_of(shooting.plan).coupling
    ready = float(beat.ready_s)
    # Where no half press goes ahead, the press itself wakes a camera that sleeps.
    wakes = float(beat.wake_s) if sleeps(shooting) and not beat.half_s and shooting.hearing is not None else 0.0
    full = ready - wakes + float(beat.call_s)
    heard = full + float(beat.couple_s)
    off = full + float(beat.press_s)
    opens = heard + wakes + float(beat.lag_s)
    return Call(
        half=ready - float(beat.half_s) if beat.half_s else None,
        full=full,
        off=off,
        heard=heard,
        unheard=off + (float(coupling.release_s) if coupling else 0.0),
        wakes=((ready - float(beat.wake_s), ready) if not wakes else (heard, heard + wakes))
        if sleeps(shooting)
        else None,
        opens=opens,
        closed=opens + cycle.exposures.busy_s,
        interval=float(cycle.interval_s),
    )


def sleeps(shooting: Shooting) -> bool:
    """Whether the camera falls asleep in the longest gap; it does not while its shutter is open."""
    camera = parts_of(shooting.plan).camera
    if camera is None or not camera.sleeps_after_s:
        return False
    at_work = 0.0 if shooting.plan.trigger.keep_awake_s else float(shooting.shuttered.busy_s.min())
    return float(camera.sleeps_after_s) < longest_gap_s(shooting) - at_work


def lamps_of(plan: Plan) -> Iterator[tuple[int, Lamp, LampUse | None]]:
    """The lamps of the kit with their place in it, and how each is used."""
    uses = {use.lamp: use for use in plan.trigger.lamps}
    for index, copy in enumerate(plan.kit.copies):
        if isinstance(copy.card, Lamp):
            yield index, copy.card, uses.get(copy.key)


Switched = tuple[int, Lamp, LampUse]


def relays_of(plan: Plan) -> tuple[tuple[Switched, ...], ...]:
    """The lamps that are switched with the frames, relay by relay: those on one pin that are switched alike share one.

    What has a push button of its own, or a ready-made socket on the mains, stands alone.
    """
    groups: dict[object, list[Switched]] = {}
    for index, lamp, use in lamps_of(plan):
        if use is None or use.lit == "always":
            continue
        before = lamp.warm_up_s if use.before_s is None else use.before_s
        shared = use.pin and lamp.switch == "level" and not lamp.on_mains
        alike = (use.pin, use.lit, before, lamp.volts, use.levels)
        groups.setdefault(alike if shared else index, []).append((index, lamp, use))
    return tuple(tuple(group) for group in groups.values())


def lit(shooting: Shooting) -> Iterator[Lit]:
    """When each lamp is lit in one beat: ahead of the shutter and until it has closed, or all the time."""
    call = call_of(shooting)
    for index, lamp, use in lamps_of(shooting.plan):
        if use is None or use.lit == "always":
            level = use.brightest if use is not None else 1.0
            yield Lit(index, use, lamp, 0.0, call.interval, (Span(0.0, call.interval, level),))
            continue
        before = float(lamp.warm_up_s if use.before_s is None else use.before_s)
        if use.lit == "between frames":
            spans: tuple[Span, ...] = (Span(call.opens - before, call.closed, 0.0),)
        else:
            never = Span(call.opens, call.opens, 0.0)
            spans = tuple(_exposed(shooting.cycle.exposures, call, use, before)) or (never,)
        yield Lit(index, use, lamp, spans[0].on, spans[-1].off, spans)


def _exposed(exposing: Exposures, call: Call, use: LampUse, before: float) -> Iterator[Span]:
    """Lit for exposure after exposure; from one for which it is lit to the next such it stays so."""
    if len(use.levels) == 1:
        yield Span(call.opens - before, call.closed, use.levels[0])
        return
    opens, off, goes_on = call.opens, float("-inf"), False
    for turn, (exposure, gap) in enumerate(exposing.in_turn()):
        level = use.level(turn % len(exposing.bracket_s) + 1)
        if level:
            on = off if goes_on else max(off, opens - before)
            off = opens + exposure
            yield Span(on, off, level)
        goes_on = bool(level)
        opens += exposure + gap


def heard_press_s(plan: Plan) -> float:
    """How long the camera hears the full press."""
    coupling: Coupling | None = parts_of(plan).coupling
    late = float(coupling.release_s - plan.beat.couple_s) if coupling else 0.0
    return float(plan.beat.press_s) + late


def needed_press_s(camera: Imager, asleep: bool, woken: bool, wake_s: float) -> float:
    """How long a camera has to hear the press: longer where it has to wake from that very press first."""
    least = float(camera.least_press_s) if camera.least_press_s is not None else 0.0
    return least + (wake_s if asleep and not woken else 0.0)


def longest_gap_s(shooting: Shooting) -> float:
    """The longest time without a press, nights between windows included; or until the next that only keeps awake."""
    starts, rooms = shooting.timeline.starts_s, shooting.timeline.rooms_s
    gap = float(max(rooms.max(), np.diff(starts).max(initial=0.0)))
    keeps = shooting.plan.trigger.keep_awake_s
    return min(gap, float(keeps)) if keeps else gap
