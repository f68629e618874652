"""The rig as it stands: every part of the chain in its place, from the ground to the camera, seen from the side."""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property

from bridle.core.plan.cards import Joined
from bridle.core.plan.document import Plan
from bridle.core.plan.kit import AxisCard, Body, Copy, Lens, Mount, Phone, Support
from bridle.core.plan.outdoors import Box
from bridle.core.plan.wired import Battery, Trigger
from bridle.core.subjects.strength.mounting import Body as Mass
from bridle.core.subjects.strength.mounting import centre_of_mass

SUPPORT_INSET = 0.05
# How wide a table or the ground is drawn.
TABLE_MM = 900.0


@dataclass(frozen=True)
class Placed:
    """A part in its place: `x` is its middle, from the first support along the rail; `y` its foot above the ground, mm.

    `rides` is true for what the carriage carries; its place is that of the carriage at the start of the move.
    """

    index: int
    copy: Copy
    x_mm: float
    y_mm: float
    width_mm: float
    height_mm: float
    mass_g: float
    rides: bool


@dataclass(frozen=True)
class Stack:
    """All parts, and the rail where there is one. `reach` is where the carriage stands at a slide position."""

    parts: tuple[Placed, ...]
    supports: tuple[Placed, ...]
    rail: Placed | None
    rail_mm: float
    ends_mm: tuple[float, float]
    spare_mm: float = 0.0

    @property
    def base(self) -> Support | None:
        """The card of the first support."""
        card = self.supports[0].copy.card if self.supports else None
        return card if isinstance(card, Support) else None

    def carriage_x(self, slide_mm: float, low_mm: float) -> float:
        """Where the middle of the carriage stands, from the first support along the rail."""
        return self.ends_mm[0] + slide_mm - low_mm

    def bodies(self, carriage_x: float) -> list[Mass]:
        """Every mass with the carriage at a place."""
        shift = carriage_x - self.ends_mm[0]
        return [
            Mass(part.mass_g, part.x_mm + (shift if part.rides else 0.0), part.y_mm + part.height_mm / 2)
            for part in (*self.supports, *self.parts)
        ]

    @cached_property
    def riding_g(self) -> float:
        """The mass of the carriage and of all it carries."""
        return sum(part.mass_g for part in self.parts if part.rides)

    @cached_property
    def _at_low_end(self) -> Mass:
        return centre_of_mass(self.bodies(self.ends_mm[0]))

    def centre(self, carriage_x: float) -> Mass:
        """The centre of mass of everything with the carriage at a place."""
        whole = self._at_low_end
        shift = (carriage_x - self.ends_mm[0]) * self.riding_g / whole.mass_g if whole.mass_g else 0.0
        return Mass(whole.mass_g, whole.x_mm + shift, whole.y_mm)

    def above(self, index: int) -> float:
        """The mass of everything above a part, in grams."""
        if any(part.index == index for part in self.supports):
            return sum(part.mass_g for part in self.parts)
        places = [place for place, part in enumerate(self.parts) if part.index == index]
        return sum(part.mass_g for part in self.parts[places[-1] + 1 :]) if places else 0.0


def chain(plan: Plan) -> list[tuple[int, Copy]]:
    """The copies that join one another, from the ground to the camera, with their place in the kit; one support."""
    joined = [(i, copy) for i, copy in enumerate(plan.kit.copies) if isinstance(copy.card, Joined)]
    first = next((pair for pair in joined if isinstance(pair[1].card, Support)), None)
    rest = [pair for pair in joined if not isinstance(pair[1].card, Support)]
    return ([first] if first else []) + rest


def rail_of(plan: Plan) -> AxisCard | None:
    """The card of the rail that the slide is made from."""
    cards = (copy.card for copy in plan.kit.copies)
    return next((card for card in cards if isinstance(card, AxisCard) and card.motion == "linear"), None)


def rail_length(card: AxisCard) -> float:
    """The length of a rail; what its travel needs where nobody has said."""
    return card.length_mm or card.high - card.low + card.carriage_mm + 2 * card.end_margin_mm


def stack(plan: Plan) -> Stack:
    """Put the chain together. A second support stands under the other end of the rail."""
    links, rail = chain(plan), rail_of(plan)
    copies = [copy for copy in plan.kit.copies if isinstance(copy.card, Support)]
    length = rail_length(rail) if rail else 0.0
    several = len(copies) > 1 and rail is not None
    share = SUPPORT_INSET if several else plan.rig.standing.rail_at
    first_x = -share * length
    low_end = first_x + (rail.end_margin_mm + rail.carriage_mm / 2 if rail else 0.0)
    travel = (rail.high - rail.low) if rail else 0.0
    parts = tuple(_pile(plan, links, rail, first_x, low_end))
    supports = tuple(_supports(plan, copies, length))
    on_rail = next((part for part in parts if part.copy.card is rail and not part.rides), None)
    return Stack(parts, supports, on_rail, length, (low_end, low_end + travel))


def _supports(plan: Plan, copies: list[Copy], length: float) -> Iterator[Placed]:
    span = (1 - 2 * SUPPORT_INSET) * length
    gaps = max(1, len(copies) - 1)
    for number, copy in enumerate(copies):
        card = copy.card
        assert isinstance(card, Support)
        x = number * span / gaps
        index = plan.kit.copies.index(copy)
        wide = {"tripod": 2 * card.feet_radius_mm, "table": TABLE_MM, "ground": TABLE_MM}.get(card.form, card.width_mm)
        height = 0.0 if card.form == "ground" else card.height_mm
        yield Placed(index, copy, x, 0.0, wide, height, card.mass_g, False)


def _is_support(copy: Copy) -> bool:
    return isinstance(copy.card, Support)


def _pile(
    plan: Plan, links: list[tuple[int, Copy]], rail: AxisCard | None, first_x: float, low_end: float
) -> Iterator[Placed]:
    y = next((placed.height_mm for placed in _supports(plan, [c for _, c in links if _is_support(c)], 0.0)), 0.0)
    x, rides = 0.0, False
    for index, copy in links:
        card = copy.card
        if isinstance(card, Support) or not isinstance(card, Joined):
            continue
        if card is rail:
            body = card.height_mm / 2
            yield Placed(
                index,
                copy,
                first_x + rail_length(card) / 2,
                y,
                rail_length(card),
                body,
                card.mass_g - card.carriage_g,
                False,
            )
            x, rides = low_end, True
            yield Placed(index, copy, x, y + body, card.carriage_mm, body, card.carriage_g, True)
        else:
            besides = _lens_mass(plan) if isinstance(card, Body | Phone) else 0.0
            besides += _inside(plan, card) if isinstance(card, Box) else 0.0
            wide, tall = (card.wide_mm, card.tall_mm) if isinstance(card, Box) else (card.width_mm, card.height_mm)
            offset = card.offset_mm if isinstance(card, Mount) else 0.0
            yield Placed(index, copy, x + offset, y, wide, tall, card.mass_g + besides, rides)
            x += offset
        y += card.height_mm


def _inside(plan: Plan, box: Box) -> float:
    """What is in a box besides the camera: what fires, and the battery where it is said to stand there."""
    kinds = (Trigger, Battery) if box.holds_battery else (Trigger,)
    return sum(copy.card.mass_g for copy in plan.kit.copies if isinstance(copy.card, kinds))


def _lens_mass(plan: Plan) -> float:
    return sum(copy.card.mass_g for copy in plan.kit.copies if isinstance(copy.card, Lens))
