"""Exposing for another time, as a fix asks for it: a bracket of the camera's own times goes along."""

from collections.abc import Iterator
from fractions import Fraction

from bridle.core.plan.beat import Beat
from bridle.core.plan.edit import Edit
from bridle.core.subjects.light import shutter


def shifted(beat: Beat, exposure: Fraction) -> tuple[Fraction, ...]:
    """The bracket's own times, each as many stops shorter or longer as the exposure; on the dial, and never longer."""
    share = float(exposure) / float(beat.exposure_s)
    return tuple(shutter.at_most(float(time) * share) or shutter.LABELS[0] for time in beat.bracket_times_s)


def bracket_said(beat: Beat) -> str:
    """What a fix that exposes for another time adds to its words, where a bracket has times of its own."""
    return " The times of the bracket change by as many stops." if beat.bracket_times_s else ""


def exposing(beat: Beat, exposure: Fraction) -> Iterator[Edit]:
    """The edits that expose for another time."""
    yield Edit(path="beat.exposure_s", value=str(exposure))
    if beat.bracket_times_s:
        yield Edit(path="beat.bracket_times_s", value=[str(time) for time in shifted(beat, exposure)])
