"""Cards put on the rig, and moved along the chain from the ground to the camera."""

from collections.abc import Sequence
from typing import Annotated, Literal

from pydantic import Field

from bridle.core.asks.fitting import fit
from bridle.core.asks.shelf import Like, made
from bridle.core.plan.cards import Joined
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, PathError
from bridle.core.plan.kit import AnyCard, AxisCard, Body, Card, Copy, Lens, Mount, Phone, Support
from bridle.core.plan.outdoors import Box, Panel
from bridle.core.plan.printer import HeadSwitch, Printer
from bridle.core.plan.shoot import ShootKind
from bridle.core.plan.wired import Cable, Coupling, PowerSupply, Trigger
from bridle.core.reckon.parts import axis_name, axis_parts, first_of, free_key, has_own_lens
from bridle.core.values import Section

# A rig has one of each of these: another one takes the place of the first.
ONE_OF_EACH: tuple[tuple[type[AnyCard], ...], ...] = (
    (Body, Phone), (Lens,), (Trigger,), (Cable,), (PowerSupply,), (Printer,), (HeadSwitch,),
    (Panel,), (Box,),
)  # fmt: skip

# What a rig to begin with is put together from, from the ground up: a rail, a head, or nothing that moves.
Usual = Literal["support", "rail", "head", "ball head", "body", "lens", "trigger", "printer", "head switch"]
# A tripod's screw is thicker than a camera's: a ball head stands between the two.
STILL: tuple[Usual, ...] = ("support", "ball head", "body", "lens", "trigger")
USUAL: dict[ShootKind | None, tuple[Usual, ...]] = {
    **dict.fromkeys((None, "slide", "night"), ("support", "rail", "body", "lens", "trigger")),
    "turn": ("support", "head", "body", "lens", "trigger"),
    **dict.fromkeys(("grow", "site", "video"), STILL),
    # What a print's head presses fires the camera: no trigger besides.
    "print": ("support", "ball head", "body", "lens", "printer", "head switch"),
}
MADE_LIKE: dict[Usual, Like] = {"rail": "axis", "head": "turning axis"}


class Taken(Section):
    """A card taken from the shelf, with where it lies there."""

    card_id: int | None = None
    version: Annotated[int, Field(ge=0)] = 0
    card: Card


def put(plan: Plan, cards: tuple[Taken, ...]) -> list[Edit]:
    """The edits that put cards on: supports lowest, the camera highest, the rest in the order they were taken.

    Raises `PathError` where one would be an axis that another part is already.
    """
    copies = plan.kit.copies
    for taken in cards:
        _once(taken.card, copies)
        kept = tuple(copy for copy in copies if not _replaces(taken.card, copy.card))
        copies = (*kept, Copy(key=free_key(copies, taken.card.name), **dict(taken)))
    return fit(plan, tuple(sorted(copies, key=_rank)))


def _once(card: AnyCard, copies: tuple[Copy, ...]) -> None:
    camera = first_of(copies, Body, Phone)
    if isinstance(card, Lens) and camera is not None and has_own_lens(camera.card):
        raise PathError(f"the {camera.card.name} has a lens of its own: take it off first, or put another camera on")
    standing = axis_parts(copies)
    for _, axis in card.each() if isinstance(card, AxisCard) else ():
        if there := standing.get(axis_name(axis)):
            name = there.copy.card.name
            raise PathError(f"there is a {axis_name(axis)} on the rig already, the {name}: take that off first")


def starters(shelf: Sequence[AnyCard], kind: ShootKind | None = None) -> list[int]:
    """Which cards of a shelf make a rig to begin with, by number: the first of each usual sort that lies there."""
    sorts = [_sort(card) for card in shelf]
    return [sorts.index(sort) for sort in USUAL[kind] if sort in sorts]


def lacking(shelf: Sequence[AnyCard], kind: ShootKind | None = None) -> list[AnyCard]:
    """The cards that have to be made for a rig to begin with, as nothing of their sort lies on the shelf."""
    sorts = {_sort(card) for card in shelf}
    return [made(_like(sort)) for sort in USUAL[kind] if sort not in sorts]


def usual_names(kind: ShootKind | None = None) -> list[str]:
    """What the cards of a rig to begin with are called."""
    return [made(_like(sort)).name for sort in USUAL[kind]]


def _like(sort: Usual) -> Like:
    return MADE_LIKE.get(sort, sort)  # type: ignore[arg-type]  # all others are kinds of card


def _sort(card: AnyCard) -> str:
    if isinstance(card, AxisCard):
        return "rail" if card.motion == "linear" else "head" if card.turns == "pan" else "axis"
    return "ball head" if isinstance(card, Mount) and card.form == "ball head" else card.kind


def missing(plan: Plan) -> tuple[str, ...]:
    """What a rig of this kind of shoot is still without, by what its usual cards are called; nothing without any part.

    A phone is a camera, a lens that is built in is one, anything that moves does for what moves, and what stands on a
    table or has its own thread needs no ball head.
    """
    cards = [copy.card for copy in plan.kit.copies]
    if not cards:
        return ()
    have = {_sort(card) for card in cards}
    if any(isinstance(card, Body | Phone) for card in cards):
        have |= {"body", "ball head"}
    if any(has_own_lens(card) for card in cards):
        have.add("lens")
    if any(isinstance(card, AxisCard) for card in cards):
        have |= {"rail", "head"}
    if any(isinstance(card, Printer) and card.fires != "switch" for card in cards):
        have.add("head switch")
    return tuple(made(_like(sort)).name for sort in USUAL[plan.shoot.kind] if sort not in have)


def move(plan: Plan, key: str, by: int) -> list[Edit]:
    """The edits that let a part change places with the next one up (1) or down (-1); none at either end.

    Raises `PathError` where no part of the chain has this key.
    """
    copies = list(plan.kit.copies)
    chain = [number for number, copy in enumerate(copies) if isinstance(copy.card, Joined)]
    here = next((at for at, number in enumerate(chain) if copies[number].key == key), None)
    if here is None:
        raise PathError("there is no such part on the rig")
    there = here + by
    if 0 <= there < len(chain):
        one, other = chain[here], chain[there]
        copies[one], copies[other] = copies[other], copies[one]
    return fit(plan, tuple(copies))


def _replaces(fresh: AnyCard, standing: AnyCard) -> bool:
    if isinstance(standing, Lens) and has_own_lens(fresh):
        return True
    if isinstance(fresh, Coupling) and isinstance(standing, Coupling):
        # A resistor stands in series with whatever couples.
        return (fresh.form == "resistor") == (standing.form == "resistor")
    return any(isinstance(fresh, kinds) and isinstance(standing, kinds) for kinds in ONE_OF_EACH)


def _rank(copy: Copy) -> int:
    if isinstance(copy.card, Support):
        return 0
    return 2 if isinstance(copy.card, Body | Phone) else 1
