"""Five people and their own rigs, from nothing to the printed card; what each clicks and types is counted."""

import re
from typing import Any

from playwright.sync_api import Page, expect

from tests.browser.pages import BrowserCase, chapter, figure, settled
from tests.browser.printed import printed

SIXTEEN = "\n".join(f"{n:04b} {9 + 6 * n} min" for n in range(16))


class Hand:
    """One hand on the page: what it clicks and what it types is counted."""

    def __init__(self, page: Page) -> None:
        self.page, self.clicks, self.typed = page, 0, 0

    def click(self, name: str | re.Pattern[str], role: Any = "button") -> None:
        self.page.get_by_role(role, name=name, exact=isinstance(name, str)).first.click()
        self.clicks += 1

    def fix(self, name: str) -> None:
        """Press a fix and wait for what comes of it."""
        with self.page.expect_response(lambda answer: answer.url.endswith("/api/evaluate")):
            self.click(re.compile(f"^{name}"))

    def choose(self, label: str, option: str) -> None:
        self.page.get_by_label(label, exact=True).select_option(option)
        self.clicks += 1

    def tick(self, label: str, on: bool = True) -> None:
        self.page.get_by_label(label, exact=True).set_checked(on)
        self.clicks += 1

    def write(self, label: str, text: str) -> None:
        """Type over a figure of a card or a sheet."""
        figure(self.page, label).click()
        self.page.get_by_role("textbox", name=label, exact=True).fill(text)
        self.page.keyboard.press("Enter")
        expect(self.page.get_by_role("textbox", name=label, exact=True)).to_have_count(0)
        self.typed += 1

    def fill(self, label: str, text: str) -> None:
        field = self.page.get_by_label(label)
        field.fill(text)
        field.blur()
        self.typed += 1

    def card(self, like: str, name: str) -> None:
        """A new card, under a name of its own."""
        self.click("New card")
        self.click(like)
        self.fill("name of the card", name)
        expect(self.page.get_by_role("article", name=f"Card {name}")).to_be_visible()

    def shoot(self, kind: str, name: str) -> None:
        self.page.goto(self.page.url.partition("/kit")[0])
        self.click("New shoot")
        self.page.get_by_text(kind).click()
        self.clicks += 1
        self.fill("What is it called?", name)
        self.click("Make the sheet")
        expect(self.page.get_by_role("heading", name=name)).to_be_visible()

    def mend(self) -> None:
        """Take the first fix of whatever stops the shoot, as long as something does."""
        stops = self.page.locator(".margin .snag.stop")
        for _ in range(6):
            if not settled(self.page, stops.count, 200):
                return
            with self.page.expect_response(lambda answer: answer.url.endswith("/api/evaluate")):
                stops.first.get_by_role("button").first.click()
            self.clicks += 1

    def put_on(self, *names: str) -> None:
        chapter(self.page, "Rig")
        self.click("Put something on")
        for name in names:
            self.click(re.compile(f"^{re.escape(name)}"))
            expect(self.page.get_by_role("button", name=re.compile(f"^{re.escape(name)}.*on the rig"))).to_be_visible()
        self.page.keyboard.press("Escape")
        self.clicks += 2


