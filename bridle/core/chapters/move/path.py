"""Whether the axes can go where the move sends them, and how far and fast they go."""

import itertools
from collections.abc import Iterator
from typing import Literal

import numpy as np

from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.rig import USUAL_RINGS, Axis
from bridle.core.plan.rounds import Station
from bridle.core.reckon.framings import framings
from bridle.core.reckon.path import FIELDS, at, field_of, keyed, reach, shown_unit
from bridle.core.reckon.poses import following
from bridle.core.reckon.reckoning import Reckoning, Shooting
from bridle.core.reckon.schedule import Schedule
from bridle.core.reckon.travel import STILL
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.motion import easing
from bridle.core.subjects.numbers.arrays import Floats
from bridle.core.subjects.numbers.rounding import first_peak
from bridle.core.subjects.time.sentence import Solution

TRAVEL = SnagKind(
    "out-of-travel",
    "stop",
    "move",
    "At its {end} the {axis} would stand at {position}; it reaches from {low} to {high}.",
    "A drive without an end stop runs into its end, loses its position and with it every frame that follows.",
)
FOLLOWS_OUT = SnagKind(
    "follows-out-of-travel",
    "stop",
    "move",
    "Following the {mark}, the {axis} would come to {position}; it reaches from {low} to {high}.",
    "It stands still at its end, and the mark leaves its place in the picture.",
)
EASE = SnagKind(
    "ease-scaled",
    "note",
    "move",
    "Easing {asked_in} in and {asked_out} out is longer than the move of {steps}.",
    "Both were shortened alike, to {used_in} and {used_out}; the move never runs at an even pace.",
)
CROWDED = SnagKind(
    "keyframe-misplaced",
    "mind",
    "move",
    "Keyframe {number} cannot stand where it was put: it comes at frame {frame}.",
    "Keyframes follow one another in order, at least a frame apart, between the first and the last of the move; and "
    "none is stood at for longer than there is room.",
)
UNMARKED = SnagKind(
    "ring-unmarked",
    "stop",
    "move",
    "How far the motor has to turn the {axis} ring is not known: none of its marks was read off.",
    "A ring turns by other angles on every lens. Until its marks are known neither program nor table can say anything "
    "of it, and what is drawn is that of a usual lens.",
)
ALIKE = SnagKind(
    "letters-alike",
    "stop",
    "move",
    "The {axis} and the {other} are both called {letter} in the drive's program.",
    "Both would be told the same positions.",
)
KINDS = (TRAVEL, FOLLOWS_OUT, EASE, CROWDED, UNMARKED, ALIKE)
DISTANCE = Formula("abs(end - start)", "from keyframe to keyframe")
FASTEST = Formula("abs(next - this)", "between the two frames that lie furthest apart")
CLIP_SECONDS = Formula("ease / rate", "frames over playback rate")


def path_snags(known: Reckoning) -> Iterator[Snag]:
    """Axes sent beyond their travel, letters alike; of a shoot that is solved also what is followed, crowded, eased."""
    plan, shooting = known.plan, known.shooting
    for axis in plan.rig.axes:
        # A ring that goes through a stack does not stand where its keyframes say.
        if axis.name != "focus" or shooting is None or not shooting.stack_mm:
            yield from _travel(plan, axis)
    yield from _letters(plan)
    if shooting is not None:
        yield from _unmarked(shooting)
        yield from _followed_out(shooting)
        yield from _misplaced(plan, shooting.schedule)
        if _moves(shooting):
            yield from _shortened(plan, shooting.schedule)


def path_figures(shooting: Shooting) -> Iterator[Figure]:
    """How far and how fast each axis goes, and how long the ease lasts in the clip."""
    for axis in shooting.plan.rig.axes:
        yield from _axis_figures(shooting.plan, axis, shooting.schedule, shooting.positions[axis.name])
    yield from _ease_figures(shooting.schedule, shooting.solution)


def _unmarked(shooting: Shooting) -> Iterator[Snag]:
    """Rings of the lens that a motor turns, and nobody has said what they stand at when."""
    plan = shooting.plan
    for number, axis in enumerate(plan.rig.axes):
        if not axis.unmarked or np.ptp(shooting.stops[axis.name]) == 0:
            continue
        marks = [mark.model_dump(mode="json") for mark in USUAL_RINGS[axis.name]]
        fix = Fix(
            label="Begin with the marks of a usual lens",
            consequence="A guess, to be typed over: turn the ring to each mark and read off how far the motor went.",
            slots={},
            edits=(Edit(path=f"rig.axes.{number}.ring", value=marks),),
        )
        yield UNMARKED.at(f"rig.axes.{number}.ring", {"axis": slot(axis.name)}, [fix])


