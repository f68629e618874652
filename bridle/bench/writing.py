"""Writing the changed file and the trial."""

from collections.abc import Iterator, Sequence
from typing import Literal

from bridle.bench.source import Opened, pieces
from bridle.core.subjects.parking.insert import park
from bridle.core.subjects.parking.stop import Stand, Stop
from bridle.core.subjects.parking.trial import trial
from bridle.core.subjects.prints.found import Inspection, Layer, Place

Where = Literal["change", "infill", "end"]


def place_of(layer: Layer, where: Where, last: bool) -> Place:
    """Where in a layer its stop stands; the finished part is always whole, and a layer without infill has its end."""
    if last or where == "end" or (where == "infill" and layer.fill is None):
        return layer.end
    return layer.fill if where == "infill" and layer.fill else layer.change


def stand_at(layer: Layer, place: Place) -> Stand:
    """The place as what puts stops in wants it."""
    return Stand(
        byte=place.byte,
        layer=layer.number,
        at=place.at,
        feed=place.feed,
        absolute=place.absolute,
        absolute_e=place.absolute_e,
        inches=place.inches,
        firmware_back=place.firmware_back,
        back=place.back,
        e=place.e,
        offset=place.offset,
    )


def chosen_places(found: Inspection, chosen: Sequence[int], where: Where) -> list[tuple[Layer, Place]]:
    """The layers at which a picture is taken, each with the place of its stop."""
    last = len(found.layers)
    return [(found.layers[n - 1], place_of(found.layers[n - 1], where, n == last)) for n in chosen]


def changed(opened: Opened, found: Inspection, places: Sequence[tuple[Layer, Place]], stop: Stop) -> Iterator[bytes]:
    """The bytes of the file with its stops; whatever stops of ours it had are taken out first."""
    end = b"\r\n" if found.crlf else b"\n"
    return park(pieces(opened), [stand_at(layer, place) for layer, place in places], stop, end)


def short(opened: Opened, found: Inspection, layers: int, of: str) -> Iterator[bytes]:
    """A trial of the first layers and the file's own end; `of` is the file's digest."""
    cut, last = found.layers[min(layers, len(found.layers)) - 1], found.layers[-1]
    end = b"\r\n" if found.crlf else b"\n"
    return trial(pieces(opened), stand_at(cut, cut.end), stand_at(last, last.end), of, end)
