"""Light: what lights the scene, in which school it is exposed, and how the settings follow it."""

from bridle.core.chapters.answer import Answer, answer
from bridle.core.chapters.light import balance, filters, hand, helpers, proofs, running_out, schools, settable, steady
from bridle.core.chapters.light.drawn import drawn
from bridle.core.chapters.light.figures import figures
from bridle.core.chapters.light.state import LightState
from bridle.core.reckon.reckoning import Reckoning

KINDS = (*schools.KINDS, *running_out.KINDS, *hand.KINDS, *proofs.KINDS, *filters.KINDS, *settable.KINDS, *steady.KINDS)


def tell(known: Reckoning, points: int, aside: bool, whole: bool) -> Answer[LightState]:
    """The light over the shoot, `whole` or what the finder shows; only what is missing while that is not known."""
    shooting = known.shooting
    if shooting is None:
        return Answer(LightState(missing=("clip",)), [], [])
    state = shooting.ask(drawn, points, whole)
    lit = () if state.missing else (schools, running_out, hand, proofs, balance)
    told = (*lit, filters, settable, steady, helpers) if aside else ()
    numbers = () if state.missing else shooting.every(figures)
    return answer(state, [*numbers, *(one for part in told for one in shooting.every(part.findings))])
