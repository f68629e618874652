"""The time of one frame on its wires: when what fires presses, when the camera hears it, when the lamps are lit."""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from bridle.core.plan.document import Plan
from bridle.core.plan.kit import Imager
from bridle.core.plan.trigger import LampUse
from bridle.core.plan.wired import Coupling, Lamp
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


@dataclass(frozen=True)
class Lit:
    """A lamp of the kit as it is used: on from and to, in seconds of the beat, and from when it is bright."""

    index: int
    use: LampUse | None
    lamp: Lamp
    on: float
    bright: float
    off: float

    @property
    def switched(self) -> bool:
        """Whether it is switched with every frame."""
        return self.use is not None and self.use.lit != "always"


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
    """Whether the camera falls asleep in the longest gap."""
    camera = parts_of(shooting.plan).camera
    return camera is not None and 0 < float(camera.sleeps_after_s) < longest_gap_s(shooting)


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
        groups.setdefault((use.pin, use.lit, before, lamp.volts) if shared else index, []).append((index, lamp, use))
    return tuple(tuple(group) for group in groups.values())


def lit(shooting: Shooting) -> Iterator[Lit]:
    """When each lamp is lit in one beat: ahead of the shutter and until it has closed, or all the time."""
    call = call_of(shooting)
    for index, lamp, use in lamps_of(shooting.plan):
        if use is None or use.lit == "always":
            yield Lit(index, use, lamp, 0.0, 0.0, call.interval)
            continue
        before = float(lamp.warm_up_s if use.before_s is None else use.before_s)
        on = call.opens - before
        yield Lit(index, use, lamp, on, on + float(lamp.warm_up_s), call.closed)


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
