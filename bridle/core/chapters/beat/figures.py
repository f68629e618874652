"""The numbers of one cycle as figures."""

from bridle.core.figure import Figure, Formula, Number, Term, figure, term
from bridle.core.plan.beat import Beat
from bridle.core.plan.camera import Camera
from bridle.core.reckon.cycles import Cycle
from bridle.core.reckon.exposed import stack_positions, stackable
from bridle.core.subjects.optics import lens
from bridle.core.subjects.time import cycle


def figures(reckoned: Cycle, camera: Camera, prefix: str = "beat") -> list[Figure]:
    """All figures of a cycle, under a prefix of their own."""
    return [
        *_exposing(reckoned, camera, prefix),
        *_moving(reckoned, prefix),
        needed(reckoned, prefix),
        *against(reckoned, prefix),
    ]


def _seconds(symbol: str, label: str, value: Number) -> Term:
    return term(symbol, label, value, "s")


def _exposing(reckoned: Cycle, camera: Camera, prefix: str) -> list[Figure]:
    beat, exposing = reckoned.beat, reckoned.exposures
    count = term("count", "exposures in a bracket", len(beat.bracket_s), "")
    exposure = term("exposure", "exposure", beat.exposure_s, "shutter")
    rule, bracket = _bracket(beat, count, exposure)
    positions = term("positions", "focus positions", exposing.positions, "")
    gaps = (
        positions,
        count,
        _seconds("gap", "gap in the bracket", beat.bracket_gap_s),
        _seconds("refocus", "focus move and settle", exposing.refocus_s),
        *([_seconds("storing", "merging and writing meanwhile", exposing.storing_s)] if exposing.storing_s else []),
        _seconds("dark", "dark frames in between", exposing.dark_in_gaps_s),
    )
    between = cycle.GAPS_STORING if exposing.storing_s else cycle.GAPS
    factor = term("bracket", "sum of the bracket, in exposures", exposing.factor, "")
    processing = (_seconds("dark", "last dark frame", exposing.dark_last_s), _seconds("merge", "merging", beat.merge_s))
    made = [
        figure(f"{prefix}.bracket", "sum of the bracket, in exposures", exposing.factor, "", rule, *bracket),
        figure(f"{prefix}.exposures", "exposures", exposing.total_s, "s", cycle.EXPOSURES, exposure, factor, positions),
        figure(f"{prefix}.gaps", "gaps", exposing.gaps_s, "s", between, *gaps),
        figure(f"{prefix}.processing", "processing", exposing.processing_s, "s", cycle.PROCESSING, *processing),
    ]
    return made + _stack(reckoned, camera, prefix)


def _bracket(beat: Beat, count: Term, exposure: Term) -> tuple[Formula, list[Term]]:
    """How the exposures of a bracket are summed, with its terms."""
    if beat.bracket_times_s:
        return cycle.bracket_formula(len(beat.bracket_times_s)), [exposure, *bracket_terms(beat)]
    if not beat.bracket_step_stops:
        return cycle.BRACKET_EVEN, [count]
    return cycle.BRACKET, [term("step", "from one to the next", beat.bracket_step_stops, "stops"), count]


def bracket_terms(beat: Beat) -> list[Term]:
    """Each exposure of a bracket that has its own times."""
    return [term(f"t{n}", f"exposure {n}", time, "shutter") for n, time in enumerate(beat.bracket_times_s, 1)]


def _stack(reckoned: Cycle, camera: Camera, prefix: str) -> list[Figure]:
    stack = reckoned.beat.stack
    if stack is None or not stackable(reckoned.beat, camera):
        return []
    positions = stack_positions(reckoned.beat, camera)
    hyper = lens.hyperfocal_mm(camera.focal_mm, camera.aperture, camera.circle)
    focal = term("focal", "focal length", camera.focal_mm, "focal")
    glass = (
        term("f_number", "aperture", camera.aperture, "f-number"),
        term("circle", "circle of confusion", camera.circle, "mm"),
    )
    ends = (term("near", "near", stack.near_mm, "mm"), term("far", "far", stack.far_mm, "mm"))
    rest = (
        term("overlap", "overlap", stack.overlap, "share"),
        focal,
        term("hyper", "hyperfocal distance", hyper, "mm"),
    )
    return [
        figure(f"{prefix}.hyperfocal", "hyperfocal distance", hyper, "mm", lens.HYPERFOCAL, focal, *glass),
        figure(f"{prefix}.positions", "focus positions", positions, "", lens.STACK, *ends, *rest),
    ]


