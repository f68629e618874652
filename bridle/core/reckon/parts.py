"""The cards of a plan: which is which, and which places of the plan they give the value for."""

import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from fractions import Fraction
from functools import lru_cache
from typing import Any

from bridle.core.plan.document import Plan
from bridle.core.plan.kit import AnyCard, AxisCard, Body, Copy, Filter, Lens, Phone
from bridle.core.plan.printer import HeadSwitch
from bridle.core.plan.rig import AXIS_NAMES, Axis, AxisName
from bridle.core.plan.wired import Coupling, Trigger

# Where a camera's own figures stand in a plan.
_IMAGER = {
    "camera.sensor_width_mm": "sensor_width_mm",
    "camera.sensor_height_mm": "sensor_height_mm",
    "camera.picture_width_px": "picture_width_px",
    "camera.picture_height_px": "picture_height_px",
    "beat.wake_s": "wake_s",
    "beat.lag_s": "lag_s",
    "beat.write_s": "write_s",
    "beat.buffer_frames": "buffer_frames",
    "camera.aperture": "only_f",
}
AXIS_FIELDS = ("low", "high", "top_speed", "acceleration", "backlash")


@dataclass(frozen=True)
class Bound:
    """A place of the plan that a card gives the value for, as JSON."""

    path: str
    copy: Copy
    field: str
    value: Any


def axis_name(card: AxisCard) -> AxisName:
    """Which axis of the move a card is."""
    return "slide" if card.motion == "linear" else card.turns


def imager_of(copies: tuple[Copy, ...]) -> Body | Phone | None:
    """The card of the camera that takes the pictures; None while there is none."""
    copy = first_of(copies, Body, Phone)
    return copy.card if copy is not None and isinstance(copy.card, Body | Phone) else None


def source_copy(copies: tuple[Copy, ...]) -> Copy | None:
    """The card of what tells the camera: a trigger, else the switch that a print head meets."""
    return first_of(copies, Trigger) or first_of(copies, HeadSwitch)


def source_of(copies: tuple[Copy, ...]) -> Trigger | None:
    """What tells the camera; a switch that a print head meets is one like any other that is pressed."""
    found = source_copy(copies)
    if found is None:
        return None
    return found.card if isinstance(found.card, Trigger) else _pressed(found.card)


@lru_cache(maxsize=16)
def _pressed(card: AnyCard) -> Trigger:
    assert isinstance(card, HeadSwitch)
    return Trigger(
        name=card.name, source="switch", coupling="switch", half_press=False, socket="none", mass_g=card.mass_g,
        shortest_s=None, step_s=None, polling_s=None, presses=card.presses,
    )  # fmt: skip


def one_aperture(plan: Plan) -> bool:
    """Whether the camera has one aperture that nobody can change."""
    camera = imager_of(plan.kit.copies)
    return camera is not None and camera.only_f is not None


def has_own_lens(card: AnyCard) -> bool:
    """Whether it is a camera whose lens is built in."""
    return isinstance(card, Phone) or (isinstance(card, Body) and card.focal_mm is not None)


def first_of(copies: tuple[Copy, ...], *kinds: type[AnyCard]) -> Copy | None:
    """The first copy of one of these kinds."""
    # Not `isinstance`: a checked class is slow to ask, and no kind of card is made from another.
    return next((copy for copy in copies if type(copy.card) in kinds), None)


def free_key(copies: tuple[Copy, ...], name: str) -> str:
    """A key made from a card's name that no copy has."""
    word = re.sub(r"[^a-z0-9]", "-", name.lower()).strip("-")[:30] or "part"
    taken = {copy.key for copy in copies}
    return next(key for key in (word, *(f"{word}-{n}" for n in range(2, 200))) if key not in taken)


@dataclass(frozen=True)
class Driven:
    """What drives an axis of the move: the copy, its place in the kit, and the card as far as this axis is concerned.

    `within` is where the axis stands in the card: nothing for its first, `more.0.` for a second one of a head.
    """

    copy: Copy
    index: int
    within: str
    card: AxisCard

    @property
    def path(self) -> str:
        """Where the figures of this axis stand in the plan."""
        return f"kit.copies.{self.index}.card.{self.within}".rstrip(".")

    @property
    def name(self) -> AxisName:
        """Which axis of the move it is."""
        return axis_name(self.card)


def axes_in(copies: tuple[Copy, ...]) -> Iterator[Driven]:
    """Every axis that these copies have, those of a head one after the other; two of one name where there are."""
    for index, copy in enumerate(copies):
        if type(copy.card) is AxisCard:
            for within, card in copy.card.each():
                yield Driven(copy, index, within, card)


def axis_parts(copies: tuple[Copy, ...]) -> Mapping[AxisName, Driven]:
    """What drives each axis of the move: the first part that is such an axis."""
    # A plan is asked a dozen times while it is worked out, always with the same copies: the last answer is kept.
    kept, parts = _last[0]
    if kept is not copies:
        found: dict[AxisName, Driven] = {}
        for part in axes_in(copies):
            found.setdefault(part.name, part)
        parts = {name: found[name] for name in AXIS_NAMES if name in found}
        _last[0] = (copies, parts)
    return parts


