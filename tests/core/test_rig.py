"""The rig: drives, beams, standing and holding on, and how a plan takes its cards."""

import math
from dataclasses import replace
from fractions import Fraction as F
from typing import Any, get_args
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st
from pydantic import TypeAdapter
from scipy.integrate import cumulative_trapezoid

from bridle.core.asks.changes import AnyChange, make
from bridle.core.asks.fitting import fit
from bridle.core.chapters.rig.tipping import with_supports
from bridle.core.compare import compare_kit
from bridle.core.evaluate import evaluate
from bridle.core.lists.card import card_figures
from bridle.core.lists.sides import in_words
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, PathError, apply, look
from bridle.core.plan.kit import CARD_TYPES, AnyCard, AxisCard, Copy
from bridle.core.plan.move import Keyframe, Move
from bridle.core.plan.places import kind_of, read_at
from bridle.core.plan.rig import Lead, Rig
from bridle.core.reckon.bending import bending, falls
from bridle.core.reckon.loads import hold, tip_slide
from bridle.core.reckon.parts import bound
from bridle.core.reckon.picture import scale
from bridle.core.reckon.reckoning import reckon
from bridle.core.reckon.stack import Stack, rail_of, stack
from bridle.core.snag import fill
from bridle.core.subjects.circuits import leads
from bridle.core.subjects.motion import steppers
from bridle.core.subjects.motion.drives import dial, rated, stepped
from bridle.core.subjects.motion.drives.clockwork import Clockwork
from bridle.core.subjects.motion.drives.every import AnyDrive
from bridle.core.subjects.motion.drives.interface import Wanted
from bridle.core.subjects.motion.drives.moves import MoveDial
from bridle.core.subjects.strength import beams, mounting
from tests.core.test_trigger import demo
from tests.strategies import CARDS, copies, fitted, kits, plan_of
from tests.workings import worked_out

THREE = {"rate": F(25), "shoot": F(3600), "interval": F(10)}
ASKED: TypeAdapter[Any] = TypeAdapter(list[AnyChange])
SLID = Move(keyframes=(Keyframe(slide_mm=20), Keyframe(slide_mm=880)))
TRIPOD = ("tripod", "belt-rail", "down-bush", "full-frame-body")


def card(name: str, **changed: Any) -> AnyCard:
    return CARD_TYPES[CARDS[name]["kind"]].model_validate({**CARDS[name], **changed})


