"""The print in the picture, as the page draws it."""

import numpy as np

from bridle.core.chapters.printing.state import Framed
from bridle.core.reckon.picture import kept
from bridle.core.reckon.printing_view import standing, views
from bridle.core.reckon.reckoning import Reckoning


def framed(known: Reckoning) -> Framed | None:
    """Empty bed and finished part in the picture; None while nobody knows where the part stands."""
    plan, place = known.plan, standing(known.plan, known.shooting)
    if place is None:
        return None
    seen, shown, at = views(plan, place), kept(plan), place.at
    pan, tilt, roll = (float(angle[0]) for angle in at.views)
    drawn = float(place.image[0])
    return Framed(
        lens_mm=(float(at.x[0]) - place.x, -place.y, float(at.z[0]) - place.bed),
        turned_deg=(pan, tilt, roll),
        sides=(shown.width_mm / drawn, shown.height_mm / drawn),
        first=_shares(seen.part[0]),
        last=_shares(seen.part[-1]),
        head=() if seen.head is None else _shares(seen.head[-1]),
        head_in=int(seen.head_in.sum()),
        moves=any(np.ptp(way) > 1e-9 for way in (at.x, at.z, at.pan, at.tilt, at.roll, at.focal)),
    )


def _shares(row: np.ndarray) -> tuple[float, ...]:
    """To the ten-thousandth; a thousand pictures away where a part of it is behind the lens."""
    return tuple(round(float(share), 4) if np.isfinite(share) else 1000.0 for share in row)
