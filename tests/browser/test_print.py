"""The print bench: a file put on it becomes a shoot, is proven and taken along; the chapter of the lantern."""

import re
from pathlib import Path
from tempfile import TemporaryDirectory

from playwright.sync_api import Page, expect

from bridle.core.subjects.parking.blocks import strip
from tests.browser.pages import BrowserCase, chapter, figure, leaf, type_over
from tests.browser.printed import printed
from tests.gcode import Dialect, program
from tests.prints.test_files import SQUARE

LANTERN = "Lattice lantern"
CUP = program(Dialect(), SQUARE * 2)
# What the canvas shows: how much of it is not the film's colour.
INK = """canvas => {
    const { data } = canvas.getContext('2d').getImageData(0, 0, canvas.width, canvas.height);
    let inked = 0;
    for (let n = 0; n < data.length; n += 4) if (Math.abs(data[n] - data[0]) > 60) inked++;
    return inked / (data.length / 4);
}"""

# The same of the outermost eighth to the right, where a head is parked at the high end of X; its middle is the film's.
BESIDE = """canvas => {
    const wide = Math.round(canvas.width / 8);
    const { data } = canvas.getContext('2d').getImageData(canvas.width - wide, 0, wide, canvas.height);
    let inked = 0;
    for (let n = 0; n < data.length; n += 4) if (Math.abs(data[n] - data[0]) > 60) inked++;
    return inked / (data.length / 4);
}"""


def put(page: Page, name: str, text: bytes) -> None:
    """Choose a file, as a person does."""
    file = {"name": name, "mimeType": "text/plain", "buffer": text}
    page.locator('input[type="file"]').set_input_files(file)  # type: ignore[arg-type]


def taken(page: Page) -> None:
    """Say on which printer it is printed, and which switch its head meets."""
    todo = page.get_by_role("region", name="What is still to be told")
    for card in ("moving-bed printer, 235 mm", "lever switch on the beam"):
        todo.get_by_role("button", name=card).click()
    expect(todo).to_have_count(0)


STEPS_SEEN = """() => {
  window.stepsSeen = [];
  const look = () => {
    const now = document.querySelector('tr.now')?.dataset.step;
    if (now && window.stepsSeen.at(-1) !== now) window.stepsSeen.push(now);
    requestAnimationFrame(look);
  };
  look();
}"""