class Drives(TestCase):
    def test_worked_steps(self) -> None:
        self.assertEqual(steppers.belt_steps(200, 16, 2, 20), 80)
        self.assertAlmostEqual(steppers.gear_steps(200, 16, 9), 80)
        self.assertEqual(steppers.screw_steps(200, 16, 8), 400)

    @given(st.floats(0, 1e5), st.floats(0.01, 500))
    def test_steps_are_rounded_from_the_target_and_never_drift(self, position: float, steps: float) -> None:
        (whole,) = steppers.step_positions([position], steps)
        self.assertLessEqual(abs(whole - position * steps), 0.5 + 1e-6)
        self.assertEqual(steppers.ripple(float(round(steps))), 0)

    def test_clockwork_and_menu_and_dial(self) -> None:
        wanted = Wanted("pan", "deg", 0, 128, 32 * 60, 0.2, 360)
        spring = Clockwork(rate_deg_min=4)
        self.assertEqual(spring.goes(wanted), 128)
        self.assertEqual({one.key: one.value for one in spring.working(wanted)}["drive.pan.time"], 1920)
        found = rated.setting_for(4.1, [0.25, 2.0], 0.5, 16, 0.5)
        self.assertEqual(found, (1, 2, 2.05))
        self.assertIsNone(rated.setting_for(900, [0.25], 0.5, 16, 0.5))
        points = [(0.0, 240.0), (3.0, 700.0), (6.0, 1900.0)]
        self.assertEqual(dial.dial_for(470, points), (0, 1.5))
        self.assertIsNone(dial.dial_for(100, points))
        # The position at 3, read from those at 0 and 6 alone: 0 + (700 − 240) / 1660 · 6.
        self.assertAlmostEqual(dial.dial_doubt(points), 3 - 460 / 1660 * 6)
        self.assertEqual(stepped.nearest_run(1000, [900, 1800, 3600]), 0)

    def test_every_drive_answers_for_itself(self) -> None:
        """Whatever is on its card, measured on it or told to it can be found; and what it says fits what it does."""
        kinds = get_args(AnyDrive)
        for called in (
            {k.model_fields["kind"].default for k in kinds},
            {k.NAME for k in kinds},
            {k.SHELF for k in kinds},
        ):
            self.assertEqual(len(called), len(kinds))
        for kind in kinds:
            # With a row in each table that may be without any.
            rows = {
                table.path: [dict(zip((c.path for c in table.columns), table.first, strict=True))]
                for table in kind.TABLES
                if table.first
            }
            drive, unit = kind.model_validate(rows), "deg"
            data = {"drive": drive.model_dump(mode="json"), "backlash": 0, "settle_s": "1"}
            fields = [field.path for field in drive.FIELDS]
            fields += [f"{table.path}.0.{column.path}" for table in drive.TABLES for column in table.columns]
            for path in [*(f"drive.{path}" for path in fields), *(measure.field for measure in drive.measures(unit))]:
                look(data, path)
            for field in drive.FIELDS:
                if field.where is not None:
                    look(data, f"drive.{field.where[0]}")
            wanted = Wanted("pan", unit, 10, 60, 1200, 0.5, 90, frames=121)
            told = [*drive.working(wanted), *drive.card_figures(unit)]
            self.assertTrue(all(math.isclose(worked_out(one), one.value, rel_tol=1e-9) for one in told))
            self.assertTrue(drive.words(wanted))
            does = drive.goes(wanted)
            self.assertEqual(does is not None, drive.runs_on or kind is MoveDial, kind)
            # Twice the time takes a running drive at the same setting twice as far.
            if does is not None and drive.runs_s:
                self.assertAlmostEqual(drive.goes(replace(wanted, seconds=2400)) or 0, 2 * does)

    def test_what_the_demo_drives_are_told(self) -> None:
        sweep = plan_of(THREE, move=Move(keyframes=(Keyframe(), Keyframe(pan_deg=30))), beat={"school": "continuous"})
        menu = evaluate(fitted(sweep, copies("star-mount"))).drives
        self.assertIn("key 1, setting 2", menu[0].words)
        by_hand = evaluate(fitted(sweep, copies("marked-base"))).drives
        self.assertIn("by 0.0836 a frame at cruise", by_hand[0].words)
        slid = plan_of(THREE, move=SLID, beat={"school": "continuous"})
        dial = evaluate(fitted(slid, copies("dial-slider"))).drives
        self.assertIn("after ten frames", dial[0].words)


