"""What can be set on a camera and what cannot: told on the card, asked of a ramp; a screwed-out lens; stars."""

import math
from fractions import Fraction as F
from typing import Any
from unittest import TestCase

import numpy as np
from hypothesis import assume, given
from hypothesis import strategies as st

from bridle.core.asks.changes import SetValue, TypeText, make
from bridle.core.asks.shelf import made
from bridle.core.evaluate import evaluate
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, PathError, apply
from bridle.core.plan.light import StarsIn
from bridle.core.plan.move import Keyframe, Move
from bridle.core.quantity import write
from bridle.core.reckon.starfield import SHARE, fastest
from bridle.core.subjects.light import trails
from bridle.core.subjects.optics import projecting
from tests.core.test_ready import on_the_rig, ready
from tests.provoked import dusk
from tests.strategies import CARDS, copies, fitted, plan_of

THREE = {"rate": F(25), "shoot": F(3600), "interval": F(10)}


def on_card(plan: Plan) -> dict[str, str]:
    """The lines of the camera on the field card, as they are printed."""
    (sheet,) = (one for one in evaluate(plan).review.sheets if one.title == "Camera")
    return {
        row.label: row.value.value if isinstance(row.value.value, str) else write(row.value.value, row.value.unit)
        for row in sheet.settings
    }


def with_phone(school: str = "locked", **card: Any) -> Plan:
    plan = fitted(plan_of(THREE, light={"school": school}), copies("phone", phone=card))
    return plan


class OnTheCard(TestCase):
    def test_what_cannot_be_set_says_so_and_what_is_not_known_too(self) -> None:
        unknown = dict.fromkeys(("manual", "raw", "holds_white", "holds_focus", "stabiliser"), "not known")
        refused = {"manual": "no", "raw": "no", "holds_white": "no", "holds_focus": "no", "stabiliser": "always on"}
        cases: tuple[tuple[str, dict[str, Any], dict[str, str]], ...] = (
            ("all of it can be set", {}, {
                "mode": "manual, raw files", "aperture": "f/2, the only one it has",
                "focus": "manual, stabiliser off", "white balance": "fixed", "shutter": "1/60 s", "ISO": "100"}),
            ("nobody knows", unknown, {
                "mode": "manual if it has that; else exposed by itself, then locked once it looks right, "
                        "raw files if it writes them",
                "focus": "manual, if that can be done, stabiliser off, if it has one",
                "white balance": "fixed, if that can be done", "shutter": "1/60 s"}),
            ("nothing can", refused, {
                "mode": "exposed by itself, then locked once it looks right, its best picture files",
                "focus": "cannot be fixed, its stabiliser stays on", "white balance": "cannot be fixed",
                "shutter": "about 1/60 s", "ISO": "about 100"}),
            ("it has no stabiliser", {"stabiliser": "none"}, {"focus": "manual"}),
        )  # fmt: skip
        for name, card, lines in cases:
            with self.subTest(name):
                self.assertEqual(on_card(with_phone(**card)), on_card(with_phone(**card)) | lines)
        self.assertEqual(on_card(with_phone("automatic"))["mode"], "exposed by itself, raw files")
        self.assertNotIn("shutter", on_card(with_phone("automatic")))

    def test_a_figure_that_nobody_typed_is_marked_until_somebody_has(self) -> None:
        plain = made("phone").model_dump(mode="json")
        usual = "as is usual; not checked on this one"
        for typed, marked in (((), True), (("only_f", "focal_mm"), False)):
            lines = on_card(fitted(plan_of(THREE), [{"key": "phone", "card": {**plain, "typed": list(typed)}}]))
            for label in ("aperture", "focal length"):
                with self.subTest(label=label, typed=typed):
                    self.assertEqual(usual in lines[label], marked)

    def test_a_body_whose_settings_all_stand_has_its_card_as_before(self) -> None:
        lines = on_card(on_the_rig("tripod", "full-frame-body"))
        self.assertEqual(lines["mode"], "manual, raw files")
        self.assertEqual(lines["aperture"], "f/8")


