"""What has changed on the shelf since a plan took its cards, and what taking it over does to the plan."""

import re
from dataclasses import dataclass

from bridle.core.asks.fitting import fit
from bridle.core.asks.shelf import DRIVE
from bridle.core.evaluate import evaluate
from bridle.core.evaluation import Evaluation
from bridle.core.lists.sides import in_words
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import apply
from bridle.core.plan.kit import AnyCard, AxisCard, Copy
from bridle.core.quantity import write
from bridle.core.snag import fill

# The figures that people ask about first.
ASKED = (
    "clip.frames",
    "clip.interval",
    "time.finish",
    "beat.shortest",
    "beat.spare",
    "beat.smear",
    "rig.nod",
    "rig.roll",
)


@dataclass(frozen=True)
class ChangedCopy:
    """A copy whose card has changed: how, what it does to the plan, and the copy to take instead."""

    key: str
    name: str
    differences: tuple[str, ...]
    effects: tuple[str, ...]
    copy: Copy


def compare_kit(plan: Plan, cards: dict[int, tuple[int, AnyCard]]) -> list[ChangedCopy]:
    """The copies of a plan whose cards (by id, with their version) have come to say something else."""
    before: Evaluation | None = None
    found = []
    for copy in plan.kit.copies:
        version, card = cards.get(copy.card_id or 0, (0, copy.card))
        # Where the card is as it was copied, it is the plan that says something else, and means to.
        if version <= copy.version or card == copy.card or card.kind != copy.card.kind:
            continue
        before = before or evaluate(plan)
        now = Copy(key=copy.key, card_id=copy.card_id, version=version, card=card)
        copies = tuple(now if one.key == copy.key else one for one in plan.kit.copies)
        after = evaluate(apply(plan, fit(plan, copies))[0])
        zone = plan.shoot.place.zone
        found.append(ChangedCopy(copy.key, card.name, differences(copy.card, card), _effects(before, after, zone), now))
    return found


def differences(old: AnyCard, new: AnyCard) -> tuple[str, ...]:
    """In words, each figure that differs, as `writes in 2.6 s instead of 2.2 s`; what was measured when is none."""
    was, now = (card.model_dump(mode="json", exclude={"measured", "typed"}) for card in (old, new))
    linear = not isinstance(new, AxisCard) or new.motion == "linear"
    said = [
        _another_drive(path, was_value, now_value)
        if _is_drive(path, was_value) and _is_drive(path, now_value)
        else _of_axis(path) + in_words(FURTHER.sub("", path), was_value, now_value, linear)
        for path, was_value, now_value in _flat(was, now, "")
    ]
    return tuple(said) if said else ("it was measured again, with the same result",)


def _flat(was: object, now: object, path: str) -> list[tuple[str, object, object]]:
    # Of a drive of another kind no figure means the same.
    other = _is_drive(path, was) and _is_drive(path, now) and _kind(was) != _kind(now)
    if isinstance(was, dict) and isinstance(now, dict) and not other:
        keys = [*was, *(key for key in now if key not in was)]
        return [one for key in keys for one in _flat(was.get(key), now.get(key), f"{path}.{key}" if path else key)]
    if isinstance(was, list) and isinstance(now, list) and len(was) == len(now):
        return [part for n, pair in enumerate(zip(was, now, strict=True)) for part in _flat(*pair, f"{path}.{n}")]
    return [] if was == now else [(path, was, now)]


# A figure of a further axis of a head.
FURTHER = re.compile(r"^more\.(\d+)\.")


def _of_axis(path: str) -> str:
    found = FURTHER.match(path)
    return f"axis {int(found[1]) + 2}: " if found else ""


def _is_drive(path: str, value: object) -> bool:
    return path.endswith("drive") and isinstance(value, dict)


def _kind(drive: object) -> str:
    return str(drive["kind"]) if isinstance(drive, dict) else ""


def _another_drive(path: str, was: object, now: object) -> str:
    names = (DRIVE.validate_python({"kind": _kind(one)}).SHELF for one in (now, was))
    which = "the drive" if path == "drive" else "the drive of a further axis"
    return f"{which} is now {' instead of '.join(names)}"


def _effects(before: Evaluation, after: Evaluation, zone: str) -> tuple[str, ...]:
    said = []
    for key in ASKED:
        was, now = before.figures.get(key), after.figures.get(key)
        if was and now and write(was.value, was.unit, zone) != write(now.value, now.unit, zone):
            figures = f"{write(now.value, now.unit, zone)} instead of {write(was.value, was.unit, zone)}"
            said.append(f"{was.label.capitalize()}: {figures}.")
    was_snags, now_snags = ({(s.code, s.path): s for s in told.snags} for told in (before, after))
    for place, snag in now_snags.items():
        if place not in was_snags:
            said.append(f"A new snag: {fill(snag.what, snag.slots, zone)}")
    for place, snag in was_snags.items():
        if place not in now_snags:
            said.append(f"No longer: {fill(snag.what, snag.slots, zone)}")
    return tuple(said)