_last: list[tuple[tuple[Copy, ...], Mapping[AxisName, Driven]]] = [((), {})]


def programmed(plan: Plan) -> tuple[Axis, ...]:
    """The axes that a controller's program moves: those of steppers, and those that no card says anything of."""
    parts = axis_parts(plan.kit.copies)
    return tuple(
        axis for axis in plan.rig.axes if axis.name not in parts or parts[axis.name].card.drive.TOLD == "program"
    )


def by_hand(plan: Plan) -> tuple[Axis, ...]:
    """The axes that a hand sets to its marks; without such, those that no card says anything of."""
    parts = axis_parts(plan.kit.copies)
    named = tuple(axis for axis in plan.rig.axes if axis.name in parts and parts[axis.name].card.drive.TOLD == "hand")
    return named or tuple(axis for axis in plan.rig.axes if axis.name not in parts)


def limits_of(card: AxisCard) -> dict[str, Any]:
    """The figures of an axis as its card gives them; none of those that its drive has no use for."""
    values = {field: getattr(card, field) for field in AXIS_FIELDS}
    for field, nothing in (("top_speed", None), ("acceleration", None), ("backlash", 0.0)):
        if field not in card.drive.MINDS:
            values[field] = nothing
    return values


def bound(copies: tuple[Copy, ...], axes: tuple[Axis, ...]) -> list[Bound]:
    """Every place that these copies give a value for, in a rig with these axes."""
    return [*_camera(copies), *_timer(copies), *_settle(copies), *_axes(copies, axes)]


def as_json(value: Any) -> Any:
    """A plain value of a plan or card as it stands in its JSON: exact numbers as text."""
    return str(value) if type(value) is Fraction else value


def _bind(path: str, copy: Copy, field: str) -> Bound:
    return Bound(path, copy, field, as_json(getattr(copy.card, field)))


def _known(copy: Copy, field: str) -> bool:
    """Whether the card says anything there: what is not known is for the plan to say."""
    return getattr(copy.card, field) is not None


def _camera(copies: tuple[Copy, ...]) -> Iterator[Bound]:
    imager, lens = first_of(copies, Body, Phone), first_of(copies, Lens)
    if imager:
        yield from (_bind(path, imager, field) for path, field in _IMAGER.items() if _known(imager, field))
    clip_on = _clip_on(copies)
    seen = imager if imager and has_own_lens(imager.card) else lens
    if seen and clip_on:
        yield Bound("camera.focal_mm", clip_on, "factor", _longer(seen, clip_on))
        yield _bind("camera.corrected", clip_on, "clear")
    elif seen:
        yield _bind("camera.focal_mm", seen, "focal_mm")


def _clip_on(copies: tuple[Copy, ...]) -> Copy | None:
    """What is clipped on in front of the lens."""
    return next((one for one in copies if isinstance(one.card, Filter) and one.card.effect == "clip-on lens"), None)


def _longer(lens: Copy, clip_on: Copy) -> float:
    """The focal length behind a lens that is clipped on."""
    assert isinstance(clip_on.card, Filter) and isinstance(lens.card, Body | Phone | Lens)
    return round((lens.card.focal_mm or 0.0) * clip_on.card.factor, 3)


def _timer(copies: tuple[Copy, ...]) -> Iterator[Bound]:
    """The step in which the interval is dialled: the trigger's, else the camera's own."""
    trigger, imager = first_of(copies, Trigger), first_of(copies, Body, Phone)
    if trigger and _known(trigger, "step_s"):
        yield _bind("clip.interval_step_s", trigger, "step_s")
    elif imager and not trigger and _known(imager, "interval_step_s"):
        yield _bind("clip.interval_step_s", imager, "interval_step_s")
    if trigger and _known(trigger, "polling_s"):
        yield _bind("beat.least_margin_s", trigger, "polling_s")
    if trigger:
        yield _bind("beat.call_s", trigger, "delay_s")
    coupling = first_of(copies, Coupling)
    if coupling:
        yield _bind("beat.couple_s", coupling, "operate_s")


def _settle(copies: tuple[Copy, ...]) -> Iterator[Bound]:
    """The rig settles when its slowest axis has."""
    axes = [part for part in axes_in(copies) if "settle_s" in part.card.drive.MINDS and part.card.settle_s is not None]
    if axes:
        slowest = max(axes, key=lambda part: part.card.settle_s or 0)
        yield _bind("beat.settle_s", slowest.copy, "settle_s")


def _axes(copies: tuple[Copy, ...], axes: tuple[Axis, ...]) -> Iterator[Bound]:
    parts = axis_parts(copies)
    for number, axis in enumerate(axes):
        if axis.name not in parts:
            continue
        part = parts[axis.name]
        for field, value in limits_of(part.card).items():
            yield Bound(f"rig.axes.{number}.{field}", part.copy, f"{part.within}{field}", as_json(value))
