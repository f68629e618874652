"""The proof: the virtual printer runs a changed file; what it met is held against what was read before the change."""

from collections.abc import Callable, Sequence

from bridle.bench.source import Opened, lines
from bridle.core.subjects.prints.found import Inspection, Layer, Place
from bridle.standins.printer.model import Model
from bridle.standins.printer.proof import Due, Expected, Proof, prove
from bridle.standins.printer.virtual import Printer


def expected(
    found: Inspection, places: Sequence[tuple[Layer, Place]], still_s: float, held_s: float, idle_s: float | None = None
) -> Expected:
    """What is to be expected of the changed file, from what was read of the unchanged one."""
    end = found.total
    return Expected(
        dues=tuple(Due(layer.number, layer.z, place.sums) for layer, place in places),
        printed=end.sums if end else (0.0,) * 6,
        pushed=found.pushed,
        still_s=still_s,
        held_s=held_s,
        idle_s=idle_s,
    )


def proven(opened: Opened, model: Model, due: Expected, told: Callable[[int], None] = lambda _: None) -> Proof:
    """Run a file from its first byte and judge it."""
    return prove(Printer(model).run(lines(opened, told)), due)
