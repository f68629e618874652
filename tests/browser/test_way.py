"""The whole way on the real page: a shoot of one's own, planned, checked, drawn, exported, run and logged."""

import csv
import io
import json
import re
from pathlib import Path
from typing import Any

from playwright.sync_api import Page, expect

from tests.browser.pages import PATIENCE_MS, BrowserCase, chapters_of, figure, leaf, others, set_when, type_over
from tests.browser.printed import printed


class TheWay(BrowserCase):
    def test_from_nothing_to_a_logged_run(self) -> None:
        page = self.page()
        self._make_a_shoot(page)
        self._work_on_the_sentence(page)
        self._put_a_rig_on(page)
        self._make_the_beat_fit(page)
        self._draw_the_move(page)
        self._review_and_take_along(page)
        self._run_and_log(page)

    def _make_a_shoot(self, page: Page) -> None:
        page.get_by_role("button", name="New shoot").click()
        page.get_by_role("button", name="Make the sheet").click()
        expect(page.get_by_text("A shoot needs a name")).to_be_visible()
        page.get_by_label("What is it called?").fill("Rowan in the wind")
        page.get_by_label("What is filmed?").fill("a rowan on the moor")
        page.get_by_label("Where and when?").fill("Port Ellary")
        set_when(page, 5, 12, 2026, 13, 0)
        page.get_by_label("time zone").select_option("Europe/London")
        page.get_by_role("button", name="Make the sheet").click()
        expect(page.get_by_role("heading", name="Rowan in the wind")).to_be_visible()
        expect(page.get_by_text("Port Ellary, Saturday 5 December 2026, 13:00 to 14:00")).to_be_visible()

    def _work_on_the_sentence(self, page: Page) -> None:
        type_over(page, "shoot length", "1h45")
        type_over(page, "interval", "7")
        type_over(page, "playback rate", "30")
        expect(figure(page, "frames")).to_have_text("900 frames")
        expect(figure(page, "clip length")).to_have_text("30 s")
        figure(page, "clip length").focus()
        page.keyboard.press("p")
        expect(page.get_by_text("Four pegs in")).to_be_visible()
        type_over(page, "interval", "9 s")
        verdict = page.get_by_role("alert").filter(has_text="cannot all hold")
        expect(verdict).to_contain_text(
            "with one frame every 9 s (700 frames) against 30 s of clip at 30 a second (900 frames)"
        )
        page.get_by_role("button", name=re.compile("Pull the peg of the clip length")).first.click()
        expect(figure(page, "frames")).to_have_text("700 frames")
        expect(page.get_by_text("Three pegs in")).to_be_visible()

    def _put_a_rig_on(self, page: Page) -> None:
        """Nothing moves until there is something that does; then it moves as its card says."""
        page.keyboard.press("3")
        expect(page.get_by_text("Nothing moves on this rig.")).to_be_visible()
        page.keyboard.press("2")
        page.get_by_role("button", name="Put something on").click()
        for part in ("900 mm belt rail", "two-axis head, pan"):
            page.get_by_role("dialog").get_by_role("button", name=part).click()
        page.keyboard.press("Escape")
        page.keyboard.press("1")

    def _make_the_beat_fit(self, page: Page) -> None:
        leaf(page, "One beat")
        type_over(page, "exposure", "10 s")
        snag = page.get_by_label("Beat, totals and snags").locator("[data-snag=interval-too-short]")
        expect(snag).to_contain_text("Stop. One beat needs 11.7 s")
        expect(snag).to_contain_text("The interval stays.")
        expect(page.get_by_role("group", name=re.compile("One beat of 9 s.*over"))).to_be_visible()
        snag.get_by_role("button", name="Expose").click()
        expect(snag).to_have_count(0)
        page.get_by_role("button", name="undo").click()
        snag.get_by_role("button", name="Beat of").click()
        expect(snag).to_have_count(0)
        expect(figure(page, "interval")).to_have_text("13.1 s")
        page.get_by_role("button", name=re.compile("^interval: 13.1 s. Show the working")).click()
        expect(page.get_by_label("Working of interval")).to_contain_text("held by a peg")
        page.keyboard.press("Escape")

    def _draw_the_move(self, page: Page) -> None:
        page.keyboard.press("3")
        handle = page.get_by_role("slider", name="Slide at keyframe 2")
        before = float(handle.get_attribute("aria-valuenow") or 0)
        box = handle.bounding_box()
        assert box is not None
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        page.mouse.move(x, y)
        page.mouse.down()
        page.mouse.move(x - 30, y, steps=6)
        page.mouse.up()
        expect(handle).not_to_have_attribute("aria-valuenow", f"{before:g}")
        pan = page.get_by_role("slider", name="Pan at keyframe 1")
        pan.focus()
        page.keyboard.press("Shift+ArrowRight")
        expect(pan).to_have_attribute("aria-valuenow", "-5")
        type_over(page, "slide at keyframe 2", "95 cm")
        snag = page.locator("[data-snag=out-of-travel]")
        expect(snag).to_contain_text("would stand at 950 mm; it reaches from 0 mm to 900 mm")
        snag.get_by_role("button", name="Stop the slide at 900 mm").click()
        expect(figure(page, "slide at keyframe 2")).to_have_text("900 mm")
        leaf(page, "Marks and sight")
        page.get_by_role("button", name="+ a mark").click()
        page.get_by_role("button", name="aim every keyframe at it").click()
        leaf(page, "Framing")
        expect(figure(page, "pan at keyframe 1")).to_have_text("13.66°")

    def _review_and_take_along(self, page: Page) -> None:
        page.keyboard.press("6")
        expect(page.get_by_role("heading", name=re.compile("^Ready"))).to_be_visible()
        with page.expect_download() as table:
            page.get_by_role("button", name="Frame table, CSV").click()
        rows = list(csv.DictReader(io.StringIO(Path(table.value.path()).read_text())))
        self.assertEqual((len(rows), rows[-1]["slide_mm"], rows[0]["exposure_s"]), (480, "900.0000", "10"))
        with page.expect_download() as plan:
            page.get_by_role("button", name="Plan, JSON").click()
        self.assertEqual(json.loads(Path(plan.value.path()).read_text())["shoot"]["name"], "Rowan in the wind")
        (card,) = printed(page)
        self.assertIn("480 frames, one every", card.text.replace(" ,", ","), "the field card fits one sheet")

    def _run_and_log(self, page: Page) -> None:
        page.keyboard.press("7")
        page.get_by_text("as fast as it goes").click()
        page.get_by_role("button", name="Start the run").click()
        expect(page.get_by_text("480 of 480 frames").first).to_be_visible(timeout=2 * PATIENCE_MS)
        note = page.get_by_label("What to do differently next time")
        note.fill("Start ten minutes earlier.")
        note.blur()
        expect(page.get_by_role("status").filter(has_text="saved").last).to_be_visible()
        page.get_by_role("link", name="Log").click()
        expect(page.get_by_label("What to do differently next time").first).to_have_value("Start ten minutes earlier.")
        expect(page.get_by_text("all frames taken").first).to_be_visible()


