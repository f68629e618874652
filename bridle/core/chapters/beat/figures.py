"""The numbers of one cycle as figures."""

from bridle.core.figure import Figure, Number, Term, figure, term
from bridle.core.plan.camera import Camera
from bridle.core.reckon.cycles import Cycle
from bridle.core.subjects.optics import lens
from bridle.core.subjects.time import cycle


def figures(one: Cycle, camera: Camera, prefix: str = "beat") -> list[Figure]:
    """All figures of a cycle, under a prefix of their own."""
    return [*_exposing(one, camera, prefix), *_moving(one, prefix), needed(one, prefix), *against(one, prefix)]


def _seconds(symbol: str, label: str, value: Number) -> Term:
    return term(symbol, label, value, "s")


def _exposing(one: Cycle, camera: Camera, prefix: str) -> list[Figure]:
    beat, exposing = one.beat, one.exposures
    count = term("count", "exposures in a bracket", beat.bracket_frames, "")
    step = term("step", "from one to the next", beat.bracket_step_stops, "stops")
    bracket = (cycle.BRACKET, step, count) if beat.bracket_step_stops else (cycle.BRACKET_EVEN, count)
    positions = term("positions", "focus positions", exposing.positions, "")
    gaps = (
        positions,
        count,
        _seconds("gap", "gap in the bracket", beat.bracket_gap_s),
        _seconds("refocus", "focus move and settle", exposing.refocus_s),
        _seconds("dark", "dark frames in between", exposing.dark_in_gaps_s),
    )
    exposure = term("exposure", "exposure", beat.exposure_s, "shutter")
    factor = term("bracket", "sum of the bracket, in exposures", exposing.factor, "")
    processing = (_seconds("dark", "last dark frame", exposing.dark_last_s), _seconds("merge", "merging", beat.merge_s))
    made = [
        figure(f"{prefix}.bracket", "sum of the bracket, in exposures", exposing.factor, "", *bracket),
        figure(f"{prefix}.exposures", "exposures", exposing.total_s, "s", cycle.EXPOSURES, exposure, factor, positions),
        figure(f"{prefix}.gaps", "gaps", exposing.gaps_s, "s", cycle.GAPS, *gaps),
        figure(f"{prefix}.processing", "processing", exposing.processing_s, "s", cycle.PROCESSING, *processing),
    ]
    return made + _stack(one, camera, prefix)


def _stack(one: Cycle, camera: Camera, prefix: str) -> list[Figure]:
    stack = one.beat.stack
    if stack is None or stack.near_mm <= camera.focal_mm:
        return []
    hyper = lens.hyperfocal_mm(camera.focal_mm, camera.aperture, camera.circle_mm)
    focal = term("focal", "focal length", camera.focal_mm, "focal")
    glass = (
        term("f_number", "aperture", camera.aperture, "f-number"),
        term("circle", "circle of confusion", camera.circle_mm, "mm"),
    )
    ends = (term("near", "near", stack.near_mm, "mm"), term("far", "far", stack.far_mm, "mm"))
    rest = (
        term("overlap", "overlap", stack.overlap, "share"),
        focal,
        term("hyper", "hyperfocal distance", hyper, "mm"),
    )
    return [
        figure(f"{prefix}.hyperfocal", "hyperfocal distance", hyper, "mm", lens.HYPERFOCAL, focal, *glass),
        figure(f"{prefix}.positions", "focus positions", one.exposures.positions, "", lens.STACK, *ends, *rest),
    ]


def _moving(one: Cycle, prefix: str) -> list[Figure]:
    axis = one.slowest
    if axis is None or one.beat.continuous:
        return []
    rule = cycle.step_formula(one.step, axis.top_speed, axis.acceleration)
    terms = (
        term(
            "distance",
            f"longest step of the {axis.name}{', backlash included' if axis.backlash else ''}",
            one.step,
            axis.unit,
        ),
        term("speed", "top speed", axis.top_speed, f"{axis.unit}/s"),
        term("acceleration", "acceleration", axis.acceleration, f"{axis.unit}/s²"),
    )
    return [figure(f"{prefix}.move", "move", one.move_s, "s", rule, *terms)]


def needed(one: Cycle, prefix: str) -> Figure:
    """What the cycle needs, as a figure."""
    beat, exposing = one.beat, one.exposures
    terms = [
        _seconds("wake", "wake", beat.wake_s),
        _seconds("lag", "shutter lag", beat.lag_s),
        _seconds("exposures", "exposures", exposing.total_s),
        _seconds("gaps", "gaps", exposing.gaps_s),
        _seconds("processing", "processing", exposing.processing_s),
        _seconds("write", "write, as the buffer takes it" if beat.buffer_frames else "write to card", one.write_s),
    ]
    visits = len(one.travels_s)
    if visits > 1:
        places = term("visits", "places in a cycle", visits, "")
        between = _seconds("between", "between the exposures", one.between_s)
        kept = [each for each in terms if each.symbol not in ("processing", "write")]
        return figure(f"{prefix}.need", "needed", one.need_s, "s", cycle.NEED_ROUND, places, *kept, between)
    if beat.continuous:
        return figure(f"{prefix}.need", "needed", one.need_s, "s", cycle.NEED_FLOWING, *terms)
    terms += [_seconds("move", "move", one.move_s), _seconds("settle", "settle", one.settle_s)]
    rule = cycle.NEED_OVERLAP if beat.write_while_moving else cycle.NEED_IN_TURN
    return figure(f"{prefix}.need", "needed", one.need_s, "s", rule, *terms)


def against(one: Cycle, prefix: str) -> list[Figure]:
    """The cycle against its slot, as figures."""
    interval, moves = float(one.interval_s), sum(one.travels_s)
    whole = _seconds("interval", "interval", one.interval_s)
    need, move = _seconds("need", "needed", one.need_s), _seconds("move", "all moves of a cycle", moves)
    kept = _seconds("margin", "margin kept", one.margin_s)
    least = _seconds("least", "least margin", one.beat.least_margin_s)
    share = term("share", "margin", one.beat.margin, "share")
    grid, part = _seconds("step", "interval step", one.grid_s), term("margin", "margin", one.beat.margin, "share")
    still, spare = interval - moves - one.margin_s, interval - one.need_s - one.margin_s
    exposed, open_s = one.exposed_s / interval, _seconds("exposures", "exposures of a cycle", one.exposed_s)
    shortest, still_label = "shortest interval that fits", "still time for the controller"
    return [
        figure(f"{prefix}.margin", "margin kept", one.margin_s, "s", cycle.MARGIN, share, whole, least),
        figure(f"{prefix}.spare", "spare", spare, "s", cycle.SPARE, whole, need, kept),
        figure(f"{prefix}.shortest", shortest, one.shortest_s, "s", cycle.SHORTEST, need, part, least, grid),
        figure(f"{prefix}.still", still_label, still, "s", cycle.STILL, whole, move, kept),
        figure(f"{prefix}.share", "exposure over interval", exposed, "share", cycle.EXPOSURE_SHARE, open_s, whole),
    ]
