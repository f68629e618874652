"""A switch soldered across the button of a bought remote: what is joined to what, on the bench and on the card."""

from unittest import TestCase

from bridle.core.chapters.review.printing import print_card
from bridle.core.evaluate import evaluate
from bridle.core.given import NOTHING
from bridle.core.plan.document import Plan
from bridle.core.plan.edit import apply
from bridle.core.reckon.soldering import joined_pads, solderable
from tests.provoked_print import by_remote, printed

WIRES = ("red", "blue", "green")
TOUCHED = (("fires", 0, 2, True), ("fires", 1, 2, False), ("fires", 0, 1, False), ("focuses", 0, 1, True))


def sounded(*readings: tuple[str, int, int, bool], wires: tuple[str, ...] = WIRES) -> Plan:
    told = [{"ask": ask, "stage": "rest", "a": a, "b": b, "yes": yes} for ask, a, b, yes in readings]
    return by_remote(trigger__pads={"wires": list(wires), "readings": told})


class Soldering(TestCase):
    def test_what_is_joined_to_what(self) -> None:
        for name, plan, joined in (
            ("nothing read", sounded(), None),
            ("not all read", sounded(*TOUCHED), None),
            ("the third may focus or not", sounded(("fires", 0, 2, True), ("above", 2, 0, True)), None),
            ("all read", sounded(*TOUCHED, ("focuses", 1, 2, False)), ("red", "blue and green")),
            (
                "one stage, by its volts",
                sounded(("fires", 0, 1, True), ("above", 1, 0, True), wires=("red", "blue")),
                ("red", "blue"),
            ),
        ):
            with self.subTest(name):
                self.assertEqual(joined_pads(plan), joined)
                found = evaluate(plan)
                self.assertEqual("pads-not-known" in {snag.code for snag in found.snags}, joined is None)
                self.assertEqual(found.trigger.verdict == "not known", joined is None)
                told = " ".join(one.what for one in found.trigger.prepare)
                written = {
                    line.label: line.value.value for sheet in print_card(plan, NOTHING) for line in sheet.settings
                }
                if joined is None:
                    self.assertNotIn("its common contact goes to", written)
                else:
                    self.assertIn(f"common contact to {joined[0]}, and its open contact to {joined[1]}", told)
                    self.assertEqual(written["its common contact goes to"], f"{joined[0]} of the radio remote")
                    self.assertEqual(written["its open contact goes to"], joined[1])

    def test_only_a_remote_that_a_head_works_has_pads(self) -> None:
        self.assertIsNone(solderable(printed()))
        remote = solderable(by_remote())
        assert remote is not None
        self.assertEqual((remote.name, evaluate(by_remote()).trigger.remote), ("radio remote", "radio remote"))

    def test_a_cell_that_lasts_is_no_matter(self) -> None:
        for cell, fed, told in (
            (5, "its own cell", True),
            (6, "its own cell", False),
            (5, "a supply", False),
            (None, "its own cell", False),
        ):
            plan = by_remote(cell=cell)
            index = len(plan.kit.copies) - 1
            plan = by_remote(cell=cell, **{f"kit__copies__{index}__card__fed": fed})
            with self.subTest(cell=cell, fed=fed):
                self.assertEqual("remote-runs-empty" in {snag.code for snag in evaluate(plan).snags}, told)


class Places(TestCase):
    """The switch is put elsewhere from the table of its places."""

    def test_it_goes_there_and_is_to_be_read_anew(self) -> None:
        plan = printed()
        for place in evaluate(plan).printing.places:
            there = apply(plan, list(place.edits))[0]
            with self.subTest(place.rides, axis=place.axis, side=place.side):
                self.assertEqual(bool(place.edits), not place.here)
                [here] = [one for one in evaluate(there).printing.places if one.here]
                self.assertEqual((here.rides, here.axis, here.side), (place.rides, place.axis, place.side))
                self.assertEqual("coordinate" in evaluate(there).printing.missing, not place.here)
