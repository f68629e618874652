"""The chapter Trigger: wires named with a meter, a chain joined wrong and right, the bench, the lamps, the run."""

import re

from playwright.sync_api import Page, expect

from tests.browser.pages import BrowserCase, chapter, figure, leaf, type_over
from tests.browser.printed import printed

LANTERN, FERN = "Lattice lantern", "Fern frond uncurling"


def end(page: Page, name: str) -> None:
    """Touch an end of the drawing."""
    page.get_by_role("button", name=re.compile(f"^{name}")).click()


def settled_question(page: Page) -> None:
    """Wait until the reading asked for follows from all that was typed and read."""
    expect(page.locator('[aria-busy="true"]')).to_have_count(0)


def heading(page: Page, text: str) -> None:
    """What the chapter says of the chain."""
    expect(page.get_by_role("heading", name=re.compile(f"^{text}"))).to_be_visible()


class Wires(BrowserCase):
    """Someone with a cut cable and a meter."""

    def test_the_meter_is_asked_for_until_every_wire_is_named(self) -> None:
        """The green wire is the ground, the brown one the shutter, blue the focus: whatever is asked is answered so."""
        page = self.open_demo(LANTERN, "Trigger")
        leaf(page, "Which wire is which")
        page.get_by_role("button", name="forget these wires").click()
        page.get_by_role("button", name="Name the wires").click()
        for number, name in enumerate(("green", "brown", "blue"), 1):
            page.get_by_label(f"wire {number}, as you call it").fill(name)
            page.get_by_label(f"wire {number}, as you call it").press("Enter")
        expect(page.get_by_label("wire 3, as you call it")).to_have_value("blue")
        pairs = {"rest": (), "half": ({"green", "blue"},), "full": ({"green", "blue"}, {"green", "brown"},
                 {"brown", "blue"})}  # fmt: skip
        for _ in range(12):
            group = page.get_by_role("group", name="the next reading")
            # What is asked belongs to the readings before it: it is read once these have been answered.
            settled_question(page)
            if not group.count():
                break
            asked = group.inner_text()
            if "volts" in asked:
                high, low = re.findall(r"on (\w+)", asked)[-2:]
                yes = low == "green" and high != "green"
            else:
                stage = "half" if "half press" in asked else "full" if "full press" in asked else "rest"
                yes = set(re.findall(r"green|brown|blue", asked)) in pairs[stage]
            readings = page.locator("ol li").count()
            group.get_by_role("button", name="Yes" if yes else "No", exact=True).click()
            expect(page.locator("ol li")).to_have_count(readings + 1)
        expect(page.get_by_text("All named.").first).to_be_visible()
        for number, role in enumerate(("ground", "shutter", "focus")):
            expect(
                page.get_by_role("list", name="the wires of the lead").locator("li").nth(number).locator("b")
            ).to_have_text(role)
        leaf(page, "The chain")
        heading(page, "Each press takes a frame")
        expect(page.locator("svg text", has_text="brown: shutter")).to_be_visible()
        # What closes at half press is closed at full press too: a reading that says otherwise is against the others.
        leaf(page, "Which wire is which")
        own = page.locator("details").first
        own.get_by_text("A reading of your own").click()
        own.get_by_label("one wire").select_option("green")
        own.get_by_label("the other wire").select_option("blue")
        own.get_by_label("when").select_option("at full press")
        own.get_by_role("button", name="No", exact=True).click()
        expect(page.get_by_role("alert")).to_contain_text("cannot all be true")


class Joined(BrowserCase):
    """Someone who solders."""

    def test_the_wrong_contact_is_told_before_it_is_soldered_and_what_is_printed_is_right(self) -> None:
        """The switch off the shutter: it focuses for ever; the fix joins it again, and the paper lists every joint."""
        page = self.open_demo(LANTERN, "Trigger")
        heading(page, "Each press takes a frame")
        end(page, "what fires: normally open")
        end(page, "camera: red: shutter")
        heading(page, "It focuses, and takes no frame")
        margin = page.get_by_role("complementary", name="Beat, totals and snags")
        expect(margin).to_contain_text("presses the focus contact of the small body, 20 MP and never its shutter")
        chapter(page, "Run")
        page.get_by_text("as fast as it goes").click()
        page.get_by_role("button", name=re.compile("Rehearse|Start")).first.click()
        expect(page.get_by_text(re.compile("No frame came of three presses: its focus contact closed"))).to_be_visible()
        expect(page.locator("[data-taken]")).to_have_attribute("data-taken", "0")
        page.get_by_role("button", name="Stop", exact=True).click()
        chapter(page, "Trigger")
        margin.get_by_role("button", name="Join it as it belongs").click()
        heading(page, "Each press takes a frame")
        (paper,) = printed(page)
        for joint in ("normally open (middle) to wire “red”", "normally open (middle) to wire “yellow”",
                      "common (left) to wire “white”"):  # fmt: skip
            self.assertIn(joint, paper.text)
        self.assertIn("red: shutter", paper.text)
        self.assertNotIn("Beat, totals", paper.text)
        # The lamps beside a chain are on the same sheet, each with its own circuit, in the words of the drawing.
        fern = self.open_demo(FERN, "Trigger")
        heading(fern, "Each press takes a frame")
        (paper,) = printed(fern)
        for words in ("half press pin to coupling, anode 2", "pin D6", "pin D5", "relay board, for 12 V and 2 A"):
            self.assertIn(words, paper.text)
        self.assertNotIn("Beat, totals", paper.text)
        self.assertGreater(paper.ink, 0.002)

    def test_ends_are_joined_with_the_keyboard(self) -> None:
        """Enter on one end and on the other; Escape lets go."""
        page = self.open_demo(LANTERN, "Trigger")
        loose = page.get_by_role("button", name="what fires: normally closed, joined to nothing")
        loose.press("Enter")
        expect(loose).to_have_attribute("aria-pressed", "true")
        loose.press("Escape")
        expect(loose).to_have_attribute("aria-pressed", "false")
        loose.press("Enter")
        page.get_by_role("button", name=re.compile("^camera: red: shutter")).press("Enter")
        heading(page, "The shutter is held down")
        page.get_by_role("button", name="undo").click()
        heading(page, "Each press takes a frame")


