"""Older plans made into today's: one pure function a version, on plain JSON values.

Which figures a plan has otherwise than when it was written stands in changed.py.
"""

from collections.abc import Callable
from typing import Any

from bridle.core.plan.document import Plan

Data = dict[str, Any]


class UpgradeError(ValueError):
    """An older plan that has a field which its version did not know: making it newer would throw something away."""

    def __init__(self, version: int, *path: str) -> None:
        """Keep the version and the place."""
        super().__init__(f"version {version} of the plan knows no field “{'.'.join(path)}”")
        self.version = version
        self.path = path


def _from_1(data: Data) -> Data:
    """Version 2 has a clock that holds the start or the finish."""
    if not isinstance(data.get("shoot"), dict):
        return {**data, "bridle_plan": 2}
    shoot = dict(data["shoot"])
    if "clock" in shoot:
        raise UpgradeError(1, "shoot", "clock")
    clock = {"at": shoot.pop("start")} if "start" in shoot else {}
    return {**data, "bridle_plan": 2, "shoot": {**shoot, "clock": clock}}


def _from_2(data: Data) -> Data:
    """Version 3 has a row of keyframes instead of a start and an end."""
    if not isinstance(data.get("move"), dict):
        return {**data, "bridle_plan": 3}
    move = dict(data["move"])
    if "keyframes" in move:
        raise UpgradeError(2, "move", "keyframes")
    ends = [move.pop(end, {}) for end in ("start", "end")]
    return {**data, "bridle_plan": 3, "move": {**move, "keyframes": ends}}


def _from_3(data: Data) -> Data:
    """Version 4 has the frames' source beside the clip: an interval that changes is one of several."""
    if "frames" in data:
        raise UpgradeError(3, "frames")
    if not isinstance(data.get("clip"), dict):
        return {**data, "bridle_plan": 4}
    clip = dict(data["clip"])
    ramp = clip.pop("ramp", {})
    if not isinstance(ramp, dict):
        return {**data, "bridle_plan": 4, "clip": clip, "frames": ramp}
    for name in ramp.keys() - {"segments", "blend_frames"}:
        raise UpgradeError(3, "clip", "ramp", name)
    # Without segments nothing was blended: an empty ramp was an even interval.
    source = {"source": "changing", **ramp} if ramp.get("segments") else {"source": "even"}
    return {**data, "bridle_plan": 4, "clip": clip, "frames": source}


# What an axis is not asked, by the kind of its drive: a spring has no top speed, a hand no acceleration.
UNASKED = {
    "clockwork": ("top_speed", "acceleration", "backlash"),
    "rated": ("top_speed", "acceleration", "backlash"),
    "stepped": ("top_speed", "acceleration", "backlash"),
    "dial": ("top_speed", "acceleration", "backlash"),
    "hand": ("top_speed", "acceleration"),
}


def _from_4(data: Data) -> Data:
    """Version 5 has nothing where the drive of an axis has no use for a limit; what was typed over a card stays."""
    newer = {**data, "bridle_plan": 5}
    cards = _axis_cards(data)
    axes = data.get("rig", {}).get("axes") if isinstance(data.get("rig"), dict) else None
    if not cards or not isinstance(axes, list):
        return newer
    return {**newer, "rig": {**data["rig"], "axes": [_unasked(axis, cards) for axis in axes]}}


def _axis_cards(data: Data) -> dict[str, Data]:
    """The card of each axis, by its name, as far as the data has such."""
    kit = data.get("kit")
    copies = kit.get("copies") if isinstance(kit, dict) else None
    found: dict[str, Data] = {}
    for copy in copies if isinstance(copies, list) else ():
        card = copy.get("card") if isinstance(copy, dict) else None
        if isinstance(card, dict) and card.get("kind") == "axis":
            name = "slide" if card.get("motion", "linear") == "linear" else card.get("turns", "pan")
            found.setdefault(name, card)
    return found


def _unasked(axis: Any, cards: dict[str, Data]) -> Any:
    card = cards.get(str(axis.get("name"))) if isinstance(axis, dict) else None
    drive = card.get("drive") if card is not None else None
    fields = UNASKED.get(str(drive.get("kind")), ()) if isinstance(drive, dict) else ()
    nothing = {
        field: 0.0 if field == "backlash" else None
        for field in fields
        if card is not None and field in axis and axis[field] == card.get(field, axis[field])
    }
    return {**axis, **nothing}


def _from_5(data: Data) -> Data:
    """Version 6 says what lights the scene; until then everything was exposed as it was set: locked."""
    if "light" in data:
        raise UpgradeError(5, "light")
    return {**data, "bridle_plan": 6}


def _from_6(data: Data) -> Data:
    """Version 7 says how what fires is wired to the camera; until then nobody asked."""
    if "trigger" in data:
        raise UpgradeError(6, "trigger")
    return {**data, "bridle_plan": 7}


def _from_7(data: Data) -> Data:
    """Version 8 knows prints: their file, their stops; until then layers were only times."""
    if "printing" in data:
        raise UpgradeError(7, "printing")
    return {**data, "bridle_plan": 8}


