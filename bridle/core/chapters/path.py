"""Where the axes stand at every frame, and whether they can."""

import itertools
from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Literal

import numpy as np

from bridle.core.chapters.clip import ClipAnswer
from bridle.core.chapters.framings import framings
from bridle.core.chapters.schedule import Schedule, schedule
from bridle.core.chapters.sighting import following
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.move import Keyframe
from bridle.core.plan.rig import Axis, AxisName
from bridle.core.plan.rounds import Station, Stations
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects import easing, rings
from bridle.core.subjects.clip import Solution
from bridle.core.subjects.easing import Floats

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
ALIKE = SnagKind(
    "letters-alike",
    "stop",
    "move",
    "The {axis} and the {other} are both called {letter} in the drive's program.",
    "Both would be told the same positions.",
)
KINDS = (TRAVEL, FOLLOWS_OUT, EASE, CROWDED, ALIKE)

DISTANCE = Formula("abs(end - start)", "from keyframe to keyframe")
FASTEST = Formula("abs(next - this)", "between the two frames that lie furthest apart")
CLIP_SECONDS = Formula("ease / rate", "frames over playback rate")
FIELDS: dict[AxisName, str] = {
    "slide": "slide_mm",
    "pan": "pan_deg",
    "tilt": "tilt_deg",
    "roll": "roll_deg",
    "focus": "focus_mm",
    "zoom": "zoom_mm",
}


@dataclass(frozen=True)
class PathAnswer:
    """Positions, one value a frame, as they are typed (focus as distance, zoom as focal length); none while open."""

    positions: dict[str, Floats]
    schedule: Schedule | None = None
    figures: list[Figure] = field(default_factory=list)
    snags: list[Snag] = field(default_factory=list)


def answer(plan: Plan, clip: ClipAnswer) -> PathAnswer:
    """The path of every axis. While the clip is open: no positions, but the limits."""
    snags = [*(snag for axis in plan.rig.axes for snag in _travel(plan, axis)), *_letters(plan)]
    solution = clip.solution
    if solution is None:
        return PathAnswer({}, None, [], snags)
    told, places = schedule(plan.move, plan.clip, solution), positions(plan, solution)
    figures: list[Figure] = []
    for axis in plan.rig.axes:
        figures += _axis_figures(plan, axis, told, places[axis.name])
    figures += _ease_figures(told, clip)
    snags += [*_followed_out(plan, solution), *_misplaced(plan, told), *_shortened(plan, told)]
    return PathAnswer(places, told, figures, snags)


def positions(plan: Plan, solution: Solution) -> dict[str, Floats]:
    """Where each axis stands at each frame, shape (frames,): still in the handles, eased between the keyframes."""
    told = schedule(plan.move, plan.clip, solution)
    pad = (told.span.first, solution.frames - 1 - told.span.last)
    made: dict[str, Floats] = {}
    for axis in plan.rig.axes:
        made[axis.name] = np.pad(axis_path(plan, axis, told), pad, mode="edge")
    if plan.move.follow is not None and plan.move.follow.every_frame:
        made |= {name: _held(plan, name, values) for name, values in following(plan, made).items()}
    if isinstance(plan.move.visits, Stations):
        made = {name: np.full(solution.frames, values[0]) for name, values in visited(plan, made).items()}
    return made


def axis_path(plan: Plan, axis: Axis, told: Schedule) -> Floats:
    """An axis along the move, through its keyframes; a lens ring is eased in turns of the ring."""
    values = np.array([at(plan, key, axis.name) for key in plan.move.keyframes])
    if not axis.on_lens:
        return told.along(values)
    ring = tuple((mark.turn_deg, mark.value_mm) for mark in axis.marks)
    way = told.along(rings.turned(values, ring, axis.name == "focus"))
    return rings.set_to(way, ring, axis.name == "focus")


def driven(plan: Plan, places: dict[str, Floats]) -> dict[str, Floats]:
    """Positions as the drives have them: lens rings in degrees of their turn, all else as it is."""
    made = dict(places)
    for axis in plan.rig.axes:
        if axis.on_lens and axis.name in places:
            made[axis.name] = ring_turns(axis, places[axis.name])
    return made