def _letters(plan: Plan) -> Iterator[Snag]:
    """Axes that share a letter in the drive's program."""
    for axis, other in itertools.combinations(plan.rig.axes, 2):
        if axis.called != other.called:
            continue
        edits = tuple(Edit(path=f"rig.axes.{n}.letter", value=None) for n in range(len(plan.rig.axes)))
        fix = Fix(
            label="Letters as usual",
            consequence="Slide X, pan Y, tilt Z, roll A, focus B, zoom C; wire the controller so.",
            slots={},
            edits=edits,
        )
        slots = {"axis": slot(axis.name), "other": slot(other.name), "letter": slot(axis.called)}
        yield ALIKE.at(f"rig.axes.{plan.rig.axes.index(other)}.letter", slots, [fix])


def _travel(plan: Plan, axis: Axis) -> Iterator[Snag]:
    """Keyframes, or stations, beyond an axis's travel."""
    low, high = reach(axis)
    for framing in framings(plan):
        if isinstance(framing.stands, Station) and not hasattr(framing.stands, FIELDS[axis.name]):
            continue
        position = at(plan, framing.stands, axis.name)
        inside = min(max(position, low), high)
        if abs(inside - position) > 1e-9 * max(1.0, abs(position)):
            yield _out_of_travel(axis, f"{framing.path}.{field_of(axis)}", framing.name, position, inside, (low, high))


def _out_of_travel(axis: Axis, path: str, end: str, position: float, inside: float, reach: tuple[float, float]) -> Snag:
    unit = shown_unit(axis)
    slots = {
        "end": slot(end),
        "axis": slot(axis.name),
        "position": slot(position, unit),
        "low": slot(reach[0], unit),
        "high": slot(reach[1], unit),
    }
    fix = Fix(
        label="Stop the {axis} at {inside}",
        consequence="The {axis} stands {short} beside where it was put; the framing there changes.",
        slots={"inside": slot(inside, unit), "axis": slot(axis.name), "short": slot(abs(position - inside), unit)},
        edits=(Edit(path=path, value=inside),),
    )
    return TRAVEL.at(path, slots, [fix])


def _followed_out(shooting: Shooting) -> Iterator[Snag]:
    """A mark followed frame by frame to where the head does not reach."""
    plan, follow = shooting.plan, shooting.plan.move.follow
    if follow is None or not follow.every_frame:
        return
    plain = keyed(plan, shooting.schedule, shooting.frames)
    for name, values in following(plan, plain, shooting.skies).items():
        axis = next(axis for axis in plan.rig.axes if axis.name == name)
        over = np.maximum(axis.low - values, values - axis.high)
        worst = first_peak(over)
        if over[worst] <= 1e-9:
            continue
        slots = {
            "mark": slot(plan.move.marks[follow.mark].name),
            "axis": slot(axis.name),
            "position": slot(float(values[worst]), "deg"),
            "low": slot(axis.low, "deg"),
            "high": slot(axis.high, "deg"),
        }
        fix = Fix(
            label="Follow it with the keyframes only",
            consequence="The pan goes from keyframe to keyframe again, as they are typed; the mark drifts.",
            slots={},
            edits=(Edit(path="move.follow.every_frame", value=False),),
        )
        yield FOLLOWS_OUT.at("move.follow.every_frame", slots, [fix])


def _misplaced(plan: Plan, timing: Schedule) -> Iterator[Snag]:
    last = len(plan.move.keyframes) - 1
    for number in timing.misplaced:
        freed = [
            Edit(path=f"move.keyframes.{each}.{what}", value=value)
            for each in timing.misplaced
            for what, value in (("when", None), ("hold_frames", 0))
        ]
        fixes = []
        if timing.steps >= last:
            fixes.append(
                Fix(
                    label="Spread them evenly",
                    consequence="Those that are misplaced stand evenly between their neighbours, without standing "
                    "still there.",
                    slots={},
                    edits=tuple(freed),
                )
            )
        ends = [plan.move.keyframes[0], plan.move.keyframes[-1]]
        only = [key.model_copy(update={"hold_frames": 0}).model_dump(mode="json") for key in ends]
        fixes.append(
            Fix(
                label="Keep the first and the last only",
                consequence="The move goes straight from one to the other.",
                slots={},
                edits=(Edit(path="move.keyframes", value=only),),
            )
        )
        slots = {"number": slot(str(number + 1)), "frame": slot(str(timing.frame(number) + 1))}
        yield CROWDED.at(f"move.keyframes.{number}.when", slots, fixes)