def _from_8(data: Data) -> Data:
    """Version 9 has rules for its work windows; until then there was one, with hours of the clock."""
    frames = data.get("frames")
    if not isinstance(frames, dict) or frames.get("source") != "windows":
        return {**data, "bridle_plan": 9}
    for name in frames.keys() & {"rules", "off"}:
        raise UpgradeError(8, "frames", name)
    kept = dict(frames)
    rule: Data = {}
    for name, edge in (("opens_min", "opens"), ("closes_min", "closes")):
        if name in kept:
            rule[edge] = {"by": "clock", "minutes": kept.pop(name)}
    if "weekdays" in kept:
        rule["weekdays"] = kept.pop("weekdays")
    return {**data, "bridle_plan": 9, "frames": {**kept, "rules": [rule]}}


def _from_9(data: Data) -> Data:
    """Version 10 knows what a camera lives on that stays for months, and holds frames and clip in work windows too."""
    if "season" in data:
        raise UpgradeError(9, "season")
    frames, clip = data.get("frames"), data.get("clip")
    newer = {**data, "bridle_plan": 10}
    if not isinstance(frames, dict) or frames.get("source") != "windows" or not isinstance(clip, dict):
        return newer
    # Pegs of an interval that was even once counted for nothing beside windows.
    pegs = clip.get("pegs", ())
    kept = [peg for peg in pegs if not isinstance(peg, dict) or peg.get("quantity") == "rate"]
    return {**newer, "clip": {**clip, "pegs": kept}}


# What every camera was taken to have until version 11, unless somebody typed another one.
CIRCLE_MM = 0.03


def _from_10(data: Data) -> Data:
    """Version 11 takes the circle of confusion from the sensor where nobody has typed one."""
    camera = data.get("camera")
    newer = {**data, "bridle_plan": 11}
    if not isinstance(camera, dict) or camera.get("circle_mm") != CIRCLE_MM:
        return newer
    return {**newer, "camera": {name: value for name, value in camera.items() if name != "circle_mm"}}


def _from_11(data: Data) -> Data:
    """Version 12 knows that a phone has one aperture: until then it was taken to have the one of the plan."""
    kit, camera = data.get("kit"), data.get("camera")
    newer = {**data, "bridle_plan": 12}
    if not isinstance(kit, dict) or not isinstance(kit.get("copies"), list | tuple):
        return newer
    newer = _fed(newer, kit["copies"])
    aperture = camera.get("aperture", APERTURE) if isinstance(camera, dict) else APERTURE
    copies = _boxed([_with_aperture(copy, aperture) for copy in kit["copies"]])
    return {**newer, "kit": {**kit, "copies": copies}}


def _fed(data: Data, copies: Any) -> Data:
    """Until then the coil of a relay board with a driver was taken to be fed: joins of one's own say so now."""
    cards = [copy.get("card") for copy in copies if isinstance(copy, dict)]
    driven = any(
        isinstance(card, dict) and card.get("kind") == "coupling" and card.get("form") == "relay" and card.get("driver")
        for card in cards
    )
    trigger = data.get("trigger")
    if not driven or not isinstance(trigger, dict) or not isinstance(trigger.get("joins"), list | tuple):
        return data
    joins = [*trigger["joins"], {"a": "source.supply", "b": "coupling.supply"}]
    return {**data, "trigger": {**trigger, "joins": joins}}


def _boxed(copies: list[Any]) -> list[Any]:
    """A box stands in the chain now: below the camera and the plates under it, with threads that meet theirs."""
    cards: list[Data] = [_card(copy) for copy in copies]
    kinds = [card.get("kind") for card in cards]
    if "box" not in kinds or "below" in cards[kinds.index("box")]:
        return copies
    at = kinds.index("box")
    upper = next((n for n, kind in enumerate(kinds) if kind == "body" or kind == "phone"), None)
    if upper is None:
        return copies
    while upper > 0 and kinds[upper - 1] == "mount":
        upper -= 1
    stood = ("support", "axis", "mount")
    lower = next((n for n in range(upper - 1, -1, -1) if kinds[n] in stood), None)
    wants = cards[upper].get("below", "1/4-20")
    has = cards[lower].get("above", "3/8-16") if lower is not None else wants
    box = {**copies[at], "card": {**cards[at], "below": has, "above": wants}}
    rest = [copy for n, copy in enumerate(copies) if n != at]
    place = upper if at > upper else upper - 1
    return [*rest[:place], box, *rest[place:]]


def _card(copy: Any) -> Data:
    card = copy.get("card") if isinstance(copy, dict) else None
    return card if isinstance(card, dict) else {}


# What every camera was set to until version 12, unless somebody typed another one.
APERTURE = 8.0


def _with_aperture(copy: Any, aperture: Any) -> Any:
    card = copy.get("card") if isinstance(copy, dict) else None
    if not isinstance(card, dict) or card.get("kind") != "phone":
        return copy
    if "only_f" in card:
        return copy
    return {**copy, "card": {**card, "only_f": aperture}}


UPGRADES: dict[int, Callable[[Data], Data]] = {
    1: _from_1, 2: _from_2, 3: _from_3, 4: _from_4, 5: _from_5, 6: _from_6, 7: _from_7,
    8: _from_8, 9: _from_9, 10: _from_10, 11: _from_11,
}  # fmt: skip


def upgraded(data: Data) -> Data:
    """Plain data of any older version as that of today's; newer or unknown versions stay as they are."""
    while isinstance(data, dict) and isinstance(version := data.get("bridle_plan"), int) and version in UPGRADES:
        data = UPGRADES[version](data)
    return data


def plan_from(data: Data) -> Plan:
    """The plan of kept data, whatever version it was written in. Raises `UpgradeError` or a ValidationError."""
    return Plan.model_validate(upgraded(data))