def ring_turns(axis: Axis, values: Floats) -> Floats:
    """The turn of a lens ring for what the lens is set to."""
    ring = tuple((mark.turn_deg, mark.value_mm) for mark in axis.marks)
    return rings.turned(values, ring, axis.name == "focus")


def ring_values(axis: Axis, turns: Floats) -> Floats:
    """What a lens ring is set to at these turns of it."""
    ring = tuple((mark.turn_deg, mark.value_mm) for mark in axis.marks)
    return rings.set_to(turns, ring, axis.name == "focus")


def at(plan: Plan, keyframe: Keyframe | Station, name: AxisName) -> float:
    """Where an axis stands at a keyframe, as it is typed; an empty zoom is as long as the lens."""
    value = getattr(keyframe, FIELDS[name])
    return float(plan.camera.focal_mm if value is None else value)


def field_of(axis: Axis) -> str:
    """The keyframe's field for an axis."""
    return FIELDS[axis.name]


def shown_unit(axis: Axis) -> str:
    """The unit in which an axis's positions are typed and shown."""
    return {"focus": "mm", "zoom": "focal"}.get(axis.name, axis.unit)


def key_path(plan: Plan, number: int, name: AxisName) -> str:
    """The plan's path of an axis at a keyframe."""
    return f"move.keyframes.{number}.{FIELDS[name]}"


def end_path(plan: Plan, axis: Axis) -> str:
    """The plan's path of an axis at the last keyframe."""
    return key_path(plan, len(plan.move.keyframes) - 1, axis.name)


def visited(plan: Plan, places: dict[str, Floats]) -> dict[str, Floats]:
    """Where the axes stand at each visit of a cycle, shape (visits,), for stations; else the places as they are."""
    visits = plan.move.visits
    if not isinstance(visits, Stations):
        return places
    made = {}
    for name, values in places.items():
        at_stations = [getattr(station, FIELDS[name], None) for station in visits.stations]  # type: ignore[index]
        made[name] = np.array([values[0] if value is None else value for value in at_stations], dtype=np.float64)
    return made


def _held(plan: Plan, name: str, values: Floats) -> Floats:
    axis = next(axis for axis in plan.rig.axes if axis.name == name)
    return np.clip(values, axis.low, axis.high)


def _letters(plan: Plan) -> Iterator[Snag]:
    """Axes that share a letter in the drive's program."""
    for one, other in itertools.combinations(plan.rig.axes, 2):
        if one.called != other.called:
            continue
        edits = tuple(Edit(path=f"rig.axes.{n}.letter", value=None) for n in range(len(plan.rig.axes)))
        fix = Fix(
            label="Letters as usual",
            consequence="Slide X, pan Y, tilt Z, roll A, focus B, zoom C; wire the controller so.",
            slots={},
            edits=edits,
        )
        slots = {"axis": slot(one.name), "other": slot(other.name), "letter": slot(one.called)}
        yield ALIKE.at(f"rig.axes.{plan.rig.axes.index(other)}.letter", slots, [fix])


def _reach(axis: Axis) -> tuple[float, float]:
    """Between which positions, as they are typed, an axis reaches."""
    if not axis.on_lens:
        return axis.low, axis.high
    ring = tuple((mark.turn_deg, mark.value_mm) for mark in axis.marks)
    low, high = sorted(rings.set_to(np.array([axis.low, axis.high]), ring, axis.name == "focus").tolist())
    return low, high


def _travel(plan: Plan, axis: Axis) -> Iterator[Snag]:
    """Keyframes, or stations, beyond an axis's travel."""
    low, high = _reach(axis)
    for one in framings(plan):
        if isinstance(one.stands, Station) and not hasattr(one.stands, FIELDS[axis.name]):
            continue
        position = at(plan, one.stands, axis.name)
        inside = min(max(position, low), high)
        if abs(inside - position) > 1e-9 * max(1.0, abs(position)):
            yield _out_of_travel(axis, f"{one.path}.{field_of(axis)}", one.name, position, inside, (low, high))


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
        label="Stop at {inside}",
        consequence="The {axis} ends its travel {short} earlier; the framing there changes.",
        slots={"inside": slot(inside, unit), "axis": slot(axis.name), "short": slot(abs(position - inside), unit)},
        edits=(Edit(path=path, value=inside),),
    )
    return TRAVEL.at(path, slots, [fix])


