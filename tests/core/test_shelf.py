"""Cards made, changed into another kind of thing, and their tables: what is kept, what is usual, what is not known."""

from typing import Any, get_args
from unittest import TestCase

from pydantic import TypeAdapter

from bridle.core.asks.shelf import CARD, MADE, CardChange, Like, changed, made, usual
from bridle.core.plan.edit import PathError
from bridle.core.plan.kit import AnyCard, AxisCard
from bridle.core.quantity import QuantityError

CHANGE: TypeAdapter[Any] = TypeAdapter(CardChange)


def after(card: AnyCard, **change: Any) -> Any:
    return changed(card, CHANGE.validate_python(change))


def with_(card: AnyCard, **values: Any) -> AnyCard:
    return CARD.validate_python(card.model_dump(mode="json") | values)


SWITCHES = with_(made("axis"), drive={"kind": "stepped"}, name="slider")


class Making(TestCase):
    def test_every_kind_that_is_offered_is_made_with_nothing_but_usual_figures(self) -> None:
        self.assertEqual(set(get_args(get_args(Like)[0])) | set(get_args(get_args(Like)[1])), set(MADE))
        for like in MADE:
            card = made(like)  # type: ignore[arg-type]
            figures = {path for path in usual(card) if path.endswith(("_mm", "_g", "_s", "low", "high"))}
            dumped = {path for path in card.model_dump() if path.endswith(("_mm", "_g", "_s", "low", "high"))}
            self.assertLessEqual(dumped, figures | {"more"}, like)

    def test_what_was_typed_or_measured_is_not_usual_though_it_says_the_same(self) -> None:
        card = made("body")
        self.assertIn("write_s", usual(card))
        self.assertNotIn("write_s", usual(with_(card, typed=["write_s"])))
        self.assertNotIn("write_s", usual(with_(card, write_s="2")))
        measured = [{"field": "write_s", "value": 0.6, "spread": 0, "on": "2026-09-01"}]
        self.assertNotIn("write_s", usual(with_(card, measured=measured)))


class Kinds(TestCase):
    def test_another_drive_keeps_what_means_the_same_with_it(self) -> None:
        belt = with_(made("axis"), drive={"kind": "belt", "microsteps": 32, "teeth": 16, "torque_nmm": 220})
        screw = after(belt, do="set", path="drive.kind", value="screw").drive
        self.assertEqual((screw.kind, screw.microsteps, screw.torque_nmm, screw.lead_mm), ("screw", 32, 220, 8))
        self.assertEqual(screw.efficiency, 0.4, "what nobody touched is usual for the other kind")
        spring = after(belt, do="set", path="drive.kind", value="clockwork").drive
        self.assertEqual(spring.model_dump(), type(spring)().model_dump())

    def test_what_was_measured_goes_with_the_figure_it_was_measured_on(self) -> None:
        measured = [{"field": field, "value": 1.0, "spread": 0, "on": "2026-09-01"}
                    for field in ("drive.correction", "backlash")]  # fmt: skip
        card = with_(made("axis"), measured=measured, drive={"kind": "belt", "correction": 1.01})
        fields = [one.field for one in after(card, do="set", path="drive.kind", value="clockwork").measured]
        self.assertEqual(fields, ["backlash"])

    def test_a_rail_that_turns_has_no_travel_of_900_degrees(self) -> None:
        rail = with_(made("axis"), high=640, mass_g=1234, beam={"count": 1}, drive={"kind": "belt", "microsteps": 64})
        head = after(rail, do="set", path="motion", value="rotary")
        self.assertEqual((head.low, head.high, head.top_speed, head.beam), (-170, 170, 20, None))
        self.assertEqual((head.mass_g, head.drive.kind, head.drive.microsteps), (1234, "gear", 64))
        back = after(head, do="set", path="motion", value="linear")
        self.assertEqual((back.low, back.high, back.drive.kind, back.drive.microsteps), (0, 900, "belt", 64))

    def test_a_head_is_one_card_whose_axes_turn_each_another_way(self) -> None:
        card = made("turning axis")
        head = after(card, do="set", path="more", value=[{"turns": "tilt"}, {"turns": "roll"}])
        self.assertEqual([axis.turns for _, axis in head.each()], ["pan", "tilt", "roll"])
        for wrong in ([{"turns": "pan"}], [{"turns": "tilt"}] * 2, "tilt", [{"turns": "focus"}]):
            with self.assertRaises(ValueError):
                after(card, do="set", path="more", value=wrong)
        with self.assertRaises(ValueError):
            after(made("axis"), do="set", path="more", value=[{"turns": "tilt"}])
        self.assertEqual(after(head, do="set", path="motion", value="linear").more, ())

    def test_the_travel_that_a_rail_leaves_can_be_taken(self) -> None:
        rail = with_(made("axis"), length_mm=1000, carriage_mm=100, end_margin_mm=15)
        taken = after(rail, do="take-travel")
        self.assertEqual((taken.low, taken.high), (0, 870))
        for nothing in (made("axis"), made("head"), made("lens")):
            with self.assertRaises(PathError):
                after(nothing, do="take-travel")


