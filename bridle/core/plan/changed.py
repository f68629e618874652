"""Figures that an older plan had otherwise: told once, when it is taken in. Whoever changes a figure adds a line.

Each line stands for the plans up to a version: which figures are others than they were, why, and in which plans.
"""

from collections.abc import Callable
from dataclasses import dataclass
from fractions import Fraction

from bridle.core.plan.document import Plan
from bridle.core.plan.frames import DAY_MIN, Windows
from bridle.core.plan.upgrade import UNASKED

# What a figure was, from what it is now; None where nobody can say without the older rules.
Was = Callable[[Plan, float], float | None]


@dataclass(frozen=True, slots=True)
class FigureChange:
    """Of the figures that changed for one reason the first that a plan has is named, with its value.

    `since` and `upto` are versions of the plan. `sure`: where `only` holds, the figure is another one; else it may be.
    """

    upto: int
    keys: tuple[str, ...]
    why: str
    only: Callable[[Plan], bool] = lambda plan: True
    was: Was = lambda plan, value: None
    since: int = 1
    sure: bool = True


def _moves(plan: Plan) -> bool:
    """Whether anything stands elsewhere at one keyframe than at another."""
    first, *others = plan.move.keyframes
    places = ("slide_mm", "pan_deg", "tilt_deg")
    return any(getattr(first, place) != getattr(other, place) for other in others for place in places)


def _waits_for_the_card(plan: Plan) -> bool:
    stack = plan.beat.stack
    return stack is not None and not plan.beat.buffer_frames and plan.beat.write_s > stack.move_s + stack.settle_s


def _gaps_before(plan: Plan, value: float) -> float | None:
    """Each gap was as long as its focus move and its settling; now the card is waited for where it takes longer."""
    stack = plan.beat.stack
    # With another circle of confusion there are other positions too, and so other gaps.
    if stack is None or not plan.beat.write_s or _no_circle(plan):
        return None
    return float(Fraction(value) / plan.beat.write_s * (stack.move_s + stack.settle_s))


def _levelled(plan: Plan) -> bool:
    return plan.picture.level_deg != 0


def _has_no_top_speed(plan: Plan) -> bool:
    """Whether some drive is asked for no top speed since version 5: a spring, a menu, a switch, a dial, a hand."""
    drives = [getattr(copy.card, "drive", None) for copy in plan.kit.copies]
    return any(drive is not None and drive.kind in UNASKED for drive in drives)


def _broken_windows(plan: Plan) -> bool:
    """Whether the interval does not divide some window: until version 9 all of them were hours of the clock."""
    frames = plan.frames
    if not isinstance(frames, Windows):
        return False
    return any((rule.closes.minutes - rule.opens.minutes) % DAY_MIN * 60 % frames.every_s for rule in frames.rules)


def _no_circle(plan: Plan) -> bool:
    return plan.camera.circle_mm is None


def _two_starts(plan: Plan) -> bool:
    beat = plan.beat
    return beat.uncoupled is not None and beat.uncoupled.drift_ppm > 0 and not beat.continuous and _moves(plan)


def _by_the_sun(plan: Plan) -> bool:
    frames = plan.frames
    return isinstance(frames, Windows) and any(
        edge.by != "clock" for rule in frames.rules for edge in (rule.opens, rule.closes)
    )


def _under_stars(plan: Plan) -> bool:
    return plan.shoot.place.latitude_deg is not None


