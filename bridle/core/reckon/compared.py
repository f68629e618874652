"""The three schools over the same light: what is set, and how far each frame is off."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from bridle.core.plan.document import Plan
from bridle.core.plan.light import LightSchool
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.scene import Scene
from bridle.core.reckon.settings import density_of, locked_ev, scatter_stops
from bridle.core.subjects.numbers.arrays import Floats

SCHOOLS: tuple[LightSchool, ...] = ("locked", "ramped", "automatic")
# What is less than this beyond what can be mended is float noise.
NOISE = 1e-6


@dataclass(frozen=True)
class Exposed:
    """A school over the light: the exposure value set at each frame, by how many stops it comes out too bright.

    `bright` is against the scene as it is, `off` against what is wanted (a night that looks darker); `measured` is
    false where nothing but the first frame says what is right.
    """

    school: LightSchool
    set_ev: Floats
    off: Floats
    bright: Floats
    changes: NDArray[np.int64]
    outside: NDArray[np.bool_]
    measured: bool = True


def exposed_as(shooting: Shooting, school: LightSchool) -> Exposed | None:
    """A school as it would come out; None where nobody knows the light."""
    if shooting.scene is None:
        return None
    return _locked(shooting, shooting.scene) if school == "locked" else _following(shooting, shooting.scene, school)


def _locked(shooting: Shooting, scene: Scene) -> Exposed:
    plan, density = shooting.plan, density_of(shooting.plan, shooting.frames)
    measured = bool(plan.light.proofs)
    # Without a test the exposure is taken as right for the first frame: that is when one looks.
    base = locked_ev(plan) if measured else float(scene.wanted_ev[0] - density[0])
    set_ev = base + density
    off = scene.wanted_ev - set_ev
    changes = np.flatnonzero(np.diff(density)) + 1
    return Exposed("locked", set_ev, off, scene.ev - set_ev, changes, beyond(plan, off), measured)


def _following(shooting: Shooting, scene: Scene, school: LightSchool) -> Exposed:
    ramp = shooting.ramp if school == "ramped" else shooting.automatic
    assert ramp is not None  # there is a scene
    strays = scatter_stops(shooting.frames) if school == "automatic" else np.zeros(shooting.frames)
    off = strays - ramp.leftover
    return Exposed(school, ramp.ev, off, scene.ev - ramp.ev + strays, ramp.changes, beyond(shooting.plan, off))


def beyond(plan: Plan, off: Floats) -> NDArray[np.bool_]:
    """Which frames are so much too bright or too dark that the edit cannot mend them."""
    return np.asarray((off > plan.light.over_stops + NOISE) | (off < -plan.light.under_stops - NOISE))