class FiveWays(BrowserCase):
    def _printed(self, hand: Hand, *said: str) -> None:
        """The card that comes out of the printer says it; nothing stops the shoot."""
        page = hand.page
        chapter(page, "Review")
        hand.clicks += 1
        expect(page.get_by_role("heading", name=re.compile("^Ready"))).to_be_visible()
        page.get_by_text(re.compile("^saved")).first.wait_for()
        hand.clicks += 1
        text = re.sub(r"\s", "", printed(page)[0].text)
        for each in said:
            self.assertIn(re.sub(r"\s", "", each), text)
        self.assertEqual(re.findall("stepper|G-code|jog it", text), [])
        print(f"\n{self._testMethodName[5:]}: {hand.clicks} clicks, {hand.typed} typed")

    def test_a_home_made_belt_slider_with_sixteen_run_times(self) -> None:
        hand = Hand(self.page("/kit"))
        hand.card("rail with its drive", "my slider")
        hand.choose("drive", "stepped")
        hand.write("to", "1200")
        hand.click("write them all as lines")
        hand.page.get_by_role("textbox", name=re.compile("^a line for each switch position")).fill(SIXTEEN)
        hand.typed += 16
        hand.click("Take these")
        expect(figure(hand.page, "whole travel, 1111")).to_have_text("1 h 39 min")
        self.assertEqual(hand.page.get_by_label("top speed").count(), 0, "a switch of speeds has none")
        hand.shoot("sliding past something", "the weir")
        hand.put_on("tripod, three sections", "my slider", "full-frame body, 24 MP", "35 mm f", "wired interval remote")
        page = hand.page
        hand.mend()
        hand.fix("Plan with two starts")
        chapter(page, "Move")
        expect(page.get_by_text("let the rig find where it is")).to_have_count(0)
        self._printed(hand, "switch to", "start the my slider".replace("the my", "the my"), "stop it at")

    def test_a_kitchen_timer_and_a_phone(self) -> None:
        hand = Hand(self.page("/kit"))
        hand.card("wind-up timer or turntable", "kitchen timer")
        hand.write("turns", "6")
        hand.write("runs down after", "60 min")
        hand.shoot("turning on the spot", "the square")
        hand.put_on("kitchen timer", "phone with a timer app")
        hand.mend()
        hand.fix("Plan with two starts")
        self._printed(hand, "wind it fully", "alarm at", "stop it at", "start the kitchen timer")

    def test_a_bought_head_with_three_keyframes(self) -> None:
        hand = Hand(self.page("/kit"))
        hand.card("head, pan and tilt, with a menu or app", "my head")
        for axis in ("pan", "tilt"):
            hand.write(f"{axis}, keyframes at most", "3")
            hand.tick(f"{axis}, asks for a ramp")
        hand.choose("thread above", "1/4-20")
        hand.shoot("turning on the spot", "the ridge")
        hand.put_on("tripod, three sections", "my head", "full-frame body, 24 MP", "35 mm f")
        page = hand.page
        chapter(page, "Move")
        page.get_by_role("slider", name="Playhead on the span").focus()
        for _ in range(9):
            page.keyboard.press("Shift+ArrowRight")
        hand.click("+ keyframe at the playhead")
        hand.write("pan at keyframe 2", "6")
        hand.write("tilt at keyframe 2", "4")
        hand.write("tilt at keyframe 3", "2")
        self._printed(hand, "start −10°, 6° at frame", "end 10°; 360 frames; every 5 s", "ramp 25 frames in")

    def test_an_old_mount_with_a_rate_menu(self) -> None:
        hand = Hand(self.page("/kit"))
        hand.card("turning axis", "star mount")
        hand.choose("drive", "rated")
        hand.click("write them all as lines")
        lines = "slow 0.25\nfast 2"
        hand.page.get_by_role("textbox", name=re.compile("^a line for each speed key")).fill(lines)
        hand.typed += 2
        hand.click("Take these")
        hand.write("step of the setting", "0.5")
        hand.tick("runs while a button is held")
        hand.choose("thread above", "1/4-20")
        hand.shoot("turning on the spot", "the stars")
        hand.put_on("tripod, three sections", "star mount", "full-frame body, 24 MP", "35 mm f")
        hand.mend()
        hand.fix("Plan with two starts")
        self._printed(hand, "hold key", "nothing else stops it, set an alarm", "stop it at")

    def test_two_motors_on_two_apps(self) -> None:
        hand = Hand(self.page("/kit"))
        hand.card("rail with its drive", "app rail")
        hand.choose("drive", "bought")
        hand.choose("is told", "a speed")
        hand.write("at full speed it goes", "3600 mm/h")
        hand.choose("thread above", "3/8-16")
        hand.card("head, pan and tilt, with a menu or app", "app head")
        hand.choose("thread above", "1/4-20")
        hand.shoot("sliding past something", "the pier")
        hand.put_on("tripod, three sections", "app rail", "app head", "full-frame body, 24 MP", "35 mm f")
        hand.put_on("timer app of the phone")
        hand.mend()
        hand.fix("Plan with one that goes on by itself")
        expect(hand.page.locator(".margin [data-snag=clocks-not-tied]")).to_contain_text("app rail and app head")
        hand.fix("Plan with three starts")
        self._printed(hand, "Three clocks, three starts", "start the app rail", "start the app head", "speed")
