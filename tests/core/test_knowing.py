"""An edit costs what it touches, and comes to the same as from nothing."""

import math
from collections import Counter
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import FrozenInstanceError, fields, is_dataclass
from datetime import UTC, datetime
from fractions import Fraction
from functools import cache
from typing import Any
from unittest import TestCase
from zoneinfo import ZoneInfo

import numpy as np
from hypothesis import given

from bridle.core.evaluate import evaluate, evaluate_after
from bridle.core.given import Given, Proved
from bridle.core.knowing import LateError, Reader, Run
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import Edit, apply
from bridle.core.reckon.reckoning import Reckoning, Shooting, reckon
from bridle.core.same import same, shared
from bridle.core.views import CELLS, Basis, View, named
from tests.following import Following
from tests.mutated import EXAMPLES, PLANS, edited_plans, unshrunk
from tests.provoked import PROVOKE, provoked

LONDON, PARIS = ZoneInfo("Europe/London"), ZoneInfo("Europe/Paris")
NOON = datetime(2026, 6, 1, 12, tzinfo=LONDON)
LAST = datetime(2026, 10, 25, 1, 30, tzinfo=LONDON)


@cache
def demo(name: str) -> Plan:
    return next(Plan.model_validate(plan) for plan in PLANS if plan["shoot"]["name"].startswith(name))


def edited(plan: Plan, path: str, value: Any) -> Plan:
    return apply(plan, [Edit(path=path, value=value)])[0]


class Same(TestCase):
    def test_is_to_the_last_bit(self) -> None:
        nan = float("nan")
        for one, other, alike in (
            (1.0, 1.0, True), (nan, float("nan"), True), (0.0, -0.0, False), (1, 1.0, False), (True, 1, False),
            (Fraction(1, 3), Fraction(1, 3), True), ("a", "a", True),
            (NOON, NOON.replace(), True), (NOON, NOON.replace(tzinfo=PARIS), False),
            (NOON, NOON.astimezone(PARIS), False), (NOON, NOON.astimezone(UTC), False),
            (LAST, LAST.replace(fold=1), False),
            (np.array([1.0, nan]), np.array([1.0, nan]), True), (np.array([0.0]), np.array([-0.0]), False),
            (np.array([1]), np.array([1.0]), False), (np.zeros((2, 1)), np.zeros((1, 2)), False),
            ((1, (2.0, nan)), (1, (2.0, nan)), True), ((1, 2), [1, 2], False),
            ({"a": 1, "b": 2}, {"a": 1, "b": 2}, True), ({"a": 1, "b": 2}, {"b": 2, "a": 1}, False),
            ({"a": 0.0}, {"a": -0.0}, False), (Given(now_s=1.0), Given(now_s=1.0), True),
            (Given(now_s=1.0), Given(), False),
            (demo("Harbour"), demo("Mill"), False),
            (demo("Harbour"), Plan.model_validate(demo("Harbour").model_dump(mode="json")), True),
        ):  # fmt: skip
            with self.subTest(one=str(one)[:60], other=str(other)[:60]):
                self.assertEqual((same(one, other), same(other, one)), (alike, alike))

    def test_parts_stay_the_objects_that_they_were(self) -> None:
        """Read anew, with a card before the others and one changed: all others are told by which they are."""
        old = demo("Harbour")
        data = old.model_dump(mode="json")
        data["kit"]["copies"].insert(0, {**data["kit"]["copies"][3], "key": "another"})
        data["kit"]["copies"][2]["card"]["name"] = "another tripod"
        new = shared(Plan.model_validate(data), old)
        self.assertIs(new.move, old.move)
        self.assertIs(new.kit.copies[1], old.kit.copies[0])
        self.assertEqual(new.kit.copies[2].card.name, "another tripod")
        for number in range(3, len(new.kit.copies)):
            self.assertIs(new.kit.copies[number], old.kit.copies[number - 1])
        self.assertIs(shared(Plan.model_validate(old.model_dump(mode="json")), old), old)


