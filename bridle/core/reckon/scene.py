"""How bright the scene is: sun, moon and lamps by the model, put right by the exposures that looked right."""

from dataclasses import dataclass
from functools import lru_cache
from typing import NamedTuple

import numpy as np

from bridle.core.plan.document import Plan
from bridle.core.plan.light import Proof
from bridle.core.reckon.timeline import Timeline
from bridle.core.subjects.light import dials, illuminance, sky
from bridle.core.subjects.light.dials import STEPS_A_STOP, Dial, Step
from bridle.core.subjects.numbers.arrays import Floats

# Shoots for which daylight is kept out, as their kind has it.
INDOORS = ("grow", "print")
NIGHT_DEG = 18.0
EVERY_S = 240.0
# What lies below this is as dark as no town and no moon: a scene without any light has no exposure value.
DARKEST_LX = 1e-6


class Tested(NamedTuple):
    """A test exposure against the model: what it says, and what the model wants for that moment.

    It looked right, so it is what is wanted: of a night as dark as it is to look.
    """

    ev: float
    model_ev: float

    @property
    def off(self) -> float:
        """By how many stops the scene was brighter than the model has it."""
        return self.ev - self.model_ev


@dataclass(frozen=True)
class Scene:
    """The light on the scene at some moments: heights in degrees, illuminance in lux, exposure values at ISO 100.

    `ev` renders the scene as it is; `wanted_ev` lets nights look darker. `shift_stops` is what the tests, or the offset
    where there are none, add to the model.
    """

    sun_deg: Floats
    moon_deg: Floats
    phase_deg: Floats
    sun_lx: Floats
    moon_lx: Floats
    lx: Floats
    ev: Floats
    wanted_ev: Floats
    shift_stops: float
    tested: tuple[Tested, ...]

    @property
    def misfit_stops(self) -> float | None:
        """By how far two tests contradict the model, each way; None with fewer than two."""
        if len(self.tested) < 2:
            return None
        return abs(self.tested[0].off - self.tested[1].off) / 2


def daylit(plan: Plan) -> bool:
    """Whether the sky lights the scene: as somebody has said, or as the kind of shoot has it."""
    said = plan.light.daylight
    return plan.shoot.kind not in INDOORS if said is None else said


def placed(plan: Plan) -> tuple[float, float] | None:
    """Latitude and longitude; None where the place on earth is not known."""
    place = plan.shoot.place
    if place.latitude_deg is None or place.longitude_deg is None:
        return None
    return place.latitude_deg, place.longitude_deg


class Heights(NamedTuple):
    """Altitudes of sun and moon, and the moon's phase angle, in degrees; with the light that each gives, in lux."""

    sun_deg: Floats
    moon_deg: Floats
    phase_deg: Floats
    sun_lx: Floats
    moon_lx: Floats


def scene_of(plan: Plan, times: Timeline) -> Scene | None:
    """The scene at every frame; None where nobody knows what lights it."""
    where = lit_at(plan)
    return None if where is None else _scene(plan, where, _over(*where, times))


def scene_between(plan: Plan, first_s: float, last_s: float, count: int) -> Scene | None:
    """The scene at so many moments, evenly from one Unix time to another; None where nobody knows what lights it."""
    where = lit_at(plan)
    return None if where is None else _scene(plan, where, _between(*where, first_s, last_s, count))


def scene_at(plan: Plan, at: Floats, cloud_stops: Floats | float) -> Scene | None:
    """The scene at Unix times that rise, under another cloud; None where nobody knows what lights it."""
    where = lit_at(plan)
    return None if where is None else _scene(plan, where, _heights(*where, at), cloud_stops)


def lit_at(plan: Plan) -> tuple[float, float] | None:
    """Latitude and longitude of what the sky lights; None where it does not, or nobody knows the place."""
    return placed(plan) if daylit(plan) else None


