"""A bracket whose exposures are all alike."""

from collections.abc import Iterator

from bridle.core.plan.edit import Edit
from bridle.core.reckon.reckoning import Shooting
from bridle.core.snag import Fix, Snag, SnagKind, slot

ALIKE = SnagKind(
    "bracket-all-alike",
    "mind",
    "clip",
    "The {count} exposures of the bracket are all alike: they lie 0 stops apart.",
    "Such a bracket gains no range; it takes time and room on the card.",
)
KINDS = (ALIKE,)
USUAL_STOPS = 2.0


def snags(shooting: Shooting) -> Iterator[Snag]:
    """Several exposures with no step between them; times that somebody has typed are as they are meant."""
    beat = shooting.plan.beat
    if beat.bracket_frames < 2 or beat.bracket_step_stops or beat.bracket_times_s:
        return
    # The exposures of a frame may differ by their lamps alone.
    if any(use.lit == "for the frame" and len(set(use.levels)) > 1 for use in shooting.plan.trigger.lamps):
        return
    one = Fix(
        label="Take one exposure a frame",
        consequence="The bracket is gone; the beat gets shorter.",
        slots={},
        edits=(Edit(path="beat.bracket_frames", value=1),),
    )
    apart = Fix(
        label="Set them {apart} apart",
        consequence="The longest one counts for the beat: it may not fit any more.",
        slots={"apart": slot(USUAL_STOPS, "stops")},
        edits=(Edit(path="beat.bracket_step_stops", value=USUAL_STOPS),),
    )
    yield ALIKE.at("beat.bracket_step_stops", {"count": slot(str(beat.bracket_frames))}, [one, apart])