def _moves(shooting: Shooting) -> bool:
    """Whether anything is eased at all: an axis that goes somewhere, or a crop that does."""
    if any((far > STILL).any() for far in shooting.steps.values()):
        return True
    return shooting.crops.size > 0 and bool(np.ptp(shooting.crops, axis=0).any())


def _shortened(plan: Plan, timing: Schedule) -> list[Snag]:
    scaled = [piece for piece in timing.pieces if piece.ease.scaled]
    if not scaled:
        return []
    piece = min(scaled, key=lambda each: each.steps)
    asked_in, asked_out = timing.eases_asked
    fit_in, fit_out = int(piece.ease.frames_in), int(piece.ease.frames_out)
    slots = {
        "asked_in": slot(asked_in, "frames"),
        "asked_out": slot(asked_out, "frames"),
        "steps": slot(piece.steps, "frames"),
        "used_in": slot(piece.ease.frames_in, "frames"),
        "used_out": slot(piece.ease.frames_out, "frames"),
    }
    edits = [
        Edit(path="move.ease_in_frames", value=fit_in),
        Edit(path="move.ease_out_frames", value=fit_out),
        *(Edit(path=f"move.{name}", value=None) for name in ("ease_in_s", "ease_out_s") if getattr(plan.move, name)),
    ]
    fix = Fix(
        label="Ease {fit_in} in and {fit_out} out",
        consequence="The move stays as drawn now.",
        slots={"fit_in": slot(fit_in, "frames"), "fit_out": slot(fit_out, "frames")},
        edits=tuple(edits),
    )
    return [EASE.at("move.ease_in_frames", slots, [fix])]


def _axis_figures(plan: Plan, axis: Axis, timing: Schedule, places: Floats) -> list[Figure]:
    unit = shown_unit(axis)
    values = [at(plan, key, axis.name) for key in plan.move.keyframes]
    legs = term("legs", "how often it goes the way", len(timing.legs), "")
    if len(values) == 2 and len(timing.legs) == 1:
        rule, terms = DISTANCE, [term("start", "start", values[0], unit), term("end", "end", values[1], unit)]
    else:
        names = [f"way_{number}" for number in range(1, len(values))]
        rule = Formula(f"legs * ({' + '.join(names)})", "the ways from keyframe to keyframe, one after another")
        ways = [abs(b - a) for a, b in itertools.pairwise(values)]
        terms = [
            legs,
            *(
                term(name, f"to keyframe {n}", way, unit)
                for n, (name, way) in enumerate(zip(names, ways, strict=True), 2)
            ),
        ]
    distance = len(timing.legs) * sum(abs(b - a) for a, b in itertools.pairwise(values))
    whole = figure(f"move.{axis.name}.distance", f"{axis.name} travels", distance, unit, rule, *terms)
    return [whole, _pace(axis, timing, places, distance)]


def _pace(axis: Axis, timing: Schedule, places: Floats, distance: float) -> Figure:
    """The pace at cruise of a plain move; of any other that between the two frames furthest apart."""
    unit = shown_unit(axis)
    if timing.plain and not axis.on_lens:
        ease = timing.pieces[0].ease
        terms = (
            term("distance", "distance", distance, unit),
            term("steps", "steps between frames", timing.steps, ""),
            term("ease_in", "ease in", ease.frames_in, "frames"),
            term("ease_out", "ease out", ease.frames_out, "frames"),
        )
        cruise = easing.cruise(distance, timing.steps, ease)
        rule = easing.CRUISE if timing.steps else easing.STANDING
        return figure(f"move.{axis.name}.cruise", f"{axis.name} at cruise", cruise, f"{unit}/frame", rule, *terms)
    steps = np.abs(np.diff(places)) if len(places) > 1 else np.zeros(1)
    worst = first_peak(steps)
    this, after = float(places[worst]), float(places[min(worst + 1, len(places) - 1)])
    ends = (
        term("next", f"at frame {worst + 2}", after, unit),
        term("this", f"at frame {worst + 1}", this, unit),
    )
    pace = abs(after - this)
    return figure(f"move.{axis.name}.cruise", f"{axis.name} at its fastest", pace, f"{unit}/frame", FASTEST, *ends)


def _ease_figures(timing: Schedule, solution: Solution) -> list[Figure]:
    rate = term("rate", "playback rate", solution.rate, "rate")
    used: tuple[tuple[Literal["in", "out"], float], ...] = (
        ("in", timing.pieces[0].ease.frames_in),
        ("out", timing.pieces[-1].ease.frames_out),
    )
    return [
        figure(
            f"move.ease_{end}",
            f"ease {end}, in the clip",
            frames / float(solution.rate),
            "s",
            CLIP_SECONDS,
            term("ease", f"ease {end}, as used", frames, "frames"),
            rate,
        )
        for end, frames in used
    ]
