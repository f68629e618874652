"""Finding shoots: by the words of people, in any language, never by the words of the file format."""

import unicodedata
from collections.abc import Iterable
from typing import Any

MOST_WORDS = 8


def folded(text: str) -> str:
    """Text as it is compared: without case, accents and differences of form."""
    taken_apart = unicodedata.normalize("NFKD", text)
    return "".join(letter for letter in taken_apart if not unicodedata.combining(letter)).casefold()


def sought(plan: Any, name: str) -> str:
    """What a shoot is found by: its name, its subject, its place. Whatever the plan holds, this finds words or none."""
    shoot = plan.get("shoot") if isinstance(plan, dict) else None
    shoot = shoot if isinstance(shoot, dict) else {}
    place = shoot.get("place")
    words = (name, shoot.get("subject"), place.get("name") if isinstance(place, dict) else None)
    return folded("\n".join(word for word in words if isinstance(word, str)))


def holds(texts: Iterable[str], find: str) -> bool:
    """Whether every word that is looked for stands somewhere in the (folded) texts."""
    whole = "\n".join(texts)
    return all(word in whole for word in folded(find).split()[:MOST_WORDS])
