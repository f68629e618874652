"""The cards of a plan: which is which, and which places of the plan they give the value for."""

import re
from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction
from typing import Any

from bridle.core.plan.kit import AnyCard, AxisCard, Body, Copy, Lens, Phone, Trigger
from bridle.core.plan.rig import AXIS_NAMES, Axis, AxisName

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


def first_of(copies: tuple[Copy, ...], *kinds: type[AnyCard]) -> Copy | None:
    """The first copy of one of these kinds."""
    # Not `isinstance`: a checked class is slow to ask, and no kind of card is made from another.
    return next((copy for copy in copies if type(copy.card) in kinds), None)


def free_key(copies: tuple[Copy, ...], name: str) -> str:
    """A key made from a card's name that no copy has."""
    word = re.sub(r"[^a-z0-9]", "-", name.lower()).strip("-")[:30] or "part"
    taken = {copy.key for copy in copies}
    return next(key for key in (word, *(f"{word}-{n}" for n in range(2, 200))) if key not in taken)


def axis_copies(copies: tuple[Copy, ...]) -> dict[AxisName, Copy]:
    """The copy that each axis of the move is made from."""
    found: dict[AxisName, Copy] = {}
    for copy in copies:
        if isinstance(copy.card, AxisCard):
            found.setdefault(axis_name(copy.card), copy)
    return {name: found[name] for name in AXIS_NAMES if name in found}


def bound(copies: tuple[Copy, ...], axes: tuple[Axis, ...]) -> list[Bound]:
    """Every place that these copies give a value for, in a rig with these axes."""
    return [*_camera(copies), *_timer(copies), *_settle(copies), *_axes(copies, axes)]


def as_json(value: Any) -> Any:
    """A plain value of a plan or card as it stands in its JSON: exact numbers as text."""
    return str(value) if type(value) is Fraction else value


def _bind(path: str, copy: Copy, field: str) -> Bound:
    return Bound(path, copy, field, as_json(getattr(copy.card, field)))


def _camera(copies: tuple[Copy, ...]) -> Iterator[Bound]:
    imager, lens = first_of(copies, Body, Phone), first_of(copies, Lens)
    if imager:
        yield from (_bind(path, imager, field) for path, field in _IMAGER.items())
    if imager and isinstance(imager.card, Phone):
        yield _bind("camera.focal_mm", imager, "focal_mm")
    elif lens:
        yield _bind("camera.focal_mm", lens, "focal_mm")


def _timer(copies: tuple[Copy, ...]) -> Iterator[Bound]:
    """The step in which the interval is dialled: the trigger's, else the camera's own."""
    trigger, imager = first_of(copies, Trigger), first_of(copies, Body, Phone)
    if trigger:
        yield _bind("clip.interval_step_s", trigger, "step_s")
        yield _bind("beat.least_margin_s", trigger, "polling_s")
    elif imager:
        yield _bind("clip.interval_step_s", imager, "interval_step_s")


def _settle(copies: tuple[Copy, ...]) -> Iterator[Bound]:
    """The rig settles when its slowest axis has."""
    axes = [copy for copy in copies if isinstance(copy.card, AxisCard)]
    if axes:
        yield _bind("beat.settle_s", max(axes, key=_settles), "settle_s")


def _settles(copy: Copy) -> Fraction:
    return copy.card.settle_s if isinstance(copy.card, AxisCard) else Fraction(0)


def _axes(copies: tuple[Copy, ...], axes: tuple[Axis, ...]) -> Iterator[Bound]:
    cards = axis_copies(copies)
    for number, axis in enumerate(axes):
        if axis.name in cards:
            yield from (_bind(f"rig.axes.{number}.{field}", cards[axis.name], field) for field in AXIS_FIELDS)
