"""The proof: the virtual printer runs a changed file; what it met is held against what was read before the change."""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import replace

from bridle.bench.source import Opened, as_it_is
from bridle.core.subjects.prints.found import Inspection, Layer, Place
from bridle.standins.printer.alone import Alone
from bridle.standins.printer.beside import Beside
from bridle.standins.printer.model import Model
from bridle.standins.printer.obstacles import Obstacles, Round
from bridle.standins.printer.proof import Due, Expected, Proof, Told, prove
from bridle.standins.printer.virtual import Printer

# So much further the print has gone on.
PASSED_MM = 0.002


def expected(
    found: Inspection,
    places: Sequence[tuple[Layer, Place]],
    still_s: float,
    held_s: float,
    idle_s: float | None = None,
    least_s: float = 0.0,
    switch: Iterable[Told] = (),
) -> Expected:
    """What is to be expected of the changed file, from what was read of the unchanged one.

    `switch` is what somebody says of it before and after the print.
    """
    return Expected(
        dues=tuple(Due(layer.number, layer.z, place.sums[0]) for layer, place in places),
        layers=tuple((layer.number, layer.end.sums[0]) for layer in found.layers),
        first=found.layers[0].end.sums[0] - found.layers[0].filament if found.layers else 0.0,
        still_s=still_s,
        least_s=least_s,
        held_s=held_s,
        idle_s=idle_s,
        told=frozenset(switch),
    )


def proven(
    opened: Opened,
    model: Model,
    due: Expected,
    original: Iterable[bytes] | None,
    told: Callable[[int], None] = lambda _: None,
    rounds: Sequence[Round] = (),
) -> Proof:
    """Run a file from its first byte, beside its original, in pieces, where there is one, and judge it.

    `rounds` are other ways that its stops could take, which are tried along with it.
    """
    printer = Printer(model, dues=[one.printed + PASSED_MM for one in due.dues])
    printer.early, obstacles = due.first, Obstacles(printer, rounds)
    if original is None:
        return prove(Alone(printer, obstacles).run(as_it_is(opened, told)), due, None)
    beside = Beside(printer, obstacles)
    log = beside.run(as_it_is(opened, told), original)
    return replace(prove(log, due, beside.told), free=obstacles.free)