def _moving(reckoned: Cycle, prefix: str) -> list[Figure]:
    axis = reckoned.slowest
    if axis is None or reckoned.beat.continuous or (axis.top_speed is None and axis.acceleration is None):
        return []
    rule = cycle.step_formula(reckoned.step, axis.fastest, axis.liveliest)
    terms = (
        term(
            "distance",
            f"longest step of the {axis.name}{', backlash included' if axis.backlash else ''}",
            reckoned.step,
            axis.unit,
        ),
        *([] if axis.top_speed is None else [term("speed", "top speed", axis.top_speed, f"{axis.unit}/s")]),
        *(
            []
            if axis.acceleration is None
            else [term("acceleration", "acceleration", axis.acceleration, f"{axis.unit}/s²")]
        ),
    )
    return [figure(f"{prefix}.move", "move", reckoned.move_s, "s", rule, *terms)]


def ready_label(beat: Beat) -> str:
    """What takes longest of all that goes ahead of the full press."""
    if beat.ready_s == beat.wake_s:
        return "wake"
    return "half press" if beat.ready_s == beat.half_s else "lamps warm up"


def needed(reckoned: Cycle, prefix: str) -> Figure:
    """What the cycle needs, as a figure."""
    beat, exposing = reckoned.beat, reckoned.exposures
    terms = [
        _seconds("wake", ready_label(beat), beat.ready_s),
        _seconds(
            "lag",
            "until it presses, coupling and shutter lag" if beat.heard_s > beat.lag_s else "shutter lag",
            beat.heard_s,
        ),
        _seconds("exposures", "exposures", exposing.total_s),
        _seconds("gaps", "gaps", exposing.gaps_s),
        _seconds("processing", "processing", exposing.processing_s),
        _seconds("write", "write, as the buffer takes it" if beat.buffer_frames else "write to card", reckoned.write_s),
    ]
    visits = len(reckoned.travels_s)
    if visits > 1:
        said = "places in a cycle, each at every focus position" if reckoned.positions else "places in a cycle"
        places = term("visits", said, visits, "")
        between = _seconds("between", "between the exposures", reckoned.between_s)
        kept = [each for each in terms if each.symbol not in ("processing", "write")]
        return figure(f"{prefix}.need", "needed", reckoned.need_s, "s", cycle.NEED_ROUND, places, *kept, between)
    if beat.continuous:
        return figure(f"{prefix}.need", "needed", reckoned.need_s, "s", cycle.NEED_FLOWING, *terms)
    terms += [_seconds("move", "move", reckoned.move_s), _seconds("settle", "settle", reckoned.settle_s)]
    rule = cycle.NEED_OVERLAP if beat.write_while_moving else cycle.NEED_IN_TURN
    return figure(f"{prefix}.need", "needed", reckoned.need_s, "s", rule, *terms)


def against(reckoned: Cycle, prefix: str) -> list[Figure]:
    """The cycle against its slot, as figures."""
    interval, moves = float(reckoned.interval_s), sum(reckoned.travels_s)
    whole = _seconds("interval", "interval", reckoned.interval_s)
    need, move = _seconds("need", "needed", reckoned.need_s), _seconds("move", "all moves of a cycle", moves)
    kept = _seconds("margin", "margin kept", reckoned.margin_s)
    least = _seconds("least", "least margin", reckoned.beat.least_margin_s)
    share = term("share", "margin", reckoned.beat.margin, "share")
    grid, part = (
        _seconds("step", "interval step", reckoned.grid_s),
        term("margin", "margin", reckoned.beat.margin, "share"),
    )
    still, spare = interval - moves - reckoned.margin_s, interval - reckoned.need_s - reckoned.margin_s
    exposed, open_s = reckoned.exposed_s / interval, _seconds("exposures", "exposures of a cycle", reckoned.exposed_s)
    shortest, still_label = "shortest interval that fits", "still time for the controller"
    return [
        figure(f"{prefix}.margin", "margin kept", reckoned.margin_s, "s", cycle.MARGIN, share, whole, least),
        figure(f"{prefix}.spare", "spare", spare, "s", cycle.SPARE, whole, need, kept),
        figure(f"{prefix}.shortest", shortest, reckoned.shortest_s, "s", cycle.SHORTEST, need, part, least, grid),
        figure(f"{prefix}.still", still_label, still, "s", cycle.STILL, whole, move, kept),
        figure(f"{prefix}.share", "exposure over interval", exposed, "share", cycle.EXPOSURE_SHARE, open_s, whole),
    ]