class Tables(TestCase):
    def test_rows_are_added_under_the_next_name_and_taken_away(self) -> None:
        card = after(SWITCHES, do="add-row", path="drive.codes")
        self.assertEqual([code.code for code in card.drive.codes], ["1", "2", "3", "4", "5"])
        fewer = after(card, do="drop-row", path="drive.codes", row=1)
        self.assertEqual([code.code for code in fewer.drive.codes], ["1", "3", "4", "5"])
        dial = with_(SWITCHES, drive={"kind": "dial"})
        self.assertEqual(
            [point.dial for point in after(dial, do="add-row", path="drive.points").drive.points], [0, 10, 11]
        )
        second = with_(SWITCHES, drive={"kind": "moves"})
        for dials in ([0], [0, 1]):
            second = after(second, do="add-row", path="drive.paces")
            self.assertEqual([pace.dial for pace in second.drive.paces], dials)
        self.assertEqual(after(after(second, do="drop-row", path="drive.paces", row=0),
                               do="drop-row", path="drive.paces", row=0).drive.paces, ())  # fmt: skip
        letters = with_(
            SWITCHES, drive={"kind": "moves", "positions": [{"name": "A", "each": 1}, {"name": "B", "each": 2}]}
        )
        assert isinstance(letters, AxisCard)
        self.assertEqual(after(letters, do="add-row", path="drive.positions").drive.positions[-1].name, "C")

    def test_what_cannot_be_is_refused_in_words(self) -> None:
        one = after(SWITCHES, do="rows", path="drive.codes", text="1 600")
        for error, change in (
            (ValueError, {"do": "drop-row", "path": "drive.codes", "row": 0}),
            (PathError, {"do": "drop-row", "path": "drive.codes", "row": 7}),
            (PathError, {"do": "add-row", "path": "drive.nothing"}),
            (PathError, {"do": "rows", "path": "drive.codes", "text": "  "}),
            (QuantityError, {"do": "rows", "path": "drive.codes", "text": "1 600\n2 soon"}),
            (QuantityError, {"do": "rows", "path": "drive.codes", "text": "alone"}),
            (PathError, {"do": "rows", "path": "measured", "text": "1 600"}),
        ):
            with self.subTest(change), self.assertRaises(error):
                after(one, **change)
        with self.assertRaisesRegex(QuantityError, "line 2: 2 soon"):
            after(one, do="rows", path="drive.codes", text="1 600\n2 soon")

    def test_sixteen_run_times_are_written_in_one_go(self) -> None:
        """As people have them in a note: blanks, commas, tabs; minutes or hours and minutes, or with a unit."""
        text = "\n".join(
            ["0000 9 min", "0001, 12 min", "0010\t15", "0011: 0:20", *(f"{n:04b}  {n * 600}s" for n in range(4, 16))]
        )
        codes = after(SWITCHES, do="rows", path="drive.codes", text=text).drive.codes
        self.assertEqual(len(codes), 16)
        self.assertEqual([code.run_s for code in codes[:5]], [540, 720, 900, 1200, 2400])
        self.assertEqual(codes[-1].code, "1111")

    def test_of_a_head_each_axis_has_its_own(self) -> None:
        head = after(made("turning axis"), do="set", path="more", value=[{"turns": "tilt", "drive": {"kind": "rated"}}])
        fuller = after(head, do="add-row", path="more.0.drive.keys")
        self.assertEqual([key.name for key in fuller.more[0].drive.keys], ["1", "2"])
