"""Long run: from one interval to work windows, rules typed, days left out, and what the calendar shows of it."""

import re

from playwright.sync_api import expect

from tests.browser.pages import BrowserCase, chapter, figure, type_over
from tests.browser.printed import printed


class LongRun(BrowserCase):
    def test_a_site_is_worked_by_day_and_a_day_that_is_clicked_is_left_out(self) -> None:
        page = self.open_demo("Mill Weir footbridge", "Long run")
        page.get_by_role("button", name="one interval, day and night").click()
        expect(page.get_by_role("heading", name="One interval, day and night")).to_be_visible()
        page.get_by_role("button", name="Let work windows call the frames").click()
        heading = page.get_by_role("heading", level=2).filter(has_text="frames on")
        # 2 March to 2 October 2026: 155 days from Monday to Friday, ten hours of four frames.
        figure(page, "one frame every").wait_for()
        type_over(page, "one frame every", "15 min")
        expect(heading).to_contain_text(re.compile("6200 frames on 155 days Monday to Friday, 7:00 to 17:00"))
        cloth = page.get_by_role("slider", name="day of the season")
        cloth.press("Home")
        cloth.press("Enter")
        expect(heading).to_contain_text("6160 frames on 154 days")
        expect(cloth).to_have_attribute("aria-valuetext", re.compile("Monday,? 2 March 2026: off"))
        cloth.press("ArrowRight")
        cloth.press("Enter")
        expect(page.get_by_label("last of days off 1", exact=True)).to_have_text("03/03/2026")
        cloth.press("Enter")
        expect(heading).to_contain_text("6160 frames on 154 days")
        page.get_by_role("button", name="+ a rule").click()
        type_over(page, "rule 2 opens", "sunrise")
        type_over(page, "rule 2 closes", "noonish")
        expect(page.get_by_role("alert").filter(has_text="an hour such as 7:00")).to_be_visible()
        page.keyboard.press("Escape")
        type_over(page, "rule 2 closes", "12:00")
        second = page.get_by_role("region", name="rule 2")
        expect(second.get_by_role("heading")).to_contain_text("Saturday, sunrise to 12:00")
        expect(page.locator("path.ink[data-rule='1']")).to_be_attached()
        second.get_by_role("button", name="take it out").click()
        expect(second).to_have_count(0)
        page.get_by_role("button", name="undo").click()
        expect(second).to_be_visible()

    def test_a_clip_of_a_minute_is_asked_of_the_windows(self) -> None:
        page = self.open_demo("Mill Weir footbridge", "Clip")
        type_over(page, "clip length", "60 s")
        chapter(page, "Long run")
        # 141 days of ten and a half hours, 18 of four. 1500 are wanted at the least: every 63 minutes come 1410 and 72,
        # every 62 of them 1551 and 72.
        expect(page.get_by_role("heading", level=2).filter(has_text="1623 frames on 159 days")).to_be_visible()

    def test_an_edge_of_a_window_is_dragged_on_the_cloth(self) -> None:
        page = self.open_demo("Mill Weir footbridge", "Long run")
        edge = page.get_by_role("slider", name="rule 1 closes")
        box = edge.locator("rect").bounding_box()
        cloth = page.locator(".cloth rect.frame").bounding_box()
        assert box and cloth
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        page.mouse.move(x, y)
        page.mouse.down()
        # An hour and a half earlier, of the twenty-four that the cloth is high.
        for part in (0.3, 0.7, 1.0):
            page.mouse.move(x, y - part * cloth["height"] * 1.5 / 24)
        page.mouse.up()
        expect(page.get_by_role("heading", name="Monday to Friday, 7:00 to 16:00")).to_be_visible()
        # Nine hours are thirteen frames of 42 minutes, and 108 on Saturdays.
        expect(page.get_by_role("heading", level=2)).to_contain_text(f"{141 * 13 + 108} frames on 159 days")
        edge.press("ArrowDown")
        expect(page.get_by_role("heading", name="Monday to Friday, 7:00 to 16:05")).to_be_visible()
        page.get_by_role("button", name="undo").click()
        page.get_by_role("button", name="undo").click()
        expect(page.get_by_role("heading", name="Monday to Friday, 7:00 to 17:30")).to_be_visible()

    def test_what_it_lives_on_and_who_comes(self) -> None:
        page = self.open_demo("Mill Weir footbridge", "Long run")
        page.get_by_role("link", name="Controller").click()
        expect(page.get_by_role("heading", name="From setting up to the visit of 3 April 2026")).to_be_visible()
        expect(page.get_by_role("heading", name="Missed: 2")).to_be_visible()
        page.get_by_role("link", name="Visits").click()
        visits = page.locator("article")
        expect(visits).to_have_count(6)
        expect(visits.nth(4)).to_contain_text("clean the glass, set the clock, start the controller again")
        type_over(page, "days between cleanings", "")
        # Whoever comes anyhow on 20 April sets the clock and starts it again: then it lasts to the end.
        expect(visits).to_have_count(1)
        expect(visits).to_contain_text("set the clock, start the controller again")
        page.get_by_role("button", name="undo").click()
        expect(visits).to_have_count(6)
        page.get_by_role("link", name="Power and card").click()
        level = page.get_by_role("slider", name="day of the levels")
        level.press("Home")
        expect(level).to_have_attribute("aria-valuetext", re.compile(r"2 March 2026, charge at least 9\d"))
        # A panel that looks north gives too little: what helps is offered, and helps.
        type_over(page, "looking to (bearing)", "0")
        snag = page.get_by_text(re.compile("The battery is empty on")).first
        expect(snag).to_be_visible()

    def test_the_visits_are_printed_with_what_to_bring_and_what_to_put_in(self) -> None:
        page = self.open_demo("Mill Weir footbridge", "Long run")
        page.get_by_role("link", name="Visits").click()
        page.locator("article").nth(5).wait_for()
        sheets = printed(page)
        words = re.sub(r"\s+", "", "".join(sheet.text for sheet in sheets))
        for said in (
            "Mill Weir footbridge, copy: visits", "Friday, 3 April 2026, 12:00", "from–to 7:00 – 17:30",
            "the menu entries on paper",
            "Monday, 3 August 2026, 12:00", "a clock that is right", "guys, clamp, second tether", "Height and masts",
        ):  # fmt: skip
            self.assertIn(re.sub(r"\s+", "", said), words)
        # Nothing of the page around it, and no blank sheet.
        self.assertNotIn("Arrangedanyhow", words)
        self.assertNotIn("Powerandcard", words)
        self.assertTrue(all(len(sheet.text) > 100 and sheet.ink > 0.005 for sheet in sheets))
