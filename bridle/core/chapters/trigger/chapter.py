"""Who tells the camera, and what it cannot do."""

from bridle.core.chapters.answer import Answer, answer
from bridle.core.chapters.trigger import timer
from bridle.core.reckon.reckoning import Reckoning

KINDS = timer.KINDS


def tell(known: Reckoning) -> Answer[None]:
    """Snags of the devices that call the frames; nothing while the clip is open."""
    return answer(None, timer.findings(known.shooting) if known.shooting else ())