class Standing(TestCase):
    def test_the_worked_rail(self) -> None:
        inertia = beams.inertia_mm4(2, 20, 0)
        load = beams.sag_load_mm(2.4 * beams.G, 1200, 69, inertia)
        own = beams.sag_own_mm(beams.weight_n_mm(2, 20, 0, 2700), 1200, 69, inertia)
        self.assertEqual((round(load, 3), round(own, 3), round(load + own, 3)), (0.782, 0.414, 1.196))

    @given(st.floats(0.02, 0.98))
    def test_the_slope_is_worst_where_the_job_says(self, at: float) -> None:
        worst = beams.slope_deg(20, 1000 * beams.WORST_SLOPE_AT, 1000 * (1 - beams.WORST_SLOPE_AT), 69, 5000)
        self.assertLessEqual(abs(beams.slope_deg(20, 1000 * at, 1000 * (1 - at), 69, 5000)), worst * 1.0001)

    def test_the_slope_is_that_of_the_bent_beam(self) -> None:
        # Deflection under a load P at a, seen at x < a: P·b·x·(L² − b² − x²)/(6·E·I·L); its derivative at x = a.
        force, length, a, modulus, inertia = 25.0, 1000.0, 211.0, 69.0, 8000.0
        b = length - a

        def sag(x: float) -> float:
            return force * b * x * (length**2 - b**2 - x**2) / (6 * modulus * 1000 * inertia * length)

        by_hand = math.degrees((sag(a) - sag(a - 0.01)) / 0.01)
        self.assertAlmostEqual(float(beams.slope_deg(force, a, b, modulus, inertia)), by_hand, 5)

    @given(st.floats(-300, 300), st.floats(300, 1500))
    def test_the_slope_beyond_two_supports_is_that_of_the_bent_beam(self, out: float, span: float) -> None:
        """The bending moment of a load beyond a support, integrated twice along the beam."""
        force, stiff, reach, n = 25.0, 69_000 * 8000.0, abs(out), 4000
        x = np.linspace(0, span + reach, n + 1)
        moment = np.where(x <= span, -force * reach * x / span, -force * (span + reach - x))
        turn = cumulative_trapezoid(moment / stiff, x, initial=0)
        down = cumulative_trapezoid(turn, x, initial=0)
        # It rests on both supports: the line through them is level.
        tilt = np.interp(span, x, down) / span
        told = float(beams.beyond_slope_deg(force, out, span, 69, 8000))
        self.assertAlmostEqual(told, math.copysign(1, out) * math.degrees(tilt - turn[-1]), 5)

    @given(st.floats(20, 880), st.floats(20, 880), st.floats(-180, 180), st.sampled_from([1, 2, 3]))
    def test_the_camera_rolls_across_the_rail_and_nods_along_it(
        self, first: float, last: float, pan: float, supports: int
    ) -> None:
        """By the difference from end to end, split by where it looks; nothing of it in the middle of two supports."""
        keys = (Keyframe(slide_mm=first, pan_deg=pan), Keyframe(slide_mm=last, pan_deg=pan))
        chain = ("tripod", *["light-tripod"] * (supports > 1), *TRIPOD[1:])
        made = copies(*chain, belt_rail={"beam": {"outer_mm": 15}})
        if supports == 3:
            made.insert(2, {**made[1], "key": "third"})
        plan = fitted(plan_of(THREE, move=Move(keyframes=keys)), made)
        known = reckon(plan)
        bent, rail = bending(known), rail_of(plan)
        assert bent is not None and rail is not None
        slide = np.linspace(first, last, 400)
        slope = np.array([self.fall(known.stack, at) for at in known.stack.ends_mm[0] + slide - rail.low])
        whole = np.ptp(bent.falls_deg)
        self.assertAlmostEqual(np.ptp(slope), whole, delta=0.01 * abs(slope).max() + 1e-6)
        told = evaluate(plan).figures
        self.assertAlmostEqual(told["rig.nod"].value, whole * abs(math.sin(math.radians(pan))) * scale(plan), 4)
        rolled = math.tan(math.radians(whole * abs(math.cos(math.radians(pan))))) * 3000
        self.assertAlmostEqual(told["rig.roll"].value, rolled, 4)

    def fall(self, put: Stack, at: float) -> float:
        """The slope under the load where each span is a beam of its own, from the deflection a hair to either side."""
        stiff, force = 69_000 * beams.inertia_mm4(2, 15, 0), put.riding_g / 1000 * beams.G
        ends = [support.x_mm for support in put.supports]
        if len(ends) == 1 or not ends[0] < at < ends[-1]:
            edge = min(ends, key=lambda x: abs(x - at))
            span, out = (ends[1] - ends[0] if len(ends) > 1 else 0.0), at - edge
            return math.degrees(force * out * (2 * span + 3 * abs(out)) / 6 / stiff)
        left = max(x for x in ends if x <= at)
        span = ends[1] - ends[0]
        a, b = at - left, left + span - at

        def sag(x: float) -> float:
            return force * b * x * (span**2 - b**2 - x**2) / (6 * stiff * span)

        return math.degrees((sag(a) - sag(a - 0.001)) / 0.001)

    def test_a_short_move_in_the_middle_of_two_supports_raises_nothing(self) -> None:
        made = copies("tripod", "light-tripod", *TRIPOD[1:], belt_rail={"beam": {"outer_mm": 12}})
        for ends, told in (((440, 470), False), ((100, 800), True)):
            keys = (Keyframe(slide_mm=ends[0]), Keyframe(slide_mm=ends[1]))
            plan = fitted(plan_of(THREE, move=Move(keyframes=keys)), made)
            found = [snag for snag in evaluate(plan).snags if snag.code == "rail-sags"]
            self.assertEqual(bool(found), told, ends)
            for fix in (fix for snag in found for fix in snag.fixes if "after" in fix.slots):
                after = evaluate(apply(plan, fix.edits)[0]).figures
                self.assertEqual(fix.slots["after"].value, max(after["rig.roll"].value, after["rig.nod"].value))

    def test_the_worked_wire(self) -> None:
        self.assertAlmostEqual(leads.drop_v(1.4, 1.2, 0.25), 0.116, 3)

    def test_a_wire_of_known_ohms_loses_by_them_and_not_by_its_cross_section(self) -> None:
        """Two metres of 0.3 Ω/m there and as much back, at what both motors draw."""
        made = copies(*TRIPOD, "lead-battery")
        lead = Lead(length_mm=2000, area_mm2=6, ohm_per_m=0.3)
        plan = fitted(plan_of(THREE, rig=Rig(lead=lead)), made)
        told = evaluate(plan).figures
        drawn = sum(copy.card.peak_a or 0 for copy in plan.kit.copies if isinstance(copy.card, AxisCard))
        self.assertAlmostEqual(told["rig.lost"].value, 2 * drawn * 0.3 * 2)
        thin = next(snag for snag in evaluate(plan).snags if snag.code == "lead-too-thin")
        after = apply(plan, thin.fixes[0].edits)[0]
        self.assertIsNone(after.rig.lead and after.rig.lead.ohm_per_m)
        self.assertNotIn("lead-too-thin", {snag.code for snag in evaluate(after).snags})

    def test_a_carriage_exactly_over_a_support_leans_as_it_does_a_hair_beside_it(self) -> None:
        """On one, two and three supports, at each of them and at both ends of the rail."""
        for count in (1, 2, 3):
            plan = apply(demo("lamps-along-the-quay"), with_supports(demo("lamps-along-the-quay"), count))[0]
            known = reckon(plan)
            rail, put = rail_of(plan), known.stack
            assert rail is not None
            places = [support.x_mm for support in put.supports] + list(put.ends_mm)
            for place in places:
                there = falls(put, rail, np.array([place - 1e-6, place, place + 1e-6]))
                self.assertLess(float(np.ptp(there)), 1e-6, (count, place))

    def test_the_sag_in_all_is_that_of_load_and_rods_together(self) -> None:
        for supports in (1, 2):
            chain = ("tripod", *["light-tripod"] * (supports > 1), *TRIPOD[1:])
            told = evaluate(fitted(plan_of(THREE, move=SLID), copies(*chain))).figures
            self.assertAlmostEqual(told["rig.sag_all"].value, told["rig.sag"].value + told["rig.sag_own"].value)
        # An arm of its own weight sags w·A⁴/(8·E·I) at its end.
        self.assertAlmostEqual(beams.overhang_own_mm(0.01, 500, 500, 69, 5000), 0.01 * 500**4 / (8 * 69_000 * 5000))

    @given(st.floats(0, 900))
    def test_it_tips_where_the_centre_of_mass_leaves_the_feet(self, slide: float) -> None:
        made = copies(*TRIPOD, tripod={"feet_radius_mm": 150})
        plan = fitted(plan_of(THREE, move=SLID), made)
        put = stack(plan)
        below, above = tip_slide(plan, put)
        assert below is not None and above is not None
        x = put.centre(put.carriage_x(slide, 0)).x_mm
        low, high = hold(put)
        self.assertEqual(low <= x <= high, below <= slide <= above)
        self.assertEqual(low, -75)

    @given(st.floats(0, 80), st.floats(0, 0.4))
    def test_a_slope_only_pulls_harder(self, slope: float, friction: float) -> None:
        level, steep = (mounting.pull_n(3000, angle, friction, 80) for angle in (0.0, slope))
        self.assertGreaterEqual(steep, level - 30 * friction)
        self.assertGreaterEqual(mounting.lets_go_nmm(3000, slope, friction, 6), 0)

    def test_two_supports_hold_the_whole_rail(self) -> None:
        plan = fitted(plan_of(THREE, move=SLID), copies("tripod", "light-tripod", *TRIPOD[1:]))
        told = evaluate(plan)
        self.assertNotIn("rig-tips", {snag.code for snag in told.snags})
        self.assertEqual(len([part for part in told.rig.parts if part.kind == "support"]), 2)  # type: ignore[union-attr]

    def test_the_adapter_that_is_named_is_put_in(self) -> None:
        plan = fitted(plan_of(THREE), copies("tripod", "belt-rail", "full-frame-body"))
        snag = next(one for one in evaluate(plan).snags if one.code == "thread-mismatch")
        after = apply(plan, snag.fixes[0].edits)[0]
        names = [copy.card.name for copy in after.kit.copies]
        self.assertEqual(names[2], "an adapter, three eighths, 16 an inch below, quarter inch, 20 an inch above")


