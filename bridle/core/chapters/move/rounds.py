"""Several pictures a cycle, further passes over the same positions, and the same path run live."""

import math
from collections.abc import Iterator
from dataclasses import replace
from fractions import Fraction

import numpy as np

from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.rig import Axis
from bridle.core.plan.rounds import PanoramaRow, Stations, StereoPair
from bridle.core.reckon.asked import cannot_stop
from bridle.core.reckon.cycles import tightest
from bridle.core.reckon.framings import framings, offsets, row, view_deg, visits_a_cycle
from bridle.core.reckon.picture import scale
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.timeline import Run
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.optics import panorama
from bridle.core.subjects.time.sentence import Solution

NO_AXIS = SnagKind(
    "round-without-axis",
    "stop",
    "move",
    "A {round} needs a {axis}, and the rig has none.",
    "From place to place the camera is moved by that axis, in every cycle.",
)
OUT = SnagKind(
    "round-out-of-travel",
    "stop",
    "move",
    "The {round} would take the {axis} to {position}; it reaches from {low} to {high}.",
    "The places of a round lie beside where the move stands, and all of them have to be within reach.",
)
RUNNING = SnagKind(
    "round-needs-stops",
    "stop",
    "move",
    "Several places in each cycle, and a move that never stops.",
    "Going from place to place takes stopping at each: shoot, move, shoot.",
)
TOO_FAST = SnagKind(
    "live-too-fast",
    "stop",
    "move",
    "Run live in {seconds}, the {axis} would go {speed}; its top speed is {top}.",
    "The same path that time-lapse goes in an hour is a chase when it is filmed.",
)
PASS_SHORT = SnagKind(
    "pass-too-short",
    "stop",
    "move",
    "One beat needs {need}, but {name} takes a frame every {interval}.",
    "The next shutter would open while the camera still writes or the rig still moves.",
)
KINDS = (NO_AXIS, OUT, RUNNING, TOO_FAST, PASS_SHORT)
NAMES = {"stations": "round of stations", "row": "panorama row", "stereo": "stereo pair"}
EACH = Formula("frames * interval", "as many frames as the first pass, at its own interval")
REPEAT = Formula("backlash * scale", "what backlash leaves open, where a pass does not come from the same side")
LIVE = Formula("pace * steps / seconds", "the fastest pace between two frames, all of the way in that time")
PICTURES = Formula("frames * places", "one picture at each place in every cycle")


def findings(shooting: Shooting) -> Iterator[Figure | Snag]:
    """Rounds, passes and the live move."""
    yield from _round(shooting)
    yield from _passes(shooting.plan, shooting.solution)
    yield from _passes_fit(shooting)
    yield from _live(shooting)


def _round(shooting: Shooting) -> Iterator[Figure | Snag]:
    plan, places, solution = shooting.plan, shooting.positions, shooting.solution
    visits = plan.move.visits
    if visits is None:
        return
    count = visits_a_cycle(plan)
    frames = term("frames", "cycles", solution.frames, "")
    each = term("places", "places in a cycle", count, "")
    yield figure("round.pictures", "pictures in all", count * solution.frames, "frames", PICTURES, frames, each)
    if isinstance(visits, PanoramaRow):
        yield from _row_figures(plan, visits)
    needed = {"row": "pan", "stereo": "slide"}.get(visits.kind)
    name = NAMES[visits.kind]
    if (needed and needed not in places) or (visits.kind == "stations" and not places):
        slots = {"round": slot(name), "axis": slot(needed or "moving axis")}
        yield NO_AXIS.at("move.visits", slots, [_drop()])
    if plan.beat.continuous and count > 1:
        fix = Fix(
            label="Shoot, move, shoot",
            consequence="The rig stands still for each picture; every stop needs time to settle.",
            slots={},
            edits=(Edit(path="beat.school", value="shoot-move-shoot"),),
        )
        yield RUNNING.at("beat.school", {}, [_drop()] if cannot_stop(shooting) else [fix, _drop()])
    yield from _reaches(plan, places)


