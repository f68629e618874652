"""The kit's API: the shelf, its cards, and measuring."""

import logging
from collections.abc import Iterator
from contextlib import suppress
from typing import Any

from django.http import Http404, HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Status
from ninja.params.functions import Query
from pydantic import ValidationError

from bridle.core.asks import chain, measuring, shelf
from bridle.core.compare import compare_kit, differences
from bridle.core.lists.card import card_figures
from bridle.core.plan.edit import PathError, look
from bridle.core.plan.kit import AnyCard, AxisCard
from bridle.core.plan.places import read_at
from bridle.core.plan.shoot import ShootKind
from bridle.core.quantity import QuantityError, read
from bridle.server.errors import ChangeRefusedError, Trouble
from bridle.server.history import Content, RevisionList, history
from bridle.server.ids import MOST, PathId
from bridle.server.keeping import StaleError
from bridle.server.kit.models import CARD, KitCard, keep_card
from bridle.server.kit.schemas import (
    BrokenCard,
    CardLine,
    CardThen,
    CardTold,
    ChangeCard,
    ChangedCard,
    ComparePlan,
    KitCompared,
    MeasureLine,
    Measuring,
    NewCard,
    Readings,
    SaveCard,
    Shelf,
    StaleCard,
    TypeOnCard,
    UsedIn,
)
from bridle.server.rows import DAMAGED, UNFIT, Damaged, each, readable
from bridle.server.shoots.models import Shoot
from bridle.server.shoots.schemas import Done

LOG = logging.getLogger("bridle.kit")
CANNOT = "cannot be read: it has values that this Bridle does not know, or was written by a newer one."
FAULT = "cannot be worked out; the fault is Bridle's, and is in its log. The card itself is kept."

router = Router(tags=["kit"])


def _measures(card: AnyCard) -> list[MeasureLine]:
    return [MeasureLine.model_validate(measure, from_attributes=True) for measure in measuring.measures(card)]


def _used() -> dict[int, list[UsedIn]]:
    """The shoots that each card is in, by the copies in their plans."""
    found: dict[int, list[UsedIn]] = {}
    for pk, name, plan in Shoot.objects.filter(binned_at=None).values_list("pk", "name", "plan"):
        for card_id in dict.fromkeys(_cards_of(plan)):
            found.setdefault(card_id, []).append(UsedIn(id=pk, name=name))
    return found


def _cards_of(plan: Any) -> list[int]:
    """The cards that a kept plan took copies of, whatever else it holds."""
    try:
        return [copy["card_id"] for copy in plan["kit"]["copies"] if isinstance(copy.get("card_id"), int)]
    except (*UNFIT, AttributeError):
        return []


def line(kept: KitCard, used: dict[int, list[UsedIn]] | None = None) -> CardLine:
    """A card of the shelf as the page gets it."""
    card = kept.read()
    return CardLine(
        id=kept.pk,
        identity=kept.identity,
        version=kept.version,
        changed_at=kept.changed_at,
        binned=kept.binned_at is not None,
        card=card,
        figures=card_figures(card),
        measures=_measures(card),
        usual=shelf.usual(card),
        used_in=(_used() if used is None else used).get(kept.pk, []),
    )


@router.get("/kit", response=Shelf, operation_id="list_kit")
def list_kit(request: HttpRequest, binned: bool = False, kind: ShootKind | None = None) -> Any:
    """Every card, in the order in which they were made."""
    used, cards, broken = _used(), [], []
    for kept in each(KitCard.objects.filter(binned_at__isnull=not binned).order_by("pk")):
        if isinstance(kept, Damaged):
            broken.append(BrokenCard(id=kept.pk, name=f"Card number {kept.pk}", said=DAMAGED))
            continue
        try:
            cards.append(line(kept, used))
        except ValidationError:
            broken.append(BrokenCard(id=kept.pk, name=kept.name, said=CANNOT))
        except Exception:
            LOG.exception("card %s cannot be worked out", kept.pk)
            broken.append(BrokenCard(id=kept.pk, name=kept.name, said=FAULT))
    starters = [cards[number].id for number in chain.starters([listed.card for listed in cards], kind)]
    binned_count = KitCard.objects.filter(binned_at__isnull=False).count()
    return Shelf(cards=cards, starters=starters, usual=chain.usual_names(kind), broken=broken, in_bin=binned_count)