class Phone(BrowserCase):
    def test_the_whole_way_with_a_thumb(self) -> None:
        phone: dict[str, Any] = {"viewport": {"width": 390, "height": 844}, "has_touch": True, "is_mobile": True}
        page = self.page("/", **phone)
        self._fits(page)
        page.get_by_role("button", name="New shoot").tap()
        page.get_by_label("What is it called?").fill("From the phone")
        self._fits(page)
        page.get_by_role("button", name="Make the sheet").tap()
        figure(page, "interval").tap()
        page.get_by_role("textbox", name="interval", exact=True).fill("20")
        page.keyboard.press("Enter")
        expect(figure(page, "frames")).to_have_text("180 frames")
        order = [page.locator(s).first.bounding_box()["y"] for s in (".sentence", ".margin svg", ".margin .snags")]  # type: ignore[index]
        self.assertEqual(order, sorted(order), "the sentence, the ring and the next thing to do come first")
        for name, leaves in chapters_of(page).items():
            page.get_by_role("navigation", name="Chapters").get_by_role("link", name=re.compile(rf"\b{name}\b")).tap()
            self._fits(page)
            for part in others(page, leaves):
                leaf(page, part)
                self._fits(page)
        page.get_by_text("as fast as it goes").tap()
        start = page.get_by_role("button", name="Start the run")
        self.assertGreaterEqual((start.bounding_box() or {"height": 0})["height"], 44)
        start.tap()
        expect(page.get_by_text("180 of 180 frames").first).to_be_visible(timeout=2 * PATIENCE_MS)

    def test_a_finger_pulls_what_it_holds_all_the_way(self) -> None:
        """The page does not begin to scroll under it, on the plan, from the side, on the ease and on a crop."""
        phone: dict[str, Any] = {"viewport": {"width": 390, "height": 844}, "has_touch": True, "is_mobile": True}
        page = self.open_demo("Harbour refloat", chapter="Move", **phone)
        page.get_by_role("button", name="Smaller").or_(page.get_by_role("group", name="Plan drawing")).first.wait_for()
        for name, dx, dy in (
            ("Pan at keyframe 3", -60, 20),
            ("mooring post, away from the rail", 10, 70),
            ("Height of the lens", 0, -60),
            ("Ease in", 60, 0),
            ("Crop at the end", -40, 0),
        ):
            if name.startswith("Crop"):
                page = self.open_demo("Mill Weir footbridge", chapter="Move", **phone)
                leaf(page, "The picture")
            with self.subTest(name):
                held = page.get_by_role("slider", name=name, exact=True)
                held.evaluate("one => one.scrollIntoView({block: 'center'})")
                stood, top = held.get_attribute("aria-valuenow"), page.evaluate("scrollY")
                box = held.bounding_box()
                assert box is not None
                now = self._pull(page, held, dx, dy)
                expect(held).not_to_have_attribute("aria-valuenow", str(stood))
                self.assertEqual(page.evaluate("scrollY"), top)
                gone = abs(now["y"] - box["y"]) if dy else abs(now["x"] - box["x"])
                self.assertGreater(gone, 24, "beyond where a scroll would begin")

    def _pull(self, page: Page, held: Any, dx: float, dy: float) -> dict[str, float]:
        """A finger as the browser itself has it: whatever scrolls takes it away. Where it held it last."""
        box = held.bounding_box()
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        session = page.context.new_cdp_session(page)
        send = session.send
        send("Input.dispatchTouchEvent", {"type": "touchStart", "touchPoints": [{"x": x, "y": y}]})
        for n in range(1, 13):
            at = {"x": x + dx * n / 12, "y": y + dy * n / 12}
            send("Input.dispatchTouchEvent", {"type": "touchMove", "touchPoints": [at]})
            page.wait_for_timeout(30)
        # The picture follows as soon as the machine comes to it: looked at until it stands still.
        last: dict[str, float] = {}
        for _ in range(40):
            page.wait_for_timeout(300)
            before, last = last, held.bounding_box()
            if last == before != box:
                break
        send("Input.dispatchTouchEvent", {"type": "touchEnd", "touchPoints": []})
        page.wait_for_timeout(700)
        return last

    def _fits(self, page: Page) -> None:
        self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), 390)