def _scene(plan: Plan, where: tuple[float, float], seen: Heights, cloud_stops: Floats | float | None = None) -> Scene:
    light, cloud = plan.light, plan.light.cloud_stops if cloud_stops is None else cloud_stops
    lx = np.maximum(illuminance.scene_lx(seen.sun_lx, seen.moon_lx, cloud, light.town_lx), DARKEST_LX)
    tested = tuple(_tested(plan, where, proof) for proof in light.proofs)
    shift = sum(one.off for one in tested) / len(tested) if tested else -light.offset_stops
    ev = illuminance.ev100(lx) + shift
    wanted = ev + light.night_stops * night_share(seen.sun_deg)
    return Scene(*seen, lx, ev, wanted, shift, tested)


def night_share(sun_deg: Floats) -> Floats:
    """How much of a night it is, from none at sunset to all of it when the sun stands at −18°."""
    return np.asarray(np.clip(-sun_deg / NIGHT_DEG, 0, 1))


def _heights(latitude: float, longitude: float, at: Floats) -> Heights:
    return _lighting(*_altitudes(latitude, longitude, at))


def _altitudes(latitude: float, longitude: float, at: Floats) -> tuple[Floats, Floats, Floats]:
    return sky.sun(latitude, longitude, at)[1], sky.moon(latitude, longitude, at)[1], sky.moon_phase_deg(at)


def _lighting(sun: Floats, moon: Floats, phase: Floats) -> Heights:
    return Heights(sun, moon, phase, illuminance.sun_lx(sun), illuminance.moon_lx(moon, phase))


@lru_cache(maxsize=2)
def _over(latitude: float, longitude: float, times: Timeline) -> Heights:
    """Over the frames of a shoot; a timeline stands in many plans of a drag.

    Where frames come thick, between moments four minutes apart: straight lines are off by 0.002° at most.
    """
    at = times.start_unix_s + times.starts_s
    count = int((at[-1] - at[0]) / EVERY_S) + 2
    if count > len(at) / 2:
        return _heights(latitude, longitude, at)
    few = np.linspace(at[0], at[-1], count)
    return _lighting(*(np.interp(at, few, values) for values in _altitudes(latitude, longitude, few)))


@lru_cache(maxsize=16)
def _between(latitude: float, longitude: float, first_s: float, last_s: float, count: int) -> Heights:
    return _heights(latitude, longitude, np.linspace(first_s, last_s, count))


@lru_cache(maxsize=64)
def _moment(latitude: float, longitude: float, at_s: float) -> Heights:
    return _heights(latitude, longitude, np.array([at_s]))


def _tested(plan: Plan, where: tuple[float, float], proof: Proof) -> Tested:
    light, seen = plan.light, _moment(*where, proof.at.timestamp())
    lx = illuminance.scene_lx(seen.sun_lx, seen.moon_lx, light.cloud_stops, light.town_lx)
    model = illuminance.ev100(np.maximum(lx, DARKEST_LX)) + light.night_stops * night_share(seen.sun_deg)
    return Tested(proof_ev(proof, light.step), float(model[0]))


def proof_ev(proof: Proof, step: Step) -> float:
    """The exposure value of a test: of what its marks really stand for, and what a filter took of it."""
    shutter, iso, aperture = proof_true(proof, step)
    return dials.ev100(shutter, iso, aperture) + proof.density_stops


def proof_true(proof: Proof, step: Step) -> tuple[float, float, float]:
    """The true shutter time, ISO and f-number of a test."""
    return (
        true_value("shutter", float(proof.shutter_s), step),
        true_value("iso", proof.iso, step),
        true_value("aperture", proof.aperture, step),
    )


def true_value(dial: Dial, said: float, step: Step) -> float:
    """What a mark really stands for; a value that is on no mark stands for itself."""
    a_stop = STEPS_A_STOP[step]
    steps = dials.nearest(dial, said, a_stop)
    on_it = abs(dials.label(dial, steps, a_stop) / said - 1) < 1e-6
    return dials.true(dial, steps, a_stop) if on_it else said