@router.post("/kit/usual", response={201: Shelf}, operation_id="make_usual_cards")
def make_usual_cards(request: HttpRequest, kind: ShootKind | None = None) -> Any:
    """A card of each sort that a rig to begin with needs and that does not lie on the shelf; and the shelf then."""
    shelved = [listed.card for listed in list_kit(request).cards]
    for card in chain.lacking(shelved, kind):
        keep_card(card)
    return Status(201, list_kit(request, kind=kind))


@router.post("/kit", response={201: CardLine, 422: Trouble}, operation_id="new_card")
def new_card(request: HttpRequest, asked: NewCard) -> Any:
    """A new card with sensible defaults."""
    return Status(201, line(keep_card(shelf.made(asked.like, asked.name))))


@router.put("/kit/{int:card_id}", response={200: CardLine, 409: StaleCard, 422: Trouble}, operation_id="save_card")
def save_card(request: HttpRequest, card_id: PathId, save: SaveCard) -> Any:
    """Save a card. Refused when another window has saved in between."""
    kept = get_object_or_404(KitCard, pk=card_id)
    try:
        return line(kept.put(save.card, save.version))
    except StaleError as stale:
        assert isinstance(stale.kept, KitCard)
        said = "This card was saved from another window in the meantime. Nothing was overwritten."
        return Status(409, StaleCard(message=said, kept=line(stale.kept)))


@router.post("/kit/{int:card_id}/duplicate", response={201: CardLine}, operation_id="duplicate_card")
def duplicate_card(request: HttpRequest, card_id: PathId) -> Any:
    """A copy of a card, under a name of its own and without its measurements."""
    card = get_object_or_404(KitCard, pk=card_id).read()
    update = {"name": f"{card.name[:112]}, second", "measured": ()}
    return Status(201, line(keep_card(card.model_copy(update=update))))


@router.post("/kit/{int:card_id}/bin", response=Done, operation_id="bin_card")
def bin_card(request: HttpRequest, card_id: PathId) -> Any:
    """Put a card into the bin. Plans keep their copies."""
    get_object_or_404(KitCard, pk=card_id).to_bin()
    return Done(id=card_id)


@router.post("/kit/{int:card_id}/back", response=Done, operation_id="unbin_card")
def unbin_card(request: HttpRequest, card_id: PathId) -> Any:
    """Take a card out of the bin."""
    get_object_or_404(KitCard, pk=card_id).back()
    return Done(id=card_id)


@router.get("/kit/{int:card_id}/revisions", response=RevisionList, operation_id="list_card_revisions")
def list_revisions(request: HttpRequest, card_id: PathId, before: int | None = Query(None, ge=1, le=MOST)) -> Any:
    """What a card was before, newest first, with when and what changed."""
    return history(get_object_or_404(KitCard, pk=card_id), _changes, before)


def _changes(old: Content, new: Content) -> list[str]:
    return list(differences(*(CARD.validate_python(each["card"]) for each in (old, new))))


@router.get("/kit/{int:card_id}/revisions/{version}", response=CardThen, operation_id="look_at_card_revision")
def look_at_revision(request: HttpRequest, card_id: PathId, version: PathId) -> Any:
    """A card as it was, and how it differs from what it is now."""
    kept = get_object_or_404(KitCard, pk=card_id)
    found = kept.revisions().filter(version=version).first()
    if found is None:
        raise Http404
    card = CARD.validate_python(found.content["card"])
    said = list(differences(kept.read(), card))
    return CardThen(version=version, made_at=found.made_at, card=card, figures=card_figures(card), differences=said)


