"""Wires named from readings: against every labelling there is, worked out by another way."""

import itertools
from collections.abc import Iterator
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from bridle.core.subjects.circuits.contacts import Reading, Stage, Thing, named, questions

ROLES = {
    "release": ("ground", "focus", "shutter", "nothing"),
    "pads": ("ground", "focus", "shutter", "nothing"),
    "switch": ("common", "normally open", "normally closed", "nothing"),
}
Labels = tuple[str, ...]


def joined(thing: str, labels: Labels, stage: Stage, a: int, b: int) -> bool:
    """What the button closes, followed from wire to wire: a thing of copper, not a table."""
    bridges = [[n for n, label in enumerate(labels) if label == "ground"]]
    if thing != "switch":
        pressed = {"rest": ("ground",), "half": ("ground", "focus"), "full": ("ground", "focus", "shutter")}[stage]
        bridges += [[n for n, label in enumerate(labels) if label in pressed]]
    else:
        to = "normally open" if stage == "full" else "normally closed"
        bridges += [[n for n, label in enumerate(labels) if label in ("common", to)]]
    reached = {a}
    for _ in labels:
        for bridge in bridges:
            if reached & set(bridge):
                reached |= set(bridge)
    return b in reached


def answers(thing: str, labels: Labels, one: Reading) -> set[bool]:
    """What can come of a reading: a remote does by itself what comes with a press that is not the one asked for."""
    if one.ask == "above":
        return {labels[one.a] in ("focus", "shutter") and labels[one.b] == "ground"}
    touched = {labels[one.a], labels[one.b]}
    if one.ask == "focuses":
        pressed = {"shutter", "ground"}, {"shutter", "focus"}
        return {True} if touched == {"focus", "ground"} else {True, False} if touched in pressed else {False}
    if one.ask == "fires":
        return (
            {True}
            if touched == {"shutter", "ground"}
            else {True, False}
            if touched == {"shutter", "focus"}
            else {False}
        )
    return {joined(thing, labels, one.stage, one.a, one.b)}


def said(thing: str, labels: Labels, one: Reading) -> bool:
    """Some answer that can come."""
    return max(answers(thing, labels, one))


def labellings(thing: str, wires: int) -> Iterator[Labels]:
    for labels in itertools.product(ROLES[thing], repeat=wires):
        counts = {role: labels.count(role) for role in ROLES[thing]}
        if thing != "switch":
            if counts["ground"] >= 1 and counts["shutter"] == 1 and counts["focus"] <= 1:
                yield labels
        elif counts["common"] == 1 and max(counts["normally open"], counts["normally closed"]) == 1:
            yield labels


@st.composite
def puzzles(draw: st.DrawFn) -> tuple[Thing, Labels, list[Reading]]:
    """A thing with its true labels, and some readings of it."""
    thing: Thing = draw(st.sampled_from(["release", "pads", "switch"]))
    wires = draw(st.integers(2, 4))
    labels = draw(st.sampled_from(list(labellings(thing, wires))))
    asked = draw(st.lists(st.sampled_from(list(questions(thing, wires))), max_size=12, unique=True))
    return (
        thing,
        labels,
        [one._replace(yes=draw(st.sampled_from(sorted(answers(thing, labels, one))))) for one in asked],
    )


