"""A pan that leans: on purpose, when its sweep draws an arc; or with a sloped rail, when nobody has said so."""

from collections.abc import Iterator

import numpy as np

from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit
from bridle.core.plan.rig import Axis
from bridle.core.reckon.poses import leaned
from bridle.core.reckon.reckoning import Shooting
from bridle.core.snag import Fix, Snag, SnagKind, slot
from bridle.core.subjects.numbers.rounding import first_peak
from bridle.core.subjects.optics.projecting import Poses

SLOPED = SnagKind(
    "pan-on-slope",
    "mind",
    "rig",
    "The rail slopes by {slope}, and nobody has said how the pan on it stands.",
    "Bolted to the carriage it leans with the rail and its sweep draws an arc; on a levelled base it stands upright. "
    "It is taken as upright until you say.",
)
KINDS = (SLOPED,)
# Less than this a good bubble does not show.
LEAST_SLOPE_DEG = 0.1
AROUND = 73
LEANS = "the axis of the pan leans: the camera looks down where its top leans to, and rolls where it looks across"
HEIGHT = Formula(
    "degrees(asin(cos(radians(lean)) * sin(radians(tilt)) - sin(radians(lean)) * cos(radians(tilt)) "
    "* cos(radians(pan - toward))))",
    LEANS,
)
ROLL = Formula(
    "rolled - degrees(atan2(sin(radians(lean)) * sin(radians(pan - toward)), sin(radians(lean)) * sin(radians(tilt)) "
    "* cos(radians(pan - toward)) + cos(radians(lean)) * cos(radians(tilt))))",
    f"{LEANS}; clockwise counts above nought",
)
ARC = Formula("highest - lowest", "between the frames at which it looks highest and lowest")


def figures(shooting: Shooting) -> list[Figure]:
    """How high the camera looks and how it rolls at both ends, and the arc between; none where the pan is upright."""
    if shooting.poses.leaned is None:
        return []
    ends = (("start", "at the start", 0), ("end", "at the end", shooting.frames - 1))
    made = [one for name, when, frame in ends for one in _at(shooting.poses, f"lean.{name}", when, frame)]
    height = shooting.poses.views[1]
    highest, lowest = (
        term(symbol, f"{symbol}, at frame {frame + 1}", float(height[frame]), "deg")
        for symbol, frame in (("highest", first_peak(height)), ("lowest", first_peak(-height)))
    )
    return [*made, figure("lean.arc", "the arc, from low to high", np.ptp(height), "deg", ARC, highest, lowest)]


def _at(at: Poses, key: str, when: str, frame: int) -> Iterator[Figure]:
    assert at.leaned is not None
    _, height, roll = (float(ways[frame]) for ways in at.views)
    lean = (
        term("lean", "the pan leans by", at.leaned.by, "deg"),
        term("toward", "towards, on its own scale", at.leaned.toward, "deg"),
    )
    pan, tilt = (term(name, f"{name} {when}", float(getattr(at, name)[frame]), "deg") for name in ("pan", "tilt"))
    yield figure(f"{key}.height", f"the camera looks up, {when}", height, "deg", HEIGHT, *lean, pan, tilt)
    rolled = term("rolled", f"the roll axis {when}", float(at.roll[frame]), "deg")
    yield figure(f"{key}.roll", f"it rolls, {when}", roll, "deg", ROLL, rolled, *lean, pan, tilt)


def level(plan: Plan) -> tuple[tuple[float, ...], ...]:
    """Where a level camera looks while the pan turns all round: bearing from the normal and height, in degrees."""
    lean = leaned(plan)
    if lean is None:
        return ()
    around, still = np.linspace(-180, 180, AROUND), np.zeros(AROUND)
    # As far as the bearing goes: the pan that looks there is a little further or less far.
    bearing, height, _ = Poses(still, still, around, still, still, still + 1, lean).views
    bearing = (bearing + 180) % 360 - 180
    order = np.argsort(bearing)
    heights = np.interp(around, bearing[order], height[order], period=360)
    return tuple(zip(np.round(around, 2).tolist(), np.round(heights, 3).tolist(), strict=True))


def snags(plan: Plan) -> Iterator[Snag]:
    """A pan on a sloped rail of which nobody has said how it stands."""
    pan, slope = plan.rig.axis("pan"), plan.rig.standing.slope_deg
    if pan is None or plan.rig.axis("slide") is None or pan.lean_deg is not None or abs(slope) < LEAST_SLOPE_DEG:
        return
    # Across the rail, downhill; the pan's own scale begins square to it.
    downhill = (abs(slope), -90.0 if slope > 0 else 90.0)
    fixes = [
        _stands(plan, pan, "It leans with the rail", "The sweep draws an arc; it is drawn beside.", downhill),
        _stands(
            plan, pan, "It stands upright", "A levelling base, a wedge or a ball head takes the slope out.", (0, 0)
        ),
    ]
    yield SLOPED.at(f"rig.axes.{plan.rig.axes.index(pan)}.lean_deg", {"slope": slot(abs(slope), "deg")}, fixes)


def _stands(plan: Plan, pan: Axis, label: str, consequence: str, lean: tuple[float, float]) -> Fix:
    axis = f"rig.axes.{plan.rig.axes.index(pan)}"
    edits = tuple(
        Edit(path=f"{axis}.{name}", value=float(value))
        for name, value in zip(("lean_deg", "lean_toward_deg"), lean, strict=True)
    )
    return Fix(label=label, consequence=consequence, slots={}, edits=edits)


def on_purpose(plan: Plan) -> list[Fix]:
    """What stands off level is leaned by as much, on purpose; for a pan of which nobody has said that it leans."""
    pan, error = plan.rig.axis("pan"), plan.rig.standing.level_error_deg
    if pan is None or pan.lean_deg:
        return []
    fix = _stands(
        plan,
        pan,
        "It leans on purpose",
        "What it is off level counts as its lean: the pan draws an arc, drawn beside; say towards where.",
        (error, 0),
    )
    level = Edit(path="rig.standing.level_error_deg", value=0.0)
    return [Fix(label=fix.label, consequence=fix.consequence, slots={}, edits=(*fix.edits, level))]