class Bench(BrowserCase):
    def test_a_file_becomes_a_shoot_and_is_proven(self) -> None:
        page = self.page("/bench")
        put(page, "little_cup.gcode", CUP)
        row = page.get_by_role("listitem", name="little_cup.gcode")
        expect(row).to_contain_text("12 layers, 2.4 mm high")
        expect(row).to_contain_text("of the shoot Little cup")
        row.get_by_role("link", name="little_cup.gcode").click()
        # Which printer it is nobody guesses: the kit has one of each, and each is one click.
        taken(page)
        expect(page.get_by_role("heading", name=re.compile("^12 frames of 12 layers"))).to_be_visible()
        figure(page, "every how many layers").wait_for()
        type_over(page, "every how many layers", "3")
        expect(page.get_by_role("heading", name=re.compile("^4 frames of 12 layers"))).to_be_visible()
        leaf(page, "File and proof")
        page.get_by_role("button", name="Write it and prove it").click()
        told = re.compile("^Proven: 4 presses, one at each of 4 layers; every printed move is the original")
        expect(page.get_by_text(told)).to_be_visible()
        with page.expect_download() as got, TemporaryDirectory() as folder:
            page.get_by_role("link", name="Take it along", exact=True).click()
            to = Path(folder) / got.value.suggested_filename
            got.value.save_as(to)
            self.assertEqual(to.name, "little_cup with stops.gcode")
            changed = to.read_bytes()
        self.assertEqual((changed.count(b"G1 X240.6 F1200"), b"".join(strip([changed]))), (4, CUP))
        # Told that the slicer puts the stops in, it proves the file as it came, which has none.
        leaf(page, "The stop")
        page.get_by_role("checkbox", name="the slicer’s field").check()
        expect(page.locator("pre")).to_contain_text("G1 X240.6 F1200")
        leaf(page, "File and proof")
        page.get_by_role("button", name="Prove the file as it came").click()
        came = page.locator("article").filter(has_text="The file as it came")
        expect(came).to_have_attribute("data-proof", "failed")
        expect(came).to_contain_text("No press comes where this layer is done. 4 times in all")
        page.get_by_role("button", name="undo").click()
        # Another choice of layers, and the proof says that it is of something else.
        leaf(page, "The bed")
        type_over(page, "every how many layers", "2")
        # The heading grows with that, and the leaves' links move.
        expect(page.get_by_role("heading", level=2)).to_contain_text("changed since")
        leaf(page, "File and proof")
        expect(page.locator("[data-proof]").first).to_have_attribute("data-proof", "older")

    def test_what_a_proof_finds_is_said_and_drawn(self) -> None:
        """The wait is too short for a long exposure: the proof says where, and the fix mends it."""
        page = self.page("/bench")
        put(page, "cup.gcode", CUP)
        page.get_by_role("listitem", name="cup.gcode", exact=True).get_by_role("link", name="cup.gcode").click()
        taken(page)
        chapter(page, "Clip")
        leaf(page, "One beat")
        type_over(page, "exposure", "4s")
        chapter(page, "Print")
        leaf(page, "The stop")
        type_over(page, "wait for the picture", "0.2s")
        leaf(page, "File and proof")
        page.get_by_role("button", name="Write it and prove it").click()
        expect(page.locator("[data-proof]")).to_have_attribute("data-proof", "failed")
        expect(page.get_by_text("The head leaves before the picture is taken").first).to_be_visible()
        expect(page.get_by_role("link", name="Take it along, unproven")).to_be_visible()
        leaf(page, "The bed")
        expect(page.locator(".fault").first).to_be_attached()
        leaf(page, "File and proof")
        page.get_by_role("button", name="Wait as long as the picture takes").first.click()
        expect(page.locator("[data-proof]")).to_have_attribute("data-proof", "older")
        unproven = page.locator('[data-snag="print-not-proven"]')
        expect(unproven.first).to_be_attached()
        page.get_by_role("button", name="Write it and prove it").click()
        # Whoever goes on meanwhile hears of it there.
        chapter(page, "Review")
        expect(unproven).to_have_count(0)
        chapter(page, "Print")
        expect(page.locator("[data-proof]")).to_have_attribute("data-proof", "proven")

    def test_a_print_begins_with_its_file_and_is_proven_from_its_snag(self) -> None:
        """From a new sheet: no word of rails, easing, water or traffic anywhere; and the proof from Review."""
        page = self.page("/")
        page.keyboard.press("n")
        page.get_by_label("What is it called?").fill("A cup")
        page.get_by_role("radio", name=re.compile("print", re.I)).check(force=True)
        page.get_by_role("button", name=re.compile("sheet")).last.click()
        expect(page).to_have_url(re.compile("/print/file$"))
        put(page, "mug.gcode", CUP)
        expect(page.get_by_text("its first layer")).to_be_visible()
        taken(page)
        for name in ("Clip", "Rig", "Move", "Light", "Trigger", "Review", "Print"):
            chapter(page, name)
            page.get_by_role("main").wait_for()
            said = page.get_by_role("main").inner_text().lower()
            for word in ("rail", "easing", "eases", "tide", "traffic", "walk there"):
                self.assertNotRegex(said, rf"\b{word}\b", f"{name}: {word}")
        chapter(page, "Review")
        snag = page.locator('[data-snag="print-not-proven"]').first
        snag.get_by_role("button", name="Write it and prove it").click()
        expect(page).to_have_url(re.compile("/print/file$"))
        expect(page.locator("[data-proof]")).to_have_attribute("data-proof", "proven")
        expect(page.locator('[data-snag="print-not-proven"]')).to_have_count(0)

    def test_what_is_no_print_is_told_and_taken_off(self) -> None:
        page = self.page("/bench")
        put(page, "packed.gcode", b"PK\x03\x04" + b"x" * 200)
        row = page.get_by_role("listitem", name="packed.gcode")
        expect(row.get_by_role("alert")).to_contain_text("This is a packed archive")
        row.get_by_role("button", name="take packed.gcode off the bench").click()
        row.get_by_role("button", name="take it away for good").click()
        expect(row).to_have_count(0)


