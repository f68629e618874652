"""What is said is said of this rig: no belt to a lead screw, no rail to a turntable; and what is so long is named."""

import re
from collections.abc import Callable
from fractions import Fraction as F
from unittest import TestCase

from hypothesis import given

from bridle.core.evaluate import evaluate
from bridle.core.evaluation import Evaluation
from bridle.core.plan.document import Plan
from bridle.core.plan.kit import AxisCard, Support
from bridle.core.plan.marks import Mark
from bridle.core.plan.move import Keyframe, Move
from bridle.core.plan.rig import Rig, Standing
from bridle.core.snag import Slot, Snag, fill
from bridle.core.subjects.motion.drives.belt import Belt
from bridle.core.subjects.motion.drives.clockwork import Clockwork
from tests.mutated import EXAMPLES, unshrunk
from tests.provoked import PROVOKE, provoked
from tests.sentences import FILE, as_text, spoken
from tests.strategies import copies, fitted, plan_of, plans

HELD = {"rate": F(25), "shoot": F(3600), "interval": F(10)}

# Words for parts, and whether a rig has such a part.
PARTS: dict[str, Callable[[Plan], bool]] = {
    r"belts?|pulleys?": lambda plan: any(isinstance(card.drive, Belt) for card in axes_of(plan)),
    r"springs?|wound|wind it": lambda plan: any(isinstance(card.drive, Clockwork) for card in axes_of(plan)),
    r"rails?|carriages?|slides?": lambda plan: has_rail(plan),
    r"tripods?|feet|foot": lambda plan: any(isinstance(copy.card, Support) for copy in plan.kit.copies),
    r"stations?": lambda plan: plan.move.visits is not None and plan.move.visits.kind == "stations",
}
# What a length or an angle may be of: an axis, or something that has one.
NAMED = re.compile(
    r"\b(camera|slide|pan|tilt|roll|focus|zoom|rail|carriage|ring|lens|mark|support|feet|screw|hole|plate|platform|lead|rod|"
    r"picture|frame|move|drive|scale|shaft|base|stack|washer|key|level|lower|body|axis|post|wide|washer|bearing|filament|head|click|part|height|window|mast|mount)\w*",
    re.IGNORECASE,
)
LONG = ("mm", "deg", "mm/s", "deg/s")


def axes_of(plan: Plan) -> list[AxisCard]:
    return [copy.card for copy in plan.kit.copies if isinstance(copy.card, AxisCard)]


def has_rail(plan: Plan) -> bool:
    return plan.rig.axis("slide") is not None or any(card.motion == "linear" for card in axes_of(plan))


def sentences(snag: Snag) -> list[tuple[str, dict[str, Slot]]]:
    return [
        (snag.what, snag.slots), (snag.why, snag.slots), (snag.short, snag.slots),
        *((text, fix.slots) for fix in snag.fixes for text in (fix.label, fix.consequence)),
    ]  # fmt: skip


