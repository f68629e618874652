"""Where the frames of a long run go: how much a picture takes, how many a card holds, what the shutter wears."""

from dataclasses import dataclass

from bridle.core.plan.document import Plan
from bridle.core.plan.kit import Body, StorageCard
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.season.draws import pictures_a_frame
from bridle.core.reckon.season.hours import Hours

# A picture as the camera took it, compressed without loss: bytes a pixel, between 1.1 and 1.6 for most bodies.
USUAL_BYTES = 1.3
MB_A_GB = 1000


@dataclass(frozen=True)
class Stored:
    """Megabytes of a frame (`weighed` or estimated), and how many frames a card holds (None: no card in the kit).

    `card` is its place in the kit. `pictures` is how many are taken in all, those that nobody planned with them.
    """

    frame_mb: float
    weighed: bool
    a_frame: int
    pictures: int
    card: int | None
    gigabytes: float
    holds: int | None
    shutter_done: int
    shutter_rated: float | None


def frame_mb(plan: Plan) -> tuple[float, bool]:
    """Megabytes of a picture, and whether somebody has weighed one."""
    said = plan.season.storing.frame_mb
    if said is not None:
        return said, True
    return plan.camera.picture_width_px * plan.camera.picture_height_px * USUAL_BYTES / 1e6, False


def stored(shooting: Shooting, hours: Hours) -> Stored:
    """What the frames of a shoot come to on a card."""
    plan = shooting.plan
    picture, weighed = frame_mb(plan)
    each = pictures_a_frame(shooting)
    at = next((n for n, copy in enumerate(plan.kit.copies) if isinstance(copy.card, StorageCard)), None)
    card = plan.kit.copies[at].card if at is not None else None
    size = card.gigabytes if isinstance(card, StorageCard) else 0.0
    room = size * MB_A_GB * (1 - float(plan.season.storing.reserve))
    body = next((copy.card for copy in plan.kit.copies if isinstance(copy.card, Body)), None)
    return Stored(
        frame_mb=picture * each,
        weighed=weighed,
        a_frame=each,
        pictures=len(hours.starts_s) * each,
        card=at,
        gigabytes=size,
        holds=int(room // (picture * each)) if at is not None else None,
        shutter_done=body.shutter_done if body else 0,
        shutter_rated=body.shutter_rated if body else None,
    )
