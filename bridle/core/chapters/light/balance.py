"""The minutes in which lamps and sky are equally bright."""

from collections.abc import Iterator
from datetime import UTC, datetime

import numpy as np

from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.scene import Scene

# Within a stop of one another both are seen: neither burns out nor goes under.
WITHIN_STOPS = 1.0
EVEN = Formula("sky / lamps", "light of the sky over that of the lamps, as many times")


def findings(shooting: Shooting) -> Iterator[Figure]:
    """From when to when sky and lamps lie within a stop of one another, where they do in this shoot."""
    scene, town = shooting.scene, shooting.plan.light.town_lx
    if scene is None or not town:
        return
    sky = sky_lx(scene, shooting.plan.light.cloud_stops)
    even = np.flatnonzero(np.abs(np.log2(sky / town)) <= WITHIN_STOPS)
    if not len(even):
        return
    for name, frame in (("from", int(even[0])), ("to", int(even[-1]))):
        at = datetime.fromtimestamp(shooting.timeline.unix_s(frame), UTC)
        terms = term("sky", f"sky at frame {frame + 1}", float(sky[frame]), "lx"), term("lamps", "lamps", town, "lx")
        ratio = float(sky[frame]) / town
        yield figure(f"light.even.{name}.ratio", f"sky over lamps at frame {frame + 1}", ratio, "times", EVEN, *terms)
        rule = Formula("frame", "the first and the last frame within a stop")
        label = f"lamps and sky balance, {name}"
        clock = at.timestamp()
        yield figure(f"light.even.{name}", label, clock, "instant", rule, term("frame", label, clock, "instant"))


def sky_lx(scene: Scene, cloud_stops: float) -> np.ndarray:
    """What sun and moon give through the cloud, in lux."""
    return np.asarray((scene.sun_lx + scene.moon_lx) * 2.0**-cloud_stops)