class Lantern(BrowserCase):
    def test_the_layers_are_chosen_and_the_core_moves_the_playhead(self) -> None:
        page = self.open_demo(LANTERN, "Print")
        heading = page.get_by_role("heading", name=re.compile("frames of 700 layers"))
        expect(heading).to_contain_text("350 frames of 700 layers a stop takes 5.1 s, about 9 h 55 min in all, proven")
        core = page.get_by_role("slider", name="layer")
        core.press("Home")
        for key, value in (("PageUp", "52"), ("ArrowUp", "54"), ("End", "700")):
            core.press(key)
            expect(core).to_have_attribute("aria-valuenow", value)
        type_over(page, "the clip of the print", "10s")
        expect(heading).to_contain_text("234 frames")
        expect(heading).to_contain_text("proven once, and changed since")
        page.get_by_role("checkbox", name="not every so many layers").check()
        type_over(page, "a frame every", "2")
        expect(heading).to_contain_text("85 frames")
        # The shoot itself follows: its totals, and the run, which waits for each layer.
        expect(page.get_by_role("complementary", name="Beat, totals and snags")).to_contain_text("85")

    def test_the_field_card_says_on_one_sheet_what_the_frames_do_when_the_filament_runs_out(self) -> None:
        page = self.open_demo(LANTERN, "Print")
        expect(page.get_by_role("heading", name=re.compile("frames of 700 layers"))).to_contain_text(
            "in all, proven", timeout=60_000
        )
        chapter(page, "Review")
        page.get_by_role("heading", name="If the print does not simply go on").wait_for()
        (card,) = printed(page)
        for words in ("X 240.6 mm", "it is proven, ", "The filament runs out.", "so no frame is taken", "back off"):
            self.assertIn(words, " ".join(card.text.split()))

    def test_a_snag_of_the_print_counts_under_its_chapter_and_its_fix_works(self) -> None:
        page = self.open_demo(LANTERN, "Print")
        leaf(page, "The stop")
        type_over(page, "beyond the click", "2")
        link = page.get_by_role("navigation", name="Chapters").get_by_role("link", name=re.compile("Print"))
        # The switch is pushed too far, and what is written now has not been proven.
        expect(link).to_contain_text("2")
        margin = page.get_by_role("complementary", name="Beat, totals and snags")
        expect(margin).to_contain_text("The head pushes 2 mm beyond the click")
        margin.get_by_role("button", name=re.compile("Push 0.5 mm")).click()
        expect(margin).not_to_contain_text("beyond the click")
        expect(margin).to_contain_text("The changed file has not been proven yet")

    def test_the_click_is_found_on_the_simulated_printer_and_broken_by_haste(self) -> None:
        page = self.open_demo(LANTERN, "Print")
        leaf(page, "Find the click")
        said = page.locator(".at")
        for _ in range(40):
            here = said.inner_text()
            page.get_by_role("button", name="on 1", exact=True).click()
            expect(said).not_to_have_text(here, use_inner_text=True)
            if "It clicks" in said.inner_text():
                break
        expect(said).to_contain_text("It clicks")
        page.get_by_role("button", name="on 10").click()
        expect(said).to_contain_text("The switch is broken")
        take = page.get_by_role("button", name=re.compile("^Put .* on the card"))
        self.read_the_click(page, "239.2", "240.1", "240.0")
        expect(page.get_by_text("Is the switch fixed, and the belt tight?")).to_be_visible()
        expect(take).to_be_disabled()
        self.read_the_click(page, "239.9", "240.1", "240.0")
        take.filter(has_text="Put 240 mm").click()
        expect(page.get_by_text("Kept: X 240, read on")).to_be_visible()
        expect(page.get_by_role("row", name=re.compile(r"here now"))).to_contain_text("goes away from it")

    @staticmethod
    def read_the_click(page: Page, *readings: str) -> None:
        for n, text in enumerate(readings, 1):
            field = page.get_by_label(f"X at the click, reading {n}")
            field.fill(text)
            field.press("Tab")

    def test_the_growth_is_what_the_camera_sees_with_the_parked_head_where_that_is_in_it(self) -> None:
        """From afar the picture takes in the head: it is drawn, and said."""
        page = self.open_demo(LANTERN, "Print")
        leaf(page, "Growth")
        canvas = page.locator("canvas")
        page.wait_for_function("() => document.querySelector('canvas')?.dataset.layer === '2'")
        page.get_by_role("slider", name="Playhead on the span").press("End")
        page.wait_for_function("() => document.querySelector('canvas').dataset.layer === '700'")
        expect(page.get_by_text("The head is parked beside the picture")).to_be_visible()
        near = canvas.evaluate(BESIDE)
        page.get_by_label("the finished part in the scene").select_option(label="no mark of Move")
        expect(page.get_by_text("nobody has said where the camera stands")).to_be_visible()
        type_over(page, "from lens to part", "1600")
        expect(page.get_by_text("and that is in the picture")).to_be_visible()
        margin = page.get_by_role("complementary", name="Beat, totals and snags")
        expect(margin).to_contain_text("The parked head stands in the picture, in 350 frames")
        self.assertGreater(canvas.evaluate(BESIDE), near + 0.001)
        margin.get_by_role("button", name=re.compile("It may be seen")).click()
        expect(margin).not_to_contain_text("stands in the picture")

    def test_it_grows_in_the_picture_and_a_stop_is_played(self) -> None:
        page = self.open_demo(LANTERN, "Print")
        leaf(page, "Growth")
        canvas = page.locator("canvas")
        canvas.wait_for()
        page.wait_for_function("() => document.querySelector('canvas').dataset.layer === '2'")
        before = canvas.evaluate(INK)
        for _ in range(40):
            page.keyboard.press("Shift+.")
        page.wait_for_function("() => +document.querySelector('canvas').dataset.layer > 60")
        self.assertGreater(canvas.evaluate(INK), before * 1.5)
        page.get_by_text("without it").click()
        expect(canvas).to_have_attribute("aria-label", re.compile("without the stop"))
        leaf(page, "The stop")
        # Steps of a fifth of a second: looked at picture by picture, since the test may be slower than the play.
        page.evaluate(STEPS_SEEN)
        page.get_by_role("button", name="Play one stop").click()
        page.wait_for_function("() => window.stepsSeen.includes('press')")
        seen = page.evaluate("window.stepsSeen")
        self.assertLess(seen.index("travel"), seen.index("press"), seen)