class Chain(TestCase):
    """Cards put on by `put` and moved by `part`: what stands where afterwards, from the ground up."""

    @staticmethod
    def after(plan: Plan, **change: Any) -> tuple[Plan, list[str]]:
        plan, _ = make(plan, ASKED.validate_python([change]))
        return plan, [copy.key for copy in plan.kit.copies]

    def put(self, plan: Plan, *names: str) -> tuple[Plan, list[str]]:
        return self.after(plan, do="put", cards=[{"card": CARDS[name] | {"name": name}} for name in names])

    def test_everything_finds_its_place(self) -> None:
        plan, keys = self.put(plan_of(THREE), "full-frame-body", "belt-rail", "tripod")
        self.assertEqual(keys, ["tripod", "belt-rail", "full-frame-body"])
        self.assertEqual([axis.name for axis in plan.rig.axes], ["slide"])
        plan, keys = self.put(plan, "tripod", "phone")
        self.assertEqual(
            keys, ["tripod", "tripod-2", "belt-rail", "phone"], "one camera, as many supports as there are"
        )

    def test_parts_change_places_as_far_as_the_chain_goes(self) -> None:
        plan, _ = self.put(plan_of(THREE), "tripod", "belt-rail", "35mm", "full-frame-body")
        for key, by, expected in (
            ("belt-rail", -1, ["belt-rail", "tripod", "35mm", "full-frame-body"]),
            ("tripod", -1, ["tripod", "belt-rail", "35mm", "full-frame-body"]),
            ("belt-rail", 1, ["tripod", "full-frame-body", "35mm", "belt-rail"]),
        ):
            self.assertEqual(self.after(plan, do="part", key=key, by=by)[1], expected, (key, by))
        for key in ("35mm", "nowhere"):
            with self.subTest(key), self.assertRaises(PathError):
                self.after(plan, do="part", key=key, by=1)


