"""Test exposures that contradict one another."""

from collections.abc import Iterator

from bridle.core.plan.edit import Edit
from bridle.core.reckon.reckoning import Shooting
from bridle.core.snag import Fix, Snag, SnagKind, at_clock, slot

APART = SnagKind(
    "tests-disagree",
    "mind",
    "light",
    "The two test exposures contradict the model of the light by {misfit} each, one upwards and one downwards.",
    "The model knows a clear sky. Cloud that came or went between them, lamps, or a test with a filter on it: the one "
    "nearer to the frames that matter counts more.",
)
KINDS = (APART,)
MOST_STOPS = 0.5


def findings(shooting: Shooting) -> Iterator[Snag]:
    """Two tests that differ by more than the model usually does."""
    scene, proofs = shooting.scene, shooting.plan.light.proofs
    if scene is None or scene.misfit_stops is None or scene.misfit_stops <= MOST_STOPS:
        return
    times = shooting.timeline
    fixes = []
    for number, proof in enumerate(proofs):
        kept = proofs[1 - number]
        fixes.append(
            Fix(
                label="Leave out the one of {clock}",
                consequence="The curve goes through the other one alone: {by} against the model.",
                slots={
                    "clock": at_clock(proof.at.timestamp(), times.start, times.zone),
                    "by": slot(scene.tested[1 - number].off, "stops"),
                },
                edits=(Edit(path="light.proofs", value=[kept.model_dump(mode="json")]),),
            )
        )
    yield APART.at("light.proofs", {"misfit": slot(scene.misfit_stops, "stops")}, fixes)