class Contacts(TestCase):
    @given(puzzles())
    def test_what_is_named_is_what_every_labelling_that_fits_has(
        self, puzzle: tuple[Thing, Labels, list[Reading]]
    ) -> None:
        thing, labels, readings = puzzle
        fit = [way for way in labellings(thing, len(labels)) if all(r.yes in answers(thing, way, r) for r in readings)]
        told = named(thing, len(labels), readings)
        self.assertEqual(told.left, len(fit))
        for wire, role in enumerate(told.roles):
            every = {way[wire] for way in fit}
            self.assertEqual(role, every.pop() if len(every) == 1 else None)
        self.assertEqual(told.against, ())

    @given(puzzles())
    def test_the_next_reading_leaves_the_fewest_at_worst(self, puzzle: tuple[Thing, Labels, list[Reading]]) -> None:
        thing, labels, readings = puzzle
        wires = len(labels)
        fit = [way for way in labellings(thing, wires) if all(r.yes in answers(thing, way, r) for r in readings)]

        def halves(one: Reading) -> tuple[list[Labels], list[Labels]]:
            each = [(way, answers(thing, way, one)) for way in fit]
            return [way for way, come in each if True in come], [way for way, come in each if False in come]

        told = named(thing, wires, readings)
        best = min(max(map(len, halves(one))) for one in questions(thing, wires))
        if told.next is None:
            self.assertEqual(best, len(fit), "no reading tells more")
            return
        self.assertEqual(max(map(len, halves(told.next))), best)
        alike = [len({tuple(frozenset(answers(thing, way, one)) for one in questions(thing, wires)) for way in half})
                 for half in halves(told.next)]  # fmt: skip
        self.assertEqual(told.settles, alike == [1, 1])

    @given(puzzles())
    def test_asking_on_comes_to_an_end_and_never_names_a_wire_wrong(
        self, puzzle: tuple[Thing, Labels, list[Reading]]
    ) -> None:
        thing, labels, readings = puzzle
        for _ in range(12):
            told = named(thing, len(labels), readings)
            for role, label in zip(told.roles, labels, strict=True):
                self.assertIn(role, (None, label))
            if told.next is None:
                break
            readings = [*readings, told.next._replace(yes=said(thing, labels, told.next))]
        self.assertIsNone(told.next)
        if thing != "switch" and len(labels) == 3 and "nothing" not in labels and labels.count("ground") == 1:
            self.assertEqual(told.roles, labels, "three wires of a two-stage button can all be named")

    @given(puzzles(), st.data())
    def test_readings_that_contradict_are_told_and_none_to_spare(
        self, puzzle: tuple[Thing, Labels, list[Reading]], data: st.DataObject
    ) -> None:
        thing, labels, readings = puzzle
        lied = data.draw(st.sampled_from(list(questions(thing, len(labels)))))
        readings = [*readings, lied._replace(yes=not said(thing, labels, lied))]
        told = named(thing, len(labels), readings)
        if told.left:
            return
        every = list(labellings(thing, len(labels)))

        def possible(some: list[Reading]) -> bool:
            return any(all(r.yes in answers(thing, way, r) for r in some) for way in every)

        self.assertFalse(possible(list(told.against)))
        for one in told.against:
            self.assertTrue(possible([other for other in told.against if other is not one]))

    def test_a_full_press_cannot_tell_focus_from_ground(self) -> None:
        """Half and full press name the shutter alone; which of the other two is the ground a voltage tells."""
        readings = [Reading("closed", "rest", 0, 1, False)]
        readings += [Reading("closed", "half", 0, 1), Reading("closed", "half", 0, 2, False)]
        readings += [Reading("closed", "full", a, b) for a, b in ((0, 1), (0, 2), (1, 2))]
        told = named("release", 3, readings)
        self.assertEqual(told.roles, (None, None, "shutter"))
        assert told.next is not None
        self.assertEqual((told.next.ask, told.settles), ("above", True))
        told = named("release", 3, [*readings, Reading("above", "rest", 1, 0)])
        self.assertEqual(told.roles, ("ground", "focus", "shutter"))

    def test_pads_are_named_by_touching_them_alone(self) -> None:
        """Two that fire and two that focus have the ground in common, once the third pair is known to do nothing."""
        fires = [
            Reading("fires", "rest", 0, 2),
            Reading("fires", "rest", 1, 2, False),
            Reading("fires", "rest", 0, 1, False),
        ]
        told = named("pads", 3, [*fires, Reading("focuses", "rest", 0, 1), Reading("focuses", "rest", 1, 2, False)])
        self.assertEqual(told.roles, ("ground", "focus", "shutter"))
        self.assertIsNone(told.next)
        both = named(
            "pads", 3, [Reading("fires", "rest", 0, 1), Reading("fires", "rest", 0, 2), Reading("fires", "rest", 1, 2)]
        )
        self.assertEqual(both.left, 0, "three pairs cannot all fire")

    def test_what_is_no_reading(self) -> None:
        for thing, wires, readings in (
            ("release", 1, []),
            ("release", 7, []),
            ("release", 3, [Reading("closed", "half", 1, 1)]),
            ("release", 3, [Reading("closed", "half", 1, 3)]),
            ("switch", 3, [Reading("closed", "half", 0, 1)]),
        ):
            with self.subTest(thing=thing, wires=wires), self.assertRaises(ValueError):
                named(thing, wires, readings)  # type: ignore[arg-type]