class OfThisRig(TestCase):
    def parts(self, plan: Plan, told: Evaluation) -> None:
        absent = [word for word, there in PARTS.items() if not there(plan)]
        for snag in told.snags:
            # What is missing is called by its name.
            for text, slots in sentences(snag) if snag.code != "round-without-axis" else ():
                said = fill(text, slots)
                for word in absent:
                    self.assertIsNone(re.search(rf"\b({word})\b", said, re.IGNORECASE), f"{snag.code}: {said}")

    @unshrunk(max(60, EXAMPLES // 2))
    @given(plans)
    def test_no_part_is_spoken_of_that_is_not_there(self, plan: Plan) -> None:
        self.parts(plan, evaluate(plan))

    def test_nor_where_a_snag_is_called_up(self) -> None:
        for code, plan in PROVOKE.items():
            with self.subTest(code):
                self.parts(plan, provoked(code))

    def test_a_length_says_what_it_is_of(self) -> None:
        for code in PROVOKE:
            for snag in provoked(code).snags:
                for text, slots in sentences(snag):
                    used = {name for name in re.findall(r"{(\w+)}", text) if name in slots}
                    if any(slots[name].unit in LONG for name in used):
                        with self.subTest(code, said=text):
                            self.assertRegex(fill(text, slots), NAMED)


class Called(TestCase):
    def test_a_name_has_one_article(self) -> None:
        """As people call their things; the page does the same."""
        for name, said in (
            ("my head", "My head sags."),
            ("The old rail", "The old rail sags."),
            ("a-frame", "The a-frame sags."),
            ("myrtle post", "The myrtle post sags."),
        ):
            self.assertEqual(fill("The {part} sags.", {"part": Slot(name, "")}), said)
        self.assertEqual(fill("On the {part}.", {"part": Slot("our rail", "")}), "On our rail.")


class ForItsReason(TestCase):
    """One finding with several reasons is told by the one that holds."""

    def said(self, plan: Plan, code: str) -> list[str]:
        return [fill(f"{one.what} {one.why}", one.slots) for one in evaluate(plan).snags if one.code == code]

    def test_too_slow_by_its_top_speed_or_by_getting_there(self) -> None:
        """From rest to rest 0.5 mm take 2 · √(0.5 / 80) = 0.158 s; at 25 mm/s they would take 0.02 s."""
        for far, interval, reason in ((900, F(8), "top speed of 25 mm/s"), (1.5, F(1, 10), "Speeding up by 80 mm/s²")):
            keys = (Keyframe(), Keyframe(slide_mm=far))
            held = {"rate": F(25), "frames": F(4), "interval": interval}
            (told,) = self.said(plan_of(held, move=Move(keyframes=keys)), "axis-too-slow")
            self.assertIn(reason, told)

    def test_a_mark_is_elsewhere_away_from_the_rail_or_along_it(self) -> None:
        """Two aims that meet at 1000 mm along and 1500 mm off the rail."""
        aimed = {"slide_1_mm": 0, "pan_1_deg": 33.69, "slide_2_mm": 800, "pan_2_deg": 7.595}
        for x, y, wanted in ((1000, 4000, "4000 mm off the rail"), (300, 1500, "300 mm along the rail")):
            mark = Mark.model_validate({"name": "post", "x_mm": x, "y_mm": y, "aimed": aimed})
            (told,) = self.said(plan_of(HELD, move=Move(marks=(mark,))), "mark-elsewhere")
            self.assertIn(f"The post is drawn {wanted}; two aims put it between", told)

    def test_a_lens_creeps_by_the_tilt_of_the_camera_or_the_slope_of_its_rail(self) -> None:
        down = Move(keyframes=(Keyframe(tilt_deg=-30), Keyframe(tilt_deg=-30)))
        steep = Rig(standing=Standing(slope_deg=12))
        for sections, rig, wanted in (
            ({"move": down}, ("tripod",), "the camera is tilted down by 30°"),
            ({"rig": steep}, ("tripod", "belt-rail"), "the rail stands at 12°"),
            ({"rig": steep.model_copy(update={"axes": ()})}, ("tripod",), None),
        ):
            told = self.said(fitted(plan_of(HELD, **sections), copies("24-70", *rig)), "lens-creeps")
            self.assertEqual([wanted in one for one in told if wanted], [True] if wanted else [])


class Grammar(TestCase):
    """Article, number and unit of whatever is said."""

    # A vowel as it is heard: “an hour”, “a unit”; letters that are spelt, and numbers from eight on.
    AN = re.compile(r"(?<!\d )\b[Aa]n? (\w+)")
    HEARD = re.compile(r"[aeiou8]|11|18|hour|f/|MP|mm\b", re.IGNORECASE)
    NOT_HEARD = re.compile(r"uni|use|usu|one|once|eu", re.IGNORECASE)
    FEW = re.compile(r"(?<![\d.,−\u2009])1 (frames|keyframes|cards|pictures|degrees|stops|starts|lines|positions)\b")
    MANY = re.compile(r"\b([2-9]|[1-9]\d+) (frame|keyframe|card|picture|start|line|position)\b(?! [a-z]+ing)")
    BARE = re.compile(r"(\{(\w+)\})(?! ?[°%×])")

    def test_of_every_sentence(self) -> None:
        for code, _, said in spoken():
            with self.subTest(code, said=said):
                for found in self.AN.finditer(said):
                    word, article = found[1], found[0].split()[0].lower()
                    vowel = bool(self.HEARD.match(word)) and not self.NOT_HEARD.match(word)
                    self.assertEqual(article, "an" if vowel else "a", found[0])
                self.assertIsNone(self.FEW.search(said))
                self.assertIsNone(self.MANY.search(said))
                self.assertNotRegex(said, r"\b(None|nan|inf|null)\b|  | [.,;:]|\.\.|\{|\}|_")
                self.assertRegex(said, r"^[A-Z0-9−⅓½¼]", "begins like a sentence")
                self.assertNotRegex(said, r"\b([a-z]+) \1\b", "says a word twice")

    def test_every_number_has_its_unit(self) -> None:
        """A slot without a unit is a count of something that the sentence names, a clock, or a name."""
        for code in PROVOKE:
            snag = next(one for one in provoked(code).snags if one.code == code)
            for text, slots in sentences(snag):
                for found in self.BARE.finditer(text):
                    slot = slots[found[2]]
                    if not isinstance(slot.value, str) and not slot.unit:
                        after = text[found.end() :]
                        before = text[: found.start()]
                        self.assertTrue(
                            re.match(r" [a-z]+", after) or re.search(r"(frame|number|at|to|of|setting|dial) $", before),
                            f"{code}: {text}",
                        )

    def test_the_list_of_them_is_up_to_date(self) -> None:
        self.assertEqual(FILE.read_text(encoding="utf-8"), as_text(), "make docs writes it anew")
