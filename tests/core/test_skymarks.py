"""The sun, the moon or a star as what a move follows, held against another almanac."""

import math
from unittest import TestCase

import ephem
import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from bridle.core.asks.aiming import aim
from bridle.core.evaluate import evaluate
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import apply
from bridle.core.plan.move import Keyframe
from bridle.core.reckon.reckoning import Shooting, reckon
from bridle.core.subjects.light.turning import turned
from tests.mutated import unshrunk
from tests.provoked import skyward
from tests.strategies import START

PLACE = (57.32, -6.18)
FACES = 90.0


def observer(seconds: float, latitude: float = PLACE[0]) -> ephem.Observer:
    """At the place of the shoot so many seconds after its first frame; without air, which bends."""
    here = ephem.Observer()
    here.lat, here.lon, here.pressure = math.radians(latitude), math.radians(PLACE[1]), 0
    here.date = ephem.Date(ephem.Date("1970/1/1") + (START.timestamp() + seconds) / 86_400)
    return here


def at(body: ephem.Body, seconds: float, latitude: float = PLACE[0]) -> tuple[float, float]:
    body.compute(observer(seconds, latitude))
    return math.degrees(body.az), math.degrees(body.alt)


def shooting(plan: Plan) -> Shooting:
    found = reckon(plan).shooting
    assert found is not None
    return found


class Followed(TestCase):
    def test_the_head_points_at_sun_and_moon_at_every_frame(self) -> None:
        for name, body in (("sun", ephem.Sun()), ("moon", ephem.Moon())):
            found = shooting(skyward(name))
            for frame in (0, 100, 359):
                bearing, altitude = at(body, frame * 10)
                with self.subTest(name, frame=frame):
                    self.assertAlmostEqual((found.positions["pan"][frame] + FACES - bearing + 180) % 360, 180, 1)
                    self.assertAlmostEqual(found.positions["tilt"][frame], altitude, 1)
            assert found.tracked is not None
            self.assertLess(found.tracked.error, 1e-9)
            self.assertGreater(abs(np.ptp(found.positions["pan"])), 10)

    def test_a_star_goes_on_from_where_it_stood_at_the_first_frame(self) -> None:
        found = shooting(skyward("star", bearing_deg=120, altitude_deg=30))
        self.assertAlmostEqual(found.positions["pan"][0], 30)
        self.assertAlmostEqual(found.positions["tilt"][0], 30)
        later = turned(120, 30, PLACE[0], np.array([3590.0]))
        self.assertAlmostEqual(found.positions["pan"][-1], float(later[0][0]) - FACES)
        self.assertAlmostEqual(found.positions["tilt"][-1], float(later[1][0]))

    def test_what_stands_still_stands_still(self) -> None:
        found = shooting(skyward("still", bearing_deg=120, altitude_deg=30))
        self.assertEqual((np.ptp(found.positions["pan"]), np.ptp(found.positions["tilt"])), (0, 0))
        point = shooting(skyward("moon", form="point", x_mm=500, y_mm=4000))
        self.assertEqual(np.ptp(point.positions["pan"]), 0)

    def test_each_keyframe_is_aimed_at_where_it_stands_then(self) -> None:
        plan = skyward("star", every_frame=False, bearing_deg=120, altitude_deg=30)
        three = plan.move.model_copy(update={"keyframes": (Keyframe(), Keyframe(), Keyframe())})
        plan = plan.model_copy(update={"move": three})
        after = apply(plan, aim(plan, 0, None))[0]
        every = shooting(skyward("star", bearing_deg=120, altitude_deg=30))
        for key, frame in zip(after.move.keyframes, (0, 179.5, 359), strict=True):
            wanted = [np.interp(frame, range(360), every.positions[name]) for name in ("pan", "tilt")]
            self.assertAlmostEqual(key.pan_deg, wanted[0], 1)
            self.assertAlmostEqual(key.tilt_deg, wanted[1], 1)

    def test_where_it_stands_is_drawn(self) -> None:
        view = evaluate(skyward("star", bearing_deg=357, altitude_deg=30)).view
        assert view is not None
        (one,) = view.skies
        self.assertEqual(one.index, 0)
        # Through north it goes on: no step back by a whole turn.
        self.assertLess(float(np.abs(np.diff(one.azimuth.values)).max()), 20)
        for plan in (skyward("moon", placed=False), skyward("still")):
            view = evaluate(plan).view
            assert view is not None
            self.assertEqual(view.skies, ())


class Turning(TestCase):
    @given(st.floats(-70, 71), st.floats(0, 6.28), st.floats(-1.2, 1.2), st.floats(0, 43_000))
    @unshrunk(40)
    def test_stars_stand_where_another_almanac_has_them(self, here: float, ra: float, dec: float, later: float) -> None:
        star = ephem.FixedBody()
        star._ra, star._dec, star._epoch = ra, dec, observer(0).date
        bearing, altitude = at(star, 0, here)
        wanted = at(star, later, here)
        found = turned(bearing, altitude, here, np.array([later]))
        off = ephem.separation(*(tuple(map(math.radians, one)) for one in ((found[0].item(), found[1].item()), wanted)))
        self.assertLess(math.degrees(off), 0.02)