def _drop() -> Fix:
    return Fix(
        label="One picture a cycle",
        consequence="The round is left out; the move goes from keyframe to keyframe.",
        slots={},
        edits=(Edit(path="move.visits", value=None),),
    )


def _row_figures(plan: Plan, visits: PanoramaRow) -> Iterator[Figure]:
    view = view_deg(plan)
    count, apart = row(plan, visits)
    wide = term("view", "field of view, across", view, "deg")
    overlap = term("overlap", "overlap asked for", visits.overlap, "share")
    sweep = () if visits.closed else (term("sweep", "sweep", visits.sweep_deg, "deg"),)
    rule = panorama.TURN if visits.closed else panorama.ROW
    yield figure("round.row", "pictures in a row", count, "", rule, *sweep, wide, overlap)
    if count > 1:
        beside = term("apart", "from one to the next", apart, "deg")
        yield figure("round.overlap", "true overlap", 1 - apart / view, "share", panorama.TRUE_OVERLAP, beside, wide)


def _reaches(plan: Plan, places: dict[str, Floats]) -> Iterator[Snag]:
    visits = plan.move.visits
    for name, aside in offsets(plan).items():
        axis = plan.rig.axis(name)
        if axis is None or visits is None:
            continue
        low, high = float(places[name].min()) + min(aside), float(places[name].max()) + max(aside)
        if low >= axis.low - 1e-9 and high <= axis.high + 1e-9:
            continue
        wrong = low if axis.low - low > high - axis.high else high
        slots = {
            "round": slot(NAMES[visits.kind]),
            "axis": slot(name),
            "position": slot(wrong, axis.unit),
            "low": slot(axis.low, axis.unit),
            "high": slot(axis.high, axis.unit),
        }
        yield OUT.at("move.visits", slots, [*_closer(plan, axis, places), _drop()])


def _closer(plan: Plan, axis: Axis, places: dict[str, Floats]) -> list[Fix]:
    """The keyframes brought in from the ends of the travel, so that a stereo pair or a row fits beside them."""
    if plan.move.follow is not None and plan.move.follow.every_frame and axis.name == "pan":
        return []
    aside = offsets(plan)[axis.name]
    low, high = axis.low - min(aside), axis.high - max(aside)
    if low > high:
        return []
    edits = []
    for framing in framings(plan):
        value = getattr(framing.stands, f"{axis.name}_{axis.unit}")
        inside = min(max(value, low), high)
        if inside != value:
            edits.append(Edit(path=f"{framing.path}.{axis.name}_{axis.unit}", value=inside))
    consequence = (
        "The {axis} goes from {low} to {high} at most, so that the places beside its ends come within reach; the "
        "framing there changes."
    )
    slots = {"axis": slot(axis.name), "low": slot(low, axis.unit), "high": slot(high, axis.unit)}
    fix = Fix(label="Bring the keyframes in", consequence=consequence, slots=slots, edits=tuple(edits))
    return [fix] if edits else []


def _passes(plan: Plan, solution: Solution) -> Iterator[Figure]:
    if not plan.move.passes:
        return
    frames = term("frames", "frames", solution.frames, "frames")
    for number, again in enumerate(plan.move.passes):
        interval = again.interval_s or solution.interval
        each = term("interval", f"interval of {again.name}", interval, "s")
        yield figure(f"pass.{number}", f"{again.name} lasts", solution.frames * interval, "s", EACH, frames, each)
    for axis in plan.rig.axes:
        if axis.backlash and axis.name in ("pan", "tilt"):
            back = term("backlash", f"backlash of the {axis.name}", axis.backlash, "deg")
            per = term("scale", "pixels per degree", scale(plan), "px/°")
            yield figure(
                f"pass.repeat.{axis.name}",
                f"the {axis.name} comes back to within",
                axis.backlash * scale(plan),
                "px",
                REPEAT,
                back,
                per,
            )


