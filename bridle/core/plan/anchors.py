"""An hour that the sky gives: so long before or after something that happens there, as people write it."""

import re
from fractions import Fraction
from typing import Annotated, Literal

from pydantic import Field

from bridle.core.quantity import LONGEST_TEXT, QuantityError, read, write, write_number
from bridle.core.values import Rational, Section, bounded

Happening = Literal[
    "sunrise", "sunset", "civil dawn", "civil dusk", "nautical dawn", "nautical dusk", "astronomical dawn",
    "astronomical dusk", "moonrise", "moonset", "sun up", "sun down", "moon up", "moon down",
]  # fmt: skip
HAPPENINGS: tuple[Happening, ...] = (
    "sunrise", "sunset", "civil dawn", "civil dusk", "nautical dawn", "nautical dusk", "astronomical dawn",
    "astronomical dusk", "moonrise", "moonset",
)  # fmt: skip
EXPECTED = "a time such as 21:40, 40 min before sunset, nautical dusk, or when the moon is 10° up"
FARTHEST_S = 43_200


class Anchor(Section):
    """So many seconds after something in the sky (before it where negative).

    `sun up` and `moon up` are the rising body at an altitude in degrees, `sun down` and `moon down` the sinking one.
    """

    to: Happening
    offset_s: Annotated[Rational, bounded(-FARTHEST_S, FARTHEST_S, "a time before or after")] = Fraction(0)
    altitude_deg: Annotated[float, Field(ge=-60, le=90, allow_inf_nan=False)] = 0.0

    @property
    def words(self) -> str:
        """As it is said: `40 min before sunset`."""
        if self.offset_s:
            return f"{write(abs(self.offset_s), 's')} {'before' if self.offset_s < 0 else 'after'} {self.event}"
        return self.event

    @property
    def event(self) -> str:
        """What it is tied to, alone."""
        body, _, way = self.to.partition(" ")
        if way not in ("up", "down"):
            return self.to
        height = f"{write_number(self.altitude_deg)}°"
        return f"the {body} {height} up" if way == "up" else f"the {body} sunk to {height}"


_ANGLE = r"(-?\d+(?:[.,]\d+)?) ?(?:°|deg(?:rees)?)?"
_WAY = r"(up|rising|high|down|setting|sinking)"
_BODY = re.compile(rf"(?:when )?(?:the )?(sun|moon) (?:is |stands )?(?:at )?{_ANGLE} ?{_WAY}?")
_SUNK = re.compile(rf"(?:when )?(?:the )?(sun|moon) (?:has )?(?:sunk|sinks|down|sets) to {_ANGLE}")
_OTHER_WORDS = {"dusk": "civil dusk", "dawn": "civil dawn", "sun sets": "sunset", "sun rises": "sunrise",
                "moon sets": "moonset", "moon rises": "moonrise", "end of nautical twilight": "nautical dusk",
                "astronomical night": "astronomical dusk", "night": "astronomical dusk"}  # fmt: skip


def read_anchor(text: str) -> Anchor:
    """Read an hour that the sky gives. Raises `QuantityError`."""
    body = " ".join(text.lower().replace("−", "-").replace("–", "-").split())
    body = re.sub(r"^(?:until|till|at|from) ", "", body)
    try:
        found = re.fullmatch(r"(.+?) (before|after) (?:the )?(.+)", body)
        if found is None:
            return _event(body, Fraction(0))
        seconds = read(found[1], "shoot")
        return _event(found[3], -seconds if found[2] == "before" else seconds)
    except ValueError as error:
        raise QuantityError(text.strip()[:LONGEST_TEXT], EXPECTED) from error


def _event(body: str, offset_s: Fraction) -> Anchor:
    body = re.sub(r"^the (?=.*(dusk|dawn|set|rise|night))", "", body)
    name = _OTHER_WORDS.get(body, body)
    for happening in HAPPENINGS:
        if name == happening:
            return Anchor(to=happening, offset_s=offset_s)
    sunk = _SUNK.fullmatch(body)
    if sunk is not None:
        return Anchor.model_validate({"to": f"{sunk[1]} down", "offset_s": offset_s, "altitude_deg": _number(sunk[2])})
    found = _BODY.fullmatch(body)
    if found is None:
        raise ValueError(body)
    way = "down" if found[3] in ("down", "setting", "sinking") else "up"
    return Anchor.model_validate({"to": f"{found[1]} {way}", "offset_s": offset_s, "altitude_deg": _number(found[2])})


def _number(text: str) -> float:
    return float(text.replace(",", "."))
