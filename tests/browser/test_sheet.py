"""The parts of the sheet: span, pace, marks, limits, the list of shoots, a run that is held up."""

import json
import re
from pathlib import Path

from playwright.sync_api import FilePayload, Page, expect

from bridle.core.evaluate import evaluate
from bridle.core.quantity import write
from bridle.formats.plan_json import read_plan, write_plan
from tests.browser.pages import BrowserCase, chapter, figure, leaf, set_when, type_over

HARBOUR = Path(__file__).parents[2] / "bridle/demo/shoots/harbour-refloat.json"


def plain(text: str) -> str:
    """The text without the page's unbreakable spaces."""
    return re.sub(r"\s", " ", text)


class SheetParts(BrowserCase):
    def test_the_page_writes_figures_as_the_core_does(self) -> None:
        page = self.open_demo()
        leaf(page, "One beat")
        told = evaluate(read_plan(HARBOUR.read_bytes()))
        zone = "Europe/London"
        for key in ("clip.interval", "clip.shoot", "clip.clip", "clip.speed_up", "time.finish", "beat.shortest"):
            made = told.figures[key]
            said = write(made.value, made.unit, zone)
            label = re.compile(f"^{made.label}: {re.escape(said)}. Show the working".replace(r"\ ", r"\s"))
            expect(page.get_by_role("button", name=label).first).to_be_visible()

    def test_a_working_holds_the_formula_with_its_numbers_and_can_be_copied(self) -> None:
        page = self.open_demo()
        leaf(page, "One beat")
        page.get_by_role("button", name=re.compile("^shortest interval that fits")).first.click()
        slip = page.get_by_label("Working of shortest interval that fits")
        expect(slip).to_contain_text("up to a whole step (the larger of (need ÷ (1 − margin), need + least), step)")
        slip.get_by_role("button", name="Copy the working").click()
        copied = plain(page.evaluate("navigator.clipboard.readText()"))
        self.assertIn("shortest interval that fits: 6 s", copied)
        self.assertIn("needed: 5.16 s", copied)

    def test_the_span_zooms_with_the_wheel_and_the_keys(self) -> None:
        page = self.open_demo()
        span = page.get_by_role("slider", name="Playhead on the span")
        box = span.bounding_box()
        assert box is not None
        page.mouse.click(box["x"] + box["width"] / 2, box["y"] + 60)
        expect(span).to_have_attribute("aria-valuenow", re.compile("^3[3-6]\\d$"))
        page.mouse.wheel(0, -2000)
        expect(page.get_by_role("button", name="whole shoot")).to_be_visible()
        at = span.get_attribute("aria-valuenow")
        page.get_by_role("button", name="whole shoot").click()
        expect(page.get_by_role("button", name="whole shoot")).to_have_count(0)
        self.assertEqual(span.get_attribute("aria-valuenow"), at, "zooming leaves the playhead where it is")
        span.press("End")
        expect(span).to_have_attribute("aria-valuenow", "720")
        expect(span).to_have_attribute("aria-valuetext", re.compile("slide 860.mm · pan −9.09°"))

    def test_ease_marks_and_limits_are_changed_on_the_drawing(self) -> None:
        page = self.open_demo(chapter="Move")
        page.get_by_role("slider", name="Ease in").press("Shift+ArrowRight")
        expect(figure(page, "ease in")).to_have_text("85 frames")
        corner = page.get_by_role("slider", name="Ease in").locator(".box")
        # 85 of the 695 steps between the handles, on a pace drawing of 264 units from 8; the box is 12 wide.
        self.assertAlmostEqual(float(corner.get_attribute("x") or 0), 8 + 85 / 695 * 264 - 6, 1)
        leaf(page, "Marks and sight")
        page.get_by_role("slider", name="mooring post, away").press("Shift+ArrowUp")
        expect(figure(page, "mooring post, away from the rail")).to_have_text("1600 mm")
        leaf(page, "The drives")
        type_over(page, "slide to", "80 cm")
        snag = page.locator("[data-snag=out-of-travel]")
        expect(snag).to_contain_text("would stand at 860 mm; it reaches from 0 mm to 800 mm")
        type_over(page, "slide to", "-5")
        expect(page.get_by_role("alert").filter(has_text="lower end of the travel")).to_be_visible()
        page.keyboard.press("Escape")
        leaf(page, "Marks and sight")
        page.get_by_role("button", name="Take mooring post away").click()
        expect(page.get_by_role("checkbox", name="keep it in its place")).not_to_be_checked()
        for _ in range(4):
            page.keyboard.press("u")
        expect(page.get_by_role("button", name="Take mooring post away")).to_be_visible()
        expect(page.get_by_role("checkbox", name="keep it in its place")).to_be_checked()
        leaf(page, "Framing")
        expect(figure(page, "ease in")).to_have_text("60 frames")

    def test_what_was_done_before_a_reload_can_be_undone_after_it(self) -> None:
        page = self.open_demo()
        for text in ("20", "30 s"):
            type_over(page, "interval", text)
            expect(figure(page, "interval")).to_have_text(text.removesuffix(" s") + " s")
        page.locator(".saved[data-saved=saved]").wait_for()
        page.reload()
        expect(figure(page, "interval")).to_have_text("30 s")
        for back in ("20 s", "16 s"):
            page.get_by_role("button", name="undo", exact=True).click()
            expect(figure(page, "interval")).to_have_text(back)
        page.locator(".saved[data-saved=saved]").wait_for()
        page.reload()
        page.get_by_role("button", name="redo", exact=True).click()
        expect(figure(page, "interval")).to_have_text("20 s")

    def test_review_says_each_snag_once(self) -> None:
        page = self.open_demo("Lamps along the quay", chapter="Review")
        expect(page.locator("[data-snag=mark-drifts]")).to_have_count(1)
        chapter(page, "Clip")
        expect(page.locator(".margin [data-snag=mark-drifts]")).to_have_count(1)

    def test_quick_presses_of_an_arrow_key_all_count(self) -> None:
        """Five of them while the first is still being worked out: five half seconds from 16 s, and three back."""
        page = self.open_demo()
        interval = figure(page, "interval")
        interval.focus()
        for _ in range(5):
            page.keyboard.press("ArrowUp", delay=0)
        expect(interval).to_have_text("18.5 s")
        page.get_by_text(re.compile("^saved")).first.wait_for()
        expect(interval).to_have_text("18.5 s")
        for _ in range(3):
            page.keyboard.press("ArrowDown", delay=0)
        expect(interval).to_have_text("17 s")

    def test_too_few_pegs_and_what_is_proposed(self) -> None:
        page = self.open_demo()
        page.get_by_role("button", name="playback rate is held").click()
        expect(page.get_by_text("Two pegs in.")).to_be_visible()
        expect(figure(page, "clip length")).to_have_text("–")
        page.keyboard.press("7")
        expect(page.get_by_role("button", name="Start the run")).to_be_disabled()
        page.keyboard.press("6")
        expect(page.get_by_role("heading", name="Not ready: one thing stops this shoot")).to_be_visible()
        page.keyboard.press("1")
        page.get_by_role("button", name=re.compile("Hold the playback rate at 25 a second")).click()
        expect(figure(page, "clip length")).to_have_text("28.8 s")

    def test_the_list_by_keys_and_a_plan_file_that_comes_in(self) -> None:
        page = self.page()
        page.get_by_role("link", name="Harbour refloat").first.focus()
        page.keyboard.press("d")
        expect(page.get_by_role("link", name="Harbour refloat, copy").first).to_be_focused()
        page.keyboard.press("/")
        page.keyboard.type("lamps")
        expect(page.get_by_role("link", name="Harbour refloat")).to_have_count(0)
        page.keyboard.press("ControlOrMeta+a")
        page.keyboard.type("nothing of the kind")
        page.get_by_role("button", name="Show all shoots").click()
        plan = json.loads(write_plan(read_plan(HARBOUR.read_bytes())))
        plan["shoot"]["name"] = "From a file"
        file = FilePayload(name="plan.json", mimeType="application/json", buffer=json.dumps(plan).encode())
        page.get_by_label("Plan file").set_input_files(file)
        expect(page.get_by_role("heading", name="From a file")).to_be_visible()
        expect(figure(page, "frames")).to_have_text("720 frames")

    def test_how_far_two_clocks_smear_is_said_only_where_it_is_known(self) -> None:
        plan = json.loads(HARBOUR.read_bytes())
        plan["shoot"]["name"] = "Two clocks"
        plan["beat"] |= {"school": "continuous", "uncoupled": {"between_starts_s": "20"}}
        near, first = plan["move"]["marks"], plan["move"]["keyframes"][0]
        for keys, marks, said in (
            (plan["move"]["keyframes"], near, r"smeared by anything from none to [\d.]+.px\."),
            (plan["move"]["keyframes"], [], "anything from none to what nobody knows, as long as nothing near"),
            ([first, first], near, "nothing moves now, so no frame is smeared"),
        ):
            plan["move"] |= {"keyframes": keys, "marks": marks, "follow": None}
            page = self.page()
            file = FilePayload(name="plan.json", mimeType="application/json", buffer=json.dumps(plan).encode())
            page.get_by_label("Plan file").set_input_files(file)
            expect(page.get_by_role("heading", name="Two clocks")).to_be_visible()
            leaf(page, "One beat")
            expect(page.get_by_text(re.compile("Nothing waits for the shutter"))).to_contain_text(
                re.compile(said.replace(" ", r"\s+"))
            )
            self.assertEqual(self.complaints, [])

    def test_where_and_when_keep_the_clock_of_the_place(self) -> None:
        page = self.open_demo()
        page.get_by_role("button", name=re.compile("^Port Ellary")).click()
        set_when(page, 25, 10, 2026, 0, 30)
        expect(page.get_by_text("+1 h from UTC on that day")).to_be_visible()
        page.get_by_role("button", name="Put it on the sheet").click()
        # The clocks go back in the night: 3 h 12 min after half past midnight it is 02:42.
        expect(page.get_by_text("Sunday 25 October 2026, 00:30 to 02:42")).to_be_visible()

    def test_a_run_is_paused_goes_on_and_is_stopped(self) -> None:
        page = self.open_demo(chapter="Run")
        page.get_by_role("button", name="Start the run").click()
        self._taken(page, 3)
        page.get_by_role("button", name="Pause").click()
        expect(page.get_by_role("heading", name="Paused")).to_be_visible()
        held = page.locator("[data-taken]").get_attribute("data-taken")
        page.reload()
        expect(page.locator(f'[data-taken="{held}"]')).to_be_visible()
        page.get_by_role("button", name="Go on").click()
        self._taken(page, int(held or 0) + 2)
        page.get_by_role("button", name="Stop").click()
        expect(page.get_by_role("heading", name="Stopped")).to_be_visible()
        log = page.get_by_role("list", name="Event log")
        for said in ("Stopped after", "Going on with frame", "Paused before frame", "Started."):
            expect(log).to_contain_text(said)
        expect(page.get_by_role("heading", name="In the logbook")).to_be_visible()
        page.get_by_role("button", name=re.compile("^on site, taken")).click()
        expect(page.get_by_label("Working of on site, taken")).to_contain_text("clock")

    def _taken(self, page: Page, frames: int) -> None:
        page.wait_for_function("n => Number(document.querySelector('[data-taken]')?.dataset.taken) >= n", arg=frames)