@router.post("/kit/compare", response={200: KitCompared, 422: Trouble}, operation_id="compare_kit")
def compare(request: HttpRequest, asked: ComparePlan) -> Any:
    """What has changed on the shelf since a plan took its cards, and what taking it over does."""
    ids = [copy.card_id for copy in asked.plan.kit.copies if copy.card_id and 0 < copy.card_id <= MOST]
    cards = dict(_readable(ids))
    found = [
        ChangedCard(
            key=change.key,
            name=change.name,
            differences=list(change.differences),
            effects=list(change.effects),
            copy_now=change.copy,
        )
        for change in compare_kit(asked.plan, cards)
    ]
    return KitCompared(changed=found)


def _readable(ids: list[int]) -> Iterator[tuple[int, tuple[int, AnyCard]]]:
    """Those of the cards that can be read, with their versions."""
    for kept in readable(KitCard.objects.filter(pk__in=ids, binned_at=None)):
        with suppress(ValidationError):
            yield kept.pk, (kept.version, kept.read())


@router.post("/kit/type", response={200: CardTold, 422: Trouble}, operation_id="type_on_card")
def type_on_card(request: HttpRequest, asked: TypeOnCard) -> Any:
    """Read what was typed at a place of a card. Nothing is kept."""
    try:
        card = _typed(asked)
    except (QuantityError, PathError, ValidationError) as error:
        raise ChangeRefusedError(asked.path, error) from error
    return CardTold(card=card, figures=card_figures(card), measures=_measures(card))


@router.post("/kit/change", response={200: CardTold, 422: Trouble}, operation_id="change_card")
def change_card(request: HttpRequest, asked: ChangeCard) -> Any:
    """A card after a choice, or a change of one of its tables. Nothing is kept."""
    try:
        card = shelf.changed(asked.card, asked.change)
    except (QuantityError, PathError, ValidationError) as error:
        raise ChangeRefusedError(getattr(asked.change, "path", "card"), error) from error
    return CardTold(card=card, figures=card_figures(card), measures=_measures(card))


def _typed(asked: TypeOnCard) -> AnyCard:
    data: Any = asked.card.model_dump(mode="json")
    standing = look(data, asked.path)
    way, _, last = asked.path.rpartition(".")
    parent = look(data, way) if way else data
    linear = not isinstance(asked.card, AxisCard) or asked.card.motion == "linear"
    value = read_at(asked.path, asked.text, standing, linear, asked.imperial) if asked.text.strip() else None
    parent[int(last) if isinstance(parent, list) else last] = "" if value is None and last == "note" else value
    if asked.path not in ("name", "note", *data["typed"]):
        data["typed"].append(asked.path)
    return CARD.validate_python(data)


READING_KINDS = {"s": "duration", "mm": "length", "deg": "angle", "frames": "count"}


def _read(asked: Readings) -> list[list[float]]:
    """The readings as numbers, each in the unit of its column; what cannot be read is told at its place."""
    columns = next((measure.columns for measure in measuring.measures(asked.card) if measure.key == asked.key), ())
    rows = []
    for i, row in enumerate(asked.readings):
        numbers = []
        for j, (column, text) in enumerate(zip(columns, row, strict=False)):
            try:
                numbers.append(float(read(text, READING_KINDS.get(column.unit, "number"), asked.imperial)))
            except QuantityError as error:
                raise ChangeRefusedError(f"readings.{i}.{j}", error) from error
        rows.append(numbers)
    return rows


@router.post("/kit/measure", response={200: Measuring, 422: Trouble}, operation_id="measure")
def measure(request: HttpRequest, asked: Readings) -> Any:
    """What readings say about a card, and the card as it would be. Nothing is kept."""
    readings = _read(asked)
    try:
        result = measuring.measure(asked.card, asked.key, readings, asked.read_with)
        after = measuring.applied(asked.card, asked.key, result, readings, asked.on, asked.note)
    except (ValueError, ValidationError) as error:
        raise ChangeRefusedError("readings", error) from error
    found = next(measure for measure in measuring.measures(asked.card) if measure.key == asked.key)
    return Measuring(
        value=result.value,
        mean=result.mean,
        spread=result.spread,
        unit=found.unit,
        play=result.play,
        play_unit=found.read_with[0].unit,
        accepted=result.accepted,
        verdict=result.verdict,
        odd=list(result.odd),
        figures=result.figures,
        card=after if result.accepted else None,
    )
