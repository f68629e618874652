"""The wiring diagram on its geometry: nothing lies on anything else, for any chain of the table and any other."""

from itertools import combinations, pairwise
from unittest import TestCase

from hypothesis import given

from bridle.core.chapters.trigger.diagram import diagram
from bridle.core.chapters.trigger.lamp_circuits import lamp_circuits
from bridle.core.chapters.trigger.state import BlockDrawn, Diagram, Glyph, Written
from bridle.core.plan.document import Plan
from bridle.core.reckon.wiring import called, wiring
from tests.core.test_wiring import soldered
from tests.wired import BODY, CHAINS, chain

# How wide a letter is at most in the narrow face of the labels, and how high a line of them.
LETTER, HIGH = {"title": 7.0, "lead": 6.6, "end": 6.2, "value": 6.2}, 12.0
Box = tuple[float, float, float, float]
Segment = tuple[float, float, float, float]


def box(word: Written) -> Box:
    wide = len(word.text) * LETTER[word.role]
    left = word.at[0] - {"start": 0.0, "middle": wide / 2, "end": wide}[word.anchor]
    return left, word.at[1] - HIGH + 3, left + wide, word.at[1] + 3


def meet(a: Box, b: Box) -> bool:
    return a[0] < b[2] and b[0] < a[2] and a[1] < b[3] and b[1] < a[3]


# Symbols with a body of their own, that no other may lie on.
BODIES = ("button", "led", "transistor", "coil", "diode")


def body(glyph: Glyph) -> Box:
    low, high = sorted((glyph.a[1], glyph.b[1]))
    return glyph.a[0] - 9, low, glyph.a[0] + 9, high


def segments(lines: tuple[tuple[tuple[float, ...], ...], ...]) -> list[Segment]:
    found = []
    for line in lines:
        for (x1, y1), (x2, y2) in pairwise(line):
            found.append((min(x1, x2), min(y1, y2), max(x1, x2), max(y1, y2)))
    return found


def on_one_another(a: Segment, b: Segment) -> bool:
    """Two lines that run along one another; crossing at a right angle is none of that."""
    upright = a[0] == a[2] and b[0] == b[2]
    level = a[1] == a[3] and b[1] == b[3]
    if upright and not level:
        return abs(a[0] - b[0]) < 3 and a[1] < b[3] and b[1] < a[3]
    if level and not upright:
        return abs(a[1] - b[1]) < 3 and a[0] < b[2] and b[0] < a[2]
    return False