class Bench(BrowserCase):
    """The bench, with the simulated camera and the real one."""

    def test_what_came_is_put_down_and_grows_old_with_the_chain(self) -> None:
        page = self.open_demo(LANTERN, "Trigger")
        leaf(page, "On the bench")
        ten = page.locator(".step", has_text="Ten more")
        expect(ten).to_contain_text("not passed, 4 Oct 2026: 9 of 10 came")
        ten.get_by_role("button", name="try it").click()
        ten.get_by_text("misses some").click()
        ten.get_by_role("button", name="Press 10 times").click()
        expect(ten.get_by_role("status")).to_contain_text("9 of 10 came; the first that did not: press 3")
        ten.get_by_label("with the real one: frames on its counter").fill("10")
        ten.get_by_role("button", name="Put it down", exact=True).click()
        expect(ten).to_contain_text("passed")
        expect(page.get_by_role("heading", name=re.compile("3 of 4 passed"))).to_be_visible()
        # Two of 350 may be missed, with a certainty of 90 %: ln 0.1 over ln (1 - 2/350).
        expect(page.locator(".step", has_text="As many as make it sure")).to_contain_text("402")
        leaf(page, "The chain")
        type_over(page, "pressed for", "0.3")
        leaf(page, "On the bench")
        expect(page.locator(".step", has_text="Ten presses")).to_contain_text("passed with another chain: once more")
        chapter(page, "Review")
        card = page.locator("body")
        expect(card).to_contain_text("one press, ten presses and with the rig: older than a change of the chain")


class Lamps(BrowserCase):
    """Lamps for the frame alone."""

    def test_a_lamp_for_the_frame_alone_saves_what_it_says(self) -> None:
        """350 frames in 35 601 s; lit each time for the two seconds that it takes, the lag and the exposure."""
        page = self.open_demo(LANTERN, "Trigger")
        leaf(page, "Lamps")
        page.get_by_text("for the frame alone").click()
        margin = page.get_by_role("complementary", name="Beat, totals and snags")
        expect(margin).to_contain_text("has to be switched 2 s ahead of the shutter")
        margin.get_by_role("button", name="Give the beat 1.92 s for it").click()
        expect(margin).not_to_contain_text("ahead of the shutter")
        expect(margin).to_contain_text("lamps warm up")
        share = (2 + 0.25) / (35_600.85 / 350)
        expect(page.get_by_role("button", name=re.compile("^share of the time that it is lit"))).to_have_text(
            f"{share * 100:.3g} %"
        )
        saved = 24 * (1 - share) * 35_600.85 / 3600
        expect(page.get_by_role("button", name=re.compile("^energy saved"))).to_have_text(f"{saved:.3g} Wh")
        leaf(page, "The chain")
        expect(page.get_by_role("img", name=re.compile("pair of bench lamps from 0 s to"))).to_be_visible()


class FromNothing(BrowserCase):
    """A new sheet, and no word about wires until there are any."""

    def test_a_switch_is_put_in_and_drawn(self) -> None:
        page = self.page("/")
        page.keyboard.press("n")
        page.get_by_label("What is it called?").fill("A switch")
        page.get_by_role("button", name=re.compile("sheet")).last.click()
        page.get_by_role("navigation", name="Chapters").wait_for()
        chapter(page, "Trigger")
        heading(page, "Nothing is chosen yet that tells the camera")
        for card in ("small body, 20 MP", "lever switch in a housing"):
            page.get_by_role("button", name="Put something into the chain").click()
            page.get_by_role("dialog").get_by_role("button", name=card).click()
            page.keyboard.press("Escape")
        heading(page, "Each press takes a frame")
        expect(figure(page, "pressed for")).to_have_text("0.2 s")
        expect(page.locator("svg text", has_text="normally closed")).to_be_visible()