def _passes_fit(shooting: Shooting) -> Iterator[Snag]:
    """Passes whose own interval does not hold the beat: they are even, whatever the first one is."""
    plan, every, frames = shooting.plan, shooting.solution.interval, shooting.frames
    tight = [(n, again) for n, again in enumerate(plan.move.passes) if again.interval_s is not None]
    if not tight:
        return
    even = replace(shooting.timeline, rooms_s=np.full(frames, float(every)), runs=(Run(0, frames, Fraction(0), every),))
    beat = tightest(plan, plan.beat, even, shooting.steps, shooting.shuttered)
    for number, again in tight:
        if again.interval_s is None or again.interval_s >= beat.shortest_s:
            continue
        fix = Fix(
            label="Every {shortest}",
            consequence="{name} takes as much longer; its positions stay.",
            slots={"shortest": slot(beat.shortest_s, "s"), "name": slot(again.name)},
            edits=(Edit(path=f"move.passes.{number}.interval_s", value=str(beat.shortest_s)),),
        )
        slots = {"need": slot(beat.need_s, "s"), "name": slot(again.name), "interval": slot(again.interval_s, "s")}
        yield PASS_SHORT.at(f"move.passes.{number}.interval_s", slots, [fix])


def _live(shooting: Shooting) -> Iterator[Figure | Snag]:
    plan = shooting.plan
    if plan.move.live_s is None or isinstance(plan.move.visits, Stations | StereoPair):
        return
    steps = shooting.schedule.span.steps
    seconds = float(plan.move.live_s)
    needed = seconds
    slow: Axis | None = None
    for axis in plan.rig.axes:
        way = shooting.driven[axis.name]
        pace = float(np.abs(np.diff(way)).max()) if len(way) > 1 else 0.0
        terms = (
            term("pace", f"{axis.name}, fastest from frame to frame", pace, f"{axis.unit}/frame"),
            term("steps", "steps from frame to frame", steps, ""),
            term("seconds", "run live in", seconds, "s"),
        )
        speed = pace * steps / seconds
        yield figure(f"live.{axis.name}", f"{axis.name}, run live", speed, f"{axis.unit}/s", LIVE, *terms)
        takes = max(pace * steps / axis.fastest, _by_acceleration(way, steps, axis))
        if takes > needed * (1 + 1e-9):
            needed, slow = takes, axis
    if slow is not None:
        yield _too_fast(slow, shooting.driven[slow.name], steps, seconds, needed)


def _by_acceleration(way: Floats, steps: int, axis: Axis) -> float:
    """The least time that the axis's acceleration allows for the bends of its path."""
    if len(way) < 3:
        return 0.0
    bend = float(np.abs(np.diff(way, n=2)).max())
    return steps * math.sqrt(bend / axis.liveliest)


def _too_fast(axis: Axis, way: Floats, steps: int, seconds: float, needed: float) -> Snag:
    pace, per_s = float(np.abs(np.diff(way)).max()), steps / seconds
    longer = Fraction(math.ceil(needed * 10 + 1e-6), 10)
    slots = {
        "seconds": slot(seconds, "s"),
        "axis": slot(axis.name),
        "speed": slot(pace * per_s, f"{axis.unit}/s"),
    }
    if axis.top_speed is not None:
        slots["top"] = slot(axis.top_speed, f"{axis.unit}/s")
    sharp = ""
    if pace * per_s <= axis.fastest * (1 + 1e-9):
        bend = float(np.abs(np.diff(way, n=2)).max())
        slots |= {
            "bend": slot(bend * per_s**2, f"{axis.unit}/s²"),
            "can": slot(axis.liveliest, f"{axis.unit}/s²"),
        }
        sharp = "Run live in {seconds}, the {axis} would have to speed up by {bend}; it can do {can}."
    fix = Fix(
        label="Take {longer} for it",
        consequence="Speed and acceleration stay within what the axis can do.",
        slots={"longer": slot(longer, "s")},
        edits=(Edit(path="move.live_s", value=str(longer)),),
    )
    told = TOO_FAST.at("move.live_s", slots, [fix])
    return replace(told, what=sharp) if sharp else told