class Drawn(TestCase):
    """Each diagram as it is drawn."""

    def clear(self, made: Diagram) -> None:
        """Wires off one another, off the blocks and off the words; words off one another and inside of the sheet."""
        wires = [segments(wire.lines) for wire in made.wires]
        for one, other in combinations(wires, 2):
            for a in one:
                self.assertFalse(any(on_one_another(a, b) for b in other), (a, other))
        words = [(word.text, box(word)) for word in made.words]
        for (said, a), (other_said, b) in combinations(words, 2):
            self.assertFalse(meet(a, b), (said, other_said, a, b))
        blocks = [(one.x, one.y, one.x + one.width, one.y + one.height) for one in made.blocks]
        for a, b in combinations(blocks, 2):
            self.assertFalse(meet(a, b))
        inner = [segments(one.lines) for one in made.blocks]
        for wire in wires:
            for x1, y1, x2, y2 in wire:
                thin = (x1 + 0.5, y1 - 0.5, x2 - 0.5, y2 + 0.5) if y1 == y2 else (x1 - 0.5, y1, x1 + 0.5, y2)
                self.assertFalse(any(meet(thin, b) for b in blocks), thin)
                self.assertFalse([said for said, b in words if meet(thin, b)])
        for lines in inner:
            for x1, y1, x2, y2 in lines:
                thin = (x1, y1 - 0.5, x2, y2 + 0.5)
                self.assertFalse([said for said, b in words if meet(thin, b)], thin)
        for said, (left, top, right, low) in words:
            self.assertTrue(left >= 0 and right <= made.width and top >= 0 and low <= made.height, (said, left, right))
        for block in made.blocks:
            self.apart(block)
            columns = [body(glyph) for glyph in block.glyphs if glyph.name in BODIES]
            for a, b in combinations(columns, 2):
                self.assertFalse(meet(a, b), (a, b))
            for glyph in block.glyphs:
                for x, _ in (glyph.a, glyph.b):
                    self.assertTrue(block.x < x < block.x + block.width, glyph)
                if glyph.a[0] == glyph.b[0] and glyph.name not in ("plug", "ring", "open", "closed"):
                    column = (glyph.a[0] - 7, min(glyph.a[1], glyph.b[1]), glyph.a[0] + 7, max(glyph.a[1], glyph.b[1]))
                    self.assertFalse([said for said, b in words if meet(column, b)], glyph)

    def apart(self, block: BlockDrawn) -> None:
        """Inside a block the lines of two ends never touch: what is drawn together would be soldered together."""
        by_end = [segments((line,)) for line in block.lines if any(end.at in (line[0], line[-1]) for end in block.ends)]
        level = [[one for one in lines if one[1] == one[3]] for lines in by_end]
        for one, other in combinations(level, 2):
            for a in one:
                for b in other:
                    self.assertFalse(a[1] == b[1] and a[0] <= b[2] + 8 and b[0] <= a[2] + 8, (block.part, a, b))

    def whole(self, plan: Plan, made: Diagram) -> None:
        """What is drawn is what is joined, end by end."""
        wired = wiring(plan)
        assert wired is not None
        name = called(wired.pairs)
        joined = {end for join in wired.joins for end in (join.a, join.b)}
        nets = {frozenset(end for end in joined if name(end) == root) for root in map(name, joined)}
        self.assertEqual({frozenset(wire.ends) for wire in made.wires}, nets)
        at = {end.end: end.at for block in made.blocks for end in block.ends}
        for wire in made.wires:
            ends = {point for line in wire.lines for point in (line[0], line[-1])}
            for end in wire.ends:
                self.assertIn(at[end], ends)

    def test_every_chain_of_the_table_is_drawn_clear(self) -> None:
        """Thirty and more, right and wrong ones."""
        for name, (plan, *_) in CHAINS.items():
            with self.subTest(name):
                wired = wiring(plan)
                assert wired is not None
                made = diagram(plan, wired)
                self.clear(made)
                self.whole(plan, made)

    def test_so_is_the_circuit_of_each_lamp(self) -> None:
        """For the frame or off for it, by a level or by a push, on the mains; the right contact closes each loop."""
        for lit, contact in (("for the frame", "open"), ("between frames", "closed")):
            for lamp in ({}, {"switch": "toggle"}, {"on_mains": True}, {"name": "a lamp with a very long name " * 3}):
                use = {"lamp": "grow-lamp", "lit": lit, "pin": "D13"}
                plan = chain(
                    "microcontroller", "optocoupler", BODY, "grow-lamp", grow_lamp=lamp, trigger={"lamps": [use]}
                )
                (made,) = lamp_circuits(plan)
                self.clear(made)
                nets = {frozenset(wire.ends) for wire in made.wires}
                if not lamp.get("on_mains"):
                    expected = "open" if lamp.get("switch") else contact
                    end = "lamp.one" if lamp.get("switch") else "lamp.lamp"
                    self.assertIn(frozenset((f"switch.{expected}", end)), nets)
                self.assertIn("pin D13", {word.text for word in made.words})

    @given(soldered())
    def test_so_is_any_other(self, plan: Plan) -> None:
        """Whatever is joined with whatever."""
        wired = wiring(plan)
        assert wired is not None
        made = diagram(plan, wired)
        self.clear(made)
        self.whole(plan, made)
