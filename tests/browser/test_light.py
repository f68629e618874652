"""The chapter Light: from a new shoot to a setting for every minute, by hand, and what the finder shows."""

import re
from typing import Any

import numpy as np
from playwright.sync_api import Page, expect

from tests.browser.pages import BrowserCase, chapter, figure, leaf, settled, type_over
from tests.browser.printed import printed

LAMPS = "Lamps along the quay"
BRIGHTNESS = """canvas => {
    const copy = document.createElement('canvas');
    [copy.width, copy.height] = [canvas.width, canvas.height];
    const context = copy.getContext('2d');
    context.drawImage(canvas, 0, 0);
    const { data } = context.getImageData(0, 0, copy.width, copy.height);
    let sum = 0;
    for (let n = 0; n < data.length; n += 4) sum += 0.2126 * data[n] + 0.7152 * data[n + 1] + 0.0722 * data[n + 2];
    return sum / (data.length / 4);
}"""


def brightness(page: Page) -> float:
    """The mean brightness of the finder's picture at rest, from 0 to 255."""
    canvas = page.locator("canvas[data-ready=yes]")
    canvas.wait_for()
    return float(settled(page, lambda: canvas.evaluate(BRIGHTNESS)))


def to_frame(page: Page, frame: int) -> None:
    """The playhead on a frame, counted from 1."""
    head = page.get_by_role("slider", name="Playhead on the span")
    head.press("Home")
    coarse = round(int(head.get_attribute("aria-valuemax") or 0) / 20)
    for _ in range((frame - 1) // coarse):
        head.press("Shift+ArrowRight")
    for _ in range((frame - 1) % coarse):
        head.press("ArrowRight")
    expect(head).to_have_attribute("aria-valuenow", str(frame))


class TheWay(BrowserCase):
    """Someone who has never used it wants to know which setting at which minute, from golden light to first stars."""

    def test_from_a_new_shoot_to_a_setting_for_every_minute(self) -> None:
        page, self.clicks, self.typed = self.page("/"), 0, 0
        page.keyboard.press("n")
        self._typed(page.get_by_label("What is it called?"), "First stars")
        self._clicked(page.get_by_text("into the night", exact=True))
        self._clicked(page.get_by_role("button", name=re.compile("sheet")).last)
        page.get_by_role("navigation", name="Chapters").wait_for()
        self._clicked(page.get_by_role("navigation", name="Chapters").get_by_role("link", name="Light"))
        self._typed(page.get_by_label("latitude and longitude"), "57°19.2' N, 6°10.8' W")
        page.keyboard.press("Enter")
        expect(page.get_by_role("heading", name=re.compile(r"^Ramped: \d+ changes"))).to_be_visible()
        self._clicked(page.get_by_role("navigation", name="Chapters").get_by_role("link", name="Clip"))
        leaf(page, "On the clock")
        self.clicks += 1
        type_over(page, "start", "40 min before sunset")
        self.typed += 1
        page.get_by_label("Let it last until").select_option("astronomical dusk")
        self.clicks += 2
        expect(page.get_by_role("spinbutton", name="start", exact=True)).to_have_text("40 min before sunset")
        self._clicked(page.get_by_role("navigation", name="Chapters").get_by_role("link", name="Light"))
        leaf(page, "The changes")
        self.clicks += 1
        rows = page.locator("tbody tr")
        self.assertGreater(rows.count(), 20)
        times = [text.strip() for text in rows.locator("td:nth-child(2)").all_inner_texts()]
        self.assertEqual(times, sorted(times))
        print(f"\nfrom a new shoot to a setting for every minute: {self.clicks} clicks, {self.typed} typed")

    def _clicked(self, what: Any) -> None:
        what.click(force=True)
        self.clicks += 1

    def _typed(self, what: Any, text: str) -> None:
        what.fill(text)
        self.typed += 1


class ByHand(BrowserCase):
    def test_places_as_people_write_them(self) -> None:
        page = self.open_demo("Market morning", chapter="Light")
        page.get_by_role("button", name=re.compile("° N")).click()
        where = page.get_by_label("latitude and longitude")
        where.fill("somewhere nice")
        page.keyboard.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("cannot be read here; write latitude and longitude such as")
        where.fill("S 33° 52' 10\", E 151° 12' 30\"")
        page.keyboard.press("Enter")
        expect(page.get_by_role("button", name="33.869° S, 151.21° E")).to_be_visible()
        page.get_by_role("button", name="go by it").click()
        expect(page.locator(".when")).not_to_contain_text("08:30")

    def test_what_is_pulled_on_the_drawing_moves_the_curve_and_the_settings(self) -> None:
        page = self.open_demo(LAMPS, chapter="Light")
        most = page.get_by_role("slider", name="Most light by ISO")
        said = most.get_attribute("aria-valuetext")
        most.press("ArrowUp")
        expect(most).not_to_have_attribute("aria-valuetext", said or "")
        expect(most).to_have_attribute("aria-valuetext", "ISO 2500")
        test = page.get_by_role("slider", name="Test exposure 1")
        before = float(test.get_attribute("aria-valuenow") or 0)
        box = test.locator("circle.knob").bounding_box()
        assert box
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        page.mouse.move(x, y)
        page.mouse.down()
        page.mouse.move(x, y + 30, steps=6)
        page.mouse.up()
        expect(test).not_to_have_attribute("aria-valuenow", str(before))
        pulled = settled(page, lambda: test.get_attribute("aria-valuenow"))
        self.assertLess(float(pulled or 0), before - 1.6)
        cloud = page.get_by_role("slider", name="Cloud")
        cloud.press("Shift+ArrowDown")
        expect(figure(page, "cloud")).to_have_text("1.5 stops")
        page.keyboard.press("u")
        expect(figure(page, "cloud")).to_have_text("0.5 stops")

    def test_one_click_changes_the_school_and_says_what_becomes_of_it(self) -> None:
        page = self.open_demo(LAMPS, chapter="Light")
        page.get_by_role("radio", name="Locked").click(force=True)
        expect(page.get_by_role("heading", name="Locked: one exposure for all frames")).to_be_visible()
        snag = page.locator("[data-snag=locked-out-of-latitude]")
        expect(snag).to_contain_text("cannot be mended")
        snag.get_by_role("button", name="Let the settings follow the light").click()
        expect(page.get_by_role("heading", name=re.compile(r"^Ramped: \d+ changes"))).to_be_visible()

    def test_the_ring_and_the_flag_follow_the_playhead(self) -> None:
        page = self.open_demo(LAMPS, chapter="Light")
        to_frame(page, 1)
        expect(page.get_by_role("button", name="exposure: 1/50 s. Take hold of it")).to_be_visible()
        to_frame(page, 346)
        expect(page.get_by_role("button", name="exposure: 8 s. Take hold of it")).to_be_visible()
        expect(page.get_by_role("slider", name="Playhead on the span")).to_have_attribute(
            "aria-valuetext", re.compile(r"· 8 s$")
        )


class Seen(BrowserCase):
    """A wrong exposure is in the picture itself."""

    def test_a_change_that_comes_too_late_is_seen_in_the_finder(self) -> None:
        """With the ISO held at 100 the last frames come out darker than those before; with it they do not."""
        page = self.open_demo(LAMPS, chapter="Light")
        to_frame(page, 300)
        right = brightness(page)
        to_frame(page, 470)
        followed = brightness(page)
        # A night that is to look darker comes out darker, by half a stop here.
        self.assertLess(abs(followed - right), 22)
        type_over(page, "highest ISO", "100")
        expect(page.locator("[data-snag=limits-run-out]")).to_be_visible()
        self.assertLess(brightness(page), followed - 20)
        to_frame(page, 300)
        self.assertLess(abs(brightness(page) - right), 3)

    def test_either_side_of_a_step_that_is_not_taken_the_pictures_differ_by_it(self) -> None:
        """A filter of three stops put on with locked settings: the mean brightness falls by its three stops."""
        page = self.open_demo("Market morning", chapter="Light")
        to_frame(page, 400)
        before = brightness(page)
        page.get_by_role("button", name="+ neutral density").click()
        type_over(page, "filter 1 is put on at", "300")
        expect(figure(page, "filter 1 is put on at")).to_have_text("300")
        after = brightness(page)
        # As the eye counts: three stops are 2^(3/2.2), with the darkest ink as black.
        ink, sheet = 45.0, 246.0
        share = ((after - ink) / (sheet - ink)) / ((before - ink) / (sheet - ink))
        self.assertLess(abs(np.log2(share) * 2.2 + 3), 0.8)
        to_frame(page, 200)
        self.assertLess(abs(brightness(page) - before), 15)

    def test_weather_that_nobody_counted_on_is_seen_too(self) -> None:
        page = self.open_demo(LAMPS, chapter="Light")
        to_frame(page, 230)
        planned = brightness(page)
        page.get_by_label("Weather in the finder").select_option("passing cloud")
        expect(page.get_by_text(re.compile(r"meter −?[\d.]+ EV, 2\.\d stops too dark"))).to_be_visible()
        self.assertLess(brightness(page), planned - 25)


class InTheDark(BrowserCase):
    def test_the_list_for_the_phone_counts_down_and_is_red_only(self) -> None:
        phone = {"viewport": {"width": 390, "height": 844}, "has_touch": True, "is_mobile": True}
        page = self.open_demo(LAMPS, chapter="Light", **phone)
        leaf(page, "The changes")
        page.get_by_role("link", name=re.compile("by hand in the dark")).click()
        expect(page.get_by_text("first frame planned 12 Sept")).to_be_visible()
        page.get_by_role("button", name="It starts now").click()
        expect(page.get_by_text("before frame 25")).to_be_visible()
        expect(page.locator(".big").first).to_have_text("1/40 s")
        expect(page.get_by_role("timer")).to_have_text(re.compile(r"^4:4\d$"))
        colours = page.evaluate(
            """() => [...document.querySelectorAll('main *, body')].flatMap(one => {
                const style = getComputedStyle(one);
                return [style.color, style.backgroundColor, style.borderBottomColor];
            })"""
        )
        for red, green, blue in (tuple(map(float, re.findall(r"[\d.]+", one)[:3])) for one in set(colours)):
            self.assertTrue(
                red >= green and green * 2.6 <= max(red, 1) * 1.01 and blue <= green + 1, (red, green, blue)
            )
        page.reload()
        expect(page.get_by_text("first frame taken at")).to_be_visible()
        page.get_by_role("button", name="By the plan again").click()
        page.get_by_role("link", name="to the sheet").click()
        self.assertEqual(page.evaluate("document.documentElement.dataset.look"), "paper")

    def test_the_card_has_every_change_with_its_minute(self) -> None:
        page = self.open_demo(LAMPS, chapter="Review")
        page.get_by_role("article", name="Field card").wait_for()
        sheets = printed(page)
        # What takes the words from the paper sometimes parts their letters.
        text = "".join(sheet.text for sheet in sheets).replace(" ", "")
        for said in ("Changes of setting", "frame 25, 19:24:48", "1/40 s", "frame 358, 20:31:24", "ISO 125"):
            self.assertIn(said.replace(" ", ""), text)

    def test_the_sky_of_another_night(self) -> None:
        page = self.open_demo(LAMPS, chapter="Light")
        leaf(page, "The sky")
        expect(page.locator("li", has_text="sunset")).to_contain_text("19:51")
        page.get_by_role("button", name="The next night").click()
        expect(page.get_by_text("the night of Sunday 13 September 2026")).to_be_visible()
        expect(page.locator("li", has_text="sunset")).to_contain_text("19:49")
        page.get_by_role("button", name="shoot on this night").click()
        expect(page.locator(".when")).to_contain_text("Sunday 13 September 2026, 19:20")
        chapter(page, "Clip")
        leaf(page, "On the clock")
        expect(figure(page, "time of sunset")).to_have_text("sunset")