class Edits(TestCase):
    @unshrunk(max(20, EXAMPLES // 3))
    @given(edited_plans(3))
    def test_come_to_what_they_come_to_from_nothing(self, plans: tuple[Plan, ...]) -> None:
        """Whatever was drawn before, a drag or the whole; and a minute later, with a proof more."""
        run = None
        for number, plan in enumerate(plans):
            proofs = (Proved(of="x", stands="failed", on=NOON.date()),) * number
            told = Given(now_s=NOON.timestamp() + 60 * number, proofs=proofs)
            drawn, run = evaluate_after(run, plan, given=told)
            self.alike(drawn, evaluate(plan, given=told))
            dragged, after = evaluate_after(run, plan, 120, aside=False, given=told)
            run = after if number % 2 else run
        self.alike(dragged, evaluate(plan, 120, aside=False, given=told))

    def alike(self, one: Any, other: Any) -> None:
        for name in type(one).model_fields:
            self.assertTrue(same(getattr(one, name), getattr(other, name)), name)

    def test_of_every_provoked_plan_and_back_again(self) -> None:
        """From one plan to a quite different one: nothing of the one is left in the other."""
        codes = sorted(PROVOKE)
        for one, other in zip(codes[::3], codes[1::3], strict=False):
            now = Following(PROVOKE[one])
            for code in (other, one):
                with self.subTest(one=one, other=other, now=code):
                    self.alike(now(PROVOKE[code]), provoked(code))

    def test_work_out_no_more_than_follows_from_them(self) -> None:
        """What an edit must not lead to, by name; a change of its name leads to nothing at all."""
        harbour, mill = demo("Harbour"), demo("Mill")
        for plan, path, value, none_of in (
            (harbour, "shoot.name", "another", {"*"}),
            (mill, "shoot.name", "another", {"*"}),
            (
                harbour,
                "light.cloud_stops",
                1.25,
                {"positions", "poses", "stops", "timeline", "solution", "hearing", "stack"},
            ),
            (harbour, "beat.settle_s", "1.5", {"positions", "poses", "seeing", "scene", "timeline"}),
            (harbour, "move.keyframes.1.pan_deg", 31.5, {"timeline", "solution", "scene", "stack", "hearing", "sun"}),
            (mill, "light.cloud_stops", 1.25, {"timeline", "positions", "steps", "_windowed"}),
        ):
            with self.subTest(path=path, plan=plan.shoot.name):
                _, run = evaluate_after(None, plan)
                _, after = evaluate_after(run, edited(plan, path, value))
                worked = {key[1].__name__ for key, memo in after.memos().items() if run.memos().get(key) is not memo}
                self.assertFalse(worked if "*" in none_of else worked & none_of)

    def test_stop_where_a_number_changes_and_nothing_that_follows_from_it(self) -> None:
        """A lag that is not the tightest thing of a cycle: the cycle is worked out again and comes to what it was."""
        _, run = evaluate_after(None, demo("Harbour"))
        told, after = evaluate_after(run, demo("Harbour"), given=Given(now_s=NOON.timestamp()))
        again, last = evaluate_after(after, demo("Harbour"), given=Given(now_s=NOON.timestamp() + 60))
        self.assertEqual(last.worked, 1)
        self.assertIs(again.review, told.review)

    def test_may_be_worked_out_side_by_side(self) -> None:
        """Several threads take over from one run, and from what each has made of it."""
        plan = demo("Market")
        before = worked(plan)
        values = [4.0 + number / 4 for number in range(8)]

        def moved(value: float) -> tuple[Any, Any]:
            first = edited(plan, "move.keyframes.1.pan_deg", value)
            run = evaluate_after(before, first)[1]
            second = edited(first, "light.cloud_stops", value / 8)
            return evaluate_after(before, second)[0], evaluate_after(run, second)[0]

        with ThreadPoolExecutor(4) as pool:
            for value, (one, other) in zip(values, pool.map(moved, values), strict=True):
                alone = evaluate(
                    edited(edited(plan, "move.keyframes.1.pan_deg", value), "light.cloud_stops", value / 8)
                )
                self.alike(one, alone)
                self.alike(other, alone)

    def test_are_seen_by_every_cell(self) -> None:
        """Each field of the plan and of what is given is a cell of its own, and differs where it differs."""
        plan = demo("Harbour")
        basis = Basis(plan)
        self.assertEqual(named(basis.differs(Basis(edited(plan, "shoot.name", "x")))), ("shoot.name",))
        self.assertEqual(named(basis.differs(Basis(plan, Given(now_s=1.0)))), ("given.now_s",))
        self.assertEqual(named(basis.differs(basis)), ())
        wanted = {(name, field) for name in Plan.model_fields if name not in ("frames", "bridle_plan")
                  for field in type(getattr(plan, name)).model_fields}  # fmt: skip
        wanted |= {("frames", ""), ("bridle_plan", ""), *(("given", field.name) for field in fields(Given))}
        self.assertEqual(set(CELLS), wanted)


def worked(plan: Plan) -> Run:
    return evaluate_after(None, plan)[1]


class Nodes(TestCase):
    def test_none_reads_the_whole_plan(self) -> None:
        """What each node reads is told where one reads as good as everything: it would be asked again at every edit."""
        reads = Counter[str]()
        for plan in map(Plan.model_validate, PLANS):
            for (_, work, plain), memo in worked(plan).memos().items():
                name = f"{work.__module__.removeprefix('bridle.core.')}.{work.__qualname__} {plain or ''}"
                reads[name] = max(reads[name], memo.direct.bit_count())
                self.assertFalse("shoot.name" in named(memo.below), f"{name} reads the name of the shoot")
        table = "\n".join(f"{count:2} {name}" for name, count in reads.most_common())
        self.assertLess(max(reads.values()), len(CELLS) // 2, table)

    def test_hand_on_finished_values(self) -> None:
        """Nobody can change what others will take over: each array, dict and object is tried."""
        for plan in (demo("Harbour"), demo("Mill"), demo("Lattice"), *list(PROVOKE.values())[:20:5]):
            if not isinstance(plan, Plan):
                continue
            for key, memo in worked(plan).memos().items():
                for part in everything_in(memo.value):
                    with self.subTest(node=key[1].__qualname__, part=type(part).__name__):
                        self.refuses(part)

    def refuses(self, part: Any) -> None:
        if isinstance(part, np.ndarray):
            self.assertRaises(ValueError, part.fill, 0)
        elif isinstance(part, dict):
            self.assertRaises(TypeError, part.__setitem__, "x", 1)
            self.assertRaises(TypeError, part.update, x=1)
        elif is_dataclass(part):
            self.assertRaises(FrozenInstanceError, setattr, part, fields(part)[0].name, None)
        else:
            self.assertNotIsInstance(part, list | set | bytearray | Iterator | Reader | View)

    def test_that_end_are_read_no_more(self) -> None:
        held: list[Any] = []

        def keeps(known: Reckoning) -> int:
            held.extend((known, known.plan, known.plan.move, (frame for frame in (known.plan.move.legs,))))
            return known.plan.move.legs

        self.assertEqual(reckon(demo("Harbour")).ask(keeps), demo("Harbour").move.legs)
        known, plan, move, _ = held
        for late in (lambda: known.plan, lambda: plan.move, lambda: move.legs, lambda: known.found, lambda: move == 1):
            self.assertRaises(LateError, late)

    def test_that_yield_have_read_when_they_end(self) -> None:
        def yields(known: Reckoning) -> Iterator[int]:
            yield known.plan.move.legs

        known = reckon(demo("Harbour"))
        self.assertEqual(known.every(yields), (demo("Harbour").move.legs,))
        memo = next(memo for key, memo in known.reader.run.memos().items() if key[1] is yields)
        self.assertEqual(named(memo.cells), ("move.legs",))

    def test_that_fail_are_not_kept(self) -> None:
        tries: list[int] = []

        def fails(known: Reckoning) -> int:
            tries.append(known.plan.move.legs)
            if len(tries) == 1:
                raise ValueError("not this time")
            return len(tries)

        known = reckon(demo("Harbour"))
        self.assertRaises(ValueError, known.ask, fails)
        self.assertEqual((known.ask(fails), known.ask(fails)), (2, 2))

    def test_that_ask_for_themselves_say_so(self) -> None:
        def asks(known: Reckoning) -> int:
            return known.ask(asks)

        with self.assertRaisesRegex(RuntimeError, "asks for itself"):
            reckon(demo("Harbour")).ask(asks)

    def test_of_a_view_have_what_its_class_has(self) -> None:
        def reads(known: Reckoning) -> Any:
            light, rig = known.plan.light, known.plan.rig
            return (
                type(light.model_validate({})).__name__,
                len(rig.model_fields),
                rig.axis("slide"),
                known.plan.beat.ready_s,
            )

        plan = demo("Harbour")
        wanted = ("Light", len(type(plan.rig).model_fields), plan.rig.axis("slide"), plan.beat.ready_s)
        self.assertEqual(reckon(plan).ask(reads), wanted)

    def test_of_a_view_hide_no_field_of_the_plan(self) -> None:
        own = {name for name in vars(View) if not name.startswith("__")}
        plan = {name for section in Plan.model_fields for name in dir(type(getattr(demo("Harbour"), section)))}
        self.assertEqual(own & plan, {"model_copy", "model_dump"})


def everything_in(value: Any) -> Iterator[Any]:
    """A value and all that it holds, but for what a plan holds and what a dataclass keeps for itself."""
    if isinstance(value, np.ndarray | list | set | Iterator):
        yield value
    elif isinstance(value, tuple):
        for item in value:
            yield from everything_in(item)
    elif isinstance(value, dict):
        yield value
        yield from everything_in(tuple(value.values()))
    elif is_dataclass(value) and not isinstance(value, type):
        yield value
        yield from everything_in(tuple(getattr(value, one.name) for one in fields(value) if one.compare))


class Trials(TestCase):
    def test_leave_no_trace(self) -> None:
        """Another beat tried: the shoot comes to what it came to, and what is tried to what that comes to by itself."""
        for name in ("Harbour", "Fern", "Market"):
            plan = demo(name)
            known, alone = reckon(plan).shooting, reckon(plan).shooting
            assert known is not None and alone is not None
            beat = plan.beat.model_copy(update={"exposure_s": plan.beat.exposure_s * 2})
            tried = known.tried(beat=beat)
            wanted = reckon(plan.model_copy(update={"beat": beat})).shooting
            assert wanted is not None
            for number in ("cycle", "stops", "steps", "orders", "shuttered", "longest_by_beat", "poses"):
                self.assertTrue(same(getattr(tried, number), getattr(wanted, number)), number)
                self.assertTrue(same(getattr(known, number), getattr(alone, number)), number)

    def test_give_back_what_stands_behind_it(self) -> None:
        """The sun over the same frames, worked out in a trial: it is another one when the frames are others."""
        plan = demo("Harbour")
        shooting = reckon(plan).shooting
        assert shooting is not None
        sun = shooting.tried(beat=plan.beat.model_copy(update={"exposure_s": Fraction(1)})).sun
        self.assertIs(sun, shooting.sun)
        pegs = [{"quantity": peg.quantity, "value": str(peg.value * 2)} for peg in plan.clip.pegs]
        longer = edited(plan, "clip.pegs", pegs)
        after, alone = reckon(longer, before=shooting.reader.run).shooting, reckon(longer).shooting
        assert after is not None and alone is not None
        self.assertTrue(same(after.sun, alone.sun))
        self.assertFalse(same(after.sun, sun))

    def test_count_for_whoever_tries(self) -> None:
        """What a trial reads of what it has not changed, the node that tries has read."""

        def needs(shooting: Shooting) -> float:
            beat = shooting.plan.beat.model_copy(update={"settle_s": Fraction(3)})
            tried = shooting.tried(beat=beat)
            return tried.cycle.need_s + float(tried.steps["pan"].max())

        plan = demo("Harbour")
        shooting = reckon(plan).shooting
        assert shooting is not None
        was = shooting.ask(needs)
        memo = next(memo for key, memo in shooting.reader.run.memos().items() if key[1] is needs)
        read = named(memo.cells)
        self.assertNotIn("beat.settle_s", read)
        self.assertIn("beat.write_s", read)
        self.assertTrue({"move.keyframes", "rig.axes"} <= set(read), read)
        for path, value, alike in (
            ("beat.settle_s", "2", True), ("shoot.name", "x", True), ("light.cloud_stops", 1.0, True),
            ("move.keyframes.1.pan_deg", plan.move.keyframes[1].pan_deg + 40, False), ("beat.exposure_s", "1/2", False),
        ):  # fmt: skip
            after = reckon(edited(plan, path, value), before=shooting.reader.run).shooting
            alone = reckon(edited(plan, path, value)).shooting
            assert after is not None and alone is not None
            self.assertEqual(after.ask(needs), alone.ask(needs), path)
            self.assertEqual(math.isclose(after.ask(needs), was), alike, path)

    def test_of_an_edit_that_turns_nothing_are_taken_over(self) -> None:
        shooting = reckon(demo("Harbour")).shooting
        assert shooting is not None
        self.assertIs(shooting.tried(light=shooting.plan.light).positions, shooting.positions)
        move = shooting.plan.move
        keys = tuple(replace_of(key) for key in move.keyframes)
        self.assertIs(shooting.tried(move=move.model_copy(update={"keyframes": keys})).positions, shooting.positions)


def replace_of(key: Any) -> Any:
    return type(key).model_validate(key.model_dump(mode="json"))
