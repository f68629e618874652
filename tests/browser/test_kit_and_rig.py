"""The shelf, measuring, a rig from nothing, and the leaves of the clip chapter, on the real page."""

import re

from playwright.sync_api import APIResponse, Page, Route, expect

from tests.browser.pages import BrowserCase, chapter, figure, leaf, type_over
from tests.server.test_runs import Caller


class KitAndRig(BrowserCase):
    def test_a_card_is_measured_and_the_plan_takes_it_over(self) -> None:
        sheet = self.open_demo(chapter="Rig")
        page = sheet.context.new_page()
        page.goto(f"{self.server.address}/kit")
        page.get_by_role("button", name="full-frame body, 24 MP").click()
        page.get_by_role("button", name="time to write", exact=True).click()
        bursts = [("10", "3", "31"), ("10", "3", "31,4 s"), ("5", "1.5", "15.6"), ("8", "2", "1:00")]
        for row, (frames, lasted, seconds) in enumerate(bursts, 1):
            page.get_by_label(f"frames in the burst, reading {row}").fill(frames)
            page.get_by_label(f"burst lasted, reading {row}").fill(lasted)
            page.get_by_label(f"card light out after, reading {row}").fill(seconds)
            page.get_by_label("note to this measurement").click()
        expect(page.get_by_role("status").filter(has_text="Reading 4 does not fit the rest")).to_be_visible()
        expect(page.get_by_role("button", name="Put it on the card")).to_be_disabled()
        page.get_by_role("button", name="strike out").nth(3).click()
        page.get_by_role("button", name=re.compile("^mean: 3.12")).click()
        expect(page.get_by_label("Working of mean")).to_contain_text("the mean of all readings")
        page.keyboard.press("Escape")
        page.get_by_role("button", name="Put 3.12 s on the card").click()
        expect(figure(page, "writes in")).to_have_text("3.12 s")
        page.get_by_role("button", name=re.compile("± 0.02")).click()
        expect(page.get_by_role("row", name=re.compile("2.2 s ± 0.07 s, 4 readings"))).to_be_visible()

        type_over(sheet, "settle", "2 s")
        offer = sheet.get_by_role("status").filter(has_text="has changed on the shelf since")
        expect(offer).to_contain_text("writes in 3.12 s instead of 2.2 s")
        # Beside any other chapter it stands in the margin.
        chapter(sheet, "Clip")
        expect(offer).to_contain_text("writes in 3.12 s instead of 2.2 s")
        offer.get_by_role("button", name="Take it over").click()
        expect(offer).to_have_count(0)
        sheet.get_by_role("button", name=re.compile("^write: 3.12 s. Take hold")).click()
        expect(sheet.get_by_label("About write to card")).to_contain_text(
            "over 3 readings; on the card “full-frame body"
        )
        page.get_by_role("button", name="undo").click()
        expect(figure(page, "writes in")).to_have_text("2.2 s")

    def test_a_shelf_that_comes_late_takes_nothing_back(self) -> None:
        """Asked for before a choice and answered after it: the choice stays, and the next one is made on top of it."""
        page = self.page("/kit")
        page.get_by_role("button", name=re.compile("^power bank")).click()
        late: list[tuple[Route, APIResponse]] = []
        page.route("**/api/kit", lambda route: late.append((route, route.fetch())))
        page.get_by_role("button", name="to the bin").click()
        page.get_by_role("button", name=re.compile("^900 mm belt rail")).click()
        page.get_by_label("drive", exact=True).select_option("rated")
        expect(page.get_by_role("button", name="write them all as lines")).to_be_visible()
        # The answer is under way for as long as the server takes.
        for _ in range(300):
            if late:
                break
            page.wait_for_timeout(100)
        ((route, answer),) = late
        route.fulfill(response=answer)
        expect(page.get_by_role("button", name=re.compile("^power bank"))).to_have_count(0)
        expect(page.get_by_label("drive", exact=True)).to_have_value("rated")
        type_over(page, "carries", "4 kg")
        expect(figure(page, "carries")).to_have_text("4 kg")
        expect(page.get_by_role("alert")).to_have_count(0)

    def test_the_shelf_keeps_bins_and_gives_back(self) -> None:
        page = self.page("/kit")
        page.get_by_role("button", name="New card").click()
        page.get_by_role("button", name="lamp", exact=True).click()
        name = page.get_by_label("name of the card")
        name.fill("stable lamp")
        name.blur()
        expect(page.get_by_role("button", name="stable lamp")).to_be_visible()
        type_over(page, "power", "what")
        expect(page.get_by_role("alert").filter(has_text="Expected a number")).to_be_visible()
        page.keyboard.press("Escape")
        page.get_by_label("switch", exact=True).select_option("toggle")
        page.get_by_role("button", name="to the bin").click()
        expect(page.get_by_role("status").filter(has_text="stable lamp is in the bin")).to_be_visible()
        page.get_by_role("link", name="bin", exact=True).click()
        page.get_by_role("button", name="Put stable lamp back").click()
        page.get_by_role("link", name="the kit").click()
        expect(page.get_by_role("button", name="stable lamp")).to_be_visible()

    def test_joints_are_told_mended_and_drawn(self) -> None:
        page = self.open_demo("Lamps along the quay", chapter="Rig")
        page.get_by_role("button", name="take tripod, three sections off").click()
        page.get_by_role("button", name="Put something on").click()
        slip = page.get_by_role("dialog")
        slip.get_by_role("button", name="300 mm screw rail").click()
        expect(slip.get_by_role("alert")).to_have_text(
            "There is a slide on the rig already, the 900 mm belt rail: take that off first."
        )
        slip.get_by_role("button", name="light tripod").click()
        expect(slip.get_by_role("button", name=re.compile("light tripod.*on the rig"))).to_be_visible()
        expect(slip.get_by_role("alert")).to_have_count(0)
        page.keyboard.press("Escape")
        snag = page.get_by_label("Beat, totals and snags").locator("[data-snag=thread-mismatch]")
        expect(snag).to_contain_text("quarter inch, 20 an inch meets three eighths, 16 an inch")
        snag.get_by_role("button", name=re.compile("Put in an adapter")).click()
        expect(snag).to_have_count(0)
        tips = page.get_by_label("Beat, totals and snags").locator("[data-snag=rig-tips]")
        carriage = page.get_by_role("slider", name="Carriage, to see where the rig would tip")
        carriage.press("Shift+ArrowRight")
        expect(carriage).to_have_attribute("aria-valuenow", "100")
        type_over(page, "slope of the rail", "60")
        expect(page.locator("main [data-snag=rail-lets-go]")).to_contain_text("runs down when the motor is off")
        expect(tips.or_(page.locator("main [data-snag=rig-tips]")).first).to_be_visible()
        page.get_by_role("navigation", name="Chapters").get_by_role("link", name="Review").click()
        expect(page.get_by_text("A steep rail lets go when the power does.").first).to_be_visible()

    def test_the_ring_and_the_two_schools(self) -> None:
        page = self.open_demo()
        page.get_by_role("button", name="settle, 1.4 s. Take hold of it").click()
        slip = page.get_by_label("About settle")
        expect(slip).to_contain_text("Measured on 14 Aug 2026")
        page.keyboard.press("Escape")
        leaf(page, "One beat")
        row = page.get_by_role("row", name=re.compile("Move all the time"))
        expect(row).to_contain_text("soft")
        row.get_by_role("button", name="Switch to it").click()
        expect(row).to_contain_text("in use")
        expect(page.get_by_label("Beat, totals and snags")).to_contain_text("never stops")
        figure(page, "exposure").press("Shift+ArrowUp")
        page.keyboard.press("u")
        page.keyboard.press("u")
        expect(page.get_by_role("row", name=re.compile("Shoot, move, shoot"))).to_contain_text("in use")

    def test_an_interval_that_changes_is_dragged_on_the_span(self) -> None:
        page = self.open_demo()
        leaf(page, "A changing interval")
        page.get_by_role("button", name="Let the interval change").click()
        type_over(page, "interval of segment 2", "8")
        expect(figure(page, "frames")).to_have_text("1080 frames")
        edge = page.get_by_role("slider", name="Change of the interval after segment 1")
        expect(edge).to_have_attribute("aria-valuenow", "361")
        edge.press("Shift+ArrowRight")
        expect(figure(page, "length of segment 1")).to_have_text(re.compile(r"1.h.38.min.40.s"))
        box = edge.bounding_box()
        assert box is not None
        page.mouse.move(box["x"] + box["width"] / 2, box["y"] + 10)
        page.mouse.down()
        page.mouse.move(box["x"] - 200, box["y"] + 10, steps=5)
        page.mouse.up()
        expect(figure(page, "length of segment 1")).to_have_text(re.compile(r"1.h.0|1.h.[1-9]|5\d.min"))
        page.get_by_role("button", name="One even interval again").click()
        expect(figure(page, "frames")).to_have_text("720 frames")

    def test_be_done_by_and_where_the_tide_falls(self) -> None:
        page = self.open_demo()
        leaf(page, "On the clock")
        page.get_by_text("be done by", exact=True).click()
        type_over(page, "finish", "9:40 am")
        expect(page.get_by_text("06:28 to 09:40")).to_be_visible()
        expect(page.get_by_role("button", name=re.compile("^high tide, in the clip: 22.5 s"))).to_be_visible()
        type_over(page, "time of high tide", "11:00")
        snag = page.get_by_label("Beat, totals and snags").locator("[data-snag=event-outside]", has_text="high tide")
        expect(snag).to_contain_text("High tide at 11:00:00 falls outside the shoot")
        snag.get_by_role("button").first.click()
        expect(snag).to_have_count(0)

    def test_inches_and_noon(self) -> None:
        page = self.open_demo(chapter="Move")
        page.get_by_role("button", name="Units").click()
        page.get_by_text("feet and inches, pounds").click()
        page.get_by_text("12 hours", exact=True).click()
        page.keyboard.press("Escape")
        expect(figure(page, "slide at keyframe 3")).to_have_text(re.compile(r"2.ft.9\.86.in"))
        type_over(page, "slide at keyframe 3", "30")
        expect(figure(page, "slide at keyframe 3")).to_have_text(re.compile(r"2.ft.6.in"))
        type_over(page, "slide at keyframe 3", "2' 4 1/2\"")
        expect(figure(page, "slide at keyframe 3")).to_have_text(re.compile(r"2.ft.4\.5.in"))
        leaf(page, "The picture")
        expect(figure(page, "focal length")).to_have_text(re.compile("35.mm"))
        expect(page.get_by_text(re.compile(r"(?<!0)6:10.am to 9:22.am"))).to_be_visible()


class FromNothing(BrowserCase):
    def test_a_newcomer_makes_a_rig(self) -> None:
        caller = Caller(self.server.address)
        for card in caller("GET", "/api/kit")["cards"]:
            caller("POST", f"/api/kit/{card['id']}/bin", {})
        page = self.page()
        self._new_shoot(page)
        page.keyboard.press("2")
        page.get_by_role("button", name="Make the usual cards and put them together").click()
        expect(page.get_by_role("heading", name="From the ground to the camera")).to_be_visible()
        expect(page.get_by_role("group", name=re.compile("Seen from the side: a tripod, a rail"))).to_be_visible()
        expect(page.locator("main .snag.stop")).to_have_count(0)
        page.keyboard.press("1")
        leaf(page, "One beat")
        page.get_by_role("button", name="kit card: where the write to card comes from").click()
        expect(page.get_by_text("From the card “a camera body”, where it was typed.")).to_be_visible()

    def _new_shoot(self, page: Page) -> None:
        page.get_by_role("button", name="New shoot").click()
        page.get_by_label("What is it called?").fill("First")
        page.get_by_role("button", name="Make the sheet").click()
        expect(page.get_by_role("heading", name="First")).to_be_visible()
