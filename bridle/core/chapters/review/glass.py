"""What is put in front of the lens: the filters that the exposure counts on, on the card and in the bag."""

from collections import Counter
from collections.abc import Iterator

from bridle.core.chapters.review.lines import line
from bridle.core.chapters.review.state import SettingLine
from bridle.core.plan.document import Plan
from bridle.core.plan.kit import Filter
from bridle.core.plan.light import Density
from bridle.core.quantity import write
from bridle.core.snag import slot


def filter_lines(plan: Plan) -> Iterator[SettingLine]:
    """Each filter with the frames that it is on for."""
    for one in plan.light.densities:
        yield line("filter", slot(f"{write(one.stops, 'stops')}, {_on(one)}"))


def _on(one: Density) -> str:
    if one.last_frame is not None:
        return f"on for frames {one.first_frame} to {one.last_frame}"
    return "on throughout" if one.first_frame == 1 else f"on from frame {one.first_frame}"


def filters_to_pack(plan: Plan) -> Iterator[str]:
    """Filters that the exposure counts on and that are no cards of the plan: as many of each as are on at a time."""
    owned = Counter(copy.card.stops for copy in plan.kit.copies if isinstance(copy.card, Filter))
    for stops, count in _at_a_time(plan.light.densities).items():
        missing = count - owned[stops]
        if missing > 0:
            yield f"filter of {write(stops, 'stops')}{f' ({missing})' if missing > 1 else ''}"


def _at_a_time(densities: tuple[Density, ...]) -> Counter[float]:
    """How many filters of each strength are on at the same frame, at most."""
    most: Counter[float] = Counter()
    for one in densities:
        on = [
            other
            for other in densities
            if other.stops == one.stops
            and other.first_frame <= one.first_frame
            and (other.last_frame is None or other.last_frame >= one.first_frame)
        ]
        most[one.stops] = max(most[one.stops], len(on))
    return most
