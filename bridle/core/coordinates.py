"""Latitude and longitude as people write them: decimal, with minutes, with seconds, with or without N, S, E and W."""

import re
from typing import NamedTuple

from bridle.core.quantity import LONGEST_TEXT, QuantityError

EXPECTED = "latitude and longitude such as 57.32 N, 6.18 W or 57°19′12″ N 6°10′48″ W or −33.9, 151.2"
LONGEST = 2 * LONGEST_TEXT
_NUMBER = r"(\d+(?:[.,]\d+)?)"
_PART = re.compile(
    rf"([NSEW])?\s*([-+])?\s*{_NUMBER}\s*(?:°|º|d(?:eg)?)?\s*(?:{_NUMBER}\s*(?:'|m(?:in)?)\s*)?(?:{_NUMBER}\s*(?:\"|s(?:ec)?)\s*)?([NSEW])?",
    re.IGNORECASE,
)
_SIGNS = {"n": 1, "e": 1, "s": -1, "w": -1}
_UPRIGHT = frozenset("ns")
# All the strokes that people, telephones and maps put for minutes and seconds.
_STROKES = str.maketrans(
    {"′": "'", "’": "'", "´": "'", "`": "'", "‘": "'", "″": '"', "”": '"', "“": '"', "−": "-", "–": "-"}
)


class Place(NamedTuple):
    """Degrees, north and east positive."""

    latitude_deg: float
    longitude_deg: float


def read_place(text: str) -> Place:
    """Read a place on earth. Raises `QuantityError`.

    Without letters the first is the latitude. A comma parts the two, or is a decimal comma where a space follows it
    nowhere.
    """
    body = " ".join(text.translate(_STROKES).replace("''", '"').split())
    if not body or len(body) > LONGEST:
        raise QuantityError(text.strip()[:LONGEST_TEXT], EXPECTED)
    for halves in _halves(body):
        parts = [_part(half) for half in halves]
        if all(part is not None for part in parts):
            found = _place(*(part for part in parts if part is not None))
            if found is not None:
                return found
    raise QuantityError(text.strip()[:LONGEST_TEXT], EXPECTED)


def _halves(body: str) -> list[tuple[str, str]]:
    """The ways in which the text may fall into two, the likeliest first."""
    cuts = [found.span() for found in re.finditer(r"\s*[,;/]\s+|\s*;\s*", body)]
    cuts += [found.span() for found in re.finditer(r"(?<=[NSEWnsew])[\s,;]*(?=[-+\d])", body)]
    cuts += [found.span() for found in re.finditer(r"\s+(?=[NSEWnsew]\s*\d)|\s+(?=[-+])", body)]
    cuts += [found.span() for found in re.finditer(r"(?<=\d),(?=[-+]?\d)|\s+", body)]
    return [
        (body[:low].strip(), body[high:].strip()) for low, high in cuts if body[:low].strip() and body[high:].strip()
    ]


def _part(text: str) -> tuple[float, str] | None:
    """Degrees and the letter (or none) of one half."""
    # Receivers leave the strokes out: 57 19.2 are minutes only where a letter says whose.
    bare = re.fullmatch(rf"([NSEW])?\s*{_NUMBER}[ °]\s*{_NUMBER}(?: {_NUMBER})?\s*([NSEW])?", text, re.IGNORECASE)
    if bare is not None and (bare[1] or bare[5]):
        seconds = f' {bare[4]}"' if bare[4] else ""
        text = f"{bare[1] or ''}{bare[2]} {bare[3]}'{seconds}{bare[5] or ''}"
    found = _PART.fullmatch(text)
    if found is None:
        return None
    before, sign, degrees, minutes, seconds, after = found.groups()
    letter = (before or after or "").lower()
    small = [float((value or "0").replace(",", ".")) for value in (minutes, seconds)]
    if (before and after) or any(value >= 60 for value in small) or (sign == "-" and letter):
        return None
    if minutes and not float(degrees.replace(",", ".")).is_integer():
        return None
    value = float(degrees.replace(",", ".")) + small[0] / 60 + small[1] / 3600
    return value * (-1 if sign == "-" else 1) * _SIGNS.get(letter, 1), letter


def _place(one: tuple[float, str], other: tuple[float, str]) -> Place | None:
    """Which of both is the latitude; none where both are, or where one is beyond the earth."""
    (first, letter), (second, follows) = one, other
    if letter and follows and (letter in _UPRIGHT) == (follows in _UPRIGHT):
        return None
    turned = letter not in _UPRIGHT if letter else follows in _UPRIGHT if follows else False
    latitude, longitude = (second, first) if turned else (first, second)
    return Place(latitude, longitude) if abs(latitude) <= 90 and abs(longitude) <= 180 else None
