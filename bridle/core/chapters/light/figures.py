"""The numbers of the light as figures."""

from collections.abc import Iterator

from bridle.core.chapters.light.drawn import reach
from bridle.core.figure import Figure, Formula, figure, term
from bridle.core.plan.document import Plan
from bridle.core.plan.light import Proof
from bridle.core.reckon.reckoning import Shooting
from bridle.core.reckon.scene import Scene, proof_true
from bridle.core.reckon.settings import Followed
from bridle.core.subjects.light import dials, illuminance, ramp
from bridle.core.subjects.numbers.rounding import first_peak

SHIFT = Formula("test - model", "what looked right less what the model wants for that moment")
SHIFT_MEAN = Formula("(first + second) / 2", "the mean of what both tests say beyond the model")
OFFSET = Formula("-offset", "the scene is darker than open ground by so much")
MISFIT = Formula("abs(first - second) / 2", "half of what the two tests differ by, each way")
WANTED = Formula(
    "scene + night * max(0, min(1, -sun / 18))", "a night looks darker by so much, once the sun is at −18°"
)
LIMIT = Formula(
    "log2(f_number**2 / shutter) - log2(iso / 100)", "the settings at that end of their limits, as they are"
)
COUNT = Formula("changes", "frames before which something is set anew")


def figures(shooting: Shooting) -> Iterator[Figure]:
    """Light at both ends, what the tests say, and what the ramp comes to."""
    scene = shooting.scene
    if scene is None:
        return
    for name, frame in (("first", 0), ("last", shooting.frames - 1)):
        yield from scene_figures(shooting.plan, scene, frame, f"light.{name}", f"at the {name} frame")
    yield from _tests(shooting.plan, scene)
    if shooting.followed is not None:
        yield from _ramp(shooting, shooting.followed)


def scene_figures(plan: Plan, scene: Scene, frame: int, key: str, where: str) -> Iterator[Figure]:
    """The light on the scene at a frame: in lux, and as exposure values."""
    lx = term("light", f"light on open ground {where}", float(scene.lx[frame]), "lx")
    terms = (
        term("sun", "by the sun and its sky", float(scene.sun_lx[frame]), "lx"),
        term("moon", "by the moon", float(scene.moon_lx[frame]), "lx"),
        term("cloud", "cloud takes", plan.light.cloud_stops, "stops"),
        term("town", "lamps add", plan.light.town_lx, "lx"),
    )
    yield figure(f"{key}.lx", f"light on open ground {where}", lx.value, "lx", illuminance.TOGETHER, *terms)
    rule = Formula(
        f"{illuminance.EV_OF_LX.expression} + shift", "by the model, and put right by the tests or the offset"
    )
    shift = term("shift", "put right by", scene.shift_stops, "stops")
    yield figure(f"{key}.ev", f"light of the scene {where}", float(scene.ev[frame]), "EV", rule, lx, shift)
    wanted = (
        term("scene", f"light of the scene {where}", float(scene.ev[frame]), "EV"),
        term("night", "a night looks darker by", plan.light.night_stops, "stops"),
        term("sun", f"the sun stands {where} at", float(scene.sun_deg[frame]), "deg"),
    )
    yield figure(f"{key}.wanted", f"wanted {where}", float(scene.wanted_ev[frame]), "EV", WANTED, *wanted)


def _tests(plan: Plan, scene: Scene) -> Iterator[Figure]:
    for number, (proof, tested) in enumerate(zip(plan.light.proofs, scene.tested, strict=True)):
        yield _tested(plan, proof, number, tested.ev)
        said = (
            term("test", "the test", tested.ev, "EV"),
            term("model", "what the model wants then", tested.model_ev, "EV"),
        )
        yield figure(f"light.proof.{number}.off", "brighter than the model by", tested.off, "stops", SHIFT, *said)
    offs = [one.off for one in scene.tested]
    if len(offs) == 2:
        both = term("first", "the first test", offs[0], "stops"), term("second", "the second", offs[1], "stops")
        yield figure("light.shift", "the model is put right by", scene.shift_stops, "stops", SHIFT_MEAN, *both)
        yield figure("light.misfit", "the tests differ from it by", abs(offs[0] - offs[1]) / 2, "stops", MISFIT, *both)


def _tested(plan: Plan, proof: Proof, number: int, ev: float) -> Figure:
    shutter, iso, aperture = proof_true(proof, plan.light.step)
    terms = [
        term("f_number", "aperture, as it is", aperture, "f-number"),
        term("shutter", "shutter, as it is", shutter, "s"),
        term("iso", "ISO, as it is", iso, ""),
    ]
    rule = dials.EV
    if proof.density_stops:
        rule, terms = dials.EV_ND, [*terms, term("density", "the filter takes", proof.density_stops, "stops")]
    return figure(f"light.proof.{number}", f"test {number + 1}", ev, "EV", rule, *terms)


def _ramp(shooting: Shooting, ramped: Followed) -> Iterator[Figure]:
    changes = term("changes", "frames before which something is set anew", len(ramped.changes), "")
    yield figure("light.changes", "changes of setting", len(ramped.changes), "", COUNT, changes)
    worst = first_peak(abs(ramped.leftover))
    left = float(ramped.leftover[worst])
    set_ev = float(ramped.ev[worst])
    terms = (
        term("set", f"set at frame {worst + 1}", set_ev, "EV"),
        term("wanted", f"wanted at frame {worst + 1}", set_ev - left, "EV"),
    )
    yield figure("light.leftover", f"most left for the edit, frame {worst + 1}", left, "stops", ramp.LEFTOVER, *terms)
    within = ramped.limits
    ends = (("bright", within.shutter.low, within.iso.low, within.aperture.high),
            ("dark", within.shutter.high, within.iso.high, within.aperture.low))  # fmt: skip
    for (name, shutter, iso, aperture), value in zip(ends, reach(shooting), strict=True):
        settings = (
            term("f_number", "aperture, as it is", dials.true("aperture", aperture, within.a_stop), "f-number"),
            term("shutter", "shutter, as it is", dials.true("shutter", shutter, within.a_stop), "s"),
            term("iso", "ISO, as it is", dials.true("iso", iso, within.a_stop), ""),
        )
        said = "brightest" if name == "bright" else "darkest"
        yield figure(f"light.reach.{name}", f"the {said} that the limits reach", value, "EV", LIMIT, *settings)