class Cards(TestCase):
    def test_every_figure_of_every_card_has_its_working(self) -> None:
        for name in CARDS:
            for figure in card_figures(card(name)):
                with self.subTest(card=name, figure=figure.key):
                    self.assertAlmostEqual(worked_out(figure), figure.value, 6)

    def test_a_correction_counts(self) -> None:
        rail = card("belt-rail")
        assert isinstance(rail, AxisCard)
        self.assertAlmostEqual(rail.drive.steps() or 0, 80 * 1.0023)

    @given(kits)
    def test_a_plan_takes_over_what_its_cards_know(self, made: list[dict[str, Any]]) -> None:
        plan = fitted(plan_of(THREE), made)
        data, origins = plan.model_dump(mode="json"), evaluate(plan).origins
        for one in bound(plan.kit.copies, plan.rig.axes):
            at: Any = data
            for step in one.path.split("."):
                at = at[int(step) if isinstance(at, list) else step]
            self.assertEqual(at, one.value, one.path)
            self.assertIn(origins[one.path].how, ("card", "measured"))

    def test_what_was_typed_over_a_card_stays_typed(self) -> None:
        plan = fitted(plan_of(THREE), copies("full-frame-body"))
        typed = apply(plan, [Edit(path="beat.write_s", value="5")])[0]
        newer = Copy.model_validate(
            {"key": "full-frame-body", "card": {**CARDS["full-frame-body"], "write_s": "3", "lag_s": "1/5"}}
        )
        after = apply(typed, fit(typed, (newer,)))[0]
        self.assertEqual((after.beat.write_s, after.beat.lag_s), (5, F(1, 5)))
        told = evaluate(after).origins
        self.assertEqual(
            (told["beat.write_s"].how, told["beat.write_s"].card_value, told["beat.lag_s"].how), ("typed", 3, "card")
        )

    def test_measured_with_spread_and_date(self) -> None:
        told = evaluate(fitted(plan_of(THREE), copies("full-frame-body"))).origins["beat.write_s"]
        self.assertEqual((told.how, told.spread, told.count, str(told.on)), ("measured", 0.07, 4, "2026-09-01"))

    def test_a_card_that_has_changed_since_says_what_it_does_to_the_plan(self) -> None:
        made = [{**copies("full-frame-body")[0], "card_id": 7, "version": 1}]
        plan: Plan = fitted(plan_of({**THREE, "interval": F(4)}), made)
        self.assertEqual(compare_kit(plan, {7: (2, card("full-frame-body"))}), [])
        # The card is as it was copied: somebody has changed it in the plan.
        self.assertEqual(compare_kit(plan, {7: (1, card("full-frame-body", write_s="6"))}), [])
        (found,) = compare_kit(plan, {7: (2, card("full-frame-body", write_s="6"))})
        self.assertEqual(found.differences, ("writes in 6 s instead of 2.2 s",))
        self.assertTrue(any("A new snag: One beat needs" in effect for effect in found.effects), found.effects)
        taken = apply(plan, fit(plan, (found.copy,)))[0]
        self.assertEqual((taken.beat.write_s, taken.kit.copies[0].version), (6, 2))

    def test_what_stands_in_a_list_is_read_as_it_was_typed(self) -> None:
        pins = [{"name": "P1", "used_for": "probe"}, {"name": "P4", "used_for": ""}]
        rows: tuple[tuple[str, list[Any], list[Any], str], ...] = (
            ("fire_on", [], ["M42 P4 S255"], "fire on “M42 P4 S255” instead of nothing"),
            ("fire_off", ["A"], ["A", "B"], "fire off “A” and “B” instead of “A”"),
            ("pins", pins[:1], pins, "pins “P1” and “P4” instead of “P1”"),
            ("intervals", ["1", "2", "4", "8", "15"], [""], "intervals 1 of them instead of 5 of them"),
        )
        for path, was, now, said in rows:
            with self.subTest(path):
                self.assertEqual(in_words(path, was, now), said)

    def test_every_figure_on_every_card_can_be_typed_over_as_it_is_written(self) -> None:
        for name in CARDS:
            data = card(name).model_dump(mode="json", exclude={"measured"})
            linear = data.get("motion") != "rotary"
            for path, value in flat(data):
                kind = kind_of(path, linear)
                if kind is None or value is None:
                    continue
                with self.subTest(card=name, path=path):
                    # Shares are typed in percent, long times in hours: as text with their own unit.
                    text = {"share": f"{float(F(str(value))) * 100} %", "shoot": f"{float(F(str(value)))} s"}.get(
                        kind, str(value)
                    )
                    self.assertAlmostEqual(float(F(str(read_at(path, text, value, linear)))), float(F(str(value))), 9)


