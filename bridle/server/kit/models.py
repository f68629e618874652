"""A card of the kit as it is kept."""

from typing import Any, ClassVar

from django.db import models
from pydantic import TypeAdapter

from bridle.core.plan.kit import AnyCard, Card
from bridle.server.house.models import new_identity
from bridle.server.keeping import Kept
from bridle.server.rows import KeptJSON

CARD: TypeAdapter[AnyCard] = TypeAdapter(Card)


class KitCard(Kept):
    """One thing that somebody owns. Name and kind are copies for finding; `demo` names the demo card, if any.

    `identity` is the card's own, whatever its number.
    """

    name = models.CharField(max_length=120)
    kind = models.CharField(max_length=20)
    card = KeptJSON()
    demo = models.CharField(max_length=60, blank=True, default="")
    identity = models.CharField(max_length=40, default=new_identity, editable=False)
    CONTENT: ClassVar[tuple[str, ...]] = ("name", "kind", "card")

    def read(self) -> AnyCard:
        """The card as a typed value."""
        return CARD.validate_python(self.card)

    def put(self, card: AnyCard, version: int) -> "KitCard":
        """Save a card made from a version. Raises `StaleError`."""
        return self.save_from(version, name=card.name, kind=card.kind, card=card.model_dump(mode="json"))


def keep_card(card: AnyCard, demo: str = "") -> KitCard:
    """Keep a new card."""
    data: Any = card.model_dump(mode="json")
    return KitCard.objects.create(name=card.name, kind=card.kind, card=data, demo=demo)