def _followed_out(plan: Plan, solution: Solution) -> Iterator[Snag]:
    """A mark followed frame by frame to where the head does not reach."""
    follow = plan.move.follow
    if follow is None or not follow.every_frame:
        return
    told = schedule(plan.move, plan.clip, solution)
    pad = (told.span.first, solution.frames - 1 - told.span.last)
    plain: dict[str, Floats] = {
        axis.name: np.pad(axis_path(plan, axis, told), pad, mode="edge") for axis in plan.rig.axes
    }
    for name, values in following(plan, plain).items():
        axis = next(axis for axis in plan.rig.axes if axis.name == name)
        over = np.maximum(axis.low - values, values - axis.high)
        worst = int(np.argmax(over))
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


def _misplaced(plan: Plan, told: Schedule) -> Iterator[Snag]:
    last = len(plan.move.keyframes) - 1
    for number in told.misplaced:
        freed = [
            Edit(path=f"move.keyframes.{each}.{what}", value=value)
            for each in told.misplaced
            for what, value in (("when", None), ("hold_frames", 0))
        ]
        fixes = []
        if told.steps >= last:
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
        slots = {"number": slot(str(number + 1)), "frame": slot(str(told.frame(number) + 1))}
        yield CROWDED.at(f"move.keyframes.{number}.when", slots, fixes)


def _shortened(plan: Plan, told: Schedule) -> list[Snag]:
    scaled = [piece for piece in told.pieces if piece.ease.scaled]
    if not scaled:
        return []
    piece = min(scaled, key=lambda one: one.steps)
    asked_in, asked_out = told.eases_asked
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


def _axis_figures(plan: Plan, axis: Axis, told: Schedule, places: Floats) -> list[Figure]:
    unit = shown_unit(axis)
    values = [at(plan, key, axis.name) for key in plan.move.keyframes]
    legs = term("legs", "ways from end to end", len(told.legs), "")
    if len(values) == 2 and len(told.legs) == 1:
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
    distance = len(told.legs) * sum(abs(b - a) for a, b in itertools.pairwise(values))
    whole = figure(f"move.{axis.name}.distance", f"{axis.name} travels", distance, unit, rule, *terms)
    return [whole, _pace(axis, told, places, distance)]


def _pace(axis: Axis, told: Schedule, places: Floats, distance: float) -> Figure:
    """The pace at cruise of a plain move; of any other that between the two frames furthest apart."""
    unit = shown_unit(axis)
    if told.plain and not axis.on_lens:
        ease = told.pieces[0].ease
        terms = (
            term("distance", "distance", distance, unit),
            term("steps", "steps between frames", told.steps, ""),
            term("ease_in", "ease in", ease.frames_in, "frames"),
            term("ease_out", "ease out", ease.frames_out, "frames"),
        )
        cruise = easing.cruise(distance, told.steps, ease)
        rule = easing.CRUISE if told.steps else easing.STANDING
        return figure(f"move.{axis.name}.cruise", f"{axis.name} at cruise", cruise, f"{unit}/frame", rule, *terms)
    steps = np.abs(np.diff(places)) if len(places) > 1 else np.zeros(1)
    worst = int(np.argmax(steps))
    this, after = float(places[worst]), float(places[min(worst + 1, len(places) - 1)])
    ends = (
        term("next", f"at frame {worst + 2}", after, unit),
        term("this", f"at frame {worst + 1}", this, unit),
    )
    pace = abs(after - this)
    return figure(f"move.{axis.name}.cruise", f"{axis.name} at its fastest", pace, f"{unit}/frame", FASTEST, *ends)


def _ease_figures(told: Schedule, clip: ClipAnswer) -> list[Figure]:
    assert clip.solution is not None
    rate = term("rate", "playback rate", clip.solution.rate, "rate")
    used: tuple[tuple[Literal["in", "out"], float], ...] = (
        ("in", told.pieces[0].ease.frames_in),
        ("out", told.pieces[-1].ease.frames_out),
    )
    return [
        figure(
            f"move.ease_{end}",
            f"ease {end}, in the clip",
            frames / float(clip.solution.rate),
            "s",
            CLIP_SECONDS,
            term("ease", f"ease {end}, as used", frames, "frames"),
            rate,
        )
        for end, frames in used
    ]