def flat(value: Any, path: str = "") -> list[tuple[str, Any]]:
    """Every number of a card with its path; words and switches left out."""
    if isinstance(value, dict):
        return [one for key, inner in value.items() for one in flat(inner, f"{path}.{key}" if path else key)]
    if isinstance(value, list):
        return [one for i, inner in enumerate(value) for one in flat(inner, f"{path}.{i}")]
    plain = isinstance(value, int | float) and not isinstance(value, bool)
    return [(path, value)] if plain or (isinstance(value, str) and path.endswith("_s")) else []


class Leads(TestCase):
    def test_only_what_has_a_lead_is_told_of_its_plug(self) -> None:
        """Who fires, with which plug, into which socket; and what is said of it."""
        for source, plug, socket, said in (
            ("wired remote", "2.5 mm", "2.5 mm", None),
            ("wired remote", "USB", "2.5 mm", "plug for USB; the full-frame body, 24 MP has a socket for 2.5 mm"),
            ("wired remote", "own", "2.5 mm", "plug for a connector of its own"),
            ("controller", "2.5 mm", "none", "has no socket at all"),
            ("app", "none", "2.5 mm", None),
            ("wireless remote", "USB", "2.5 mm", None),
            ("camera timer", "2.5 mm", "none", None),
        ):
            with self.subTest(source, plug=plug, socket=socket):
                changed = {"controller": {"source": source, "socket": plug}, "full_frame_body": {"socket": socket}}
                plan = fitted(plan_of(THREE), copies("controller", "full-frame-body", **changed))
                found = [snag for snag in evaluate(plan).snags if snag.code == "lead-mismatch"]
                self.assertEqual(len(found), 0 if said is None else 1)
                for snag in found:
                    self.assertIn(said or "", fill(snag.what, snag.slots))
                    after = apply(plan, snag.fixes[0].edits)[0]
                    self.assertNotIn("lead-mismatch", [one.code for one in evaluate(after).snags])