class AskedOfIt(TestCase):
    def test_readiness_names_what_nobody_has_tried_unless_the_camera_is_left_to_itself(self) -> None:
        name = CARDS["phone"]["name"]
        manual, held = f"whether “{name}” has a manual mode", f"whether “{name}” holds its exposure and focus"
        cases: tuple[tuple[dict[str, Any], set[str]], ...] = (
            ({"manual": "not known"}, {manual}),
            ({"holds_exposure": "not known", "holds_focus": "not known"}, {held}),
            ({}, set()),
        )
        for card, lacks in cases:
            for school in ("locked", "automatic"):
                plan = on_the_rig("light-tripod", "turntable", "phone", "phone-app", phone=card)
                plan = plan.model_copy(update={"light": plan.light.model_copy(update={"school": school})})
                told = {doubt.lacks for doubt in ready(plan).doubts}
                with self.subTest(card=card, school=school):
                    self.assertEqual(told & {manual, held}, lacks if school == "locked" else set())

    def test_each_is_told_only_where_it_is_asked_for(self) -> None:
        codes = {
            "camera-has-no-manual-mode", "aperture-is-fixed", "aperture-is-another", "exposure-beyond-the-dial",
            "no-raw-files", "stabiliser-stays-on",
        }  # fmt: skip
        long = {"exposure_s": F(8)}
        cases: tuple[tuple[str, Plan, set[str]], ...] = (
            ("locked needs no manual mode", with_phone(manual="no"), set()),
            ("nor does a camera left to itself", with_phone("automatic", manual="no"), set()),
            ("nobody knows", with_phone("ramped", manual="not known"), set()),
            ("half a minute is really 32 s", self._exposed(long, "8"), set()),
            ("a third of a stop less is not enough", self._exposed(long, "6.3"), {"exposure-beyond-the-dial"}),
            ("the longest of a bracket counts",
             self._exposed({"exposure_s": F(2), "bracket_frames": 3, "bracket_step_stops": 2}, "4"),
             {"exposure-beyond-the-dial"}),
            ("no slowest is known", self._exposed(long, None), set()),
            ("a stop and two are what a file keeps", self._mended(1.0, 2.0), set()),
            ("more is not", self._mended(1.0, 2.1), {"no-raw-files"}),
        )  # fmt: skip
        for name, plan, told in cases:
            with self.subTest(name):
                self.assertEqual({snag.code for snag in evaluate(plan).snags} & codes, told)

    @staticmethod
    def _exposed(beat: dict[str, Any], slowest: str | None) -> Plan:
        plan = plan_of({**THREE, "interval": F(60)}, beat=beat)
        return fitted(plan, copies("full-frame-body", full_frame_body={"slowest_s": slowest}))

    @staticmethod
    def _mended(over: float, under: float) -> Plan:
        plan = plan_of(THREE, light={"over_stops": over, "under_stops": under})
        return fitted(plan, copies("full-frame-body", full_frame_body={"raw": "no"}))

    def test_a_camera_with_one_aperture_is_offered_no_other(self) -> None:
        """In the dark it would be opened, in the bright closed; with the phone neither is offered."""
        for at, minutes in (("2026-09-12T19:30+01:00", 150), ("2026-09-12T15:30+01:00", 30)):
            dark = dusk(at, minutes=minutes, school="ramped", camera={"aperture": 2.0}, shutter_short_s=F(1, 30))
            edits = [
                edit.path
                for snag in evaluate(fitted(dark, copies("phone"))).snags
                if snag.code in ("limits-run-out", "limits-too-bright")
                for fix in snag.fixes
                for edit in fix.edits
            ]
            self.assertTrue(edits)
            self.assertFalse({"camera.aperture", "light.aperture_wide", "light.aperture_narrow"} & set(edits))

    def test_the_card_brings_its_one_aperture_into_the_plan(self) -> None:
        self.assertEqual(with_phone().camera.aperture, 2.0)


class ScrewedOut(TestCase):
    def test_turns_and_distance_are_typed_either_way_and_stand_on_the_card(self) -> None:
        """35 mm out by 7 mm: 14 turns of half a millimetre, sharp at 35 · (1 + 35/7) = 210 mm."""
        plan = apply(plan_of(THREE), [Edit(path="camera.extension_mm", value=1.0)])[0]
        for path, text, imperial in (
            ("camera.turns", "14", False), ("camera.subject_mm", "210", False), ("camera.subject_mm", "8.2677in", True),
        ):  # fmt: skip
            typed = make(plan, [TypeText(do="type", path=path, text=text, imperial=imperial)])[0]
            with self.subTest(text):
                self.assertAlmostEqual(typed.camera.extension_mm or 0, 7.0, 3)
        stepped = make(plan, [SetValue(do="set", path="camera.turns", value=14)])[0]
        lines = on_card(stepped)
        self.assertEqual(lines["lens screwed out by"], "7 mm: 14 turns")
        self.assertEqual(lines["subject from the lens"], "210 mm")
        for path, text in (("camera.turns", "0"), ("camera.subject_mm", "35"), ("camera.subject_mm", "20")):
            with self.subTest(text), self.assertRaises(PathError):
                make(plan, [TypeText(do="type", path=path, text=text)])

    def test_the_picture_is_as_wide_as_the_extension_leaves_it(self) -> None:
        """33 mm on 36 mm, focused at 141 mm: 36 · (141 − 33) / 33 = 117.8 mm, where far away it would be 154."""
        plan = plan_of(THREE, camera={"focal_mm": 33.0}, move=Move(keyframes=(Keyframe(focus_mm=141), Keyframe())))
        self.assertAlmostEqual(evaluate(plan).figures["view.wide"].value, 117.818, 3)
        out = apply(plan, [Edit(path="camera.extension_mm", value=11.0)])[0]
        self.assertAlmostEqual(evaluate(out).figures["view.wide"].value, 108.0, 6)