CHANGES = (
    FigureChange(
        3,
        ("beat.gaps", "beat.need", "beat.spare", "beat.shortest", "school.shoot-move-shoot.need",
         "school.shoot-move-shoot.shortest", "school.shoot-move-shoot.on_site", "school.continuous.need",
         "school.continuous.shortest", "school.continuous.on_site"),
        "a focus stack waits for the card between its pictures where the camera has no buffer",
        only=_waits_for_the_card,
        was=_gaps_before,
    ),
    FigureChange(
        3,
        ("rig.nod", "rig.slope"),
        "how a bending rail leans the camera counts over the move that is made, and only along the view as a nod",
    ),
    FigureChange(
        3,
        ("beat.smear", "beat.smear.centre", "beat.smear.edge", "view.shift", "view.shift_share"),
        "smear and shift are the largest anywhere in the picture, near or far, with the lens as it stands there",
        only=_moves,
        since=2,
        sure=False,
    ),
    FigureChange(
        3,
        ("beat.move", "beat.still"),
        "the longest move between two frames is looked for along the whole way, with what follows a mark",
        only=_moves,
        since=3,
        sure=False,
    ),
    FigureChange(
        3,
        ("picture.levelled", "picture.headroom", "picture.tightest", "view.across", "view.upright", "view.px_per_deg"),
        "a levelled picture is the largest of its shape within the turned frame",
        only=_levelled,
    ),
    FigureChange(
        4,
        ("school.shoot-move-shoot.need",),
        "a drive that runs by itself, or is set by hand, has no top speed, so no move is waited for",
        only=_has_no_top_speed,
    ),
    FigureChange(
        8,
        ("clip.frames",),
        "a work window that the interval does not divide has its last frame too",
        only=_broken_windows,
    ),
    FigureChange(
        10,
        ("help.hyperfocal", "help.near", "help.far", "help.close", "help.close.grows", "help.out.depth",
         "help.out.depth.grows", "printing.sharp"),
        "what passes for sharp follows the size of the sensor where nobody has typed a circle of confusion",
        only=_no_circle,
        since=6,
    ),
    FigureChange(
        10,
        ("beat.positions", "beat.hyperfocal", "beat.exposures", "beat.gaps", "beat.need", "beat.share", "beat.shortest",
         "beat.spare", "school.continuous.need", "school.continuous.on_site", "school.continuous.shortest",
         "school.shoot-move-shoot.need", "school.shoot-move-shoot.on_site", "school.shoot-move-shoot.shortest",
         "season.a_day", "season.all", "season.average", "season.card", "season.kept", "season.visits",
         "trigger.closed", "trigger.lamp.7.heat", "trigger.lamp.7.saved", "trigger.lamp.7.share",
         "trigger.lamp.9.heat", "trigger.lamp.9.saved", "trigger.lamp.9.share"),
        "a focus stack has other positions, as its depth of field follows the size of the sensor",
        only=lambda plan: _no_circle(plan) and plan.beat.stack is not None,
    ),
    FigureChange(
        10,
        ("trigger.apart",),
        "two clocks are in time only as long as the room on one side of the move lasts, as nobody knows which gains",
        only=_two_starts,
    ),
    FigureChange(
        10,
        ("clip.frames", "season.open", "season.days"),
        "sunrise and sunset belong to the sun's own day, and hours meant on the same day stay on it",
        only=_by_the_sun,
        sure=False,
    ),
    FigureChange(
        11,
        ("help.stars", "light.leftover", "light.changes", "light.dark.frame", "light.pace", "light.gap"),
        "stars have to stay points in the middle two thirds of the picture, by the scale that holds there",
        only=_under_stars,
        since=6,
        sure=False,
    ),
    FigureChange(
        11,
        ("rig.carried.0", "rig.carried.1", "rig.carried.2", "rig.reserve.0", "rig.reserve.1", "rig.centre.x",
         "rig.centre.y"),
        "a box stands in the chain, with what is in it, and weighs on what carries it",
        only=lambda plan: any(copy.card.kind == "box" for copy in plan.kit.copies),
    ),
    FigureChange(
        11,
        ("printing.wide",),
        "a lens focused close up stands further out than its focal length, and takes in less",
        only=lambda plan: plan.printing.distance_mm is not None or plan.printing.mark is not None,
        since=8,
    ),
)  # fmt: skip