class StarsInThePicture(TestCase):
    def test_the_corner_trails_further_and_what_counts_is_chosen(self) -> None:
        """Looking south at 40° N, tilt 20°, 14 mm on 36 mm and 6000 px: in 10.08 s the longest trail is 4.7 px."""
        wide = dusk("2026-01-12T22:00+00:00", minutes=40, school="ramped", where=(40.0, 0.0), camera={"focal_mm": 14})
        wide = wide.model_copy(update={
            "rig": wide.rig.model_copy(update={"normal_bearing_deg": 180.0}),
            "move": Move(keyframes=(Keyframe(tilt_deg=20), Keyframe(tilt_deg=20))),
        })  # fmt: skip
        longest = {}
        for part in SHARE:
            told = evaluate(apply(wide, [Edit(path="light.stars_in", value=part)])[0]).figures
            longest[part] = told["help.stars"].value
        self.assertAlmostEqual(10.08 * 2 / longest["corner"], 4.706, 2)
        self.assertLess(longest["corner"], longest["middle"])
        self.assertLess(longest["middle"], longest["centre"])
        # −30° at the centre: 15.041″ · cos 30° over 40.72 px a degree.
        self.assertAlmostEqual(longest["centre"], 2 / (15.041 / 3600 * math.cos(math.radians(30)) * 40.7243), 2)
        told = evaluate(wide).figures
        self.assertIn("at the top", told["help.stars.drawn"].label)
        self.assertAlmostEqual(told["help.stars.drawn"].value, 2 * longest["middle"] / longest["corner"], 3)

    @given(
        st.floats(-60, 60), st.floats(-170, 170), st.floats(-20, 70), st.floats(-15, 15),
        st.sampled_from(["centre", "middle", "corner"]),
    )  # fmt: skip
    def test_no_star_of_the_part_is_drawn_out_further(
        self, latitude: float, pan: float, tilt: float, roll: float, part: StarsIn
    ) -> None:
        """Stars turned about the pole for a second and seen again: none goes further than the fastest is said to."""
        plan = dusk(minutes=10)
        plan = plan.model_copy(update={"rig": plan.rig.model_copy(update={"normal_bearing_deg": 0.0})})
        x, turn, high, over, lens = (np.array([value]) for value in (0.0, pan, tilt, roll, 24.0))
        at = projecting.Poses(x, x, turn, high, over, lens)
        told, most = float(fastest(plan, at, latitude, part).px_s[0]), 0.0
        for right in np.linspace(-1, 1, 9) * SHARE[part]:
            for up in np.linspace(-1, 1, 9) * SHARE[part]:
                u, v = right * 18 / 24, up * 12 / 24
                bearing, height = projecting.directions(at, u, v)
                # Right on the horizon the last bit decides.
                assume(abs(height[0]) > 1e-6)
                if height[0] <= 0:
                    continue
                later = projecting.see_far(at, *_turned(float(bearing[0]), float(height[0]), latitude))
                moved = np.hypot(later.across() - u, later.above() - v) * 24 / 36 * 6000
                most = max(most, float(moved[0]))
        self.assertAlmostEqual(most, 0.0 if math.isnan(told) else told, delta=0.002 * max(1.0, most))


def _turned(azimuth: float, altitude: float, latitude: float) -> tuple[Any, Any]:
    """Where a star is a second later, by hour angle and declination (Meeus, chapter 13)."""
    a, h, lat = (math.radians(value) for value in (azimuth, altitude, latitude))
    dec = _asin(math.sin(lat) * math.sin(h) + math.cos(lat) * math.cos(h) * math.cos(a))
    hour = math.atan2(
        -math.sin(a) * math.cos(h), math.sin(h) * math.cos(lat) - math.cos(h) * math.sin(lat) * math.cos(a)
    )
    hour += math.radians(trails.DRIFT_ARCSEC_S / 3600)
    tall = _asin(math.sin(lat) * math.sin(dec) + math.cos(lat) * math.cos(dec) * math.cos(hour))
    turn = math.atan2(
        -math.sin(hour) * math.cos(dec), math.sin(dec) * math.cos(lat) - math.cos(dec) * math.sin(lat) * math.cos(hour)
    )
    return np.array([math.degrees(turn)]), np.array([math.degrees(tall)])


def _asin(sine: float) -> float:
    return math.asin(max(-1.0, min(1.0, sine)))
